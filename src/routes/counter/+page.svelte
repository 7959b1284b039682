<script lang="ts">
	import { onMount } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { airwayOf } from '$core/data/families';
	import { Desk } from '$lib/ui/counter/desk.svelte';
	import OutNow from '$lib/ui/counter/OutNow.svelte';
	import ScanField from '$lib/ui/counter/ScanField.svelte';
	import Verdict from '$lib/ui/counter/Verdict.svelte';
	import { bringCounter, counterWorld } from '$lib/ui/counter/world';
	import Notice from '$lib/ui/form/Notice.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { siteTime } from '$lib/ui/time/moments';

	let { data } = $props();
	const desk = new Desk(counterWorld, () => invalidateAll().catch(() => {}));
	let field: ReturnType<typeof ScanField> | undefined = $state();
	onMount(bringCounter);
	const wants = $derived(
		desk.done
			? 'the next person; or more for the same'
			: [
					!desk.wearer && 'a person',
					!desk.items.length && 'what they take',
					!desk.plan && !desk.own && 'the task'
				]
					.filter(Boolean)
					.join(', ')
	);
	const last = $derived(desk.given[0]);
	/** Sets of the last hour that go in together: one press brings them to the board. */
	const team = $derived(
		desk.given.filter(({ tags, task }) => task === last?.task && tags.some((t) => t !== ''))
	);
	const boardHref = $derived(`/air/board?out=${team.map(({ id }) => id).join(',')}`);
	let who = $state('');
	let task = $state('');
	const scan = (word: string) => void desk.scan(word).then(() => field?.focus());
</script>

<svelte:head><title>Counter · Grevan</title></svelte:head>
<div class="mt-3 flex flex-wrap items-baseline gap-x-4">
	<h1>Hand out</h1>
	<p class="text-soft">a person, what they take, the task: three scans, in any order</p>
	<a class="linkish ml-auto inline-flex min-h-9 items-center" href="/counter/cards">Card of codes</a
	>
</div>
<div class="mt-3 max-w-[47rem]">
	<ScanField
		bind:this={field}
		label="Scan"
		placeholder="person, thing or task"
		waiting={desk.waiting}
		onscan={scan}
	/>
