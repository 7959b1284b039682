<script lang="ts">
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { OUTCOME_WORDS } from '$lib/ui/outcome';
	import { HAZARD_LINKS, PLAN_MARKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';
	import type { TableColumn } from '$lib/ui/table/table';
	import Table from '$lib/ui/table/Table.svelte';
	import { siteDay } from '$lib/ui/time/moments';

	let { data } = $props();
	type Row = (typeof data.plans)[number];
	const columns: TableColumn<Row>[] = [
		{ key: 'number', head: 'No.', value: ({ number }) => number, cell: numberCell, sorts: true },
		{ key: 'task', head: 'Task', value: ({ task }) => task, cell: taskCell, sorts: true },
		{
			key: 'place',
			head: 'Place',
			value: ({ place }) => place,
			sorts: true,
			class: 'text-soft max-md:hidden'
		},
		{ key: 'state', head: 'State', value: ({ state }) => state, cell: stateCell, sorts: true },
		{
			key: 'air',
			head: 'In the air',
			value: ({ contaminants }) => contaminants.join(', '),
			cell: airCell,
			class: 'max-md:hidden'
		},
		{
			key: 'outcome',
			head: 'What may be worn',
			value: ({ outcome, required, first }) =>
				[OUTCOME_WORDS[outcome], required ? `factor ${required}` : '', first ?? ''].join(' '),
			cell: outcomeCell,
			class: 'max-md:hidden'
		},
		{
			key: 'changed',
			head: 'Changed',
			value: ({ changedAt }) => changedAt.toISOString(),
			cell: changedCell,
			sorts: true,
			class: 'max-md:hidden'
		}
	];
	let word = $state('');
	const shown = $derived(
		data.plans.filter((plan) =>
			[plan.task, plan.place, ...plan.contaminants, plan.state]
				.join(' ')
				.toLowerCase()
				.includes(word.trim().toLowerCase())
		)
	);
</script>

<svelte:head><title>Hazards · Grevan</title></svelte:head>
{#snippet numberCell(plan: Row)}<span class="font-mono text-soft">{plan.number}</span>{/snippet}
{#snippet taskCell(plan: Row)}<a
		class="flex min-h-11 items-center text-[1.05rem] font-semibold no-underline hover:underline"
		href="/hazards/{plan.id}">{plan.task}</a
	><span class="text-soft md:hidden">{plan.place}</span>{/snippet}
{#snippet stateCell(plan: Row)}<span class="flex items-center gap-2"
		><StateMark state={PLAN_MARKS[plan.state]} /><span
			>{plan.state}{#if plan.draftAhead}<br /><span class="text-soft text-[0.9rem]"
					>newer draft</span
				>{/if}</span
		></span
	>{/snippet}
{#snippet airCell(plan: Row)}{plan.contaminants.join(', ') || 'nothing entered'}{/snippet}
{#snippet outcomeCell(plan: Row)}<b>{OUTCOME_WORDS[plan.outcome]}</b>{plan.required
		? `, factor ${plan.required}`
		: ''}<br /><span class="text-soft">{plan.first ?? 'nothing permitted'}</span>{/snippet}
{#snippet changedCell(plan: Row)}<span class="font-mono text-[0.9rem] whitespace-nowrap"
		>{siteDay(plan.changedAt)}</span
	>{/snippet}
<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
	<h1>Hazard plans</h1>
	<p class="text-soft">for a task at a place: what is in the air, and what may be worn</p>
	{#if data.mayPlan}<a class="button primary ml-auto" href="/hazards/new">New plan</a>{/if}
</div>
<div class="mt-3"><SectionLinks label="Hazards" links={HAZARD_LINKS} /></div>
{#if data.plans.length === 0}<p class="mt-4">
		No plan yet. A plan starts with a task, its place and what is in the air.
	</p>
{:else}
	<label class="mt-3 block"
		><span class="sr-only">Filter the plans</span><input
			bind:value={word}
			class="w-full max-w-96"
			placeholder="task, place, contaminant, draft, expired"
		/></label
	>
	{#if shown.length === 0}<p class="mt-3">No plan holds “{word}”.</p>{/if}
{/if}
{#if shown.length}
	<div class="mt-2">
		<Table
			label="Plans"
			rows={shown}
			{columns}
			rowId={({ id }) => id}
			href={({ id }) => `/hazards/${id}`}
			csv="plans"
			width="md:min-w-[44rem]"
		/>
	</div>
{/if}
