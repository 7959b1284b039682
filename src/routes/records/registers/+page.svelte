<script lang="ts">
	/** Every register as a table that leaves the house. */
	import DayField from '$lib/ui/form/DayField.svelte';

	let { data } = $props();
	const asked = $derived(
		new URLSearchParams(
			[
				['from', data.from],
				['to', data.to]
			].filter((pair): pair is [string, string] => Boolean(pair[1]))
		).toString()
	);
	const href = (key: string, period: string | null) =>
		`/records/registers/${key}.csv${period && asked ? `?${asked}` : ''}`;
</script>

<svelte:head><title>Registers · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/records">Records</a></p>
<h1>Registers</h1>
<p class="mt-1 max-w-[46rem]">
	Each as a table (CSV: UTF-8, comma, point) for a spreadsheet or another program. A program reads
	the same page by page with a key: <a class="linkish" href="/records/interface">Interface</a>.
</p>
<form method="get" class="mt-4 flex flex-wrap items-end gap-x-4 gap-y-3">
	<DayField name="from" label="From" value={data.from} />
	<DayField name="to" label="To" value={data.to} />
	<button class="button">Of these days</button>
	{#if asked}<a class="linkish min-h-11 content-center" href="/records/registers">Of all days</a
		>{/if}
</form>
<ul class="mt-4 max-w-[56rem]">
	{#each data.registers as { key, name, what, period, maySee, takeIn } (key)}
		<li class="rowline flex min-h-11 flex-wrap items-center gap-x-4 py-1">
			<span class="min-w-[16rem] flex-1"
				><b>{name}</b><br /><span class="text-soft"
					>{what}
					{period ? '' : 'As it is now.'}</span
				></span
			>
			<span class="ml-auto flex items-center gap-x-4"
				>{#if takeIn}<a class="linkish min-h-11 content-center" href={takeIn}>Take a table in</a
					>{/if}
				{#if maySee}<a
						class="button"
						href={href(key, period)}
						data-sveltekit-reload
						aria-label="{name} as CSV">CSV</a
					>{:else}<span class="text-soft">for technicians</span>{/if}</span
			>
		</li>
	{/each}
</ul>
