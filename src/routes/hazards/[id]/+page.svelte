<script lang="ts">
	import { onDestroy, untrack } from 'svelte';
	import { replaceState } from '$app/navigation';
	import type { Substance } from '$core/data/substance';
	import { libraryOf, SHIPPED } from '$core/data/substances';
	import { whatWouldChange } from '$core/hazards/changes';
	import { compareRuleSets } from '$core/hazards/compare';
	import { decide } from '$core/hazards/ladder';
	import { shownLife } from '$core/hazards/shown-kind';
	import type { HazardFacts } from '$core/hazards/facts';
	import { InputError } from '$core/verdict';
	import { Autosave } from '$lib/ui/form/autosave.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import Answer from './Answer.svelte';
	import Around from './Around.svelte';
	import Contaminants from './Contaminants.svelte';
	import Ladder from './Ladder.svelte';
	import LogReader from './LogReader.svelte';
	import Standing from './Standing.svelte';

	let { data, form } = $props();

	let facts = $state<HazardFacts>(untrack(() => structuredClone(data.plan.facts)));
	let task = $state(untrack(() => data.plan.task));
	let placeId = $state(untrack(() => data.plan.placeId));

	/** Substances of the site's own or corrected, as far as this plan names them. */
	let learnt = $state.raw<Substance[]>(untrack(() => data.substances));
	const library = $derived.by(() => {
		if (learnt.length === 0) return SHIPPED;
		const keys = new Set(learnt.map((s) => s.key));
		return libraryOf([...SHIPPED.all.filter((s) => !keys.has(s.key)), ...learnt]);
	});
	const learn = (substances: Substance[]) => {
		const keys = new Set(substances.map((s) => s.key));
		learnt = [...learnt.filter((s) => !keys.has(s.key)), ...substances];
	};

	/** The decision, or the located fault that stands in its way. The server decides again when it saves. */
	const judged = $derived.by(() => {
		const plain = $state.snapshot(facts) as HazardFacts;
		try {
			const decision = decide(plain, library);
			const life = shownLife(decision, plain);
			const changes = whatWouldChange(plain, decision, library);
			return { decision, life, changes, ...compareRuleSets(plain, library), refusal: null };
		} catch (error) {
			if (error instanceof InputError)
				return {
					decision: null,
					life: null,
					changes: [],
					sides: [],
					differ: false,
					refusal: { path: error.path, message: error.message }
				};
			throw error;
		}
	});
	const copied = untrack(() =>
		'copiedFrom' in data.plan ? { copiedFrom: data.plan.copiedFrom } : {}
	);
	const saving = new Autosave(
		{
			content: () => ({ task, placeId, facts, ...copied }),
			blocked: () => !task.trim() || !placeId || judged.refusal !== null,
			url: () => `/api/hazards/${data.plan.id}`,
			made: () => replaceState(`/hazards/${data.plan.id}`, {})
		},
		untrack(() => data.plan.version)
	);
	onDestroy(() => saving.leave());
	const { version, message, state: kept } = $derived(saving);
	const serverRefusal = $derived(
		saving.refusal && { ...saving.refusal, path: saving.refusal.path.replace(/^facts\./, '') }
	);
	let first = true;
	$effect(() => {
		JSON.stringify([facts, task, placeId]);
		if (!first && data.mayPlan) untrack(() => saving.touch());
		first = false;
	});
	const refusal = $derived(judged.refusal ?? serverRefusal);
	const located = $derived(
		Boolean(
			refusal &&
			(refusal.path.startsWith('contaminants[') ||
				['oxygenPercent', 'temperatureC', 'altitudeFt', 'longShiftHours'].includes(refusal.path))
		)
	);

	const KEPT = $derived(
		{
			kept: version ? `kept, version ${version}` : 'not kept yet',
			keeping: 'keeping ...',
			changed:
				!task.trim() || !placeId
					? 'name the task and place, then it is kept'
					: judged.refusal
						? 'not kept: see the mark below'
						: 'changed',
			unsent: 'not on the server yet; trying again, stay on this page',
			refused: 'not kept'
		}[kept]
	);
</script>

<svelte:head><title>{task || 'New plan'} · Grevan</title></svelte:head>
<div class="flex flex-wrap items-end gap-x-4 gap-y-2">
	<h1 class="sr-only">Hazard plan: {task || 'new'}</h1>
	<div class="min-w-60 flex-1">
		<label class="label" for="task">Task</label><input
			id="task"
			class="w-full max-w-[34rem] text-[1.15rem] font-bold"
			bind:value={task}
			disabled={!data.mayPlan}
			maxlength="120"
			placeholder="what is done"
		/>
	</div>
	<div>
		<label class="label" for="place">Place</label><select
			id="place"
			bind:value={placeId}
			disabled={!data.mayPlan}
			><option value="" disabled>choose</option>{#each data.places as place (place.id)}<option
					value={place.id}>{place.name}</option
				>{/each}</select
		>
	</div>
	<p class="text-soft ml-auto pb-2" role="status">
		{data.plan.number ? `plan ${data.plan.number} · ` : ''}{KEPT}
	</p>
</div>
<Standing
	planId={data.plan.id}
	{version}
	standing={data.standing}
	mayApprove={data.mayApprove}
	forAnother={data.forAnother}
	mayPlan={data.mayPlan}
	reviewOn={data.reviewOn}
	expiresOn={data.expiresOn}
	kept={kept === 'kept'}
	filter={judged.decision?.outcome === 'filter'}
	refusal={form && 'refusal' in form ? (form.refusal ?? null) : null}
/>
{#if message && kept !== 'kept' && !located}<div class="mt-3">
		<Notice kind="refusal"><p>{message}</p></Notice>
	</div>{/if}

<div class="mt-5 grid gap-x-9 gap-y-6 lg:grid-cols-[minmax(0,1fr)_17rem_21.5rem]">
	<section aria-label="Facts">
		<Contaminants
			bind:facts
			{library}
			{learn}
			resolved={judged.decision?.contaminants ?? []}
			{refusal}
			editable={data.mayPlan}
			mayKeepLaxer={data.mayApprove}
		/>
		<Around bind:facts {refusal} editable={data.mayPlan} />
		{#if data.mayPlan}<LogReader bind:facts {library} />{/if}
	</section>
	<section aria-label="Ladder" class="order-last lg:order-none">
		{#if judged.decision}<Ladder rungs={judged.decision.rungs} />{/if}
	</section>
	<section aria-label="Answer">
		{#if judged.decision}
			<Answer
				decision={judged.decision}
				{facts}
				life={judged.life}
				changes={judged.changes}
				sides={judged.sides}
				differ={judged.differ}
				ready={data.ready}
			/>
			{#if version > 0 && judged.decision.outcome === 'filter'}<a
					class="button primary mt-3 w-full"
					href="/filters?plan={data.plan.id}">Filters for this task</a
				>{/if}
		{:else if judged.refusal}
			<Notice kind="refusal"><p><b>No answer yet.</b> {judged.refusal.message}</p></Notice>
		{/if}
	</section>
</div>
