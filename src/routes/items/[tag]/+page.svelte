<script lang="ts">
	import { clock } from '$core/filters/schedule';
	import { airwayOf } from '$core/data/families';
	import { rejectCode } from '$core/data/reject-codes';
	import { repairOf } from '$core/data/repairs';
	import { ZONE_NAMES } from '$core/airway/airway';
	import Airway from '$lib/ui/airway/Airway.svelte';
	import { marksOfAnswers, withDefects, withParts } from '$lib/ui/airway/item-marks';
	import Because from '$lib/ui/because/Because.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import FilterBand from '$lib/ui/form/FilterBand.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import Fitted from './Fitted.svelte';
	import Parts from './Parts.svelte';
	import SealedFilter from './SealedFilter.svelte';
	import Seal from './Seal.svelte';
	import Story from './Story.svelte';
	import Trends from './Trends.svelte';
	import { readable } from '$core/plan/calendar';
	import { freshId } from '$lib/fresh-id';
	import { siteDay } from '$lib/ui/time/moments';
	import { refusedAt } from '$lib/ui/form/refused';

	let { data, form } = $props();
	const airway = $derived(airwayOf(data.item.family));
	const procedure = $derived(data.lastProcedure);
	const answers = $derived(
		new Map(
			(data.lastRun?.answers ?? []).map((a) => [
				a.step,
				{ ...a, severity: a.code ? rejectCode(a.code).severity : null }
			])
		)
	);
	const marks = $derived(
		withParts(
			withDefects(procedure ? marksOfAnswers(procedure, answers) : {}, data.defects),
			data.parts,
			data.record.partStations
		)
	);
	let station = $state<string | null>(null);
	const shown = $derived(airway.stations.find((s) => s.key === station) ?? null);
	/** The part that decides, where one does, before the item's own dates. */
	const next = $derived(
		data.verdict.reasons.find((r) => r.rule === `item.part.${data.verdict.outcome}`)?.text ??
			data.verdict.reasons.find((r) => r.rule === 'due.calendar')?.text
	);
	/** What the air section knows of a kind. */
	const AIR_PAGES = {
		cylinder: { href: '/air/cylinders/', words: 'Pressure, tests, filling' },
		rig: { href: '/air/airlines/', words: 'Hose, tags, minutes' }
	};
	const air = $derived(
		data.record.air
			? AIR_PAGES[data.record.air]
			: data.record.goesIn
				? { href: '/air?set=', words: 'How long it lasts' }
				: null
	);
	const HEADLINE: Record<string, string> = {
		ready: 'Ready on these facts',
		due: 'Usable, something falls due',
		overdue: 'Overdue: not to be used',
		held: 'Held: not to be used',
		'in service': 'In service: not to be used',
		'in wash': 'On the wash line, not ready yet',
		issued: 'Out',
		retired: 'Out of use for good'
	};
	const id = freshId();
	const listId = freshId();
	/** Lists that more than one thing could be called, by key. */
	const LIST_WORDS: Record<string, string> = {
		'gas-tight-suit-donning': 'put on: BA outside, with an assistant',
		'gas-tight-suit-donning-inside': 'put on: BA inside, with an assistant'
	};
	const away = $derived(['in wash', 'issued'].includes(data.verdict.outcome));
	const held = $derived(['held', 'in service'].includes(data.verdict.outcome));
	const repairWords = $derived(
		data.job
			? `${data.job.doneAt ? 'Inspect and release' : 'Go on with the repair'}: ${repairOf(data.job.repair).name.toLowerCase()}`
			: 'Repair it'
	);
	const usable = $derived(!['retired'].includes(data.verdict.outcome));
	/** What may be walked as it stands: nobody is helped into what is held. */
	const lists = $derived(
		data.openRun || !data.mayInspect || !usable
			? []
			: data.lists.filter((list) => list.purpose !== 'donning' || !held)
	);
</script>

