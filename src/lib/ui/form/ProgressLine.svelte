<script lang="ts">
	/** How far something long is, and the key that stops it. */
	import type { Progress } from './task-progress.svelte';

	interface Props {
		progress: Progress | null;
		/** What is said before it tells how far it is. */
		waiting: string;
		/** What the key says; without one it cannot be stopped. */
		stop?: string;
		onstop?: () => void;
	}
	let { progress, waiting, stop, onstop }: Props = $props();
</script>

<div class="flex flex-wrap items-center gap-4" role="status">
	{#if progress}
		<progress
			class="h-3 min-w-[12rem] flex-1 accent-accent"
			max={progress.total}
			value={progress.done}
			aria-label="How far it is"
		></progress>
		<span class="font-mono"
			>{progress.done.toLocaleString('en-GB')} of {progress.total.toLocaleString('en-GB')}</span
		>
		{#if stop}<button type="button" class="button" disabled={progress.cancelled} onclick={onstop}
				>{progress.cancelled ? 'Stopping …' : stop}</button
			>{/if}
	{:else}{waiting}{/if}
</div>
