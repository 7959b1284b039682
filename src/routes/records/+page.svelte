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
					<b>The record is not as it was.</b> Tell the one who keeps the system, and copy nothing over
					it.
				</p>
				<ul class="mt-1 list-disc pl-5">
					{#each data.check.faults as fault, i (i)}<li>
							<span class="font-mono">{fault.where}</span>: {fault.text}
						</li>{/each}
				</ul></Notice
			>
		{:else}<Notice kind="good"
				><p>
					All {data.check.entries.toLocaleString('en-GB')} entries follow from one another, and {data.check.records.toLocaleString(
						'en-GB'
					)} records are as they were made whole. The end of the chain:
					<span class="font-mono break-all">{data.check.head}</span>
				</p>
				<p class="text-soft">
					{data.check.anchors
						? `Its end was signed ${data.check.anchors} times, up to entry ${data.check.anchoredTo.toLocaleString('en-GB')}.`
						: 'Its end is not signed yet: that is done each minute.'}
					{data.check.unhashed
						? `${data.check.unhashed.toLocaleString('en-GB')} records are from before hashes were kept.`
						: ''}
				</p></Notice
			>{/if}
	</div>
{/if}
<HistoryList lines={data.lines} />
