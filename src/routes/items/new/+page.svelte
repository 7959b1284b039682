<script lang="ts">
	import { untrack } from 'svelte';
	import { airwayOf } from '$core/data/families';
	import { freshId } from '$lib/fresh-id';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import LongField from '$lib/ui/form/LongField.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { longForm, refusedWhole } from '$lib/ui/form/long-form';

	let { data } = $props();
	const of = untrack(() => longForm(data.filled));
	const { enhance, errors } = of;
	const id = freshId();
	const choose = ['', 'choose'] as const;
</script>

<svelte:head><title>New item · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/items">Items</a></p>
<h1>New item</h1>
{#if !data.mayKeep}<div class="mt-4">
		<Notice><p>A technician takes items into the register.</p></Notice>
	</div>
{:else}
	<form method="post" class="mt-4 grid max-w-[34rem] gap-4" use:enhance>
		<input type="hidden" name="id" value={id} />
		<LongField
			{of}
			name="tag"
			label="Tag"
			hint="As on the label, such as HM-0421."
			width="tag w-56 uppercase"
		/>
		<LongField
			{of}
			name="modelId"
			label="Model"
			options={[
				choose,
				...data.models.map(
					(m) => [m.id, `${m.name}, ${airwayOf(m.family).name.toLowerCase()}`] as const
				)
			]}
		/>
		<LongField
			{of}
			name="placeId"
			label="Place"
			options={[choose, ...data.places.map((place) => [place.id, place.name] as const)]}
		/>
		<div class="flex flex-wrap gap-4">
			<LongField {of} name="size" label="Size" width="w-28" />
			<LongField {of} name="serial" label="Serial number" width="w-56" mono />
		</div>
		<FormRefusal refusal={refusedWhole($errors)} />
		<p class="text-soft">It is not to be used until it has been inspected.</p>
		<button class="button primary justify-self-start">Take it into the register</button>
	</form>
{/if}
