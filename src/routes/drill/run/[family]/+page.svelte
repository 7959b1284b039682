<script lang="ts">
	/** One drill after another, without the server once it is open. */
	import { onMount } from 'svelte';
	import { page } from '$app/state';
	import { canLookBad } from '$core/drawings/at';
	import { type Handed, handOver, type Level } from '$core/drill/hand-over';
	import { type DrillAnswer, type DrillScore, scoreDrill } from '$core/drill/score';
	import { freshId } from '$lib/fresh-id';
	import Debrief from '$lib/ui/drill/Debrief.svelte';
	import DrillRun from '$lib/ui/drill/DrillRun.svelte';
	import Kept from '$lib/ui/drill/Kept.svelte';
	import { outbox } from '$lib/ui/outbox/outbox.svelte';

	let { data } = $props();
	const mode = $derived(page.url.searchParams.get('mode') === 'drill' ? 'drill' : 'learn');
	const level = $derived.by((): Level => {
		const asked = page.url.searchParams.get('level');
		return asked === '2' ? 2 : asked === '3' ? 3 : 1;
	});
	let id = $state('');
	let handed = $state.raw<Handed | null>(null);
	let score = $state.raw<DrillScore | null>(null);
	/** Kinds of this sitting that were met already: the next drill brings others first. */
	let met = $state.raw<string[]>([]);
	let heading: HTMLHeadingElement | undefined = $state();

	function begin() {
		id = freshId();
		score = null;
		handed = handOver({
			procedure: data.procedure,
			seed: crypto.getRandomValues(new Uint32Array(1))[0] ?? 1,
			level,
			favour: data.favour.filter((kind) => !met.includes(kind)),
			canBeNear: (step) => canLookBad(data.procedure.family, step)
		});
	}
	onMount(begin);

	function end(answers: DrillAnswer[], seconds: number) {
		if (!handed) return;
		score = scoreDrill(data.procedure, handed, answers, seconds);
		met = [...met, ...score.steps.flatMap(({ kind }) => (kind ? [kind] : []))];
		outbox.put({
			id,
			about: `drill:${id}`,
			name: 'Drill',
			says: `${data.procedure.name}, ${score.index} of 100`,
			url: '/api/drill/sessions',
			body: {
				id,
				mode,
				procedure: data.procedure.key,
				version: data.procedure.version,
				handed,
				answers,
				seconds
			}
		});
		setTimeout(() => heading?.focus());
	}
	function key(event: KeyboardEvent) {
		if (!score || event.key !== 'Enter') return;
		if ((event.target as HTMLElement).closest('a, button, input')) return;
		event.preventDefault();
		begin();
	}
</script>

<svelte:head><title>Drill, {data.procedure.name} · Grevan</title></svelte:head>
<svelte:window onkeydown={key} />
<div class="mt-3 flex flex-wrap items-baseline gap-x-4">
	<h1 bind:this={heading} tabindex="-1">
		{score ? 'How it went' : data.procedure.name}
	</h1>
	<p class="text-soft">
		{mode === 'learn' ? 'Learn: it says why after every step' : 'Drill: it says so at the end'}
	</p>
	<a class="linkish ml-auto inline-flex min-h-11 items-center" href="/drill">Leave</a>
</div>
{#if score && handed}
	<Debrief procedure={data.procedure} {handed} {score} medianSeconds={data.medianSeconds} />
	<p class="mt-4 flex flex-wrap items-center gap-4">
		<button type="button" class="button primary" onclick={begin}>Another <kbd>Enter</kbd></button>
		<Kept {id} />
	</p>
{:else if handed}
	{#key id}<DrillRun {id} procedure={data.procedure} {handed} {mode} onend={end} />{/key}
{/if}
