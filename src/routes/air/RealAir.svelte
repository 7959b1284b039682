<script lang="ts">
	/** How far air is from an ideal gas: Z against pressure, for whoever wants to see it. */
	import { airState } from '$core/air/air-state';
	import { InputError } from '$core/verdict';
	import Chart from '$lib/ui/chart/Chart.svelte';
	import { axis, line } from '$lib/ui/chart/parts';

	interface Props {
		celsius: number;
	}
	let { celsius }: Props = $props();
	let open = $state(false);
	const [MOST_BAR, STEP] = [400, 10];
	const DASHES = [[], [6, 4], [2, 3]];
	const at = (temperatureC: number) =>
		Array.from({ length: MOST_BAR / STEP + 1 }, (_, i) => ({
			x: i * STEP,
			y: airState({ pressureBar: i * STEP, temperatureC }).z
		}));
	const curves = $derived.by(() => {
		const temperatures = [...new Set([celsius, -20, 50])];
		return temperatures.flatMap((temperatureC) => {
			try {
				return [{ temperatureC, points: at(temperatureC) }];
			} catch (error) {
				if (!(error instanceof InputError)) throw error;
				return [];
			}
		});
	});
	const table = $derived({
		head: ['bar', ...curves.map((c) => `${c.temperatureC} °C`)],
		rows: [0, 50, 100, 150, 200, 250, 300, 350, 400].map((bar) => [
			String(bar),
			...curves.map((c) => (c.points[bar / STEP]?.y ?? NaN).toFixed(4))
		])
	});
</script>

<details bind:open class="mt-5">
	<summary class="linkish min-h-11 cursor-pointer content-center"
		>How real air differs: its compressibility Z against pressure</summary
	>
	{#if open}
		<Chart
			height={240}
			label="Compressibility factor of air against gauge pressure in bar, at three temperatures"
			{table}
			config={(c) => ({
				type: 'scatter',
				data: {
					datasets: curves.map((curve, i) =>
						line(`${curve.temperatureC} °C`, curve.points, i === 0 ? c.accent : c.ink, {
							dash: DASHES[i] ?? [],
							width: i === 0 ? 2.5 : 1.5
						})
					)
				},
				options: {
					plugins: { legend: { position: 'bottom', labels: { color: c.ink, boxHeight: 2 } } },
					scales: { x: { min: 0, max: MOST_BAR, ...axis(c, 'bar') }, y: { ...axis(c, 'Z') } }
				}
			})}
		/>
		<p class="text-soft max-w-[46rem] text-[0.92rem]">
			Z above 1 means that less air is in it than pressure times volume says. Published: Lemmon and
			others, J. Phys. Chem. Ref. Data 29 (2000) 331; coefficients from memory.
		</p>
	{/if}
</details>
