<script lang="ts">
	/** Strokes on a paper of 240 by 160; their ink follows the theme, and prints. */
	import type { Mark } from '$core/drawings/mark';

	interface Props {
		marks: readonly Mark[];
		/** Said to who does not see it; left out where words beside it say the same. */
		label?: string | undefined;
		class?: string;
	}
	let { marks, label, class: kind = '' }: Props = $props();
</script>

<svg
	viewBox="0 0 240 160"
	class="drawing {kind}"
	role={label === undefined ? undefined : 'img'}
	aria-hidden={label === undefined ? 'true' : undefined}
	aria-label={label}
>
	{#each marks as one, i (i)}
		{#if 'd' in one}<path d={one.d} class={one.ink} />{:else}<text
				x={one.x}
				y={one.y}
				font-size={one.size}
				class:font-mono={one.mono}>{one.text}</text
			>{/if}
	{/each}
</svg>

<style>
	.drawing {
		display: block;
		width: 100%;
		height: auto;
	}
	path {
		fill: none;
		stroke: var(--ink);
		stroke-width: 2;
		stroke-linecap: round;
		stroke-linejoin: round;
	}
	.bold {
		stroke-width: 4;
	}
	.thin {
		stroke-width: 1.2;
		opacity: 0.65;
	}
	.dash {
		stroke-dasharray: 5 6;
	}
	.body {
		fill: var(--sheet);
	}
	.shade {
		fill: color-mix(in oklab, var(--ink) 22%, var(--sheet));
	}
	.solid {
		fill: var(--ink);
		stroke-width: 1;
	}
	text {
		fill: var(--ink);
		text-anchor: middle;
	}
	@media print {
		.shade {
			fill: #ccc;
		}
		.body {
			fill: #fff;
		}
	}
</style>
