<script lang="ts">
	/** Airline rigs: which may be breathed from, and what is against the others. */
	import StateMark from '$lib/ui/mark/StateMark.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Airlines · Grevan</title></svelte:head>
{#if data.rigs.length === 0}<p class="mt-5">
		No airline rig is in the register. Take one in under <a class="linkish" href="/items/new"
			>Items</a
		>, kind airline.
	</p>{/if}
<ul class="mt-4">
	{#each data.rigs as row (row.id)}
		<li class="rowline">
			<a
				href="/air/airlines/{row.tag}"
				class="grid min-h-14 grid-cols-[auto_5.5rem_1fr] items-center gap-x-4 py-2 no-underline hover:bg-tint md:grid-cols-[auto_5.5rem_16rem_1fr]"
			>
				<StateMark
					state={row.verdict ? (row.verdict.outcome === 'pass' ? 'good' : 'reject') : 'open'}
					size={22}
				/>
				<span class="tag">{row.tag}</span>
				<span class="text-soft">{row.place}{row.source ? `, ${row.source.source.name}` : ''}</span>
				<span class="col-span-full md:col-span-1"
					>{#if !row.verdict}Not written down yet how it is put together.{:else if row.verdict.outcome === 'pass'}May
						be breathed from by {row.rig.outlets}: {row.verdict.outletBar?.toFixed(1)} bar at the end
						of
						{row.rig.lengthM} m.{:else}<b class="text-held">{row.verdict.reasons[0]?.text}</b
						>{/if}</span
				>
			</a>
		</li>
	{/each}
</ul>
