<script lang="ts">
	/** The fill that is under way: what the panel shows, where it stops, which valve is next. */
	import { hearsKeys } from '$lib/ui/shell/keys.svelte';
	import { READY_SHARE } from '$core/bench/breathing-apparatus';
	import { RATED_C, settledPressureBar, type FillTarget } from '$core/air/settle';
	import Chart from '$lib/ui/chart/Chart.svelte';
	import { axis, line } from '$lib/ui/chart/parts';
	import NumberField from '$lib/ui/form/NumberField.svelte';
	import PressureField from '$lib/ui/form/PressureField.svelte';
	import Reading from '$lib/ui/reading/Reading.svelte';

	interface PanelNow {
		state: string;
		tag: string | null;
		openBank: number | null;
		cylinderBar: number | null;
		cylinderC: number | null;
		banksBar: number[];
	}
	interface Props {
		tag: string;
		source: string;
		startBar: number;
		ratedBar: number;
		/** Null: the panel is not heard; the gauge is read by hand. */
		reading: PanelNow | null;
		target: FillTarget | null;
		points: { s: number; bar: number; c: number }[];
		busy: boolean;
		onbank: (bank: number) => void;
		onfinish: (hand: { bar: string; celsius: string } | null) => void;
	}
	let props: Props = $props();
	const { onbank, onfinish } = $derived(props);
	/** What was heard of another cylinder says nothing of this one. */
	const reading = $derived(props.reading?.tag === props.tag ? props.reading : null);
	let bar = $state('');
	let celsius = $state('20');
	/** What a bank has to stand above the cylinder to be worth opening, bar. */
	const WORTH_BAR = 3;

	/** The lowest bank that still gives, other than the one that is open. */
	const nextBank = $derived.by(() => {
		if (!reading || reading.cylinderBar === null) return null;
		const at = reading.cylinderBar;
		const order = reading.banksBar
			.map((bankBar, i) => ({ bankBar, bank: i + 1 }))
			.filter(({ bankBar, bank }) => bankBar > at + WORTH_BAR && bank !== reading.openBank)
			.sort((a, b) => a.bankBar - b.bankBar);
		return order[0]?.bank ?? null;
	});
	const flowing = $derived(reading?.state === 'flowing');
	const stopped = $derived(reading?.state === 'stopped');
	const settled = $derived.by(() => {
		if (!reading || reading.cylinderBar === null || reading.cylinderC === null) return null;
		return settledPressureBar(
			{ pressureBar: reading.cylinderBar, temperatureC: reading.cylinderC },
			RATED_C
		);
	});
	const short = $derived(settled !== null && settled < READY_SHARE * props.ratedBar);
	const says = $derived(
		!reading
			? props.reading
				? 'The panel takes it …'
				: 'The panel is not heard. Read the gauge by hand.'
			: stopped
				? 'It closed by itself: full when cool.'
				: flowing
					? `Bank ${reading.openBank} fills it.`
					: reading.state === 'level'
						? `Level with bank ${reading.openBank}.${nextBank === null && short ? ' As it cools it takes a little more: wait, or take the reading.' : ''}`
						: 'Valves shut.'
	);
	const done = $derived(reading !== null && !flowing && (stopped || nextBank === null));
	hearsKeys(() => [{ keys: 'Enter', does: 'the next bank, or end the fill' }]);
	function keys(event: KeyboardEvent) {
		if (event.key !== 'Enter' || event.target !== document.body || props.busy || flowing) return;
		event.preventDefault();
		if (done) onfinish(null);
		else if (nextBank !== null) onbank(nextBank);
	}
</script>

<svelte:window onkeydown={keys} />
<section aria-labelledby="running" class="grid gap-4 rounded border-2 border-ink bg-sheet p-4">
	<h2 id="running" class="text-[1.2rem]! text-ink!">
		<span class="tag">{props.tag}</span> on the panel
		<span class="text-soft font-normal"
			>came with {Math.round(props.startBar)} bar, {props.source}</span
		>
	</h2>
	{#if reading}
		<div class="flex flex-wrap gap-x-8 gap-y-3">
			<Reading
				label="In it now"
				value={reading.cylinderBar === null ? '?' : reading.cylinderBar.toFixed(0)}
				unit="bar"
				limit={props.target ? `stops at ${props.target.stopAtBar.toFixed(0)}` : ''}
			/>
			<Reading
				label="Its air"
				value={reading.cylinderC === null ? '?' : reading.cylinderC.toFixed(0)}
				unit="°C"
				large={false}
			/>
			{#if settled !== null}<Reading
					label="When cool, 15 °C"
					value={settled.toFixed(0)}
					unit="bar"
					limit="of {props.ratedBar}"
					large={false}
				/>{/if}
		</div>
	{/if}
	<p class="font-semibold" role="status">{says}</p>
	<div class="flex flex-wrap gap-3">
		{#if reading}
			{#if nextBank !== null && !stopped}<button
					type="button"
					class={['button', !flowing && 'primary']}
					disabled={props.busy}
					onclick={() => nextBank !== null && onbank(nextBank)}
					>Open bank {nextBank}{#if !flowing}
						<kbd>Enter</kbd>{/if}</button
				>{/if}
			<button
				type="button"
				class={['button', done && 'primary']}
				disabled={props.busy}
				onclick={() => onfinish(null)}
				>Shut, take the reading{#if done}
					<kbd>Enter</kbd>{/if}</button
			>
		{/if}
	</div>
	<details open={!props.reading}>
		<summary class="linkish min-h-11 cursor-pointer content-center">Read by hand</summary>
		<div class="mt-1 flex flex-wrap items-start gap-3">
			<PressureField label="Its gauge shows" bind:value={bar} />
			<NumberField label="Its air, °C" bind:value={celsius} width="w-20" />
			<button
				type="button"
				class="button mt-[1.6rem]"
				disabled={props.busy}
				onclick={() => onfinish({ bar, celsius })}>End with this reading</button
			>
		</div>
	</details>
	{#if props.points.length > 1}
		<Chart
			height={220}
			label="Pressure of the cylinder in bar and its temperature in degrees Celsius against seconds"
			config={(c) => ({
				type: 'scatter',
				data: {
					datasets: [
						line(
							'pressure, bar',
							props.points.map((p) => ({ x: p.s, y: p.bar })),
							c.accent
						),
						{
							...line(
								'temperature, °C',
								props.points.map((p) => ({ x: p.s, y: p.c })),
								c.held,
								{ dash: [4, 3], width: 1.5 }
							),
							yAxisID: 'celsius'
						}
					]
				},
				options: {
					plugins: { legend: { position: 'bottom', labels: { color: c.ink, boxHeight: 2 } } },
					scales: {
						x: { min: 0, ...axis(c, 'seconds of the panel') },
						y: { min: 0, suggestedMax: props.ratedBar, ...axis(c, 'bar') },
						celsius: {
							position: 'right',
							suggestedMin: 10,
							suggestedMax: 50,
							...axis(c, '°C'),
							grid: { drawOnChartArea: false }
						}
					}
				}
			})}
		/>
	{/if}
</section>
