<script lang="ts">
	/** The second person says once who they are, on the device of the first. */
	import { freshId } from '$lib/fresh-id';
	import WhoForm from '$lib/ui/form/WhoForm.svelte';

	interface Props {
		/** It is being said. */
		open: boolean;
		refusal: { message: string; path?: string | null | undefined } | null;
	}
	let { open = $bindable(), refusal }: Props = $props();
	const id = freshId();
</script>

{#if open}
	<div class="mt-3"><WhoForm action="?/assist" fields={{ id }} refused={refusal} /></div>
{:else}
	<button type="button" class="button mt-3" onclick={() => (open = true)}
		>The second person is here</button
	>
{/if}
