<script lang="ts">
	/** How many entries each day has: a bar for each day, and the same in words for who does not see them. */
	import { daysBetween, plusDays, readable } from '$core/plan/calendar';

	interface Props {
		days: { day: string; entries: number }[];
		first: string;
		last: string;
		/** Address of the entries of a day. */
		hrefOf: (day: string) => string;
	}
	let { days, first, last, hrefOf }: Props = $props();
	const MOST = 366;
	const counts = $derived(new Map(days.map(({ day, entries }) => [day, entries])));
	const all = $derived(
		Array.from({ length: Math.min(MOST, daysBetween(first, last) + 1) }, (_, i) => {
			const day = plusDays(last, i + 1 - Math.min(MOST, daysBetween(first, last) + 1));
			return { day, entries: counts.get(day) ?? 0 };
		})
	);
	const most = $derived(Math.max(1, ...all.map(({ entries }) => entries)));
	const total = $derived(all.reduce((sum, { entries }) => sum + entries, 0));
</script>

<figure class="mt-3">
	<div class="flex h-14 items-end gap-px border-b border-ink" aria-hidden="true">
		{#each all as { day, entries } (day)}
			<a
				href={hrefOf(day)}
				tabindex="-1"
				title="{readable(day)}: {entries}"
				class="flex h-full min-w-[2px] flex-1 items-end hover:bg-tint"
				><span
					class="block w-full bg-accent"
					style:height="{entries ? Math.max(4, (100 * entries) / most) : 0}%"
				></span></a
			>
		{/each}
	</div>
	<figcaption class="text-soft mt-1 flex justify-between text-[0.9rem]">
		<span>{readable(all[0]?.day ?? first)}</span>
		<span>{total.toLocaleString('en-GB')} entries, at most {most} a day</span>
		<span>{readable(last)}</span>
	</figcaption>
</figure>
