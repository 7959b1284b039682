<script lang="ts">
	/** What is stamped on a cylinder, to be entered or corrected. */
	import { untrack } from 'svelte';
	import { MATERIALS } from '$core/air/cylinder';
	import DayField from '$lib/ui/form/DayField.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import LongField from '$lib/ui/form/LongField.svelte';
	import { longForm, refusedWhole } from '$lib/ui/form/long-form';
	import type { PageData } from './$types';

	interface Props {
		filled: PageData['filled'];
		/** Null before anything of it is known. */
		version: number | null;
	}
	let { filled, version }: Props = $props();
	const of = untrack(() => longForm(filled));
	const { form: typed, errors, enhance } = of;
</script>

<form
	method="post"
	action="?/data"
	use:enhance
	class="mt-2 grid grid-cols-2 items-start gap-4 md:grid-cols-3"
>
	<input type="hidden" name="version" value={version ?? ''} />
	<LongField {of} name="waterVolumeL" label="Water, litres" inputmode="decimal" mono />
	<LongField {of} name="ratedBar" label="Rated, bar at 15 °C" mono />
	<LongField {of} name="maximumBar" label="Maximum, bar at 65 °C" mono />
	<LongField
		{of}
		name="material"
		label="Material"
		options={MATERIALS.map((word) => [word, word] as const)}
	/>
	<LongField {of} name="emptyKg" label="Empty, kg" inputmode="decimal" mono />
	<LongField {of} name="thread" label="Thread" />
	<DayField
		label="Made on"
		name="manufacturedOn"
		bind:value={$typed.manufacturedOn}
		refusal={$errors.manufacturedOn?.[0]}
	/>
	<DayField
		label="Life ends on"
		name="lifeEndsOn"
		bind:value={$typed.lifeEndsOn}
		refusal={$errors.lifeEndsOn?.[0]}
	/>
	<LongField
		{of}
		name="testYears"
		label="Tested every, years"
		inputmode="numeric"
		placeholder="as the rule"
		mono
	/>
	<div class="col-span-full grid gap-3">
		<FormRefusal refusal={refusedWhole($errors)} />
		<button class="button justify-self-start">Write it down</button>
	</div>
</form>
