<script lang="ts">
	/** What sits over the filters of a pair: one of each kind, fresh from the store, used up when taken off. */
	import { enhance } from '$lib/ui/form/enhance';
	import { readable } from '$core/plan/calendar';
	import { freshId } from '$lib/fresh-id';
	import Field from '$lib/ui/form/Field.svelte';
	import type { PageData } from './$types';

	interface Props {
		data: PageData;
		refusal: string | null;
	}
	let { data, refusal }: Props = $props();
	let fitId = $state(freshId());
	const open = $derived(data.pair.discardedAt === null && data.mayOpen);
	const free = $derived(
		data.layerLots.filter(({ model }) => !data.layers.some((one) => one.role === model.role))
	);
</script>

{#if data.layers.length || (open && free.length)}
	<h2 class="mt-7">Over the filters</h2>
	<ul>
		{#each data.layers as layer (layer.id)}
			<li class="rowline flex min-h-12 flex-wrap items-center gap-x-4 py-1">
				<span
					><b>{layer.name}</b>, {layer.quantity} of lot
					<a class="linkish font-mono" href="/filters/lots/{layer.lotId}">{layer.lot}</a>
					<span class="text-soft">· {layer.role} · fitted {readable(layer.fittedOn)}</span></span
				>
				{#if open}<form method="post" action="?/takeOff" class="ml-auto" use:enhance>
						<input type="hidden" name="layerId" value={layer.id} />
						<button class="linkish min-h-11">Take off, used up</button>
					</form>{/if}
			</li>
		{:else}<li class="mt-1">Nothing over them.</li>{/each}
	</ul>
	{#if open && free.length}
		<form
			method="post"
			action="?/fit"
			class="mt-3 flex flex-wrap items-end gap-3"
			use:enhance={() =>
				async ({ result, update }) => {
					await update();
					if (result.type === 'success') fitId = freshId();
				}}
		>
			<input type="hidden" name="id" value={fitId} />
			<Field id="layerLot" label="Fit one over each filter" {refusal}>
				{#snippet children(field)}<select {...field} name="lotId"
						><option value="">choose</option>{#each free as { lot, model } (lot.id)}<option
								value={lot.id}>{model.name} ({model.role}), lot {lot.lot}</option
							>{/each}</select
					>{/snippet}
			</Field>
			<button class="button">Fit {data.pair.filters}</button>
		</form>
		<p class="text-soft mt-2 text-[0.9rem]">
			A snap-on adapter and a retainer are used once: off means a new one from the store.
		</p>
	{/if}
{/if}
