<script lang="ts">
	/** A field for a PIN with keys that gloves hit; a keyboard goes on working. */
	import Delete from '@lucide/svelte/icons/delete';
	import { PIN_MOST } from '$core/access/secrets';

	interface Props {
		id: string;
		value: string;
		name?: string;
		invalid?: boolean;
		describedBy?: string | undefined;
		input?: HTMLInputElement | undefined;
	}
	let {
		id,
		value = $bindable(),
		name = 'pin',
		invalid = false,
		describedBy,
		input = $bindable()
	}: Props = $props();
	const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9'];

	function press(key: string) {
		value = key === 'back' ? value.slice(0, -1) : (value + key).slice(0, PIN_MOST);
		input?.focus();
	}
</script>

<input
	{id}
	{name}
	bind:this={input}
	bind:value
	type="password"
	inputmode="numeric"
	autocomplete="off"
	maxlength={PIN_MOST}
	required
	aria-invalid={invalid ? 'true' : undefined}
	aria-describedby={describedBy}
	class="w-full max-w-[15rem] font-mono text-[1.5rem] tracking-[0.3em]"
/>
<div class="mt-2 grid w-full max-w-[15rem] grid-cols-3 gap-2" aria-label="Digits" role="group">
	{#each KEYS as key (key)}<button
			type="button"
			class="button min-h-[52px]! font-mono text-[1.3rem]"
			onclick={() => press(key)}>{key}</button
		>{/each}
	<button
		type="button"
		class="button min-h-[52px]!"
		aria-label="Take the last digit away"
		onclick={() => press('back')}><Delete size={22} aria-hidden="true" /></button
	>
	<button
		type="button"
		class="button min-h-[52px]! font-mono text-[1.3rem]"
		onclick={() => press('0')}>0</button
	>
	<button class="button primary min-h-[52px]! px-0!">Enter</button>
</div>
