<script lang="ts">
	import PaperLink from '$lib/ui/records/PaperLink.svelte';
	import { onMount, untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { format, parseISO } from 'date-fns';
	import type { TraceSample } from '$core/bench/trace';
	import { mostLossPa } from '$core/bench/pressure-test';
	import Because from '$lib/ui/because/Because.svelte';
	import Chart from '$lib/ui/chart/Chart.svelte';
	import { axis, line } from '$lib/ui/chart/parts';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { BENCH_MARKS } from '$lib/ui/outcome';
	import Reading from '$lib/ui/reading/Reading.svelte';
	import { siteMoment } from '$lib/ui/time/moments';

	let { data } = $props();
	let samples = $state.raw<TraceSample[]>(untrack(() => data.samples));
	let link = $state<'live' | 'reconnecting'>('live');
	const running = $derived(data.test.endedAt === null);
	const last = $derived(samples.at(-1));
	const limitPa = $derived(
		data.recipe.setPa - Math.sign(data.recipe.setPa) * mostLossPa(data.recipe, data.recipe.setPa)
	);

	onMount(() => {
		if (!running) return;
		const events = new EventSource(`/api/bench/${data.test.id}/events?from=${samples.length}`);
		events.onmessage = (event) => {
			link = 'live';
			samples = [...samples, ...(JSON.parse(String(event.data)) as TraceSample[])];
		};
		events.addEventListener('ended', () => {
			events.close();
			void invalidateAll();
		});
		events.onerror = () => (link = 'reconnecting');
		return () => events.close();
	});
	const askedFor = $derived(
		data.judgedBy
			? `${data.judgedBy.key}@${data.judgedBy.version}`
			: `${data.recipe.key}@${data.recipe.version}`
	);
	const VERDICTS = {
		pass: 'Passed',
		'pass, marginal': 'Passed, marginal',
		fail: 'Failed: held',
		repeat: 'Repeat the test'
	} as const;
</script>

<svelte:head><title>{data.tag}, bench test · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/bench">Bench</a></p>
<div class="flex flex-wrap items-center gap-x-4 gap-y-1">
	<a
		class="tag rounded border-[1.5px] border-ink bg-sheet px-2 text-[1.45rem] no-underline"
		href="/items/{data.tag}">{data.tag}</a
	>
	<h1>{data.recipe.name}</h1>
	<p class="text-soft">
		{data.model} · {data.by}, {siteMoment(data.test.startedAt)} · {data.test.instrument}
	</p>
	{#if !running}<span class="ml-auto"><PaperLink kind="bench-test" id={data.test.id} /></span>{/if}
	<a
		class="linkish inline-flex min-h-11 items-center {running ? 'ml-auto' : ''}"
		href="/bench/{data.test.id}/trace.csv"
		data-sveltekit-reload>Readings as CSV</a
	>
</div>
<div class="mt-4 grid gap-8 lg:grid-cols-[minmax(0,1fr)_20rem]">
	<section aria-label="Trace">
		<Chart
			height={380}
			label="Pressure in pascal against seconds, with the limit of the recipe"
			config={(c) => ({
				type: 'scatter',
				data: {
					datasets: [
						line(
							'pressure',
							samples.map((x) => ({ x: x.s, y: x.pa })),
							c.accent
						),
						line(
							'limit at the end',
							[
								{ x: 0, y: limitPa },
								{ x: data.recipe.holdSeconds, y: limitPa }
							],
							c.held,
							{ dash: [7, 5] }
						)
					]
				},
				options: {
					plugins: { legend: { position: 'bottom', labels: { color: c.ink, boxHeight: 2 } } },
					scales: {
						x: {
							min: 0,
							max: data.recipe.holdSeconds,
							...axis(c, 'seconds of the hold')
						},
						y: {
							grace: '5%',
							...axis(c, 'Pa')
						}
					}
				}
			})}
		/>
	</section>
	<aside
		class="grid grid-cols-[minmax(0,1fr)] content-start gap-4 self-start rounded border-2 border-ink bg-sheet p-4"
		aria-live="polite"
	>
		{#if running}
			<p class="text-[1.3rem] font-bold" role="status">
				{link === 'live' ? 'Running' : 'Reconnecting; the readings go on being kept'}
			</p>
			<Reading label="Pressure" value={last ? last.pa.toFixed(0) : '…'} unit="Pa" />
			<Reading
				label="Of the hold"
				value={String(Math.round(last?.s ?? 0))}
				unit="s"
				limit="of {data.recipe.holdSeconds}"
				large={false}
			/>
			{#if last?.temperatureC !== undefined}<Reading
					label="Inside"
					value={last.temperatureC.toFixed(2)}
					unit="°C"
					large={false}
				/>{/if}
			<p class="text-soft">It is judged when the hold is over. You may leave this page.</p>
		{:else if data.test.outcome}
			<p
				class="flex items-center gap-3 text-[1.4rem] leading-tight font-bold"
				data-testid="verdict"
			>
				<StateMark state={BENCH_MARKS[data.test.outcome]} size={24} />{VERDICTS[data.test.outcome]}
			</p>
			<p>{data.test.reasons?.[0]?.text}</p>
			<Because title="{data.tag}: {data.test.outcome}" reasons={data.test.reasons ?? []} />
			<Reading
				label="Steady leak, settling taken out"
				value={(data.test.leakPaPerMin ?? 0).toFixed(1)}
				unit="Pa/min"
				large={false}
			/>
			<p class="text-soft">
				From {(data.test.startPa ?? 0).toFixed(0)} to {(data.test.correctedEndPa ?? 0).toFixed(0)} Pa,
				{samples.length} readings.
				{#if data.trend?.trend}Over {data.trend.trend.n} tests the leak moves by {data.trend.trend.perMonth.toFixed(
						1
					)} Pa/min a month{data.trend.trend.crossesOn
						? `; at that rate it reaches the limit about ${format(parseISO(data.trend.trend.crossesOn), 'MMM yyyy')}`
						: ''}.{/if}
			</p>
			<form method="get" class="border-t border-rule pt-3" data-sveltekit-keepfocus>
				<label class="label" for="by">What another recipe would say</label>
				<div class="grid gap-2">
					<select id="by" name="by" class="w-full" value={askedFor}>
						{#each data.recipes as r (r.key)}<option value="{r.key}@{r.version}"
								>{r.name}, version {r.version}</option
							>{/each}
					</select>
					<button class="button">Judge</button>
				</div>
				{#if data.judgedBy}<p class="mt-2" role="status">
						<b>{VERDICTS[data.judgedBy.outcome]}</b>: {data.judgedBy.reasons[0]?.text}
						<Because title="By {data.judgedBy.key}" reasons={data.judgedBy.reasons} />
						<span class="text-soft block">The record stays as it was judged.</span>
					</p>{/if}
			</form>
			<a class="button" href="/bench">Another test</a>
			<a class="button" href="/items/{data.tag}">To {data.tag}</a>
		{/if}
	</aside>
</div>
