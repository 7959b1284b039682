<script lang="ts">
	/** The wearers: what each may wear by a fit test that counts, and what of them lapses. */
	import { readable } from '$core/plan/calendar';
	import { PEOPLE_LINKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';
	import type { TableColumn } from '$lib/ui/table/table';
	import Table from '$lib/ui/table/Table.svelte';

	let { data } = $props();
	type Row = (typeof data.wearers)[number];
	const columns: TableColumn<Row>[] = [
		{ key: 'name', head: 'Name', value: ({ name }) => name, cell: nameCell, sorts: true },
		{
			key: 'number',
			head: 'Number',
			value: ({ number }) => number,
			sorts: true,
			class: 'font-mono'
		},
		{
			key: 'fits',
			head: 'Fit tests that count',
			value: ({ fits }) => fits.map(({ model, size }) => `${model} ${size}`).join(', '),
			cell: fitsCell
		},
		{
			key: 'cleared',
			head: 'Cleared until',
			value: ({ clearedUntil }) => clearedUntil,
			cell: clearedCell,
			sorts: true,
			class: 'max-md:hidden'
		},
		{
			key: 'trained',
			head: 'Trained until',
			value: ({ trainedUntil }) => trainedUntil,
			cell: trainedCell,
			sorts: true,
			class: 'max-md:hidden'
		}
	];
</script>

<svelte:head><title>People · Grevan</title></svelte:head>
{#snippet nameCell(row: Row)}<a
		class="linkish inline-flex min-h-11 items-center"
		href="/people/{row.id}"><b>{row.name}</b></a
	>{#if row.beard}<span class="ml-1 text-soft">· beard</span>{/if}{#if row.eyewear}<span
			class="ml-1 text-soft">· glasses</span
		>{/if}{/snippet}
{#snippet fitsCell(row: Row)}{#each row.fits as fit (fit.model + fit.size)}<span class="mr-4"
			>{fit.model}, {fit.size}
			<span class="text-soft">until {readable(fit.until)}</span></span
		>{:else}<span class="text-soft"
			>{row.tested ? 'none counts any more' : 'never tested here'}</span
		>{/each}{/snippet}
{#snippet clearedCell(row: Row)}{row.clearedUntil
		? readable(row.clearedUntil)
		: 'not on record'}{/snippet}
{#snippet trainedCell(row: Row)}{row.trainedUntil
		? readable(row.trainedUntil)
		: 'not on record'}{/snippet}
<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
	<h1>People</h1>
	<p class="text-soft" role="status">{data.wearers.length} who wear equipment</p>
	<span class="ml-auto flex flex-wrap gap-2">
		{#if data.mayKeep}<a class="button" href="/people/new">New wearer</a>{/if}
		<a class="button" href="/people/export" data-sveltekit-reload>CSV out</a>
		{#if data.mayKeep}<a class="button" href="/people/import">CSV in</a>{/if}
	</span>
</div>
<div class="mt-2"><SectionLinks label="People" links={PEOPLE_LINKS} /></div>
<form method="get" class="mt-3" data-sveltekit-keepfocus>
	<input
		name="q"
		value={data.q}
		aria-label="Name or number"
		placeholder="name or number"
		autocomplete="off"
		class="w-64"
	/>
	<button class="button">Find</button>
</form>
{#if data.wearers.length === 0}
	<p class="mt-4 max-w-[44rem]">
		{data.q
			? `Nobody carries “${data.q}”.`
			: 'Nobody yet. Of each wearer only what is needed to hand something out is kept: a number, a name, how long clearance and training last, fit tests.'}
	</p>
{:else}
	<div class="mt-3">
		<Table
			label="Wearers"
			rows={data.wearers}
			{columns}
			rowId={(row) => row.number}
			href={(row) => `/people/${row.id}`}
			csv="wearers"
			width="md:min-w-[44rem]"
		/>
	</div>
{/if}
