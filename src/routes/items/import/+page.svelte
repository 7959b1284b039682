<script lang="ts">
	import Notice from '$lib/ui/form/Notice.svelte';
	import TableImport from '$lib/ui/register/TableImport.svelte';

	let { data, form } = $props();
</script>

<svelte:head><title>Items from a table · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/items">Items</a></p>
<h1>Items from a table</h1>
<p class="mt-1 max-w-[46rem]">
	A CSV table with the headings <span class="font-mono">tag, model, place</span> and, where known,
	<span class="font-mono">size, serial, in use since, use</span> (personal, shared or emergency). Models
	and places by the names they have here. Nothing is written before you have seen what it would do; nothing
	that is in the register is changed.
</p>
{#if !data.mayKeep}<div class="mt-4">
		<Notice><p>A technician takes items into the register.</p></Notice>
	</div>
{:else}
	<TableImport kind="items" noun="items" {form} last={data.last}>
		{#snippet done()}They are in the register, to be inspected.
			<a class="linkish" href="/items/labels">Print their labels</a>{/snippet}
	</TableImport>
{/if}
