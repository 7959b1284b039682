<script lang="ts">
	import { goto } from '$app/navigation';
	import { written } from '$core/hazards/facts';
	import { HAZARD_LINKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';
	import type { TableColumn } from '$lib/ui/table/table';
	import Table from '$lib/ui/table/Table.svelte';
	import { untrack } from 'svelte';

	let { data } = $props();
	const WAIT_MS = 200;
	let timer: ReturnType<typeof setTimeout> | undefined;
	function search(text: string) {
		clearTimeout(timer);
		timer = setTimeout(
			() =>
				void goto(`/hazards/substances${text ? `?q=${encodeURIComponent(text)}` : ''}`, {
					keepFocus: true,
					replaceState: true,
					noScroll: true
				}),
			WAIT_MS
		);
	}
	const limitText = (limit: (typeof data.substances)[number]['limit']) =>
		limit
			? `${limit.twa ?? ''}${limit.short ? ` / ${limit.shortKind === 'ceiling' ? 'ceiling ' : ''}${limit.short}` : ''} ${written(limit.unit)}`
			: '';
	type Substance = (typeof data.substances)[number];
	const columns: TableColumn<Substance>[] = [
		{ key: 'name', head: 'Name', value: ({ name }) => name, cell: nameCell, sorts: true },
		{
			key: 'cas',
			head: 'CAS',
			value: ({ cas }) => cas,
			class: 'hidden font-mono text-soft md:table-cell'
		},
		{ key: 'form', head: 'Form', value: ({ form }) => form, class: 'hidden sm:table-cell' },
		{
			key: 'limit',
			head: `${untrack(() => data.site.ruleSet).toUpperCase()} limit, 8 h / short`,
			value: ({ limit }) => limitText(limit),
			class: 'text-right font-mono'
		},
		{
			key: 'danger',
			head: 'Immediate danger',
			value: ({ idlh }) => (idlh ? `${idlh.value} ${written(idlh.unit)}` : ''),
			class: 'hidden text-right font-mono md:table-cell'
		},
		{
			key: 'filter',
			head: 'Filter',
			value: (s) => (s.noFilter ? 'no filter' : [s.en, s.us].filter(Boolean).join(' · ')),
			cell: filterCell,
			class: 'pl-6'
		}
	];
</script>

{#snippet nameCell(s: Substance)}<a
		class="inline-flex min-h-11 items-center font-semibold"
		href="/hazards/substances/{s.key}">{s.name}</a
	>{#if s.changed}<span class="ml-2 text-[0.85rem] text-due">ours</span>{/if}{/snippet}
{#snippet filterCell(s: Substance)}{#if s.noFilter}<span class="font-semibold text-held"
			>no filter</span
		>{:else}<span class="font-mono">{[s.en, s.us].filter(Boolean).join(' · ')}</span>{/if}{/snippet}
<svelte:head><title>Substances · Grevan</title></svelte:head>
<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
	<h1>Substances</h1>
	<p class="text-soft">
		limits and properties, from memory unless corrected: verify before relying on them
	</p>
</div>
<div class="mt-3"><SectionLinks label="Hazards" links={HAZARD_LINKS} /></div>
<div class="mt-3 flex flex-wrap items-end gap-3">
	<label class="flex-1"
		><span class="label">Name, synonym or CAS number</span><input
			class="w-full max-w-96"
			value={data.q}
			oninput={(e) => search(e.currentTarget.value)}
		/></label
	>
	<a class="button" href="/hazards/substances/export?which=all" data-sveltekit-reload>Export all</a>
	<a class="button" href="/hazards/substances/export?which=own" data-sveltekit-reload
		>Export our own</a
	>
	{#if data.mayEdit}
		<a class="button" href="/hazards/substances/import">Import</a>
		<a class="button primary" href="/hazards/substances/new">New substance</a>
	{/if}
</div>
{#if data.substances.length === 0}<p class="mt-4">
		The library holds nothing like “{data.q}”. A supervisor can add it; on a plan it can also be
		entered by name with its molar mass and limit.
	</p>
{:else}
	<div class="mt-3">
		<Table
			label="Substances"
			rows={data.substances}
			{columns}
			rowId={(s) => s.key}
			href={(s) => `/hazards/substances/${s.key}`}
			csv="substances"
			width=""
		/>
	</div>
	{#if data.cut}<p class="text-soft mt-2">The first 300; type more of the name.</p>{/if}
{/if}
