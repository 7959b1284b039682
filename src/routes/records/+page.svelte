<script lang="ts">
	import Notice from '$lib/ui/form/Notice.svelte';
	import HistoryList from '$lib/ui/records/HistoryList.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Records · Grevan</title></svelte:head>
<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
	<h1>Records</h1>
	<p class="text-soft">the last 60 entries of the audit log</p>
	<span class="ml-auto flex flex-wrap gap-3"
		><a class="button" href="/records/model-check">Model check</a><a
			class="button"
			href="/records/interface">Calculation interface</a
		><a class="button" href="/records?check" data-sveltekit-preload-data="off">Check the chain</a
		></span
	>
</div>
{#if data.check}
	<div class="mt-4">
		{#if data.check.broken}<Notice kind="refusal"
				><p>
					The log is broken at entry {data.check.broken.seq}: {data.check.broken.text}. {data.check
						.entries} entries before it are whole.
				</p></Notice
			>
		{:else}<Notice kind="good"
				><p>
					All {data.check.entries.toLocaleString('en-GB')} entries follow from one another. The end of
					the chain: <span class="font-mono break-all">{data.check.head}</span>
				</p></Notice
			>{/if}
	</div>
{/if}
<HistoryList lines={data.lines} />
