<script lang="ts">
	/** Whether the last wearer of an airline still gets air, and what would help where not. */
	import { hoseFixes, type HoseFix } from '$core/airline/fixes';
	import { judgeHose, LEAST_FLOW_L_PER_MIN, type HoseInput } from '$core/airline/hose';
	import { readPressure } from '$core/units/pressure';
	import { InputError } from '$core/verdict';
	import { fixWords } from '$lib/ui/air/fix-words';
	import HoseChart from '$lib/ui/air/HoseChart.svelte';
	import Because from '$lib/ui/because/Because.svelte';
	import Field from '$lib/ui/form/Field.svelte';
	import { typedNumber } from '$lib/ui/form/number';
	import NumberField from '$lib/ui/form/NumberField.svelte';
	import PressureField from '$lib/ui/form/PressureField.svelte';
	import Reading from '$lib/ui/reading/Reading.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';

	let typed = $state({
		supplyBar: '6',
		boreMm: '8',
		lengthM: '60',
		fittingsEquivalentM: '2',
		wearers: '2',
		leastOutletBar: '4',
		temperatureC: '15'
	});
	let wearing = $state<keyof typeof LEAST_FLOW_L_PER_MIN>('tight-fitting');

	const MOST_WEARERS = 12;
	/** What was typed in bar; the field itself says what is wrong with it. */
	function barOf(text: string): number {
		try {
			return readPressure(text).bar;
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			return NaN;
		}
	}
	const count = $derived(typedNumber(typed.wearers));
	const counted = $derived(Number.isInteger(count) && count >= 1 && count <= MOST_WEARERS);
	const input = $derived<HoseInput>({
		supplyBar: barOf(typed.supplyBar),
		boreMm: typedNumber(typed.boreMm),
		lengthM: typedNumber(typed.lengthM),
		fittingsEquivalentM: typedNumber(typed.fittingsEquivalentM),
		flowLPerMin: (counted ? count : 1) * LEAST_FLOW_L_PER_MIN[wearing],
		temperatureC: typedNumber(typed.temperatureC),
		leastOutletBar: barOf(typed.leastOutletBar),
		wearing,
		wearers: counted ? count : 1
	});
	const judged = $derived.by(() => {
		let refusal: { path: string; message: string } | null = null;
		let verdict: ReturnType<typeof judgeHose> | null = null;
		let fixes: HoseFix[] = [];
		if (!counted)
			return {
				verdict,
				fixes,
				refusal: { path: 'wearers', message: `A whole number from 1 to ${MOST_WEARERS}.` }
			};
		try {
			fixes = hoseFixes(input);
			verdict = judgeHose(input);
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			refusal = { path: error.path, message: error.message };
		}
		return { verdict, fixes, refusal };
	});
	const at = (path: string) => (judged.refusal?.path === path ? judged.refusal.message : null);
	const FIELDS = [
		['supplyBar', 'Supply, bar'],
		['boreMm', 'Bore, mm'],
		['lengthM', 'Length, m'],
		['fittingsEquivalentM', 'Fittings as, m'],
		['wearers', 'Wearers'],
		['leastOutletBar', 'Valve needs, bar'],
		['temperatureC', 'Air, °C']
	] as const;
</script>

<svelte:head><title>Hoses · Grevan</title></svelte:head>
<div class="mt-5 grid gap-10 lg:grid-cols-[minmax(0,1fr)_20rem]">
	<section aria-labelledby="run">
		<h2 id="run">A run of hose, all wearers breathing at its end</h2>
		<div class="mt-2 grid grid-cols-2 gap-4 md:grid-cols-4">
			{#each FIELDS as [path, label] (path)}
				{#if path.endsWith('Bar')}<PressureField
						{label}
						refusal={at(path)}
						bind:value={typed[path]}
						width="w-full"
					/>{:else}<NumberField
						{label}
						refusal={at(path)}
						bind:value={typed[path]}
						width="w-full"
					/>{/if}
			{/each}
			<Field id="wearing" label="Facepiece">
				{#snippet children(field)}<select {...field} bind:value={wearing} class="w-full"
						>{#each Object.entries(LEAST_FLOW_L_PER_MIN) as [name, flow] (name)}<option value={name}
								>{name}, {flow} L/min</option
							>{/each}</select
					>{/snippet}
			</Field>
		</div>
		<h2 class="mt-7">Pressure along it</h2>
		<HoseChart hose={input} />
	</section>
	<aside
		class="grid grid-cols-[minmax(0,1fr)] content-start gap-4 self-start rounded border-2 border-ink bg-sheet p-4"
		aria-live="polite"
	>
		{#if judged.verdict}
			<p class="flex items-center gap-3 text-[1.4rem] leading-tight font-bold">
				<StateMark state={judged.verdict.outcome === 'pass' ? 'good' : 'reject'} size={24} />{judged
					.verdict.outcome === 'pass'
					? 'Enough at the end'
					: 'Not enough'}
			</p>
			<Reading
				label="At the end, {input.flowLPerMin} L/min in all"
				value={judged.verdict.outletBar.toFixed(2)}
				unit="bar"
			/>
			<ul>
				{#each judged.verdict.reasons.filter((r, i) => i === 0 || (r.margin ?? 0) < 0) as reason (reason.rule)}<li
						class={(reason.margin ?? 0) < 0 ? 'font-semibold text-held' : ''}
					>
						{reason.text}
					</li>{/each}
			</ul>
			<Because title="Airline hose" reasons={judged.verdict.reasons} />
			<p class="text-soft">
				Reynolds number {Math.round(judged.verdict.reynolds).toLocaleString('en-GB')}, friction
				factor {judged.verdict.frictionFactor.toFixed(4)}.
			</p>
		{:else if judged.refusal}
			<p class="flex items-center gap-3 text-[1.4rem] leading-tight font-bold">
				<StateMark state="reject" size={24} />{judged.refusal.path === 'flowLPerMin'
					? 'It chokes'
					: 'No answer yet'}
			</p>
			<p class="font-semibold text-held" role="alert">{judged.refusal.message}</p>
		{/if}
		{#if judged.fixes.length}
			<section aria-labelledby="fixes" class="border-t border-rule pt-3">
				<h2 id="fixes">One of these makes it pass</h2>
				<ul class="mt-1 list-disc pl-5 text-[1.1rem]">
					{#each judged.fixes as fix (fix.change)}<li>{fixWords(fix)}</li>{/each}
				</ul>
			</section>
		{:else if judged.verdict?.outcome === 'fail'}<p>No single change is enough.</p>{/if}
		<p class="text-soft">The approval of the rig and its maker’s table come first.</p>
	</aside>
</div>
