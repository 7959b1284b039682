<script lang="ts">
	import { enhance } from '$app/forms';
	import { format } from 'date-fns';
	import {
		CONTAMINANT_FORMS,
		EN_GAS_TYPES,
		US_GAS_TYPES,
		type ExposureLimit,
		type SubstanceField
	} from '$core/data/substance';
	import { written } from '$core/hazards/facts';
	import { FIELD_NAMES, limitUnitOf } from '$core/substances/record';
	import Notice from '$lib/ui/form/Notice.svelte';

	let { data, form } = $props();
	const s = $derived(data.substance);
	let editing = $state(false);
	let changeId = $state(crypto.randomUUID());
	const open = $derived(data.mayEdit && (editing || data.isNew));
	const fault = $derived(form && 'fault' in form ? (form.fault ?? null) : null);
	const unit = $derived(limitUnitOf(s));
	const limitText = (limit: ExposureLimit | undefined) => {
		if (!limit) return '';
		const ceiling = limit.shortKind === 'ceiling' ? 'c' : '';
		const amounts =
			limit.twa === undefined
				? `${ceiling || '-/'}${limit.short ?? ''}`
				: `${limit.twa}${limit.short === undefined ? '' : `/${ceiling}${limit.short}`}`;
		return limit.unit === unit ? amounts : `${amounts} ${limit.unit}`;
	};
	const said = (limit: ExposureLimit | undefined) =>
		!limit
			? ''
			: [
					limit.twa === undefined ? '' : `${limit.twa} over 8 h`,
					limit.short === undefined
						? ''
						: `${limit.short} ${limit.shortKind === 'ceiling' ? 'never above' : 'over 15 min'}`
				]
					.filter(Boolean)
					.join(', ') + ` ${written(limit.unit)}`;
	const rows = $derived.by((): [SubstanceField, string][] => [
		['limitUk', said(s.limits.uk)],
		['limitUs', said(s.limits.us)],
		['rel', said(s.rel)],
		['idlh', s.idlh ? `${s.idlh.value} ${written(s.idlh.unit)}` : ''],
		['lelPercent', s.lelPercent ? `${s.lelPercent} % by volume` : ''],
		['odourThresholdPpm', s.odourThresholdPpm ? `${s.odourThresholdPpm} ppm` : ''],
		['warning', s.warning],
		['skin', s.skin ? 'enters through the skin' : ''],
		['skinHarmPpm', s.skinHarmPpm ? `${s.skinHarmPpm} ppm` : ''],
		['organs', s.organs?.join(', ') ?? ''],
		['en', s.en ?? ''],
		['us', s.us ?? ''],
		['noFilter', s.noFilter ?? ''],
		['formula', s.formula ?? ''],
		['molarMassGPerMol', s.molarMassGPerMol ? `${s.molarMassGPerMol} g/mol` : ''],
		['boilingPointC', s.boilingPointC === undefined ? '' : `${s.boilingPointC} °C`],
		['vapourPressureMmHg', s.vapourPressureMmHg ? `${s.vapourPressureMmHg} mmHg` : ''],
		['antoine', s.antoine ? `A ${s.antoine.a}, B ${s.antoine.b}, C ${s.antoine.c}` : ''],
		['liquidDensityGPerCm3', s.liquidDensityGPerCm3 ? `${s.liquidDensityGPerCm3} g/cm³` : ''],
		['refractiveIndex', s.refractiveIndex ? String(s.refractiveIndex) : '']
	]);
	const NUMBERS = [
		['molarMassGPerMol', 'Molar mass, g/mol'],
		['boilingPointC', 'Boils at, °C'],
		['vapourPressureMmHg', 'Vapour pressure at 20 °C, mmHg'],
		['liquidDensityGPerCm3', 'Liquid density, g/cm³'],
		['refractiveIndex', 'Refractive index'],
		['lelPercent', 'Lower explosive limit, %'],
		['odourThresholdPpm', 'Odour threshold, ppm'],
		['skinHarmPpm', 'Vapour harms skin from, ppm']
	] as const;
	const value = (v: unknown): string =>
		v === null || v === undefined ? 'none' : typeof v === 'object' ? JSON.stringify(v) : String(v);
