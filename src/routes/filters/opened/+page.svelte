<script lang="ts">
	import FilterBand from '$lib/ui/form/FilterBand.svelte';
	import Pages from '$lib/ui/shell/Pages.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { FILTER_LINKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';
	import { readable } from '$core/plan/calendar';

	let { data } = $props();
	const scheme = $derived(data.site.codeScheme);
	const MARKS = { over: 'overdue', today: 'due', week: 'due', later: 'ready' } as const;
</script>

<svelte:head><title>Opened pairs · Grevan</title></svelte:head>
<div class="flex flex-wrap items-center gap-x-4">
	<h1>Opened pairs</h1>
	<p class="text-soft">
		{data.more ? 'more than ' : ''}{data.total.toLocaleString('en-GB')} on masks, next to change first
	</p>
</div>
<div class="mt-3"><SectionLinks label="Filters" links={FILTER_LINKS} /></div>
{#if data.total === 0}<p class="mt-4">
		No pair is open. Choose a task under <a class="linkish" href="/filters">For a task</a>, then
		filters, then the mask.
	</p>{/if}
{#each data.groups as group (group.key)}
	{#if group.rows.length}
		<section class="mt-5" aria-labelledby="g-{group.key}">
			<h2 id="g-{group.key}">{group.title} · {group.rows.length}</h2>
			<ul class="mt-1">
				{#each group.rows as row (row.id)}
					<li class="rowline">
						<a
							href="/filters/pairs/{row.tag}"
							class="grid min-h-14 grid-cols-[1.6rem_5rem_1fr] items-center gap-x-3 gap-y-1 py-2 no-underline hover:bg-tint lg:grid-cols-[1.6rem_5rem_5.4rem_12.5rem_1fr_11rem_8rem]"
						>
							<StateMark state={row.recalled ? 'held' : MARKS[group.key as keyof typeof MARKS]} />
							<span class="tag">{row.tag}</span><span class="tag">{row.itemTag}</span>
							<span class="col-span-3 lg:col-span-1"
								><FilterBand code={row.code ?? row.model} {scheme} small /></span
							>
							<span class="text-soft col-span-3 lg:col-span-1"
								>{row.recalled ? 'Its lot was recalled.' : row.why}</span
							>
							<span class="col-span-2 inline-flex items-center gap-2 lg:col-span-1"
								>{#if row.changeAfterMin}<svg
										viewBox="0 0 100 10"
										class="h-2.5 w-24"
										role="img"
										aria-label="{Math.round(row.used * 100)} % of its life used"
										><rect width="100" height="10" fill="var(--tint)" /><rect
											width={Math.min(100, row.used * 100)}
											height="10"
											fill={row.used >= 1 ? 'var(--held)' : 'var(--accent)'}
										/></svg
									><span class="font-mono text-[0.92rem] whitespace-nowrap"
										>{Math.round(row.used * 100)} %</span
									>{:else}<span class="text-soft">by resistance</span>{/if}</span
							>
							<span
								class="text-right font-mono text-[0.95rem] {group.key === 'over'
									? 'font-bold text-held'
									: ''}">{readable(row.changeOn)}</span
							>
						</a>
					</li>
				{/each}
			</ul>
		</section>
	{/if}
{/each}
<Pages number={data.number} pages={data.pages} at={(page) => `/filters/opened?page=${page}`} />
