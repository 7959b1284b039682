<script lang="ts">
	/** A step that a reading answers: one figure, or a hold with its clock. The core judges what is typed. */
	import { untrack } from 'svelte';
	import type { GaugeDial } from '$core/dial/model';
	import type { Step } from '$core/inspection/procedure';
	import {
		judgeReading,
		readingSuspicion,
		readingText,
		type ReadingFacts,
		type Readings
	} from '$core/inspection/reading';
	import { couldBeOwn } from '$core/listen/listens';
	import { figureAtOnset, type GaugeMoment, type OnsetFigure } from '$core/listen/onset-figure';
	import { InputError } from '$core/verdict';
	import Because from '$lib/ui/because/Because.svelte';
	import { typedNumber } from '$lib/ui/form/number';
	import Reading from '$lib/ui/reading/Reading.svelte';
	import { besideHere } from '$lib/ui/reading/site-units';
	import { minutesAndSeconds, secondsLeft, serverClock } from '$lib/ui/timer/clock.svelte';

	import WhistleListener from '$lib/ui/listen/WhistleListener.svelte';
	import BenchGauge from './BenchGauge.svelte';

	interface Props {
		step: Step;
		/** What of the item the reading is judged against. */
		limits: ReadingFacts;
		timer: { startReading: number; seconds: number; startedAt: Date } | null;
		/** Address of the bench for this inspection; null without one. */
		bench: string | null;
		tag: string;
		/** What stands as the answer. */
		answered: Readings | null;
		onread: (readings: Readings) => void;
		onstart: (start: number) => Promise<void>;
		/** The clock that a hold runs on; the server's where nothing is said. */
		now?: () => number;
		/** The gauge as the camera reads it; null: nothing is written of it. */
		dial?: GaugeDial | null;
		/** The device may listen for the whistle; not where the set is a drawn one. */
		ear?: boolean;
		/** What is said while a hold runs that this device times. */
		timedHere?: string;
	}
	let {
		step,
		limits,
		timer,
		bench,
		tag,
		answered,
		onread,
		onstart,
		now = () => serverClock.now,
		dial = null,
		ear = true,
		timedHere = 'The server is away: timed by this device, and said so in the record.'
	}: Props = $props();
	let text = $state('');
	let box: HTMLElement | undefined = $state();
	let field: HTMLInputElement | undefined = $state();
	/** The figure was meant as typed, although it fits another unit better. */
	let meant = $state<number | null>(null);
	const rule = $derived(step.reading);
	/** Medium pressure stands on another gauge. */
	const onGauge = $derived(rule && rule.kind !== 'medium' && rule.kind !== 'inlet');
	let looking = $state(false);
	/** What the bench showed while the set was let down, the last minute of it. */
	let fall: GaugeMoment[] = [];
	let atOnset = $state.raw<OnsetFigure | null>(null);
	let anothers = $state<number | null>(null);
	function fell(bar: number) {
		fall = [...fall.slice(-600), { atS: performance.now() / 1000, bar }];
	}
	function whistled(agoS: number) {
		const figure = figureAtOnset(fall, performance.now() / 1000 - agoS);
		// A whistle far from where this set can whistle is that of the next bench.
		anothers = figure && !couldBeOwn(figure.bar) ? figure.bar : null;
		atOnset = anothers === null ? figure : null;
		if (atOnset) text = String(Math.round(atOnset.bar * 10) / 10);
		field?.focus();
	}
	const hold = $derived(rule?.kind === 'hold');
	const left = $derived(timer ? secondsLeft(timer.startedAt, timer.seconds, now()) : null);
	const running = $derived(left !== null && left > 0);
	const typed = $derived.by(() => {
		const value = typedNumber(text);
		return Number.isFinite(value) ? value : null;
	});
	const suspicion = $derived(
		rule && typed !== null && typed !== meant ? readingSuspicion(rule, typed, limits) : undefined
	);
	const readings = $derived.by((): Readings | null => {
		if (typed === null) return null;
		if (!hold) return { value: typed };
		if (!timer || running) return null;
		const seconds = Math.floor((now() - new Date(timer.startedAt).getTime()) / 1000);
		return { start: timer.startReading, end: typed, seconds };
	});
	const judged = $derived.by(() => {
		const read = readings;
		if (!read) return null;
		try {
			return {
				...judgeReading(step, read, limits),
				refusal: null
			};
		} catch (error) {
			if (error instanceof InputError) return { refusal: error.message, reasons: [], value: null };
			throw error;
		}
	});
	// A finished clock asks for the reading at once.
	$effect(() => {
		void step.key;
		if (!running) untrack(() => setTimeout(() => field?.focus()));
	});

	/** A figure that was read for the person, who takes it with Enter. */
	function take(bar: number) {
		text = String(bar);
		field?.focus();
	}

	function submit(event: SubmitEvent) {
		event.preventDefault();
		// Never guessed and never taken in silence: the person says which it was.
		if (suspicion) return;
		if (hold && !timer) {
			if (typed === null) return;
			void onstart(typed).then(() => (text = ''));
			return;
		}
		if (readings && judged && !judged.refusal) {
			onread(readings);
			text = '';
			looking = false;
		}
	}
