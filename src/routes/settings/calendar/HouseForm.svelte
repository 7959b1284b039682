<script lang="ts">
	/** A test house: what it is sent and when it is back. */
	import { TEST_HOUSE_WORK } from '$core/site/places';
	import { freshId } from '$lib/fresh-id';
	import { enhance } from '$lib/ui/form/enhance';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import { type FormRefusal as FormRefused, refusedAt } from '$lib/ui/form/refused';
	import type { PageData } from './$types';

	interface Props {
		house?: PageData['houses'][number];
		refusal: FormRefused | null;
		done: () => void;
	}
	let { house, refusal, done }: Props = $props();
	const fresh = freshId();
</script>

<form
	method="post"
	action="?/house"
	class="mt-3 grid gap-4 border-l-4 border-accent pl-4"
	use:enhance={() =>
		async ({ result, update }) => {
			await update({ reset: false });
			if (result.type === 'success') done();
		}}
>
	<input type="hidden" name="id" value={house?.id ?? fresh} />
	<input type="hidden" name="version" value={house?.version ?? 0} />
	{#if refusal && !refusal.path}<FormRefusal refusal={{ message: refusal.message }} />{/if}
	<PlainField
		name="name"
		label="Name"
		value={house?.name ?? ''}
		required
		refusal={refusedAt(refusal, 'name')}
	/>
	<fieldset>
		<legend class="label">It takes</legend>
		{#if refusedAt(refusal, 'takes')}<p class="font-semibold text-held" role="alert">
				{refusedAt(refusal, 'takes')}
			</p>{/if}
		<div class="flex flex-wrap gap-x-5">
			{#each TEST_HOUSE_WORK as work (work)}<label class="flex min-h-11 items-center gap-2"
					><input
						type="checkbox"
						name="takes[]"
						value={work}
						checked={house?.takes.includes(work)}
					/>{work}</label
				>{/each}
		</div>
	</fieldset>
	<PlainField
		name="turnaroundDays"
		label="Days until things are back"
		value={house?.turnaroundDays ?? ''}
		inputmode="numeric"
		mono
		required
		width="w-24"
		refusal={refusedAt(refusal, 'turnaroundDays')}
	/>
	{#if house}<label class="flex min-h-11 items-center gap-3"
			><input type="checkbox" name="closed" /> nothing is sent there any more</label
		>{/if}
	<button class="button primary justify-self-start">Keep</button>
</form>
