<script lang="ts">
	/** Every value of a substance, to be corrected or entered. */
	import { untrack } from 'svelte';
	import {
		CONTAMINANT_FORMS,
		EN_GAS_TYPES,
		HARMS,
		US_GAS_TYPES,
		type Substance
	} from '$core/data/substance';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import LongField from '$lib/ui/form/LongField.svelte';
	import { longForm, refusedWhole } from '$lib/ui/form/long-form';
	import type { PageData } from './$types';

	interface Props {
		filled: PageData['filled'];
		substance: Substance;
		/** Entered here, not shipped. */
		own: boolean;
		organs: PageData['organs'];
		/** Leaves it as it was; null where there is nothing to go back to. */
		leave: (() => void) | null;
		done: () => void;
	}
	let { filled, substance, own, organs, leave, done }: Props = $props();
	const of = untrack(() => longForm(filled, done));
	const { enhance, errors } = of;
	const words = (list: readonly string[]) => list.map((word) => [word, word || 'none'] as const);
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
</script>

<form method="post" action="?/save" class="mt-4 grid gap-4" use:enhance>
	<input type="hidden" name="version" value={filled.data.version} />
	<FormRefusal refusal={refusedWhole($errors)} />
	<div class="grid items-start gap-4 sm:grid-cols-2 lg:grid-cols-4">
		{#if own}<LongField {of} name="name" label="Name" />{:else}<input
				type="hidden"
				name="name"
				value={substance.name}
			/>{/if}
		<LongField {of} name="synonyms" label="Synonyms" hint="semicolons between" />
		<LongField {of} name="cas" label="CAS number" />
		<LongField {of} name="formula" label="Formula" />
		<LongField {of} name="form" label="Form" options={words(CONTAMINANT_FORMS)} />
		<LongField
			{of}
			name="unit"
			label="Unit of the limits"
			options={[
				['ppm', 'ppm'],
				['mg/m3', 'mg/m³'],
				['f/cm3', 'fibres/cm³']
			]}
		/>
		<LongField {of} name="limitUk" label="UK limit" hint="50, 50/100 or c10" />
		<LongField {of} name="limitUs" label="US limit" hint="50, 50/100 or c10" />
		<LongField {of} name="rel" label="US recommended limit" />
		<LongField {of} name="idlh" label="Immediate danger" />
		{#each NUMBERS as [name, label] (name)}<LongField {of} {name} {label} />{/each}
		<LongField
			{of}
			name="warning"
			label="Warning properties"
			options={words(['adequate', 'poor', 'none'])}
		/>
		<LongField {of} name="en" label="Filter, EN 14387" options={words(['', ...EN_GAS_TYPES])} />
		<LongField {of} name="us" label="Cartridge, 42 CFR 84" options={words(['', ...US_GAS_TYPES])} />
	</div>
	<fieldset class="flex flex-wrap gap-x-5">
		<legend class="label">Target organs</legend>
		{#each organs as organ (organ)}<label class="flex min-h-11 items-center gap-2"
				><input
					type="checkbox"
					name="organs[]"
					value={organ}
					checked={substance.organs?.includes(organ)}
				/>{organ}</label
			>{/each}
	</fieldset>
	<fieldset class="flex flex-wrap gap-x-5">
		<legend class="label">Kinds of harm</legend>
		{#each HARMS as harm (harm)}<label class="flex min-h-11 items-center gap-2"
				><input
					type="checkbox"
					name="harms[]"
					value={harm}
					checked={substance.harms?.includes(harm)}
				/>{harm === 'eyes' ? 'burns or irritates the eyes' : harm}</label
			>{/each}
	</fieldset>
	<div class="flex flex-wrap gap-x-6">
		<label class="flex min-h-11 items-center gap-3"
			><input type="checkbox" name="organic" checked={substance.organic} />organic vapour, held by
			carbon</label
		>
		<label class="flex min-h-11 items-center gap-3"
			><input type="checkbox" name="skin" checked={substance.skin} />enters through the skin</label
		>
	</div>
	<div class="grid items-start gap-4 sm:grid-cols-2">
		<LongField
			{of}
			name="noFilter"
			label="Why no filter is accepted"
			hint="leave empty where one is"
		/>
		<LongField {of} name="note" label="Note" />
	</div>
	<div class="flex flex-wrap items-end gap-3 border-t border-rule pt-4">
		<div class="flex-1">
			<LongField {of} name="why" label="Why, and where the value comes from" />
		</div>
		{#if leave}<button type="button" class="button" onclick={leave}>Leave it</button>{/if}
		<button class="button primary">Keep</button>
	</div>
</form>
