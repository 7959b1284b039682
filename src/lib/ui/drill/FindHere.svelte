<script lang="ts">
	/** What is found at a step of a drill: drawn, felt, or on the gauge of the simulated set. Never said what it means. */
	import { dial } from '$core/drawings/dials';
	import type { Handed } from '$core/drill/hand-over';
	import type { Step } from '$core/inspection/procedure';
	import Drawing from '../drawings/Drawing.svelte';
	import Marks from '../drawings/Marks.svelte';
	import { findAt } from './find';

	interface Props {
		family: string;
		step: Step;
		handed: Handed;
		/** Seconds of a hold that have gone; null before it began. */
		held: number | null;
	}
	let { family, step, handed, held }: Props = $props();
	const found = $derived(findAt(family, step, handed));
	const vary = $derived(handed.vary[step.key]);
	const shown = $derived(handed.readings[step.key]);
	const TOP = { fill: 300, hold: 300, whistle: 300, inlet: 12, medium: 12 } as const;
	/** Warm air cools a little at first, whatever leaks: the needle falls by so much, bar, and no further. */
	const COOLS_BAR = 1.5;
	const pressure = $derived.by(() => {
		if (!shown || !step.reading) return null;
		if (step.reading.kind !== 'hold') return shown.value ?? null;
		const [start = 0, end = 0] = [shown.start, shown.end];
		if (held === null) return start;
		const share = Math.min(1, held / (step.reading.seconds ?? 60));
		const cooled = Math.min(COOLS_BAR, start - end) * (1 - Math.exp(-6 * share));
		return share >= 1 ? end : start - cooled - (start - end - cooled) * share;
	});
	const saying = $derived(
		step.reading?.kind === 'whistle'
			? 'it sounds here'
			: step.reading?.kind === 'hold'
				? 'air shut off'
				: ''
	);
</script>

<section aria-label="What you find" class="border-2 border-ink bg-sheet p-3">
	<h2>What you find</h2>
	{#if pressure !== null && step.reading}
		{@const top = TOP[step.reading.kind]}
		<figure class="max-w-[19rem]">
			<Marks
				marks={dial(Math.min(1, pressure / top), null, saying, top)}
				label="The gauge stands at {pressure.toFixed(top > 20 ? 0 : 1)} bar"
			/>
			<figcaption class="text-center font-mono text-[1.4rem]">
				{pressure.toFixed(top > 20 ? 0 : 1)} <span class="text-[0.9rem]">bar</span>
			</figcaption>
		</figure>
	{:else}
		<div class="flex flex-wrap gap-4">
			{#each found.seen as { subject, what } (subject)}<Drawing
					{subject}
					{what}
					{vary}
					class="max-w-[14.5rem]"
				/>{/each}
		</div>
		{#if found.felt.length}<ul class="mt-2">
				{#each found.felt as line (line)}<li class="py-0.5">{line}</li>{/each}
			</ul>{/if}
	{/if}
</section>
