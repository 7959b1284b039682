<script lang="ts">
	import { breakthroughCurve, sensitivity, type Varied } from '$core/filters/curve';
	import { clock } from '$core/filters/schedule';
	import {
		adsorbateOf,
		bedOf,
		canEstimate,
		serviceLife,
		WORK_RATES,
		type ServiceLifeInput
	} from '$core/filters/service-life';
	import { InputError } from '$core/verdict';
	import Because from '$lib/ui/because/Because.svelte';
	import Chart from '$lib/ui/chart/Chart.svelte';
	import { axis, line } from '$lib/ui/chart/parts';
	import FilterBand from '$lib/ui/form/FilterBand.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import Reading from '$lib/ui/reading/Reading.svelte';
	import { readableNumber } from '$core/units/number';
	import Sweep from './Sweep.svelte';

	let { data } = $props();
	const scheme = $derived(data.facts.ruleSet === 'us' ? 'us' : 'en');
	const vapours = $derived(
		data.contaminants.filter((c) => c.gas && c.substance && canEstimate(c.substance))
	);
	let chosen = $state('');
	let modelId = $state('');
	const vapour = $derived(vapours.find((c) => c.name === chosen) ?? vapours[0]);
	const model = $derived(
		data.models.find((m) => m.id === modelId) ?? data.models.find((m) => m.serves) ?? data.models[0]
	);
	/** Vapours together are screened at the concentration of all of them. */
	const togetherPpm = $derived(vapours.reduce((sum, c) => sum + (c.ppm ?? 0), 0));

	const judged = $derived.by(() => {
		const substance = vapour?.substance;
		if (!substance || !(togetherPpm > 0)) return null;
		const input: ServiceLifeInput = {
			adsorbate: adsorbateOf(substance, data.facts.temperatureC),
			concentrationPpm: togetherPpm,
			flowLPerMin: WORK_RATES[data.facts.workRate],
			filters: 2,
			temperatureC: data.facts.temperatureC,
			relativeHumidityPercent: data.facts.relativeHumidityPercent,
			breakthroughFraction: 0.1,
			bed: bedOf(model?.bed),
			...(substance.noFilter ? { noFilter: substance.noFilter } : {})
		};
		try {
			return { input, substance, life: serviceLife(input), curve: breakthroughCurve(input) };
		} catch (error) {
			if (error instanceof InputError) return { refusal: error.message };
			throw error;
		}
	});
	const short = (value: number) => readableNumber(value, 3);

	const VARIED: { key: Varied; name: string; unit: string; values: number[] }[] = [
		{
			key: 'concentrationPpm',
			name: 'Concentration',
			unit: 'ppm',
			values: [0.25, 0.35, 0.5, 0.7, 1, 1.4, 2, 2.8, 4]
		},
		{
			key: 'relativeHumidityPercent',
			name: 'Humidity',
			unit: '%',
			values: [20, 40, 60, 65, 70, 75, 80, 85, 90, 95]
		},
		{ key: 'flowLPerMin', name: 'Flow', unit: 'L/min', values: [20, 30, 40, 50, 60, 70, 85, 100] },
		{
			key: 'temperatureC',
			name: 'Temperature',
			unit: '°C',
			values: [-10, 0, 10, 15, 20, 25, 30, 35, 40]
		}
	];
	const sensitivities = $derived.by(() => {
		const j = judged;
		if (!j || 'refusal' in j) return [];
		return VARIED.map((v) => {
			const xs =
				v.key === 'concentrationPpm' ? v.values.map((m) => m * j.input.concentrationPpm) : v.values;
			const ys = sensitivity(j.input, v.key, xs, (t) => adsorbateOf(j.substance, t));
			return { ...v, xs, ys, now: j.input[v.key] };
		});
	});
</script>

<svelte:head><title>Filter life, {data.plan.task} · Grevan</title></svelte:head>
<p class="text-soft">
	<a class="linkish" href="/hazards/{data.plan.id}">Plan {data.plan.number}: {data.plan.task}</a>,
	{data.plan.place}
</p>
<h1>Filter life</h1>

