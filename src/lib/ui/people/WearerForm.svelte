<script lang="ts">
	/** What is kept of a wearer: as little as the counter needs. */
	import { freshId } from '$lib/fresh-id';
	import { enhance } from '../form/enhance';
	import DayField from '../form/DayField.svelte';
	import Field from '../form/Field.svelte';
	import FormRefusal from '../form/FormRefusal.svelte';
	import PlainField from '../form/PlainField.svelte';
	import { type FormRefusal as Refused, refusedAt } from '../form/refused';
	import { untrack } from 'svelte';

	interface Wearer {
		id: string;
		version: number;
		number: string;
		name: string;
		userId: string | null;
		eyewear: boolean;
		beard: boolean;
		clearedUntil: string | null;
		trainedUntil: string | null;
	}
	interface Props {
		wearer: Wearer | null;
		placeIds: readonly string[];
		places: readonly { id: string; name: string }[];
		accounts: readonly { id: string; name: string }[];
		refusal: Refused | null;
	}
	let { wearer, placeIds, places, accounts, refusal }: Props = $props();
	const id = untrack(() => wearer?.id ?? freshId());
	const at = (path: string) => refusedAt(refusal, path);
	const FIELDS = ['number', 'name', 'userId', 'clearedUntil', 'trainedUntil'];
</script>

<form
	method="post"
	action="?/save"
	class="grid max-w-[44rem] gap-4"
	use:enhance={() =>
		async ({ update }) =>
			update({ reset: false })}
>
	<input type="hidden" name="id" value={id} />
	<input type="hidden" name="version" value={wearer?.version ?? 0} />
	<FormRefusal refusal={refusal && FIELDS.includes(refusal.path ?? '') ? null : refusal} />
	<div class="grid gap-4 sm:grid-cols-[9rem_1fr]">
		<PlainField
			name="number"
			label="Number"
			value={wearer?.number ?? ''}
			mono
			required
			refusal={at('number')}
		/>
		<PlainField name="name" label="Name" value={wearer?.name ?? ''} required refusal={at('name')} />
	</div>
	<div class="grid gap-4 sm:grid-cols-2">
		<DayField
			name="clearedUntil"
			label="Cleared until"
			value={wearer?.clearedUntil}
			hint="The last day; nothing of why."
			refusal={at('clearedUntil')}
		/>
		<DayField
			name="trainedUntil"
			label="Trained until"
			value={wearer?.trainedUntil}
			refusal={at('trainedUntil')}
		/>
	</div>
	<div class="flex flex-wrap gap-x-6">
		<label class="flex min-h-11 items-center gap-2"
			><input type="checkbox" name="eyewear" checked={wearer?.eyewear} />needs glasses</label
		>
		<label class="flex min-h-11 items-center gap-2"
			><input type="checkbox" name="beard" checked={wearer?.beard} />beard, as last seen</label
		>
	</div>
	<Field id="userId" label="Their account, where they have one" refusal={at('userId')}>
		{#snippet children(field)}<select {...field} name="userId" class="w-full"
				><option value="">none</option>{#each accounts as account (account.id)}<option
						value={account.id}
						selected={account.id === wearer?.userId}>{account.name}</option
					>{/each}</select
			>{/snippet}
	</Field>
	{#if places.length}
		<fieldset>
			<legend class="label">Works at</legend>
			<div class="grid gap-x-5 sm:grid-cols-2">
				{#each places as place (place.id)}<label class="flex min-h-11 items-center gap-2"
						><input
							type="checkbox"
							name="placeIds[]"
							value={place.id}
							checked={placeIds.includes(place.id)}
						/>{place.name}</label
					>{/each}
			</div>
		</fieldset>
	{/if}
	<button class="button primary justify-self-start">Keep</button>
</form>
