<script lang="ts">
	import { goto } from '$app/navigation';
	import { written } from '$core/hazards/facts';
	import { HAZARD_LINKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';

	let { data } = $props();
	const WAIT_MS = 200;
	let timer: ReturnType<typeof setTimeout> | undefined;
	function search(text: string) {
		clearTimeout(timer);
		timer = setTimeout(
			() =>
				void goto(`/hazards/substances${text ? `?q=${encodeURIComponent(text)}` : ''}`, {
					keepFocus: true,
					replaceState: true,
					noScroll: true
				}),
			WAIT_MS
		);
	}
	const limitText = (limit: (typeof data.substances)[number]['limit']) =>
		limit
			? `${limit.twa ?? ''}${limit.short ? ` / ${limit.shortKind === 'ceiling' ? 'ceiling ' : ''}${limit.short}` : ''} ${written(limit.unit)}`
			: '';
</script>

<svelte:head><title>Substances · Grevan</title></svelte:head>
<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
	<h1>Substances</h1>
	<p class="text-soft">
		limits and properties, from memory unless corrected: verify before relying on them
	</p>
</div>
<div class="mt-3"><SectionLinks label="Hazards" links={HAZARD_LINKS} /></div>
<div class="mt-3 flex flex-wrap items-end gap-3">
	<label class="flex-1"
		><span class="label">Name, synonym or CAS number</span><input
			class="w-full max-w-96"
			value={data.q}
			oninput={(e) => search(e.currentTarget.value)}
		/></label
	>
	<a class="button" href="/hazards/substances/export?which=all" data-sveltekit-reload>Export all</a>
	<a class="button" href="/hazards/substances/export?which=own" data-sveltekit-reload
		>Export our own</a
	>
	{#if data.mayEdit}
		<a class="button" href="/hazards/substances/import">Import</a>
		<a class="button primary" href="/hazards/substances/new">New substance</a>
	{/if}
</div>
{#if data.substances.length === 0}<p class="mt-4">
		The library holds nothing like “{data.q}”. A supervisor can add it; on a plan it can also be
		entered by name with its molar mass and limit.
	</p>
{:else}
	<table class="mt-3 w-full text-left">
		<caption class="sr-only">Substances</caption>
		<thead class="text-soft text-[0.9rem]"
			><tr
				><th class="font-semibold">Name</th><th class="hidden font-semibold md:table-cell">CAS</th
				><th class="hidden font-semibold sm:table-cell">Form</th><th
					class="text-right font-semibold">{data.site.ruleSet.toUpperCase()} limit, 8 h / short</th
				><th class="hidden text-right font-semibold md:table-cell">Immediate danger</th><th
					class="pl-6 font-semibold">Filter</th
				></tr
			></thead
		>
		<tbody>
			{#each data.substances as s (s.key)}
				<tr class="border-t border-rule hover:bg-tint">
					<td
						><a
							class="inline-flex min-h-11 items-center font-semibold"
							href="/hazards/substances/{s.key}">{s.name}</a
						>{#if s.changed}<span class="ml-2 text-[0.85rem] text-due">ours</span>{/if}</td
					>
					<td class="hidden font-mono text-soft md:table-cell">{s.cas}</td>
					<td class="hidden sm:table-cell">{s.form}</td>
					<td class="text-right font-mono">{limitText(s.limit)}</td>
					<td class="hidden text-right font-mono md:table-cell"
						>{s.idlh ? `${s.idlh.value} ${written(s.idlh.unit)}` : ''}</td
					>
					<td class="pl-6"
						>{#if s.noFilter}<span class="font-semibold text-held">no filter</span>{:else}<span
								class="font-mono">{[s.en, s.us].filter(Boolean).join(' · ')}</span
							>{/if}</td
					>
				</tr>
			{/each}
		</tbody>
	</table>
	{#if data.cut}<p class="text-soft mt-2">The first 300; type more of the name.</p>{/if}
{/if}
