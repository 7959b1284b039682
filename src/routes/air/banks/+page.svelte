<script lang="ts">
	/** Where to stop a hot fill, and how far banks go by one strategy or another. */
	import { bankPlan, type CascadeFill, type Strategy } from '$core/air/cascade';
	import { fillTarget } from '$core/air/settle';
	import { READY_SHARE } from '$core/bench/breathing-apparatus';
	import { readPressure } from '$core/units/pressure';
	import { InputError } from '$core/verdict';
	import Chart from '$lib/ui/chart/Chart.svelte';
	import { axis, line } from '$lib/ui/chart/parts';
	import { typedNumber } from '$lib/ui/form/number';
	import NumberField from '$lib/ui/form/NumberField.svelte';
	import PressureField from '$lib/ui/form/PressureField.svelte';
	import Reading from '$lib/ui/reading/Reading.svelte';
	import X from '@lucide/svelte/icons/x';

	let rated = $state('300');
	let maximum = $state('450');
	let celsius = $state('40');

	let next = 4;
	let banks = $state([
		{ id: 1, litres: '50', bar: '200' },
		{ id: 2, litres: '50', bar: '250' },
		{ id: 3, litres: '50', bar: '300' }
	]);
	let litres = $state('6.8');
	let arrives = $state('50');
	let full = $state('300');

	interface Refusal {
		path: string;
		message: string;
	}
	/** What a computation gives, or which field is at fault. */
	function tried<T>(
		work: () => T
	): { value: T; refusal?: never } | { refusal: Refusal; value?: never } {
		try {
			return { value: work() };
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			return { refusal: { path: error.path, message: error.message } };
		}
	}
	const target = $derived(
		tried(() =>
			fillTarget(
				readPressure(rated, 'ratedBar').bar,
				readPressure(maximum, 'maximumBar').bar,
				typedNumber(celsius)
			)
		)
	);
	const at = (path: string) =>
		target.refusal?.path === path || (path === 'ratedBar' && target.refusal?.path === 'pressureBar')
			? target.refusal.message
			: null;

	const STRATEGIES: { strategy: Strategy; name: string }[] = [
		{ strategy: 'cascade', name: 'Cascade, from the lowest up' },
		{ strategy: 'single bank', name: 'Always from the fullest' }
	];
	const plans = $derived(
		STRATEGIES.map(({ strategy, name }) => ({
			strategy,
			name,
			...tried(() =>
				bankPlan({
					strategy,
					banks: banks.map((bank, i) => ({
						waterVolumeL: typedNumber(bank.litres),
						pressureBar: readPressure(bank.bar, `banks[${i}]`).bar
					})),
					cylinder: {
						waterVolumeL: typedNumber(litres),
						pressureBar: readPressure(arrives, 'cylinder').bar
					},
					ratedBar: readPressure(rated, 'ratedBar').bar,
					targetBar: readPressure(rated, 'targetBar').bar,
					fullBar: readPressure(full, 'fullBar').bar
				})
			)
		}))
	);
	const cascade = $derived(plans[0]);
	/** A value after each fill. */
	const after = (value: (step: CascadeFill) => number) =>
		(cascade?.value?.steps ?? []).map((step, i) => ({ x: i + 1, y: value(step) }));
	const DASHES = [[], [6, 4], [2, 3], [10, 4]];
	const where = (refusal: Refusal) => {
		const bank = /^banks\[(\d+)\]/.exec(refusal.path);
		return bank ? `Bank ${Number(bank[1]) + 1}: ${refusal.message}` : refusal.message;
	};
</script>

