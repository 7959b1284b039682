<script lang="ts">
	/** Takes records in that were made elsewhere: each row is judged as if it were typed in. */
	import Notice from '$lib/ui/form/Notice.svelte';
	import TableImport from '$lib/ui/register/TableImport.svelte';

	let { data, form } = $props();
</script>

<svelte:head><title>{data.name} from a table · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/records/registers">Registers</a></p>
<h1>{data.name} from a table</h1>
<p class="mt-1 max-w-[46rem]">
	A CSV table with the headings <span class="font-mono">{data.needed.join(', ')}</span
	>{#if data.others.length}
		and, where known, <span class="font-mono">{data.others.join(', ')}</span>{/if}. Names as they
	are here. Each row is judged as if it were typed in; nothing is written before you have seen what
	it would do. What is taken in stays, as part of the record.
</p>
{#if !data.mayTake}<div class="mt-4">
		<Notice><p>Who writes these down otherwise takes a table of them in.</p></Notice>
	</div>
{:else}
	{#key data.kind}<TableImport kind={data.kind} noun="rows" {form}>
			{#snippet done()}They are in the record.{/snippet}
		</TableImport>{/key}
{/if}