{#if data.outcome !== 'filter'}
	<div class="mt-4">
		<Notice kind="caution"
			><p>
				<b>This plan ends in no filter</b> ({data.outcome}). What follows is for teaching only.
			</p></Notice
		>
	</div>
{/if}
{#if !judged}
	<p class="mt-4">
		No vapour of this plan can be modelled. Inorganic gases go by the class test, particles by
		resistance: see the change time on the plan and its reasons.
	</p>
{:else if 'refusal' in judged}
	<div class="mt-4"><Notice kind="refusal"><p>{judged.refusal}</p></Notice></div>
{:else}
	<div class="mt-3 flex flex-wrap items-end gap-4">
		{#if vapours.length > 1}<label
				><span class="label">Vapour</span><select
					value={vapour?.name}
					onchange={(e) => (chosen = e.currentTarget.value)}
					>{#each vapours as c, i (i)}<option>{c.name}</option>{/each}</select
				></label
			>{/if}
		<label
			><span class="label">Filter</span><select
				value={model?.id}
				onchange={(e) => (modelId = e.currentTarget.value)}
				>{#each data.models as m (m.id)}<option value={m.id}
						>{m.name}{m.serves ? '' : ' (does not serve)'}</option
					>{/each}</select
			></label
		>
		<p class="text-soft pb-2">
			{short(judged.input.concentrationPpm)} ppm{vapours.length > 1
				? ' of all vapours together'
				: ''},
			{judged.input.flowLPerMin} L/min through {judged.input.filters}, {judged.input.temperatureC} °C,
			{judged.input.relativeHumidityPercent} %
		</p>
	</div>
	<div class="mt-4 grid gap-8 lg:grid-cols-[minmax(0,1fr)_19rem]">
		<section aria-labelledby="curve">
			<h2 id="curve">What comes through, against time</h2>
			<Chart
				height={300}
				label="Breakthrough of {judged.substance.name} through {model?.name ??
					'the filter'}: share of the outside concentration against minutes, with the 95 % band"
				config={(c) => ({
					type: 'scatter',
					data: {
						datasets: [
							{
								label: '95 % band',
								data: [
									...judged.curve.map((p) => ({ x: p.lower, y: p.fraction * 100 })),
									...judged.curve.map((p) => ({ x: p.upper, y: p.fraction * 100 })).reverse()
								],
								showLine: true,
								fill: 'shape',
								backgroundColor: c.band,
								borderColor: c.soft,
								borderWidth: 1,
								pointRadius: 0
							},
							line(
								'model',
								judged.curve.map((p) => ({ x: p.minutes, y: p.fraction * 100 })),
								c.accent,
								{ width: 3 }
							),
							line(
								'change here',
								[
									{ x: judged.life.recommendedMin, y: 0 },
									{ x: judged.life.recommendedMin, y: 100 }
								],
								c.held,
								{ dash: [7, 5] }
							)
						]
					},
					options: {
						plugins: {
							legend: { position: 'bottom', labels: { color: c.ink, boxHeight: 2, boxWidth: 26 } }
						},
						scales: {
							x: {
								min: 0,
								...axis(c, 'minutes of wear')
							},
							y: {
								min: 0,
								max: 100,
								...axis(c, '% of outside')
							}
						}
					}
				})}
				table={{
					head: ['% of outside', 'lower 95 %, min', 'model, min', 'upper 95 %, min'],
					rows: judged.curve.map((p) => [
						readableNumber(p.fraction * 100, 3),
						Math.round(p.lower),
						Math.round(p.minutes),
						Math.round(p.upper)
					])
				}}
			/>
		</section>
		<aside aria-label="Change time" class="self-start rounded border-2 border-ink bg-sheet p-4">
			<h2>By the model alone</h2>
			{#if judged.life.outcome === 'estimate'}
				<Reading label="Change after" value={clock(judged.life.recommendedMin)} />
				<dl class="mt-3 grid grid-cols-[1fr_auto] gap-y-1">
					<dt>A tenth comes through at</dt>
					<dd class="text-right font-mono">{clock(judged.life.breakthroughMin)}</dd>
					<dt>Lower 95 % bound</dt>
					<dd class="text-right font-mono">{clock(judged.life.lowerBoundMin)}</dd>
					<dt>Humidity leaves</dt>
					<dd class="text-right font-mono">{Math.round(judged.life.humidityFactor * 100)} %</dd>
					<dt>Capacity</dt>
					<dd class="text-right font-mono">{judged.life.capacityGPerG.toFixed(3)} g/g</dd>
				</dl>
			{:else}
				<p class="text-[1.3rem] font-bold text-held">Not with this filter</p>
				<p class="mt-1">{judged.life.reasons[0]?.text}</p>
			{/if}
			<Because title="Filter life" reasons={judged.life.reasons} label="How long, and why" />
			<p class="text-soft mt-2 text-[0.9rem]">
				The plan’s own change time also takes in its other contaminants, rules and dates; the
				earliest counts. <a class="linkish" href="/records/model-check">How the model was checked</a
				>
			</p>
		</aside>
	</div>

	<section class="mt-8" aria-labelledby="sens">
		<h2 id="sens">How it moves: lower bound in minutes, all else equal</h2>
		<div class="mt-2 grid gap-x-6 gap-y-4 sm:grid-cols-2 xl:grid-cols-4">
			{#each sensitivities as s (s.key)}
				<Chart
					height={190}
					label="Lower-bound life against {s.name.toLowerCase()}"
					config={(c) => ({
						type: 'scatter',
						data: {
							datasets: [
								{
									data: s.xs.flatMap((x, i) => {
										const y = s.ys[i];
										return y === null || y === undefined ? [] : [{ x, y }];
									}),
									showLine: true,
									borderColor: c.accent,
									borderWidth: 2,
									pointRadius: 2,
									pointBackgroundColor: c.accent
								},
								line(
									'',
									[
										{ x: s.now, y: 0 },
										{ x: s.now, y: judged.life.lowerBoundMin * judged.life.humidityFactor }
									],
									c.ink,
									{ width: 1.5, dash: [4, 3] }
								)
							]
						},
						options: {
							plugins: { legend: { display: false } },
							scales: {
								x: {
									...axis(c, `${s.name}, ${s.unit}`)
								},
								y: { min: 0, grid: { color: c.rule } }
							}
						}
					})}
					table={{
						head: [`${s.name}, ${s.unit}`, 'lower bound, min'],
						rows: s.xs.map((x, i) => {
							const y = s.ys[i];
							return [short(x), y === null || y === undefined ? 'refused' : Math.round(y)];
						})
					}}
				/>
			{/each}
		</div>
	</section>

	<Sweep substance={judged.substance} bed={judged.input.bed} now={judged.input} />
{/if}

<section class="mt-8" aria-labelledby="compare">
	<h2 id="compare">Filters of the store, side by side</h2>
	{#if data.models.length === 0}<p class="mt-1">Nothing in the store can be compared here.</p>{/if}
	<ul class="mt-1">
		{#each [...data.models].sort((a, b) => Number(b.serves) - Number(a.serves) || (b.minutes ?? 1e9) - (a.minutes ?? 1e9)) as m (m.id)}
			<li
				class="rowline grid grid-cols-[11rem_1fr] items-center gap-4 py-2 md:grid-cols-[12rem_14rem_1fr]"
			>
				<FilterBand code={(scheme === 'us' ? m.codeUs : m.codeEn) ?? m.name} {scheme} small />
				<b>{m.name}</b>
				<span class="col-span-2 md:col-span-1"
					>{#if m.serves}<span class="inline-flex items-center gap-3"
							><svg viewBox="0 0 240 10" class="h-2.5 w-60" aria-hidden="true"
								><rect width="240" height="10" fill="var(--tint)" /><rect
									width={((m.minutes ?? 0) / 480) * 240}
									height="10"
									fill="var(--accent)"
								/></svg
							><span class="font-mono"
								>{m.minutes === null ? 'by resistance' : clock(m.minutes)}{m.singleUse
									? ', once'
									: ''}</span
							></span
						>{:else}<span class="text-held">{m.refusal}</span>{/if}</span
				>
			</li>
		{/each}
	</ul>
</section>
