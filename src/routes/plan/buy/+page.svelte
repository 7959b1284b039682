<script lang="ts">
	/** What to order and by when, and what to fill. */
	import { readable } from '$core/plan/calendar';

	let { data } = $props();
	const toBuy = $derived(data.lines.filter(({ order }) => order > 0));
	const enough = $derived(data.lines.filter(({ order }) => order === 0));
	const whole = (value: number) => Math.round(value).toLocaleString('en-GB');
</script>

<svelte:head><title>Buy and fill · Plan · Grevan</title></svelte:head>
<div class="mt-4 flex flex-wrap items-baseline gap-x-4 gap-y-1">
	<h1>Buy and fill</h1>
	<p class="text-soft">
		the next {data.days} days; a delivery takes {data.leadDays} days, and {100 * data.serviceLevel} %
		of the time there is to be enough until it comes
	</p>
	<button class="button no-print ml-auto" type="button" onclick={() => print()}>Print</button>
</div>
<section class="mt-4" aria-labelledby="buy-title">
	<h2 id="buy-title">To order · {toBuy.length}</h2>
	{#if toBuy.length === 0}<p class="mt-1">
			Nothing has to be ordered in this time, by what the record says.
		</p>{:else}
		<table class="mt-1 w-full max-w-[58rem] text-left">
			<thead class="text-[0.9rem] text-soft"
				><tr
					><th class="font-normal">What</th><th class="text-right font-normal">Order</th><th
						class="pl-4 font-normal">Out by</th
					><th class="text-right font-normal max-sm:hidden">In hand</th><th
						class="text-right font-normal max-sm:hidden">Used in {data.days} days</th
					><th class="pl-4 font-normal max-md:hidden">Because</th></tr
				></thead
			>
			<tbody>
				{#each toBuy as line (line.key)}
					<tr class="border-t border-rule">
						<td class="py-1"
							><a class="inline-flex min-h-9 items-center font-semibold" href={line.href}
								>{line.name}</a
							></td
						>
						<td class="text-right font-mono whitespace-nowrap"
							><b>{whole(line.order)}</b> {line.unit}</td
						>
						<td class="pl-4 whitespace-nowrap"
							>{#if line.late}<b class="text-held">today</b>{:else}{readable(
									line.orderBy ?? data.from
								)}{/if}</td
						>
						<td class="text-right font-mono max-sm:hidden">{whole(line.inHand)}</td>
						<td class="text-right font-mono max-sm:hidden">{whole(line.expected)}</td>
						<td class="pl-4 text-[0.93rem] text-soft max-md:hidden"
							>{line.why}; ordered below {whole(line.reorderAt)}{line.wasted >= 1
								? `; ${whole(line.wasted)} grow too old first`
								: ''}</td
						>
					</tr>
				{/each}
			</tbody>
		</table>
	{/if}
	{#if data.consumables.length}<p class="mt-3">
			Below their level: {data.consumables.join(', ')}.
			<a href="/faults/parts">Parts store</a>
		</p>{/if}
</section>
<section class="mt-7" aria-labelledby="fill-title">
	<h2 id="fill-title">To fill</h2>
	<ul class="mt-1 max-w-[40rem]">
		<li class="rowline flex justify-between py-1.5">
			<span>Cylinders in a day, as of late</span><b class="font-mono"
				>{data.fill.perDay.toFixed(1)}</b
			>
		</li>
		<li class="rowline flex justify-between py-1.5">
			<span>Fresh air that falls due, by the plan</span><b class="font-mono">{data.fill.fresh}</b>
		</li>
		<li class="rowline flex justify-between py-1.5">
			<span>Air tests, by the plan</span><b class="font-mono">{data.fill.airTests}</b>
		</li>
	</ul>
</section>
{#if enough.length}
	<details class="mt-6">
		<summary class="linkish min-h-11 content-center">Enough of {enough.length} others</summary>
		<ul class="max-w-[58rem]">
			{#each enough as line (line.key)}<li
					class="rowline flex flex-wrap justify-between gap-x-4 py-1"
				>
					<span>{line.name}</span><span class="text-soft"
						>{whole(line.inHand)} in hand, {whole(line.expected)} used; {line.why}</span
					>
				</li>{/each}
		</ul>
	</details>
{/if}
