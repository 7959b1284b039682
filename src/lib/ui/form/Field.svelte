<script lang="ts">
	/** A labelled field with what refuses it said below it. */
	import type { Snippet } from 'svelte';

	interface Props {
		id: string;
		label: string;
		refusal?: string | null | undefined;
		hint?: string;
		children: Snippet<
			[{ id: string; 'aria-invalid': 'true' | undefined; 'aria-describedby': string | undefined }]
		>;
	}
	let { id, label, refusal = null, hint, children }: Props = $props();
	const said = $derived(refusal ? `${id}-refusal` : hint ? `${id}-hint` : undefined);
</script>

<div>
	<label class="label" for={id}>{label}</label>
	{@render children({ id, 'aria-invalid': refusal ? 'true' : undefined, 'aria-describedby': said })}
	{#if refusal}<p id="{id}-refusal" class="mt-1 font-semibold text-held">{refusal}</p>
	{:else if hint}<p id="{id}-hint" class="text-soft mt-1 text-[0.9rem]">{hint}</p>{/if}
</div>
