<script lang="ts">
	import { onDestroy, untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { changeWords } from '$core/plan/difference';
	import { readable } from '$core/plan/calendar';
	import type { Placed, RelaxedFloor } from '$core/plan/site-problem';
	import { freshId } from '$lib/fresh-id';
	import type { PlanMessage } from '../../workers/plan';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { sendJson } from '$lib/ui/form/send-json';
	import DayJobs from '$lib/ui/plan/DayJobs.svelte';
	import { Planner } from '$lib/ui/plan/planner.svelte';
	import ReadyCurves from '$lib/ui/plan/ReadyCurves.svelte';
	import { PlanRunner } from '$lib/ui/plan/runner.svelte';
	import Spared from '$lib/ui/plan/Spared.svelte';
	import Timetable from '$lib/ui/plan/Timetable.svelte';
	import { hoursAndMinutes } from '$lib/ui/plan/words';

	let { data } = $props();
	const runner = new PlanRunner();
	onDestroy(() => runner.stop());
	/** The plan as it was loaded; what was open stays open. */
	let planner = $state.raw(untrack(() => new Planner(data.facts)));
	let loaded = untrack(() => data.facts);
	$effect.pre(() => {
		if (data.facts === loaded) return;
		loaded = data.facts;
		const next = new Planner(data.facts);
		const { slot, view } = untrack(() => planner);
		if (slot >= 0 && slot < next.problem.days.length * next.problem.workers.length)
			next.slot = slot;
		next.view = view;
		planner = next;
	});
	let refusal = $state<{ message: string; retry: (() => void) | null } | null>(null);
	let said = $state('');
	let busy = $state(false);
	let chosen = $state<string | null>(null);
	let done = $state(0);
	const since = $derived(data.inForce?.number ?? 0);
	const figures = $derived(planner.proposal?.figures ?? data.inForce?.figures ?? null);
	const nobody = $derived(planner.problem.workers.length === 0);
	const noDays = $derived(
		planner.problem.workers.every(({ minutes }) => minutes.every((one) => one === 0))
	);

	async function level() {
		refusal = null;
		said = '';
		planner.proposal = null;
		planner.view = 'levelled';
		done = 0;
		await runner.start({ kind: 'level', facts: data.facts, warm: false }, hear);
	}
	function hear(message: PlanMessage) {
		if (message.kind === 'best') {
			planner.best = message.progress;
			done = message.progress.done;
		}
		if (message.kind === 'planned') {
			planner.best = null;
			planner.proposal = message.plan;
			said = `Worked out in ${(message.ms / 1000).toFixed(1)} s.`;
		}
	}
	/** Stopped: the best so far stands there to be taken. */
	function stop() {
		runner.stop();
		const best = planner.best;
		planner.best = null;
		if (best) void takePlaced(best.placed, data.facts.relaxed ?? []);
	}
	const takePlaced = (placed: readonly Placed[], relaxed: readonly RelaxedFloor[]) =>
		send(
			'/api/plan/take',
			{
				since,
				way: 'anew',
				days: planner.problem.days,
				people: data.facts.workers.map(({ id }) => id),
				placed: placed.map(({ key, day, userId }) => [
					key,
					planner.problem.days.indexOf(day),
					data.facts.workers.findIndex(({ id }) => id === userId)
				]),
				relaxed
			},
			'In force.'
		);

	async function send(url: string, body: object, words: string): Promise<boolean> {
		busy = true;
		refusal = null;
		const answer = await sendJson<{ number: number }>('POST', url, {
			requestId: freshId(),
			...body
		});
		busy = false;
		if (answer.kind === 'taken') {
			planner.proposal = null;
			await invalidateAll();
			said = words;
			return true;
		}
		const asked = 'wish' in body && answer.kind === 'refused' && answer.path === 'wish';
		refusal = {
			message:
				answer.kind === 'refused'
					? answer.message
					: 'The server could not be reached. Do it again.',
			retry: asked ? () => void send(url, { ...body, nevertheless: true }, words) : null
		};
		return false;
	}
	const jobOf = (key: string) => data.facts.jobs.find((job) => job.key === key);
	const dayOf = (slot: number) => {
		const n = planner.problem.days.length;
		return {
			day: planner.problem.days[slot % n] ?? '',
			userId: data.facts.workers[Math.floor(slot / n)]?.id ?? ''
		};
	};
	async function move(key: string, slot: number) {
		if (busy) return;
		const { day, userId } = dayOf(slot);
		const wish = { kind: 'pin', key, day, userId };
		const tag = jobOf(key)?.tag ?? '';
		const name = planner.nameOf(userId);
		if (
			await send(
				'/api/plan/change',
				{ since, wish },
				`${tag} is pinned to ${readable(day)}, ${name}.`
			)
		) {
			planner.slot = slot;
			chosen = key;
			requestAnimationFrame(() =>
				document.querySelector<HTMLElement>(`[data-plan-job="${CSS.escape(key)}"]`)?.focus()
			);
		}
	}
	const unpin = (key: string) =>
		void send(
			'/api/plan/change',
			{ since, wish: { kind: 'unpin', key } },
			`${jobOf(key)?.tag ?? ''} may move again.`
		);
	const barred = $derived(
		new Set(data.facts.barred.map(({ day, userId }) => `${day} ${userId ?? ''}`))
	);
	function bar(slot: number) {
		const { day, userId } = dayOf(slot);
		const is = barred.has(`${day} ${userId}`);
		const wish = is ? { kind: 'open', day, userId } : { kind: 'bar', day, userId, why: '' };
		const words = `${readable(day)} is ${is ? 'open again' : 'barred'} for ${planner.nameOf(userId)}.`;
		void send('/api/plan/change', { since, wish }, words);
	}
	const again = () =>
		void send(
			'/api/plan/change',
			{ since, wish: { kind: 'again' } },
			'Planned from where it stands.'
		);
	const WAY = {
		anew: 'levelled anew',
		moved: 'changed where it had to be',
		evening: 'renewed in the evening'
	};
	const changes = $derived(planner.proposal ? planner.changes : (data.inForce?.changes ?? []));
	const relaxed = $derived(planner.proposal?.relaxed ?? data.facts.relaxed ?? []);
	const MOST = 12;
</script>

<svelte:head><title>Plan · Grevan</title></svelte:head>
<div class="mt-4 flex flex-wrap items-baseline gap-x-4 gap-y-1">
	<h1>Plan</h1>
	<p class="text-soft">
		{data.facts.jobs.length} jobs, {readable(data.facts.from)} to {readable(
			data.facts.until
		)}{#if figures}<span class="ml-1"
				>· highest day <b class="text-ink"
					>{hoursAndMinutes(
						(planner.view === 'when due' ? figures.whenDue : figures.levelled).peakMin
					)}</b
				>, no plan can be below
				{hoursAndMinutes(planner.proposal?.boundMin ?? data.inForce?.boundMin ?? 0)}</span
			>{/if}
	</p>
	<div class="ml-auto flex max-sm:w-full" role="group" aria-label="What is shown">
		{#each ['levelled', 'when due'] as const as view (view)}
			<button
				type="button"
				class="button {planner.view === view
					? 'primary'
					: ''} first:rounded-r-none last:rounded-l-none last:border-l-0 max-sm:flex-1"
				aria-pressed={planner.view === view}
				onclick={() => (planner.view = view)}>{view}</button
			>
		{/each}
	</div>
</div>
{#if nobody || noDays}
	<Notice kind="refusal"
		><p>
			{nobody
				? 'Nobody works on the plan: no account is a technician, and nobody has hours of their own.'
				: 'Nobody has a minute on any of these days: nothing can be planned.'}
			<a href="/plan/hours">Set hours</a>
		</p></Notice
	>
{/if}
{#if data.inForce?.stale}
	<Notice
		><p>
			The plan in force was made for {readable(data.inForce.startsOn)} on: days that have passed. What
			was not done stands on no day; level anew.
		</p></Notice
	>
{/if}
{#if refusal}
	<Notice kind="refusal"
		><p>{refusal.message}</p>
		{#if refusal.retry}<button class="button mt-2" type="button" onclick={refusal.retry}
				>Do it nevertheless</button
			>{/if}</Notice
	>
{/if}
{#if runner.failed}<Notice kind="refusal"
		><p>The plan could not be worked out here. Load the page again.</p></Notice
	>{/if}

<div class="mt-3 flex flex-wrap items-center gap-3">
	{#if runner.running}
		<progress class="w-40" max="1" value={done} aria-label="How far it is"></progress>
		<span role="status"
			>{#if planner.best}Highest day so far {hoursAndMinutes(planner.best.peakMin)}{planner.best
					.lost
					? `, ${planner.best.lost} without a day`
					: ''}.{:else}Working it out.{/if}</span
		>
		{#if data.mayChange}<button class="button" type="button" onclick={stop}
				>Stop, take the best so far</button
			>{/if}
		<button
			class="button"
			type="button"
			onclick={() => {
				runner.stop();
				planner.best = null;
			}}>Leave it</button
		>
	{:else if planner.proposal}
		<span role="status">
			{#if planner.proposal.lost.length === 0}New plan: highest day <b
					>{hoursAndMinutes(planner.proposal.peakMin)}</b
				>{planner.proposal.gap < 0.0005
					? ', as low as any'
					: `, ${(100 * planner.proposal.gap).toFixed(1)} % above the bound`}{planner.proposal
					.outcome === 'planned'
					? ''
					: '. Some floors are not held whatever is planned, see below'}{:else}<b class="text-held"
					>{planner.proposal.lost.length} jobs find no day</b
				>{/if}; {planner.changes.length} differ from the plan in force. {said}
		</span>
		{#if data.mayChange}<button
				class="button primary"
				type="button"
				disabled={busy}
				onclick={() =>
					void takePlaced(planner.proposal?.placed ?? [], planner.proposal?.relaxed ?? [])}
				>Put in force</button
			>{/if}
		<button class="button" type="button" onclick={() => (planner.proposal = null)}>Leave it</button>
	{:else}
		<button
			class="button {data.inForce ? '' : 'primary'}"
			type="button"
			disabled={nobody || noDays}
			onclick={level}>{data.inForce ? 'Level anew' : 'Level the work'}</button
		>
		{#if data.inForce && data.mayChange}<button
				class="button"
				type="button"
				disabled={busy}
				onclick={again}>Plan on from here</button
			>{/if}
		<span role="status" class="text-soft">{busy ? 'Planning …' : said}</span>
	{/if}
</div>

<div class="mt-4 grid gap-x-8 gap-y-6 lg:grid-cols-[minmax(0,1fr)_20rem] lg:grid-rows-[auto_1fr]">
	<Timetable {planner} drop={data.mayChange && !planner.proposal ? move : undefined} />
	<div class="lg:row-span-2">
		{#if planner.lost.length > 0 && planner.view === 'levelled'}
			<section class="mb-5 border-l-4 border-held pl-3" aria-label="Jobs without a day">
				<h2 class="text-held!">{planner.lost.length} without a day</h2>
				<ul>
					{#each planner.lost.slice(0, MOST) as job (job)}
						{@const one = planner.facts.jobs[job]}
						<li>
							<a class="inline-flex min-h-9 items-center gap-2" href={one?.href}
								><span class="tag">{one?.tag}</span>{one?.title}</a
							>
						</li>
					{/each}
				</ul>
				{#if planner.lost.length > MOST}<p>and {planner.lost.length - MOST} more</p>{/if}
				{#if planner.proposal}
					<h2 class="mt-2">Ways out, each worked out</h2>
					<ul class="list-disc pl-5">
						{#each planner.proposal.relax as way, i (i)}<li>{way.change}</li>{/each}
					</ul>
				{:else if data.inForce}<p class="text-soft">
						New since the plan was made. Plan on from here.
					</p>{/if}
			</section>
		{/if}
		{#if planner.proposal && planner.proposal.lost.length === 0 && planner.proposal.relax.length > 0}
			<section class="mb-5 border-l-4 border-due pl-3" aria-label="Floors that are not held">
				<h2 class="text-due!">Floors that are not held, whatever is planned</h2>
				<ul class="list-disc pl-5">
					{#each planner.proposal.relax as way, i (i)}<li>{way.change}</li>{/each}
				</ul>
			</section>
		{/if}
		{#if relaxed.length > 0 && planner.view === 'levelled'}
			<section class="mb-5 border-l-4 border-due pl-3" aria-label="Floors that cannot be kept">
				<h2 class="text-due!">Floors that no plan keeps whole</h2>
				<ul>
					{#each relaxed as one (one.place + one.kind)}<li class="py-0.5">
							<span class="first-letter:uppercase">{one.kind}</span>, {one.place}: {one.to} kept ready,
							the floor is
							{one.from}
						</li>{/each}
				</ul>
				<p class="text-[0.93rem] text-soft">
					Each is looked at one by one all the same. More of them, or a lower floor under Settings,
					Places, ends it.
				</p>
			</section>
		{/if}
		<DayJobs
			{planner}
			bind:chosen
			move={data.mayChange && !planner.proposal && planner.view === 'levelled' && data.inForce
				? move
				: undefined}
			{unpin}
			{bar}
		/>
		{#if data.mayChange && data.inForce}
			<div class="mt-3 flex flex-wrap gap-2">
				<button class="button" type="button" disabled={busy} onclick={() => bar(planner.slot)}
					>{barred.has(`${dayOf(planner.slot).day} ${dayOf(planner.slot).userId}`)
						? 'Open this day again'
						: 'Bar this day'}</button
				>
				<a
					class="button"
					href="/plan/day?day={dayOf(planner.slot).day}&who={dayOf(planner.slot).userId}"
					>Print it</a
				>
			</div>
		{/if}
		{#if figures}<Spared {figures} />{/if}
		{#if changes.length > 0}
			<details class="mt-5">
				<summary class="linkish min-h-11 content-center"
					>{planner.proposal
						? `What would change, ${changes.length}`
						: `What changed with plan ${data.inForce?.number}, ${changes.length}`}</summary
				>
				<ul class="mt-1 text-[0.93rem]">
					{#each changes.slice(0, 60) as change (change.key)}<li class="rowline py-1">
							{changeWords(change, planner.nameOf)}
						</li>{/each}
				</ul>
				{#if changes.length > 60}<p>and {changes.length - 60} more</p>{/if}
			</details>
		{/if}
		{#if data.inForce && !planner.proposal}<p class="mt-4 text-[0.9rem] text-soft">
				Plan {data.inForce.number}, {WAY[data.inForce.way]}{data.inForce.by
					? ` by ${data.inForce.by}`
					: ''}. In the evening it is renewed: what must moves, the rest stays.
			</p>{/if}
	</div>
	<ReadyCurves {planner} />
</div>
