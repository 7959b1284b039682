<script lang="ts">
	import PlaceForm from '$lib/ui/site/PlaceForm.svelte';
	import SetUpSteps from '$lib/ui/site/SetUpSteps.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
</script>

<svelte:head><title>Set-up: places · Grevan</title></svelte:head>
<SetUpSteps />
<h1 class="mt-4">Where equipment is kept</h1>
<p class="mt-1 max-w-[40rem]">
	Rooms, racks, stores, vehicles: each place that people would name when they say where a mask is.
	How many stay ready there is asked once the register is in.
</p>
<div class="mt-4 grid gap-x-12 gap-y-6 lg:grid-cols-2">
	<section aria-labelledby="so-far">
		<h2 id="so-far">So far</h2>
		{#if data.places.length === 0}<p class="mt-1">None yet.</p>{/if}
		<ul>
			{#each data.places as place (place.id)}<li class="rowline flex min-h-11 items-center gap-x-3">
					<b>{place.name}</b><span class="text-soft"
						>{[place.kind, ...place.storage].join(' · ')}</span
					>
				</li>{/each}
		</ul>
		{#if data.places.length}<a class="button primary mt-4" href="/set-up/equipment"
				>Go on to the equipment</a
			>{/if}
	</section>
	<section aria-labelledby="add">
		<h2 id="add">Add a place</h2>
		<PlaceForm people={data.people} {refusal} withFloors={false} />
	</section>
</div>
