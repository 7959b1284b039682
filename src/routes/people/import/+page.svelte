<script lang="ts">
	import Notice from '$lib/ui/form/Notice.svelte';
	import TableImport from '$lib/ui/register/TableImport.svelte';

	let { data, form } = $props();
</script>

<svelte:head><title>Wearers from a table · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/people">People</a></p>
<h1>Wearers from a table</h1>
<p class="mt-1 max-w-[46rem]">
	A CSV table, a row for each person: <span class="font-mono">number, name</span>; as far as it is
	known <span class="font-mono">glasses</span> and <span class="font-mono">beard</span> (yes or no),
	<span class="font-mono">cleared until</span>, <span class="font-mono">trained until</span> and
	<span class="font-mono">places</span>, several apart by a bar. Nothing else is taken: nothing
	medical, no address, no birthday.
</p>
{#if !data.mayKeep}<div class="mt-4">
		<Notice><p>A technician takes wearers into the register.</p></Notice>
	</div>
{:else}
	<TableImport kind="wearers" noun="wearers" {form} last={data.last}>
		{#snippet done()}<a class="linkish" href="/people">To the people</a>{/snippet}
	</TableImport>
{/if}
