<script lang="ts">
	/** The worst change time over ranges of conditions; walked in a worker, with progress, and can be stopped. */
	import { onDestroy, untrack } from 'svelte';
	import type { Substance } from '$core/data/substance';
	import { clock } from '$core/filters/schedule';
	import { countCases, type SweepResult, type SweepSpec } from '$core/filters/sweep';
	import type { ServiceLifeInput } from '$core/filters/service-life';
	import type { Bed } from '$core/filters/wheeler-jonas';
	import { readableNumber } from '$core/units/number';
	import { InputError } from '$core/verdict';
	import type { SweepMessage } from '../../../../workers/sweep';

	interface Props {
		substance: Substance;
		bed: Bed;
		now: ServiceLifeInput;
	}
	let { substance, bed, now }: Props = $props();
	const FIELDS = [
		['concentrationPpm', 'Concentration, ppm'],
		['relativeHumidityPercent', 'Humidity, %'],
		['flowLPerMin', 'Flow, L/min'],
		['temperatureC', 'Temperature, °C']
	] as const;
	const PARTS = ['from', 'to', 'steps'] as const;
	let ranges = $state(
		untrack(() => ({
			concentrationPpm: {
				from: Number((now.concentrationPpm / 4).toPrecision(2)),
				to: Number((now.concentrationPpm * 2).toPrecision(2)),
				steps: 12
			},
			relativeHumidityPercent: { from: 40, to: 95, steps: 12 },
			flowLPerMin: { from: 30, to: 85, steps: 12 },
			temperatureC: { from: now.temperatureC - 10, to: now.temperatureC + 10, steps: 11 }
		}))
	);
	let worker: Worker | undefined;
	let done = $state(0);
	let total = $state(0);
	let running = $state(false);
	let result = $state.raw<SweepResult | null>(null);
	let took = $state(0);
	let message = $state<string | null>(null);
	const short = (value: number) => readableNumber(value, 3);

	const counted = $derived.by(() => {
		try {
			return { cases: countCases(spec()), refusal: null };
		} catch (error) {
			if (error instanceof InputError) return { cases: 0, refusal: error.message };
			throw error;
		}
	});
	function spec(): SweepSpec {
		return {
			substance: $state.snapshot(substance) as Substance,
			bed: { ...bed },
			filters: now.filters,
			...$state.snapshot(ranges)
		};
	}
	async function start() {
		stop();
		const { default: SweepWorker } = await import('../../../../workers/sweep.ts?worker');
		[done, total, running, message, result] = [0, counted.cases, true, null, null];
		worker = new SweepWorker();
		worker.onmessage = (event: MessageEvent<SweepMessage>) => {
			const heard = event.data;
			if (heard.kind === 'progress') done = heard.done;
			else {
				if (heard.kind === 'result') [result, took] = [heard.result, heard.ms];
				else message = heard.message;
				stop();
			}
		};
		worker.onerror = () => {
			message = 'The sweep could not be run here.';
			stop();
		};
		worker.postMessage(spec());
	}
	function stop() {
		worker?.terminate();
		worker = undefined;
		running = false;
	}
	onDestroy(stop);
	/** From a whole shift to nothing, as ink on paper; the figure stands in every cell. */
	const shade = (minutes: number | null) =>
		minutes === null
			? 'transparent'
			: `color-mix(in srgb, var(--accent) ${Math.round((minutes / 480) * 42)}%, var(--sheet))`;
</script>

<section class="mt-8" aria-labelledby="sweep">
	<h2 id="sweep">Sweep: the worst over a range of conditions</h2>
	<div class="mt-2 flex flex-wrap items-end gap-x-5 gap-y-3">
		{#each FIELDS as [key, label] (key)}
			<fieldset class="flex items-end gap-2">
				<legend class="label">{label}</legend>
				{#each PARTS as part (part)}<label
						><span class="text-soft block text-[0.85rem]">{part}</span><input
							type="number"
							step="any"
							class="{part === 'steps' ? 'w-16' : 'w-20'} font-mono"
							bind:value={ranges[key][part]}
						/></label
					>{/each}
			</fieldset>
		{/each}
		{#if running}<button type="button" class="button" onclick={stop}>Stop</button>
		{:else}<button type="button" class="button" disabled={counted.refusal !== null} onclick={start}
				>Run {counted.cases.toLocaleString('en-GB')} cases</button
			>{/if}
	</div>
	{#if counted.refusal}<p class="mt-2 font-semibold text-held">{counted.refusal}</p>{/if}
	{#if message}<p class="mt-2 font-semibold text-held" role="alert">{message}</p>{/if}
	{#if running}<p class="mt-2" role="status">
			<progress class="w-64 align-middle" max={total} value={done} aria-label="Cases done"
			></progress>
			{done.toLocaleString('en-GB')} of {total.toLocaleString('en-GB')}
		</p>{/if}
	{#if result}
		<p class="mt-2" role="status">
			{result.cases.toLocaleString('en-GB')} cases in {(took / 1000).toFixed(1)} s{result.refused
				? `, ${result.refused.toLocaleString('en-GB')} of them beyond what the model takes`
				: ''}.
			{#if result.shortest}Shortest: <b>{clock(result.shortest.minutes)}</b> at {short(
					result.shortest.at.concentrationPpm
				)} ppm, {short(result.shortest.at.relativeHumidityPercent)} %, {short(
					result.shortest.at.flowLPerMin
				)} L/min, {short(result.shortest.at.temperatureC)} °C.{/if}
		</p>
		<div class="mt-2 overflow-x-auto" role="region" aria-label="Worst change time" tabindex="-1">
			<table class="text-right text-[0.88rem]">
				<caption class="text-soft text-left"
					>Least change time in minutes, humidity down, concentration across; worst over flow and
					temperature</caption
				>
				<thead
					><tr
						><th class="pr-3 text-left font-semibold">% \ ppm</th
						>{#each result.concentrationPpm as ppm (ppm)}<th class="px-2 font-mono font-semibold"
								>{short(ppm)}</th
							>{/each}</tr
					></thead
				>
				<tbody>
					{#each result.worst as row, i (i)}<tr
							><th class="pr-3 font-mono font-semibold"
								>{short(result.relativeHumidityPercent[i] ?? 0)}</th
							>{#each row as cell, j (j)}<td
									class="px-2 font-mono"
									style="background: {shade(cell)}">{cell ?? '×'}</td
								>{/each}</tr
						>{/each}
				</tbody>
			</table>
		</div>
	{/if}
</section>
