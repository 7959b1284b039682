<script lang="ts">
	/** What surrounds the task: oxygen, heat, work, space, emergency, the wearer's fit. */
	import type { HazardFacts } from '$core/hazards/facts';
	import { typedOrNull } from '$lib/ui/form/number';
	import { refusedAt } from '$lib/ui/form/refused';

	interface Props {
		facts: HazardFacts;
		refusal: { path: string; message: string } | null;
		editable: boolean;
	}
	let { facts = $bindable(), refusal, editable }: Props = $props();
	const at = (path: string) => refusedAt(refusal, path);
	/** Fields of plain numbers that may be left empty. */
	const OPTIONAL = ['lelReadingPercent', 'longShiftHours', 'wantedLifeMin'] as const;
	const FAULTS = ['oxygenPercent', 'temperatureC', 'altitudeFt', ...OPTIONAL];
</script>

{#snippet optional(key: (typeof OPTIONAL)[number], label: string, empty: string)}
	<div>
		<label class="label" for={key}>{label}</label>
		<input
			id={key}
			class="w-full font-mono"
			inputmode="decimal"
			value={facts[key] ?? ''}
			placeholder={empty}
			aria-invalid={at(key) ? 'true' : undefined}
			oninput={(e) => (facts[key] = typedOrNull(e.currentTarget.value))}
		/>
	</div>
{/snippet}

<h2 class="mt-7">Around it</h2>
<fieldset
	disabled={!editable}
	class="mt-2 grid grid-cols-[repeat(auto-fill,minmax(9.5rem,1fr))] gap-x-4 gap-y-3"
>
	<legend class="sr-only">Around the task</legend>
	<div>
		<label class="label" for="oxygen">Oxygen, %</label>
		<input
			id="oxygen"
			class="w-full font-mono"
			inputmode="decimal"
			value={facts.oxygenPercent ?? ''}
			placeholder="not measured"
			aria-invalid={at('oxygenPercent') ? 'true' : undefined}
			oninput={(e) => (facts.oxygenPercent = typedOrNull(e.currentTarget.value))}
		/>
	</div>
	<div>
		<label class="label" for="temperature">Temperature, °C</label><input
			id="temperature"
			type="number"
			step="any"
			class="w-full font-mono"
			aria-invalid={at('temperatureC') ? 'true' : undefined}
			bind:value={facts.temperatureC}
		/>
	</div>
	<div>
		<label class="label" for="humidity">Humidity, %</label><input
			id="humidity"
			type="number"
			step="any"
			min="0"
			max="100"
			class="w-full font-mono"
			bind:value={facts.relativeHumidityPercent}
		/>
	</div>
	<div>
		<label class="label" for="work">Work</label>
		<select id="work" class="w-full" bind:value={facts.workRate}
			><option value="rest">rest, 10 L/min</option><option value="light">light, 30 L/min</option
			><option value="moderate">moderate, 40 L/min</option><option value="hard"
				>hard, 60 L/min</option
			><option value="heavy">heavy, 85 L/min</option></select
		>
	</div>
	<div>
		<label class="label" for="exposure">Minutes a shift</label><input
			id="exposure"
			type="number"
			min="1"
			max="1440"
			class="w-full font-mono"
			bind:value={facts.exposureMin}
		/>
	</div>
	<div>
		<label class="label" for="emergency">Purpose</label>
		<select id="emergency" class="w-full" bind:value={facts.emergency}
			><option value="none">work</option><option value="entry">rescue</option><option value="escape"
				>leaving only</option
			></select
		>
	</div>
	<div>
		<label class="label" for="fit">Fit test</label>
		<select id="fit" class="w-full" bind:value={facts.fitTest}
			><option value="quantitative">quantitative</option><option value="qualitative"
				>qualitative</option
			><option value="none">none</option></select
		>
	</div>
	<div>
		<label class="label" for="rules">Rules</label>
		<select id="rules" class="w-full" bind:value={facts.ruleSet}
			><option value="uk">UK / EU</option><option value="us">US</option></select
		>
	</div>
</fieldset>
{#each FAULTS as path (path)}{#if at(path)}<p class="mt-1 font-semibold text-held" role="alert">
			{at(path)}
		</p>{/if}{/each}
{#if facts.oxygenPercent === null}<p class="mt-1 font-semibold text-due">
		Oxygen not measured: counts as too little. In open, well-aired places enter 20.9.
	</p>{/if}
<fieldset disabled={!editable} class="mt-2 flex flex-wrap gap-x-6">
	<legend class="sr-only">More about the task</legend>
	{#each [['confinedSpace', 'confined space'], ['fire', 'fire'], ['oilAerosol', 'oil aerosol'], ['facialHair', 'hair at the seal']] as const as [key, label] (key)}
		<label class="flex min-h-11 items-center gap-3"
			><input type="checkbox" bind:checked={facts[key]} />{label}</label
		>
	{/each}
</fieldset>
<details class="mt-1" open={facts.ruleSet === 'us' && (facts.oxygenPercent ?? 21) < 19.5}>
	<summary class="min-h-11 cursor-pointer content-center font-semibold"
		>Altitude, long shifts, mixtures, wanted life</summary
	>
	<fieldset
		disabled={!editable}
		class="mt-1 grid grid-cols-[repeat(auto-fill,minmax(9.5rem,1fr))] gap-x-4 gap-y-3"
	>
		<legend class="sr-only">Less usual facts</legend>
		<div>
			<label class="label" for="altitude">Altitude, ft</label><input
				id="altitude"
				type="number"
				class="w-full font-mono"
				aria-invalid={at('altitudeFt') ? 'true' : undefined}
				bind:value={facts.altitudeFt}
			/>
		</div>
		{@render optional('lelReadingPercent', 'Explosive gas, % LEL', 'not measured')}
		{@render optional('longShiftHours', 'Long shift, hours', '8, limits as listed')}
		{@render optional('wantedLifeMin', 'Filters should last, min', 'no wish')}
		<div class="col-span-full">
			<label class="label" for="mixture">Contaminants together</label>
			<select id="mixture" class="w-full" bind:value={facts.mixture}
				><option value={undefined}>add up, unless shown otherwise</option><option value="by organ"
					>add up only on the same organ</option
				></select
			>
		</div>
		{#if facts.ruleSet === 'us' && (facts.oxygenPercent ?? 21) < 19.5}
			<label class="col-span-full flex min-h-11 items-center gap-3"
				><input type="checkbox" bind:checked={facts.oxygenStaysInRange} />The employer has shown
				that oxygen stays in range</label
			>
		{/if}
	</fieldset>
</details>
