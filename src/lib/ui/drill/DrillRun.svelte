<script lang="ts">
	/** The real runner over an item that was handed over by the trainer: the same line, keys and codes. */
	import { untrack } from 'svelte';
	import { ZONE_NAMES } from '$core/airway/airway';
	import { airwayOf, stationOf } from '$core/data/families';
	import { DRILL_LIMITS, type Handed } from '$core/drill/hand-over';
	import { canBeMet } from '$core/drill/kinds';
	import type { DrillMode } from '$core/drill/modes';
	import { type DrillAnswer, scoreStep } from '$core/drill/score';
	import type { Procedure } from '$core/inspection/procedure';
	import { readingText } from '$core/inspection/reading';
	import Airway from '../airway/Airway.svelte';
	import { marksOfAnswers } from '../airway/item-marks';
	import AnswerBar from '../run/AnswerBar.svelte';
	import ReadingStep from '../run/ReadingStep.svelte';
	import { type GivenAnswer, RunSession } from '../run/session.svelte';
	import StepSheet from '../run/StepSheet.svelte';
	import { hearsKeys } from '../shell/keys.svelte';
	import { serverClock } from '../timer/clock.svelte';
	import { drillSender } from './drill-sender.svelte';
	import Feedback from './Feedback.svelte';
	import FindHere from './FindHere.svelte';

	interface Props {
		id: string;
		procedure: Procedure;
		handed: Handed;
		mode: DrillMode;
		onend: (answers: DrillAnswer[], seconds: number) => void;
	}
	let { id, procedure, handed, mode, onend }: Props = $props();
	/** A hold of a minute takes six seconds here. */
	const FASTER = 10;
	const began = untrack(() => serverClock.now);
	const now = () => began + (serverClock.now - began) * FASTER;
	/** What can be looked at, felt or read; what is only confirmed is left out, and nobody else is needed. */
	const list = $derived({
		...procedure,
		steps: procedure.steps.filter(canBeMet).map((step) => ({ ...step, secondPerson: false }))
	});
	let last = $state<GivenAnswer | null>(null);
	const session = new RunSession(
		() => ({ id, procedure: list, closed: false, worked: false, timers: [], limits: DRILL_LIMITS }),
		drillSender(
			(given) => (last = given.value === 'cleared' ? null : given),
			(answers) =>
				onend(
					answers.map(({ step, value, code, readings }) => ({ step, value, code, readings })),
					Math.round((serverClock.now - began) / 1000)
				)
		),
		now,
		[]
	);
	session.ready();
	const { run, step, answered, choosing, timer, standing } = $derived(session);
	const airway = $derived(airwayOf(procedure.family));
	const marks = $derived(marksOfAnswers(list, standing));
	const station = $derived(step ? stationOf(procedure.family, step.station) : null);
	/** In learning, why at once. */
	const told = $derived.by(() => {
		const given = last;
		if (mode !== 'learn' || !given) return null;
		const of = list.steps.find(({ key }) => key === given.step);
		return of ? { step: of, scored: scoreStep(list, handed, of, given) } : null;
	});
	const held = $derived(timer ? Math.max(0, (now() - timer.startedAt.getTime()) / 1000) : null);
	hearsKeys(() => [
		{ keys: '1', does: 'good' },
		{ keys: '2', does: 'reject, then the number of the code' },
		{ keys: '3', does: 'not fitted' },
		{ keys: 'Enter', does: 'next; at the end: done' },
		{ keys: '← →', does: 'walk along the air' },
		{ keys: 'U', does: 'take the last answer back' }
	]);
</script>

<svelte:window onkeydown={(event) => session.keys(event)} />
<div class="flex flex-col">
	<div class="mt-3 max-md:order-last max-md:pb-48">
		<Airway
			stations={airway.stations}
			{marks}
			label="Airway, with what was answered at each station"
			current={step?.station ?? null}
			onchoose={(key) => session.goTo(key)}
		/>
	</div>
	{#if told}<section aria-label="The step before" aria-live="polite" class="mt-2 bg-tint px-3">
			<Feedback family={procedure.family} step={told.step} scored={told.scored} {handed} />
		</section>{/if}
	<section aria-labelledby="step" class="mt-2 min-h-[19rem] md:pb-40 lg:pb-28">
		{#if step && station}
			<p class="text-soft">
				Step {list.steps.findIndex(({ key }) => key === step.key) + 1} of {run.total} · {ZONE_NAMES[
					station.zone
				]}
			</p>
			<h2 id="step" class="text-[2rem]! leading-tight text-ink!" aria-live="polite">
				{step.title}
			</h2>
			<p class="mt-1 max-w-[40rem] text-[1.2rem]">{step.action}</p>
			<StepSheet
				family={procedure.family}
				{step}
				{choosing}
				pictures={mode === 'learn'}
				onreject={(code) => session.give('reject', code)}
				onnone={() => (session.choosing = false)}
			>
				{#snippet lead()}
					<FindHere family={procedure.family} {step} {handed} {held} />
					{#if step.reading}
						{#key step.key}<ReadingStep
								ear={false}
								{step}
								limits={DRILL_LIMITS}
								{timer}
								bench={null}
								tag="drill"
								answered={answered?.readings ?? null}
								onread={(readings) => session.read(readings)}
								onstart={(start) => session.startHold(start)}
								{now}
								timedHere="Ten times as fast as at the bench."
							/>{/key}
					{/if}
				{/snippet}
				{#if answered}<p class="mt-3 text-soft">
						Answered: {answered.readings
							? `${readingText(answered.readings)}, `
							: ''}{answered.value}{answered.code ? `, ${answered.code}` : ''}
					</p>{/if}
			</StepSheet>
		{:else if run.complete}
			<p class="text-soft">All {run.total} steps have an answer</p>
			<h2 id="step" class="text-[2rem]! leading-tight text-ink!">Done: see how it went</h2>
			<p class="mt-1 max-w-[40rem] text-[1.1rem]">
				Go back along the line first if something should be looked at again.
			</p>
		{:else}
			<h2 id="step" class="text-[1.6rem]! text-ink!">{run.left.length} steps left</h2>
		{/if}
	</section>
</div>
{#if session.active}
	<AnswerBar
		{step}
		ready={run.complete && !step}
		done={run.done}
		{choosing}
		blocked={false}
		signs="Done"
		onsign={() => session.sign()}
		ongood={() => session.give('good')}
		onreject={() => (session.choosing = !session.choosing)}
		onabsent={() => session.give('not fitted')}
		onundo={() => session.undo()}
	/>
{/if}
