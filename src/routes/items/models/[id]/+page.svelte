<script lang="ts">
	import { untrack } from 'svelte';
	import { enhance } from '$app/forms';
	import Field from '$lib/ui/form/Field.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';

	let { data, form } = $props();
	const fault = $derived(form && 'fault' in form ? (form.fault ?? null) : null);
	const at = (path: string) => (fault?.path === path ? fault.message : null);
	const id = untrack(() => data.model?.id ?? crypto.randomUUID());
	let family = $state(untrack(() => data.model?.family ?? 'half-mask'));
	let lines = $state(untrack(() => [...(data.model?.makerLines ?? []), { station: '', text: '' }]));
	const stations = $derived(data.families.find((f) => f.family === family)?.stations ?? []);
	const inlets = $derived(data.families.find((f) => f.family === family)?.inlets ?? []);
	const FIELDS = [
		...['family', 'maker', 'name', 'mount', 'ratedBar', 'holdDropBar'],
		...['straps', 'inlet', 'holdSeconds']
	];
</script>

<svelte:head><title>{data.model?.name ?? 'New model'} · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/items/models">Models</a></p>
<h1>{data.model?.name ?? 'New model'}</h1>
{#if data.model}<p class="text-soft">{data.inUse} in use</p>{/if}
{#if data.model?.withdrawnOn}<div class="mt-3">
		<Notice kind="fault"
			><p>Withdrawn: {data.model.withdrawnWhy} Every item of it is held.</p></Notice
		>
	</div>{/if}
{#if form && 'held' in form}<div class="mt-3">
		<Notice kind="caution"><p>{form.held} items are held.</p></Notice>
	</div>{/if}
{#if fault && !FIELDS.includes(fault.path ?? '')}<div class="mt-3">
		<Notice kind="fault"><p>{fault.message}</p></Notice>
	</div>{/if}
<form
	method="post"
	action="?/save"
	class="mt-4 grid max-w-[44rem] gap-4"
	use:enhance={() =>
		({ update }) =>
			update({ reset: false })}
>
	<input type="hidden" name="id" value={id} />
	<fieldset disabled={!data.mayEdit} class="grid gap-4">
		<Field id="family" label="Family" fault={at('family')}>
			{#snippet children(field)}
				{#if data.model}<input type="hidden" name="family" value={family} />{/if}
				<select
					{...field}
					name={data.model ? undefined : 'family'}
					disabled={Boolean(data.model)}
					bind:value={family}
					class="w-72"
					>{#each data.families as f (f.family)}<option value={f.family}>{f.name}</option
						>{/each}</select
				>{/snippet}
		</Field>
		<div class="flex flex-wrap gap-4">
			<Field id="name" label="Model" fault={at('name')}>
				{#snippet children(field)}<input
						{...field}
						name="name"
						value={data.model?.name ?? ''}
						class="w-64"
					/>{/snippet}
			</Field>
			<Field id="maker" label="Maker" fault={at('maker')}>
				{#snippet children(field)}<input
						{...field}
						name="maker"
						value={data.model?.maker ?? ''}
						class="w-64"
					/>{/snippet}
			</Field>
			<Field id="mount" label="Filter mount" fault={at('mount')}>
				{#snippet children(field)}<input
						{...field}
						name="mount"
						value={data.model?.mount ?? ''}
						class="w-48"
					/>{/snippet}
			</Field>
			<Field id="ratedBar" label="Rated pressure, bar" fault={at('ratedBar')}>
				{#snippet children(field)}<input
						{...field}
						name="ratedBar"
						inputmode="decimal"
						value={data.model?.ratedBar ?? ''}
						class="w-36 font-mono"
					/>{/snippet}
			</Field>
			<Field
				id="holdDropBar"
				label="Most lost in the hold, bar"
				fault={at('holdDropBar')}
				hint="Where the maker is stricter than 10 bar."
			>
				{#snippet children(field)}<input
						{...field}
						name="holdDropBar"
						inputmode="decimal"
						value={data.model?.holdDropBar ?? ''}
						class="w-36 font-mono"
					/>{/snippet}
			</Field>
		</div>
		{#if inlets.length}
			<Field
				id="straps"
				label="Donning card: steps and straps in the maker’s order"
				fault={at('straps')}
				hint="One to a line. Empty: the usual order of the family is shown, and said to be that."
			>
				{#snippet children(field)}<textarea {...field} name="straps" rows="4" class="w-full"
						>{data.model?.donning?.straps.join('\n') ?? ''}</textarea
					>{/snippet}
			</Field>
			<div class="flex flex-wrap gap-4">
				<Field id="inlet" label="Inlet blocked as" fault={at('inlet')}>
					{#snippet children(field)}<select
							{...field}
							name="inlet"
							value={data.model?.donning?.inlet ?? ''}
							class="w-72"
							><option value="">the wearer chooses</option>{#each inlets as i (i.key)}<option
									value={i.key}>{i.name}</option
								>{/each}</select
						>{/snippet}
				</Field>
				<Field id="holdSeconds" label="Held for, s" fault={at('holdSeconds')}>
					{#snippet children(field)}<input
							{...field}
							name="holdSeconds"
							inputmode="numeric"
							value={data.model?.donning?.holdSeconds ?? ''}
							class="w-28 font-mono"
						/>{/snippet}
				</Field>
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
