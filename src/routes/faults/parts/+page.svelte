<script lang="ts">
	/** The store of parts and consumables: what is there by lot, what to buy, a delivery in, a count. */
	import { readable } from '$core/plan/calendar';
	import { freshId } from '$lib/fresh-id';
	import DayField from '$lib/ui/form/DayField.svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import { refusedAt } from '$lib/ui/form/refused';
	import TableImport from '$lib/ui/register/TableImport.svelte';
	import { FAULT_LINKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';

	let { data, form } = $props();
	let deliveryId = $state(freshId());
	let open = $state<string | null>(null);
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const at = (path: string) => refusedAt(refusal, path);
	const said = $derived(
		form && 'received' in form
			? `Taken in: ${form.received}.`
			: form && 'levelled' in form
				? `${form.levelled}: when to buy is kept.`
				: form && 'disposed' in form
					? 'Taken out of the store.'
					: null
	);
	const FIELDS = [
		'part',
		'lot',
		'useBy',
		'quantity',
		'location',
		'costEach',
		'level',
		'why',
		'file'
	];
	const buy = $derived(data.parts.filter((part) => part.buy));
	const groups = $derived(
		[
			{ name: 'Parts that are fitted', parts: data.parts.filter((part) => !part.consumable) },
			{ name: 'Used up', parts: data.parts.filter((part) => part.consumable) }
		].filter(({ parts }) => parts.length)
	);
	const lotIds = $derived(data.parts.flatMap(({ lots }) => lots.map(({ id }) => id)));
</script>

<svelte:head><title>Parts store · Grevan</title></svelte:head>
<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
	<h1>Parts store</h1>
	<p class="text-soft">
		{buy.length ? `${buy.length} to buy` : 'nothing to buy'}
	</p>
	<span class="ml-auto flex flex-wrap gap-3">
		{#if lotIds.length}<a class="button" href="/faults/parts/labels?lots={lotIds.join(',')}"
				>Labels</a
			>{/if}
		{#if data.mayKeep && lotIds.length}<a class="button" href="/faults/parts/count">Stock-take</a
			>{/if}
	</span>
</div>
<div class="mt-2"><SectionLinks label="Faults" links={FAULT_LINKS} /></div>
{#if said}<div class="mt-3"><Notice kind="good"><p role="status">{said}</p></Notice></div>{/if}
{#if refusal && !FIELDS.includes(refusal.path ?? '')}<div class="mt-3">
		<Notice kind="refusal"><p>{refusal.message}</p></Notice>
	</div>{/if}
<div class="mt-4 grid gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,1fr)_22rem]">
	<div>
		{#if data.parts.length === 0}<p>
				None yet. A repair names the lot of each part that it uses, so that it is known for ever
				where a lot sits: take a delivery in, or a whole table.
			</p>{/if}
		{#each groups as group (group.name)}
			<section aria-label={group.name} class="mb-7">
				<h2>{group.name}</h2>
				<ul>
					{#each group.parts as part (part.part)}
						<li class="rowline py-2">
							<div class="flex flex-wrap items-baseline gap-x-4">
								<b class="min-w-[12rem]">{part.name}</b>
								<span class="font-mono text-[1.15rem] font-semibold {part.buy ? 'text-held' : ''}"
									>{part.usable}</span
								>
								<span class="text-soft"
									>to use{part.runsOut ? `, ${part.runsOut} of them run out soon` : ''}</span
								>
								{#if part.past}<span class="font-semibold text-held"
										>{part.past} past their date</span
									>{/if}
								{#if part.buy}<span class="font-semibold text-held">buy: below {part.level}</span
									>{/if}
								{#if data.mayKeep}<button
										class="linkish ml-auto min-h-11"
										aria-expanded={open === part.part}
										aria-label="Change {part.name}"
										onclick={() => (open = open === part.part ? null : part.part)}>Change</button
									>{/if}
							</div>
							<ul class="flex flex-wrap gap-x-6">
								{#each part.lots as lot (lot.id)}<li class="min-h-8">
										<span class="font-mono">{lot.lot}</span>: {lot.quantity}
										<span
											class={lot.useBy && lot.useBy < data.asOf
												? 'font-semibold text-held'
												: 'text-soft'}
											>{lot.useBy
												? `${lot.useBy < data.asOf ? 'past' : 'until'} ${readable(lot.useBy)}`
												: 'keeps'}</span
										>{#if lot.location}<span class="text-soft"> · {lot.location}</span>{/if}
									</li>{:else}<li class="text-soft">no lot in the store</li>{/each}
							</ul>
							{#if open === part.part}
								<div class="mt-2 grid gap-4 border-l-4 border-accent pl-4">
									<form
										method="post"
										action="?/level"
										class="flex flex-wrap items-end gap-3"
										use:enhance={() =>
											async ({ update }) =>
												update({ reset: false })}
									>
										<input type="hidden" name="part" value={part.part} />
										<PlainField
											name="level"
											label="Bought below"
											inputmode="numeric"
											width="w-28"
											value={part.level}
											mono
											refusal={at('level')}
										/>
										<button class="button">Keep</button>
									</form>
									{#each part.lots as lot (lot.id)}
										<form
											method="post"
											action="?/dispose"
											class="flex flex-wrap items-end gap-3"
											use:enhance
										>
											<input type="hidden" name="lotId" value={lot.id} />
											<input type="hidden" name="seen" value={lot.quantity} />
											<div class="min-w-[14rem] flex-1">
												<PlainField
													name="why"
													label="Why lot {lot.lot} goes"
													required
													refusal={at('why')}
												/>
											</div>
											<button class="button">Take all {lot.quantity} out</button>
										</form>
									{/each}
								</div>
							{/if}
						</li>
					{/each}
				</ul>
			</section>
		{/each}
	</div>
	{#if data.mayKeep}
		<div class="grid content-start gap-8">
			<section
				class="self-start rounded border-2 border-ink bg-sheet p-4"
				aria-labelledby="receive"
			>
				<h2 id="receive" class="text-[1.15rem]! text-ink!">A delivery came</h2>
				<form
					method="post"
					action="?/receive"
					class="mt-3 grid gap-4"
					use:enhance={() =>
						async ({ result, update }) => {
							await update({ reset: result.type === 'success' });
							if (result.type === 'success') deliveryId = freshId();
						}}
				>
					<input type="hidden" name="id" value={deliveryId} />
					<Field id="part" label="What" refusal={at('part')}>
						{#snippet children(field)}<select {...field} name="part" class="w-full"
								><option value="">choose</option>
								{#each [false, true] as consumable (consumable)}<optgroup
										label={consumable ? 'Used up' : 'Fitted'}
										>{#each data.names.filter((one) => one.consumable === consumable) as one (one.key)}<option
												value={one.key}>{one.name}</option
											>{/each}</optgroup
									>{/each}</select
							>{/snippet}
					</Field>
					<PlainField name="lot" label="Lot" mono autocomplete="off" refusal={at('lot')} />
					<DayField name="useBy" label="Use by, where it is printed" refusal={at('useBy')} />
					<div class="grid grid-cols-2 gap-4">
						<PlainField
							name="quantity"
							label="How many"
							inputmode="numeric"
							mono
							refusal={at('quantity')}
						/>
						<PlainField name="location" label="Where" placeholder="Drawer 3" />
						<PlainField
							name="costEach"
							label="Price of one"
							inputmode="decimal"
							mono
							refusal={at('costEach')}
						/>
					</div>
					<button class="button primary">Take into the store</button>
				</form>
			</section>
			<!-- Open where nothing is there yet, and where a table can be taken back. -->
			<details open={data.parts.length === 0 || data.last.length > 0}>
				<summary class="min-h-11 cursor-pointer content-center font-semibold"
					>Take parts in from a table</summary
				>
				<p class="mt-1">
					A row for each lot: <span class="font-mono">part, lot, quantity</span> and, where it is
					printed, <span class="font-mono">use by</span>.
				</p>
				<TableImport kind="parts" noun="lots" {form} last={data.last}>
					{#snippet done()}They stand in the store.{/snippet}
				</TableImport>
			</details>
		</div>
	{/if}
</div>
