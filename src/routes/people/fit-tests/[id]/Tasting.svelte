<script lang="ts">
	/** A qualitative test: whether the agent is noticed at all, then the movements with the mask on, by the clock. */
	import { onMount } from 'svelte';
	import {
		DOSE_EVERY_S,
		type FitAgent,
		QUALITATIVE_EXERCISES,
		qualitativeNow,
		SCREENING_SQUEEZES,
		squeezesFor
	} from '$core/fit/agents';
	import { enhance } from '$lib/ui/form/enhance';

	interface Props {
		data: {
			session: {
				id: string;
				endedAt: Date | null;
				begunAt: Date | null;
				squeezes: number | null;
				noticedAt: string | null;
			};
			agent: FitAgent | null;
			mayTest: boolean;
			serverNow: number;
		};
	}
	let { data }: Props = $props();
	const { session } = $derived(data);
	/** The clock of the server, as far as this page knows it. */
	let ahead = 0;
	let at = $state(0);
	onMount(() => {
		ahead = data.serverNow - Date.now();
		const tick = () => (at = Date.now() + ahead);
		tick();
		const timer = setInterval(tick, 250);
		return () => clearInterval(timer);
	});
	const now = $derived(
		session.begunAt
			? qualitativeNow(((at || data.serverNow) - session.begunAt.getTime()) / 1000)
			: null
	);
	const dose = $derived(
		data.agent?.squeezed && session.squeezes ? squeezesFor(session.squeezes) : null
	);
	/** Seconds since the last dose was due: it is called out for a while. */
	const sinceDose = $derived(
		session.begunAt
			? (((at || data.serverNow) - session.begunAt.getTime()) / 1000) % DOSE_EVERY_S
			: 0
	);
</script>

{#if data.agent}
	{#if !session.endedAt && session.squeezes === null}
		<h2>First: is it noticed at all?</h2>
		<p class="mt-1 max-w-[44rem] text-[1.1rem]">{data.agent.screening}</p>
		{#if data.agent.caution}<p class="mt-1 font-semibold text-held">{data.agent.caution}</p>{/if}
		{#if data.mayTest}
			<form method="post" action="?/screened" class="mt-4 grid max-w-[40rem] gap-2" use:enhance>
				{#if data.agent.squeezed}
					{#each SCREENING_SQUEEZES as squeezes (squeezes)}<button
							class="button min-h-14! justify-start! text-left"
							name="squeezes"
							value={squeezes}
							><span
								><b>Noticed within {squeezes} squeezes</b>
								<span class="text-soft"
									>· the test begins with {squeezes}, then {squeezes / 2} every {DOSE_EVERY_S} s</span
								></span
							></button
						>{/each}
				{:else}<button class="button min-h-14! justify-start!" name="squeezes" value="0"
						><b>Noticed</b></button
					>{/if}
				<button class="button min-h-14! justify-start! text-left" name="squeezes" value="none"
					><span
						><b>Not noticed</b>
						<span class="text-soft">· it says nothing for them: take another agent</span></span
					></button
				>
			</form>
		{/if}
	{:else if !session.endedAt && !now}
		<h2>Now with the mask on</h2>
		<p class="mt-1 max-w-[44rem] text-[1.1rem]">
			Rinse the mouth. Mask on, straps as at work, seal check, worn for five minutes, then into the
			hood.
			{dose ? `Give ${dose.first} squeezes of the strong solution as it begins.` : data.agent.gives}
		</p>
		{#if data.mayTest}<form method="post" action="?/begin" class="mt-4" use:enhance>
				<button class="button primary min-h-14!"
					>Sealed and worn for five minutes: begin the movements</button
				>
			</form>{/if}
	{:else if !session.endedAt && now}
		<div role="timer" aria-live="polite">
			<p class="text-soft">
				{now.done
					? 'All movements are made'
					: `${now.index + 1} of ${QUALITATIVE_EXERCISES.length}`}
			</p>
			<p class="text-[2rem] leading-tight font-bold">
				{now.done ? 'Was anything noticed?' : now.exercise?.name}
			</p>
			{#if !now.done}<p class="text-[1.15rem]">{now.exercise?.says}</p>
				<p class="mt-2 font-mono text-[3rem] leading-none font-semibold">
					{Math.ceil(now.leftS)}<span class="font-sans text-[1.2rem]"> s</span>
				</p>{/if}
		</div>
		{#if dose && !now.done}<p
				class={['mt-3 text-[1.15rem]', sinceDose < 8 ? 'font-bold' : 'text-soft']}
			>
				{now.doses === 1
					? `${dose.first} squeezes as it begins`
					: `Dose ${now.doses}: ${dose.then} squeezes now`}
				<span class="text-soft font-normal"
					>· the next in {Math.ceil(DOSE_EVERY_S - sinceDose)} s</span
				>
			</p>{:else if !now.done && data.agent.gives}<p class="mt-3 text-soft">
				{data.agent.gives}
			</p>{/if}
		{#if data.mayTest}
			<div class="mt-5 flex flex-wrap gap-3">
				<form method="post" action="?/noticed" use:enhance>
					<button class="button min-h-14! border-held! text-held!"
						>Noticed: {data.agent.notices}</button
					>
				</form>
				<form method="post" action="?/nothing" use:enhance>
					<button class="button primary min-h-14!" disabled={!now.done}
						>{now.done ? 'Nothing noticed' : 'Nothing noticed, at the end'}</button
					>
				</form>
			</div>
		{/if}
	{/if}
	<ol class="mt-6" aria-label="Movements">
		{#each QUALITATIVE_EXERCISES as exercise, i (exercise.key)}
			{@const here = now && !session.endedAt && i === now.index}
			<li
				class={['rowline py-1.5', here && 'bg-tint font-semibold']}
				aria-current={here ? 'step' : undefined}
			>
				{i + 1}. {exercise.name}
				{#if session.noticedAt === exercise.key}<b class="text-held"> · noticed here</b>{/if}
			</li>
		{/each}
	</ol>
{/if}
