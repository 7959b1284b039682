<script lang="ts">
	/** The contaminants of a plan as rows: substance, concentration, limit, times the limit. */
	import { readableNumber } from '$core/units/number';
	import Plus from '@lucide/svelte/icons/plus';
	import X from '@lucide/svelte/icons/x';
	import type { ContaminantForm } from '$core/data/substance';
	import { findSubstance, SUBSTANCES } from '$core/data/substances';
	import { limitOf, written, type ContaminantFact, type HazardFacts } from '$core/hazards/facts';
	import type { Contaminant } from '$core/hazards/facts';

	interface Props {
		facts: HazardFacts;
		/** Worked out, in the same order; empty while something is at fault. */
		resolved: Contaminant[];
		fault: { path: string; message: string } | null;
		editable: boolean;
	}
	let { facts = $bindable(), resolved, fault, editable }: Props = $props();
	let word = $state('');
	let unknown = $state<string | null>(null);
	const FORMS: ContaminantForm[] = [
		'gas',
		'vapour',
		'dust',
		'mist',
		'fume',
		'oil aerosol',
		'biological'
	];

	function add(event: SubmitEvent) {
		event.preventDefault();
		const text = word.trim();
		if (!text) return;
		const found = findSubstance(text);
		const unit = found ? (limitOf({}, found, facts.ruleSet)?.unit ?? 'ppm') : 'ppm';
		const row: ContaminantFact = found
			? { substance: found.key, name: found.name, form: found.form, concentration: null }
			: { name: text, form: 'vapour', concentration: null };
		units[facts.contaminants.length] = unit;
		facts.contaminants.push(row);
		unknown = found
			? null
			: `“${text}” is not in the library. It is kept as your own contaminant: enter its molar mass, boiling point and limit.`;
		word = '';
	}
	/** Unit chosen for rows that have no figure yet. */
	let units = $state<Record<number, 'ppm' | 'mg/m3'>>({});
	const unitOf = (i: number) => facts.contaminants[i]?.concentration?.unit ?? units[i] ?? 'ppm';
	const numberOf = (text: string) => (text.trim() === '' ? null : Number(text.replace(',', '.')));

	function setConcentration(i: number, text: string) {
		const row = facts.contaminants[i];
		const value = numberOf(text);
		if (row)
			row.concentration = value === null || Number.isNaN(value) ? null : { value, unit: unitOf(i) };
	}
	function setUnit(i: number, unit: string) {
		const row = facts.contaminants[i];
		units[i] = unit === 'ppm' ? 'ppm' : 'mg/m3';
		if (row?.concentration) row.concentration.unit = units[i];
	}
	function setLimit(i: number, text: string) {
		const row = facts.contaminants[i];
		const value = numberOf(text);
		if (row)
			row.limit =
				value === null || Number.isNaN(value)
					? null
					: { value, unit: listed(i)?.unit ?? unitOf(i) };
	}
	const listed = (i: number) => {
		const row = facts.contaminants[i];
		return limitOf({}, row?.substance ? findSubstance(row.substance) : undefined, facts.ruleSet);
	};
	const at = (i: number) => (fault?.path.startsWith(`contaminants[${i}]`) ? fault.message : null);
	const ratio = (i: number) => resolved[i]?.ratio;
	const short = (value: number) => readableNumber(value, 3);
</script>

