<script lang="ts">
	/** What a drill came to: the line with each miss on it, then each with what it was. */
	import { airwayOf } from '$core/data/families';
	import type { Handed } from '$core/drill/hand-over';
	import type { DrillScore } from '$core/drill/score';
	import type { Procedure } from '$core/inspection/procedure';
	import Airway, { type StationMark } from '../airway/Airway.svelte';
	import { minutesAndSeconds } from '../timer/clock.svelte';
	import Feedback from './Feedback.svelte';

	interface Props {
		procedure: Procedure;
		handed: Handed;
		score: DrillScore;
		/** Seconds that passed inspections of this family take in the middle. */
		medianSeconds: number | null;
		/** How often others miss a kind, in words. */
		others?: Record<string, string>;
	}
	let { procedure, handed, score, medianSeconds, others = {} }: Props = $props();
	const airway = $derived(airwayOf(procedure.family));
	const stepOf = (key: string) => procedure.steps.find((one) => one.key === key);
	const told = $derived(
		score.steps.filter(
			({ result, near, truth }) => truth !== null || result !== 'left alone' || near
		)
	);
	const marks = $derived.by(() => {
		const all: Record<string, StationMark> = {};
		for (const one of score.steps) {
			const station = stepOf(one.step)?.station ?? '';
			const wrong = one.result !== 'found' && one.result !== 'left alone';
			const mark: StationMark = wrong
				? { mark: 'reject', says: one.result }
				: one.result === 'found'
					? { mark: 'watch', says: 'found' }
					: { mark: 'good' };
			const rank = { good: 0, watch: 1, reject: 2, open: 0, 'not fitted': 0 };
			const before = all[station];
			if (!before || rank[mark.mark] > rank[before.mark]) all[station] = mark;
		}
		return all;
	});
	const faults = $derived(handed.faults.length);
</script>

<p class="text-[1.25rem]">
	<b>{score.index} of 100.</b>
	{faults === 0
		? 'There was nothing to find.'
		: `${score.found + score.wrongCodes} of ${faults} ${faults === 1 ? 'fault' : 'faults'} found${score.wrongCodes ? `, ${score.wrongCodes} for the wrong reason` : ''}.`}
	{score.falseRejects === 0
		? 'Nothing good was rejected.'
		: `${score.falseRejects} good ${score.falseRejects === 1 ? 'place was' : 'places were'} rejected.`}
	{#if score.misread}{score.misread}
		{score.misread === 1 ? 'figure was' : 'figures were'} misread.{/if}
</p>
<p class="text-soft">
	{minutesAndSeconds(Math.round(score.seconds))} min{medianSeconds
		? `; passed inspections here take ${minutesAndSeconds(Math.round(medianSeconds))} min in the middle`
		: ''}{score.outOfOrder ? `. ${score.outOfOrder} times against the air` : '. Along the air'}.
</p>
<div class="mt-3">
	<Airway stations={airway.stations} {marks} label="The airway, with what was missed" />
</div>
<ul class="mt-3">
	{#each told as one (one.step)}
		{@const step = stepOf(one.step)}
		{#if step}<li class="border-t border-rule">
				<Feedback
					family={procedure.family}
					{step}
					scored={one}
					{handed}
					others={one.kind ? (others[one.kind] ?? null) : null}
				/>
			</li>{/if}
	{:else}<li>Every place was good, and every place was left alone.</li>{/each}
</ul>
