<script lang="ts">
	/** What is kept of one person, for them to have, and erasing who they are. */
	import { ERASE_REASONS } from '$core/people/erase';
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import { type FormRefusal, refusedAt } from '$lib/ui/form/refused';

	interface Props {
		wearer: { id: string; number: string; version: number };
		refusal: FormRefusal | null;
	}
	let { wearer, refusal }: Props = $props();
</script>

<details class="mt-3">
	<summary class="min-h-11 cursor-pointer content-center font-semibold"
		>Their data: write out, or erase</summary
	>
	<p class="mt-1">
		<a class="button" href="/people/{wearer.id}/export.json" data-sveltekit-reload
			>Everything kept of them, as a file</a
		>
	</p>
	<form method="post" action="?/erase" class="mt-4 grid max-w-[30rem] gap-3" use:enhance>
		<p>
			Erasing takes the name, the account, the face, clearance, training, places and own items. The
			number stays beside the tests and in the log, so that the record of the equipment stays whole.
			It cannot be undone.
		</p>
		<input type="hidden" name="version" value={wearer.version} />
		<label
			><span class="label">Why</span><select name="reason" class="w-full"
				>{#each ERASE_REASONS as reason (reason)}<option>{reason}</option>{/each}</select
			></label
		>
		<Field
			id="erase-number"
			label="Their number, {wearer.number}, typed"
			refusal={refusedAt(refusal, 'erase')}
		>
			{#snippet children(field)}<input
					{...field}
					name="number"
					autocomplete="off"
					class="w-40 font-mono"
				/>{/snippet}
		</Field>
		<button class="button justify-self-start border-held! text-held!">Erase who they are</button>
	</form>
</details>
