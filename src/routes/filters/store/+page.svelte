<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import FilterBand from '$lib/ui/form/FilterBand.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { FILTER_LINKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';
	import ModelForm from './ModelForm.svelte';
	import { readable } from '$core/plan/calendar';
	import { freshId } from '$lib/fresh-id';
	import DayField from '$lib/ui/form/DayField.svelte';
	import { refusedAt } from '$lib/ui/form/refused';

	let { data, form } = $props();
	const scheme = $derived(data.site.codeScheme);
	let lotId = $state(freshId());
	let editing = $state<string | null>(null);
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const at = (path: string) => refusedAt(refusal, path);
	const RECEIVE = ['modelId', 'lot', 'useBy', 'quantity'];
</script>

<svelte:head><title>Filter store · Grevan</title></svelte:head>
<div class="flex flex-wrap items-center gap-x-4">
	<h1>Filter store</h1>
	<p class="text-soft">sealed packs by filter and lot</p>
	{#if data.mayKeep}<a class="button ml-auto" href="/filters/import">CSV in</a><button
			class="button"
			onclick={() => (editing = editing === 'new' ? null : 'new')}>New filter</button
		>{/if}
</div>
<div class="mt-3"><SectionLinks label="Filters" links={FILTER_LINKS} /></div>
{#if form && 'result' in form}<div class="mt-3">
		<Notice kind="good"><p>{form.result?.saved} is kept.</p></Notice>
	</div>{/if}
{#if form && 'received' in form}<div class="mt-3">
		<Notice kind="good"><p>Taken in: {form.received}.</p></Notice>
	</div>{/if}
{#if refusal && !RECEIVE.includes(refusal.path ?? '')}<div class="mt-3">
		<Notice kind="refusal"><p>{refusal.message}</p></Notice>
	</div>{/if}
{#if editing === 'new' && data.mayKeep}<ModelForm
		filled={data.filled.new!}
		version={0}
		done={() => (editing = null)}
	/>{/if}
<div class="mt-5 grid gap-10 lg:grid-cols-[minmax(0,1fr)_20rem]">
	<ul>
		{#each data.models as row (row.model.id)}
			<li class="rowline py-3">
				<div class="grid grid-cols-[10rem_1fr_auto] items-center gap-4">
					<FilterBand
						code={(scheme === 'us' ? row.model.codeUs : row.model.codeEn) ?? row.model.name}
						{scheme}
						small
					/>
					<span
						><b>{row.model.name}</b><br /><span class="text-soft"
							>{row.model.mount} · {row.model.massG} g{row.model.bed
								? ' · maker’s bed data'
								: ''}{row.model.openedMonths
								? ` · ${row.model.openedMonths} months once open`
								: ''}</span
						></span
					>
					<span class="text-right"
						><b class="font-mono text-[1.15rem] {row.buy ? 'text-held' : ''}">{row.usable}</b>
						<span class="text-soft">usable</span><br />{#if row.buy}<span
								class="font-semibold text-held">buy: below {row.model.reorderLevel}</span
							>{:else if row.model.reorderLevel}<span class="text-soft"
								>buy below {row.model.reorderLevel}</span
							>{/if}</span
					>
				</div>
				<ul class="mt-1 flex flex-wrap gap-x-6 pl-[11rem]">
					{#each row.lots as lot (lot.id)}<li>
							<a
								class="linkish inline-flex min-h-11 items-center gap-2"
								href="/filters/lots/{lot.id}"
								><span class="font-mono">{lot.lot}</span>
								{lot.sealedQuantity} ·
								{#if lot.recalledAt}<span class="font-semibold text-held">recalled</span
									>{:else if lot.useBy < data.asOf}<span class="font-semibold text-held"
										>past {readable(lot.useBy)}</span
									>{:else}until {readable(lot.useBy)}{/if}</a
							>
						</li>{:else}<li class="text-soft">no lot in the store</li>{/each}
					{#if data.mayKeep}<li>
							<button
								class="linkish inline-flex min-h-11 items-center"
								onclick={() => (editing = editing === row.model.id ? null : row.model.id)}
								>Change</button
							>
						</li>{/if}
				</ul>
				{#if editing === row.model.id}<ModelForm
						filled={data.filled[row.model.id]!}
						version={row.model.version}
						done={() => (editing = null)}
					/>{/if}
			</li>
		{:else}<li class="mt-4">No filter yet. “New filter” takes in its marking, mount and mass.</li>
		{/each}
	</ul>
	{#if data.mayKeep}
		<section class="self-start rounded border-2 border-ink bg-sheet p-4" aria-labelledby="receive">
			<h2 id="receive" class="text-[1.15rem]! text-ink!">A delivery came</h2>
			<form
				method="post"
				action="?/receive"
				class="mt-3 grid gap-4"
				use:enhance={() =>
					async ({ result, update }) => {
						await update({ reset: result.type === 'success' });
						if (result.type === 'success') lotId = freshId();
					}}
			>
				<input type="hidden" name="id" value={lotId} />
				<Field id="modelId" label="Filter" refusal={at('modelId')}>
					{#snippet children(field)}<select {...field} name="modelId" class="w-full"
							><option value="">choose</option>{#each data.models as row (row.model.id)}<option
									value={row.model.id}>{row.model.name}</option
								>{/each}</select
						>{/snippet}
				</Field>
				<Field id="lot" label="Lot" refusal={at('lot')}>
					{#snippet children(field)}<input
							{...field}
							name="lot"
							class="tag w-full"
							autocomplete="off"
						/>{/snippet}
				</Field>
				<DayField name="useBy" label="Use by" refusal={at('useBy')} />
				<div class="grid grid-cols-2 gap-4">
					<Field id="quantity" label="How many" refusal={at('quantity')}>
						{#snippet children(field)}<input
								{...field}
								name="quantity"
								inputmode="numeric"
								class="w-full font-mono"
							/>{/snippet}
					</Field>
					<Field id="location" label="Where">
						{#snippet children(field)}<input
								{...field}
								name="location"
								class="w-full"
								placeholder="Store A2"
							/>{/snippet}
					</Field>
				</div>
				<button class="button primary">Take into the store</button>
			</form>
		</section>
	{/if}
</div>
