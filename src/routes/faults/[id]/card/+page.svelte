<script lang="ts">
	/** The card of a job for the bench: what was found, what is done, what proves it, on one sheet. */
	import { rejectCode } from '$core/data/reject-codes';
	import { siteDay, siteMoment } from '$lib/ui/time/moments';

	let { data } = $props();
	const code = $derived(rejectCode(data.defect.code));
</script>

<svelte:head><title>Job card, {data.item.tag} · Grevan</title></svelte:head>
<div class="no-print mb-4 flex flex-wrap items-center gap-4">
	<a class="linkish inline-flex min-h-11 items-center" href="/faults/{data.defect.id}"
		>{data.item.tag}, {code.name}</a
	>
	<button class="button primary ml-auto" onclick={() => print()}>Print</button>
</div>
<article class="mx-auto max-w-[46rem] border-2 border-ink bg-sheet p-8">
	<p class="flex flex-wrap items-baseline gap-x-4">
		<span class="tag text-[2rem]">{data.item.tag}</span>
		<span>{data.model}, size {data.item.size}, {data.place}</span>
	</p>
	<h1 class="mt-2 text-[1.5rem]">{data.station.name}: {code.name}</h1>
	<ul class="mt-1">
		{#each data.reports.filter(({ report }) => !report.withdrawnAt) as { report, by } (report.id)}
			<li>{siteMoment(report.reportedAt)}, {by}{report.note ? `: “${report.note}”` : ''}</li>
		{/each}
	</ul>
	<h2 class="mt-5 text-[1.25rem]! text-ink!">{data.repair.name}</h2>
	{#if data.job}<p>Begun {siteMoment(data.job.startedAt)}, {data.job.names[data.job.by]}</p>{/if}
	<ol class="mt-1 list-decimal pl-6 text-[1.05rem]">
		{#each data.repair.steps as line (line)}<li class="py-1">{line}</li>{/each}
	</ol>
	{#if data.fitted.length}<p class="mt-3">
			Sits there now:
			{#each data.fitted as part, i (part.lotId)}{i ? '; ' : ''}{part.name}, lot
				<span class="font-mono">{part.lot}</span>, since {siteDay(part.fittedAt)}{/each}
		</p>{/if}
	{#if data.parts.length}
		<h2 class="mt-5">Parts</h2>
		<ul>
			{#each data.parts as part (part.name)}
				<li class="rowline py-2">
					{part.quantity} × {part.name}
					<span class="text-soft"
						>{part.lots.length
							? part.lots
									.map(
										({ lot, location, left }) =>
											`${lot}, ${left} left${location ? `, ${location}` : ''}`
									)
									.join('; ')
							: 'none in the store within its shelf life'}</span
					>
					<span class="block pt-3">Lot used: ______________________</span>
				</li>
			{/each}
		</ul>
	{/if}
	<h2 class="mt-5">Each must hold</h2>
	<ul>
		{#each data.repair.proof as line (line)}<li class="flex items-center gap-3 py-1 text-[1.05rem]">
				<span class="inline-block size-5 shrink-0 border-2 border-ink" aria-hidden="true"
				></span>{line}
			</li>{/each}
	</ul>
	<p class="mt-6 flex flex-wrap gap-x-10 gap-y-4">
		<span>Minutes: __________</span><span>Done by: ______________________</span><span
			>Day: ______________</span
		>
	</p>
	<p class="mt-4 text-[0.93rem] text-soft">
		The maker's manual comes first. What is written here counts once it stands in the record.
	</p>
</article>
