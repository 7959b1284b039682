<script lang="ts">
	import { format } from 'date-fns';
	import { OUTCOME_WORDS } from '$lib/ui/outcome';

	let { data } = $props();
</script>

<svelte:head><title>Hazards · Grevan</title></svelte:head>
<div class="flex flex-wrap items-center gap-4">
	<h1>Hazard plans</h1>
	<p class="text-soft">for a task at a place: what is in the air, and what may be worn</p>
	{#if data.mayPlan}<a class="button primary ml-auto" href="/hazards/new">New plan</a>{/if}
</div>
{#if data.plans.length === 0}<p class="mt-4">
		No plan yet. A plan starts with a task, its place and what is in the air.
	</p>{/if}
<ul class="mt-4">
	{#each data.plans as plan (plan.id)}
		<li class="rowline">
			<a
				href="/hazards/{plan.id}"
				class="grid min-h-14 grid-cols-[2.2rem_1fr] items-center gap-x-4 py-2 no-underline hover:bg-tint md:grid-cols-[2.2rem_1.3fr_1fr_1fr]"
			>
				<span class="font-mono text-soft">{plan.number}</span>
				<span
					><b class="text-[1.05rem]">{plan.task}</b><br /><span class="text-soft">{plan.place}</span
					></span
				>
				<span class="col-start-2 md:col-start-auto"
					>{plan.contaminants.join(', ') || 'nothing entered'}</span
				>
				<span class="col-start-2 md:col-start-auto"
					><b>{OUTCOME_WORDS[plan.outcome]}</b>{plan.required ? `, factor ${plan.required}` : ''}<br
					/><span class="text-soft"
						>{plan.first ?? 'nothing permitted'} · {format(plan.changedAt, 'd MMM yyyy')}</span
					></span
				>
			</a>
		</li>
	{/each}
</ul>
