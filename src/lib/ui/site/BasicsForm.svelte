<script lang="ts">
	/** Name, rules and units of a site: the same in the first set-up and in the settings. */
	import { untrack } from 'svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import LongField from '$lib/ui/form/LongField.svelte';
	import { longForm, refusedWhole } from '$lib/ui/form/long-form';
	import Notice from '$lib/ui/form/Notice.svelte';

	interface Props {
		filled: Parameters<typeof longForm>[0];
		version: number;
		timeZones: readonly string[];
		button: string;
	}
	let { filled, version, timeZones, button }: Props = $props();
	let kept = $state(false);
	const of = untrack(() => longForm(filled, () => (kept = true)));
	const { enhance, errors, form: values } = of;
	const zones = $derived(
		[...new Set([$values.timeZone ?? '', ...timeZones])].sort().map((zone) => [zone, zone] as const)
	);
	const RULES = [
		['uk', 'UK and EU (EN standards, HSE)'],
		['us', 'US (OSHA, NIOSH)']
	] as const;
	const SCHEMES = [
		['en', 'EN, such as A2-P3'],
		['us', 'US, such as OV-P100']
	] as const;
	const PRESSURES = [
		['bar', 'bar'],
		['MPa', 'bar, with MPa beside it'],
		['psi', 'bar, with psi beside it']
	] as const;
	const TEMPERATURES = [
		['°C', '°C'],
		['°F', '°C, with °F beside it']
	] as const;
</script>

<form method="post" action="?/basics" class="mt-4 grid max-w-[40rem] gap-4" use:enhance>
	<input type="hidden" name="version" value={version} />
	{#if kept}<Notice kind="good"><p role="status">Kept.</p></Notice>{/if}
	<FormRefusal refusal={refusedWhole($errors)} />
	<LongField {of} name="name" label="Name of the site" hint="As it stands on every certificate." />
	<LongField
		{of}
		name="timeZone"
		label="Time zone"
		options={zones}
		hint="Its days are the days of every date."
	/>
	<LongField
		{of}
		name="ruleSet"
		label="Rule set"
		options={RULES}
		hint="Limits, factors and intervals come from it; where the other one differs, a plan shows both."
	/>
	<LongField
		{of}
		name="codeScheme"
		label="Filter codes"
		options={SCHEMES}
		hint="Read first on labels, in lists and on the shelf."
	/>
	<div class="grid gap-4 sm:grid-cols-2">
		<LongField
			{of}
			name="pressureUnit"
			label="Pressures of cylinders and sets"
			options={PRESSURES}
			hint="Kept and judged in bar; the other stands beside it."
		/>
		<LongField
			{of}
			name="temperatureUnit"
			label="Temperatures"
			options={TEMPERATURES}
			hint="Kept and judged in °C; the other stands beside it."
		/>
	</div>
	<button class="button primary justify-self-start">{button}</button>
</form>
