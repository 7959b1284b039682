<script lang="ts">
	/** What stands at a place, tick by tick, with a line at its floor. */
	import type { ItemState } from '$core/readiness/findings';

	interface Props {
		counts: Partial<Record<ItemState, number>>;
		usable: number;
		floor: number;
		/** One tick stands for so many. */
		perTick: number;
		/** Ticks of the longest bar beside it. */
		most: number;
	}
	let { counts, usable, floor, perTick, most }: Props = $props();
	const ORDER: ItemState[] = ['ready', 'due', 'overdue', 'held', 'in wash', 'in service', 'issued'];
	const ticks = $derived(
		ORDER.flatMap((state) =>
			Array.from({ length: Math.ceil((counts[state] ?? 0) / perTick) }, () => state)
		)
	);
</script>

{#snippet open(x: number, stroke: string)}<rect
		x={x + 0.75}
		y="4.75"
		width="4.5"
		height="12.5"
		fill="none"
		{stroke}
		stroke-width="1.5"
	/>{/snippet}
<svg
	viewBox="0 0 {most * 10 + 2} 22"
	class="h-[22px] w-full"
	preserveAspectRatio="xMinYMid meet"
	role="img"
	aria-label="{usable} usable, {floor} wanted"
>
	{#each ticks as state, i (i)}
		{#if state === 'ready'}<rect x={i * 10} y="4" width="6" height="14" fill="var(--ready)" />
		{:else if state === 'due'}{@render open(i * 10, 'var(--due)')}<rect
				x={i * 10}
				y="4"
				width="3"
				height="14"
				fill="var(--due)"
			/>
		{:else if state === 'overdue' || state === 'held'}{@render open(i * 10, 'var(--held)')}<path
				d="M{i * 10 + 0.5} 17.5l5-13"
				stroke="var(--held)"
				stroke-width="1.5"
			/>
		{:else}{@render open(i * 10, 'var(--soft)')}{/if}
	{/each}
	<path d="M{(floor / perTick) * 10 - 2} 0v22" stroke="var(--ink)" stroke-width="2.4" />
</svg>
