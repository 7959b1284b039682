<script lang="ts">
	/** How full a cylinder or bank is: a bar with the share at which it counts as ready, and the figure. */
	import { READY_SHARE } from '$core/bench/breathing-apparatus';

	interface Props {
		bar: number | null;
		ratedBar: number;
		/** full, part, empty, unknown. */
		word: string;
	}
	let { bar, ratedBar, word }: Props = $props();
	const WIDTH = 64;
	const share = $derived(bar === null ? 0 : Math.min(1, bar / ratedBar));
</script>

<span class="inline-flex items-center gap-2 whitespace-nowrap">
	<svg width={WIDTH + 2} height="14" aria-hidden="true" class="shrink-0">
		<rect
			x="1"
			y="2"
			width={WIDTH}
			height="10"
			rx="4"
			fill="none"
			stroke="var(--ink)"
			stroke-width="1.4"
			stroke-dasharray={bar === null ? '3 3' : undefined}
		/>
		{#if bar !== null}<rect
				x="1"
				y="2"
				width={WIDTH * share}
				height="10"
				rx="4"
				fill={share >= READY_SHARE ? 'var(--accent)' : 'var(--due)'}
			/>{/if}
		<path d="M{1 + WIDTH * READY_SHARE} 0v14" stroke="var(--ink)" stroke-width="1.4" />
	</svg>
	<span class="w-10 text-right font-mono font-semibold">{bar === null ? '?' : Math.round(bar)}</span
	>
	<span class="text-soft text-[0.88rem]">{word}</span>
</span>
