<script lang="ts">
	import { freshId } from '$lib/fresh-id';
	import Notice from '$lib/ui/form/Notice.svelte';
	import type { TableColumn } from '$lib/ui/table/table';
	import Table from '$lib/ui/table/Table.svelte';
	import { siteMoment } from '$lib/ui/time/moments';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	const plural = (key: string | null) =>
		data.families.find((f) => f.key === key)?.plural ?? 'Everything';
	type Row = (typeof data.musters)[number];
	const columns: TableColumn<Row>[] = [
		{
			key: 'what',
			head: 'What and where',
			value: ({ sheet, place }) => `${plural(sheet.family)}, ${place ?? 'every place'}`,
			cell: whatCell,
			sorts: true
		},
		{ key: 'by', head: 'By', value: ({ by }) => by, sorts: true, class: 'max-md:hidden' },
		{
			key: 'started',
			head: 'Begun',
			value: ({ sheet }) => sheet.startedAt.toISOString(),
			cell: startedCell,
			sorts: true
		},
		{
			key: 'outcome',
			head: 'Came to',
			value: ({ sheet }) =>
				!sheet.closedAt
					? 'open'
					: sheet.missing?.length
						? `${sheet.missing.length} not presented`
						: 'all presented'
		}
	];
	const id = freshId();
</script>

<svelte:head><title>Musters · Grevan</title></svelte:head>
{#snippet whatCell({ sheet, place }: Row)}<a
		class="flex min-h-11 items-center font-semibold no-underline hover:underline"
		href="/items/musters/{sheet.id}">{plural(sheet.family)}, {place ?? 'every place'}</a
	>{/snippet}
{#snippet startedCell({ sheet }: Row)}<span class="whitespace-nowrap"
		>{siteMoment(sheet.startedAt)}</span
	>{/snippet}
<p class="crumb"><a class="linkish" href="/items">Items</a></p>
<h1>Musters</h1>
<p class="mt-1 max-w-[46rem]">
	One sheet for many items: scan after scan, only exceptions are written, and at the end it says
	what was not presented. A muster does not take the place of the inspection that is due.
</p>
<div class="mt-5 grid gap-10 lg:grid-cols-[minmax(0,1fr)_20rem]">
	<section aria-labelledby="sheets">
		<h2 id="sheets">Sheets, newest first</h2>
		{#if data.musters.length === 0}<p class="mt-1">None yet. Begin one with the form.</p>{/if}
		{#if data.musters.length}<Table
				label="Musters"
				rows={data.musters}
				{columns}
				rowId={({ sheet }) => sheet.id}
				href={({ sheet }) => `/items/musters/${sheet.id}`}
				csv="musters"
				width="md:min-w-[38rem]"
			/>{/if}
	</section>
	{#if data.mayStart}
		<form method="post" class="grid gap-4 self-start rounded border-2 border-ink bg-sheet p-4">
			<h2 class="text-[1.15rem]! text-ink!">A new muster</h2>
			<input type="hidden" name="id" value={id} />
			<label
				><span class="label">Place</span><select name="placeId" class="w-full"
					><option value="">every place</option>{#each data.places as p (p.id)}<option value={p.id}
							>{p.name}</option
						>{/each}</select
				></label
			>
			<label
				><span class="label">Kind</span><select name="family" class="w-full"
					><option value="">every kind</option>{#each data.families as f (f.key)}<option
							value={f.key}>{f.plural}</option
						>{/each}</select
				></label
			>
			{#if refusal}<Notice kind="refusal"><p>{refusal.message}</p></Notice>{/if}
			<button class="button primary">Begin</button>
		</form>
	{/if}
</div>
