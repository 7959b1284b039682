<script lang="ts">
	/** The cells of a table that are at fault, by row and column. */
	interface Props {
		/** Those that are shown; `count` says how many there are. */
		faults: readonly { row: number; column: string; message: string }[];
		count: number;
	}
	let { faults, count }: Props = $props();
</script>

{#if faults.length}
	<table class="mt-3 w-full max-w-[60rem] text-left">
		<caption class="sr-only">Cells at fault</caption>
		<thead class="text-soft text-[0.9rem]"
			><tr
				><th class="pr-4 font-semibold">Row</th><th class="pr-4 font-semibold">Column</th><th
					class="font-semibold">What is wrong</th
				></tr
			></thead
		>
		<tbody
			>{#each faults as f, i (i)}<tr class="border-t border-rule align-top"
					><td class="py-1 pr-4 font-mono">{f.row}</td><td class="pr-4 font-semibold">{f.column}</td
					><td class="text-held">{f.message}</td></tr
				>{/each}</tbody
		>
	</table>
	{#if count > faults.length}<p class="text-soft mt-1">
			The first {faults.length} of {count.toLocaleString('en-GB')}.
		</p>{/if}
{/if}
