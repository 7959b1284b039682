<script lang="ts">
	/** A filter model: marking, mount, mass, what its maker states. */
	import { enhance } from '$app/forms';
	import { untrack } from 'svelte';
	import type { PageData } from './$types';

	interface Props {
		model: PageData['models'][number]['model'] | null;
		fault: { message: string; path?: string | undefined } | null;
		done: () => void;
	}
	let { model, fault, done }: Props = $props();
	const id = untrack(() => model?.id ?? crypto.randomUUID());
</script>

{#snippet text(name: string, label: string, held: string | number | null | undefined, hint = '')}
	<div>
		<label class="label" for="{id}-{name}">{label}</label><input
			id="{id}-{name}"
			{name}
			value={held ?? ''}
			placeholder={hint}
			class="w-full"
			aria-invalid={fault?.path === name ? 'true' : undefined}
		/>
		{#if fault?.path === name}<p class="mt-1 font-semibold text-held">{fault.message}</p>{/if}
	</div>
{/snippet}

<form
	method="post"
	action="?/model"
	class="mt-3 grid gap-4 border-l-4 border-accent pl-4"
	use:enhance={() =>
		async ({ result, update }) => {
			await update({ reset: false });
			if (result.type === 'success') done();
		}}
>
	<input type="hidden" name="id" value={id} /><input
		type="hidden"
		name="version"
		value={model?.version ?? 0}
	/>
	<div class="grid gap-4 sm:grid-cols-3">
		{@render text('maker', 'Maker', model?.maker)}
		{@render text('name', 'Name', model?.name)}
		{@render text('mount', 'Mount', model?.mount, 'quarter turn')}
		{@render text('codeEn', 'EN marking', model?.codeEn, 'A2B2E2K2-P3')}
		{@render text('codeUs', 'US marking', model?.codeUs, 'OV/AG-P100')}
		{@render text('massG', 'Mass of one, g', model?.massG)}
		{@render text('openedMonths', 'Months once open', model?.openedMonths, 'as the maker says')}
		{@render text('reorderLevel', 'Buy below', model?.reorderLevel ?? 0)}
	</div>
	<fieldset class="grid gap-4 sm:grid-cols-4">
		<legend class="label">Bed of one filter, where the maker states it</legend>
		{@render text('carbonMassG', 'Carbon, g', model?.bed?.carbonMassG, '30')}
		{@render text(
			'microporeVolumeCm3PerG',
			'Micropores, cm³/g',
			model?.bed?.microporeVolumeCm3PerG,
			'0.5'
		)}
		{@render text(
			'packedDensityGPerCm3',
			'Packed density, g/cm³',
			model?.bed?.packedDensityGPerCm3,
			'0.44'
		)}
		{@render text('faceAreaCm2', 'Face, cm²', model?.bed?.faceAreaCm2, '40')}
	</fieldset>
	<div class="flex gap-3">
		<button class="button primary">Keep</button><button type="button" class="button" onclick={done}
			>Leave it</button
		>
	</div>
</form>
