<script lang="ts">
	/** How long a set lasts: litres and minutes of cylinders side by side, and what the set weighs. */
	import { CONSUMPTIONS, cylinderContent, cylinderDuration, WARNING_BAR } from '$core/air/content';
	import { MOST_SET_KG, setWeight } from '$core/air/set-weight';
	import { readPressure } from '$core/units/pressure';
	import { readableNumber } from '$core/units/number';
	import { InputError } from '$core/verdict';
	import Because from '$lib/ui/because/Because.svelte';
	import Chart from '$lib/ui/chart/Chart.svelte';
	import { axis, line } from '$lib/ui/chart/parts';
	import { typedNumber } from '$lib/ui/form/number';
	import NumberField from '$lib/ui/form/NumberField.svelte';
	import PressureField from '$lib/ui/form/PressureField.svelte';
	import RealAir from './RealAir.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import Reading from '$lib/ui/reading/Reading.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { untrack } from 'svelte';
	import X from '@lucide/svelte/icons/x';

	interface Row {
		id: number;
		count: string;
		litres: string;
		bar: string;
		kg: string;
	}
	let { data } = $props();
	const usual = [
		{ count: '1', litres: '6.8', bar: '300', kg: '4.5' },
		{ count: '2', litres: '6.8', bar: '300', kg: '4.5' },
		{ count: '1', litres: '10', bar: '200', kg: '11.5' }
	];
	let next = 10;
	let rows = $state<Row[]>(
		untrack(() => [...data.cylinders, ...usual.slice(0, 3 - data.cylinders.length)]).map(
			(row, i) => ({ ...row, id: i + 1 })
		)
	);
	let chosen = $state(1);
	let rate = $state('40');
	let warning = $state(String(WARNING_BAR));
	let celsius = $state('20');
	let restKg = $state(untrack(() => String(data.restKg ?? 5.8)));

	const POINTS = 40;
	const FIELDS: Record<string, string> = {
		waterVolumeL: 'Litres',
		count: 'Cylinders',
		fromBar: 'Start',
		startBar: 'Start',
		warningBar: 'Warning',
		toBar: 'Warning',
		temperatureC: 'Temperature',
		consumptionLPerMin: 'Consumption'
	};
	const even = $derived({
		consumptionLPerMin: typedNumber(rate),
		temperatureC: typedNumber(celsius)
	});

	function work(row: Row) {
		const [count, waterVolumeL] = [typedNumber(row.count), typedNumber(row.litres)];
		const emptyKg = typedNumber(row.kg);
		const cylinder = { waterVolumeL, count, temperatureC: even.temperatureC };
		try {
			const startBar = readPressure(row.bar, 'startBar').bar;
			const common = { ...even, warningBar: readPressure(warning, 'warningBar').bar };
			const minutes = cylinderDuration({ ...cylinder, ...common, startBar });
			const content = cylinderContent({ ...cylinder, fromBar: startBar });
			const falls = Array.from({ length: POINTS + 1 }, (_, i) => {
				const toBar = startBar * (1 - i / POINTS);
				const { freeLitres } = cylinderContent({ ...cylinder, fromBar: startBar, toBar });
				return { x: freeLitres / even.consumptionLPerMin, y: toBar };
			});
			const weight = Number.isFinite(emptyKg)
				? setWeight(
						[typedNumber(restKg) || 0],
						Array.from({ length: count }, () => ({ emptyKg, waterVolumeL, pressureBar: startBar }))
					)
				: null;
			return { row, startBar, warningBar: common.warningBar, minutes, content, falls, weight };
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			return { row, refusal: `${FIELDS[error.path] ?? error.path}: ${error.message}` };
		}
	}
	const worked = $derived(rows.map(work));
	const shown = $derived(worked.find((w) => w.row.id === chosen) ?? worked[0]);
	const whole = (value: number) => readableNumber(Math.floor(value), 6);
</script>

