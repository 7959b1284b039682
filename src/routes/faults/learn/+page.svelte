<script lang="ts">
	import { airwayOf } from '$core/data/families';
	import { readable } from '$core/plan/calendar';
	import Airway from '$lib/ui/airway/Airway.svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import Notice from '$lib/ui/form/Notice.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { FAULT_LINKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';
	import type { TableColumn } from '$lib/ui/table/table';
	import Table from '$lib/ui/table/Table.svelte';
	import Lives from '$lib/ui/teach/Lives.svelte';
	import Rates from '$lib/ui/teach/Rates.svelte';
	import { siteDay } from '$lib/ui/time/moments';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const airway = $derived(airwayOf(data.family));
	const open = $derived(data.alarms.filter(({ alarm }) => !alarm.lookedAt));
	const ended = $derived(data.alarms.filter(({ alarm }) => alarm.lookedAt));
	const marks = $derived(
		Object.fromEntries(
			data.stations.map(({ key, failures, share }) => [
				key,
				{
					mark: failures ? ('reject' as const) : ('open' as const),
					says: share ? `${failures} faults, ${per(share.rate)} per 1,000` : 'none',
					// As large as its rate: the highest is the largest.
					weight: share ? (share.rate / highest) * 6 : 0
				}
			])
		)
	);
	const highest = $derived(Math.max(1e-6, ...data.stations.map(({ share }) => share?.rate ?? 0)));
	const failing = $derived(
		data.stations
			.flatMap(({ key, name, share }) =>
				share && share.failures
					? [
							{
								name,
								...share,
								href: `/faults?of=ended&family=${data.family}&station=${key}&days=${data.days}`
							}
						]
					: []
			)
			.sort((a, b) => b.rate - a.rate)
	);
	let part = $state<string | null>(null);
	const shown = $derived(data.parts.find((one) => one.part === part) ?? data.parts[0] ?? null);
	const per = (share: number) => (share * 1000).toFixed(share * 1000 < 10 ? 1 : 0);
	const percent = (n: number, of: number) => (of ? `${((n / of) * 100).toFixed(0)} %` : 'none yet');
	const hours = (n: number | null) =>
		n === null ? 'none yet' : n < 48 ? `${n.toFixed(0)} h` : `${(n / 24).toFixed(1)} days`;
	type Sign = (typeof data.signs)[number];
	const SIGNS: TableColumn<Sign>[] = [
		{ key: 'name', head: 'Lot, wash batch or place', value: (row) => row.name, cell: nameCell },
		{ key: 'faults', head: 'Faults', value: (row) => row.faults, class: 'text-right' },
		{
			key: 'expected',
			head: 'Expected',
			value: (row) => row.expected.toFixed(1),
			class: 'text-right'
		},
		{
			key: 'chance',
			head: 'Chance of so many',
			value: (row) => (row.pValue < 0.001 ? 'below 0.001' : row.pValue.toFixed(3)),
			class: 'text-right'
		},
		{ key: 'alarm', head: '', value: (row) => (row.alarmAt ? 'alarm' : ''), cell: alarmCell }
	];
	type Drift = (typeof data.drift)[number];
	const DRIFT: TableColumn<Drift>[] = [
		{ key: 'tag', head: 'Item', value: (row) => row.tag, cell: driftCell },
		{ key: 'what', head: 'What', value: (row) => row.what },
		{
			key: 'now',
			head: 'Now',
			value: (row) => `${row.now.toFixed(1)} ${row.unit}`,
			class: 'font-mono'
		},
		{
			key: 'month',
			head: 'In a month',
			value: (row) => `${row.perMonth >= 0 ? '+' : '−'}${Math.abs(row.perMonth).toFixed(1)}`,
			class: 'font-mono'
		},
		{
			key: 'crosses',
			head: 'Leaves its limits',
			value: (row) => (row.outside ? 'stands outside' : `about ${readable(row.crossesOn)}`)
		}
	];
	const minutes = (seconds: number) => `${(seconds / 60).toFixed(1)} min in the middle`;
	const levelWords = (by: string) => {
		const [purpose, procedure] = by.split(':');
		if (!procedure) return 'reported by hand, on return, at the bench';
		return purpose === 'look' ? 'look of the wearer' : procedure.replaceAll('-', ' ');
	};
</script>

<svelte:head><title>What the record teaches · Grevan</title></svelte:head>
{#snippet driftCell(row: Drift)}<a
		class="tag inline-flex min-h-11 items-center"
		href="/items/{row.tag}">{row.tag}</a
	>{/snippet}
{#snippet nameCell(row: Sign)}<a class="linkish inline-flex min-h-11 items-center" href={row.href}
		>{row.name}</a
	>{/snippet}
{#snippet alarmCell(row: Sign)}{#if row.alarmAt}<span
			class="relative inline-flex items-center gap-2"
			><StateMark state="held" />more than chance allows</span
		>{/if}{/snippet}
<div class="flex flex-wrap items-baseline gap-x-4">
	<h1>What the record teaches</h1>
	<form method="get" class="ml-auto flex flex-wrap items-end gap-3" data-sveltekit-keepfocus>
		<input type="hidden" name="family" value={data.family} />
		<label
			><span class="label">Looking back</span><select name="days" value={String(data.days)}>
				{#each [30, 90, 180, 365, 730] as days (days)}<option value={String(days)}
						>{days} days</option
					>{/each}
			</select></label
		>
		<button class="button">Show</button>
	</form>
</div>
<div class="mt-2"><SectionLinks label="Faults" links={FAULT_LINKS} /></div>
{#if refusal}<div class="mt-3"><Notice kind="refusal"><p>{refusal.message}</p></Notice></div>{/if}
{#if open.length}
	<section class="mt-4 border-l-4 border-held pl-4" aria-labelledby="alarms">
		<h2 id="alarms" class="text-held!">More faults than chance allows</h2>
		<ul>
			{#each open as { alarm } (alarm.id)}
				<li class="py-2">
					<p>
						<b>{alarm.name}</b>: {alarm.faults} faults where {alarm.expected.toFixed(1)} were to be expected.
						Told {siteDay(alarm.raisedAt)}.
						{#if alarm.group.startsWith('lot:')}<a
								class="linkish ml-1 inline-flex min-h-11 items-center"
								href="/faults/recalls?lot={alarm.group.slice(4)}">Call the lot back</a
							>{/if}
					</p>
					{#if data.mayLook}
						<form
							method="post"
							action="?/look"
							use:enhance
							class="flex max-w-xl flex-wrap items-end gap-3"
						>
							<input type="hidden" name="alarmId" value={alarm.id} />
							<div class="min-w-[14rem] flex-1">
								<PlainField
									name="found"
									label="Looked into it and found"
									maxlength={300}
									required
								/>
							</div>
							<button class="button">Keep</button>
						</form>
					{/if}
				</li>
			{/each}
		</ul>
	</section>
{/if}
<section class="mt-5" aria-labelledby="where">
	<h2 id="where">Where {airway.plural.toLowerCase()} fail, per 1,000 inspections</h2>
	{#if data.families.length > 1}
		<nav aria-label="Kinds of equipment with faults" class="flex flex-wrap gap-x-5">
			{#each data.families as one (one.family)}
				<a
					class="linkish flex min-h-11 items-center"
					class:font-semibold={one.family === data.family}
					aria-current={one.family === data.family ? 'true' : undefined}
					href="/faults/learn?family={one.family}&days={data.days}">{one.plural} ({one.n})</a
				>
			{/each}
		</nav>
	{/if}
	<Airway stations={airway.stations} {marks} label="Faults along the airway, by rate" />
	{#if failing.length}<div class="mt-2 max-w-4xl">
			<Rates label="Faults by station" rates={failing} />
		</div>{:else}<p>No fault of {airway.plural.toLowerCase()} in this time.</p>{/if}
</section>
<section class="mt-7" aria-labelledby="causes">
	<h2 id="causes">What goes with it</h2>
	{#if data.causes.few}<p>
			{data.causes.failures} faults are too few to tell lot, model, place and wash apart.
		</p>{:else if data.causes.said.length === 0}<p>
			Nothing stands out: {data.causes.looked} lots, models, places and baths were looked at beside each
			other, and none fails more than chance allows.
		</p>{:else}
		<ol class="list-decimal pl-5 text-[1.08rem]">
			{#each data.causes.said as said (said)}<li class="py-0.5">{said}</li>{/each}
		</ol>
		<p class="text-[0.93rem] text-soft">
			Each with the others taken into account; {data.causes.looked} were looked at. It shows what goes
			together, not why.
		</p>
	{/if}
	<div class="mt-3 grid gap-x-10 gap-y-6 lg:grid-cols-2">
		{#each data.factors as one (one.factor)}
			<div>
				<h3 class="font-semibold first-letter:uppercase">
					By {one.factor}
					<span class="font-normal text-soft"
						>{one.pValue < 0.05
							? `differ by more than chance, p ${one.pValue < 0.001 ? 'below 0.001' : one.pValue.toFixed(3)}`
							: 'no more than chance'}</span
					>
				</h3>
				<Rates label="Faults by {one.factor}" rates={one.rates} />
			</div>
		{/each}
	</div>
</section>
{#if data.months.length > 1}
	<section class="mt-7 max-w-4xl" aria-labelledby="months">
		<h2 id="months">By month</h2>
		<Rates label="Faults by month" rates={data.months} />
	</section>
{/if}
{#if data.drift.length}
	<section class="mt-7" aria-labelledby="drift">
		<h2 id="drift">On their way out of their limits, the first to cross first</h2>
		<Table
			label="Values on their way out of their limits"
			rows={data.drift}
			columns={DRIFT}
			rowId={(row) => `${row.tag} ${row.what}`}
			href={(row) => `/items/${row.tag}`}
			csv="drift"
			width="min-w-[34rem]"
		/>
	</section>
{/if}
{#if data.signs.length}
	<section class="mt-7" aria-labelledby="signs">
		<h2 id="signs">Lots, batches and places against the others</h2>
		<p class="text-[0.93rem] text-soft">
			{data.watched} are watched after every fault. All of them together cry without cause in one year
			of twenty at most.
		</p>
		<Table
			label="Strongest signs"
			rows={data.signs}
			columns={SIGNS}
			rowId={(row) => row.group}
			csv="clusters"
			width="min-w-[36rem]"
		/>
	</section>
{/if}
{#if shown}
	<section class="mt-7" aria-labelledby="lives">
		<h2 id="lives">How long parts live</h2>
		<div class="flex flex-wrap gap-x-5" role="group" aria-label="Part">
			{#each data.parts as one (one.part)}
				<button
					class="linkish min-h-11"
					class:font-semibold={one === shown}
					aria-pressed={one === shown}
					onclick={() => (part = one.part)}>{one.name} ({one.failures} of {one.sits})</button
				>
			{/each}
		</div>
		<div class="max-w-3xl"><Lives part={shown} cost={data.cost} /></div>
	</section>
{/if}
<div class="mt-7 grid gap-x-12 gap-y-7 lg:grid-cols-2">
	<section aria-labelledby="service">
		<h2 id="service">How the service does</h2>
		<dl class="grid grid-cols-[minmax(0,1fr)_auto] gap-x-6">
			{#each [['Passed the first inspection after the repair', `${percent(data.service.firstPassed, data.service.first)}, ${data.service.first} repairs`], ['From found to ready, in the middle', hours(data.service.medianHours)], ['Nine of ten within', hours(data.service.ninetyHours)], ['Mended there again within 30 days', `${percent(data.service.again, data.service.repaired)}, ${data.service.again} of ${data.service.repaired}`], ['Not confirmed', `${percent(data.service.notConfirmed, data.service.ended)}, ${data.service.notConfirmed} of ${data.service.ended}`], ['Minutes at the bench, on average', data.service.minutes === null ? 'not said yet' : data.service.minutes.toFixed(0)]] as [what, value] (what)}
				<dt class="rowline py-1">{what}</dt>
				<dd class="rowline py-1 text-right font-mono">{value}</dd>
			{/each}
		</dl>
	</section>
	<section aria-labelledby="found">
		<h2 id="found">Who finds them</h2>
		<dl class="grid grid-cols-[minmax(0,1fr)_auto] gap-x-6">
			{#each data.service.foundBy as one (one.by)}
				<dt class="rowline py-1 first-letter:uppercase">{levelWords(one.by)}</dt>
				<dd class="rowline py-1 text-right font-mono">{one.n}</dd>
			{:else}<dt>Nothing was found in this time.</dt>
				<dd></dd>{/each}
		</dl>
	</section>
</div>
{#if data.inspectors?.length}
	<section class="mt-7 max-w-4xl" aria-labelledby="who">
		<h2 id="who">Inspections that find anything, by person</h2>
		<p class="text-[0.93rem] text-soft">Seen by supervisors alone: for training, not for blame.</p>
		<Rates
			label="Inspections with a find, by person"
			of="with a find"
			rates={data.inspectors.map((one) => ({
				...one.share,
				name: `${one.name}, ${minutes(one.medianSeconds)}${one.pValue < 0.05 && one.less ? '; finds less than the others' : ''}`
			}))}
		/>
	</section>
{/if}
{#if ended.length}
	<details class="mt-7">
		<summary class="linkish min-h-11 content-center"
			>Alarms that were looked into, {ended.length}</summary
		>
		<ul>
			{#each ended as { alarm, by } (alarm.id)}
				<li class="rowline py-1">
					<b>{alarm.name}</b>, {siteDay(alarm.raisedAt)}: “{alarm.looked}” {by}, {alarm.lookedAt
						? siteDay(alarm.lookedAt)
						: ''}
				</li>
			{/each}
		</ul>
	</details>
{/if}
