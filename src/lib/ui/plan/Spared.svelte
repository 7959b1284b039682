<script lang="ts">
	/** What levelling spares, beside doing each job when it is due. */
	import type { PlanFigures } from '$core/plan/level/when-due';
	import { hoursAndMinutes } from './words';

	interface Props {
		figures: { levelled: PlanFigures; whenDue: PlanFigures };
	}
	let { figures }: Props = $props();
	const ROWS: [name: string, of: (one: PlanFigures) => string][] = [
		['Highest day', ({ peakMin }) => hoursAndMinutes(peakMin)],
		['Overdue days', ({ overdueDays }) => String(overdueDays)],
		['Days under a floor', ({ daysUnderFloor }) => String(daysUnderFloor)],
		['Ways to a place', ({ visits }) => String(visits)]
	];
</script>

<h2 class="mt-6">What it spares</h2>
<table class="mt-1 w-full text-left text-[0.95rem]">
	<thead class="text-soft">
		<tr
			><td></td><th class="text-right font-normal">when due</th><th class="pl-3 text-right font-normal"
				>levelled</th
			></tr
		>
	</thead>
	<tbody>
		{#each ROWS as [name, of] (name)}
			<tr class="border-t border-rule">
				<th class="py-1 font-normal">{name}</th>
				<td class="text-right font-mono">{of(figures.whenDue)}</td>
				<td class="pl-3 text-right font-mono font-bold">{of(figures.levelled)}</td>
			</tr>
		{/each}
	</tbody>
</table>
