<script lang="ts">
	/** One field of a long form: text, a choice of words where there are options, or lines of text. */
	import { untrack } from 'svelte';
	import type { SuperForm } from 'sveltekit-superforms/client';
	import Field from './Field.svelte';

	interface Props {
		of: SuperForm<Record<string, string>>;
		name: string;
		label: string;
		hint?: string;
		/** Value and word of each choice. */
		options?: readonly (readonly [value: string, word: string])[];
		/** So many lines of text. */
		rows?: number;
		width?: string;
		/** Figures and tags. */
		mono?: boolean;
		inputmode?: 'decimal' | 'numeric';
		placeholder?: string;
	}
	let {
		of,
		name,
		label,
		hint,
		options,
		rows,
		width = 'w-full',
		mono = false,
		inputmode,
		placeholder
	}: Props = $props();
	const id = $props.id();
	const { form: values, errors } = untrack(() => of);
</script>

<Field {id} {label} refusal={$errors[name]?.[0]} {...hint ? { hint } : {}}>
	{#snippet children(field)}
		{#if options}<select {...field} {name} bind:value={$values[name]} class={width}
				>{#each options as [value, word] (value)}<option {value}>{word}</option>{/each}</select
			>
		{:else if rows}<textarea {...field} {name} {rows} bind:value={$values[name]} class={width}
			></textarea>
		{:else}<input
				{...field}
				{name}
				{inputmode}
				{placeholder}
				autocomplete="off"
				bind:value={$values[name]}
				class="{width} {mono ? 'font-mono' : ''}"
			/>{/if}
	{/snippet}
</Field>
