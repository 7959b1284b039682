<script lang="ts">
	/** A filter model: marking, mount, mass, what its maker states. */
	import { untrack } from 'svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import LongField from '$lib/ui/form/LongField.svelte';
	import { FILTER_ROLES } from '$core/filters/stock';
	import { freshId } from '$lib/fresh-id';
	import { longForm, refusedWhole } from '$lib/ui/form/long-form';
	import type { PageData } from './$types';

	interface Props {
		filled: PageData['filled'][string];
		version: number;
		done: () => void;
	}
	let { filled, version, done }: Props = $props();
	const ROLES = FILTER_ROLES.map((role) => [role, role] as const);
	const of = untrack(() => longForm(filled, done));
	const { enhance, errors } = of;
	const id = untrack(() => filled.data.id || freshId());
</script>

<form
	method="post"
	action="?/model"
	class="mt-3 grid gap-4 border-l-4 border-accent pl-4"
	use:enhance
>
	<input type="hidden" name="id" value={id} />
	<input type="hidden" name="version" value={version} />
	<FormRefusal refusal={refusedWhole($errors)} />
	<div class="grid items-start gap-4 sm:grid-cols-3">
		<LongField {of} name="maker" label="Maker" />
		<LongField {of} name="name" label="Name" />
		<LongField {of} name="role" label="What it is" options={ROLES} />
		<LongField {of} name="mount" label="Mount" placeholder="quarter turn" />
		<LongField {of} name="codeEn" label="EN marking" placeholder="A2B2E2K2-P3" />
		<LongField {of} name="codeUs" label="US marking" placeholder="OV/AG-P100" />
		<LongField {of} name="massG" label="Mass of one, g" inputmode="numeric" />
		<LongField
			{of}
			name="openedMonths"
			label="Months once open"
			placeholder="as the maker says"
			inputmode="decimal"
		/>
		<LongField {of} name="reorderLevel" label="Buy below" inputmode="numeric" />
	</div>
	<fieldset class="grid items-start gap-4 sm:grid-cols-4">
		<legend class="label">Bed of one filter, where the maker states it</legend>
		<LongField {of} name="carbonMassG" label="Carbon, g" placeholder="30" inputmode="decimal" />
		<LongField
			{of}
			name="microporeVolumeCm3PerG"
			label="Micropores, cm³/g"
			placeholder="0.5"
			inputmode="decimal"
		/>
		<LongField
			{of}
			name="packedDensityGPerCm3"
			label="Packed density, g/cm³"
			placeholder="0.44"
			inputmode="decimal"
		/>
		<LongField {of} name="faceAreaCm2" label="Face, cm²" placeholder="40" inputmode="decimal" />
	</fieldset>
	<div class="flex gap-3">
		<button class="button primary">Keep</button><button type="button" class="button" onclick={done}
			>Leave it</button
		>
	</div>
</form>