</script>

{#snippet text(name: string, label: string, held: string | number | undefined, hint = '')}
	<div>
		<label class="label" for={name}>{label}</label><input
			id={name}
			{name}
			value={held ?? ''}
			class="w-full"
			aria-invalid={fault?.path === name ? 'true' : undefined}
		/>
		{#if fault?.path === name}<p class="mt-1 font-semibold text-held">{fault.message}</p>
		{:else if hint}<p class="text-soft mt-1 text-[0.85rem]">{hint}</p>{/if}
	</div>
{/snippet}

<svelte:head><title>{data.isNew ? 'New substance' : s.name} · Grevan</title></svelte:head>
<p class="text-soft"><a class="linkish" href="/hazards/substances">Substances</a></p>
<div class="flex flex-wrap items-center gap-4">
	<h1>{data.isNew ? 'New substance' : s.name}</h1>
	{#if !data.isNew}<p class="text-soft">
			{[s.form, s.cas, ...s.synonyms].filter(Boolean).join(' · ')}{data.own ? ' · our own' : ''}
		</p>{/if}
	{#if data.mayEdit && !data.isNew && !editing}<button
			class="button ml-auto"
			onclick={() => (editing = true)}>{data.own ? 'Change' : 'Correct a value'}</button
		>{/if}
</div>
{#if form && 'saved' in form}<div class="mt-3">
		<Notice kind="good"><p>Kept. The old values stand in the history below.</p></Notice>
	</div>{/if}
{#each data.disagreements as d (d.message)}<div class="mt-3">
		<Notice kind="caution"><p>{d.message}</p></Notice>
	</div>{/each}
{#if s.note && !open}<p class="mt-3 border-l-4 border-due pl-3">{s.note}</p>{/if}

{#if open}
	<form
		method="post"
		action="?/save"
		class="mt-4 grid gap-4"
		use:enhance={() =>
			async ({ result, update }) => {
				await update({ reset: false });
				if (result.type === 'success') {
					editing = false;
					changeId = crypto.randomUUID();
				}
			}}
	>
		<input type="hidden" name="id" value={changeId} /><input
			type="hidden"
			name="version"
			value={data.version}
		/>
		{#if fault}<Notice kind="fault"><p>{fault.message}</p></Notice>{/if}
		<div class="grid gap-4 sm:grid-cols-2 lg:grid-cols-4">
			{#if data.own}{@render text('name', 'Name', s.name)}{:else}<input
					type="hidden"
					name="name"
					value={s.name}
				/>{/if}
			{@render text('synonyms', 'Synonyms', s.synonyms.join('; '), 'semicolons between')}
			{@render text('cas', 'CAS number', s.cas)}
			{@render text('formula', 'Formula', s.formula)}
			<div>
				<label class="label" for="form">Form</label><select
					id="form"
					name="form"
					class="w-full"
					value={s.form}
					>{#each CONTAMINANT_FORMS as word (word)}<option>{word}</option>{/each}</select
				>
			</div>
			<div>
				<label class="label" for="unit">Unit of the limits</label><select
					id="unit"
					name="unit"
					class="w-full"
					value={unit}
					><option value="ppm">ppm</option><option value="mg/m3">mg/m³</option><option value="f/cm3"
						>fibres/cm³</option
					></select
				>
			</div>
			{@render text('limitUk', 'UK limit', limitText(s.limits.uk), '50, 50/100 or c10')}
			{@render text('limitUs', 'US limit', limitText(s.limits.us), '50, 50/100 or c10')}
			{@render text('rel', 'US recommended limit', limitText(s.rel))}
			{@render text(
				'idlh',
				'Immediate danger',
				s.idlh && `${s.idlh.value}${s.idlh.unit === unit ? '' : ` ${s.idlh.unit}`}`
			)}
			{#each NUMBERS as [name, label] (name)}{@render text(name, label, s[name])}{/each}
			<div>
				<label class="label" for="warning">Warning properties</label><select
					id="warning"
					name="warning"
					class="w-full"
					value={s.warning}
					><option>adequate</option><option>poor</option><option>none</option></select
				>
			</div>
			<div>
				<label class="label" for="en">Filter, EN 14387</label><select
					id="en"
					name="en"
					class="w-full"
					value={s.en ?? ''}
					>{#each ['', ...EN_GAS_TYPES] as word (word)}<option value={word}>{word || 'none'}</option
						>{/each}</select
				>
			</div>
			<div>
				<label class="label" for="us">Cartridge, 42 CFR 84</label><select
					id="us"
					name="us"
					class="w-full"
					value={s.us ?? ''}
					>{#each ['', ...US_GAS_TYPES] as word (word)}<option value={word}>{word || 'none'}</option
						>{/each}</select
				>
			</div>
		</div>
		<fieldset class="flex flex-wrap gap-x-5">
			<legend class="label">Target organs</legend>
			{#each data.organs as organ (organ)}<label class="flex min-h-11 items-center gap-2"
					><input
						type="checkbox"
						name="organs[]"
						value={organ}
						checked={s.organs?.includes(organ)}
					/>{organ}</label
				>{/each}
		</fieldset>
		<div class="flex flex-wrap gap-x-6">
			<label class="flex min-h-11 items-center gap-3"
				><input type="checkbox" name="organic" checked={s.organic} />organic vapour, held by carbon</label
			>
			<label class="flex min-h-11 items-center gap-3"
				><input type="checkbox" name="skin" checked={s.skin} />enters through the skin</label
			>
		</div>
		<div class="grid gap-4 sm:grid-cols-2">
			{@render text(
				'noFilter',
				'Why no filter is accepted',
				s.noFilter,
				'leave empty where one is'
			)}
			{@render text('note', 'Note', s.note)}
		</div>
		<div class="flex flex-wrap items-end gap-3 border-t border-rule pt-4">
			<div class="flex-1">{@render text('why', 'Why, and where the value comes from', '')}</div>
			{#if !data.isNew}<button type="button" class="button" onclick={() => (editing = false)}
					>Leave it</button
				>{/if}
			<button class="button primary">Keep</button>
		</div>
	</form>
{:else if !data.isNew}
	<table class="mt-4 w-full text-left">
		<caption class="sr-only">Values and their origins</caption>
		<thead class="text-soft text-[0.9rem]"
			><tr
				><th class="font-semibold">What</th><th class="font-semibold">Value</th><th
					class="hidden font-semibold md:table-cell">Origin</th
				></tr
			></thead
		>
		<tbody>
			{#each rows.filter(([, v]) => v) as [field, shown] (field)}
				<tr class="border-t border-rule align-top"
					><td class="py-2 pr-4 font-semibold">{FIELD_NAMES[field]}</td><td class="pr-4">{shown}</td
					><td class="hidden text-[0.9rem] text-soft md:table-cell">{data.origins[field]}</td></tr
				>
			{/each}
		</tbody>
	</table>
{:else}<p class="mt-4">A supervisor adds substances.</p>{/if}

{#if data.changes.length}
	<h2 class="mt-8">What was changed here</h2>
	<ul class="mt-1">
		{#each data.changes as change (change.id)}
			<li class="rowline grid gap-x-6 py-2 md:grid-cols-[14rem_1fr]">
				<span class="text-soft">{change.by}, {format(change.at, 'd MMM yyyy HH:mm')}</span>
				<span
					><b>{FIELD_NAMES[change.field as SubstanceField] ?? change.field}</b>:
					<span class="font-mono">{value(change.before)}</span> →
					<span class="font-mono">{value(change.after)}</span>. {change.why}</span
				>
			</li>
		{/each}
	</ul>
{/if}
