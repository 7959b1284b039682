<script lang="ts">
	import { untrack } from 'svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import { page } from '$app/state';
	import { freshId } from '$lib/fresh-id';
	import ScanField from '$lib/ui/counter/ScanField.svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import Notice from '$lib/ui/form/Notice.svelte';
	import Because from '$lib/ui/because/Because.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';

	let { data, form } = $props();
	let refusal = $state('');
	const asked = $derived(data.asked);
	/** As it was last asked for: a scan comes before the answer to the one before it. */

	let wanted = untrack(() => new URLSearchParams(page.url.searchParams));
	let going: Promise<unknown> = Promise.resolve();
	const served = $derived(data.team?.rows.filter(({ tag }) => tag !== null) ?? []);
	const given = $derived(form && 'result' in form ? (form.result ?? []) : []);
	const back = $derived(form && 'refusal' in form ? form.refusal : null);
	const gone = $derived(given.filter(({ done }) => done));
	const nameOf = (id: string) => data.people.find((one) => one.id === id)?.name ?? '';

	function go(change: Record<string, string>) {
		// eslint-disable-next-line svelte/prefer-svelte-reactivity -- made anew, never changed
		const next = new URLSearchParams(wanted);
		for (const [key, value] of Object.entries(change))
			if (value) next.set(key, value);
			else next.delete(key);
		wanted = next;
		going = going.then(() =>
			// What was asked for meanwhile is asked for in its place.
			wanted === next
				? goto(`?${next}`, { keepFocus: true, noScroll: true, replaceState: true })
				: undefined
		);
		return going;
	}
	const team = () => (wanted.get('who') ?? '').split(',').filter(Boolean);
	const add = (id: string) =>
		!id || team().includes(id) ? undefined : go({ who: [...team(), id].join(',') });
	const leave = (id: string) =>
		go({
			who: team()
				.filter((one) => one !== id)
				.join(',')
		});

	/** A person’s card, or the code of a task. */
	function scan(word: string) {
		const text = word.trim().toLowerCase();
		if (!text) return;
		refusal = '';
		const plan = data.plans.find(({ number }) => `plan-${number}` === text);
		const person = data.people.find(({ number }) => number.toLowerCase() === text);
		if (plan) void go({ plan: plan.id, minutes: '' });
		else if (person) void add(person.id);
		else refusal = `“${word.trim()}” is no wearer’s number and no plan such as PLAN-4.`;
	}
	const rows = $derived(
		JSON.stringify(served.map(({ wearerId, tag }) => ({ id: freshId(), wearerId, tag })))
	);
	const MARKS = { served: 'ready', conditions: 'due', none: 'held' } as const;
</script>

<svelte:head><title>Kit out a team · Grevan</title></svelte:head>
<div class="mt-3 flex flex-wrap items-baseline gap-x-4">
	<h1>Kit out a team</h1>
	<p class="text-soft">scan everybody and the task; who gets what is worked out for all at once</p>
