<script lang="ts">
	/** Fit tests of the site: what is under way, which masks fit whom how often, and what was signed. */
	import { shownFactor } from '$core/fit/fit-factor';
	import { readable } from '$core/plan/calendar';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import PassRates from '$lib/ui/people/PassRates.svelte';
	import { PEOPLE_LINKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';
	import type { TableColumn } from '$lib/ui/table/table';
	import Table from '$lib/ui/table/Table.svelte';
	import { siteMoment } from '$lib/ui/time/moments';

	let { data } = $props();
	type Row = (typeof data.tests)[number];
	const columns: TableColumn<Row>[] = [
		{ key: 'on', head: 'On', value: ({ testedOn }) => testedOn, cell: dayCell, sorts: true },
		{ key: 'name', head: 'Wearer', value: ({ name }) => name, cell: nameCell, sorts: true },
		{
			key: 'mask',
			head: 'Mask',
			value: ({ model, size }) => `${model}, size ${size}`,
			sorts: true
		},
		{
			key: 'outcome',
			head: 'Came to',
			value: ({ passed }) => (passed ? 'passed' : 'not passed'),
			cell: outcomeCell,
			sorts: true
		},
		{
			key: 'factor',
			head: 'Factor',
			value: ({ overall }) => (overall === null ? null : shownFactor(overall)),
			sorts: true,
			class: 'font-mono text-right max-md:hidden'
		},
		{
			key: 'how',
			head: 'How',
			value: ({ method, fromPaper }) =>
				`${method === 'quantitative' ? 'counter' : 'taste'}${fromPaper ? ', paper' : ''}`,
			class: 'text-soft max-md:hidden'
		}
	];
</script>

<svelte:head><title>Fit tests · Grevan</title></svelte:head>
{#snippet dayCell(row: Row)}<span class="whitespace-nowrap">{readable(row.testedOn)}</span
	>{/snippet}
{#snippet nameCell(row: Row)}<a
		class="linkish inline-flex min-h-11 items-center whitespace-nowrap"
		href={row.sessionId ? `/people/fit-tests/${row.sessionId}` : `/people/${row.wearerId}`}
		>{row.name}</a
	>{/snippet}
{#snippet outcomeCell(row: Row)}<span class="flex items-center gap-2 whitespace-nowrap"
		><StateMark state={row.passed ? 'good' : 'reject'} /><span class="max-md:sr-only"
			>{row.passed ? 'passed' : 'not passed'}</span
		></span
	>{/snippet}
<h1>Fit tests</h1>
<div class="mt-2"><SectionLinks label="People" links={PEOPLE_LINKS} /></div>
<ul class="mt-3" aria-label="Counters">
	{#each data.counters as one (one.counter)}<li class="flex flex-wrap items-center gap-3">
			<StateMark state={one.live ? 'ready' : 'held'} /><b>Counter {one.counter}</b>
			<span class="text-soft">{one.live ? 'live' : 'not reached'} · {one.says}</span>
			{#if one.test}<a class="linkish" href="/people/fit-tests/{one.test.id}"
					>testing {one.test.name}</a
				>{:else if one.live}<span>free</span>{/if}
		</li>{:else}<li class="text-soft">
			No particle counter is connected: tests are made by taste, or typed in from paper.
		</li>{/each}
	{#each data.open.filter(({ session }) => session.counter === null) as one (one.session.id)}<li>
			<a class="linkish inline-flex min-h-11 items-center" href="/people/fit-tests/{one.session.id}"
				>{one.name}, {one.model}: by taste, begun {siteMoment(one.session.startedAt)}</a
			>
		</li>{/each}
</ul>
<p class="text-soft">A test begins on its wearer’s page: scan the badge, or type the name.</p>
<div class="mt-5 grid gap-x-10 gap-y-8 xl:grid-cols-[minmax(0,1fr)_25rem]">
	<section aria-labelledby="signed" class="min-w-0">
		<h2 id="signed">Signed, newest first</h2>
		{#if data.tests.length}<Table
				label="Fit tests"
				rows={data.tests}
				{columns}
				rowId={({ id }) => id}
				href={(row) =>
					row.sessionId ? `/people/fit-tests/${row.sessionId}` : `/people/${row.wearerId}`}
				csv="fit-tests"
				width="md:min-w-[36rem]"
			/>{:else}<p class="mt-1">
				None yet. Whatever seals on a face is tested on that face before its first use, then yearly.
			</p>{/if}
	</section>
	<section aria-labelledby="rates">
		<h2 id="rates">How often each mask fits</h2>
		<PassRates rates={data.rates} />
	</section>
</div>
