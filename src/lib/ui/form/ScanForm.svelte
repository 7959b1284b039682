<script lang="ts">
	/**
	 * A field that is scanned into one after the other. It is free again at once; what was sent and not taken is
	 * listed with its tag until it is seen, so that no scan goes under behind the next.
	 */
	import { applyAction } from '$app/forms';
	import { invalidateAll } from '$app/navigation';
	import { freshId } from '$lib/fresh-id';
	import CameraKey from '../camera/CameraKey.svelte';
	import CameraScan from '../camera/CameraScan.svelte';
	import { sound } from '../sound/sounds';
	import Notice from './Notice.svelte';
	import { sendAction } from './send';

	interface Props {
		action: string;
		/** Id of the field, one to a page. */
		field: string;
		label: string;
		button: string;
		/** The field is why the page was opened. */
		primary?: boolean;
		placeholder?: string;
	}
	let { action, field, label, button, primary = false, placeholder = '' }: Props = $props();
	let input: HTMLInputElement | undefined = $state();
	let refused = $state<{ tag: string; why: string }[]>([]);
	let waiting = $state(0);
	let looking = $state(false);
	/** Scans are sent in their order, each after the answer to the one before it. */
	let last = Promise.resolve();

	function typed(event: SubmitEvent) {
		event.preventDefault();
		const word = input?.value ?? '';
		if (input) input.value = '';
		input?.focus();
		take(word);
	}
	function take(word: string) {
		const tag = word.trim().toUpperCase();
		if (tag === '') return;
		waiting++;
		last = last.then(async () => {
			const why = await send(tag);
			waiting--;
			if (why) sound('refused');
			refused = [...refused.filter((r) => r.tag !== tag), ...(why ? [{ tag, why }] : [])];
		});
	}

	/** @returns why it was not taken */
	async function send(tag: string): Promise<string | undefined> {
		const sent = await sendAction(action, { id: freshId(), tag });
		if (sent.refused) return sent.refused.message;
		await applyAction(sent.result);
		await invalidateAll();
	}
</script>

{#each refused as one (one.tag)}
	<div class="mb-2">
		<Notice kind="refusal">
			<div class="flex flex-wrap items-center gap-x-4">
				<p class="min-w-0 flex-1"><span class="tag">{one.tag}</span>: {one.why}</p>
				<button
					type="button"
					class="linkish min-h-11"
					aria-label="Seen: {one.tag}"
					onclick={() => {
						refused = refused.filter((r) => r.tag !== one.tag);
						input?.focus();
					}}>Seen</button
				>
			</div>
		</Notice>
	</div>
{/each}
<form method="post" {action} class="flex flex-wrap items-end gap-3" onsubmit={typed}>
	<div>
		<label class="label" for={field}>{label}</label>
		<!-- svelte-ignore a11y_autofocus -->
		<input
			id={field}
			name="tag"
			bind:this={input}
			autofocus={primary}
			autocomplete="off"
			{placeholder}
			class="tag uppercase placeholder:font-sans placeholder:normal-case {primary
				? 'w-64 text-[1.5rem]!'
				: 'w-44'}"
		/>
	</div>
	<button class={['button', primary && 'primary']}
		>{button}{#if primary}
			<kbd>Enter</kbd>{/if}</button
	>
	<CameraKey open={looking} onclick={() => (looking = !looking)} />
	{#if waiting}<span class="text-soft" role="status">sending {waiting} …</span>{/if}
</form>
{#if looking}<CameraScan
		onscan={take}
		onclose={() => {
			looking = false;
			input?.focus();
		}}
	/>{/if}
