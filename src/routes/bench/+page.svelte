<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import { page } from '$app/state';
	import { freshId } from '$lib/fresh-id';
	import Field from '$lib/ui/form/Field.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { BENCH_MARKS } from '$lib/ui/outcome';

	import SimulatedSet from './SimulatedSet.svelte';
	import { siteMoment } from '$lib/ui/time/moments';
	import { refusedAt } from '$lib/ui/form/refused';

	let { data, form } = $props();
	let tag = $state(page.url.searchParams.get('tag') ?? '');
	let recipe = $state('');
	let id = $state(freshId());
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const at = (path: string) => refusedAt(refusal, path);
	const family = $derived(
		data.items.find((i) => i.tag === tag.trim().toUpperCase())?.family ?? null
	);
	const nameOf = (key: string) => data.recipes.find((r) => r.key === key)?.name ?? key;
	const offered = $derived(data.recipes.filter((r) => !family || r.family === family));
</script>

<svelte:head><title>Bench · Grevan</title></svelte:head>
<div class="flex flex-wrap items-center gap-x-4">
	<h1>Bench</h1>
	<p class="text-soft">pressure tests, live from the instrument or from a file</p>
</div>
<ul class="mt-2" aria-label="Instruments">
	{#each data.instruments as instrument (instrument.bench)}<li
			class="flex flex-wrap items-center gap-3"
		>
			<StateMark state={instrument.live ? 'ready' : 'held'} /><b>{instrument.name}</b>
			<span class="text-soft">{instrument.live ? 'live' : 'not reached'} · {instrument.says}</span>
			{#if instrument.test}<a class="linkish" href="/bench/{instrument.test.id}"
					>testing {instrument.test.tag}</a
				>{:else if instrument.live}<span>free</span>{/if}
		</li>{:else}<li class="text-soft">
			No pressure bench is connected. Set GREVAN_PRESSURE_BENCH to its address (several apart by
			commas), or bring a trace in as a file.
		</li>{/each}
	{#if data.ba}<li class="flex flex-wrap items-center gap-3">
			<StateMark state={data.ba.live ? 'ready' : 'held'} /><b>{data.ba.name}</b>
			<span class="text-soft">{data.ba.live ? 'live' : 'not reached'} · {data.ba.says}</span>
			{#if data.ba.on}<span
					><a class="tag linkish" href="/items/{data.ba.on}">{data.ba.on}</a> is on it</span
				>{:else if data.ba.live}<span>free; read from within an inspection of a set</span>{/if}
		</li>{/if}
</ul>
{#if refusal && !['tag', 'recipe', 'volumeL', 'file', 'bench'].includes(refusal.path ?? '')}<div
		class="mt-3"
	>
		<Notice kind="refusal"><p>{refusal.message}</p></Notice>
	</div>{/if}
<div class="mt-5 grid gap-10 lg:grid-cols-[minmax(0,1fr)_22rem]">
	<section aria-labelledby="tests">
		<h2 id="tests">Tests, newest first</h2>
		{#if data.tests.length === 0}<p class="mt-1">
				No test yet. Scan a suit or a full-face mask, choose the recipe, start.
			</p>{/if}
		<ul class="mt-1">
			{#each data.tests as test (test.id)}
				<li class="rowline">
					<a
						href="/bench/{test.id}"
						class="grid min-h-14 grid-cols-[1.6rem_5.4rem_1fr] items-center gap-x-4 py-2 no-underline hover:bg-tint md:grid-cols-[1.6rem_5.4rem_8.5rem_1fr_8rem]"
					>
						<StateMark state={test.outcome ? BENCH_MARKS[test.outcome] : 'open'} />
						<span class="tag">{test.tag}</span>
						<b>{test.outcome ?? 'running'}</b>
						<span class="col-start-3 md:col-start-auto"
							>{nameOf(test.recipe)}<span class="text-soft block"
								>{test.by}, {siteMoment(test.startedAt)}</span
							></span
						>
						<span class="col-start-3 font-mono md:col-start-auto md:text-right"
							>{test.leakPaPerMin === null ? '' : `${test.leakPaPerMin.toFixed(1)} Pa/min`}</span
						>
					</a>
				</li>
			{/each}
		</ul>
	</section>
	{#if data.mayTest}
		<div class="grid content-start gap-6">
			<section aria-labelledby="new" class="self-start rounded border-2 border-ink bg-sheet p-4">
				<h2 id="new" class="text-[1.15rem]! text-ink!">A new test</h2>
				<form
					method="post"
					enctype="multipart/form-data"
					class="mt-3 grid gap-4"
					use:enhance={() =>
						async ({ update }) => {
							await update({ reset: false });
							id = freshId();
						}}
				>
					<input type="hidden" name="id" value={id} />
					<Field id="tag" label="Item" refusal={at('tag')} hint="Scan its tag.">
						{#snippet children(field)}<input
								{...field}
								name="tag"
								list="testable"
								bind:value={tag}
								autocomplete="off"
								class="tag w-full uppercase"
							/><datalist id="testable"
								>{#each data.items as item (item.tag)}<option value={item.tag}
									></option>{/each}</datalist
							>{/snippet}
					</Field>
					<Field id="recipe" label="Recipe" refusal={at('recipe')}>
						{#snippet children(field)}<select
								{...field}
								name="recipe"
								class="w-full"
								bind:value={recipe}
								><option value="">choose</option>{#each offered as r (r.key)}<option value={r.key}
										>{r.name} ({r.source})</option
									>{/each}</select
							>{/snippet}
					</Field>
					<Field
						id="volumeL"
						label="Volume, litres"
						refusal={at('volumeL')}
						hint="For the leak in mL/min; may stay empty."
					>
						{#snippet children(field)}<input
								{...field}
								name="volumeL"
								inputmode="decimal"
								class="w-32 font-mono"
							/>{/snippet}
					</Field>
					{#if data.instruments.length > 1}
						<Field id="bench" label="Bench" refusal={at('bench')}>
							{#snippet children(field)}<select {...field} name="bench" class="w-full"
									><option value="">the first that is free</option
									>{#each data.instruments as i (i.bench)}<option value={i.bench}
											>{i.name}{i.test ? `, testing ${i.test.tag}` : ''}</option
										>{/each}</select
								>{/snippet}
						</Field>
					{/if}
					{#if data.simulated}
						<details>
							<summary class="min-h-11 cursor-pointer content-center font-semibold"
								>What the simulated bench does</summary
							>
							<div class="mt-1 grid grid-cols-2 gap-3">
								<label
									><span class="label">Leak, Pa/min</span><input
										name="leak"
										value="15"
										inputmode="decimal"
										class="w-full font-mono"
									/></label
								>
								<label
									><span class="label">Warms by, K</span><input
										name="warm"
										value="0"
										inputmode="decimal"
										class="w-full font-mono"
									/></label
								>
								<label
									><span class="label">Fault</span><select name="fault" class="w-full"
										>{#each data.misbehaviours as word (word)}<option>{word}</option>{/each}</select
									></label
								>
								<label
									><span class="label">Times as fast</span><input
										name="speed"
										value="20"
										inputmode="numeric"
										class="w-full font-mono"
									/></label
								>
								<label
									><span class="label">Readings a second</span><input
										name="perSecond"
										value="2"
										inputmode="numeric"
										class="w-full font-mono"
									/></label
								>
							</div>
						</details>
					{/if}
					<button
						class="button primary"
						formaction="?/start"
						disabled={!data.instruments.some((i) => i.live)}>Start the hold</button
					>
					<Field
						id="file"
						label="Or a trace as CSV"
						refusal={at('file')}
						hint="Columns s, Pa, temperature C, barometer Pa."
					>
						{#snippet children(field)}<input
								{...field}
								type="file"
								name="file"
								accept=".csv,text/csv"
								class="w-full py-2"
							/>{/snippet}
					</Field>
					<button class="button" formaction="?/import">Judge the file</button>
				</form>
			</section>
			{#if data.simulated && data.ba?.live}<SimulatedSet faults={data.setFaults} {refusal} />{/if}
		</div>
	{/if}
</div>
