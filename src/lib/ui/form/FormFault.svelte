<script lang="ts">
	/** What a form was refused for, where no field of its own says it. */
	import Notice from './Notice.svelte';

	interface Props {
		fault: { message: string; path?: string | undefined } | null | undefined;
	}
	let { fault }: Props = $props();
</script>

{#if fault}<Notice kind="fault"><p>{fault.message}</p></Notice>{/if}