<svelte:head><title>Banks · Grevan</title></svelte:head>
<section class="mt-5" aria-labelledby="hot">
	<h2 id="hot">Stop a hot fill at</h2>
	<div class="mt-2 flex flex-wrap items-start gap-x-6 gap-y-3">
		<PressureField
			label="Rated, bar at 15 °C"
			refusal={at('ratedBar')}
			bind:value={rated}
			width="w-28"
		/>
		<PressureField
			label="Maximum, bar at 65 °C"
			refusal={at('maximumBar')}
			hint="On its stamp."
			bind:value={maximum}
			width="w-28"
		/>
		<NumberField
			label="Cylinder now, °C"
			refusal={at('temperatureC')}
			bind:value={celsius}
			width="w-28"
		/>
		{#if target.value}
			<div class="ml-auto flex flex-wrap gap-x-8 gap-y-2" aria-live="polite">
				<Reading label="Stop at" value={target.value.stopAtBar.toFixed(0)} unit="bar" />
				<Reading
					label="Cool, at 15 °C"
					value={target.value.settledBar.toFixed(0)}
					unit="bar"
					large={false}
				/>
				<Reading
					label="At 65 °C"
					value={target.value.developedBar.toFixed(0)}
					unit="bar"
					large={false}
				/>
			</div>
		{/if}
	</div>
	{#if target.value?.limitedBy === 'maximum'}<p class="mt-2 font-semibold text-due">
			Its maximum decides: filled to its rated pressure it would develop too much at 65 °C.
		</p>{/if}
	<p class="text-soft mt-2 max-w-[50rem]">
		Fill slowly. The test date, the life, the visual check and what is left in it come first.
	</p>
</section>
<div class="mt-8 grid gap-10 lg:grid-cols-[24rem_minmax(0,1fr)]">
	<section aria-labelledby="banks">
		<h2 id="banks">Banks</h2>
		<ul>
			{#each banks as bank, i (bank.id)}
				<li class="rowline flex items-end gap-3 py-2">
					<span class="w-16 pb-3 font-semibold">Bank {i + 1}</span>
					<NumberField label="Water, L" bind:value={bank.litres} width="w-20" />
					<PressureField label="Now, bar" bind:value={bank.bar} width="w-20" />
					{#if banks.length > 1}<button
							type="button"
							class="button ml-auto px-3!"
							aria-label="Leave out bank {i + 1}"
							onclick={() => (banks = banks.filter((b) => b.id !== bank.id))}
							><X size={18} aria-hidden="true" /></button
						>{/if}
				</li>
			{/each}
		</ul>
		<button
			type="button"
			class="button mt-3"
			onclick={() => (banks = [...banks, { id: next++, litres: '50', bar: full }])}
			>Another bank</button
		>
		<h2 class="mt-6">Each cylinder</h2>
		<div class="mt-1 flex flex-wrap gap-3">
			<NumberField label="Water, L" bind:value={litres} width="w-20" />
			<PressureField label="Comes with, bar" bind:value={arrives} width="w-28" />
			<PressureField label="Banks full at, bar" bind:value={full} width="w-28" />
		</div>
	</section>
	<section aria-labelledby="how-far">
		<h2 id="how-far">How far they go: cylinders to nine tenths of {rated} bar</h2>
		{#if cascade?.refusal}<p class="mt-2 font-semibold text-held" role="alert">
				{where(cascade.refusal)}
			</p>{:else}
			<div class="mt-2 flex flex-wrap gap-x-10 gap-y-3" aria-live="polite">
				{#each plans as plan (plan.strategy)}{#if plan.value}
						<Reading
							label={plan.name}
							value={String(plan.value.fills)}
							unit={plan.value.fills === 1 ? 'cylinder' : 'cylinders'}
							large={plan.strategy === 'cascade'}
						/>{/if}{/each}
			</div>
			{#if cascade?.value}
				<p class="mt-3 text-[1.1rem]">
					{#if cascade.value.repump !== null}Then pump up <b>bank {cascade.value.repump + 1}</b>: it
						gives the most cylinders more.{:else if cascade.value.fills === 0}No single bank pumped
						up is enough.{:else}They last for {cascade.value.fills} and more.{/if}
				</p>
				{#if cascade.value.steps.length}
					<Chart
						height={300}
						label="Pressure of each bank and of each filled cylinder, fill after fill"
						table={{
							head: ['Fill', 'Cylinder, bar', ...banks.map((_, i) => `Bank ${i + 1}, bar`)],
							rows: cascade.value.steps.map((s, i) => [
								String(i + 1),
								s.finalBar.toFixed(1),
								...s.banksBar.map((b) => b.toFixed(1))
							])
						}}
						config={(c) => ({
							type: 'scatter',
							data: {
								datasets: [
									{
										...line(
											'cylinder',
											after((s) => s.finalBar),
											c.accent,
											{ width: 3 }
										),
										pointRadius: 4,
										backgroundColor: c.accent
									},
									line(
										'nine tenths',
										after(() => READY_SHARE * readPressure(rated).bar),
										c.held,
										{ dash: [7, 5] }
									),
									...banks.map((_, i) =>
										line(
											`bank ${i + 1}`,
											after((s) => s.banksBar[i] ?? 0),
											c.ink,
											{
												width: 1.5,
												dash: DASHES[i % DASHES.length] ?? []
											}
										)
									)
								]
							},
							options: {
								plugins: {
									legend: { position: 'bottom', labels: { color: c.ink, boxHeight: 2 } }
								},
								scales: {
									x: { min: 1, ticks: { precision: 0 }, ...axis(c, 'fill') },
									y: { ...axis(c, 'bar') }
								}
							}
						})}
					/>
				{/if}
			{/if}
		{/if}
	</section>
</div>
