<script lang="ts">
	/** One contaminant: how much, against which limit, how many times it. */
	import ChevronDown from '@lucide/svelte/icons/chevron-down';
	import { typedOrNull } from '$lib/ui/form/number';
	import X from '@lucide/svelte/icons/x';
	import { untrack } from 'svelte';
	import { CONTAMINANT_FORMS, type RuleSet, type Substance } from '$core/data/substance';
	import { factorWithoutLimit } from '$core/hazards/least-factor';
	import {
		publishedLimit,
		written,
		type Contaminant,
		type ContaminantFact
	} from '$core/hazards/facts';
	import type { ConcentrationUnit } from '$core/units/concentration';
	import { readableNumber } from '$core/units/number';

	interface Props {
		row: ContaminantFact;
		i: number;
		substance: Substance | undefined;
		resolved: Contaminant | undefined;
		ruleSet: RuleSet;
		message: string | null;
		editable: boolean;
		/** Whether this person may keep a limit that is laxer than the published one. */
		mayKeepLaxer: boolean;
		/** Unit chosen while there is no figure. */
		unit: ConcentrationUnit | undefined;
		remove: () => void;
	}
	let {
		row = $bindable(),
		i,
		substance,
		resolved,
		ruleSet,
		message,
		editable,
		mayKeepLaxer,
		unit = $bindable(),
		remove
	}: Props = $props();
	let more = $state(untrack(() => Boolean(row.peak || row.measurements?.values.length)));
	let list = $state(untrack(() => row.measurements?.values.join(' ') ?? ''));

	const listed = $derived(publishedLimit(substance, ruleSet));
	const shown = $derived(row.concentration?.unit ?? row.measurements?.unit ?? unit ?? 'ppm');
	const several = $derived(Boolean(row.measurements?.values.length));
	const short = (value: number) => readableNumber(value, 3);
	const amount = (text: string, of: ConcentrationUnit) => {
		const value = typedOrNull(text);
		return value === null || Number.isNaN(value) ? null : { value, unit: of };
	};

	function setUnit(to: string) {
		unit = to as ConcentrationUnit;
		if (row.concentration) row.concentration.unit = unit;
		if (row.peak) row.peak.unit = unit;
		if (row.measurements) row.measurements.unit = unit;
	}
	/** Spaces, semicolons and line ends part the values; a comma is a decimal comma. */
	function setList(text: string) {
		list = text;
		const values = text
			.split(/[\s;]+/)
			.filter(Boolean)
			.map((word) => Number(word.replace(',', '.')));
		row.measurements = values.length
			? { values: values.map((v) => (Number.isFinite(v) ? v : 0)), unit: shown }
			: null;
	}
	const times = $derived(resolved?.ratio);
	const byPeak = $derived(
		resolved?.shortRatio !== undefined &&
			resolved.shortRatio > (resolved.meanRatio ?? 0) &&
			Boolean(row.peak)
	);
</script>

