<script lang="ts">
	/** What a rule would do before it is kept: how many items, where, and the work that it brings at once. */
	interface Props {
		preview: {
			items: number;
			due: number;
			overdue: number;
			places: { place: string; due: number; overdue: number }[];
			benchMinutes: number;
		};
	}
	let { preview }: Props = $props();
	const time = (minutes: number) =>
		minutes < 60
			? `${minutes} min`
			: `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`;
</script>

<div class="rounded border-2 border-ink bg-sheet p-4" role="status">
	<p>
		It looks at <b>{preview.items}</b> items.
		{#if preview.due + preview.overdue === 0}Nothing becomes due or overdue by it today.{:else}Today
			<b class="text-held">{preview.overdue} become overdue</b> and <b>{preview.due} due</b>: about
			<b>{time(preview.benchMinutes)}</b> at the bench.{/if}
	</p>
	{#if preview.places.length}
		<table class="mt-2 w-full max-w-[30rem] text-left">
			<caption class="sr-only">By place</caption>
			<thead class="text-soft text-[0.9rem]"
				><tr
					><th class="font-semibold">Place</th><th class="text-right font-semibold">overdue</th><th
						class="text-right font-semibold">due</th
					></tr
				></thead
			>
			<tbody
				>{#each preview.places as row (row.place)}<tr class="border-t border-rule"
						><td class="py-1">{row.place}</td><td class="text-right font-mono">{row.overdue}</td><td
							class="text-right font-mono">{row.due}</td
						></tr
					>{/each}</tbody
			>
		</table>
	{/if}
</div>
