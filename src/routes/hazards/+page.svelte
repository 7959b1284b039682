<script lang="ts">
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { OUTCOME_WORDS } from '$lib/ui/outcome';
	import { HAZARD_LINKS, PLAN_MARKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';
	import { siteDay } from '$lib/ui/time/moments';

	let { data } = $props();
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
<ul class="mt-2">
	{#each shown as plan (plan.id)}
		<li class="rowline">
			<a
				href="/hazards/{plan.id}"
				class="grid min-h-14 grid-cols-[2.2rem_1fr] items-center gap-x-4 py-2 no-underline hover:bg-tint md:grid-cols-[2.2rem_1.2fr_9rem_1fr_1fr]"
			>
				<span class="font-mono text-soft">{plan.number}</span>
				<span
					><b class="text-[1.05rem]">{plan.task}</b><br /><span class="text-soft">{plan.place}</span
					></span
				>
				<span class="col-start-2 flex items-center gap-2 md:col-start-auto"
					><StateMark state={PLAN_MARKS[plan.state]} /><span
						>{plan.state}{#if plan.draftAhead}<br /><span class="text-soft text-[0.9rem]"
								>newer draft</span
							>{/if}</span
					></span
				>
				<span class="col-start-2 md:col-start-auto"
					>{plan.contaminants.join(', ') || 'nothing entered'}</span
				>
				<span class="col-start-2 md:col-start-auto"
					><b>{OUTCOME_WORDS[plan.outcome]}</b>{plan.required ? `, factor ${plan.required}` : ''}<br
					/><span class="text-soft"
						>{plan.first ?? 'nothing permitted'} · {siteDay(plan.changedAt)}</span
					></span
				>
			</a>
		</li>
	{/each}
</ul>
