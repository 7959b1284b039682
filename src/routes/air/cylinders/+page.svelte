<script lang="ts">
	/** The cylinders of the site: what is left in each, where it is, until when it may be filled. */
	import Pages from '$lib/ui/shell/Pages.svelte';
	import { readable } from '$core/plan/calendar';
	import { RESIDUAL_BAR } from '$core/air/cylinder';
	import { READY_SHARE } from '$core/bench/breathing-apparatus';
	import ScanForm from '$lib/ui/form/ScanForm.svelte';
	import Fullness from '$lib/ui/air/Fullness.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import type { TableColumn } from '$lib/ui/table/table';
	import Table from '$lib/ui/table/Table.svelte';
	import { siteDay } from '$lib/ui/time/moments';

	let { data } = $props();
	const PLACES = [
		['', 'everywhere'],
		['set', 'on a set'],
		['rack', 'on the rack'],
		['filling', 'to be filled'],
		['test house', 'at the test house']
	] as const;
	type Row = (typeof data.rows)[number];
	const where = (row: Row) =>
		row.facts?.inSet ??
		(row.facts?.location === 'filling'
			? 'to be filled'
			: row.facts?.location === 'test house'
				? 'test house'
				: 'rack');
	const level = (row: Row) => {
		const { pressureBar, ratedBar } = row.cylinder ?? {};
		if (pressureBar === undefined || pressureBar === null || !ratedBar) return 'unknown';
		if (pressureBar >= READY_SHARE * ratedBar) return 'full';
		return pressureBar < RESIDUAL_BAR ? 'empty' : 'part';
	};
	const columns: TableColumn<Row>[] = [
		{ key: 'tag', head: 'Tag', value: (row) => row.tag, cell: tagCell },
		{ key: 'state', head: 'State', value: (row) => row.state, cell: stateCell },
		{
			key: 'bar',
			head: 'In it, bar',
			value: (row) => row.cylinder?.pressureBar,
			cell: fullCell,
			sorts: true
		},
		{ key: 'where', head: 'Where', value: (row) => `${where(row)}, ${row.place}`, cell: whereCell },
		{
			key: 'cylinder',
			head: 'Cylinder',
			value: (row) =>
				row.cylinder ? `${row.cylinder.waterVolumeL} L, ${row.cylinder.ratedBar} bar` : row.model
		},
		{
			key: 'test',
			head: 'Test by',
			value: (row) => row.facts?.dates.testBy,
			cell: testCell,
			sorts: true
		},
		{
			key: 'life',
			head: 'Life ends',
			value: (row) => row.facts?.dates.lifeEndsOn,
			cell: lifeCell
		},
		{
			key: 'fill',
			head: 'Last fill',
			value: (row) => (row.fill ? siteDay(row.fill.endedAt) : ''),
			cell: fillCell
		}
	];
	const to = (page: number) =>
		`?${new URLSearchParams({ q: data.q, at: data.at, page: String(page) })}`;
</script>

<svelte:head><title>Cylinders · Grevan</title></svelte:head>
<div class="mt-4 flex flex-wrap items-end gap-x-6 gap-y-3">
	<form method="get" class="flex flex-wrap items-end gap-3" data-sveltekit-keepfocus>
		<label
			><span class="label">Find</span><input
				name="q"
				value={data.q}
				placeholder="tag, model or place"
				class="w-52"
			/></label
		>
		<label
			><span class="label">Where</span><select name="at" value={data.at}
				>{#each PLACES as [key, name] (key)}<option value={key}>{name}</option>{/each}</select
			></label
		>
		<button class="button">Show</button>
	</form>
	{#if data.mayFill}<div class="ml-auto">
			<ScanForm
				action="?/queue"
				field="empty"
				label="Empty, to be filled"
				button="Into the queue"
				placeholder="scan"
			/>
		</div>{/if}
</div>
<p class="text-soft mt-3" role="status">{data.total} cylinders</p>
{#if data.rows.length === 0}<p class="mt-3">
		No cylinder is found. Take them in under <a class="linkish" href="/items/new">Items</a>, kind
		cylinder, and enter what is on their stamps here.
	</p>{/if}
{#snippet tagCell(row: Row)}<a
		class="tag inline-flex min-h-11 items-center no-underline"
		href="/air/cylinders/{row.tag}">{row.tag}</a
	>{/snippet}
{#snippet stateCell(row: Row)}<StateMark state={row.state} word />{/snippet}
{#snippet fullCell(row: Row)}{#if row.cylinder}<Fullness
			bar={row.cylinder.pressureBar}
			ratedBar={row.cylinder.ratedBar}
			word={level(row)}
		/>{:else}<span class="font-semibold text-held">no data yet</span>{/if}{/snippet}
{#snippet whereCell(row: Row)}{where(row)}, <span class="text-soft">{row.place}</span>{/snippet}
{#snippet testCell(row: Row)}<span class="whitespace-nowrap"
		>{row.facts ? readable(row.facts.dates.testBy) : ''}</span
	>{/snippet}
{#snippet lifeCell(row: Row)}<span class="whitespace-nowrap"
		>{row.facts?.dates.lifeEndsOn
			? readable(row.facts.dates.lifeEndsOn)
			: row.facts
				? 'open'
				: ''}</span
	>{/snippet}
{#snippet fillCell(row: Row)}<span class="whitespace-nowrap"
		>{row.fill ? siteDay(row.fill.endedAt) : ''}</span
	>{/snippet}
{#if data.rows.length}<Table
		label="Cylinders"
		rows={data.rows}
		{columns}
		rowId={(row) => row.tag}
		href={(row) => `/air/cylinders/${row.tag}`}
		csv="cylinders"
		width="min-w-[52rem]"
	/>{/if}
<Pages number={data.page} pages={data.pages} at={to} />