<svelte:head><title>{data.item.tag} · Grevan</title></svelte:head>
<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
	<span class="tag rounded border-[1.5px] border-ink bg-sheet px-2 text-[1.45rem]"
		>{data.item.tag}</span
	>
	<h1>{data.model.name}</h1>
	<p class="text-soft">
		{airway.name} · size {data.item.size} · {data.place} · {data.item.usePattern} use · serial
		<span class="font-mono">{data.item.serial}</span>
	</p>
	{#if usable}<a
			class="linkish ml-auto flex min-h-11 items-center"
			href="/faults/report?tag={data.item.tag}">Write a fault down</a
		>{/if}
	<a
		class="linkish flex min-h-11 items-center"
		class:ml-auto={!usable}
		href="/items/{data.item.tag}/history">History</a
	>
</div>

{#if form?.refusal && !['tag', 'number', 'why', 'lotId', 'initials', 'discardReason'].includes(form.refusal.path ?? '')}<div
		class="mt-4"
	>
		<Notice kind="refusal"><p>{form.refusal.message}</p></Notice>
	</div>{/if}

<div class="mt-4 grid gap-x-10 gap-y-5 lg:grid-cols-[minmax(0,1fr)_22rem]">
	<!-- On a narrow screen the state and its next step come before the long line. -->
	<div class="max-lg:order-2 lg:col-span-2">
		<Airway
			stations={airway.stations}
			{marks}
			label="Airway of {data.item.tag}, from the room air to the bag"
			current={station}
			onchoose={(key) => (station = key)}
		/>
		<p class="text-soft mt-1 hidden text-[0.86rem] md:block">
			{airway.stations.some((s) => s.side) ? 'left above, right below · ' : ''}dashed room air,
			double high pressure, thick medium pressure, plain inside · thin line: what holds it · choose
			a station to see it
		</p>
	</div>
	<section aria-labelledby="station" class="max-lg:order-3">
		{#if shown}
			{@const found = data.defects.filter((d) => d.station === shown.key)}
			<p class="text-soft">{ZONE_NAMES[shown.zone]}</p>
			<h2 id="station" class="text-[1.6rem]! leading-tight text-ink!">{shown.name}</h2>
			<p class="mt-1">What can be wrong: {shown.faults.toLowerCase()}.</p>
			{#if data.lastRun}<p class="mt-2">
					Last time here: <b
						>{marks[shown.key]?.says ?? marks[shown.key]?.mark ?? 'not looked at'}</b
					>
					<span class="text-soft"
						>· {data.lastRun.signedAt ? siteDay(data.lastRun.signedAt) : ''} · {data.lastRun
							.by}</span
					>
				</p>{/if}
			{#each found as defect (defect.id)}
				<p class="mt-2">
					<a class="linkish" href="/faults/{defect.id}"
						><span class="tag">{defect.code}</span> {rejectCode(defect.code).name}</a
					>
				</p>
			{/each}
		{:else}
			<h2 id="station">Open faults</h2>
			{#if data.defects.length === 0}<p class="mt-1">
					None. {data.lastRun
						? `Last inspected ${data.lastRun.signedAt ? siteDay(data.lastRun.signedAt) : ''} by ${data.lastRun.by}.`
						: 'Never inspected here.'}
				</p>{/if}
			<ul>
				{#each data.defects as defect (defect.id)}
					<li class="rowline">
						<a
							href="/faults/{defect.id}"
							class="grid min-h-12 grid-cols-[1.6rem_5rem_1fr] items-center gap-3 no-underline"
						>
							<StateMark
								state={defect.severity === 'watch' || defect.severity === 'note' ? 'watch' : 'held'}
							/>
							<span class="tag">{defect.code}</span>
							<span
								><b>{airway.stations.find((s) => s.key === defect.station)?.name}</b>: {rejectCode(
									defect.code
								).name}<span class="text-soft">{defect.note ? ` · ${defect.note}` : ''}</span></span
							>
						</a>
					</li>
				{/each}
			</ul>
		{/if}

		{#if (data.record.carries && data.model.mount !== 'none') || data.pair}<h2 class="mt-7">
				Filters on it
			</h2>{/if}
		{#if data.pair}
			<div class="mt-2 flex flex-wrap items-center gap-4">
				<a class="tag linkish" href="/filters/pairs/{data.pairTag}">{data.pairTag}</a>
				<FilterBand
					code={(data.site.codeScheme === 'us' ? data.pair.model.codeUs : data.pair.model.codeEn) ??
						data.pair.model.name}
					scheme={data.site.codeScheme}
					small
				/>
				<span
					>{data.pair.model.name}, {data.pair.pair.sealedUntil ? 'fitted sealed' : 'opened'}
					{readable(data.pair.pair.openedOn)}, {data.pair.pair.initials}</span
				>
			</div>
			<p class="mt-2">
				Last day <b>{readable(data.pair.change.changeOn)}</b>{#if data.pair.change.changeAfterMin},
					or after <b>{clock(data.pair.change.changeAfterMin)}</b> of wear, whichever comes first{/if}.
				<Because
					title="Change the filters by {readable(data.pair.change.changeOn)}"
					reasons={data.pair.change.reasons}
				/>
			</p>
		{:else if data.record.keepsSealed && data.model.mount !== 'none'}
			<p class="mt-1">None on record.</p>
		{:else if data.record.carries && data.model.mount !== 'none'}
			<p class="mt-1">
				No opened pair. <a class="linkish" href="/filters">Open one under Filters</a>, from a hazard
				plan.
			</p>
		{/if}
		{#if data.record.keepsSealed && data.model.mount !== 'none' && data.mayOpen && usable}
			<SealedFilter {data} refused={(path) => refusedAt(form?.refusal, path)} />
		{/if}
		<Parts {data} refusal={refusedAt(form?.refusal, 'tag')} />
		<Story {data} {lists} noted={form && 'noted' in form ? form.noted : null} />
		<Fitted {data} />
		<Trends trends={data.trends} />
	</section>

	<aside
		class="self-start rounded border-2 border-ink bg-sheet p-4 max-lg:order-1"
		aria-label="State"
	>
		<StateMark state={data.verdict.outcome} word size={24} />
		<p class="mt-2 text-[1.3rem] leading-tight font-bold">{HEADLINE[data.verdict.outcome]}</p>
		<p class="mt-2">
			{held || away ? data.verdict.reasons[0]?.text : (next ?? data.verdict.reasons[0]?.text)}
		</p>
		<Because title="{data.item.tag} is {data.verdict.outcome}" reasons={data.verdict.reasons} />
		{#if data.item.usePattern === 'emergency'}<Seal
				{data}
				refusal={form?.refusal && ['number', 'why'].includes(form.refusal.path ?? '')
					? form.refusal.message
					: null}
			/>{/if}
		{#if data.care?.washedAt}<p class="text-soft mt-1">
				Last full wash {siteDay(data.care.washedAt)},
				<a class="linkish" href="/wash/{data.care.batchId}">batch {data.care.batch}</a>, {data.care
					.agent}, {data.care.by}{data.care.wipes ? `; wiped ${data.care.wipes} times since` : ''}.
			</p>{/if}
		<div class="mt-3 grid gap-2">
			{#if data.verdict.outcome === 'issued' && data.mayInspect}<a
					class="button primary"
					href="/counter/return">Take it back</a
				>{/if}
			{#if data.verdict.outcome === 'in wash' && data.mayInspect}<a
					class="button primary"
					href="/wash">To the wash line</a
				>{/if}
			{#if data.openRun}
				<a class="button primary" href="/runs/{data.openRun.id}">Go on with the inspection</a>
			{/if}
			{#if data.defects[0] && (data.mayInspect || data.job)}
				<a
					class="button {held && !data.openRun ? 'primary' : ''}"
					href="/faults/{data.defects[0].id}">{repairWords}</a
				>
			{/if}
			{#if !data.openRun && data.mayInspect && usable}
				<form method="post" action="?/inspect">
					<input type="hidden" name="id" value={id} />
					{#if data.procedures.length > 1}
						<div class="grid gap-2">
							{#each data.procedures as p (p.key)}<button
									class="button w-full {held ? '' : 'primary'}"
									name="procedure"
									value={p.key}
									>{data.job?.doneAt ? 'Inspect after the repair' : 'Inspect now'}, {p.school} school</button
								>{/each}
						</div>
						<p class="text-soft mt-1 text-[0.9rem]">
							Both schools begin with the one-minute hold; they differ in how the whistle is heard.
						</p>
					{:else}
						<button class="button w-full {held ? '' : 'primary'}"
							>{data.job?.doneAt ? 'Inspect after the repair' : 'Inspect now'}</button
						>
					{/if}
				</form>
			{/if}
			{#if air}<a class="button" href="{air.href}{data.item.tag}">{air.words}</a>{/if}
			{#if data.takesBenchTest && data.mayInspect}<a
					class="button"
					href="/bench?tag={data.item.tag}">Pressure test</a
				>{/if}
			{#if data.takesSealCheck && usable && !held}<a
					class="button"
					href="/items/{data.item.tag}/seal">Seal check</a
				>{/if}
			{#if data.mayInspect && usable && data.procedures.length}<p class="flex gap-4">
					<a
						class="linkish inline-flex min-h-11 items-center"
						href="/items/sheets?tags={data.item.tag}">Sheet to print</a
					><a class="linkish inline-flex min-h-11 items-center" href="/items/{data.item.tag}/paper"
						>Type a sheet in</a
					>
				</p>{/if}
			{#if lists.length}
				<details>
					<summary class="min-h-11 cursor-pointer content-center font-semibold">Other lists</summary
					>
					<form method="post" action="?/inspect" class="grid gap-2">
						<input type="hidden" name="id" value={listId} />
						{#each lists as list (list.key)}<button
								class="button w-full justify-between text-left"
								name="procedure"
								value={list.key}
								><span class="first-letter:uppercase inline-block"
									>{LIST_WORDS[list.key] ?? list.levels[0] ?? list.name}</span
								><span class="text-soft text-[0.9rem]">{list.steps} steps</span></button
							>{/each}
					</form>
				</details>
			{/if}
		</div>
	</aside>
</div>
