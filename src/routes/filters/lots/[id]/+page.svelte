<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import FilterBand from '$lib/ui/form/FilterBand.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import Reading from '$lib/ui/reading/Reading.svelte';
	import { readable } from '$core/plan/calendar';
	import { siteDay, siteMoment } from '$lib/ui/time/moments';
	import { refusedAt } from '$lib/ui/form/refused';

	let { data, form } = $props();
	const scheme = $derived(data.site.codeScheme);
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const at = (path: string) => refusedAt(refusal, path);
	const worn = $derived(data.pairs.filter((p) => p.pair.discardedAt === null));
</script>

<svelte:head><title>Lot {data.lot.lot} · Grevan</title></svelte:head>
<p class="text-soft"><a class="linkish" href="/filters/store">Store</a></p>
<div class="flex flex-wrap items-center gap-4">
	<h1>Lot <span class="font-mono">{data.lot.lot}</span></h1>
	<FilterBand
		code={(scheme === 'us' ? data.model.codeUs : data.model.codeEn) ?? data.model.name}
		{scheme}
		small
	/>
	<p>{data.model.name} <span class="text-soft">· {data.lot.location || 'no place noted'}</span></p>
</div>
{#if data.lot.recalledAt}<div class="mt-4">
		<Notice kind="refusal"
			><p>
				<b>Recalled</b>
				{siteMoment(data.lot.recalledAt)}: {data.lot.recallReason}. Nothing more is opened from it; {worn.length}
				still {worn.length === 1 ? 'hangs' : 'hang'} on masks, which are held.
			</p></Notice
		>
	</div>{/if}
{#if form && 'recalled' in form}<div class="mt-3">
		<Notice kind="caution"
			><p>Held at once: {form.recalled?.held.join(', ') || 'no mask wears it'}.</p></Notice
		>
	</div>{/if}
{#if refusal && !['reason', 'why'].includes(refusal.path ?? '')}<div class="mt-3">
		<Notice kind="refusal"><p>{refusal.message}</p></Notice>
	</div>{/if}
<div class="mt-5 grid gap-10 lg:grid-cols-[minmax(0,1fr)_20rem]">
	<section aria-labelledby="opened">
		<div class="flex flex-wrap gap-8">
			<Reading label="Sealed in the store" value={String(data.lot.sealedQuantity)} large={false} />
			<Reading
				label="Use by"
				value={readable(data.lot.useBy)}
				limit={data.lot.useBy < data.asOf ? 'past' : ''}
				large={false}
			/>
			<Reading label="On masks now" value={String(worn.length)} large={false} />
		</div>
		<h2 id="opened" class="mt-5">Opened from it</h2>
		{#if data.pairs.length === 0}<p>Nothing yet.</p>{/if}
		<ul>
			{#each data.pairs as row (row.pair.id)}<li class="rowline">
					<a
						href="/filters/pairs/{row.tag}"
						class="grid min-h-12 grid-cols-[5rem_6rem_1fr] items-center gap-4 no-underline hover:bg-tint"
						><span class="tag">{row.tag}</span><span class="tag">{row.itemTag}</span><span
							class="text-soft"
							>opened {readable(row.pair.openedOn)} by {row.by}{row.pair.discardedAt
								? `, out of use ${siteDay(row.pair.discardedAt)}`
								: ''}</span
						></a
					>
				</li>{/each}
		</ul>
	</section>
	{#if data.mayKeep}
		<aside class="grid content-start gap-6">
			{#if !data.lot.recalledAt}<form
					method="post"
					action="?/recall"
					use:enhance
					class="grid gap-3 rounded border-2 border-held p-4"
				>
					<Field
						id="reason"
						label="Recall this lot because"
						refusal={at('reason')}
						hint="Every mask that wears it is held at once."
					>
						{#snippet children(field)}<textarea {...field} name="reason" rows="2" class="w-full"
							></textarea>{/snippet}
					</Field>
					<button class="button">Recall the lot</button>
				</form>{/if}
			{#if data.lot.sealedQuantity > 0}<form
					method="post"
					action="?/dispose"
					use:enhance
					class="grid gap-3 rounded border-2 border-ink p-4"
				>
					<input type="hidden" name="seen" value={data.lot.sealedQuantity} />
					<Field
						id="why"
						label="Dispose of the {data.lot.sealedQuantity} sealed because"
						refusal={at('why')}
					>
						{#snippet children(field)}<input {...field} name="why" class="w-full" />{/snippet}
					</Field>
					<button class="button">Take them out of the store</button>
				</form>{/if}
		</aside>
	{/if}
</div>
