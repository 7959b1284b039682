<script lang="ts">
	/** An exam begins beside a supervisor, who says who they are on this device. */
	import { untrack } from 'svelte';
	import { freshId } from '$lib/fresh-id';
	import WhoForm from '$lib/ui/form/WhoForm.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';

	let { data, form } = $props();
	const id = freshId();
	let family = $state(untrack(() => data.families[0]?.family ?? ''));
	let level = $state('2');
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
</script>

<svelte:head><title>Exam · Grevan</title></svelte:head>
<h1 class="mt-3">Exam</h1>
<p class="max-w-[44rem] text-soft">
	Counted, and kept for good: what is handed over is fixed when the supervisor says that it begins.
	It is passed with 75 of 100 points and no fault let through that stops an item.
</p>
<div class="mt-4 grid max-w-[46rem] gap-x-10 gap-y-6 md:grid-cols-2">
	<div class="grid content-start gap-4">
		<label
			><span class="label">On what</span><select bind:value={family} class="w-full"
				>{#each data.families as one (one.family)}<option value={one.family}>{one.plural}</option
					>{/each}</select
			></label
		>
		<label
			><span class="label">How hard</span><select bind:value={level} class="w-full"
				><option value="2">Mixed: none to three faults, half gone</option><option value="3"
					>Fine: none to four, hardly begun</option
				></select
			></label
		>
		<Notice kind="caution"
			><p>The exam is evidence for an authorisation. It gives none: a supervisor does.</p></Notice
		>
	</div>
	<section aria-labelledby="beside">
		<h2 id="beside">The supervisor who stands here</h2>
		<div class="mt-2">
			<WhoForm action="/drill/exam" fields={{ id, family, level }} refused={refusal} />
		</div>
	</section>
</div>
