<script lang="ts">
	/**
	 * The way from dirty to ready as a line, like the airway of an item: dashed while dirty, thick where it is wet,
	 * plain once it is clean. Counts above, the oldest below.
	 */
	import { WHERE_NAMES, type Where } from '$core/custody/custody';
	import { siteMoment } from '../time/moments';

	interface Props {
		stations: readonly { where: Where; count: number; oldest: Date | null }[];
		ready: number;
	}
	let { stations, ready }: Props = $props();
	/** How the line runs into each. */
	const STROKE: Partial<Record<Where, string>> = { returned: '7 6', wash: '', drying: '' };
	const WIDTH: Partial<Record<Where, number>> = { wash: 6 };
</script>

<ol class="flex flex-wrap items-start gap-y-4" aria-label="Wash line">
	{#each stations as { where, count, oldest } (where)}
		<li class="grid min-w-32 flex-1 justify-items-center text-center">
			<b class="font-mono text-[1.5rem] leading-none {count ? '' : 'text-soft'}">{count}</b>
			<svg
				viewBox="0 0 120 36"
				class="my-1 h-9 w-full"
				preserveAspectRatio="none"
				aria-hidden="true"
			>
				<path
					d="M0 18h120"
					stroke="var(--ink)"
					stroke-width={WIDTH[where] ?? 3}
					stroke-dasharray={STROKE[where] ?? ''}
					vector-effect="non-scaling-stroke"
				/>
			</svg>
			<svg viewBox="0 0 36 36" class="-mt-10 h-9 w-9" aria-hidden="true">
				{#if where === 'returned'}<rect
						x="8"
						y="8"
						width="20"
						height="20"
						fill={count ? 'var(--duetint)' : 'var(--paper)'}
						stroke="var(--ink)"
						stroke-width="3"
					/>
				{:else if where === 'wash'}<path
						d="M18 4c7 9 10 12 10 17a10 10 0 0 1-20 0c0-5 3-8 10-17z"
						fill={count ? 'var(--wash)' : 'var(--paper)'}
						stroke="var(--ink)"
						stroke-width="3"
					/>
				{:else}<circle
						cx="18"
						cy="18"
						r="11"
						fill={count ? 'var(--wash)' : 'var(--paper)'}
						stroke="var(--ink)"
						stroke-width="3"
					/>{/if}
			</svg>
			<a
				class="inline-flex min-h-9 items-center font-semibold"
				href="/counter/where?at={encodeURIComponent(where)}">{WHERE_NAMES[where]}</a
			>
			<span class="text-soft text-[0.88rem]"
				>{oldest ? `since ${siteMoment(oldest)}` : 'nothing'}</span
			>
		</li>
	{/each}
	<li class="grid min-w-32 flex-1 justify-items-center text-center">
		<b class="font-mono text-[1.5rem] leading-none text-ready">{ready}</b>
		<svg viewBox="0 0 120 36" class="my-1 h-9 w-full" preserveAspectRatio="none" aria-hidden="true">
			<path d="M0 18h60" stroke="var(--ink)" stroke-width="2" vector-effect="non-scaling-stroke" />
		</svg>
		<svg viewBox="0 0 36 36" class="-mt-10 h-9 w-9" aria-hidden="true">
			<circle cx="18" cy="18" r="12" fill="var(--ready)" />
		</svg>
		<span class="inline-flex min-h-9 items-center font-semibold">Looked over today</span>
		<span class="text-soft text-[0.88rem]">ready again</span>
	</li>
</ol>
