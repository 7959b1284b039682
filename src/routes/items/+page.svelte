<script lang="ts">
	import Pages from '$lib/ui/shell/Pages.svelte';
	import type { TableColumn } from '$lib/ui/table/table';
	import Table from '$lib/ui/table/Table.svelte';
	import { goto } from '$app/navigation';
	import { enhance } from '$lib/ui/form/enhance';
	import { USE_PATTERNS } from '$core/site/places';
	import Notice from '$lib/ui/form/Notice.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { dueWords } from '$core/plan/agenda';
	import { readable } from '$core/plan/calendar';
	import { FAR, NEVER } from '$core/readiness/findings';

	let { data, form: result } = $props();
	let chosen = $state<string[]>([]);
	const refusal = $derived(result && 'refusal' in result ? (result.refusal ?? null) : null);
	const STATES = ['ready', 'due', 'overdue', 'held', 'in wash', 'in service', 'issued', 'retired'];
	let form: HTMLFormElement | undefined = $state();
	let timer: ReturnType<typeof setTimeout> | undefined;

	const at = (page: number) => {
		// eslint-disable-next-line svelte/prefer-svelte-reactivity
		const params = new URLSearchParams();
		const { q, state, place, family, sort } = data;
		for (const [key, value] of Object.entries({ q, family, state, place, sort }))
			if (value) params.set(key, value);
		if (page > 1) params.set('page', String(page));
		return `/items?${params}`;
	};
	type Row = (typeof data.rows)[number];
	const columns: TableColumn<Row>[] = [
		{ key: 'state', head: 'State', value: (row) => row.state, cell: stateCell },
		{ key: 'tag', head: 'Tag', value: (row) => row.tag, cell: tagCell, sorts: true },
		{ key: 'model', head: 'Model', value: (row) => row.model, sorts: true },
		{ key: 'size', head: 'Size', value: (row) => row.size },
		{
			key: 'place',
			head: 'Place',
			value: (row) => row.place,
			sorts: true,
			class: 'min-w-[8rem]'
		},
		{
			key: 'inspected',
			head: 'Last inspected',
			value: (row) => row.lastInspectionOn,
			cell: inspectedCell,
			sorts: true
		},
		{ key: 'due', head: 'Last day', value: (row) => row.dueOn, cell: dueCell, sorts: true }
	];
	const asked = $derived(at(1).slice('/items?'.length));
	function typed() {
		clearTimeout(timer);
		timer = setTimeout(() => form?.requestSubmit(), 250);
	}
	function submit(event: SubmitEvent) {
		event.preventDefault();

		const params = new URLSearchParams(new FormData(form) as unknown as Record<string, string>);

		void goto(`/items?${params}`, { keepFocus: true, replaceState: true, noScroll: true });
	}
</script>

