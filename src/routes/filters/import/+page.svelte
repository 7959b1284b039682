<script lang="ts">
	import Notice from '$lib/ui/form/Notice.svelte';
	import TableImport from '$lib/ui/register/TableImport.svelte';

	let { data, form } = $props();
</script>

<svelte:head><title>Filters from a table · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/filters/store">Store</a></p>
<h1>Filters from a table</h1>
<p class="mt-1 max-w-[46rem]">
	A CSV table, a row for each lot: <span class="font-mono">filter, lot, use by, sealed</span>. A
	filter that the store does not know needs its <span class="font-mono">mount</span>, its
	<span class="font-mono">EN marking</span> or <span class="font-mono">US marking</span> and its
	<span class="font-mono">mass of one, g</span> as well. The mount is a word that stands at the models
	of the masks too.
</p>
{#if !data.mayKeep}<div class="mt-4">
		<Notice><p>A technician takes filters into the store.</p></Notice>
	</div>
{:else}
	<TableImport kind="filters" noun="lots" {form} last={data.last}>
		{#snippet done()}<a class="linkish" href="/filters/store">To the store</a>{/snippet}
	</TableImport>
{/if}
