<script lang="ts">
	import { FAMILIES } from '$core/data/families';
	import Airway from '$lib/ui/airway/Airway.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { siteDay } from '$lib/ui/time/moments';
	import type { TableColumn } from '$lib/ui/table/table';
	import Table from '$lib/ui/table/Table.svelte';
	import { FAULT_LINKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';

	let { data } = $props();
	type Row = (typeof data.open)[number];
	const columns: TableColumn<Row>[] = [
		{ key: 'severity', head: 'How bad', value: (row) => row.severity, cell: severityCell },
		{ key: 'tag', head: 'Item', value: (row) => row.tag, cell: tagCell, sorts: true },
		{ key: 'what', head: 'Fault', value: (row) => `${row.station}: ${row.what}`, cell: whatCell },
		{ key: 'code', head: 'Code', value: (row) => row.code, cell: codeCell, sorts: true },
		{
			key: 'place',
			head: 'Place',
			value: (row) => row.place,
			sorts: true,
			class: 'text-soft max-md:hidden'
		},
		{
			key: 'reported',
			head: 'Reported',
			value: (row) => row.reportedAt.toISOString(),
			cell: reportedCell,
			sorts: true,
			class: 'max-md:hidden'
		}
	];
	/** Drawn while nothing has failed yet: the first family of the register. */
	const NONE = { ...FAMILIES[0], n: 0 } as (typeof FAMILIES)[number] & { n: number };
	/** Families with faults in the order of the register, each with its count. */
	const families = $derived(
		FAMILIES.map((family) => ({
			...family,
			n: data.byStation
				.filter((row) => row.family === family.family)
				.reduce((sum, row) => sum + row.n, 0)
		})).filter((family) => family.n)
	);
	const airway = $derived(
		families.find((family) => family.family === data.family) ??
			families.reduce((most, family) => (family.n > most.n ? family : most), NONE)
	);
	const here = $derived(data.byStation.filter((row) => row.family === airway.family));
	const marks = $derived(
		Object.fromEntries(
			airway.stations.map((station) => {
				const n = here.find((row) => row.station === station.key)?.n ?? 0;
				return [
					station.key,
					{
						mark: n ? ('reject' as const) : ('open' as const),
						says: n ? `${n} ${n === 1 ? 'fault' : 'faults'}` : 'none yet',
						weight: n
					}
				];
			})
		)
	);
</script>

<svelte:head><title>Faults · Grevan</title></svelte:head>
{#snippet severityCell(row: Row)}<span class="inline-flex items-center gap-2"
		><StateMark
			state={row.severity === 'watch' || row.severity === 'note' ? 'watch' : 'held'}
		/>{row.severity}</span
	>{/snippet}
{#snippet tagCell(row: Row)}<a class="tag flex min-h-11 items-center" href="/faults/{row.id}"
		>{row.tag}</a
	>{/snippet}
{#snippet codeCell(row: Row)}<span class="tag">{row.code}</span>{/snippet}
{#snippet whatCell(row: Row)}<b class="font-semibold">{row.station}</b>: {row.what}{row.reports > 1
		? ` · ${row.reports} reports`
		: ''}{/snippet}
{#snippet reportedCell(row: Row)}<span class="font-mono text-[0.9rem] whitespace-nowrap"
		>{siteDay(row.reportedAt)}</span
	>{/snippet}
<div class="flex flex-wrap items-baseline gap-x-4">
	<h1>Faults</h1>
	<p class="text-soft">{data.total} open</p>
</div>
<div class="mt-2"><SectionLinks label="Faults" links={FAULT_LINKS} /></div>
<section class="mt-3" aria-labelledby="where">
	<h2 id="where">
		Where they fail, {airway.plural.toLowerCase()}: {airway.n} so far{airway.n < 20
			? ', a small number'
			: ''}; marks grow with the count
	</h2>
	{#if families.length > 1}
		<nav aria-label="Kinds of equipment with faults" class="flex flex-wrap gap-x-5">
			{#each families as family (family.family)}
				<a
					class="linkish flex min-h-11 items-center"
					class:font-semibold={family.family === airway.family}
					aria-current={family.family === airway.family ? 'true' : undefined}
					href="/faults?family={family.family}">{family.plural} ({family.n})</a
				>
			{/each}
		</nav>
	{/if}
	<Airway stations={airway.stations} {marks} label="Faults along the airway" />
</section>
<section aria-labelledby="open" class="mt-6">
	<h2 id="open">Open, most serious first</h2>
	{#if data.total === 0}<p class="mt-1">
			No open fault. A reject in an inspection opens one and holds the item.
		</p>{/if}
	{#if data.total}
		<form method="get" class="mt-2 flex flex-wrap items-end gap-3" data-sveltekit-keepfocus>
			{#if data.family}<input type="hidden" name="family" value={data.family} />{/if}
			<label class="min-w-0"
				><span class="label">Item, code, station or place</span><input
					name="q"
					value={data.q}
					autocomplete="off"
					class="w-64"
				/></label
			>
			<button class="button">Find</button>
			{#if data.q}<p class="text-soft min-h-11 content-center" role="status">
					{data.open.length} of {data.total}
				</p>{/if}
		</form>
		{#if data.open.length}<div class="mt-2">
				<Table
					label="Open faults"
					rows={data.open}
					{columns}
					rowId={(row) => row.id}
					href={(row) => `/faults/${row.id}`}
					csv="faults"
					width="md:min-w-[44rem]"
				/>
			</div>{:else}<p class="mt-3">No open fault holds “{data.q}”.</p>{/if}
	{/if}
</section>
