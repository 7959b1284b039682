<script lang="ts">
	/** A labelled field for a pressure: bar, or another unit where it is named; what it comes to is said below. */
	import { readPressure } from '$core/units/pressure';
	import { InputError } from '$core/verdict';
	import { besideHere } from '../reading/site-units';
	import Field from './Field.svelte';

	interface Props {
		label: string;
		name?: string;
		value: string;
		width?: string;
		refusal?: string | null;
		hint?: string;
	}
	let {
		label,
		name,
		value = $bindable(),
		width = 'w-28',
		refusal = null,
		hint = ''
	}: Props = $props();
	const id = $props.id();
	const read = $derived.by(() => {
		if (value.trim() === '') return null;
		try {
			return { ...readPressure(value), refusal: null };
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			return { bar: NaN, entered: '', refusal: error.message };
		}
	});
	const said = $derived(
		read && !read.refusal
			? read.entered.endsWith('bar')
				? besideHere(read.bar, 'bar') || hint
				: `${read.bar.toFixed(0)} bar`
			: hint
	);
	const wrong = $derived(read?.refusal ?? refusal);
</script>

<Field {id} {label} refusal={wrong} {...said ? { hint: said } : {}}>
	{#snippet children(field)}<input
			{...field}
			{name}
			bind:value
			autocomplete="off"
			class="{width} font-mono"
		/>{/snippet}
</Field>
