<script lang="ts">
	import { airwayOf } from '$core/data/families';

	let { data } = $props();
</script>

<svelte:head><title>Procedures · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/items">Items</a></p>
<div class="flex flex-wrap items-baseline gap-x-4">
	<h1>Procedures</h1>
	<p class="text-soft">a record keeps the version that it ran under</p>
</div>
<ul class="mt-3 max-w-[60rem]">
	{#each data.procedures as p (p.key)}
		<li class="rowline">
			<a
				href="/items/procedures/{p.key}"
				class="grid min-h-12 items-center gap-x-4 py-1 no-underline hover:bg-tint sm:grid-cols-[1fr_11rem_6rem_7rem]"
			>
				<b>{p.name}</b>
				<span class="text-soft">{airwayOf(p.family).name}</span>
				<span>{p.steps} steps</span>
				<span class="text-soft">{p.version}</span>
			</a>
		</li>
	{/each}
</ul>