<svelte:head><title>Items · Grevan</title></svelte:head>
{#snippet stateCell(row: Row)}<StateMark state={row.state} word />{/snippet}
{#snippet tagCell(row: Row)}<a class="tag flex min-h-11 items-center" href="/items/{row.tag}"
		>{row.tag}</a
	>{/snippet}
{#snippet inspectedCell(row: Row)}<span class="font-mono text-[0.92rem] whitespace-nowrap"
		>{row.lastInspectionOn ? readable(row.lastInspectionOn) : 'never'}</span
	>{/snippet}
{#snippet dueCell(row: Row)}<span class="font-mono text-[0.92rem] whitespace-nowrap"
		>{row.dueOn === NEVER || row.dueOn === FAR ? row.dueLeft || '–' : readable(row.dueOn)}
		{#if row.dueWhat !== 'inspection'}<br /><span class="text-soft font-sans"
				>{dueWords(row.dueWhat, row.dueDetail).toLowerCase()}</span
			>{/if}</span
	>{/snippet}
<div class="flex flex-wrap items-baseline gap-x-4">
	<h1>{data.families.find((f) => f.key === data.family)?.plural ?? 'Items'}</h1>
	<p class="text-soft" role="status">
		{data.more ? 'more than ' : ''}{data.total.toLocaleString('en-GB')} found
	</p>
	<span class="ml-auto flex flex-wrap gap-2">
		{#if data.mayKeep}<a class="button" href="/items/new">New item</a>{/if}
		<a class="button" href="/items/musters">Musters</a>
		<a class="button" href="/items/procedures">Procedures</a>
		<a class="button" href="/items/models">Models</a>
		<a class="button" href="/items/export?{asked}" data-sveltekit-reload>CSV out</a>
		{#if data.mayKeep}<a class="button" href="/items/import">CSV in</a>{/if}
	</span>
</div>
{#if refusal}<div class="mt-3"><Notice kind="refusal"><p>{refusal.message}</p></Notice></div>{/if}
{#if result && 'moved' in result}<div class="mt-3">
		<Notice kind="good"><p>{result.moved} moved.</p></Notice>
	</div>{/if}
{#if result && 'changedUse' in result}<div class="mt-3">
		<Notice kind="good"><p>The use of {result.changedUse} was changed.</p></Notice>
	</div>{/if}
<form bind:this={form} onsubmit={submit} method="get" class="mt-3 flex flex-wrap items-end gap-3">
	<div>
		{#if data.sort}<input type="hidden" name="sort" value={data.sort} />{/if}
		<label class="label" for="q">Tag, model or place</label><input
			id="q"
			name="q"
			value={data.q}
			oninput={typed}
			autocomplete="off"
			class="w-64"
		/>
	</div>
	<div>
		<label class="label" for="family">Kind</label>
		<select id="family" name="family" value={data.family} onchange={typed}
			><option value="">any</option>{#each data.families as family (family.key)}<option
					value={family.key}>{family.plural}</option
				>{/each}</select
		>
	</div>
	<div>
		<label class="label" for="state">State</label>
		<select id="state" name="state" value={data.state} onchange={typed}
			><option value="">any</option>{#each STATES as state (state)}<option>{state}</option
				>{/each}</select
		>
	</div>
	<div>
		<label class="label" for="place">Place</label>
		<select id="place" name="place" value={data.place} onchange={typed}
			><option value="">any</option>{#each data.places as place (place.id)}<option value={place.id}
					>{place.name}</option
				>{/each}</select
		>
	</div>
	<noscript><button class="button">Find</button></noscript>
</form>

{#if data.total === 0}
	<p class="mt-6 max-w-prose">
		{#if data.q}No item carries or names “{data.q}”. Look at the label again: tags read like
			HM-0101.{:else}No item is in this state here.{/if}
		<a class="linkish" href="/items">Show all</a>
	</p>
{:else}
	<div class="mt-3">
		<Table
			label="Items"
			rows={data.rows}
			{columns}
			rowId={(row) => row.tag}
			href={(row) => `/items/${row.tag}`}
			sorted
			bind:chosen={() => (data.mayKeep ? chosen : undefined), (tags) => (chosen = tags ?? [])}
		/>
	</div>
	<Pages number={data.number} pages={data.pages} {at} />
{/if}
{#if chosen.length}
	<form
		method="post"
		action="?/move"
		use:enhance={() =>
			async ({ update, result: answer }) => {
				await update({ reset: false });
				if (answer.type === 'success') chosen = [];
			}}
		class="no-print sticky bottom-0 mt-4 flex flex-wrap items-end gap-3 border-t-2 border-ink bg-paper py-3"
		aria-label="With what is chosen"
	>
		<p class="min-h-11 content-center"><b>{chosen.length}</b> chosen</p>
		{#each chosen as tag (tag)}<input type="hidden" name="tags[]" value={tag} />{/each}
		<div>
			<label class="label" for="placeId">Move to</label>
			<select id="placeId" name="placeId"
				><option value="">choose</option>{#each data.places as place (place.id)}<option
						value={place.id}>{place.name}</option
					>{/each}</select
			>
		</div>
		<button class="button primary">Move</button>
		<div>
			<label class="label" for="usePattern">Use</label>
			<select id="usePattern" name="usePattern"
				><option value="">choose</option>{#each USE_PATTERNS as pattern (pattern)}<option
						value={pattern}>{pattern}</option
					>{/each}</select
			>
		</div>
		<button class="button" formaction="?/use">Set the use</button>
		<a class="button" href="/items/labels?tags={chosen.join(',')}">Labels</a>
		<a class="button" href="/items/sheets?tags={chosen.join(',')}">Sheets</a>
		<button type="button" class="linkish min-h-11" onclick={() => (chosen = [])}>None</button>
	</form>
{/if}
