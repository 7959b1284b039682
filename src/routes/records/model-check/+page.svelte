<script lang="ts">
	/** The service-life model against measurement, with the band that every change time is taken from. */
	import { checkModel } from '$core/filters/model-check';
	import { BAND_FACTOR } from '$core/filters/service-life';
	import Chart from '$lib/ui/chart/Chart.svelte';
	import { axis, line } from '$lib/ui/chart/parts';
	import Reading from '$lib/ui/reading/Reading.svelte';

	const check = checkModel();
	const ends = [15, 200];
	const times = (factor: number) => ends.map((x) => ({ x, y: x * factor }));
</script>

<svelte:head><title>Model check · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/records">Records</a></p>
<h1>The service-life model against measurement</h1>
<p class="mt-1 max-w-[50rem]">
	Twin-cartridge tests of Nelson & Harder (published: AIHA J. 1974-76; from memory): 1000 ppm, 53.3
	L/min, 50 % humidity, 22 °C, minutes to a tenth. Every figure here is computed from those data as
	the page opens.
</p>
<div class="mt-4 grid gap-8 lg:grid-cols-[minmax(0,1fr)_17rem]">
	<Chart
		height={470}
		label="Predicted against measured breakthrough time in minutes, with the 95 % band"
		config={(c) => ({
			type: 'scatter',
			data: {
				datasets: [
					{
						label: 'tested above 20 min',
						data: check.points
							.filter((p) => p.validated)
							.map((p) => ({ x: p.measuredMin, y: p.predictedMin })),
						backgroundColor: c.accent,
						pointRadius: 5
					},
					line('predicted = measured', times(1), c.ink, { width: 1.5 }),
					line('one-sided 95 % bounds', times(BAND_FACTOR), c.soft, { width: 1.5, dash: [6, 4] }),
					line('', times(1 / BAND_FACTOR), c.soft, { width: 1.5, dash: [6, 4] })
				]
			},
			options: {
				plugins: {
					legend: {
						position: 'bottom',
						labels: { color: c.ink, filter: (item) => item.text !== '', boxHeight: 2 }
					},
					tooltip: {
						callbacks: {
							label: (item) =>
								check.points.find(
									(p) => p.measuredMin === item.parsed.x && p.predictedMin === item.parsed.y
								)?.name ?? ''
						}
					}
				},
				scales: {
					x: {
						type: 'logarithmic',
						min: 15,
						max: 200,
						...axis(c, 'measured, minutes')
					},
					y: {
						type: 'logarithmic',
						min: 15,
						max: 200,
						...axis(c, 'predicted, minutes')
					}
				}
			}
		})}
		table={{
			head: ['Substance', 'measured, min', 'predicted, min', 'ratio'],
			rows: check.points.map((p) => [
				p.name,
				p.measuredMin,
				p.predictedMin.toFixed(0),
				(p.predictedMin / p.measuredMin).toFixed(2)
			])
		}}
	/>
	<aside class="grid content-start gap-4">
		<Reading
			label="Geometric mean of predicted / measured"
			value={check.meanRatio.toFixed(2)}
			large={false}
		/>
		<Reading
			label="Geometric standard deviation"
			value={check.geometricSd.toFixed(2)}
			large={false}
		/>
		<Reading label="Rank correlation" value={check.rankCorrelation.toFixed(2)} large={false} />
		<Reading label="Substances above 20 min" value={String(check.n)} large={false} />
		<p class="text-soft">
			A change time is the estimate divided by {BAND_FACTOR.toFixed(2)}, the one-sided 95 % bound of
			this spread, less humidity, rounded down. Methanol, dichloromethane and vinyl chloride break
			through too early to be modelled: not with these filters.
		</p>
	</aside>
</div>
