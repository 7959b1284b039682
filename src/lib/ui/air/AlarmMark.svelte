<script lang="ts">
	/** The shape of an alarm of the entry board; each kind is told apart without colour. */
	import type { AlarmKind } from '$core/air/entry';

	interface Props {
		kind: AlarmKind;
		size?: number;
	}
	let { kind, size = 26 }: Props = $props();
</script>

<svg width={size} height={size} viewBox="0 0 26 26" aria-hidden="true" class="shrink-0">
	{#if kind === 'warning'}
		<path d="M2 2h22v22h-22z" fill="var(--held)" />
		<path d="M7 7l12 12M19 7l-12 12" stroke="var(--paper)" stroke-width="3.4" />
	{:else if kind === 'be out'}
		<path d="M2 2h22v22h-22z" fill="var(--held)" />
		<path d="M13 6v14M7 14l6 6 6-6" stroke="var(--paper)" stroke-width="3" fill="none" />
	{:else if kind === 'turn back'}
		<path
			d="M20 22v-9a7 7 0 0 0-14 0v5M1.5 13.5l4.5 5 4.5-5"
			fill="none"
			stroke="var(--held)"
			stroke-width="3.4"
		/>
	{:else if kind === 'telemetry lost'}
		<path
			d="M3 9a14 14 0 0 1 20 0M7 14a8.5 8.5 0 0 1 12 0"
			fill="none"
			stroke="var(--due)"
			stroke-width="3"
			stroke-dasharray="4 3"
		/>
		<path d="M9 19l8 6M17 19l-8 6" stroke="var(--due)" stroke-width="3" />
	{:else}
		<circle cx="13" cy="13" r="10" fill="none" stroke="var(--due)" stroke-width="3" />
		<path d="M13 7v7M13 17v3" stroke="var(--due)" stroke-width="3.2" />
	{/if}
</svg>
