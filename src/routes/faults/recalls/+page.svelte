<script lang="ts">
	import { readable } from '$core/plan/calendar';
	import { freshId } from '$lib/fresh-id';
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import { refusedAt } from '$lib/ui/form/refused';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { FAULT_LINKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';
	import { siteDay } from '$lib/ui/time/moments';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const id = freshId();
	/** What is still to be done. */
	const left = (one: (typeof data.parts)[number]) =>
		one.held - one.changed + (one.had - one.looked);
	const unsettled = $derived(
		data.parts.filter((one) => left(one) > 0).length +
			data.filters.filter((one) => one.off < one.all).length +
			data.air.filter((one) => one.holds.length > 0).length +
			data.models.filter((one) => one.gone < one.all).length
	);
</script>

<svelte:head><title>Recalls · Grevan</title></svelte:head>
<div class="flex flex-wrap items-baseline gap-x-4">
	<h1>Recalls</h1>
	<p class="text-soft">
		{unsettled === 0
			? 'All dealt with'
			: unsettled === 1
				? 'One still to be dealt with'
				: `${unsettled} still to be dealt with`}
	</p>
</div>
<div class="mt-2"><SectionLinks label="Faults" links={FAULT_LINKS} /></div>
<div class="mt-4 grid gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,1fr)_22rem]">
	<div>
		<section aria-labelledby="parts">
			<h2 id="parts">Lots of parts</h2>
			<ul class="mt-1">
				{#each data.parts as one (one.id)}
					<li class="rowline flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
						<StateMark state={left(one) > 0 ? 'held' : 'good'} />
						<a
							class="linkish inline-flex min-h-11 items-center font-semibold"
							href="/faults/recalls/{one.id}">{one.name}, lot {one.lot}</a
						>
						<span class="min-w-0 flex-1 text-soft">{one.why}</span>
						<span
							>{one.changed} of {one.held} changed{#if one.had}, {one.looked} of {one.had} looked into{/if}</span
						>
						<span class="font-mono text-[0.9rem]">{siteDay(one.at)}</span>
					</li>
				{:else}<li class="py-1 text-soft">None was called back yet.</li>{/each}
			</ul>
		</section>
		<section aria-labelledby="filters" class="mt-7">
			<h2 id="filters">Lots of filters</h2>
			<ul class="mt-1">
				{#each data.filters as one (one.id)}
					<li class="rowline flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
						<StateMark state={one.off < one.all ? 'held' : 'good'} />
						<a
							class="linkish inline-flex min-h-11 items-center font-semibold"
							href="/filters/lots/{one.id}">{one.filter}, lot {one.lot}</a
						>
						<span class="min-w-0 flex-1 text-soft">{one.why}</span>
						<span>{one.off} of {one.all} taken off</span>
						<span class="font-mono text-[0.9rem]">{siteDay(one.at)}</span>
					</li>
				{:else}<li class="py-1 text-soft">
						None. A lot is called back <a class="linkish" href="/filters/store"
							>in the store of filters</a
						>.
					</li>{/each}
			</ul>
		</section>
		<section aria-labelledby="air" class="mt-7">
			<h2 id="air">Air that failed its test</h2>
			<ul class="mt-1">
				{#each data.air as one (one.id)}
					<li class="rowline flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
						<StateMark state={one.holds.length ? 'held' : 'good'} />
						<a
							class="linkish inline-flex min-h-11 items-center font-semibold"
							href="/air/tests/{one.sourceId}">{one.source}</a
						>
						<span class="min-w-0 flex-1 text-soft"
							>{#each one.holds as cylinder, i (cylinder.tag)}{i ? '; ' : ''}<a
									class="linkish"
									href="/items/{cylinder.tag}">{cylinder.tag}</a
								>
								{cylinder.where}{/each}</span
						>
						<span
							>{one.holds.length === 0
								? 'no cylinder holds it any more'
								: `still in ${one.holds.length} ${one.holds.length === 1 ? 'cylinder' : 'cylinders'}`}</span
						>
						<span class="font-mono text-[0.9rem]">{siteDay(one.at)}</span>
					</li>
				{:else}<li class="py-1 text-soft">None failed.</li>{/each}
			</ul>
		</section>
		<section aria-labelledby="models" class="mt-7">
			<h2 id="models">Models withdrawn by their maker</h2>
			<ul class="mt-1">
				{#each data.models as one (one.id)}
					<li class="rowline flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
						<StateMark state={one.gone < one.all ? 'held' : 'good'} />
						<a
							class="linkish inline-flex min-h-11 items-center font-semibold"
							href="/items/models/{one.id}">{one.name}</a
						>
						<span class="min-w-0 flex-1 text-soft">{one.why}</span>
						<span>{one.gone} of {one.all} out of use</span>
						{#if one.on}<span class="font-mono text-[0.9rem]">{readable(one.on)}</span>{/if}
					</li>
				{:else}<li class="py-1 text-soft">None. A model is withdrawn on its own page.</li>{/each}
			</ul>
		</section>
	</div>
	{#if data.mayRecall}
		<section class="self-start rounded border-2 border-ink bg-sheet p-4" aria-labelledby="call">
			<h2 id="call" class="text-[1.15rem]! text-ink!">Call a lot back</h2>
			{#if data.lots.length === 0}<p class="mt-2">
					No lot of parts is known. Deliveries come in under Parts store.
				</p>{:else}
				<form method="post" action="?/recall" class="mt-3 grid gap-4" use:enhance>
					<input type="hidden" name="id" value={id} />
					<Field id="lot" label="Lot" refusal={refusedAt(refusal, 'lotId')}>
						{#snippet children(field)}<select
								{...field}
								name="lotId"
								value={data.chosen}
								class="w-full"
								><option value="">choose</option>
								{#each data.lots as lot (lot.id)}<option value={lot.id}
										>{lot.name}, {lot.lot}: in {lot.fitted} items, {lot.quantity} in the store</option
									>{/each}</select
							>{/snippet}
					</Field>
					<PlainField
						name="why"
						label="What is wrong with them"
						maxlength={300}
						refusal={refusedAt(refusal, 'why')}
					/>
					{#if refusal && !['lotId', 'why'].includes(refusal.path ?? '')}<Notice kind="refusal"
							><p>{refusal.message}</p></Notice
						>{/if}
					<Notice kind="caution"
						><p>
							Every item with one of them is held at once, and stays held until the part is changed
							or the item is out of use.
						</p></Notice
					>
					<button class="button primary">Call it back</button>
				</form>{/if}
		</section>
	{/if}
</div>
