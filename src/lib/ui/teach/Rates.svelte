<script lang="ts">
	import AsCsv from '../table/AsCsv.svelte';

	/** Rates beside each other: a mark at the rate, a line as long as it is unsure, the numbers behind. */
	interface Rate {
		name: string;
		failures: number;
		trials: number;
		rate: number;
		lower: number;
		upper: number;
		href?: string | undefined;
	}
	interface Props {
		label: string;
		rates: readonly Rate[];
		/** What is counted against, such as inspections. */
		of?: string;
	}
	let { label, rates, of = 'inspections' }: Props = $props();
	/** So few failures that nothing follows from them yet. Common practice. */
	const SMALL = 5;
	const highest = $derived(Math.max(0.001, ...rates.map(({ upper }) => Math.min(upper, 1))));
	const at = (share: number) => `${Math.min(100, (share / highest) * 100)}%`;
	const per = (share: number) => (share * 1000).toFixed(share * 1000 < 10 ? 1 : 0);
</script>

<table class="w-full">
	<caption class="sr-only">{label}</caption>
	<thead
		><tr
			><th scope="col" class="w-[11rem]"></th><th scope="col"
				><span class="sr-only">How it lies</span></th
			><th scope="col" class="w-28 text-right">per 1,000</th><th
				scope="col"
				class="w-36 text-right max-sm:hidden">{of}</th
			></tr
		></thead
	>
	<tbody>
		{#each rates as one (one.name)}
			<tr class="rowline">
				<th scope="row" class="py-1 text-left font-normal"
					>{#if one.href}<a class="linkish inline-flex min-h-9 items-center" href={one.href}
							>{one.name}</a
						>{:else}{one.name}{/if}</th
				>
				<td class="py-1 pr-3">
					<div class="relative h-5" aria-hidden="true">
						<div class="absolute inset-y-[9px] right-0 left-0 border-t border-rule"></div>
						<div
							class="absolute top-[8px] h-[4px] bg-soft/50"
							style="left: {at(one.lower)}; right: calc(100% - {at(one.upper)})"
						></div>
						<div
							class="absolute top-[4px] -ml-[6px] size-3 border-2 border-ink {one.failures < SMALL
								? 'bg-sheet'
								: 'bg-ink'}"
							style="left: {at(one.rate)}"
						></div>
					</div>
				</td>
				<td class="py-1 text-right font-mono whitespace-nowrap"
					>{per(one.rate)}
					<span class="text-[0.85rem] text-soft">{per(one.lower)}–{per(one.upper)}</span></td
				>
				<td class="py-1 text-right font-mono max-sm:hidden">{one.failures} of {one.trials}</td>
			</tr>
		{/each}
	</tbody>
</table>
{#if rates.length}<AsCsv
		name={label.toLowerCase().replaceAll(' ', '-')}
		rows={rates}
		columns={[
			{ head: 'group', value: (row) => row.name },
			{ head: 'faults', value: (row) => row.failures },
			{ head: of, value: (row) => row.trials },
			{ head: 'per 1,000', value: (row) => row.rate * 1000 },
			{ head: 'lower 95 %', value: (row) => row.lower * 1000 },
			{ head: 'upper 95 %', value: (row) => row.upper * 1000 }
		]}
	/>{/if}
{#if rates.some(({ failures }) => failures < SMALL)}<p class="mt-1 text-[0.9rem] text-soft">
		Hollow marks: fewer than {SMALL} faults, a small number.
	</p>{/if}
