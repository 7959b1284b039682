<script lang="ts">
	/** A field for a password, that its person can look at as they type. */
	import Field from './Field.svelte';

	interface Props {
		id: string;
		name: string;
		label: string;
		autocomplete: 'current-password' | 'new-password';
		refusal?: string | null;
		hint?: string;
	}
	let { id, name, label, autocomplete, refusal = null, hint }: Props = $props();
	let shown = $state(false);
</script>

<Field {id} {label} {refusal} {hint}>
	{#snippet children(field)}<span class="flex gap-2"
			><input
				{...field}
				{name}
				type={shown ? 'text' : 'password'}
				{autocomplete}
				required
				class="min-w-0 flex-1"
			/><button
				type="button"
				class="button px-3!"
				aria-pressed={shown}
				aria-controls={id}
				onclick={() => (shown = !shown)}>{shown ? 'Hide' : 'Show'}</button
			></span
		>{/snippet}
</Field>
