<script lang="ts">
	/** The places that keep so many of a family ready; open where one of them runs short. */
	import type { ItemState } from '$core/readiness/findings';
	import ShelfBar from './ShelfBar.svelte';

	interface Row {
		placeId: string;
		place: string;
		floor: number;
		counts: Partial<Record<ItemState, number>>;
		usable: number;
	}
	interface Props {
		shelf: {
			family: string;
			name: string;
			rows: readonly Row[];
			usable: number;
			floor: number;
			short: number;
		};
		open: boolean;
	}
	let { shelf, open }: Props = $props();
	const KINDS = 5;
	/** So many ticks fit a line. */
	const TICKS = 36;
	const size = (row: Row) => Object.values(row.counts).reduce((sum, n) => sum + n, 0);
	const largest = $derived(Math.max(1, ...shelf.rows.map((row) => Math.max(row.floor, size(row)))));
	const perTick = $derived(Math.max(1, Math.ceil(largest / TICKS)));
	const most = $derived(Math.ceil(largest / perTick) + (perTick > 1 ? KINDS : 0));
</script>

<details {open} class="rowline">
	<summary class="flex min-h-11 cursor-pointer flex-wrap items-center gap-x-3">
		<b class="font-semibold">{shelf.name}</b>
		{#if shelf.short}<span class="font-semibold text-held"
				>{shelf.short === 1 ? 'one place is short' : `${shelf.short} places are short`}</span
			>{/if}
		<span class="ml-auto font-mono">{shelf.usable} / {shelf.floor}</span>
	</summary>
	<ul class="pb-2 pl-4">
		{#each shelf.rows as row (row.placeId)}
			<li>
				<a
					href="/items?place={row.placeId}&family={shelf.family}"
					class="grid grid-cols-[1fr_auto] items-center gap-x-3 py-1 no-underline"
				>
					<span>{row.place}</span>
					<span class="font-mono {row.usable < row.floor ? 'font-bold text-held' : ''}"
						>{row.usable} / {row.floor}</span
					>
					<span class="col-span-2"><ShelfBar {...row} {perTick} {most} /></span>
				</a>
			</li>
		{/each}
	</ul>
	{#if perTick > 1}<p class="text-soft pb-2 pl-4 text-[0.88rem]">
			One tick = {perTick} of them.
		</p>{/if}
</details>
