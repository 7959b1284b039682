<script lang="ts">
	import { airwayOf } from '$core/data/families';
	import { WHERE_NAMES, WHERE_WORDS, type Where } from '$core/custody/custody';
	import SitePicture from '$lib/ui/counter/SitePicture.svelte';
	import type { TableColumn } from '$lib/ui/table/table';
	import Table from '$lib/ui/table/Table.svelte';
	import { siteMoment } from '$lib/ui/time/moments';

	let { data } = $props();
	type Row = (typeof data.shown)[number];
	const who = (row: Row) => (row.number ? `${row.name}, ${row.number}` : '');
	const columns: TableColumn<Row>[] = [
		{ key: 'tag', head: 'Tag', value: ({ tag }) => tag, cell: tagCell, sorts: true },
		{
			key: 'what',
			head: 'What',
			value: ({ family, size }) => `${airwayOf(family).name}, ${size}`,
			sorts: true,
			class: 'max-md:hidden'
		},
		{
			key: 'where',
			head: 'Where',
			value: (row) => (row.where === 'issued' ? who(row) : WHERE_WORDS[row.where]),
			cell: whereCell,
			sorts: true
		},
		{
			key: 'task',
			head: 'For',
			value: ({ task }) => task ?? '',
			sorts: true,
			class: 'max-md:hidden'
		},
		{
			key: 'since',
			head: 'Since',
			value: ({ since }) => since.toISOString(),
			cell: sinceCell,
			sorts: true
		},
		{
			key: 'back',
			head: 'Back by',
			value: ({ dueBackAt }) => dueBackAt?.toISOString() ?? '',
			cell: backCell,
			sorts: true
		},
		{ key: 'home', head: 'Kept at', value: ({ home }) => home, sorts: true, class: 'max-lg:hidden' }
	];
	const title = $derived(data.at ? WHERE_NAMES[data.at as Where] : 'Away from its shelf');
</script>

<svelte:head><title>Where everything is · Grevan</title></svelte:head>
{#snippet tagCell({ tag }: Row)}<a class="tag inline-flex min-h-11 items-center" href="/items/{tag}"
		>{tag}</a
	>{/snippet}
{#snippet whereCell(row: Row)}{#if row.wearerId}<a
			class="font-semibold"
			href="/people/{row.wearerId}">{who(row)}</a
		>{:else}{WHERE_WORDS[row.where]}{/if}{/snippet}
{#snippet sinceCell({ since }: Row)}<span class="whitespace-nowrap">{siteMoment(since)}</span
	>{/snippet}
{#snippet backCell({ dueBackAt, overdue }: Row)}{#if dueBackAt}<span
			class="whitespace-nowrap {overdue ? 'font-bold text-held' : ''}"
			>{siteMoment(dueBackAt)}{overdue ? ', not back' : ''}</span
		>{/if}{/snippet}
<h1 class="mt-3">Where everything is</h1>
{#if data.overdue.length}<p class="mt-1 font-semibold text-held">
		{data.overdue.length === 1 ? 'One thing' : `${data.overdue.length} things`} should be back and
		{data.overdue.length === 1 ? 'is' : 'are'} not: {data.overdue
			.slice(0, 6)
			.map(({ tag, name }) => `${tag} with ${name}`)
			.join(', ')}{data.overdue.length > 6 ? ' and more' : ''}.
	</p>{:else}<p class="text-soft mt-1">Nothing that is out should be back by now.</p>{/if}
<div class="mt-4"><SitePicture stations={data.stations} places={data.places} at={data.at} /></div>
<h2 class="mt-6">
	{title}, {data.shown.length}
	{#if data.at}<a class="linkish ml-3 inline-flex min-h-11 items-center" href="/counter/where"
			>all of it</a
		>{/if}
</h2>
{#if data.shown.length === 0}<p class="mt-1">
		{data.at ? 'Nothing is there.' : 'Everything lies on its shelf.'}
	</p>{:else}<Table
		label={title}
		rows={data.shown}
		{columns}
		rowId={(row) => row.itemId}
		href={(row) => `/items/${row.tag}`}
		csv="where"
	/>{/if}
