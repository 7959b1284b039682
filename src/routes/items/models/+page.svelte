<script lang="ts">
	import { airwayOf } from '$core/data/families';
	import StateMark from '$lib/ui/mark/StateMark.svelte';

	let { data } = $props();
	let ticked = $state<string[]>([]);
	const families = $derived([...new Set(data.models.map(({ model }) => model.family))]);
</script>

<svelte:head><title>Models · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/items">Items</a></p>
<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
	<h1>Models</h1>
	<p class="text-soft">what each maker says, where it is stricter</p>
	<span class="ml-auto flex flex-wrap gap-3">
		{#if data.mayEdit}<a class="button" href="/items/models/new">New model</a>{/if}
		<form method="get" action="/items/models/compare">
			<input type="hidden" name="ids" value={ticked.join(',')} />
			<button class="button" disabled={ticked.length < 2 || ticked.length > 4}
				>Compare{ticked.length ? ` ${ticked.length}` : ''}</button
			>
		</form>
	</span>
</div>
<p class="text-soft mt-1">Tick two to four to see them side by side.</p>
{#each families as family (family)}
	<h2 class="mt-6">{airwayOf(family).plural}</h2>
	<ul>
		{#each data.models.filter(({ model }) => model.family === family) as { model, inUse } (model.id)}
			<li class="rowline flex items-center">
				<label class="flex min-h-12 min-w-11 items-center justify-center"
					><input
						type="checkbox"
						value={model.id}
						bind:group={ticked}
						aria-label="Compare {model.name}"
					/></label
				>
				<a
					href="/items/models/{model.id}"
					class="flex min-h-12 flex-1 flex-wrap items-center gap-x-5 gap-y-1 py-1 no-underline hover:bg-tint"
				>
					<b class="w-56">{model.name}</b>
					<span class="text-soft w-40">{model.maker}</span>
					<span>{inUse} in use</span>
					{#if model.withdrawnOn}<span class="flex items-center gap-2 text-held"
							><StateMark state="held" /> withdrawn: {model.withdrawnWhy}</span
						>{/if}
					{#if model.holdDropBar !== null}<span>hold: {model.holdDropBar} bar at most</span>{/if}
					{#if model.makerLines.length}<span class="text-soft"
							>{model.makerLines.length}
							{model.makerLines.length === 1 ? 'line' : 'lines'} of the maker</span
						>{/if}
				</a>
			</li>
		{/each}
	</ul>
{/each}
