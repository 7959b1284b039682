<script lang="ts">
	/** The answers to a step, with the keys that give them; within reach of a thumb on a phone. */
	import type { Step } from '$core/inspection/procedure';

	interface Props {
		step: Step | null;
		/** Every step is answered: it can be signed. */
		ready: boolean;
		done: number;
		/** A reject code is being chosen. */
		choosing: boolean;
		/** Seen and hit from afar: with an elbow, or a knuckle in a glove. */
		large?: boolean;
		/** Somebody else answers this step. */
		blocked: boolean;
		/** What ends the list. */
		signs?: string;
		onsign: () => void;
		ongood: () => void;
		onreject: () => void;
		onabsent: () => void;
		/** Left out: no notes here. */
		onnote?: () => void;
		onundo: () => void;
	}
	let {
		step,
		ready,
		done,
		choosing,
		blocked,
		large = false,
		signs = 'Sign',
		onsign,
		ongood,
		onreject,
		onabsent,
		onnote,
		onundo
	}: Props = $props();
</script>

<div class={['answers no-print', large && 'large']}>
	{#if ready}
		<button type="button" class="button big good" onclick={onsign}><kbd>Enter</kbd> {signs}</button>
	{:else}
		<button
			type="button"
			class="button big good"
			onclick={ongood}
			disabled={!step || choosing || blocked || step.reading !== undefined}
			><kbd>1</kbd> Good</button
		>
		<button
			type="button"
			class="button big reject"
			onclick={onreject}
			disabled={!step || blocked}
			aria-expanded={choosing}><kbd>2</kbd> Reject</button
		>
		<button
			type="button"
			class="button big"
			onclick={onabsent}
			disabled={!step?.ifFitted || choosing || blocked}><kbd>3</kbd> Not fitted</button
		>
	{/if}
	{#if onnote}<button type="button" class="button" onclick={onnote} disabled={!step}
			><kbd>N</kbd> Note</button
		>{/if}
	<button type="button" class="button" onclick={onundo} disabled={done === 0}
		><kbd>U</kbd> Undo</button
	>
</div>

<style>
	.answers {
		position: fixed;
		left: 0;
		right: 0;
		bottom: 0;
		display: grid;
		grid-template-columns: 2fr 1.6fr 1.2fr;
		gap: 8px;
		padding: 10px 1rem calc(10px + env(safe-area-inset-bottom));
		background: var(--paper);
		border-top: 1px solid var(--rule);
	}
	.big {
		min-height: 60px;
		font-size: 1.15rem;
		padding: 0 0.5rem;
	}
	.good {
		background: var(--ready);
		border-color: var(--ready);
		color: var(--onaccent);
	}
	.good:hover:not(:disabled) {
		background: var(--ready);
		filter: brightness(1.1);
	}
	.good:disabled {
		background: var(--tint);
		border-color: var(--rule);
		color: var(--soft);
	}
	.reject {
		border-color: var(--held);
		color: var(--held);
	}
	.large .big,
	.large .button {
		min-height: 22vh;
		font-size: clamp(1.4rem, 4vw, 3rem);
	}
	@media (min-width: 64rem) {
		.answers {
			left: 136px;
			grid-template-columns: 2.2fr 1.6fr 1.2fr auto auto;
			gap: 12px;
			padding: 14px 1.6rem 18px;
		}
		.answers:not(.large) .button {
			min-height: 68px;
		}
	}
</style>
