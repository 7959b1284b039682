<script lang="ts" generics="T extends object">
	/**
	 * A list as a table: heads that sort, with the order in the address; rows that are walked and opened by key and
	 * chosen for doing something to many; what is seen as CSV. The same everywhere.
	 */
	import {
		createSortedRowModel,
		createTable,
		rowSelectionFeature,
		rowSortingFeature,
		sortFn_alphanumeric,
		tableFeatures
	} from '@tanstack/svelte-table';
	import { createWindowVirtualizer } from '@tanstack/svelte-virtual';
	import ArrowDown from '@lucide/svelte/icons/arrow-down';
	import ArrowUp from '@lucide/svelte/icons/arrow-up';
	import { onMount, untrack } from 'svelte';
	import { get } from 'svelte/store';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { hearsKeys } from '../shell/keys.svelte';
	import AsCsv from './AsCsv.svelte';
	import { nextSort, sortedAt, sortOf, type TableColumn } from './table';

	interface Props {
		/** What it lists, for whoever does not see it. */
		label: string;
		rows: T[];
		columns: readonly TableColumn<T>[];
		rowId: (row: T) => string;
		/** The page of a row. */
		href?: (row: T) => string;
		/** Sorted by the server: what comes stands in the order that the address asks for. */
		sorted?: boolean;
		/** Ids of what is chosen; left out: nothing is chosen here. */
		chosen?: string[] | undefined;
		/** Name of the file with what is seen; left out: none is offered. */
		csv?: string;
		width?: string;
	}
	let {
		label,
		rows,
		columns,
		rowId,
		href,
		sorted = false,
		chosen = $bindable(),
		csv,
		width = 'min-w-[44rem]'
	}: Props = $props();

	const sort = $derived(page.url.searchParams.get('sort') ?? '');
	const sorting = $derived.by(() => {
		const by = sortOf(sort);
		return by && columns.some(({ key }) => key === by.key) ? [{ id: by.key, desc: by.desc }] : [];
	});
	const picks = $derived(chosen !== undefined);
	const table = createTable({
		features: tableFeatures({
			rowSortingFeature,
			rowSelectionFeature,
			sortedRowModel: createSortedRowModel(),
			sortFns: { alphanumeric: sortFn_alphanumeric }
		}),
		// Which columns there are does not change while the page stands.
		columns: untrack(() =>
			columns.map(({ key, head, value }) => ({
				id: key,
				header: head,
				accessorFn: (row: T) => value(row) ?? undefined,
				sortFn: 'alphanumeric' as const,
				sortUndefined: 'last' as const
			}))
		),
		get data() {
			return rows;
		},
		getRowId: (row: T) => rowId(row),
		get manualSorting() {
			return sorted;
		},
		state: {
			get sorting() {
				return sorting;
			},
			get rowSelection() {
				return Object.fromEntries((chosen ?? []).map((id) => [id, true as const]));
			}
		},
		onRowSelectionChange: (next) => {
			const now = Object.fromEntries((chosen ?? []).map((id) => [id, true as const]));
			const after = typeof next === 'function' ? next(now) : next;
			chosen = Object.keys(after).filter((id) => after[id]);
		}
	});
	const seen = $derived(table.getRowModel().rows);
	const by = $derived(sortOf(sort));
	let current = $state(-1);
	let body: HTMLTableSectionElement | undefined = $state();

	/** Of more rows than these only what is in sight stands in the page; on paper all do. */
	const MOST_ROWS = 150;
	let whole = $state(true);
	onMount(() => {
		whole = false;
	});
	const windowed = $derived(!whole && seen.length > MOST_ROWS);
	const sight = createWindowVirtualizer<HTMLTableRowElement>({
		count: 0,
		estimateSize: () => 46,
		overscan: 12
	});
	$effect(() => {
		get(sight).setOptions({
			count: windowed ? seen.length : 0,
			scrollMargin: body ? body.getBoundingClientRect().top + window.scrollY : 0
		});
	});
	const inSight = $derived(windowed ? $sight.getVirtualItems() : []);
	const shown = $derived(
		windowed
			? inSight
					.flatMap(({ index }) => seen[index] ?? [])
					.map((row, at) => ({ row, i: inSight[at]?.index ?? 0 }))
			: seen.map((row, i) => ({ row, i }))
	);
	/** Heights of what is out of sight, above and below. */
	const above = $derived((inSight[0]?.start ?? 0) - (inSight[0] ? $sight.options.scrollMargin : 0));
	const below = $derived(
		inSight.length
			? $sight.getTotalSize() - ((inSight.at(-1)?.end ?? 0) - $sight.options.scrollMargin)
			: 0
	);
	const measured = (row: HTMLTableRowElement) => {
		if (windowed) get(sight).measureElement(row);
	};

	hearsKeys(() =>
		rows.length
			? [
					{ keys: '↑ ↓', does: `walk ${label.toLowerCase()}` },
					...(href ? [{ keys: 'Enter', does: 'open the row' }] : []),
					...(picks ? [{ keys: 'X', does: 'choose the row, or not' }] : [])
				]
			: []
	);
	function walk(event: KeyboardEvent) {
		if (event.ctrlKey || event.metaKey || event.altKey) return;
		if ((event.target as HTMLElement).closest('input, textarea, select, button, a, [role=dialog]'))
			return;
		const row = seen[current];
		if (event.key === 'ArrowDown') current = Math.min(seen.length - 1, current + 1);
		else if (event.key === 'ArrowUp') current = Math.max(0, current - 1);
		else if (event.key === 'Enter' && row && href) void goto(href(row.original));
		else if (event.key.toLowerCase() === 'x' && row && picks) row.toggleSelected();
		else return;
		event.preventDefault();
		if (windowed) get(sight).scrollToIndex(current, { align: 'auto' });
		else body?.rows[current]?.scrollIntoView({ block: 'nearest' });
	}