</div>
<div class="mt-3 grid gap-x-8 gap-y-6 lg:grid-cols-[18rem_minmax(0,1fr)]">
	<section aria-label="Who and what for">
		<ScanField label="Scan" placeholder="" waiting={0} onscan={scan} />
		{#if refusal}<div class="mt-2"><Notice kind="refusal"><p>{refusal}</p></Notice></div>{/if}
		<label class="label mt-3" for="person">Or choose a person</label>
		<select
			id="person"
			class="w-full"
			value=""
			onchange={(event) => {
				void add(event.currentTarget.value);
				event.currentTarget.value = '';
			}}
		>
			<option value="">choose</option>
			{#each data.people as one (one.id)}<option value={one.id}>{one.name}, {one.number}</option
				>{/each}
		</select>
		<label class="label mt-3" for="plan">Task</label>
		<select
			id="plan"
			class="w-full"
			value={asked.plan}
			onchange={(event) => void go({ plan: event.currentTarget.value, minutes: '' })}
		>
			<option value="">choose</option>
			{#each data.plans as one (one.id)}<option value={one.id}>{one.task}, plan {one.number}</option
				>{/each}
		</select>
		<div class="mt-3 grid grid-cols-[6rem_1fr] gap-3">
			<div>
				<label class="label" for="minutes">Minutes</label>
				<input
					id="minutes"
					inputmode="numeric"
					class="w-full font-mono"
					value={asked.minutes ?? ''}
					onchange={(event) => void go({ minutes: event.currentTarget.value })}
				/>
			</div>
			<div>
				<label class="label" for="from">Taken from</label>
				<select
					id="from"
					class="w-full"
					value={asked.place}
					onchange={(event) => void go({ place: event.currentTarget.value })}
				>
					<option value="">everywhere</option>
					{#each data.places as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
				</select>
			</div>
		</div>
	</section>
	<section aria-label="Who gets what">
		{#if back}<Notice kind="refusal"><p>{back.message}</p></Notice>{/if}
		{#if gone.length}
			<Notice kind="good">
				<p>
					<b>Handed out:</b>
					{gone.map(({ wearerId, tag }) => `${tag} to ${nameOf(wearerId)}`).join(', ')}.
				</p>
				<p class="mt-2">
					<a class="button" href="/air/board?out={gone.map(({ id }) => id).join(',')}"
						>To the entry board: {gone.length} people</a
					>
				</p>
			</Notice>
			{#each given.filter(({ done }) => !done) as one (one.id)}<p
					class="mt-2 font-semibold text-held"
				>
					<span class="tag">{one.tag}</span> did not go out to {nameOf(one.wearerId)}: {one.why.join(
						' '
					)}
				</p>{/each}
		{:else if !data.team}
			<p class="max-w-[32rem]">
				{asked.who.length
					? 'Choose the task: then everybody is looked at together.'
					: 'Scan the first person of the team. Everybody who can be served is; one’s own things go to their owner, what few can wear is kept for them, and no place falls below its floor while another way serves as many.'}
			</p>
			{#if asked.who.length}<ul class="mt-3">
					{#each asked.who as id (id)}<li class="rowline flex items-center gap-3 py-1">
							<b class="min-w-0 flex-1">{nameOf(id)}</b><button
								class="linkish min-h-11"
								onclick={() => void leave(id)}>not in this team</button
							>
						</li>{/each}
				</ul>{/if}
		{:else}
			{@const [first, ...rest] = data.team.reasons}
			<div
				class="rounded border-2 p-4 {served.length === data.team.rows.length
					? 'border-ready bg-tint'
					: 'border-held bg-heldtint'}"
				role="status"
			>
				<p class="text-[1.35rem] leading-tight font-bold">{first?.text}</p>
				{#each rest as reason (reason.rule)}<p class="mt-1">{reason.text}</p>{/each}
				<Because title={first?.text ?? ''} reasons={data.team.reasons} />
			</div>
			<ul class="mt-3">
				{#each data.team.rows as row (row.wearerId)}
					<li class="rowline grid grid-cols-[1.6rem_1fr_auto] items-start gap-x-3 py-2">
						<span class="pt-0.5"
							><StateMark
								state={MARKS[
									row.tag === null ? 'none' : row.conditions.length ? 'conditions' : 'served'
								]}
							/></span
						>
						<div class="min-w-0">
							<p class="flex flex-wrap items-center gap-x-3">
								<b>{row.name}</b>
								{#if row.tag}<a class="tag inline-flex min-h-9 items-center" href="/items/{row.tag}"
										>{row.tag}</a
									><span>{row.model}, {row.size}</span>{/if}
							</p>
							<p class={row.tag ? 'text-soft' : ''}>
								{row.tag
									? `${row.place}${row.minutesOfAir === null ? '' : `, air for ${row.minutesOfAir} min`}`
									: row.reason}
							</p>
							{#each row.conditions as fix (fix)}<p>{fix}</p>{/each}
						</div>
						<button
							class="linkish min-h-11"
							aria-label="{row.name} is not in this team"
							onclick={() => void leave(row.wearerId)}>not in it</button
						>
					</li>
				{/each}
			</ul>
			{#if served.length}<form
					method="post"
					action="?/give"
					class="mt-4"
					use:enhance={() =>
						async ({ update }) => {
							await update({ reset: false });
							await invalidateAll();
						}}
				>
					<input type="hidden" name="plan" value={asked.plan} />
					<input type="hidden" name="minutes" value={asked.minutes ?? ''} />
					<input type="hidden" name="rows" value={rows} />
					<button class="button primary"
						>Hand out {served.length === 1 ? 'this one' : `all ${served.length}`}</button
					>
				</form>{/if}
		{/if}
	</section>
</div>
