<script lang="ts">
	import { countOf } from '$core/data/families';
	import { STORAGE_TRAITS } from '$core/site/places';
	import { enhance } from '$lib/ui/form/enhance';
	import Notice from '$lib/ui/form/Notice.svelte';
	import PlaceForm from '$lib/ui/site/PlaceForm.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	/** The place that is worked on; `new` for one that is added. */
	let open = $state<string | null>(null);
	const lacking = (storage: readonly string[]) =>
		STORAGE_TRAITS.filter((trait) => !storage.includes(trait));
	const floors = (of: Record<string, number>) =>
		Object.entries(of)
			.filter(([, n]) => n > 0)
			.map(([family, n]) => countOf(family, n))
			.join(', ');
</script>

<svelte:head><title>Places and floors · Grevan</title></svelte:head>
{#if form && 'keptPlace' in form}<div class="mt-4 max-w-[52rem]">
		<Notice kind="good"><p role="status">{form.keptPlace} is kept.</p></Notice>
	</div>{/if}
{#if form && 'closed' in form}<div class="mt-4 max-w-[52rem]">
		<Notice kind="good"><p role="status">Closed.</p></Notice>
	</div>{/if}
<div class="mt-4 flex flex-wrap items-center gap-x-4">
	<p class="text-soft">
		A floor is how many stay ready at a place. Today says where it is not kept.
	</p>
	<button class="button ml-auto" onclick={() => (open = open === 'new' ? null : 'new')}
		>New place</button
	>
</div>
{#if open === 'new'}<div class="mt-3 max-w-[52rem] border-l-4 border-accent pl-4">
		<PlaceForm people={data.people} {refusal} done={() => (open = null)} />
	</div>{/if}
{#if data.places.length === 0}<p class="mt-4">
		None yet. A place is what people name when they say where a mask is.
	</p>{/if}
<ul class="mt-3">
	{#each data.places as place (place.id)}
		{@const lacks = lacking(place.storage)}
		<li class="rowline py-2">
			<div class="grid items-center gap-x-6 gap-y-1 md:grid-cols-[16rem_1fr_auto]">
				<span
					><b>{place.name}</b><br /><span class="text-soft"
						>{place.kind} · {place.items} {place.items === 1 ? 'item' : 'items'}</span
					></span
				>
				<span
					>{floors(place.floors) || 'no floor'}<br /><span class="text-soft"
						>{place.storage.length ? place.storage.join(', ') : 'storage not stated'}{place.storage
							.length && lacks.length
							? `; not ${lacks.join(', ')}`
							: ''}{place.responsibleName ? ` · ${place.responsibleName}` : ''}</span
					></span
				>
				<button
					class="button"
					aria-expanded={open === place.id}
					onclick={() => (open = open === place.id ? null : place.id)}>Change</button
				>
			</div>
			{#if open === place.id}
				<div class="mt-2 max-w-[52rem] border-l-4 border-accent pl-4">
					<PlaceForm {place} people={data.people} {refusal} done={() => (open = null)} />
					<form method="post" action="?/close" class="mt-2" use:enhance>
						<input type="hidden" name="id" value={place.id} />
						<button class="linkish min-h-11">Close it: nothing is kept there any more</button>
					</form>
				</div>
			{/if}
		</li>
	{/each}
</ul>