</script>

<svelte:window
	onkeydown={walk}
	onbeforeprint={() => (whole = true)}
	onafterprint={() => (whole = false)}
/>
<div class="overflow-x-auto" role="region" aria-label={label} tabindex="-1">
	<table
		class="w-full {width} border-collapse text-left"
		aria-rowcount={windowed ? seen.length + 1 : undefined}
	>
		<thead>
			<tr class="border-b-[1.5px] border-ink">
				{#if picks}<th class="pr-3" scope="col"
						><label class="flex min-h-11 items-center"
							><input
								type="checkbox"
								aria-label="All on this page"
								class="h-5 w-5"
								checked={table.getIsAllRowsSelected()}
								onchange={() => table.toggleAllRowsSelected()}
							/></label
						></th
					>{/if}
				{#each columns as column (column.key)}
					{@const here = by?.key === column.key}
					<th
						scope="col"
						class={['py-1 pr-4 text-[0.88rem] font-semibold text-soft', column.class]}
						aria-sort={here ? (by?.desc ? 'descending' : 'ascending') : undefined}
					>
						{#if column.sorts}<a
								class="inline-flex min-h-9 items-center gap-1 no-underline hover:underline"
								href={sortedAt(page.url, nextSort(sort, column.key))}
								data-sveltekit-noscroll
								data-sveltekit-keepfocus
								>{column.head}{#if here}{#if by?.desc}<ArrowDown
											size={14}
											aria-hidden="true"
										/>{:else}<ArrowUp size={14} aria-hidden="true" />{/if}{/if}</a
							>{:else}{column.head}{/if}
					</th>
				{/each}
			</tr>
		</thead>
		<tbody bind:this={body}>
			{#if above > 0}<tr aria-hidden="true" style:height="{above}px"></tr>{/if}
			{#each shown as { row, i } (row.id)}
				<tr
					data-index={i}
					aria-rowindex={windowed ? i + 2 : undefined}
					{@attach measured}
					class={['rowline hover:bg-tint', i === current && 'bg-tint outline-2 outline-accent']}
					aria-selected={picks ? row.getIsSelected() : undefined}
				>
					{#if picks}<td class="pr-3"
							><label class="flex min-h-11 items-center"
								><input
									type="checkbox"
									class="h-5 w-5"
									checked={row.getIsSelected()}
									onchange={() => row.toggleSelected()}
									aria-label="Choose {row.id}"
								/></label
							></td
						>{/if}
					{#each columns as column (column.key)}
						<td class={['pr-4', column.class]}
							>{#if column.cell}{@render column.cell(row.original)}{:else}{column.value(
									row.original
								) ?? ''}{/if}</td
						>
					{/each}
				</tr>
			{/each}
			{#if below > 0}<tr aria-hidden="true" style:height="{below}px"></tr>{/if}
		</tbody>
	</table>
</div>
{#if csv && seen.length}<AsCsv
		name={csv}
		rows={seen.map(({ original }) => original)}
		{columns}
	/>{/if}
