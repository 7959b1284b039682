<script lang="ts">
	import { hearsKeys } from '$lib/ui/shell/keys.svelte';
	import { goto } from '$app/navigation';
	import type { FoundKind } from '$core/search/rank';

	let { data } = $props();
	let chosen = $state(0);
	const WORDS: Record<FoundKind, string> = {
		item: 'item',
		action: 'page',
		plan: 'hazard plan',
		pair: 'opened pair',
		lot: 'filter lot',
		filter: 'filter',
		model: 'model',
		place: 'place',
		fault: 'open fault',
		part: 'lot of parts',
		test: 'bench test',
		fill: 'filling',
		wearer: 'wearer',
		person: 'account',
		guide: 'guide'
	};
	hearsKeys(() => [
		{ keys: '↑ ↓', does: 'walk what was found' },
		{ keys: 'Enter', does: 'open it' }
	]);
	function keys(event: KeyboardEvent) {
		if ((event.target as HTMLElement).closest('input, textarea, select, button, [role=dialog]'))
			return;
		const one = data.found[chosen];
		if (event.key === 'ArrowDown') chosen = Math.min(data.found.length - 1, chosen + 1);
		else if (event.key === 'ArrowUp') chosen = Math.max(0, chosen - 1);
		else if (event.key === 'Enter' && one && event.target === document.body) void goto(one.href);
		else return;
		event.preventDefault();
	}
</script>

<svelte:head><title>{data.asked || 'Search'} · Grevan</title></svelte:head>
<svelte:window onkeydown={keys} />
<h1>{data.asked ? `“${data.asked}”` : 'Search'}</h1>
<p class="text-soft" role="status">
	{#if !data.asked}Type into the field above: a tag, a task, a lot, a model, a place, or what you
		want to do.
	{:else if data.found.length === 0}Nothing here carries it. Look at the label again: tags read like
		HM-0101.
	{:else}{data.found.length}{data.more ? ' shown of more' : ' found'}; arrows and Enter, or tap{/if}
</p>
{#if data.addTag}<p class="mt-3">
		<a class="button" href="/items/new?tag={data.addTag}">Add {data.addTag} to the register</a>
	</p>{/if}
<ul class="mt-3 max-w-[52rem]">
	{#each data.found as one, i (one.kind + one.href + one.name)}
		<li class={i === chosen ? 'relative z-10 rounded bg-sheet outline-2 outline-ink' : 'rowline'}>
			<a
				href={one.href}
				class="grid min-h-12 grid-cols-[7rem_1fr_auto] items-center gap-x-3 px-3 py-1.5 no-underline"
				onfocus={() => (chosen = i)}
			>
				<span class="text-soft text-[0.93rem]">{WORDS[one.kind]}</span>
				<span
					><b class={one.kind === 'item' ? 'tag' : ''}>{one.name}</b>
					{#if one.kind !== 'action'}<span class="text-soft">{one.detail}</span>{/if}</span
				>
				{#if i === chosen}<kbd>Enter</kbd>{/if}
			</a>
		</li>
	{/each}
</ul>
