<script lang="ts">
	/** What a form was refused for, where no field of its own says it. */
	import Notice from './Notice.svelte';

	interface Props {
		refusal: { message: string; path?: string | undefined } | null | undefined;
	}
	let { refusal }: Props = $props();
</script>

{#if refusal}<Notice kind="refusal"><p>{refusal.message}</p></Notice>{/if}
