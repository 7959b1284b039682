<script lang="ts">
	/** How long a part lives: the share that is still good at each age, what law fits, when to change it. */
	import AsCsv from '../table/AsCsv.svelte';
	import Chart, { type ChartColours } from '../chart/Chart.svelte';
	import { axis, line } from '../chart/parts';

	interface Choice {
		interval: number;
		failsBefore: number;
		changesPerTime: number;
		costPerTime: number;
	}
	interface Part {
		part: string;
		name: string;
		sits: number;
		failures: number;
		watched: number;
		median: number | null;
		curve: { duration: number; atRisk: number; survival: number; lower: number; upper: number }[];
		law: {
			shape: number;
			scale: number;
			shapeLower: number;
			shapeUpper: number;
			manner: 'wears out' | 'early' | 'random';
		} | null;
		best: Choice | null;
		choices: Choice[];
	}
	let { part, cost }: { part: Part; cost: number } = $props();
	const MANNERS = {
		'wears out': 'It wears out: the older, the likelier it fails.',
		early: 'It fails early: what holds at first holds. Look at how it is fitted, and at its lot.',
		random:
			'It fails by chance, at no age more than at another: changing it in time spares nothing.'
	} as const;
	const steps = (value: (step: Part['curve'][number]) => number) => {
		const points = [{ x: 0, y: 1 }];
		let last = 1;
		for (const step of part.curve) {
			points.push({ x: step.duration, y: last });
			last = value(step);
			points.push({ x: step.duration, y: last });
		}
		points.push({ x: part.watched, y: last });
		return points;
	};
	const config = (c: ChartColours) => ({
		type: 'scatter' as const,
		data: {
			datasets: [
				line(
					'still good',
					steps((s) => s.survival),
					c.accent,
					{ width: 3 }
				),
				line(
					'lower 95 %',
					steps((s) => s.lower),
					c.accent,
					{ width: 1, dash: [4, 4] }
				),
				line(
					'upper 95 %',
					steps((s) => s.upper),
					c.accent,
					{ width: 1, dash: [4, 4] }
				)
			]
		},
		options: {
			scales: {
				x: { ...axis(c, 'days since it was fitted'), min: 0 },
				y: { ...axis(c, 'share still good'), min: 0, max: 1 }
			},
			plugins: { legend: { display: false } }
		}
	});
	const years = (days: number) => (days / 365).toFixed(1);
	/** Nothing to draw from so few. */
	const few = $derived(part.failures < 5);
</script>

<p>
	{part.sits} fitted, {part.failures} failed{part.median !== null
		? `; half live ${Math.round(part.median)} days`
		: ''}.
	{#if few}A small number: the picture says little yet.{/if}
	{#if part.law}{MANNERS[part.law.manner]}
		<span class="text-soft"
			>Weibull shape {part.law.shape.toFixed(2)}, between {part.law.shapeLower.toFixed(2)} and {part.law.shapeUpper.toFixed(
				2
			)}.</span
		>{/if}
</p>
{#if part.curve.length}<div class="mt-2">
		<Chart
			{config}
			label="{part.name}: share still good by age"
			height={220}
			table={{
				head: ['days', 'at risk', 'still good', 'lower', 'upper'],
				rows: part.curve.map((s) => [
					Math.round(s.duration),
					s.atRisk,
					s.survival.toFixed(3),
					s.lower.toFixed(3),
					s.upper.toFixed(3)
				])
			}}
		/>
		<AsCsv
			name="lives-{part.part}"
			rows={part.curve}
			columns={[
				{ head: 'days', value: (row) => row.duration },
				{ head: 'at risk', value: (row) => row.atRisk },
				{ head: 'still good', value: (row) => row.survival },
				{ head: 'lower 95 %', value: (row) => row.lower },
				{ head: 'upper 95 %', value: (row) => row.upper }
			]}
		/>
	</div>{/if}
{#if part.choices.length}
	<table class="mt-2 w-full text-[0.95rem]">
		<caption class="text-left text-soft"
			>Changed in time at some age, where a failure in service costs {cost} planned changes</caption
		>
		<thead
			><tr
				><th scope="col" class="text-left">Changed after</th><th scope="col" class="text-right"
					>fails before</th
				><th scope="col" class="text-right">cost a year</th></tr
			></thead
		>
		<tbody>
			{#each [...part.choices, ...(part.best ? [part.best] : [])].sort((a, b) => a.interval - b.interval) as one (one.interval)}
				<tr class="rowline {one === part.best ? 'font-bold' : ''}"
					><td class="py-1"
						>{years(one.interval)} years{one === part.best ? ', costs least' : ''}</td
					>
					<td class="py-1 text-right font-mono">{(one.failsBefore * 100).toFixed(0)} %</td>
					<td class="py-1 text-right font-mono">{(one.costPerTime * 365).toFixed(2)}</td></tr
				>
			{/each}
		</tbody>
	</table>
	<p class="text-[0.9rem] text-soft">
		The maker's interval comes first; a longer one than the maker's is never taken from here.
	</p>
{/if}
