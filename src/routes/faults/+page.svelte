<script lang="ts">
	import { FAMILIES } from '$core/data/families';
	import Airway from '$lib/ui/airway/Airway.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { page } from '$app/state';
	import { FAULT_END_WORDS, FAULT_ENDS } from '$core/service/ends';
	import Pages from '$lib/ui/shell/Pages.svelte';
	import { siteDay } from '$lib/ui/time/moments';
	import type { TableColumn } from '$lib/ui/table/table';
	import Table from '$lib/ui/table/Table.svelte';
	import { FAULT_LINKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';

	let { data } = $props();
	type Row = (typeof data.rows)[number];
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
	const ENDED: TableColumn<Row> = {
		key: 'ended',
		head: 'Ended',
		value: (row) => row.closedAt?.toISOString() ?? '',
		cell: endedCell
	};
	const ended = $derived(data.of === 'ended');
	const address = (changes: Record<string, string | null>) => {
		const to = new URL(page.url.href);
		for (const [name, value] of Object.entries(changes))
			if (value === null) to.searchParams.delete(name);
			else to.searchParams.set(name, value);
		return to.pathname + to.search;
	};
	const filtered = $derived(
		Boolean(data.q || data.place || data.how || data.days || data.station || data.family)
	);
	const FAMILY_NAMES = FAMILIES.map(({ family, plural }) => ({ family, plural }));
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
{#snippet endedCell(row: Row)}{row.ended}{#if row.closedAt}<span
			class="ml-2 font-mono text-[0.9rem] whitespace-nowrap">{siteDay(row.closedAt)}</span
		>{/if}{/snippet}
{#snippet reportedCell(row: Row)}<span class="font-mono text-[0.9rem] whitespace-nowrap"
		>{siteDay(row.reportedAt)}</span
	>{/snippet}
<div class="flex flex-wrap items-baseline gap-x-4">
	<h1>Faults</h1>
	<p class="text-soft">
		{data.total}
		{ended ? 'ended' : 'open'}{filtered ? ', as chosen below' : ''}
	</p>
	<a class="button primary ml-auto" href="/faults/report">Write a fault down</a>
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
<section aria-labelledby="list" class="mt-6">
	<div class="flex flex-wrap items-baseline gap-x-5">
		<h2 id="list">{ended ? 'Ended, the latest first' : 'Open, most serious first'}</h2>
		<a
			class="linkish inline-flex min-h-11 items-center"
			href={address({ of: ended ? null : 'ended', how: null, page: null })}
			>{ended ? 'Open ones' : 'Ended ones'}</a
		>
	</div>
	<form method="get" class="mt-1 flex flex-wrap items-end gap-3" data-sveltekit-keepfocus>
		{#if ended}<input type="hidden" name="of" value="ended" />{/if}
		<label class="min-w-0"
			><span class="label">Item, code, station or place</span><input
				name="q"
				value={data.q}
				autocomplete="off"
				class="w-56"
			/></label
		>
		<label
			><span class="label">Kind</span><select name="family" value={data.family ?? ''} class="w-44">
				<option value="">all</option>
				{#each FAMILY_NAMES as one (one.family)}<option value={one.family}>{one.plural}</option
					>{/each}
			</select></label
		>
		<label
			><span class="label">Place</span><select name="place" value={data.place ?? ''} class="w-40">
				<option value="">all</option>
				{#each data.places as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
			</select></label
		>
		{#if ended}<label
				><span class="label">How it ended</span><select
					name="how"
					value={data.how ?? ''}
					class="w-44"
				>
					<option value="">any way</option>
					{#each FAULT_ENDS as one (one)}<option value={one}>{FAULT_END_WORDS[one]}</option>{/each}
				</select></label
			>{/if}
		<label
			><span class="label">Reported in</span><select
				name="days"
				value={String(data.days ?? '')}
				class="w-36"
			>
				<option value="">any time</option>
				{#each [7, 30, 90, 365] as days (days)}<option value={String(days)}>{days} days</option
					>{/each}
			</select></label
		>
		<button class="button">Find</button>
		{#if filtered}<a
				class="linkish inline-flex min-h-11 items-center"
				href={ended ? '/faults?of=ended' : '/faults'}>All of them</a
			>{/if}
	</form>
	{#if data.rows.length}<div class="mt-2">
			<Table
				label={ended ? 'Ended faults' : 'Open faults'}
				rows={data.rows}
				columns={ended ? [...columns.slice(1), ENDED] : columns}
				rowId={(row) => row.id}
				href={(row) => `/faults/${row.id}`}
				csv="faults"
				width="md:min-w-[44rem]"
			/>
			<Pages
				number={data.page}
				pages={data.pages}
				at={(number) => address({ page: String(number) })}
			/>
		</div>{:else if filtered}<p class="mt-3">
			None of them: choose less, or look among the {ended ? 'open' : 'ended'} ones.
		</p>{:else}<p class="mt-1">
			{ended
				? 'None has ended yet.'
				: 'No open fault. A reject in an inspection opens one and holds the item.'}
		</p>{/if}
</section>
