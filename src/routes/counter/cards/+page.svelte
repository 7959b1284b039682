<script lang="ts">
	let { data } = $props();
</script>

<svelte:head><title>Card of codes · Grevan</title></svelte:head>
{#snippet cards(list: typeof data.codes)}
	<ul class="mt-2 grid grid-cols-2 gap-4 sm:grid-cols-3 lg:grid-cols-5 print:grid-cols-4">
		{#each list as card (card.code)}
			<li class="break-inside-avoid rounded border border-rule p-3 text-center">
				<span class="block rounded bg-white p-2 [&_svg]:mx-auto [&_svg]:h-24 [&_svg]:w-24"
					><!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by the server from a code of ours -->
					<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by the server from a code of ours -->
					{@html card.svg}
				</span>
				<b class="mt-1 block">{card.words}</b>
				<span class="tag text-soft text-[0.85rem]">{card.code}</span>
			</li>
		{/each}
	</ul>
{/snippet}
<div class="mt-3 flex flex-wrap items-baseline gap-x-4">
	<h1>Card of codes</h1>
	<p class="text-soft">what a key would do, for whoever has both hands full</p>
	<button class="button no-print ml-auto" onclick={() => print()}>Print it</button>
</div>
<h2 class="mt-4">At the counter and the wash line</h2>
{@render cards(data.codes)}
<h2 class="mt-6">Tasks</h2>
{#if data.plans.length}{@render cards(data.plans)}{:else}<p class="mt-1">
		No hazard plan yet: write one under Hazards, and its code stands here.
	</p>{/if}
