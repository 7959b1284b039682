<script lang="ts">
	/** Card or initials, then the PIN: whoever stands there says who they are. */
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import PinPad from '$lib/ui/form/PinPad.svelte';
	import { onMount } from 'svelte';

	interface Props {
		/** Where it is sent. */
		action: string;
		/** What goes with it unseen. */
		fields?: Record<string, string>;
		who?: string;
		refused?: { message: string; path?: string | null | undefined } | null | undefined;
	}
	let { action, fields = {}, who = '', refused = null }: Props = $props();
	// svelte-ignore state_referenced_locally
	let word = $state(who);
	let pin = $state('');
	let whoInput = $state<HTMLInputElement>();
	let pinInput = $state<HTMLInputElement>();
	onMount(() => (word ? pinInput : whoInput)?.focus());

	/** A scanner ends with Enter: after the card comes the PIN. */
	function afterCard(event: KeyboardEvent) {
		if (event.key !== 'Enter' || pin) return;
		event.preventDefault();
		if (word.trim()) pinInput?.focus();
	}
</script>

<form
	method="post"
	{action}
	class="grid content-start gap-4"
	use:enhance={() =>
		async ({ result, update }) => {
			await update({ reset: false });
			if (result.type !== 'failure') return;
			pin = '';
			const path = (result.data?.refusal ?? result.data)?.path;
			(path === 'who' ? whoInput : pinInput)?.focus();
		}}
>
	{#each Object.entries(fields) as [name, value] (name)}<input
			type="hidden"
			{name}
			{value}
		/>{/each}
	{#if refused && !refused.path}<Notice kind="refusal"><p>{refused.message}</p></Notice>{/if}
	<Field
		id="who"
		label="Card, or initials"
		refusal={refused?.path === 'who' ? refused.message : null}
	>
		{#snippet children(field)}<input
				{...field}
				name="who"
				bind:this={whoInput}
				bind:value={word}
				autocomplete="off"
				autocapitalize="characters"
				maxlength="40"
				required
				onkeydown={afterCard}
				class="w-full max-w-[15rem] font-mono text-[1.2rem]"
			/>{/snippet}
	</Field>
	<div>
		<label class="label" for="pin">PIN</label>
		{#if refused?.path === 'pin'}<p
				id="pin-refused"
				role="alert"
				class="mb-1 font-semibold text-held"
			>
				{refused.message}
			</p>{/if}
		<PinPad
			id="pin"
			bind:value={pin}
			bind:input={pinInput}
			invalid={refused?.path === 'pin'}
			describedBy={refused?.path === 'pin' ? 'pin-refused' : undefined}
		/>
	</div>
</form>
