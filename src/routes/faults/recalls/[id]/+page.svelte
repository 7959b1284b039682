<script lang="ts">
	import { WHERE_WORDS } from '$core/custody/custody';
	import { FAULT_END_WORDS, type FaultEnd } from '$core/service/ends';
	import { enhance } from '$lib/ui/form/enhance';
	import Notice from '$lib/ui/form/Notice.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { siteDay, siteMoment } from '$lib/ui/time/moments';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const done = (row: (typeof data.items)[number]) => row.closedAt !== null || row.looked !== null;
	const left = $derived(data.items.filter((row) => !done(row)));
	const dealt = $derived(data.items.filter(done));
	let open = $state<string | null>(null);
	const MOST_WORN = 8;
</script>

<svelte:head><title>{data.name}, lot {data.lot} · Grevan</title></svelte:head>
<div class="flex flex-wrap items-baseline gap-x-4">
	<h1>{data.name}, lot {data.lot}</h1>
	<p class="text-soft">called back {siteMoment(data.at)}</p>
	<button class="button ml-auto print:hidden" onclick={() => print()}>Print the list</button>
</div>
<p class="mt-1 text-[1.1rem]">“{data.why}”</p>
<p class="mt-2 flex flex-wrap items-center gap-x-5">
	<span class="inline-flex items-center gap-2"
		><StateMark state={left.length ? 'held' : 'good'} /><b
			>{dealt.length} of {data.items.length} dealt with</b
		></span
	>
	<progress
		class="w-60"
		max={data.items.length || 1}
		value={dealt.length}
		aria-label="How many are dealt with"
	></progress>
	<span class="text-soft"
		>{data.changed} of {data.held} changed, {data.looked} of {data.had} that had one looked into, {data.fromStore}
		taken out of the store</span
	>
</p>
{#if refusal}<div class="mt-3"><Notice kind="refusal"><p>{refusal.message}</p></Notice></div>{/if}
{#if data.items.length === 0}<p class="mt-4">No item has or had one of them.</p>{/if}
{#snippet rows(list: typeof data.items)}
	<div class="mt-1 overflow-x-auto">
		<table class="w-full min-w-[44rem] text-left">
			<thead
				><tr
					><th scope="col">Item</th><th scope="col">Where now</th><th scope="col">Part</th><th
						scope="col">Worn by, while it had it</th
					><th scope="col">Stands</th></tr
				></thead
			>
			<tbody>
				{#each list as row (row.itemId)}
					<tr class="rowline align-top">
						<td
							><a
								class="tag inline-flex min-h-11 items-center"
								href={row.defectId ? `/faults/${row.defectId}` : `/items/${row.tag}`}>{row.tag}</a
							></td
						>
						<td class="py-2"
							>{row.place}{row.where && row.where !== 'shelf'
								? `, ${WHERE_WORDS[row.where]}${row.with ? ` ${row.with}` : ''}`
								: ''}</td
						>
						<td class="py-2"
							>{row.station}, {siteDay(row.fittedAt)} to {row.removedAt
								? siteDay(row.removedAt)
								: 'now'}</td
						>
						<td class="py-2 font-mono text-[0.93rem]"
							>{row.wornBy.slice(0, MOST_WORN).join(', ') || 'nobody on record'}{row.wornBy.length >
							MOST_WORN
								? ` and ${row.wornBy.length - MOST_WORN} more`
								: ''}</td
						>
						<td class="py-2"
							>{#if row.defectId}{row.closedHow
									? FAULT_END_WORDS[row.closedHow as FaultEnd]
									: 'held'}{:else if row.looked}“{row.looked}”{:else}
								had it once
								{#if data.mayLook}<button
										class="linkish ml-2 min-h-11 print:hidden"
										aria-expanded={open === row.tag}
										onclick={() => (open = open === row.tag ? null : row.tag)}>Look into it</button
									>{/if}
								{#if open === row.tag}
									<form
										method="post"
										action="?/look"
										use:enhance
										class="flex flex-wrap items-end gap-3 print:hidden"
									>
										<input type="hidden" name="tag" value={row.tag} />
										<PlainField name="found" label="What was found" required maxlength={300} />
										<button class="button">Keep</button>
									</form>
								{/if}{/if}</td
						>
					</tr>
				{/each}
			</tbody>
		</table>
	</div>
{/snippet}
{#if left.length}
	<section class="mt-5" aria-labelledby="left">
		<h2 id="left">Still to be dealt with, {left.length}</h2>
		{@render rows(left)}
	</section>
{/if}
{#if dealt.length}
	<section class="mt-6" aria-labelledby="dealt">
		<h2 id="dealt">Dealt with, {dealt.length}</h2>
		{@render rows(dealt)}
	</section>
{/if}