</div>
<div class="mt-4 grid gap-x-8 gap-y-6 lg:grid-cols-[17rem_minmax(0,1fr)_18rem]">
	<section
		aria-label="On the counter"
		class={desk.said || desk.done ? 'max-lg:order-2' : 'max-lg:order-1'}
	>
		<h2>Who</h2>
		{#if desk.wearer}
			<p class="rowline py-2">
				<a
					class="inline-flex min-h-9 items-center text-[1.2rem] font-bold no-underline"
					href="/people/{desk.wearer.id}">{desk.wearer.name}</a
				>
				<span class="text-soft block">no. {desk.wearer.number}</span>
			</p>
		{:else}<p class="rowline text-soft min-h-11 py-2">nobody yet</p>{/if}
		<h2 class="mt-3">What</h2>
		{#each desk.items as one (one.tag)}
			<div class="rowline flex items-start gap-2 py-2">
				<span class="pt-0.5"><StateMark state={one.state} /></span>
				<p class="min-w-0 flex-1">
					<span class="tag">{one.tag}</span>
					{one.model}, size {one.size}
					<span class="text-soft block">{one.place}</span>
				</p>
				{#if !desk.done}<button
						class="linkish min-h-11"
						aria-label="Not {one.tag}"
						onclick={() => void desk.takeOff(one.tag)}>not this</button
					>{/if}
			</div>
		{:else}<p class="rowline text-soft min-h-11 py-2">nothing yet</p>{/each}
		<h2 class="mt-3">For</h2>
		{#if desk.plan}
			<p class="rowline py-2">
				<b>{desk.plan.task}</b>
				<span class="text-soft block"
					>plan {desk.plan.number}, {desk.minutes ?? '–'} min
					<span class="max-sm:hidden">(type 30m for another time)</span></span
				>
			</p>
		{:else if desk.own}<p class="rowline py-2"><b>Their own, for no one task</b></p>
		{:else}<p class="rowline text-soft min-h-11 py-2">no task yet</p>{/if}
		<p class="mt-3">
			{#if wants}Next scan: <b>{wants}</b>.{/if}
			{#if desk.wearer || desk.items.length || desk.plan}<button
					class="linkish min-h-11"
					onclick={() => {
						desk.clear();
						field?.focus();
					}}>Clear</button
				>{/if}
		</p>
		<details class="mt-2">
			<summary class="linkish inline-flex min-h-11 items-center">Without a scanner</summary>
			<label class="label" for="who">Person</label>
			<select
				id="who"
				class="w-full"
				bind:value={who}
				onchange={() => {
					if (who) scan(who);
					who = '';
				}}
			>
				<option value="">choose</option>
				{#each data.people as one (one.id)}<option value={one.number}
						>{one.name}, {one.number}</option
					>{/each}
			</select>
			<label class="label mt-2" for="task">Task</label>
			<select
				id="task"
				class="w-full"
				bind:value={task}
				onchange={() => {
					if (task) scan(task);
					task = '';
				}}
			>
				<option value="">choose</option>
				<option value="GV-OWN">as their own, no task</option>
				{#each data.plans as one (one.id)}<option value="PLAN-{one.number}"
						>{one.task}, plan {one.number}</option
					>{/each}
			</select>
		</details>
	</section>
	<section
		aria-label="What the gate says"
		class={desk.said || desk.done ? 'max-lg:order-1' : 'max-lg:order-2'}
	>
		{#if desk.refusal}<div class="mb-3">
				<Notice kind="refusal"><p>{desk.refusal}</p></Notice>
			</div>{/if}
		{#if desk.done && last}
			<div class="rounded border-2 border-ready bg-tint p-4" role="status">
				<p class="text-[1.35rem] leading-tight font-bold">
					{last.waits ? 'Given out, kept on this device' : 'Handed out'}
				</p>
				<p class="mt-1">
					{last.wearer.name}: <span class="tag">{last.tags.join(', ')}</span>{last.task
						? `, ${last.task}`
						: ', their own'}{last.dueBackAt
						? `. Back by ${siteTime(new Date(last.dueBackAt))}.`
						: '.'}
				</p>
				{#if last.outcome === 'do not'}<p class="mt-1 font-bold text-held">
						Against the gate: it stands on every record after this.
					</p>{/if}
				<p class="mt-1">A seal check before going in, each time.</p>
			</div>
			{#if last.task}<p class="mt-3">
					<a class="button" href={boardHref}
						>To the entry board: {team.length === 1 ? last.wearer.name : `${team.length} people`}</a
					>
				</p>{/if}
		{:else if desk.said}
			<Verdict {desk} mayOverride={data.mayOverride} onafter={() => field?.focus()} />
		{:else}
			<p class="max-w-[30rem]">
				{#if desk.wearer || desk.items.length || desk.plan}The gate answers when person, thing and
					task are there.{:else}Scan the person’s card, the tag of what they take, and the code on
					the task’s card. What is clear goes out by itself; else every reason stands here at once,
					each with what puts it right.{/if}
			</p>
		{/if}
		{#if desk.given.length > (desk.done ? 1 : 0)}
			<h2 class="mt-6">Given out here before</h2>
			<ul>
				{#each desk.given.slice(desk.done ? 1 : 0) as one (one.id)}
					<li class="rowline flex flex-wrap gap-x-3 py-2">
						<b>{one.wearer.name}</b><span class="tag">{one.tags.join(', ')}</span><span
							class="text-soft ml-auto"
							>{one.waits ? 'waits on this device' : (one.task ?? 'own')}</span
						>
					</li>
				{/each}
			</ul>
		{/if}
	</section>
	<aside class="max-lg:order-3">
		<OutNow out={data.out} />
		<h2 class="mt-6">Back and dirty, {data.dirty.length}</h2>
		{#if data.dirty.length}<p class="mt-1">
				{[...new Set(data.dirty.map(({ family }) => family))]
					.map(
						(family) =>
							`${airwayOf(family).plural} ${data.dirty.filter((one) => one.family === family).length}`
					)
					.join(', ')}.
				<a class="linkish inline-flex min-h-11 items-center" href="/wash">To the wash line</a>
			</p>{:else}<p class="text-soft mt-1">Nothing waits for the wash.</p>{/if}
	</aside>
</div>
