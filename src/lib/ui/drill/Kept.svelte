<script lang="ts">
	/** Whether what was walked is with the server already, or still on this device. */
	import { outbox } from '../outbox/outbox.svelte';

	let { id }: { id: string } = $props();
	const waits = $derived(outbox.waiting.some(({ about }) => about === `drill:${id}`));
</script>

<span class="text-soft" role="status"
	>{waits ? 'Kept on this device; it goes to the server when it is back.' : 'Kept.'}</span
>
