<script lang="ts">
	import Notice from '$lib/ui/form/Notice.svelte';
	import { siteMoment } from '$lib/ui/time/moments';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	const plural = (key: string | null) =>
		data.families.find((f) => f.key === key)?.plural ?? 'Everything';
	const id = crypto.randomUUID();
</script>

<svelte:head><title>Musters · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/items">Items</a></p>
<h1>Musters</h1>
<p class="mt-1 max-w-[46rem]">
	One sheet for many items: scan after scan, only exceptions are written, and at the end it says
	what was not presented. A muster does not take the place of the inspection that is due.
</p>
<div class="mt-5 grid gap-10 lg:grid-cols-[minmax(0,1fr)_20rem]">
	<section aria-labelledby="sheets">
		<h2 id="sheets">Sheets, newest first</h2>
		{#if data.musters.length === 0}<p class="mt-1">None yet. Begin one with the form.</p>{/if}
		<ul>
			{#each data.musters as { sheet, by, place } (sheet.id)}
				<li class="rowline">
					<a
						href="/items/musters/{sheet.id}"
						class="flex min-h-12 flex-wrap items-center gap-x-5 py-1 no-underline hover:bg-tint"
					>
						<b>{plural(sheet.family)}, {place ?? 'every place'}</b>
						<span class="text-soft">{by}, {siteMoment(sheet.startedAt)}</span>
						<span
							>{sheet.closedAt
								? sheet.missing?.length
									? `${sheet.missing.length} not presented`
									: 'all presented'
								: 'open'}</span
						>
					</a>
				</li>
			{/each}
		</ul>
	</section>
	{#if data.mayStart}
		<form method="post" class="grid gap-4 self-start rounded border-2 border-ink bg-sheet p-4">
			<h2 class="text-[1.15rem]! text-ink!">A new muster</h2>
			<input type="hidden" name="id" value={id} />
			<label
				><span class="label">Place</span><select name="placeId" class="w-full"
					><option value="">every place</option>{#each data.places as p (p.id)}<option value={p.id}
							>{p.name}</option
						>{/each}</select
				></label
			>
			<label
				><span class="label">Kind</span><select name="family" class="w-full"
					><option value="">every kind</option>{#each data.families as f (f.key)}<option
							value={f.key}>{f.plural}</option
						>{/each}</select
				></label
			>
			{#if refusal}<Notice kind="refusal"><p>{refusal.message}</p></Notice>{/if}
			<button class="button primary">Begin</button>
		</form>
	{/if}
</div>
