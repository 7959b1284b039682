<script lang="ts">
	/** A filter that stays sealed where it is fitted: what fits from the store, and why the old one goes. */
	import { enhance } from '$lib/ui/form/enhance';
	import { EARLY_REASONS } from '$core/filters/ledger';
	import { readable } from '$core/plan/calendar';
	import { freshId } from '$lib/fresh-id';
	import Field from '$lib/ui/form/Field.svelte';
	import type { PageData } from './$types';

	interface Props {
		data: PageData;
		refused: (path: string) => string | null;
	}
	let { data, refused }: Props = $props();
	let fitId = $state(freshId());
</script>

{#snippet form()}
	<form
		method="post"
		action="?/fitSealed"
		class="mt-3 grid gap-3 sm:grid-cols-2"
		use:enhance={() =>
			async ({ result, update }) => {
				await update({ reset: false });
				if (result.type === 'success') fitId = freshId();
			}}
	>
		<input type="hidden" name="id" value={fitId} />
		<Field id="lotId" label="Sealed filter from the store" refusal={refused('lotId')}>
			{#snippet children(field)}<select {...field} name="lotId" class="w-full"
					>{#each data.sealedLots as { lot, model } (lot.id)}<option value={lot.id}
							>{model.name}, lot {lot.lot}, until {readable(lot.useBy)}</option
						>{/each}</select
				>{/snippet}
		</Field>
		<Field id="initials" label="Initials" refusal={refused('initials')}>
			{#snippet children(field)}<input
					{...field}
					name="initials"
					value={data.actor?.initials}
					maxlength="4"
					class="w-24"
				/>{/snippet}
		</Field>
		{#if data.pair}<Field
				id="discardReason"
				label="Why {data.pairTag} goes"
				refusal={refused('discardReason')}
			>
				{#snippet children(field)}<select {...field} name="discardReason" class="w-full"
						><option value="">choose</option
						>{#each Object.entries(EARLY_REASONS) as [key, reason] (key)}<option value={key}
								>{reason.words}</option
							>{/each}</select
					>{/snippet}
			</Field>{/if}
		<div class="self-end"><button class="button">Fit it sealed</button></div>
	</form>
{/snippet}
{#if data.sealedLots.length && data.pair}
	<details open={refused('discardReason') !== null || refused('lotId') !== null}>
		<summary class="min-h-11 cursor-pointer content-center font-semibold">Change it</summary>
		{@render form()}
	</details>
{:else if data.sealedLots.length}
	{@render form()}
{:else}
	<p class="mt-1">
		None in the store fits. <a class="linkish" href="/filters/store">Take a delivery in</a>.
	</p>
{/if}
