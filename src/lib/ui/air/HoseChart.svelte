<script lang="ts">
	/** Pressure along a hose, with what the wearer's valve needs; it ends where the flow chokes. */
	import { hoseFlow, type HoseInput } from '$core/airline/hose';
	import { InputError } from '$core/verdict';
	import Chart from '$lib/ui/chart/Chart.svelte';
	import { axis, line } from '$lib/ui/chart/parts';

	interface Props {
		hose: HoseInput;
		height?: number;
	}
	let { hose, height = 320 }: Props = $props();
	const POINTS = 30;
	const along = $derived.by(() => {
		const points: { x: number; y: number }[] = [];
		for (let i = 0; i <= POINTS; i++) {
			try {
				const lengthM = (hose.lengthM * i) / POINTS;
				const fittingsEquivalentM = (hose.fittingsEquivalentM ?? 0) * (i / POINTS);
				const { outletBar } = hoseFlow({ ...hose, lengthM, fittingsEquivalentM });
				if (outletBar === undefined) break;
				points.push({ x: lengthM, y: outletBar });
			} catch (error) {
				if (!(error instanceof InputError)) throw error;
				break;
			}
		}
		return points;
	});
</script>

<Chart
	{height}
	label="Pressure in bar along the hose in metres, with what the valve needs"
	config={(c) => ({
		type: 'scatter',
		data: {
			datasets: [
				line('in the hose', along, c.accent),
				line(
					'the valve needs',
					[
						{ x: 0, y: hose.leastOutletBar ?? 0 },
						{ x: hose.lengthM, y: hose.leastOutletBar ?? 0 }
					],
					c.held,
					{ dash: [7, 5] }
				)
			]
		},
		options: {
			plugins: { legend: { position: 'bottom', labels: { color: c.ink, boxHeight: 2 } } },
			scales: {
				x: { min: 0, ...axis(c, 'metres') },
				y: { suggestedMin: 0, ...axis(c, 'bar') }
			}
		}
	})}
/>
