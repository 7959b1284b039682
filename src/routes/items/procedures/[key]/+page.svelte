<script lang="ts">
	import { airwayOf, stationOf } from '$core/data/families';
	import { rejectCode } from '$core/data/reject-codes';
	import { originLine } from '$core/verdict';
	import EditionChanges from './EditionChanges.svelte';
	import { siteDay } from '$lib/ui/time/moments';

	let { data } = $props();
	const procedure = $derived(data.procedure);
</script>

<svelte:head><title>{procedure?.name} · Grevan</title></svelte:head>
<p class="text-soft"><a class="linkish" href="/items/procedures">Procedures</a></p>
{#if procedure}
	<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
		<h1>{procedure.name}</h1>
		<p class="text-soft">
			{airwayOf(procedure.family).name} · {data.shown} · {originLine(procedure.origin)}
		</p>
		{#if data.mayEdit && data.newest}<a
				class="button ml-auto"
				href="/items/procedures/{procedure.key}/edit">Make a new version</a
			>{/if}
	</div>
	<div class="mt-5 grid gap-10 lg:grid-cols-[minmax(0,1fr)_21rem]">
		<ol>
			{#each procedure.steps as step, i (step.key)}
				<li class="rowline grid gap-x-4 py-2 sm:grid-cols-[2.2rem_1fr]">
					<span class="text-soft font-mono">{i + 1}</span>
					<div>
						<p>
							<b>{step.title}</b>
							<span class="text-soft"
								>· {stationOf(procedure.family, step.station).name}{step.ifFitted
									? ' · if fitted'
									: ''}{step.secondPerson ? ' · by a second person' : ''}</span
							>
						</p>
						<p>{step.action}</p>
						<p class="text-soft">Good: {step.good}</p>
						<p class="text-[0.9rem]">
							{#each step.rejects as code (code)}<span class="mr-3 inline-block"
									><span class="tag">{code}</span> {rejectCode(code).name}</span
								>{/each}
						</p>
					</div>
				</li>
			{/each}
		</ol>
		<section aria-labelledby="versions">
			<h2 id="versions">Versions</h2>
			<ol>
				{#each data.editions as edition (edition.version)}
					<li class="rowline py-2">
						<p>
							<a
								class="linkish font-bold"
								href="?version={edition.version}"
								aria-current={edition.version === procedure.version ? 'true' : undefined}
								>{edition.name}</a
							>
							<span class="text-soft"
								>{edition.by ? `· ${edition.by}` : '· with the program'}{edition.at
									? `, ${siteDay(edition.at)}`
									: ''}</span
							>
						</p>
						{#if edition.reason}<p>{edition.reason}</p>{/if}
						<EditionChanges changes={edition.changes} />
					</li>
				{/each}
			</ol>
		</section>
	</div>
{/if}
