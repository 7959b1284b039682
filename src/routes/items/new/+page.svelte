<script lang="ts">
	import { enhance } from '$app/forms';
	import { airwayOf } from '$core/data/families';
	import Field from '$lib/ui/form/Field.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';

	let { data, form } = $props();
	const fault = $derived(form && 'fault' in form ? (form.fault ?? null) : null);
	const at = (path: string) => (fault?.path === path ? fault.message : null);
	const id = crypto.randomUUID();
</script>

<svelte:head><title>New item · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/items">Items</a></p>
<h1>New item</h1>
{#if !data.mayKeep}<div class="mt-4">
		<Notice><p>A technician takes items into the register.</p></Notice>
	</div>
{:else}
	<form
		method="post"
		class="mt-4 grid max-w-[34rem] gap-4"
		use:enhance={() =>
			({ update }) =>
				update({ reset: false })}
	>
		<input type="hidden" name="id" value={id} />
		<Field id="tag" label="Tag" fault={at('tag')} hint="As on the label, such as HM-0421.">
			{#snippet children(field)}<input
					{...field}
					name="tag"
					class="tag w-56 uppercase"
					autocomplete="off"
				/>{/snippet}
		</Field>
		<Field id="modelId" label="Model" fault={at('modelId')}>
			{#snippet children(field)}<select {...field} name="modelId" class="w-full"
					><option value="">choose</option>{#each data.models as model (model.id)}<option
							value={model.id}>{model.name}, {airwayOf(model.family).name.toLowerCase()}</option
						>{/each}</select
				>{/snippet}
		</Field>
		<Field id="placeId" label="Place" fault={at('placeId')}>
			{#snippet children(field)}<select {...field} name="placeId" class="w-full"
					><option value="">choose</option>{#each data.places as place (place.id)}<option
							value={place.id}>{place.name}</option
						>{/each}</select
				>{/snippet}
		</Field>
		<div class="flex flex-wrap gap-4">
			<Field id="size" label="Size" fault={at('size')}>
				{#snippet children(field)}<input {...field} name="size" class="w-28" />{/snippet}
			</Field>
			<Field id="serial" label="Serial number" fault={at('serial')}>
				{#snippet children(field)}<input
						{...field}
						name="serial"
						class="w-56 font-mono"
					/>{/snippet}
			</Field>
		</div>
		{#if fault && !['tag', 'modelId', 'placeId', 'size', 'serial'].includes(fault.path ?? '')}<Notice
				kind="fault"><p>{fault.message}</p></Notice
			>{/if}
		<p class="text-soft">It is not to be used until it has been inspected.</p>
		<button class="button primary justify-self-start">Take it into the register</button>
	</form>
{/if}
