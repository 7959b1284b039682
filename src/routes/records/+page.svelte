<script lang="ts">
	import Notice from '$lib/ui/form/Notice.svelte';
	import { siteMoment } from '$lib/ui/time/moments';
	import Days from './Days.svelte';
	import Search from './Search.svelte';
	import HistoryList from '$lib/ui/records/HistoryList.svelte';

	let { data } = $props();
	/** A night may be missed once. */
	const OLD_MS = 48 * 3_600_000;
	const backupOld = $derived(
		!data.backup || data.now.getTime() - data.backup.takenAt.getTime() > OLD_MS
	);
	const joined = (query: string, more: string) => `/records?${query ? `${query}&` : ''}${more}`;
	const dayHref = (day: string) => joined(data.anyDay, `from=${day}&to=${day}`);
</script>

<svelte:head><title>Records · Grevan</title></svelte:head>
<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
	<h1>Records</h1>
	<span class="ml-auto flex flex-wrap gap-3"
		><a class="button" href="/records/verify">Is this paper true?</a><a
			class="button"
			href="/records?check"
			data-sveltekit-preload-data="off">Check the chain</a
		><a class="button" href="/records/model-check">Model check</a><a
			class="button"
			href="/records/interface">Interface</a
		></span
	>
</div>
<p class="mt-1 {backupOld ? 'font-semibold text-held' : 'text-soft'}">
	{data.backup
		? `Last backup ${siteMoment(data.backup.takenAt)}, read back, up to entry ${data.backup.entries.toLocaleString('en-GB')}, ${data.backup.encrypted ? 'encrypted' : 'not encrypted'}.`
		: 'No backup was taken yet: one is taken each night, or by npm run backup.'}
</p>
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
{#key data.query}<Search {data} />{/key}
<Days days={data.days} first={data.first} last={data.last} hrefOf={dayHref} />
{#if data.lines.length}<HistoryList lines={data.lines} />
{:else}<p class="mt-4">Nothing of that is in the record.</p>{/if}
<p class="mt-3 flex flex-wrap gap-x-6">
	{#if data.older}<a
			class="linkish min-h-11 content-center"
			href={joined(data.query, `before=${data.older}`)}>Older ones</a
		>{/if}
	<a
		class="linkish min-h-11 content-center"
		href="/records/search.csv?{data.query}"
		data-sveltekit-reload>All that is found, as CSV</a
	>
</p>
