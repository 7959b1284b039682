<script lang="ts">
	/** A labelled field with its fault said below it. */
	import type { Snippet } from 'svelte';

	interface Props {
		id: string;
		label: string;
		fault?: string | null | undefined;
		hint?: string;
		children: Snippet<
			[{ id: string; 'aria-invalid': 'true' | undefined; 'aria-describedby': string | undefined }]
		>;
	}
	let { id, label, fault = null, hint, children }: Props = $props();
	const said = $derived(fault ? `${id}-fault` : hint ? `${id}-hint` : undefined);
</script>

<div>
	<label class="label" for={id}>{label}</label>
	{@render children({ id, 'aria-invalid': fault ? 'true' : undefined, 'aria-describedby': said })}
	{#if fault}<p id="{id}-fault" class="mt-1 font-semibold text-held">{fault}</p>
	{:else if hint}<p id="{id}-hint" class="text-soft mt-1 text-[0.9rem]">{hint}</p>{/if}
</div>
