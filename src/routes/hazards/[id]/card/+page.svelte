<script lang="ts">
	import RightWrong from '$lib/ui/drawings/RightWrong.svelte';
	import FilterBand from '$lib/ui/form/FilterBand.svelte';

	let { data } = $props();
	const { card } = $derived(data);
</script>

<svelte:head><title>Card, {card.heading} · Grevan</title></svelte:head>
<div class="no-print mb-4 flex flex-wrap items-center gap-4">
	<a class="linkish" href="/hazards/{data.planId}">Plan {data.number}</a>
	<span class="ml-auto flex gap-3"
		><a class="button" href="/hazards/{data.planId}/card.pdf" data-sveltekit-reload>PDF</a><button
			class="button primary"
			onclick={() => print()}>Print</button
		></span
	>
</div>
<article class="mx-auto max-w-[46rem] border-2 border-ink bg-sheet p-8">
	<h1 class="text-[1.7rem]">{card.heading}</h1>
	<p class="mt-4 text-[1.2rem]">Wear: <b>{card.wear}</b></p>
	{#if card.code}<div class="mt-2">
			<FilterBand code={card.code} scheme={data.ruleSet === 'us' ? 'us' : 'en'} />
		</div>{/if}
	<p class="mt-5 border-y-2 border-ink py-4 text-[2rem] leading-tight font-bold">{card.change}</p>
	<ul class="mt-4 grid gap-2 text-[1.08rem]">
		{#each card.lines as line (line)}<li>{line}</li>{/each}
	</ul>
	{#if card.pictures.length}<section aria-labelledby="before" class="mt-5">
			<h2 id="before">Before going in</h2>
			<div class="mt-2 grid gap-4 sm:grid-cols-2">
				{#each card.pictures as one (one.says)}<RightWrong {...one} />{/each}
			</div>
		</section>{/if}
	{#each card.cautions as line (line)}<p class="mt-3 border-l-4 border-due pl-3">{line}</p>{/each}
	<p class="mt-5 font-semibold {data.valid ? '' : 'text-held'}">{data.standing}</p>
</article>
