<script lang="ts">
	import type { ExposureLimit, SubstanceField } from '$core/data/substance';
	import { written } from '$core/hazards/facts';
	import { FIELD_NAMES } from '$core/substances/record';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { siteMoment } from '$lib/ui/time/moments';
	import SubstanceForm from './SubstanceForm.svelte';

	let { data, form } = $props();
	const s = $derived(data.substance);
	let editing = $state(false);
	const open = $derived(data.mayEdit && (editing || data.isNew));
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
		['harms', s.harms?.join(', ') ?? ''],
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
	const value = (v: unknown): string =>
		v === null || v === undefined ? 'none' : typeof v === 'object' ? JSON.stringify(v) : String(v);
</script>

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
{#if form && 'result' in form}<div class="mt-3">
		<Notice kind="good"><p>Kept. The old values stand in the history below.</p></Notice>
	</div>{/if}
{#each data.disagreements as d (d.message)}<div class="mt-3">
		<Notice kind="caution"><p>{d.message}</p></Notice>
	</div>{/each}
{#if s.note && !open}<p class="mt-3 border-l-4 border-due pl-3">{s.note}</p>{/if}

{#if open}
	<SubstanceForm
		filled={data.filled}
		substance={s}
		own={data.own}
		organs={data.organs}
		leave={data.isNew ? null : () => (editing = false)}
		done={() => (editing = false)}
	/>
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
				<span class="text-soft">{change.by}, {siteMoment(change.at)}</span>
				<span
					><b>{FIELD_NAMES[change.field as SubstanceField] ?? change.field}</b>:
					<span class="font-mono">{value(change.before)}</span> →
					<span class="font-mono">{value(change.after)}</span>. {change.why}</span
				>
			</li>
		{/each}
	</ul>
{/if}
