<script lang="ts">
	/** A labelled input of a form that is sent as it stands; the form keeps what was entered. */
	import type { HTMLInputAttributes } from 'svelte/elements';
	import Field from './Field.svelte';

	interface Props extends Omit<HTMLInputAttributes, 'width'> {
		label: string;
		refusal?: string | null;
		hint?: string;
		width?: string;
		/** Figures and tags. */
		mono?: boolean;
	}
	const own = $props.id();
	let {
		id = own,
		label,
		refusal = null,
		hint,
		width = 'w-full',
		mono = false,
		...input
	}: Props = $props();
</script>

<Field id={id ?? own} {label} {refusal} {hint}>
	{#snippet children(field)}<input
			{...field}
			{...input}
			class="{width} {mono ? 'font-mono' : ''}"
		/>{/snippet}
</Field>
