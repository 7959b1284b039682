<script lang="ts">
	/** How many will be ready, place by place, and the chance to fall under a floor; and what if. */
	import { onDestroy, onMount } from 'svelte';
	import { FAMILIES } from '$core/data/families';
	import { readable } from '$core/plan/calendar';
	import type { GroupForecast } from '$core/plan/forecast/fleet';
	import type { WhatIf } from '$core/plan/forecast/site-fleet';
	import type { PlanMessage } from '../../../workers/plan';
	import DayField from '$lib/ui/form/DayField.svelte';
	import Field from '$lib/ui/form/Field.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import Band from '$lib/ui/plan/Band.svelte';
	import { PlanRunner } from '$lib/ui/plan/runner.svelte';
	import { hoursAndMinutes } from '$lib/ui/plan/words';

	let { data } = $props();
	const runner = new PlanRunner();
	onDestroy(() => runner.stop());
	let done = $state(0);
	let found = $state.raw<Extract<PlanMessage, { kind: 'forecast' }> | null>(null);
	let change = $state.raw<WhatIf | null>(null);
	let kind = $state<WhatIf['kind']>('task');
	const rates = $derived(data.facts.rates);
	const families = $derived([
		...new Set(data.facts.plan.jobs.flatMap(({ family }) => family ?? []))
	]);
	const models = $derived(
		[...new Map(rates.flatMap((one) => one.models).map((model) => [model.id, model.name]))].sort(
			(a, b) => a[1].localeCompare(b[1])
		)
	);
	onMount(() => void run(null));
	async function run(asked: WhatIf | null) {
		change = asked;
		done = 0;
		await runner.start({ kind: 'forecast', facts: data.facts, change: asked }, (message) => {
			if (message.kind === 'progress') done = message.done;
			if (message.kind === 'forecast') found = message;
		});
	}
	const percent = (p: number) =>
		p === 0
			? 'under 0.01 %'
			: p < 0.001
				? '0.1 % at most'
				: `${(100 * p).toFixed(p < 0.1 ? 1 : 0)} %`;
	const rows = $derived(
		(found?.before.groups ?? [])
			.map((group, i) => ({ group, after: found?.after?.groups[i] }))
			.sort(
				(a, b) =>
					Math.max(b.group.worst?.belowFloor ?? 0, b.after?.worst?.belowFloor ?? 0) -
					Math.max(a.group.worst?.belowFloor ?? 0, a.after?.worst?.belowFloor ?? 0)
			)
	);
	const enough = ({ moreNeeded }: GroupForecast) =>
		moreNeeded > 0
			? `${moreNeeded} more would hold it`
			: moreNeeded < 0
				? `${-moreNeeded} to spare`
				: 'just enough';
	function ask(event: SubmitEvent) {
		event.preventDefault();
		const form = new FormData(event.currentTarget as HTMLFormElement);
		const text = (name: string) => String(form.get(name) ?? '');
		const from = text('from') || data.facts.plan.from;
		const [place = '', of = ''] = text('floor').split('\n');
		const asked: Record<WhatIf['kind'], () => WhatIf> = {
			task: () => ({
				kind: 'task',
				place,
				of,
				perDay: Math.max(0, Number(text('perDay')) || 0),
				from
			}),
			model: () => ({ kind: 'model', modelId: text('modelId') }),
			away: () => ({
				kind: 'away',
				userId: text('userId'),
				from,
				until: text('until') || data.facts.plan.until
			}),
			interval: () => ({
				kind: 'interval',
				family: text('family'),
				what: text('what') === 'bench test' ? 'bench test' : 'inspection',
				days: Math.min(3650, Math.max(1, Math.round(Number(text('days')) || 30)))
			})
		};
		void run(asked[kind]());
	}
	const KINDS: Record<WhatIf['kind'], string> = {
		task: 'a task uses more',
		model: 'a model is withdrawn',
		away: 'somebody is away',
		interval: 'an interval changes'
	};
	const nameOf = (family: string) =>
		FAMILIES.find((one) => one.family === family)?.plural ?? family;
</script>

<svelte:head><title>Forecast · Plan · Grevan</title></svelte:head>
<div class="mt-4 flex flex-wrap items-baseline gap-x-4 gap-y-1">
	<h1>Forecast</h1>
	<p class="text-soft">
		{readable(data.facts.plan.from)} to {readable(data.facts.plan.until)}, under the plan, {data.facts.runs.toLocaleString(
			'en-GB'
		)} fleets lived through
	</p>
</div>
<p class="mt-1 max-w-prose text-[0.95rem] text-soft">
	What the plan takes away, what failed of what was looked over in a year, what went out in the last
	month, and how long each is away. Where little is known the band is wide.
