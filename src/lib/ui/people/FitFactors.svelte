<script lang="ts">
	/** What a test measured of each movement against the line to be passed, as bars on a scale of tens. */
	import { shownFactor } from '$core/fit/fit-factor';
	import type { FitProtocol } from '$core/fit/protocols';
	import type { ExerciseMeasured } from '$core/fit/sequence';
	import type { Snippet } from 'svelte';

	interface Props {
		protocol: FitProtocol;
		measured: readonly ExerciseMeasured[];
		/** Factor to be reached. */
		limit: number;
		/** Highest factor that is drawn. */
		most: number;
		/** Movement that is made now. */
		current?: string | null;
		/** What can be done about a movement. */
		act?: Snippet<[ExerciseMeasured]>;
	}
	let { protocol, measured, limit, most, current = null, act }: Props = $props();
	/** Where a factor stands on a scale of tens from 1 on, as a share. */
	const place = (factor: number) =>
		Math.max(0, Math.min(1, Math.log10(Math.max(1, factor)) / Math.log10(most)));
	const STATES = {
		'to come': 'to come',
		'under way': 'under way',
		measured: '',
		'at fault': 'does not count'
	} as const;
</script>

<ol class="mt-1" aria-label="Movements">
	{#each protocol.exercises as exercise, i (exercise.key)}
		{@const one = measured[i]}
		{#if one}
			<li
				class={[
					'rowline grid grid-cols-[1fr_5.5rem] items-center gap-x-4 gap-y-1 py-2 md:grid-cols-[13rem_minmax(0,1fr)_6rem_9.5rem]',
					current === exercise.key && 'bg-tint'
				]}
				aria-current={current === exercise.key ? 'step' : undefined}
			>
				<span
					><b class={current === exercise.key ? 'text-[1.1rem]' : 'font-semibold'}
						>{exercise.name}</b
					>{#if !exercise.counted}<span class="text-soft">
							· not counted</span
						>{/if}{#if one.tries > 1}<span class="text-soft">
							· made {one.tries} times</span
						>{/if}</span
				>
				<svg
					viewBox="0 0 100 14"
					preserveAspectRatio="none"
					class="col-span-2 row-start-2 h-4 w-full md:col-span-1 md:row-start-auto"
					aria-hidden="true"
				>
					<rect y="3" width="100" height="8" fill="var(--tint)" />
					{#if one.factor !== null}<rect
							y="3"
							width={place(one.factor) * 100}
							height="8"
							fill={!exercise.counted
								? 'var(--soft)'
								: one.factor >= limit
									? 'var(--accent)'
									: 'var(--held)'}
						/>{/if}
					<rect x={place(limit) * 100 - 0.2} width="0.5" height="14" fill="var(--ink)" />
				</svg>
				<span class="text-right font-mono text-[1.05rem]"
					>{#if one.factor === null}<span
							class={[
								'font-sans text-[0.95rem]',
								one.state === 'at fault' ? 'font-semibold text-held' : 'text-soft'
							]}>{STATES[one.state]}</span
						>{:else}<b class={exercise.counted && one.factor < limit ? 'text-held' : ''}
							>{one.capped ? '≥ ' : ''}{shownFactor(one.factor)}</b
						>{/if}</span
				>
				<span class="col-span-2 md:col-span-1"
					>{#if act}{@render act(one)}{/if}</span
				>
				{#if one.reason}<p class="col-span-full text-held">{one.reason.text}</p>{/if}
			</li>
		{/if}
	{/each}
</ol>
<p class="text-soft text-[0.9rem]">
	The upright line stands at {limit}, the bar on a scale of tens up to {most}.
</p>
