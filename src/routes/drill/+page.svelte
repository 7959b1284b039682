<script lang="ts">
	/** Pick something to walk: the family, how hard, whether it says why at once. */
	import { airwayOf } from '$core/data/families';
	import { eyeFigures, eyeWords } from '$lib/ui/drill/results';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { siteDay } from '$lib/ui/time/moments';

	let { data } = $props();
	let level = $state('1');
	let mode = $state('learn');
	const MODES = [
		{ key: 'learn', name: 'Learn', says: 'says why after every step' },
		{ key: 'drill', name: 'Drill', says: 'says it at the end' }
	];
	const LEVELS = [
		{ key: '1', name: 'Plain', says: 'one fault, far gone' },
		{ key: '2', name: 'Mixed', says: 'none to three, half gone' },
		{ key: '3', name: 'Fine', says: 'none to four, hardly begun' }
	];
	const started = $derived(data.families.filter(({ sessions }) => sessions > 0));
</script>

<svelte:head><title>Drill · Grevan</title></svelte:head>
<h1 class="mt-3">Find what is wrong</h1>
<p class="max-w-[44rem] text-soft">
	An item is handed over with faults in it, with what only looks like one, or with nothing. Walk it
	along the air on the same keys as the real work.
</p>
<div class="mt-4 grid gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,1fr)_22rem]">
	<div>
		<div class="flex flex-wrap gap-x-10 gap-y-3">
			<fieldset>
				<legend class="label">How</legend>
				{#each MODES as one (one.key)}<label class="flex min-h-11 items-center gap-2"
						><input type="radio" name="mode" value={one.key} bind:group={mode} /><b>{one.name}</b>
						<span class="text-soft">{one.says}</span></label
					>{/each}
			</fieldset>
			<fieldset>
				<legend class="label">How hard</legend>
				{#each LEVELS as one (one.key)}<label class="flex min-h-11 items-center gap-2"
						><input type="radio" name="level" value={one.key} bind:group={level} /><b>{one.name}</b>
						<span class="text-soft">{one.says}</span></label
					>{/each}
			</fieldset>
		</div>
		<ul class="mt-4" aria-label="What to walk">
			{#each data.families as one (one.family)}
				<li class="rowline flex flex-wrap items-center gap-x-4 py-1">
					<a
						class="linkish inline-flex min-h-12 min-w-[13rem] items-center text-[1.15rem] font-semibold"
						href="/drill/run/{one.family}?mode={mode}&level={level}">{one.plural}</a
					>
					<span class="min-w-0 flex-1 text-soft"
						>{one.sessions === 0
							? 'not walked yet'
							: `${one.sessions} ${one.sessions === 1 ? 'drill' : 'drills'}`}</span
					>
					{#if one.due}<span class="inline-flex items-center gap-2"
							><StateMark state="due" />{one.due} to meet again</span
						>{/if}
				</li>
			{/each}
		</ul>
		<h2 class="mt-7">Short tests, of six questions</h2>
		<ul>
			{#each data.tests as one (one.key)}
				<li class="rowline flex flex-wrap items-center gap-x-4 py-1">
					<a
						class="linkish inline-flex min-h-11 min-w-[13rem] items-center font-semibold"
						href="/drill/tests/{one.key}">{one.name}</a
					>
					<span class="min-w-0 flex-1 text-soft">{one.says}</span>
					{#if one.last}<span
							>{one.last.right} of {one.last.asked} right, {siteDay(one.last.endedAt)}</span
						>{/if}
				</li>
			{/each}
		</ul>
	</div>
	<aside class="border-rule lg:border-l lg:pl-5">
		<h2>Your eye</h2>
		{#if started.length === 0}<p class="mt-1">
				Nothing is known yet. Begin with half masks: learn, plain.
			</p>{/if}
		<ul>
			{#each started as one (one.family)}
				<li class="py-1">
					<b>{one.plural}</b>: {#if one.sharp}{eyeWords(one.sharp)}
						<span class="block font-mono text-[0.9rem] text-soft">d′ {eyeFigures(one.sharp)}</span
						>{:else}too little to say{/if}
				</li>
			{/each}
		</ul>
		<h2 class="mt-5">To meet again</h2>
		<ul>
			{#each data.due as one (one.kind)}<li class="py-0.5">
					{one.words} <span class="text-soft">{one.found} of {one.met} found</span>
				</li>{:else}<li>Nothing is due.</li>{/each}
		</ul>
		{#if data.dueInAll > data.due.length}<p class="text-soft">
				and {data.dueInAll - data.due.length} more
			</p>{/if}
		{#if data.last.length}
			<h2 class="mt-5">Last drills</h2>
			<ul>
				{#each data.last as one (one.id)}
					<li>
						<a class="linkish inline-flex min-h-9 items-center" href="/drill/sessions/{one.id}"
							>{siteDay(one.endedAt)}: {airwayOf(one.family).plural.toLowerCase()}</a
						>
						<span class="text-soft"
							>{one.points} of 100{one.mode === 'exam'
								? one.passed
									? ', exam passed'
									: ', exam not passed'
								: ''}</span
						>
					</li>
				{/each}
			</ul>
		{/if}
	</aside>
</div>
