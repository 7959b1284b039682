<script lang="ts">
	import { siteMoment } from '$lib/ui/time/moments';
	import ChainCheck from './ChainCheck.svelte';
	import Days from './Days.svelte';
	import Search from './Search.svelte';
	import HistoryList from '$lib/ui/records/HistoryList.svelte';

	let { data } = $props();
	const OUT = [
		['/records/bundle', 'Bundle for an audit'],
		['/records/registers', 'Registers as tables'],
		['/records/archive', 'Archive of the site'],
		['/records/retention', 'How long things are kept'],
		['/records/interface', 'Interface for programs'],
		['/records/model-check', 'Model check']
	];
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
		></span
	>
</div>
<nav class="mt-2 flex flex-wrap gap-x-6" aria-label="Out of the house">
	{#each OUT as [href, words] (href)}<a class="linkish min-h-11 content-center" {href}>{words}</a
		>{/each}
</nav>
<p class="mt-1 {backupOld ? 'font-semibold text-held' : 'text-soft'}">
	{data.backup
		? `Last backup ${siteMoment(data.backup.takenAt)}, read back, up to entry ${data.backup.entries.toLocaleString('en-GB')}, ${data.backup.encrypted ? 'encrypted' : 'not encrypted'}.`
		: 'No backup was taken yet: one is taken each night, or by npm run backup.'}
</p>
{#if data.check}<ChainCheck />{/if}
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
