<script lang="ts">
	import { airwayOf } from '$core/data/families';
	import { DECISION_WORDS, STEP_WORDS } from '$core/care/batch';
	import { freshId } from '$lib/fresh-id';
	import WashStations from '$lib/ui/counter/WashStations.svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { minutesAndSeconds, serverClock } from '$lib/ui/timer/clock.svelte';
	import { siteMoment } from '$lib/ui/time/moments';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	const wiped = $derived(form && 'result' in form ? form.result : null);
	const total = $derived(data.stations.reduce((sum, { count }) => sum + count, 0));
	const id = freshId();
	const GROUPS = {
		bath: 'Into a bath',
		decontaminated: 'Decontaminate first',
		wiped: 'Wipe, never immersed'
	} as const;
	const groups = $derived(
		Object.entries(GROUPS)
			.map(([cleaned, words]) => ({
				words,
				rows: data.dirty.filter((row) => row.cleaned === cleaned)
			}))
			.filter(({ rows }) => rows.length)
	);
</script>

<svelte:head><title>Wash line · Grevan</title></svelte:head>
<div class="mt-3 flex flex-wrap items-baseline gap-x-4">
	<h1>Wash line</h1>
	<p class="text-soft">{total} on the way from dirty to ready</p>
</div>
<div class="mt-5"><WashStations stations={data.stations} ready={data.ready} /></div>
{#if refusal}<div class="mt-4"><Notice kind="refusal"><p>{refusal.message}</p></Notice></div>{/if}
{#if wiped}<div class="mt-4">
		<Notice kind="good"
			><p>
				<span class="tag">{wiped.tag}</span> wiped, {wiped.wipes} of {wiped.most} since its last full
				wash.
			</p></Notice
		>
	</div>{/if}
<div class="mt-6 grid gap-x-8 gap-y-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
	<section>
		<h2>Batches under way</h2>
		{#if data.batches.length === 0}<p class="mt-1">
				None. Begin one, then scan in what is dirty.
			</p>{/if}
		<ul>
			{#each data.batches as { batch, items, by, readyAt } (batch.id)}
				{@const left =
					readyAt === null ? null : Math.max(0, Math.ceil((readyAt - serverClock.now) / 1000))}
				<li class="rowline">
					<a
						href="/wash/{batch.id}"
						class="flex min-h-12 flex-wrap items-center gap-x-4 py-1 no-underline hover:bg-tint"
					>
						<b>Batch {batch.number}</b>
						<span>{STEP_WORDS[batch.step].toLowerCase()}, {items} in it</span>
						<span class="text-soft">{by}, {siteMoment(batch.startedAt)}</span>
						{#if left !== null}<span
								class="ml-auto font-mono text-[1.2rem] {left ? '' : 'font-bold text-held'}"
								>{left ? minutesAndSeconds(left) : 'out and rinse'}</span
							>{/if}
					</a>
				</li>
			{/each}
		</ul>
		{#if data.mayWash}<form
				method="post"
				action="?/begin"
				use:enhance
				class="mt-3 flex flex-wrap gap-3"
			>
				<input type="hidden" name="id" value={id} />
				<button class="button primary">Begin a batch</button>
				<a class="button" href="/wash/look">Look over what is dry</a>
			</form>{/if}
		{#each groups as { words, rows } (words)}
			<h2 class="mt-6">{words}, {rows.length}</h2>
			<ul>
				{#each rows as row (row.itemId)}<li
						class="rowline flex min-h-11 flex-wrap items-center gap-x-3 py-1"
					>
						<a class="tag inline-flex min-h-9 items-center" href="/items/{row.tag}">{row.tag}</a>
						<span>{airwayOf(row.family).name}, {row.size}</span>
						<span class="text-soft">{row.note}</span>
						<span class="text-soft ml-auto">since {siteMoment(row.since)}</span>
					</li>{/each}
			</ul>
		{/each}
		{#if data.drying.length}
			<h2 class="mt-6">Dry and to be looked over, {data.drying.length}</h2>
			<p class="mt-1 flex flex-wrap gap-x-4">
				{#each data.drying as row (row.itemId)}<a
						class="tag inline-flex min-h-11 items-center"
						href="/items/{row.tag}">{row.tag}</a
					>{/each}
			</p>
		{/if}
	</section>
	<aside>
		<h2>Ended batches</h2>
		{#if data.ended.length === 0}<p class="text-soft mt-1">None yet.</p>{/if}
		<ul>
			{#each data.ended as batch (batch.id)}<li class="rowline py-1">
					<a href="/wash/{batch.id}" class="block py-1 no-underline hover:bg-tint">
						<b>Batch {batch.number}</b>, {batch.items} in it
						<span class="text-soft block"
							>{batch.endedAt ? siteMoment(batch.endedAt) : ''}{batch.agent
								? `, ${batch.agent}`
								: ''}</span
						>
						<span class="block {batch.outcome === 'fail' ? 'font-semibold text-held' : ''}"
							>{batch.outcome === 'pass'
								? 'within every limit'
								: batch.outcome === 'fail'
									? `a limit was broken. ${batch.decision ? DECISION_WORDS[batch.decision] : ''}`
									: 'given up'}</span
						>
					</a>
				</li>{/each}
		</ul>
		{#if data.mayWash}
			<form method="post" action="?/wipe" use:enhance class="mt-6">
				<h2>Wipe somebody’s own mask</h2>
				<p class="mt-1">
					Between two full washes, five times at most. Outside of the filters only, never into them.
				</p>
				<input type="hidden" name="id" value={freshId()} />
				<div class="mt-2 flex items-end gap-3">
					<div class="min-w-0 flex-1">
						<label class="label" for="wiped">Tag</label>
						<input id="wiped" name="tag" autocomplete="off" class="tag w-full uppercase" />
					</div>
					<button class="button">Wiped</button>
				</div>
			</form>
		{/if}
	</aside>
</div>
