<script lang="ts">
	/** One thing as it is seen: good, with a fault, or with what only looks like one. Said in words to who does not see it. */
	import { PLAIN, type Vary } from '$core/drawings/mark';
	import { SUBJECTS, type SubjectKey } from '$core/drawings/subjects';

	interface Props {
		subject: SubjectKey;
		/** A code of its faults, "near", or null where it is good. */
		what?: string | null;
		vary?: Vary;
		/** Where words beside it say the same already. */
		silent?: boolean;
		class?: string;
	}
	let { subject, what = null, vary = PLAIN, silent = false, class: kind = '' }: Props = $props();
	const of = $derived(SUBJECTS[subject]);
	const marks = $derived(of.draw(what, vary));
	const says = $derived(
		`${of.name}: ${what === null ? of.good : what === 'near' ? (of.near ?? of.good) : (of.faults[what] ?? '')}`
	);
</script>

<svg
	viewBox="0 0 240 160"
	class="drawing {kind}"
	role={silent ? undefined : 'img'}
	aria-hidden={silent ? 'true' : undefined}
	aria-label={silent ? undefined : says}
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
