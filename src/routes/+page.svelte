<script lang="ts">
	import { hearsKeys } from '$lib/ui/shell/keys.svelte';
	import { goto } from '$app/navigation';
	import { format, parseISO } from 'date-fns';
	import Shelf from '$lib/ui/shelf/Shelf.svelte';
	import OutNow from '$lib/ui/counter/OutNow.svelte';
	import Missing from './Missing.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';

	let { data } = $props();
	let chosen = $state(0);
	const SHOWN = 18;
	const lines = $derived(data.lines.slice(0, SHOWN));
	const bench = $derived(
		data.minutes < 60
			? `${data.minutes} min`
			: `${Math.floor(data.minutes / 60)} h ${String(data.minutes % 60).padStart(2, '0')} min`
	);
	hearsKeys(() => [
		{ keys: '↑ ↓', does: 'walk the list' },
		{ keys: 'Enter', does: 'open the line' }
	]);
	function keys(event: KeyboardEvent) {
		if ((event.target as HTMLElement).closest('input, textarea, select, button, [role=dialog]'))
			return;
		const line = lines[chosen];
		if (event.key === 'ArrowDown') chosen = Math.min(lines.length - 1, chosen + 1);
		else if (event.key === 'ArrowUp') chosen = Math.max(0, chosen - 1);
		else if (event.key === 'Enter' && line && event.target === document.body) void goto(line.href);
		else return;
		event.preventDefault();
	}
</script>

<svelte:head><title>Today · Grevan</title></svelte:head>
<svelte:window onkeydown={keys} />
<div class="flex flex-wrap items-baseline gap-x-4">
	<h1>{format(parseISO(data.asOf), 'EEEE d MMM yyyy')}</h1>
	<p class="text-soft">{data.lines.length} to do · about {bench} at the bench</p>
</div>

<div class="mt-4 grid gap-10 lg:grid-cols-[minmax(0,1fr)_25rem]">
	<section aria-labelledby="next">
		<Missing missing={data.missing} />
		<h2 id="next">Next, by what it could cost</h2>
		{#if lines.length === 0}
			<p class="mt-3">
				Nothing falls due and nothing is held. What falls due later stands under Plan.
			</p>
		{/if}
		<ol class="mt-1">
			{#each lines as line, i (line.key)}
				<li
					class={i === chosen ? 'relative z-10 rounded bg-sheet outline-2 outline-ink' : 'rowline'}
				>
					<a
						href={line.href}
						class="grid grid-cols-[1.6rem_5.6rem_1fr_auto] items-start gap-x-3 px-3 py-2 no-underline"
						onfocus={() => (chosen = i)}
					>
						<StateMark state={line.kind === 'watch' ? 'watch' : line.state} />
						<span class="tag">{line.tag}</span>
						<span
							><b class={i === chosen ? '' : 'font-semibold'}>{line.title}</b><br /><span
								class="text-soft">{line.detail}</span
							></span
						>
						<span class="text-soft whitespace-nowrap text-[0.93rem]"
							>{#if i === chosen}<kbd>Enter</kbd>{:else if line.minutes}{line.minutes} min{/if}</span
						>
					</a>
				</li>
			{/each}
		</ol>
		{#if data.lines.length > SHOWN}
			<p class="mt-3">
				<a class="linkish" href="/plan">{data.lines.length - SHOWN} more, by day</a>
			</p>
		{/if}
	</section>

	<section aria-labelledby="shelf">
		<h2 id="shelf">Ready, against the floor</h2>
		{#each data.shelves as shelf, i (shelf.family)}<Shelf
				{shelf}
				open={shelf.short > 0 || i === 0}
			/>{/each}
		{#if data.shelves.length === 0}<p class="mt-1">
				No place keeps a number ready yet. A supervisor says how many under
				<a class="linkish" href="/settings/places">Settings, Places</a>.
			</p>
		{:else}<p class="text-soft mt-2 text-[0.88rem]">
				filled ready · half due · struck held or overdue · open away: out, in the wash, in service ·
				line = floor
			</p>{/if}
		{#if data.out.length || data.things}
			<div class="mt-8">
				{#if data.out.length}<OutNow out={data.out} most={8} />{:else}<h2>
						Out now, {data.things}
					</h2>{/if}
			</div>
		{/if}
	</section>
</div>
