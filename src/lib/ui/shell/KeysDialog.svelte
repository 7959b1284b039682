<script lang="ts">
	/** Which keys work here, and the way to the guide. */
	import { Dialog } from 'bits-ui';
	import { COMMON_KEYS, type KeyHelp, pageKeys } from './keys.svelte';

	interface Props {
		open: boolean;
		/** Page of the guide about this section. */
		guide: string;
	}
	let { open = $bindable(), guide }: Props = $props();
	const here = $derived(open ? pageKeys() : []);
</script>

{#snippet list(keys: readonly KeyHelp[])}
	<dl class="grid grid-cols-[auto_1fr] items-baseline gap-x-4 gap-y-2">
		{#each keys as one (one.keys + one.does)}
			<dt>
				{#each one.keys.split(' ') as key (key)}<kbd class="mr-1">{key}</kbd>{/each}
			</dt>
			<dd>{one.does}</dd>
		{/each}
	</dl>
{/snippet}

<Dialog.Root bind:open>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-black/30" />
		<Dialog.Content
			class="fixed top-1/2 left-1/2 z-50 grid max-h-[92vh] w-[min(34rem,94vw)] -translate-x-1/2 -translate-y-1/2 gap-4 overflow-y-auto border-2 border-ink bg-sheet p-6"
		>
			<Dialog.Title class="text-[1.3rem] font-bold">Keys and help</Dialog.Title>
			{#if here.length}
				<section aria-labelledby="keys-here">
					<h2 id="keys-here">On this page</h2>
					<div class="mt-2">{@render list(here)}</div>
				</section>
			{/if}
			<section aria-labelledby="keys-all">
				<h2 id="keys-all">Everywhere</h2>
				<div class="mt-2">{@render list(COMMON_KEYS)}</div>
			</section>
			<div class="flex flex-wrap gap-3">
				<a class="button primary" href="/help#{guide}" onclick={() => (open = false)}
					>The guide to this page</a
				>
				<Dialog.Close class="button">Shut</Dialog.Close>
			</div>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>

<style>
	kbd {
		border: 1.5px solid var(--ink);
		border-radius: 4px;
		padding: 0 0.45rem;
		font-family: var(--font-mono);
		font-size: 0.95rem;
	}
</style>
