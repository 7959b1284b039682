<script lang="ts">
	/** What levelling spares, beside doing each job when it is due: in these weeks, and over a year that is lived through. */
	import { onDestroy } from 'svelte';
	import type { PlanFigures } from '$core/plan/level/when-due';
	import type { SitePlanFacts } from '$core/plan/site-problem';
	import type { YearFigures } from '$core/plan/year';
	import { PlanRunner } from './runner.svelte';
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
	const runner = new PlanRunner();
	onDestroy(() => runner.stop());
	let year = $state.raw<YearFigures | null>(null);
	let done = $state(0);
	let away = $state(false);
	async function live() {
		away = false;
		done = 0;
		try {
			const answer = await fetch('/api/plan/year');
			if (!answer.ok) throw new Error(String(answer.status));
			const facts = (await answer.json()) as SitePlanFacts;
			await runner.start({ kind: 'year', facts }, (message) => {
				if (message.kind === 'progress') done = message.done;
				if (message.kind === 'year') year = message.year;
			});
		} catch {
			away = true;
		}
	}
</script>

{#snippet table(shown: { levelled: PlanFigures; whenDue: PlanFigures })}
	<table class="mt-1 w-full text-left text-[0.95rem]">
		<thead class="text-soft">
			<tr
				><td></td><th class="text-right font-normal">when due</th><th
					class="pl-3 text-right font-normal">levelled</th
				></tr
			>
		</thead>
		<tbody>
			{#each ROWS as [name, of] (name)}
				<tr class="border-t border-rule">
					<th class="py-1 font-normal">{name}</th>
					<td class="text-right font-mono">{of(shown.whenDue)}</td>
					<td class="pl-3 text-right font-mono font-bold">{of(shown.levelled)}</td>
				</tr>
			{/each}
		</tbody>
	</table>
{/snippet}

<h2 class="mt-6">What it spares</h2>
{@render table(figures)}
{#if runner.running}
	<p class="mt-2 flex items-center gap-3" role="status">
		<progress class="w-32" max="1" value={done} aria-label="How far the year is"></progress> Living
		through the year.
		<button class="linkish min-h-11" type="button" onclick={() => runner.stop()}>Stop</button>
	</p>
{:else if year}
	<h2 class="mt-4">In a year</h2>
	{@render table(year)}
	<p class="mt-1 text-[0.9rem] text-soft">
		{year.jobs.levelled.toLocaleString('en-GB')} jobs levelled every two weeks, {year.jobs.whenDue.toLocaleString(
			'en-GB'
		)} done on their last day; each falls due again from the day on which it was done.
	</p>
{:else}
	<button class="linkish no-print min-h-11" type="button" onclick={() => void live()}
		>Live through a year, both ways</button
	>
{/if}
{#if away || runner.failed}<p role="alert">The year could not be worked out. Do it again.</p>{/if}
