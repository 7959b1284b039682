<script lang="ts">
	/** Of the step before: what was right, what it was, why it matters. */
	import { findShown, subjectsAt } from '$core/drawings/at';
	import { FELT } from '$core/data/felt';
	import { rejectCode } from '$core/data/reject-codes';
	import type { Handed } from '$core/drill/hand-over';
	import type { ScoredStep } from '$core/drill/score';
	import type { Step } from '$core/inspection/procedure';
	import Drawing from '../drawings/Drawing.svelte';
	import StateMark from '../mark/StateMark.svelte';
	import { resultWords } from './results';

	interface Props {
		family: string;
		step: Step;
		scored: ScoredStep;
		handed: Handed;
		/** How often others miss it, in words. */
		others?: string | null;
	}
	let { family, step, scored, handed, others = null }: Props = $props();
	const right = $derived(scored.result === 'found' || scored.result === 'left alone');
	const shown = $derived(scored.truth ? findShown(family, step.station, scored.truth) : undefined);
	const subject = $derived(
		shown && 'subject' in shown
			? shown.subject
			: scored.near
				? subjectsAt(family, step)[0]
				: undefined
	);
	const vary = $derived(handed.vary[step.key]);
</script>

<div class="flex flex-wrap gap-x-6 gap-y-2 py-2">
	<div class="min-w-[16rem] flex-1">
		<p class="flex items-start gap-2 text-[1.1rem]">
			<span class="mt-1"><StateMark state={right ? 'good' : 'reject'} /></span>
			<span><b>{step.title}: {resultWords(scored)}</b></span>
		</p>
		{#if scored.truth}
			<p>
				It is: {rejectCode(scored.truth).name} (<span class="tag">{scored.truth}</span>, {rejectCode(
					scored.truth
				).severity}).{#if scored.said && scored.said !== scored.truth}
					Said was: {rejectCode(scored.said).name}.{/if}
				{FELT[scored.truth] && shown && 'felt' in shown ? FELT[scored.truth]?.found : ''}
			</p>
		{:else if scored.said}
			<p>
				Said was: {rejectCode(scored.said).name}. {scored.near
					? 'It only looks like a fault.'
					: 'Nothing is wrong with it.'}
			</p>
		{/if}
		{#if !right || scored.truth}<p class="text-soft">{step.why}</p>{/if}
		{#if others}<p class="text-soft">{others}</p>{/if}
	</div>
	{#if subject && !step.reading && (scored.truth || scored.said)}
		<figure class="w-[10rem]">
			<Drawing {subject} />
			<figcaption class="text-center text-[0.9rem]">good</figcaption>
		</figure>
		<figure class="w-[10rem]">
			<Drawing {subject} what={scored.truth ?? (scored.near ? 'near' : null)} {vary} />
			<figcaption class="text-center text-[0.9rem]">
				{scored.truth ? 'what it was' : 'what it was: no fault'}
			</figcaption>
		</figure>
	{/if}
</div>
