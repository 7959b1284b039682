<script lang="ts">
	import DialMarks from '$lib/ui/camera/DialMarks.svelte';
	import { untrack } from 'svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import LongField from '$lib/ui/form/LongField.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { longForm, refusedWhole } from '$lib/ui/form/long-form';
	import { AGENTS, type CardNumber } from '$core/register/model-card';
	import { MODEL_TEMPLATES } from '$core/data/model-templates';
	import { freshId } from '$lib/fresh-id';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const id = untrack(() => data.model?.id ?? freshId());
	const of = untrack(() => longForm(data.filled));
	const { form: typed, errors, enhance: enhanceLong } = of;
	let lines = $state(untrack(() => [...(data.start?.makerLines ?? []), { station: '', text: '' }]));
	const family = $derived(data.families.find((f) => f.family === $typed.family));
	const stations = $derived(family?.stations ?? []);
	const inlets = $derived(family?.inlets ?? []);
	const numbers = $derived(family?.numbers ?? []);
	let template = $state('');
	/** The marks of its gauge are touched on a picture. */
	let marking = $state(false);
	/** Figures beside one another by what they are about. */
	const ABOUT = {
		filters: 'Filters',
		air: 'Air',
		gauge: 'Gauge, for the camera',
		care: 'Wash and weight'
	} as const;
	const AT: Record<CardNumber, keyof typeof ABOUT> = {
		filterMassG: 'filters',
		blowerLPerMin: 'filters',
		whistleFromBar: 'air',
		whistleToBar: 'air',
		mediumFromBar: 'air',
		mediumToBar: 'air',
		dialFromBar: 'gauge',
		dialFromDeg: 'gauge',
		dialToBar: 'gauge',
		dialToDeg: 'gauge',
		dialSmallBar: 'gauge',
		dialLargeBar: 'gauge',
		weightKg: 'care',
		washMaxC: 'care',
		cabinetMaxC: 'care'
	};
	const card = $derived(data.start?.card ?? {});
</script>

