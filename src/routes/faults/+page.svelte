<script lang="ts">
	import { FAMILIES, stationOf } from '$core/data/families';
	import { rejectCode } from '$core/data/reject-codes';
	import Airway from '$lib/ui/airway/Airway.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { siteDay } from '$lib/ui/time/moments';

	import { FAULT_LINKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';

	let { data } = $props();
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
<div class="flex flex-wrap items-baseline gap-x-4">
	<h1>Faults</h1>
	<p class="text-soft">{data.open.length} open</p>
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
						><b class="font-semibold">{stationOf(row.family, row.station).name}</b>: {rejectCode(
							row.code
						).name}{row.reports > 1 ? ` · ${row.reports} reports` : ''}</span
					>
					<span class="text-soft hidden md:block">{row.place}</span>
					<span class="text-soft hidden font-mono text-[0.9rem] md:block"
						>{siteDay(row.reportedAt)}</span
					>
				</a>
			</li>
		{/each}
	</ul>
</section>
