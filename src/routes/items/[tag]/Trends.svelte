<script lang="ts">
	/** Readings of an item over its inspections and tests, with the direction they take. */
	import { parseISO, differenceInCalendarDays } from 'date-fns';
	import Chart from '$lib/ui/chart/Chart.svelte';
	import { axis, line } from '$lib/ui/chart/parts';
	import Notice from '$lib/ui/form/Notice.svelte';
	import type { PageData } from './$types';
	import { readable } from '$core/plan/calendar';

	let { trends }: { trends: PageData['trends'] } = $props();
	const days = (from: string, to: string) => differenceInCalendarDays(parseISO(to), parseISO(from));
	const MONTH_DAYS = 30;
</script>

{#each trends as one (one.key)}
	{@const first = one.points[0]?.on ?? ''}
	{@const last = one.points.at(-1)?.on ?? ''}
	{@const end = days(first, one.trend?.crossesOn ?? last)}
	<h2 class="mt-7">{one.name}</h2>
	{#each one.reasons as reason (reason.rule)}<div class="my-2">
			<Notice kind="caution"><p>{reason.text}</p></Notice>
		</div>{:else}<p>
			{#if one.trend}
				{one.trend.perMonth >= 0 ? '+' : '−'}{Math.abs(one.trend.perMonth).toFixed(1)}
				{one.unit} a month over {one.trend.n} times{one.trend.crossesOn
					? one.trend.inDays === 0
						? '; it stands outside its limits'
						: `; at that rate it leaves its limits about ${readable(one.trend.crossesOn)}`
					: one.trend.sure
						? '; no crossing within two years'
						: ', no more than they scatter'}.
			{:else}{one.points.length} on record; a direction is told from four on.{/if}
		</p>{/each}
	{#if one.points.length > 1}
		<Chart
			height={190}
			label="{one.name} in {one.unit} over time, with its limits"
			table={{
				head: ['Day', one.unit],
				rows: one.points.map((p) => [readable(p.on), p.value])
			}}
			config={(c) => ({
				type: 'scatter',
				data: {
					datasets: [
						{
							label: one.name.toLowerCase(),
							data: one.points.map((p) => ({ x: days(first, p.on), y: p.value })),
							backgroundColor: c.accent,
							pointRadius: 4
						},
						...(one.trend
							? [
									line(
										'direction',
										[
											{
												x: 0,
												y: one.trend.now - (one.trend.perMonth / MONTH_DAYS) * days(first, last)
											},
											{
												x: end,
												y:
													one.trend.now +
													(one.trend.perMonth / MONTH_DAYS) * (end - days(first, last))
											}
										],
										c.ink,
										{ dash: [4, 4] }
									)
								]
							: []),
						...[one.band.from, one.band.to].flatMap((y, i) =>
							y === undefined
								? []
								: [
										line(
											i ? 'most' : 'least',
											[
												{ x: 0, y },
												{ x: end, y }
											],
											c.held,
											{ dash: [7, 5] }
										)
									]
						)
					]
				},
				options: {
					plugins: { legend: { position: 'bottom', labels: { color: c.ink, boxHeight: 2 } } },
					scales: {
						x: { min: 0, ...axis(c, `days since ${readable(first)}`) },
						y: { grace: '10%', ...axis(c, one.unit) }
					}
				}
			})}
		/>
	{/if}
{/each}