<svelte:head><title>{data.model?.name ?? 'New model'} · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/items/models">Models</a></p>
<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
	<h1>{data.model?.name ?? 'New model'}</h1>
	{#if data.model}<p class="text-soft">{data.inUse} in use</p>
		{#if data.mayEdit}<a class="button ml-auto" href="/items/models/new?from={data.model.id}"
				>Copy as a new model</a
			>{/if}{/if}
</div>
{#if !data.model && data.mayEdit}
	<form method="get" class="mt-3 flex flex-wrap items-end gap-3">
		<label
			><span class="label">Begin with a kind of construction</span><select
				name="template"
				bind:value={template}
				class="w-96"
				><option value="">none</option>{#each MODEL_TEMPLATES as one (one.key)}<option
						value={one.key}>{one.name}</option
					>{/each}</select
			></label
		>
		<button class="button">Fill in</button>
		{#if data.start}<p class="pb-2" role="status">
				Filled in from {data.begun}. Give it its own name; the maker’s figures come first.
			</p>{/if}
	</form>
{/if}
{#if data.model?.withdrawnOn}<div class="mt-3">
		<Notice kind="refusal"
			><p>Withdrawn: {data.model.withdrawnWhy} Every item of it is held.</p></Notice
		>
	</div>{/if}
{#if form && 'held' in form}<div class="mt-3">
		<Notice kind="caution"><p>{form.held} items are held.</p></Notice>
	</div>{/if}
<FormRefusal {refusal} />
<form method="post" action="?/save" class="mt-4 grid max-w-[54rem] gap-4" use:enhanceLong>
	<input type="hidden" name="id" value={id} />
	<input type="hidden" name="version" value={data.model?.version ?? 0} />
	<FormRefusal refusal={refusedWhole($errors)} />
	<fieldset disabled={!data.mayEdit} class="grid gap-4">
		{#if data.model}<p><span class="label">Family</span>{family?.name}</p>
			<input type="hidden" name="family" value={$typed.family} />
		{:else}<LongField
				{of}
				name="family"
				label="Family"
				width="w-72"
				options={data.families.map((f) => [f.family, f.name] as const)}
			/>{/if}
		<div class="flex flex-wrap gap-4">
			<LongField {of} name="name" label="Model" width="w-64" />
			<LongField {of} name="maker" label="Maker" width="w-64" />
		</div>
		{#each Object.entries(ABOUT) as [about, words] (about)}
			{@const here = numbers.filter(({ key }) => AT[key] === about)}
			{@const filters = about === 'filters' && family?.carries}
			{@const air = about === 'air'}
			{#if here.length || filters || air}
				<fieldset class="grid gap-3 border-t border-rule pt-3">
					<legend class="pr-3 font-bold">{words}</legend>
					<div class="flex flex-wrap items-start gap-4">
						{#if filters}
							<LongField {of} name="mount" label="Filter mount" width="w-48" />
							<LongField
								{of}
								name="filterCount"
								label="Places for filters"
								hint="1 central, 2 a pair, 0 with a port."
								inputmode="numeric"
								width="w-28"
								mono
							/>{/if}
						{#if air}
							<LongField
								{of}
								name="ratedBar"
								label="Rated pressure, bar"
								inputmode="decimal"
								width="w-36"
								mono
							/>{/if}
						{#if air && family?.hold}
							<LongField
								{of}
								name="holdDropBar"
								label="Lost in the hold, bar"
								hint="Where stricter than 10."
								inputmode="decimal"
								width="w-36"
								mono
							/>
							<label class="flex min-h-11 items-center gap-2 self-center"
								><input type="checkbox" name="holdBelow" checked={card.holdBelow} /> “less than” it, the
								limit itself fails</label
							>{/if}
						{#each here as field (field.key)}
							<LongField
								{of}
								name={field.key}
								label="{field.label}, {field.unit}"
								hint={field.hint ?? ''}
								inputmode="decimal"
								width="w-36"
								mono
							/>
						{/each}
					</div>
					{#if about === 'gauge'}
						{#if marking}<DialMarks
								onmarked={(from, to) => {
									$typed.dialFromDeg = String(from);
									$typed.dialToDeg = String(to);
								}}
								onclose={() => (marking = false)}
							/>{:else}<p>
								<button type="button" class="button" onclick={() => (marking = true)}
									>Mark both on a picture</button
								>
							</p>{/if}
					{/if}
					{#if about === 'care'}
						{#if family?.washed || card.agents}<div>
								<p class="label">Disinfected with</p>
								<div class="flex flex-wrap gap-x-5">
									{#each AGENTS as agent (agent)}<label class="flex min-h-11 items-center gap-2"
											><input
												type="checkbox"
												name="agents[]"
												value={agent}
												checked={card.agents?.includes(agent)}
											/>{agent}</label
										>{/each}
								</div>
							</div>{/if}
						<details open={(card.keepDry?.length ?? 0) > 0}>
							<summary class="min-h-11 cursor-pointer content-center font-semibold"
								>What is never wetted</summary
							>
							<div class="grid gap-x-5 sm:grid-cols-2">
								{#each stations as station (station.key)}<label
										class="flex min-h-11 items-center gap-2"
										><input
											type="checkbox"
											name="keepDry[]"
											value={station.key}
											checked={card.keepDry?.includes(station.key)}
										/>{station.name}</label
									>{/each}
							</div>
						</details>
					{/if}
				</fieldset>
			{/if}
		{/each}
		{#if family?.carries || family?.takesParts}<LongField
				{of}
				name="approved"
				label="Approved with it: names of models, one to a line"
				hint="Filters, cylinders, masks. Anything else is refused. Empty: nothing is said, nothing refused."
				rows={3}
			/>{/if}
		{#if inlets.length}
			<LongField
				{of}
				name="straps"
				label="Donning card: steps and straps in the maker’s order"
				hint="One to a line. Empty: the usual order of the family is shown, and said to be that."
				rows={4}
			/>
			<div class="flex flex-wrap gap-4">
				<LongField
					{of}
					name="inlet"
					label="Inlet blocked as"
					width="w-72"
					options={[['', 'the wearer chooses'], ...inlets.map((i) => [i.key, i.name] as const)]}
				/>
				<LongField
					{of}
					name="ways"
					label="Seal checked by"
					width="w-52"
					options={[
						['', 'either way'],
						['in', 'breathing in only'],
						['out', 'breathing out only']
					]}
				/>
				<LongField
					{of}
					name="holdSeconds"
					label="Held for, s"
					inputmode="numeric"
					width="w-28"
					mono
				/>
			</div>
		{/if}
		<div>
			<h2>What the maker adds at a station</h2>
			{#each lines as line, i (i)}
				<div class="mt-2 flex flex-wrap gap-2">
					<select name="stations[]" bind:value={line.station} aria-label="Station, line {i + 1}"
						><option value="">station</option>{#each stations as s (s.key)}<option value={s.key}
								>{s.name}</option
							>{/each}</select
					>
					<input
						name="lines[]"
						bind:value={line.text}
						maxlength="300"
						aria-label="Words, line {i + 1}"
						class="min-w-0 flex-1"
					/>
				</div>
			{/each}
			<button
				type="button"
				class="linkish mt-1 min-h-11"
				onclick={() => lines.push({ station: '', text: '' })}>One more line</button
			>
		</div>
		{#if data.mayEdit}<button class="button primary justify-self-start">Keep</button>{/if}
	</fieldset>
</form>
{#if data.model}
	<section class="mt-8 max-w-[44rem]" aria-labelledby="intervals">
		<div class="flex flex-wrap items-center gap-4">
			<h2 id="intervals">How often it is looked at, tested, renewed</h2>
			{#if data.mayEdit}<a class="button ml-auto" href="/settings/rules?model={data.model.id}"
					>A rule for this model</a
				>{/if}
		</div>
		<ul>
			{#each data.rules as rule (rule)}<li class="rowline py-2">{rule}</li>{/each}
		</ul>
		<p class="text-soft mt-2">
			Rules narrowed to a place or a use hold there only. Lives of parts, levels of looking and
			their intervals are rules of this model.
		</p>
	</section>
{/if}
{#if data.model && data.mayEdit && !data.model.withdrawnOn}
	<form method="post" action="?/withdraw" class="mt-8 grid max-w-[44rem] gap-3" use:enhance>
		<h2>Withdrawn by its maker</h2>
		<p>
			Holds all {data.inUse} at once. An inspection that runs can be finished; it passes nothing. This
			is not undone.
		</p>
		<label class="label" for="why">What the notice says</label>
		<input id="why" name="why" maxlength="300" required class="w-full" />
		<button class="button justify-self-start border-held! text-held!"
			>Hold all of {data.model.name}</button
		>
	</form>
{/if}