<h2 id="in-air">In the air</h2>
{#if facts.contaminants.length === 0}
	<p class="mt-1 mb-2">Nothing entered yet. An unknown air counts as immediately dangerous.</p>
{/if}
<ul aria-labelledby="in-air">
	{#each facts.contaminants as row, i (i)}
		{@const substance = row.substance ? findSubstance(row.substance) : undefined}
		<li class="rowline py-3">
			<div class="flex flex-wrap items-end gap-x-2 gap-y-2">
				<div class="min-w-28 flex-1">
					<b class="text-[1.05rem]">{row.name}</b><br /><span class="text-soft text-[0.9rem]"
						>{row.form}{substance?.cas ? ` · ${substance.cas}` : ''}</span
					>
				</div>
				<div>
					<label class="text-soft block text-[0.85rem]" for="c-{i}">Measured</label>
					<input
						id="c-{i}"
						class="w-20 text-right font-mono"
						inputmode="decimal"
						disabled={!editable}
						value={row.concentration?.value ?? ''}
						oninput={(e) => setConcentration(i, e.currentTarget.value)}
						aria-invalid={at(i) ? 'true' : undefined}
						placeholder="?"
					/>
				</div>
				<div>
					<label class="sr-only" for="u-{i}">Unit of {row.name}</label>
					<select
						id="u-{i}"
						disabled={!editable}
						value={unitOf(i)}
						onchange={(e) => setUnit(i, e.currentTarget.value)}
						><option value="ppm">ppm</option><option value="mg/m3">mg/m³</option></select
					>
				</div>
				<div>
					<label class="text-soft block text-[0.85rem]" for="l-{i}"
						>Limit, {written(listed(i)?.unit ?? row.limit?.unit ?? unitOf(i))}</label
					>
					<input
						id="l-{i}"
						class="w-20 text-right font-mono"
						inputmode="decimal"
						disabled={!editable}
						value={row.limit?.value ?? ''}
						oninput={(e) => setLimit(i, e.currentTarget.value)}
						placeholder={listed(i) ? String(listed(i)?.value) : 'none listed'}
					/>
				</div>
				{#if editable}<button
						type="button"
						class="button px-2"
						aria-label="Take {row.name} out"
						onclick={() => facts.contaminants.splice(i, 1)}
						><X size={18} aria-hidden="true" /></button
					>{/if}
			</div>
			{#if !row.substance}
				<div class="mt-2 flex flex-wrap gap-3">
					<div>
						<label class="text-soft block text-[0.85rem]" for="f-{i}">Form</label><select
							id="f-{i}"
							disabled={!editable}
							bind:value={row.form}
							>{#each FORMS as form (form)}<option>{form}</option>{/each}</select
						>
					</div>
					<div>
						<label class="text-soft block text-[0.85rem]" for="m-{i}">Molar mass, g/mol</label
						><input
							id="m-{i}"
							class="w-28 font-mono"
							type="number"
							step="any"
							disabled={!editable}
							bind:value={row.molarMassGPerMol}
						/>
					</div>
					<div>
						<label class="text-soft block text-[0.85rem]" for="b-{i}">Boils at, °C</label><input
							id="b-{i}"
							class="w-28 font-mono"
							type="number"
							step="any"
							disabled={!editable}
							bind:value={row.boilingPointC}
						/>
					</div>
				</div>
			{/if}
			<div class="mt-2 flex items-center gap-3">
				{#if at(i)}<p class="font-semibold text-held">{at(i)}</p>
				{:else if ratio(i) !== undefined}
					{@const times = ratio(i) ?? 0}
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
					<span class="font-mono">{short(times)} × the limit</span>
				{:else if !row.concentration}<p class="text-due font-semibold">
						No figure: counts as not known.
					</p>
				{:else if !resolved[i]?.limit}<p class="font-semibold text-held">
						No limit is known under {facts.ruleSet === 'uk' ? 'UK' : 'US'} rules. Enter the one your assessment
						uses.
					</p>{/if}
			</div>
		</li>
	{/each}
</ul>
{#if editable}
	<form class="mt-3 flex flex-wrap items-end gap-3" onsubmit={add}>
		<div class="flex-1">
			<label class="label" for="add">Add a contaminant</label>
			<input
				id="add"
				list="substances"
				bind:value={word}
				autocomplete="off"
				class="w-full max-w-96"
				placeholder="name, synonym or CAS number"
			/>
			<datalist id="substances"
				>{#each SUBSTANCES as s (s.key)}<option value={s.name}
						>{[s.cas, ...s.synonyms].filter(Boolean).join(', ')}</option
					>{/each}</datalist
			>
		</div>
		<button class="button"><Plus size={18} aria-hidden="true" /> Add</button>
	</form>
	{#if unknown}<p class="mt-2 text-due">{unknown}</p>{/if}
{/if}
