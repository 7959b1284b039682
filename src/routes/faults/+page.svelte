<script lang="ts">
	import { format } from 'date-fns';
	import { airwayOf, stationOf } from '$core/data/families';
	import { rejectCode } from '$core/data/reject-codes';
	import Airway from '$lib/ui/airway/Airway.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';

	let { data } = $props();
	const airway = airwayOf('half-mask');
	const marks = $derived(
		Object.fromEntries(
			airway.stations.map((station) => {
				const n = data.byStation.find((row) => row.station === station.key)?.n ?? 0;
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
	const all = $derived(data.byStation.reduce((sum, row) => sum + row.n, 0));
</script>

<svelte:head><title>Faults · Grevan</title></svelte:head>
<div class="flex flex-wrap items-baseline gap-x-4">
	<h1>Faults</h1>
	<p class="text-soft">{data.open.length} open</p>
</div>
<section class="mt-3" aria-labelledby="where">
	<h2 id="where">
		Where half masks fail: {all} so far{all < 20 ? ', a small number' : ''}; marks grow with the
		count
	</h2>
	<Airway stations={airway.stations} {marks} label="Faults along the airway" />
</section>
<section aria-labelledby="open" class="mt-6">
	<h2 id="open">Open, most serious first</h2>
	{#if data.open.length === 0}<p class="mt-1">
			No open fault. A reject in an inspection opens one and holds the item.
		</p>{/if}
	<ul>
		{#each data.open as row (row.id)}
			<li class="rowline">
				<a
					href="/faults/{row.id}"
					class="grid min-h-12 grid-cols-[1.6rem_5.4rem_1fr] items-center gap-3 no-underline hover:bg-tint md:grid-cols-[1.6rem_5.4rem_4.5rem_1fr_14rem_7rem]"
				>
					<StateMark
						state={row.severity === 'watch' || row.severity === 'note' ? 'watch' : 'held'}
					/>
					<span class="tag">{row.tag}</span>
					<span class="tag">{row.code}</span>
					<span class="col-span-2 col-start-2 md:col-span-1 md:col-start-auto"
						><b class="font-semibold">{stationOf('half-mask', row.station).name}</b>: {rejectCode(
							row.code
						).name}{row.reports > 1 ? ` · ${row.reports} reports` : ''}</span
					>
					<span class="text-soft hidden md:block">{row.place}</span>
					<span class="text-soft hidden font-mono text-[0.9rem] md:block"
						>{format(row.reportedAt, 'd MMM yyyy')}</span
					>
				</a>
			</li>
		{/each}
	</ul>
</section>
