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
	A CSV table with a heading. Each row is judged as if it were typed in; names are as they are here.
	Nothing is written before you have seen what it would do; what is taken in stays, as part of the
	record.
</p>
<dl class="mt-2 grid max-w-[46rem] gap-x-4 sm:grid-cols-[8rem_1fr]">
	<dt class="text-soft">Needed</dt>
	<dd class="font-mono">{data.needed.join(', ')}</dd>
	{#if data.others.length}<dt class="text-soft">Where known</dt>
		<dd class="font-mono">{data.others.join(', ')}</dd>{/if}
</dl>
{#if !data.mayTake}<div class="mt-4">
		<Notice><p>Who writes these down otherwise takes a table of them in.</p></Notice>
	</div>
{:else}
	{#key data.kind}<TableImport kind={data.kind} noun="rows" {form}>
			{#snippet done()}They are in the record.{/snippet}
		</TableImport>{/key}
{/if}
