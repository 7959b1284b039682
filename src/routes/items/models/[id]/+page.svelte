<script lang="ts">
	import { untrack } from 'svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import LongField from '$lib/ui/form/LongField.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { longForm, refusedWhole } from '$lib/ui/form/long-form';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const id = untrack(() => data.model?.id ?? crypto.randomUUID());
	const of = untrack(() => longForm(data.filled));
	const { form: typed, errors, enhance: enhanceLong } = of;
	let lines = $state(untrack(() => [...(data.model?.makerLines ?? []), { station: '', text: '' }]));
	const family = $derived(data.families.find((f) => f.family === $typed.family));
	const stations = $derived(family?.stations ?? []);
	const inlets = $derived(family?.inlets ?? []);
</script>

<svelte:head><title>{data.model?.name ?? 'New model'} · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/items/models">Models</a></p>
<h1>{data.model?.name ?? 'New model'}</h1>
{#if data.model}<p class="text-soft">{data.inUse} in use</p>{/if}
{#if data.model?.withdrawnOn}<div class="mt-3">
		<Notice kind="refusal"
			><p>Withdrawn: {data.model.withdrawnWhy} Every item of it is held.</p></Notice
		>
	</div>{/if}
{#if form && 'held' in form}<div class="mt-3">
		<Notice kind="caution"><p>{form.held} items are held.</p></Notice>
	</div>{/if}
<FormRefusal {refusal} />
<form method="post" action="?/save" class="mt-4 grid max-w-[44rem] gap-4" use:enhanceLong>
	<input type="hidden" name="id" value={id} />
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
			<LongField {of} name="mount" label="Filter mount" width="w-48" />
			<LongField
				{of}
				name="ratedBar"
				label="Rated pressure, bar"
				inputmode="decimal"
				width="w-36"
				mono
			/>
			<LongField
				{of}
				name="holdDropBar"
				label="Most lost in the hold, bar"
				hint="Where the maker is stricter than 10 bar."
				inputmode="decimal"
				width="w-36"
				mono
			/>
		</div>
		{#if family?.carries}<LongField
				{of}
				name="filterCount"
				label="Places for filters"
				hint="One central filter, or a pair; 0 for a mask with a port."
				inputmode="numeric"
				width="w-28"
				mono
			/>{/if}
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