</script>

<div bind:this={box} class="mt-4 max-w-[40rem] scroll-mt-2 border-2 border-ink bg-sheet p-4">
	{#if running && timer}
		<Reading
			label="Hold, started at {timer.startReading} bar"
			value={minutesAndSeconds(left ?? 0)}
			limit="then read the gauge again"
		/>
		<p class="text-soft mt-2">
			{'id' in timer
				? 'Runs on the server’s clock: you may look at another item meanwhile.'
				: timedHere}
		</p>
	{:else}
		{#if rule?.kind === 'whistle' && ear}<WhistleListener
				onlisten={() => box?.scrollIntoView({ block: 'start' })}
				onheard={whistled}
				figure={atOnset}
			/>{#if anothers !== null}<p class="mb-3 font-semibold text-due" role="status">
					A whistle at {anothers.toFixed(0)} bar is not this set’s: the next bench? Go on listening.
				</p>{/if}{/if}
		<form onsubmit={submit} class="flex flex-wrap items-end gap-4">
			<div>
				<label class="label" for="reading"
					>{hold
						? timer
							? `${rule?.label} after ${timer.seconds} s`
							: `${rule?.label} before the hold`
						: rule?.label}, bar</label
				>
				<input
					id="reading"
					bind:this={field}
					bind:value={text}
					inputmode="decimal"
					autocomplete="off"
					class="w-36 text-right font-mono text-[1.8rem]! font-semibold"
				/>
			</div>
			<button class="button primary"
				>{hold && !timer ? `Start ${rule?.seconds} s` : 'Take the reading'} <kbd>Enter</kbd></button
			>
			{#if timer}<span class="text-soft"
					>from {timer.startReading} bar{besideHere(timer.startReading, 'bar')
						? `, ${besideHere(timer.startReading, 'bar')}`
						: ''}</span
				>{/if}
			{#if typed !== null && besideHere(typed, 'bar')}<span class="text-soft"
					>{besideHere(typed, 'bar')}</span
				>{/if}
		</form>
		{#if bench}<BenchGauge
				{bench}
				{tag}
				step={step.key}
				whistle={rule?.kind === 'whistle'}
				onfigure={take}
				onfall={fell}
			/>{/if}
		{#if dial && onGauge}
			{#if looking}{#await import('$lib/ui/camera/DialReader.svelte') then { default: DialReader }}<DialReader
						{dial}
						onfigure={take}
						onclose={() => {
							looking = false;
							field?.focus();
						}}
					/>{/await}
			{:else}<p class="mt-3">
					<button type="button" class="button" onclick={() => (looking = true)}
						>Read the gauge with the camera</button
					>
				</p>{/if}
		{/if}
		{#if suspicion}<p class="mt-2 text-due" role="status">
				{typed} does not fit here. In {suspicion.unit} it would be {suspicion.bar.toFixed(0)} bar:
				<button
					type="button"
					class="linkish"
					onclick={() => {
						text = String(Math.round((suspicion?.bar ?? 0) * 10) / 10);
						field?.focus();
					}}>take {suspicion.bar.toFixed(0)} bar</button
				>
				or
				<button
					type="button"
					class="linkish"
					onclick={() => {
						meant = typed;
						field?.focus();
					}}>it is {typed} bar</button
				>
			</p>{/if}
		{#if judged?.refusal}<p class="mt-2 font-semibold text-held" role="alert">{judged.refusal}</p>
		{:else if judged?.value}<p
				class="mt-2 font-semibold {judged.value === 'good' ? 'text-ready' : 'text-held'}"
				role="status"
			>
				{judged.value === 'good' ? 'Within: ' : 'Reject: '}{judged.reasons[0]?.text}
				<Because title={step.title} reasons={judged.reasons} />
			</p>{/if}
	{/if}
	{#if answered}<p class="text-soft mt-2">Answered with {readingText(answered)}.</p>{/if}
</div>
