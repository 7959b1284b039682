<script lang="ts">
	/** The mark of a state: shape first, then colour, then word. */
	import type { ItemState } from '$core/readiness/findings';

	type Mark = ItemState | 'good' | 'reject' | 'watch' | 'not fitted' | 'open';
	interface Props {
		state: Mark;
		/** Also writes the word beside the mark. */
		word?: boolean;
		size?: number;
	}
	let { state, word = false, size = 18 }: Props = $props();
	const uid = $props.id();

	const COLOUR: Record<Mark, string> = {
		ready: 'var(--ready)',
		good: 'var(--ready)',
		due: 'var(--due)',
		watch: 'var(--due)',
		overdue: 'var(--held)',
		held: 'var(--held)',
		reject: 'var(--held)',
		'in wash': 'var(--wash)',
		'in service': 'var(--wash)',
		issued: 'var(--wash)',
		retired: 'var(--soft)',
		'not fitted': 'var(--soft)',
		open: 'var(--soft)'
	};
	const colour = $derived(COLOUR[state]);
</script>

<span class="inline-flex items-center gap-2 align-middle whitespace-nowrap">
	<svg width={size} height={size} viewBox="0 0 20 20" aria-hidden="true" class="shrink-0">
		{#if state === 'ready' || state === 'good'}
			<circle cx="10" cy="10" r="8" fill={colour} />
		{:else if state === 'due' || state === 'watch'}
			<circle cx="10" cy="10" r="7.5" fill="var(--paper)" stroke={colour} stroke-width="2.2" />
			<path d="M10 2.5a7.5 7.5 0 0 1 0 15z" fill={colour} />
		{:else if state === 'overdue'}
			<circle cx="10" cy="10" r="8" fill={colour} />
			<path d="M0.5 10h19" stroke="var(--paper)" stroke-width="5" />
			<path d="M0.5 10h19" stroke={colour} stroke-width="2" />
		{:else if state === 'held' || state === 'reject'}
			<rect x="2" y="2" width="16" height="16" fill={colour} />
			<path d="M4.5 15.5l11-11" stroke="var(--paper)" stroke-width="3" />
		{:else if state === 'in wash'}
			<path d="M10 1.5c4 5 6 7.4 6 10.4a6 6 0 0 1-12 0c0-3 2-5.4 6-10.4z" fill={colour} />
		{:else if state === 'in service'}
			<defs>
				<pattern
					id="hatch-{uid}"
					width="5"
					height="5"
					patternUnits="userSpaceOnUse"
					patternTransform="rotate(45)"
				>
					<path d="M0 0v5" stroke={colour} stroke-width="3" />
				</pattern>
			</defs>
			<rect
				x="2"
				y="2"
				width="16"
				height="16"
				fill="url(#hatch-{uid})"
				stroke={colour}
				stroke-width="2"
			/>
		{:else if state === 'issued'}
			<path d="M2 10h12M9 4l7 6-7 6" fill="none" stroke={colour} stroke-width="2.6" />
		{:else if state === 'not fitted'}
			<circle
				cx="10"
				cy="10"
				r="7"
				fill="var(--paper)"
				stroke={colour}
				stroke-width="1.6"
				stroke-dasharray="3 2.4"
			/>
		{:else}
			<circle
				cx="10"
				cy="10"
				r="7.5"
				fill="var(--paper)"
				stroke={colour}
				stroke-width={state === 'retired' ? 1 : 2.2}
			/>
		{/if}
	</svg>
	{#if word}<span style="color: {colour}" class="font-semibold">{state}</span>{:else}<span
			class="sr-only">{state}</span
		>{/if}
</span>
