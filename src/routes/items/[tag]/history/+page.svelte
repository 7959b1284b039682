<script lang="ts">
	import PaperLink from '$lib/ui/records/PaperLink.svelte';
	import HistoryList from '$lib/ui/records/HistoryList.svelte';

	let { data } = $props();
</script>

<svelte:head><title>History of {data.tag} · Grevan</title></svelte:head>
<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
	<a
		class="tag rounded border-[1.5px] border-ink bg-sheet px-2 text-[1.45rem] no-underline"
		href="/items/{data.tag}">{data.tag}</a
	>
	<h1>History</h1>
	<PaperLink kind="item" id={data.tag} />
	<p class="text-soft">
		{data.model} · newest first · each entry is bound to the one before it; nothing here is ever changed
	</p>
</div>
{#if data.lines.length === 0}<p class="mt-4">Nothing has happened to this item yet.</p>{/if}
<HistoryList lines={data.lines} of={data.tag} />
