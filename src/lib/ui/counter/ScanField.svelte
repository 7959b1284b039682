<script lang="ts">
	/** The field that every scan of a counter goes into: it is free at once, and takes the keys back by itself. */
	import { onMount } from 'svelte';
	import CameraKey from '$lib/ui/camera/CameraKey.svelte';
	import CameraScan from '$lib/ui/camera/CameraScan.svelte';

	interface Props {
		label: string;
		placeholder: string;
		waiting: number;
		onscan: (word: string) => unknown;
	}
	let { label, placeholder, waiting, onscan }: Props = $props();
	let input: HTMLInputElement | undefined = $state();
	const id = $props.id();
	let looking = $state(false);

	onMount(() => input?.focus());

	function take(event: SubmitEvent) {
		event.preventDefault();
		const word = input?.value ?? '';
		if (input) input.value = '';
		input?.focus();
		onscan(word);
	}

	/** Whatever was pressed, the scanner types here next. */
	function heard(event: KeyboardEvent) {
		const target = event.target as HTMLElement;
		if (target.closest('input, textarea, select, button, a, summary, [role=dialog]')) return;
		if (event.key.length === 1 && event.key !== '/' && event.key !== '?' && !event.ctrlKey)
			input?.focus();
		if (event.key === 'Enter') onscan('');
	}

	export const focus = () => input?.focus();
	/** Puts what was typed elsewhere into the field, and goes on there. */
	export const type = (text: string) => {
		if (!input) return;
		input.value += text;
		input.focus();
	};
</script>

<svelte:window onkeydown={heard} />
<form onsubmit={take} class="flex flex-wrap items-end gap-3">
	<div class="min-w-40 flex-1">
		<label class="label" for={id}>{label}</label>
		<input
			{id}
			bind:this={input}
			autocomplete="off"
			autocapitalize="characters"
			{placeholder}
			class="tag w-full min-w-0 text-[1.35rem]! uppercase placeholder:font-sans placeholder:text-[1rem] placeholder:normal-case"
		/>
	</div>
	<button class="button">Take <kbd>Enter</kbd></button>
	<CameraKey open={looking} onclick={() => (looking = !looking)} />
	<span class="text-soft" role="status">{waiting ? `${waiting} to go …` : ''}</span>
</form>
{#if looking}<CameraScan
		{onscan}
		onclose={() => {
			looking = false;
			input?.focus();
		}}
	/>{/if}