<li class="rowline py-3">
	<div class="flex flex-wrap items-end gap-x-2 gap-y-2">
		<div class="min-w-28 flex-1">
			{#if row.substance}<a
					class="text-[1.05rem] font-bold"
					href="/hazards/substances/{row.substance}">{row.name}</a
				>{:else}<b class="text-[1.05rem]">{row.name}</b>{/if}<br /><span
				class="text-soft text-[0.9rem]"
				>{row.form}{substance?.cas ? ` · ${substance.cas}` : ''}</span
			>
		</div>
		<div>
			<label class="text-soft block text-[0.85rem]" for="c-{i}"
				>{several ? 'Upper limit' : row.basis === 'estimated' ? 'Estimated' : 'Measured'}</label
			>
			<input
				id="c-{i}"
				class="w-20 text-right font-mono"
				inputmode="decimal"
				disabled={!editable || several}
				value={several && resolved?.summary
					? short(resolved.concentration?.value ?? 0)
					: (row.concentration?.value ?? '')}
				oninput={(e) => (row.concentration = amount(e.currentTarget.value, shown))}
				aria-invalid={message ? 'true' : undefined}
				placeholder="?"
			/>
		</div>
		<div>
			<label class="sr-only" for="u-{i}">Unit of {row.name}</label>
			<select
				id="u-{i}"
				disabled={!editable}
				value={shown}
				onchange={(e) => setUnit(e.currentTarget.value)}
				><option value="ppm">ppm</option><option value="mg/m3">mg/m³</option
				>{#if shown === 'f/cm3' || listed?.unit === 'f/cm3'}<option value="f/cm3">fibres/cm³</option
					>{/if}</select
			>
		</div>
		<div>
			<label class="text-soft block text-[0.85rem]" for="l-{i}"
				>Limit, {written(listed?.unit ?? row.limit?.unit ?? shown)}</label
			>
			<input
				id="l-{i}"
				class="w-20 text-right font-mono"
				inputmode="decimal"
				disabled={!editable}
				value={row.limit?.value ?? ''}
				oninput={(e) => (row.limit = amount(e.currentTarget.value, listed?.unit ?? shown))}
				placeholder={listed ? String(listed.value) : 'none'}
			/>
		</div>
		{#if editable}<button
				type="button"
				class="button px-2"
				aria-label="Take {row.name} out"
				onclick={remove}><X size={18} aria-hidden="true" /></button
			>{/if}
	</div>
	<div class="mt-1 flex items-center gap-3">
		{#if message}<p class="font-semibold text-held">{message}</p>
		{:else if resolved?.substance?.biologicalGroup}<p>
				Group {resolved.substance.biologicalGroup}: by group and task; no limit exists.
			</p>
		{:else if times !== undefined}
			<svg
				viewBox="0 0 200 10"
				class="h-2.5 w-52 max-w-[50%]"
				preserveAspectRatio="none"
				aria-hidden="true"
				><rect width="200" height="10" fill="var(--tint)" /><rect
					width={Math.min(200, times * 20)}
					height="10"
					fill={times > 1 ? 'var(--accent)' : 'var(--ready)'}
				/><path d="M20 0v10" stroke="var(--ink)" stroke-width="1.5" /></svg
			>
			<span class="font-mono">{short(times)} × the {byPeak ? 'short-term limit' : 'limit'}</span>
		{:else if !row.concentration && !several}<p class="text-due font-semibold">
				No figure: counts as not known.
			</p>
		{:else if resolved && !resolved.limit && factorWithoutLimit(resolved, ruleSet)}<p>
				No limit of its own: a published least factor stands in.
			</p>
		{:else if resolved && !resolved.limit}<p class="font-semibold text-held">
				No limit is known under {ruleSet === 'uk' ? 'UK' : 'US'} rules. Enter the one your assessment
				uses.
			</p>{/if}
		<button
			type="button"
			class="linkish ml-auto inline-flex min-h-11 shrink-0 items-center gap-1 text-[0.93rem]"
			aria-expanded={more}
			aria-label="More about {row.name}"
			onclick={() => (more = !more)}
			>{more ? 'less' : 'more'}<ChevronDown
				size={16}
				aria-hidden="true"
				class={more ? 'rotate-180' : ''}
			/></button
		>
	</div>
	{#if resolved?.laxer}
		<div class="mt-1 border-l-4 border-due pl-3">
			<p>
				{resolved.laxer.entered.value}
				{written(resolved.laxer.entered.unit)} is laxer than the published
				<b>{resolved.laxer.published.value} {written(resolved.laxer.published.unit)}</b>{resolved
					.laxer.reason
					? ': it is kept, for the reason below.'
					: ', which decides.'}
			</p>
			{#if mayKeepLaxer || row.limitReason}<label class="text-soft block text-[0.85rem]" for="k-{i}"
					>Reason to keep it, by a supervisor</label
				><input
					id="k-{i}"
					class="w-full"
					maxlength="300"
					disabled={!editable || !mayKeepLaxer}
					value={row.limitReason ?? ''}
					oninput={(e) => (row.limitReason = e.currentTarget.value)}
				/>{/if}
		</div>
	{/if}
	{#if substance?.biologicalGroup}
		<label class="flex min-h-11 items-center gap-3"
			><input
				type="checkbox"
				disabled={!editable}
				checked={row.biologicalTask === 'aerosol'}
				onchange={(e) => (row.biologicalTask = e.currentTarget.checked ? 'aerosol' : 'ordinary')}
			/>the work throws it into the air</label
		>
	{/if}
	{#if more}
		<div class="mt-2 grid grid-cols-2 gap-3 border-l-4 border-rule pl-3 sm:grid-cols-3">
			<div>
				<label class="text-soft block text-[0.85rem]" for="p-{i}"
					>Highest 15 min, {written(shown)}</label
				>
				<input
					id="p-{i}"
					class="w-full text-right font-mono"
					inputmode="decimal"
					disabled={!editable}
					value={row.peak?.value ?? ''}
					oninput={(e) => (row.peak = amount(e.currentTarget.value, shown))}
					placeholder="not measured"
				/>
			</div>
			<div>
				<label class="text-soft block text-[0.85rem]" for="b-{i}">Basis</label>
				<select
					id="b-{i}"
					class="w-full"
					disabled={!editable}
					value={row.basis ?? 'measured'}
					onchange={(e) =>
						(row.basis = e.currentTarget.value === 'estimated' ? 'estimated' : 'measured')}
					><option>measured</option><option>estimated</option></select
				>
			</div>
			<div>
				<label class="text-soft block text-[0.85rem]" for="f-{i}">Form</label>
				<select id="f-{i}" class="w-full" disabled={!editable} bind:value={row.form}
					>{#each CONTAMINANT_FORMS as form (form)}<option>{form}</option>{/each}</select
				>
			</div>
			<div class="col-span-full">
				<label class="text-soft block text-[0.85rem]" for="s-{i}"
					>Several measurements, {written(shown)}, spaces between</label
				>
				<input
					id="s-{i}"
					class="w-full font-mono"
					inputmode="decimal"
					disabled={!editable}
					value={list}
					oninput={(e) => setList(e.currentTarget.value)}
					placeholder="34 51 29 62 40 38"
				/>
				{#if resolved?.summary}{@const s = resolved.summary}
					<p class="text-soft mt-1 text-[0.9rem]">
						{s.n} measurements, geometric mean {short(s.geometricMean)}, spread ×{short(
							s.geometricStandardDeviation
						)}; upper limit of the 95th percentile
						<b class="text-ink">{short(s.upperLimit95)} {written(shown)}</b>: the plan is made with
						it (EN 689, from memory).
					</p>{/if}
			</div>
			{#if !row.substance}
				<div>
					<label class="text-soft block text-[0.85rem]" for="m-{i}">Molar mass, g/mol</label><input
						id="m-{i}"
						class="w-full font-mono"
						type="number"
						step="any"
						disabled={!editable}
						bind:value={row.molarMassGPerMol}
					/>
				</div>
				<div>
					<label class="text-soft block text-[0.85rem]" for="t-{i}">Boils at, °C</label><input
						id="t-{i}"
						class="w-full font-mono"
						type="number"
						step="any"
						disabled={!editable}
						bind:value={row.boilingPointC}
					/>
				</div>
			{/if}
		</div>
	{/if}
</li>
