<script lang="ts">
	/** A labelled field for a number, typed with a comma or a point. */
	import Field from './Field.svelte';

	interface Props {
		label: string;
		value: string;
		/** Width as a class. */
		width?: string;
		hint?: string;
		refusal?: string | null;
	}
	let { label, value = $bindable(), width = 'w-24', hint = '', refusal = null }: Props = $props();
	const id = $props.id();
</script>

<Field {id} {label} {refusal} {...hint ? { hint } : {}}>
	{#snippet children(field)}<input
			{...field}
			bind:value
			inputmode="decimal"
			autocomplete="off"
			class="{width} font-mono"
		/>{/snippet}
</Field>