</p>
{#if runner.running}
	<p class="mt-3 flex items-center gap-3" role="status">
		<progress class="w-48" max="1" value={done} aria-label="How far it is"></progress> Living
		through the fleets.
		<button class="button" type="button" onclick={() => runner.stop()}>Stop</button>
	</p>
{/if}
{#if runner.failed}<Notice kind="refusal"
		><p>The forecast could not be worked out here. Load the page again.</p></Notice
	>{/if}
<div class="mt-4 grid gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,1fr)_19rem]">
	<div>
		{#if found}
			{#if change && found.after}
				<p class="mb-3" role="status">
					If <b>{KINDS[change.kind]}</b>: highest day {hoursAndMinutes(found.peakMin[1])}, now
					{hoursAndMinutes(found.peakMin[0])}{found.lost
						? `; ${found.lost} jobs would find no day`
						: ''}. The broken line is what would be ready then.
					<button class="linkish min-h-11" type="button" onclick={() => void run(null)}
						>As it is</button
					>
				</p>
			{/if}
			<ul>
				{#each rows as { group, after } (group.place + group.kind)}
					<li
						class="rowline grid grid-cols-[9rem_minmax(0,1fr)_11rem] items-center gap-x-4 py-1.5 max-md:grid-cols-[1fr_auto]"
					>
						<span class="leading-tight"
							><b class="block font-semibold first-letter:uppercase">{group.kind}</b><span
								class="text-[0.9rem] text-soft"
								>{group.place} · floor {group.floor} of {group.have}</span
							></span
						>
						<span class="max-md:order-3 max-md:col-span-2"><Band {group} {after} /></span>
						<span class="text-right text-[0.93rem] leading-tight">
							<b class={(group.worst?.belowFloor ?? 0) > data.facts.mostChance ? 'text-held' : ''}
								>{percent(group.worst?.belowFloor ?? 0)}</b
							>{#if after}
								→ <b
									class={(after.worst?.belowFloor ?? 0) > data.facts.mostChance ? 'text-held' : ''}
									>{percent(after.worst?.belowFloor ?? 0)}</b
								>{/if}
							<span class="block text-soft"
								>{group.worst ? `worst ${readable(group.worst.day)}` : 'on no day'}<br />{enough(
									after ?? group
								)}</span
							>
						</span>
					</li>
				{:else}<li>No place has a floor. Floors stand under Settings, Places and floors.</li>{/each}
			</ul>
			<p class="mt-2 text-[0.9rem] text-soft">
				The line is the middle of all fleets, the band holds nine of ten, the straight line is the
				floor. The figure is the chance to have fewer than the floor on the worst day; {percent(
					data.facts.mostChance
				)} is put up with. Worked out here in {(found.ms / 1000).toFixed(1)} s, seed {found.before
					.seed}.
			</p>
		{:else if !runner.running}<p>
				Stopped. <button class="linkish min-h-11" onclick={() => void run(null)}>Begin again</button
				>
			</p>{/if}
	</div>
	<form class="grid content-start gap-3" onsubmit={ask} aria-label="What if">
		<h2>What if</h2>
		<Field id="what-kind" label="What changes">
			{#snippet children(field)}<select {...field} class="w-full" bind:value={kind}>
					{#each Object.entries(KINDS) as [key, words] (key)}<option value={key}>{words}</option
						>{/each}
				</select>{/snippet}
		</Field>
		{#if kind === 'task'}
			<Field id="what-floor" label="Of what, where">
				{#snippet children(field)}<select {...field} name="floor" class="w-full">
						{#each rates as one (one.place + one.kind)}<option value="{one.place}&#10;{one.kind}"
								>{one.kind}, {one.place}</option
							>{/each}
					</select>{/snippet}
			</Field>
			<Field id="what-per-day" label="More used in a day">
				{#snippet children(field)}<input
						{...field}
						name="perDay"
						class="w-28 font-mono"
						inputmode="decimal"
						value="4"
					/>{/snippet}
			</Field>
			<DayField label="From" name="from" value={data.facts.plan.from} />
		{:else if kind === 'model'}
			<Field id="what-model" label="Model">
				{#snippet children(field)}<select {...field} name="modelId" class="w-full">
						{#each models as [id, name] (id)}<option value={id}>{name}</option>{/each}
					</select>{/snippet}
			</Field>
		{:else if kind === 'away'}
			<Field id="what-who" label="Who">
				{#snippet children(field)}<select {...field} name="userId" class="w-full">
						{#each data.facts.plan.workers as { id, name } (id)}<option value={id}>{name}</option
							>{/each}
					</select>{/snippet}
			</Field>
			<DayField label="From" name="from" value={data.facts.plan.from} />
			<DayField label="Until" name="until" value="" />
		{:else}
			<Field id="what-family" label="Of what">
				{#snippet children(field)}<select {...field} name="family" class="w-full">
						{#each families as family (family)}<option value={family}>{nameOf(family)}</option
							>{/each}
					</select>{/snippet}
			</Field>
			<Field id="what-what" label="Which">
				{#snippet children(field)}<select {...field} name="what" class="w-full"
						><option value="inspection">Inspection</option><option value="bench test"
							>Bench test</option
						></select
					>{/snippet}
			</Field>
			<Field id="what-days" label="Every so many days">
				{#snippet children(field)}<input
						{...field}
						name="days"
						class="w-28 font-mono"
						inputmode="numeric"
						value="60"
					/>{/snippet}
			</Field>
		{/if}
		<button class="button primary justify-self-start" disabled={runner.running}
			>Before and after</button
		>
	</form>
</div>