<svelte:head><title>Duration · Grevan</title></svelte:head>
<form method="get" class="mt-4 flex flex-wrap items-end gap-3">
	<label
		><span class="label">Card of a set</span><input
			name="set"
			value={data.set}
			placeholder="scan its tag"
			autocomplete="off"
			class="tag w-40 uppercase placeholder:font-sans placeholder:normal-case"
		/></label
	>
	<button class="button">Show</button>
	{#if data.set}<p class="pb-2">
			{data.cylinders.length
				? `${data.set} stands first, with what was last read on its cylinder.`
				: `No cylinder with its stamp on record is on ${data.set}.`}
		</p>{/if}
</form>
<div class="mt-5 grid gap-10 lg:grid-cols-[minmax(0,1fr)_20rem]">
	<section aria-labelledby="cylinders">
		<h2 id="cylinders">Cylinders side by side</h2>
		<ul>
			{#each worked as one (one.row.id)}
				{@const { row } = one}
				<li
					class="border-b border-rule py-3"
					aria-label="{row.count} × {row.litres} L, {row.bar} bar"
				>
					<div class="flex flex-wrap items-end gap-3">
						<label class="flex min-h-11 items-center"
							><input
								type="radio"
								name="shown"
								value={row.id}
								bind:group={chosen}
								aria-label="Show {row.count} × {row.litres} L"
							/></label
						>
						<NumberField label="Cylinders" bind:value={row.count} width="w-20" />
						<NumberField label="Water, L" bind:value={row.litres} width="w-24" />
						<PressureField label="Start, bar" bind:value={row.bar} width="w-24" />
						<NumberField label="Empty, kg each" bind:value={row.kg} width="w-24" />
						{#if !one.refusal && one.minutes}
							<div class="ml-auto pb-2 text-right">
								<div class="font-mono text-[1.5rem] leading-tight font-semibold">
									{whole(one.minutes.minutesToWarning)} + {whole(one.minutes.minutesReserve)} min
								</div>
								<div class="text-soft">
									{readableNumber(Math.round(one.content.freeLitres), 6)} litres
								</div>
							</div>
						{/if}
						{#if rows.length > 1}<button
								type="button"
								class="button px-3!"
								aria-label="Leave out {row.count} × {row.litres} L"
								onclick={() => (rows = rows.filter((r) => r.id !== row.id))}
								><X size={18} aria-hidden="true" /></button
							>{/if}
					</div>
					{#if one.refusal}<p class="mt-2 font-semibold text-held" role="alert">
							{one.refusal}
						</p>{/if}
				</li>
			{/each}
		</ul>
		<button
			type="button"
			class="button mt-3"
			onclick={() => {
				rows = [
					...rows,
					{ ...(rows.at(-1) ?? { count: '1', litres: '6', bar: '300', kg: '' }), id: next }
				];
				chosen = next++;
			}}>Another cylinder</button
		>
		{#if shown && !shown.refusal && shown.falls}
			{@const end = shown.falls.at(-1)?.x ?? 0}
			<h2 class="mt-7">Pressure against time, {shown.row.count} × {shown.row.litres} L</h2>
			<Chart
				height={300}
				label="Pressure in bar against minutes, with the warning"
				config={(c) => ({
					type: 'scatter',
					data: {
						datasets: [
							line('real air', shown.falls ?? [], c.accent),
							line(
								'if p·V held',
								[
									{ x: 0, y: shown.startBar ?? 0 },
									{ x: (shown.content?.idealLitres ?? 0) / even.consumptionLPerMin, y: 0 }
								],
								c.soft,
								{ dash: [3, 4], width: 1.5 }
							),
							line(
								'warning',
								[
									{ x: 0, y: shown.warningBar ?? 0 },
									{ x: end, y: shown.warningBar ?? 0 }
								],
								c.held,
								{ dash: [7, 5] }
							)
						]
					},
					options: {
						plugins: { legend: { position: 'bottom', labels: { color: c.ink, boxHeight: 2 } } },
						scales: {
							x: { min: 0, ...axis(c, 'minutes') },
							y: { min: 0, ...axis(c, 'bar') }
						}
					}
				})}
			/>
		{/if}
		<RealAir celsius={even.temperatureC} />
	</section>
	<aside class="grid grid-cols-[minmax(0,1fr)] content-start gap-4">
		<fieldset class="grid gap-3 rounded border-2 border-ink bg-sheet p-4">
			<legend class="px-1 font-bold">At the same work</legend>
			<NumberField
				label="Consumption, L/min"
				hint="40 compares sets; measure your own."
				bind:value={rate}
				width="w-28"
			/>
			<div class="flex flex-wrap gap-2">
				{#each CONSUMPTIONS as work (work.name)}<button
						type="button"
						class={['button px-3!', typedNumber(rate) === work.lPerMin && 'primary']}
						aria-pressed={typedNumber(rate) === work.lPerMin}
						onclick={() => (rate = String(work.lPerMin))}>{work.name} {work.lPerMin}</button
					>{/each}
			</div>
			{#if data.known.length}<label
					><span class="label">As measured of a wearer</span><select
						class="w-full"
						onchange={(event) => {
							if (event.currentTarget.value) rate = event.currentTarget.value;
						}}
						><option value="">nobody</option>{#each data.known as one (one.wearer)}<option
								value={one.pessimisticLPerMin.toFixed(0)}
								>{one.wearer}, pessimistic {one.pessimisticLPerMin.toFixed(0)}</option
							><option value={one.meanLPerMin.toFixed(0)}
								>{one.wearer}, mean {one.meanLPerMin.toFixed(0)}</option
							>{/each}</select
					></label
				>{/if}
			<div class="grid grid-cols-2 gap-3">
				<PressureField label="Warning, bar" bind:value={warning} width="w-full" />
				<NumberField label="Air, °C" bind:value={celsius} width="w-full" />
			</div>
			<NumberField
				label="Frame, mask, valve, kg"
				hint={data.restKg === null
					? 'A usual figure; the models hold their own.'
					: 'From the models on it.'}
				bind:value={restKg}
				width="w-28"
			/>
		</fieldset>
		{#if shown && !shown.refusal && shown.minutes}
			<section
				class="grid gap-4 rounded border-2 border-ink bg-sheet p-4"
				aria-label="Duration card"
				aria-live="polite"
			>
				<Reading
					label="Minutes to the warning"
					value={whole(shown.minutes.minutesToWarning)}
					unit="min"
				/>
				<div class="flex flex-wrap gap-x-6 gap-y-2">
					<Reading
						label="Reserve"
						value={whole(shown.minutes.minutesReserve)}
						unit="min"
						large={false}
					/>
					<Reading
						label="In all"
						value={whole(shown.minutes.minutesTotal)}
						unit="min"
						large={false}
					/>
				</div>
				<p>
					{readableNumber(Math.round(shown.content.freeLitres), 6)} free litres;
					<span class="text-soft"
						>p·V would say {readableNumber(Math.round(shown.content.idealLitres), 6)}, {(
							(shown.content.idealLitres / shown.content.freeLitres - 1) *
							100
						).toFixed(1)} % too much.</span
					>
				</p>
				{#if shown.weight}<p class="flex items-center gap-2 font-semibold">
						<StateMark state={shown.weight.outcome === 'pass' ? 'good' : 'reject'} />
						{shown.weight.totalKg.toFixed(1)} kg of {MOST_SET_KG}
						<Because title="Weight of the set" reasons={shown.weight.reasons} />
					</p>{/if}
			</section>
		{/if}
		<Notice kind="caution"
			><p>
				Minutes are what the air is worth at an even consumption. A person under strain takes more
				than twice that. Turn back by the gauge, never by this card.
			</p></Notice
		>
	</aside>
</div>
