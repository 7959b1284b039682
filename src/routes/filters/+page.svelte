<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import { goto } from '$app/navigation';
	import Because from '$lib/ui/because/Because.svelte';
	import Field from '$lib/ui/form/Field.svelte';
	import FilterBand from '$lib/ui/form/FilterBand.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { clock } from '$core/filters/schedule';
	import { EARLY_REASONS } from '$core/filters/ledger';
	import { FILTER_LINKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';
	import { readable } from '$core/plan/calendar';
	import { freshId } from '$lib/fresh-id';

	let { data, form } = $props();
	/** A plan is judged by its rule set; the store alone is read as the site reads it. */
	const scheme = $derived(
		data.stock
			? data.stock.page.inForce.ruleSet === 'us'
				? ('us' as const)
				: ('en' as const)
			: data.site.codeScheme
	);
	const serving = $derived(
		data.stock?.judged.filter((row) => row.verdict?.outcome === 'serves') ?? []
	);
	const others = $derived(
		data.stock?.judged.filter((row) => row.verdict?.outcome === 'does not') ?? []
	);
	let lot = $state('');
	let openId = $state(freshId());
	const refusal = (path: string) =>
		form && 'refusal' in form && form.refusal?.path === path ? form.refusal.message : null;
	const general = $derived(
		form &&
			'refusal' in form &&
			form.refusal &&
			!['itemTag', 'initials', 'discardReason', 'lotId'].includes(form.refusal.path ?? '')
			? form.refusal.message
			: null
	);
	const wear = (minutes: number | null) => (minutes === null ? 'by resistance' : clock(minutes));
</script>

<svelte:head><title>Filters · Grevan</title></svelte:head>
<div class="flex flex-wrap items-end gap-x-6 gap-y-2">
	<h1>Filters</h1>
	<div class="min-w-0">
		<label class="label" for="plan">For which task?</label>
		<!-- eslint-disable-next-line svelte/no-navigation-without-resolve -->
		<select
			id="plan"
			class="max-w-full"
			value={data.chosen ?? ''}
			onchange={(e) =>
				void goto(e.currentTarget.value ? `/filters?plan=${e.currentTarget.value}` : '/filters')}
		>
			<option value="">the whole store</option>
			{#each data.plans as plan (plan.id)}<option value={plan.id}
					>{plan.number}. {plan.task}, {plan.place} ({plan.outcome})</option
				>{/each}
		</select>
	</div>
</div>

<div class="mt-3"><SectionLinks label="Filters" links={FILTER_LINKS} /></div>

{#if form && 'opened' in form && form.opened}
	<div class="mt-4">
		<Notice kind="good"
			><p>
				Write on each filter: <b class="tag text-[1.1rem]"
					>{form.opened.tag} · {readable(data.asOf)} · initials</b
				>. On {form.opened.item}: change by
				<b>{readable(form.opened.changeOn)}</b>{#if form.opened.changeAfterMin}, or after <b
						>{wear(form.opened.changeAfterMin)}</b
					> of wear{/if}.
				<a class="linkish" href="/filters/pairs/{form.opened.tag}/label">Print the labels</a> ·
				<a class="linkish" href="/items/{form.opened.item}">To {form.opened.item}</a>
			</p></Notice
		>
	</div>
{/if}
{#if general}<div class="mt-4"><Notice kind="refusal"><p>{general}</p></Notice></div>{/if}

{#if data.stock}
	{@const plan = data.stock.page.plan}
	{#if data.stock.page.status.outcome !== 'in force'}<div class="mt-4">
			<Notice kind="caution"
				><p>
					<b>The plan is {data.stock.page.status.outcome}.</b>
					{data.stock.page.status.reasons.at(-1)?.text}
					<a class="linkish" href="/hazards/{plan.id}">Open the plan</a>
				</p></Notice
			>
		</div>{/if}
	<div class="mt-5 grid gap-10 lg:grid-cols-[minmax(0,1fr)_21rem]">
		<section aria-labelledby="serve">
			{#if !data.stock.need}
				<Notice kind="caution"
					><p>
						<b>No filter for a mask or a blower here.</b> The plan “{plan.task}” ends in: {data
							.stock.page.decision.outcome}. {data.stock.page.decision.reasons.at(-1)?.text}
						<a class="linkish" href="/hazards/{plan.id}">Open the plan</a>
					</p></Notice
				>
			{:else}
				<h2 id="serve">
					Serve “{plan.task}”, least first · needed {scheme === 'us'
						? data.stock.need.codeUs
						: data.stock.need.codeEn}
				</h2>
				{#if serving.length === 0}<p class="mt-2">
						Nothing in the store serves. Each reason stands below.
					</p>{/if}
				<ul class="mt-1">
					{#each serving as row (row.lot.id)}
						<li class="rowline">
							<label
								class="grid min-h-14 cursor-pointer grid-cols-[2rem_auto_1fr] items-center gap-x-4 gap-y-1 py-2 hover:bg-tint md:grid-cols-[2rem_12rem_1fr_9rem]"
							>
								<input type="radio" name="lot" value={row.lot.id} bind:group={lot} />
								<FilterBand
									code={(scheme === 'us' ? row.model.codeUs : row.model.codeEn) ?? ''}
									{scheme}
									small
								/>
								<span
									><b>{row.model.name}</b>, lot <span class="font-mono">{row.lot.lot}</span><br
									/><span class="text-soft"
										>{row.lot.sealedQuantity} sealed · until {readable(row.lot.useBy)} · {row.model
											.mount} · {row.lot.location}</span
									></span
								>
								<span class="col-span-3 md:col-span-1"
									>change after <b class="font-mono whitespace-nowrap"
										>{wear(row.life?.changeAfterMin ?? null)}</b
									>{row.life?.singleUse ? ', once' : ''}</span
								>
							</label>
							{#if row.life}<div class="pl-12">
									<Because
										title="How long {row.model.name} lasts here"
										reasons={row.life.parts.flatMap((p) => p.reasons)}
										label="How long, and why"
									/>
								</div>{/if}
						</li>
					{/each}
				</ul>
				<h2 class="mt-6">Do not serve, and why</h2>
				<ul class="mt-1">
					{#each others as row (row.lot.id)}
						<li
							class="rowline grid grid-cols-[auto_1fr] items-center gap-4 py-2 md:grid-cols-[12rem_1fr]"
						>
							<FilterBand
								code={(scheme === 'us' ? row.model.codeUs : row.model.codeEn) ?? row.model.name}
								{scheme}
								small
							/>
							<span
								><b>{row.model.name}</b>, lot <span class="font-mono">{row.lot.lot}</span><br
								/><span class="text-held">{row.verdict?.reasons.map((r) => r.text).join(' ')}</span
								></span
							>
						</li>
					{/each}
				</ul>
			{/if}
		</section>

		{#if data.stock.need && data.mayOpen}
			<section aria-labelledby="open" class="self-start rounded border-2 border-ink bg-sheet p-4">
				<h2 id="open" class="text-[1.15rem]! text-ink!">Open a pair</h2>
				<form
					method="post"
					action="?/open&plan={plan.id}"
					class="mt-3 grid gap-4"
					use:enhance={() =>
						async ({ result, update }) => {
							await update({ reset: false });
							if (result.type === 'success') {
								openId = freshId();
								lot = '';
							}
						}}
				>
					<input type="hidden" name="id" value={openId} /><input
						type="hidden"
						name="planId"
						value={plan.id}
					/><input type="hidden" name="lotId" value={lot} />
					{#if refusal('lotId')}<Notice kind="refusal"><p>{refusal('lotId')}</p></Notice>{/if}
					<Field id="itemTag" label="On the mask" refusal={refusal('itemTag')} hint="Scan its tag.">
						{#snippet children(field)}<input
								{...field}
								name="itemTag"
								autocomplete="off"
								class="tag w-full uppercase"
							/>{/snippet}
					</Field>
					<Field id="initials" label="Initials" refusal={refusal('initials')}>
						{#snippet children(field)}<input
								{...field}
								name="initials"
								value={data.actor?.initials}
								maxlength="4"
								class="w-24"
							/>{/snippet}
					</Field>
					<Field
						id="discardReason"
						label="Why the old pair goes"
						refusal={refusal('discardReason')}
						hint="Only where one is on the mask."
					>
						{#snippet children(field)}
							<select {...field} name="discardReason" class="w-full"
								><option value=""
								></option>{#each Object.entries(EARLY_REASONS) as [key, reason] (key)}<option
										value={key}>{reason.words}</option
									>{/each}</select
							>
						{/snippet}
					</Field>
					<button class="button primary" disabled={!lot}
						>{lot ? 'Open and date today' : 'Choose filters first'}</button
					>
				</form>
				<p class="text-soft mt-3 text-[0.9rem]">
					Same type, class and date on both sides. Smell is a last alarm, never the schedule.
				</p>
			</section>
		{/if}
	</div>
{:else}
	<p class="mt-4 text-soft">
		Choose a task: the store is judged against its plan, and a pair can be opened onto a mask.
	</p>
	<section class="mt-4" aria-labelledby="store">
		<h2 id="store">Sealed in the store</h2>
		<ul class="mt-1 grid gap-x-10 md:grid-cols-2">
			{#each data.lots as { lot: row, model } (row.id)}
				<li class="rowline grid grid-cols-[12rem_1fr_auto] items-center gap-4 py-2">
					<FilterBand
						code={(scheme === 'us' ? model.codeUs : model.codeEn) ?? model.name}
						{scheme}
						small
					/>
					<span
						><b>{model.name}</b>, lot <span class="font-mono">{row.lot}</span><br /><span
							class={row.useBy < data.asOf ? 'font-semibold text-held' : 'text-soft'}
							>{row.useBy < data.asOf ? 'past its use-by date,' : 'until'}
							{readable(row.useBy)} · {row.location}</span
						></span
					>
					<span class="font-mono text-[1.1rem] font-semibold">{row.sealedQuantity}</span>
				</li>
			{/each}
		</ul>
	</section>
{/if}
