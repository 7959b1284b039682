<script lang="ts">
	/** A place: what it is, how things are kept there, who answers for it, how many of each kind it keeps ready. */
	import { FAMILIES } from '$core/data/families';
	import { PLACE_KINDS, STORAGE_TRAITS } from '$core/site/places';
	import { freshId } from '$lib/fresh-id';
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import { type FormRefusal as FormRefused, refusedAt } from '$lib/ui/form/refused';

	interface Place {
		id: string;
		version: number;
		name: string;
		kind: string;
		storage: readonly string[];
		responsible: string | null;
		floors: Record<string, number>;
		has: Record<string, number>;
	}
	interface Props {
		/** Left out: a new one. */
		place?: Place | undefined;
		people: readonly { id: string; name: string }[];
		refusal: FormRefused | null;
		/** Floors are asked for. */
		withFloors?: boolean;
		done?: () => void;
	}
	let { place, people, refusal, withFloors = true, done = () => undefined }: Props = $props();
	let fresh = $state(freshId());
	const WORDS: Record<string, string> = {
		room: 'a room or a rack',
		store: 'a store, behind a counter',
		vehicle: 'a vehicle'
	};
	/** Families that stand there or are wanted, first; the others behind a word. */
	const shown = $derived(
		FAMILIES.filter(({ family }) => place?.has[family] || place?.floors[family])
	);
	const others = $derived(FAMILIES.filter((family) => !shown.includes(family)));
</script>

{#snippet floor(family: string, plural: string)}
	<label class="flex min-h-11 items-center gap-3"
		><input type="hidden" name="families[]" value={family} /><input
			name="floors[]"
			inputmode="numeric"
			value={place?.floors[family] || ''}
			placeholder="0"
			class="w-20 text-right font-mono"
		/><span
			>{plural}{#if place?.has[family]}<span class="text-soft">, {place.has[family]} there</span
				>{/if}</span
		></label
	>
{/snippet}

<form
	method="post"
	action="?/place"
	class="mt-3 grid gap-4"
	use:enhance={() =>
		async ({ result, update }) => {
			await update({ reset: result.type === 'success' && !place });
			if (result.type === 'success') {
				fresh = freshId();
				done();
			}
		}}
>
	<input type="hidden" name="id" value={place?.id ?? fresh} />
	<input type="hidden" name="version" value={place?.version ?? 0} />
	{#if refusal && !['name', 'floors'].includes(refusal.path ?? '')}<FormRefusal
			refusal={{ message: refusal.message }}
		/>{/if}
	<div class="grid items-start gap-4 sm:grid-cols-2">
		<PlainField
			name="name"
			label="Name"
			value={place?.name ?? ''}
			required
			refusal={refusedAt(refusal, 'name')}
		/>
		<Field id="kind-{place?.id ?? 'new'}" label="It is">
			{#snippet children(field)}<select {...field} name="kind" class="w-full"
					>{#each PLACE_KINDS as kind (kind)}<option value={kind} selected={kind === place?.kind}
							>{WORDS[kind]}</option
						>{/each}</select
				>{/snippet}
		</Field>
	</div>
	<fieldset>
		<legend class="label">What is kept there stays</legend>
		<div class="flex flex-wrap gap-x-5">
			{#each STORAGE_TRAITS as trait (trait)}<label class="flex min-h-11 items-center gap-2"
					><input
						type="checkbox"
						name="storage[]"
						value={trait}
						checked={place?.storage.includes(trait)}
					/>{trait}</label
				>{/each}
		</div>
	</fieldset>
	<Field id="responsible-{place?.id ?? 'new'}" label="Who answers for it">
		{#snippet children(field)}<select {...field} name="responsible" class="w-full max-w-[20rem]"
				><option value="">nobody yet</option>{#each people as one (one.id)}<option
						value={one.id}
						selected={one.id === place?.responsible}>{one.name}</option
					>{/each}</select
			>{/snippet}
	</Field>
	{#if withFloors}
		<fieldset>
			<legend class="label">Always ready there, at least</legend>
			{#if refusal?.path === 'floors'}<p class="font-semibold text-held" role="alert">
					{refusal.message}
				</p>{/if}
			<div class="grid gap-x-6 gap-y-2 sm:grid-cols-2">
				{#each shown as { family, plural } (family)}{@render floor(family, plural)}{/each}
			</div>
			{#if others.length}
				<details open={shown.length === 0}>
					<summary class="min-h-11 cursor-pointer content-center font-semibold"
						>{shown.length ? 'Other kinds' : 'By kind'}</summary
					>
					<div class="grid gap-x-6 gap-y-2 sm:grid-cols-2">
						{#each others as { family, plural } (family)}{@render floor(family, plural)}{/each}
					</div>
				</details>
			{/if}
			<label class="mt-1 flex min-h-11 items-center gap-3"
				><input type="checkbox" name="above" /> more is to come: keep a floor above what stands there</label
			>
		</fieldset>
	{/if}
	<button class="button primary justify-self-start">{place ? 'Keep' : 'Add the place'}</button>
</form>
