<script lang="ts">
	/** The seal of the cupboard that an emergency item lies in: whole, or broken and to be looked over. */
	import { enhance } from '$lib/ui/form/enhance';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import { siteMoment } from '$lib/ui/time/moments';
	import type { PageData } from './$types';

	interface Props {
		data: PageData;
		refusal: string | null;
	}
	let { data, refusal }: Props = $props();
	const held = $derived(data.seal?.seal);
	const whole = $derived(held && !held.brokenAt ? held : null);
</script>

<section class="mt-4" aria-labelledby="seal-title">
	<h2 id="seal-title">Seal</h2>
	{#if whole}
		<p>
			Sealed, <b class="font-mono">{whole.number}</b>, since {siteMoment(whole.sealedAt)}, {data
				.seal?.by}.
		</p>
		<details>
			<summary class="min-h-11 cursor-pointer content-center font-semibold"
				>The seal is broken</summary
			>
			<form method="post" action="?/unseal" use:enhance class="flex flex-wrap items-end gap-3">
				<div class="min-w-[12rem] flex-1">
					<PlainField name="why" label="Why, by whom" maxlength={200} required {refusal} />
				</div>
				<button class="button">Note it</button>
			</form>
		</details>
	{:else}
		<p>
			{held?.brokenAt
				? `Not sealed: ${held.number} was broken on ${siteMoment(held.brokenAt)}, ${held.brokenWhy}.`
				: 'Not sealed.'}
		</p>
		{#if data.maySeal}
			<form method="post" action="?/seal" use:enhance class="mt-1 flex flex-wrap items-end gap-3">
				<PlainField
					name="number"
					label="Number on the seal"
					maxlength={40}
					width="w-40"
					mono
					required
					{refusal}
				/>
				<button class="button">Seal it</button>
			</form>
		{/if}
	{/if}
</section>
