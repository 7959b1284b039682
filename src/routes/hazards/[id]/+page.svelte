<script lang="ts">
	import { untrack } from 'svelte';
	import { replaceState } from '$app/navigation';
	import type { Substance } from '$core/data/substance';
	import { libraryOf, SHIPPED } from '$core/data/substances';
	import { DEFAULT_BED } from '$core/filters/wheeler-jonas';
	import { planLife } from '$core/filters/plan-life';
	import { whatWouldChange } from '$core/hazards/changes';
	import { compareRuleSets } from '$core/hazards/compare';
	import { decide } from '$core/hazards/ladder';
	import type { HazardFacts } from '$core/hazards/facts';
	import { InputError } from '$core/verdict';
	import Notice from '$lib/ui/form/Notice.svelte';
	import Answer from './Answer.svelte';
	import Around from './Around.svelte';
	import Contaminants from './Contaminants.svelte';
	import Ladder from './Ladder.svelte';
	import LogReader from './LogReader.svelte';
	import Standing from './Standing.svelte';

	let { data, form } = $props();
	const SAVE_AFTER_MS = 700;
	const RETRY_MS = 3000;

	let facts = $state<HazardFacts>(untrack(() => structuredClone(data.plan.facts)));
	let task = $state(untrack(() => data.plan.task));
	let placeId = $state(untrack(() => data.plan.placeId));
	let version = $state(untrack(() => data.plan.version));
	let kept = $state<'kept' | 'keeping' | 'changed' | 'unsent' | 'refused'>('kept');
	let message = $state<string | null>(null);
	let serverFault = $state<{ path: string; message: string } | null>(null);

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
			const filters = decision.permitted.some((k) => k.kind === 'half-mask') ? 2 : 1;
			const life =
				decision.outcome === 'filter'
					? planLife(decision.contaminants, plain, { bed: DEFAULT_BED, filters })
					: null;
			const changes = whatWouldChange(plain, decision, library);
			return { decision, life, changes, ...compareRuleSets(plain, library), fault: null };
		} catch (error) {
			if (error instanceof InputError)
				return {
					decision: null,
					life: null,
					changes: [],
					sides: [],
					differ: false,
					fault: { path: error.path, message: error.message }
				};
			throw error;
		}
	});
	const fault = $derived(judged.fault ?? serverFault);
	const located = $derived(
		Boolean(
			fault &&
			(fault.path.startsWith('contaminants[') ||
				['oxygenPercent', 'temperatureC', 'altitudeFt', 'longShiftHours'].includes(fault.path))
		)
	);

	let timer: ReturnType<typeof setTimeout> | undefined;
	let first = true;
	$effect(() => {
		JSON.stringify([facts, task, placeId]);
		if (first) {
			first = false;
			return;
		}
		untrack(() => later(SAVE_AFTER_MS));
	});
	function later(ms: number) {
		if (!data.mayPlan || kept === 'refused') return;
		kept = 'changed';
		clearTimeout(timer);
		timer = setTimeout(() => void save(), ms);
	}
	const copied = untrack(() =>
		'copiedFrom' in data.plan ? { copiedFrom: data.plan.copiedFrom } : {}
	);
	async function save() {
		if (!task.trim() || !placeId || judged.fault) return;
		if (kept === 'keeping') return later(SAVE_AFTER_MS);
		kept = 'keeping';
		const sent = JSON.stringify({ task, placeId, facts, version, ...copied });
		try {
			const response = await fetch(`/api/hazards/${data.plan.id}`, {
				method: 'PUT',
				headers: { 'content-type': 'application/json' },
				body: sent
			});
			const result = (await response.json()) as {
				version: number;
				message: string;
				path: string | null;
			};
			if (response.ok) {
				const firstTime = version === 0;
				if (firstTime) replaceState(`/hazards/${data.plan.id}`, {});
				version = result.version;
				message = null;
				serverFault = null;
				kept = 'kept';
				if (
					JSON.stringify({ task, placeId, facts, version: JSON.parse(sent).version, ...copied }) !==
					sent
				)
					later(SAVE_AFTER_MS);
			} else if (response.status >= 500) {
				kept = 'unsent';
				timer = setTimeout(() => void save(), RETRY_MS);
			} else {
				kept = response.status === 409 || response.status === 401 ? 'refused' : 'changed';
				message = result.message;
				serverFault = result.path
					? { path: result.path.replace(/^facts\./, ''), message: result.message }
					: null;
			}
		} catch {
			kept = 'unsent';
			timer = setTimeout(() => void save(), RETRY_MS);
		}
	}
	const KEPT = $derived(
		{
			kept: version ? `kept, version ${version}` : 'not kept yet',
			keeping: 'keeping ...',
			changed:
				!task.trim() || !placeId
					? 'name the task and place, then it is kept'
					: judged.fault
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
	mayPlan={data.mayPlan}
	reviewOn={data.reviewOn}
	expiresOn={data.expiresOn}
	kept={kept === 'kept'}
	filter={judged.decision?.outcome === 'filter'}
	fault={form && 'fault' in form ? (form.fault ?? null) : null}
/>
{#if message && kept !== 'kept' && !located}<div class="mt-3">
		<Notice kind="fault"><p>{message}</p></Notice>
	</div>{/if}

<div class="mt-5 grid gap-x-9 gap-y-6 lg:grid-cols-[minmax(0,1fr)_17rem_21.5rem]">
	<section aria-label="Facts">
		<Contaminants
			bind:facts
			{library}
			{learn}
			resolved={judged.decision?.contaminants ?? []}
			{fault}
			editable={data.mayPlan}
		/>
		<Around bind:facts {fault} editable={data.mayPlan} />
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
		{:else if judged.fault}
			<Notice kind="fault"><p><b>No answer yet.</b> {judged.fault.message}</p></Notice>
		{/if}
	</section>
</div>
