<script lang="ts">
	/** For who trains others: who is due, what the team misses, the exams. */
	import { eyeFigures, eyeWords } from '$lib/ui/drill/results';
	import type { TableColumn } from '$lib/ui/table/table';
	import Table from '$lib/ui/table/Table.svelte';
	import Rates from '$lib/ui/teach/Rates.svelte';
	import { siteDay } from '$lib/ui/time/moments';

	let { data } = $props();
	type Person = (typeof data.people)[number];
	type Exam = (typeof data.exams)[number];
	const PEOPLE: TableColumn<Person>[] = [
		{ key: 'name', head: 'Who', value: (row) => row.name },
		{ key: 'drills', head: 'Drills', value: (row) => row.sessions, class: 'text-right' },
		{ key: 'due', head: 'To meet again', value: (row) => row.due, class: 'text-right' },
		{ key: 'last', head: 'Last', value: (row) => (row.last ? siteDay(row.last) : 'never') },
		{
			key: 'eye',
			head: 'Eye',
			value: (row) => (row.sharp ? eyeWords(row.sharp) : 'not known')
		},
		{
			key: 'd',
			head: 'd′',
			value: (row) => (row.sharp ? eyeFigures(row.sharp) : ''),
			class: 'font-mono'
		}
	];
	const EXAMS: TableColumn<Exam>[] = [
		{ key: 'who', head: 'Who', value: (row) => row.who, cell: examCell },
		{ key: 'on', head: 'On', value: (row) => row.plural },
		{ key: 'day', head: 'Day', value: (row) => siteDay(row.endedAt) },
		{ key: 'points', head: 'Points', value: (row) => row.points, class: 'text-right' },
		{ key: 'passed', head: '', value: (row) => (row.passed ? 'passed' : 'not passed') }
	];
</script>

<svelte:head><title>Trainer · Grevan</title></svelte:head>
{#snippet examCell(row: Exam)}<a
		class="linkish inline-flex min-h-11 items-center"
		href="/drill/sessions/{row.id}">{row.who}</a
	>{/snippet}
<h1 class="mt-3">Trainer</h1>
<section aria-labelledby="who" class="mt-3">
	<h2 id="who">Who is due</h2>
	<Table
		label="People and their drills"
		rows={data.people}
		columns={PEOPLE}
		rowId={(row) => row.id}
		csv="drills"
		width="min-w-[44rem]"
	/>
</section>
<section aria-labelledby="missed" class="mt-7 max-w-4xl">
	<h2 id="missed">What the team misses, per 1,000 meetings</h2>
	{#if data.missed.length}<Rates label="Kinds that are missed" rates={data.missed} of="meetings" />
	{:else}<p>No kind of fault was met three times and missed yet.</p>{/if}
</section>
<section aria-labelledby="exams" class="mt-7">
	<h2 id="exams">Exams of the last year</h2>
	{#if data.exams.length}<Table
			label="Exams"
			rows={data.exams}
			columns={EXAMS}
			rowId={(row) => row.id}
			href={(row) => `/drill/sessions/${row.id}`}
			csv="exams"
			width="min-w-[34rem]"
		/>{:else}<p>
			None yet. An exam begins under Exam, on the device of who takes it, with you beside it.
		</p>{/if}
</section>
