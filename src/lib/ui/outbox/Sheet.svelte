<script lang="ts">
	/** What was given, as a sheet to copy: for where nothing else will keep it. */
	import { Dialog } from 'bits-ui';
	import { siteMoment } from '../time/moments';
	import type { Waiting } from './parcel';

	interface Props {
		parcels: readonly Waiting[];
	}
	let { parcels }: Props = $props();
	let sheet = $state<HTMLTextAreaElement>();
	let said = $state('');
	const text = $derived(
		parcels.map((p) => `${siteMoment(new Date(p.at))}  ${p.name}  ${p.says ?? p.url}`).join('\n')
	);

	async function copy() {
		sheet?.select();
		try {
			await navigator.clipboard.writeText(text);
			said = 'Copied.';
		} catch {
			said = 'Marked: copy it with Ctrl C, or write it down.';
		}
	}
</script>

<Dialog.Root onOpenChange={() => (said = '')}>
	<Dialog.Trigger class="button">As a sheet to copy</Dialog.Trigger>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-black/30" />
		<Dialog.Content
			class="fixed top-1/2 left-1/2 z-50 grid max-h-[96vh] w-[min(46rem,94vw)] -translate-x-1/2 -translate-y-1/2 gap-3 overflow-y-auto border-2 border-ink bg-sheet p-6"
		>
			<Dialog.Title class="text-[1.3rem] font-bold">What was given and not sent</Dialog.Title>
			<Dialog.Description class="text-soft"
				>In the order in which it was given. Keep it on paper or in a file until it is entered.</Dialog.Description
			>
			<textarea
				bind:this={sheet}
				readonly
				rows={Math.min(16, parcels.length + 1)}
				value={text}
				aria-label="What was given"
				class="w-full font-mono text-[0.95rem]"
			></textarea>
			<div class="flex flex-wrap items-center gap-3">
				<button class="button primary" onclick={() => void copy()}>Copy</button>
				<Dialog.Close class="button">Close</Dialog.Close>
				<span role="status">{said}</span>
			</div>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
