<script lang="ts">
	import { goto } from '$app/navigation';
	import type { ItemState } from '$core/readiness/findings';
	import { format, parseISO } from 'date-fns';
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
	const ORDER: ItemState[] = ['ready', 'due', 'overdue', 'held', 'in service'];
	const largest = $derived(
		Math.max(1, ...data.shelves.map((s) => Math.max(s.floor, total(s.counts))))
	);
	/** One tick stands for so many masks, so that a large place still fits its line. */
	const TICKS = 36;
	const perTick = $derived(Math.max(1, Math.ceil(largest / TICKS)));
	function ticks(counts: Partial<Record<ItemState, number>>): ItemState[] {
		return ORDER.flatMap((state) =>
			Array.from({ length: Math.ceil((counts[state] ?? 0) / perTick) }, () => state)
		);
	}
	const most = $derived(Math.ceil(largest / perTick) + (perTick > 1 ? ORDER.length : 0));
	function total(counts: Partial<Record<ItemState, number>>): number {
		return ORDER.reduce((sum, state) => sum + (counts[state] ?? 0), 0);
	}

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
		<h2 id="shelf">{data.shelfName} ready, against the floor</h2>
		<ul class="mt-1">
			{#each data.shelves as shelf (shelf.placeId)}
				<li class="rowline py-2">
					<a
						href="/items?place={shelf.placeId}"
						class="grid grid-cols-[1fr_auto] items-center gap-x-3 no-underline"
					>
						<b class="font-semibold">{shelf.place}</b>
						<span class="font-mono {shelf.usable < shelf.floor ? 'font-bold text-held' : ''}"
							>{shelf.usable} / {shelf.floor}</span
						>
						<span class="col-span-2">
							<svg
								viewBox="0 0 {most * 10 + 2} 22"
								class="h-[22px] w-full"
								preserveAspectRatio="xMinYMid meet"
								role="img"
								aria-label="{shelf.usable} usable, {shelf.floor} wanted"
							>
								{#each ticks(shelf.counts) as state, i (i)}
									{#if state === 'ready'}<rect
											x={i * 10}
											y="4"
											width="6"
											height="14"
											fill="var(--ready)"
										/>
									{:else if state === 'due'}<rect
											x={i * 10 + 0.75}
											y="4.75"
											width="4.5"
											height="12.5"
											fill="none"
											stroke="var(--due)"
											stroke-width="1.5"
										/><rect x={i * 10} y="4" width="3" height="14" fill="var(--due)" />
									{:else if state === 'overdue' || state === 'held'}<rect
											x={i * 10 + 0.75}
											y="4.75"
											width="4.5"
											height="12.5"
											fill="none"
											stroke="var(--held)"
											stroke-width="1.5"
										/><path d="M{i * 10 + 0.5} 17.5l5-13" stroke="var(--held)" stroke-width="1.5" />
									{:else}<rect
											x={i * 10 + 0.75}
											y="4.75"
											width="4.5"
											height="12.5"
											fill="none"
											stroke="var(--soft)"
											stroke-width="1.5"
										/>{/if}
								{/each}
								<path
									d="M{(shelf.floor / perTick) * 10 - 2} 0v22"
									stroke="var(--ink)"
									stroke-width="2.4"
								/>
							</svg>
						</span>
					</a>
				</li>
			{/each}
		</ul>
		<p class="text-soft mt-2 text-[0.88rem]">
			filled ready · half due · struck held or overdue · open in service · line = floor{perTick > 1
				? ` · one tick = ${perTick} of them`
				: ''}
		</p>
	</section>
</div>
