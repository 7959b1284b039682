<script lang="ts">
	/** One cylinder: what may be done with it and why not, its dates, its pressure, its stamps. */
	import PaperLink from '$lib/ui/records/PaperLink.svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import { RESIDUAL_BAR } from '$core/air/cylinder';
	import { cylinderContent } from '$core/air/content';
	import { readable } from '$core/plan/calendar';
	import { readableNumber } from '$core/units/number';
	import { freshId } from '$lib/fresh-id';
	import Because from '$lib/ui/because/Because.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import PressureField from '$lib/ui/form/PressureField.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import Reading from '$lib/ui/reading/Reading.svelte';
	import { siteMoment } from '$lib/ui/time/moments';
	import DayField from '$lib/ui/form/DayField.svelte';
	import Stamps from './Stamps.svelte';

	let { data, form } = $props();
	const known = $derived(data.known);
	const row = $derived(known?.row ?? null);
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	let pressure = $state('');
	/** With a new one the form begins anew. */
	let testId = $state(freshId());
	const litres = $derived(
		row?.pressureBar
			? cylinderContent({ waterVolumeL: row.waterVolumeL, fromBar: row.pressureBar }).freeLitres
			: null
	);
	const where = $derived(
		known?.facts.inSet ??
			{ rack: 'On the rack', filling: 'Waits to be filled', 'test house': 'At the test house' }[
				row?.location ?? 'rack'
			]
	);
	const VERDICTS = [
		['mayFill', 'filled'],
		['mayFit', 'put on a set']
	] as const;
</script>

<svelte:head><title>{data.tag}, cylinder · Grevan</title></svelte:head>
<div class="mt-4 flex flex-wrap items-center gap-x-4 gap-y-1">
	<a
		class="tag rounded border-[1.5px] border-ink bg-sheet px-2 text-[1.45rem] no-underline"
		href="/items/{data.tag}">{data.tag}</a
	>
	<p>{data.model}, {data.place}</p>
	<span class="ml-auto"><PaperLink kind="cylinder" id={data.tag} /></span>
	<a class="linkish inline-flex min-h-11 items-center" href="/items/{data.tag}"
		>Inspections and faults</a
	>
</div>
<div class="mt-4 grid gap-10 lg:grid-cols-[minmax(0,1fr)_22rem]">
	<div class="grid content-start gap-7">
		{#if known && row}
			<section aria-label="What may be done with it" class="grid gap-3">
				{#each VERDICTS as [key, words] (key)}
					{@const verdict = known[key]}
					<div class="flex items-start gap-3">
						<span class="mt-0.5"
							><StateMark state={verdict.outcome === 'may' ? 'good' : 'reject'} size={22} /></span
						>
						<div>
							<p class="text-[1.15rem] font-bold">
								{verdict.outcome === 'may' ? `May be ${words}` : `Not to be ${words}`}
							</p>
							<ul>
								{#each verdict.reasons as reason (reason.rule)}<li>{reason.text}</li>{/each}
							</ul>
						</div>
					</div>
				{/each}
			</section>
			<div class="flex flex-wrap gap-x-10 gap-y-4">
				<Reading
					label="In it"
					value={row.pressureBar === null ? '?' : String(Math.round(row.pressureBar))}
					unit="bar"
					limit="of {row.ratedBar}"
				/>
				{#if litres}<Reading
						label="Free air"
						value={readableNumber(Math.round(litres), 6)}
						unit="L"
						large={false}
					/>{/if}
				<div>
					<div class="text-soft text-[0.9rem]">Where</div>
					<p class="text-[1.2rem] font-semibold">
						{#if known.facts.inSet}<a class="linkish" href="/items/{known.facts.inSet}"
								>on {known.facts.inSet}</a
							>{:else}{where}{/if}
					</p>
				</div>
				<div>
					<div class="text-soft text-[0.9rem]">Last day</div>
					<p class="text-[1.2rem] font-semibold">{readable(known.facts.dates.lastDay)}</p>
					<Because title="Dates of {data.tag}" reasons={known.facts.dates.reasons} />
				</div>
			</div>
			<section aria-labelledby="stamps">
				<h2 id="stamps">Periodic tests</h2>
				<ul>
					<li class="rowline py-1">
						made <b>{readable(row.manufacturedOn)}</b>
					</li>
					{#each known.tests as test (test.id)}<li class="rowline flex gap-3 py-1">
							<StateMark state={test.passed ? 'good' : 'reject'} /><span
								>{readable(test.testedOn)}, {test.passed ? 'passed' : 'failed'}{test.stamp
									? `, stamp ${test.stamp}`
									: ''}</span
							>
						</li>{/each}
				</ul>
				{#if known.fill}<p class="mt-2">
						Last filled {siteMoment(known.fill.endedAt)} from {known.fill.source}, batch {known.fill
							.batch}: {Math.round(known.fill.settledBar ?? 0)} bar when cool{known.facts.freshUntil
							? `; fresh air in it by ${readable(known.facts.freshUntil)}`
							: ''}.
					</p>{/if}
			</section>
		{:else}
			<p>
				Nothing of its stamp is on record yet. Until it is, it cannot be filled or put on a set.
				Enter it with the form.
			</p>
		{/if}
		{#if data.mayKeep}
			<details open={!row} class="border-t border-rule pt-3">
				<summary class="linkish min-h-11 cursor-pointer content-center font-semibold"
					>{row ? 'Correct what is stamped on it' : 'What is stamped on it'}</summary
				>
				{#key row?.version}<Stamps filled={data.filled} version={row?.version ?? null} />{/key}
			</details>
		{/if}
	</div>
	<aside class="grid grid-cols-[minmax(0,1fr)] content-start gap-5">
		<FormRefusal {refusal} />
		{#if row && data.mayFill}
			<section class="grid gap-3 rounded border-2 border-ink bg-sheet p-4" aria-label="Pressure">
				<form
					method="post"
					action="?/pressure"
					class="flex flex-wrap items-start gap-3"
					use:enhance={() =>
						({ update, result }) => {
							if (result.type === 'success') pressure = '';
							return update({ reset: false });
						}}
				>
					<PressureField
						label="Its gauge shows"
						name="pressure"
						hint="bar, or with psi or MPa"
						bind:value={pressure}
					/>
					<button class="button primary mt-[1.6rem]">Note</button>
				</form>
				<form method="post" action="?/unknown" use:enhance>
					<button class="button w-full">Nobody knows what is in it</button>
				</form>
				{#if (row.pressureBar ?? 99) < RESIDUAL_BAR}<form
						method="post"
						action="?/inside"
						use:enhance
					>
						<button class="button w-full"
							>{known?.facts.lookedInside ? 'Looked at inside' : 'It was looked at inside'}</button
						>
					</form>{/if}
			</section>
			<form
				method="post"
				action="?/bring"
				use:enhance
				class="grid gap-2"
				aria-label="Where it goes"
			>
				{#if row.location !== 'filling'}<button class="button" name="to" value="filling"
						>To be filled</button
					>{/if}
				{#if row.location !== 'rack' || known?.facts.inSet}<button
						class="button"
						name="to"
						value="rack">On the rack</button
					>{/if}
				{#if row.location !== 'test house'}<button class="button" name="to" value="test house"
						>To the test house</button
					>{/if}
			</form>
		{/if}
		{#if row && data.mayKeep}
			<form
				method="post"
				action="?/test"
				class="grid gap-3 rounded border-2 border-ink bg-sheet p-4"
				use:enhance={() =>
					({ update, result }) => {
						if (result.type === 'success') testId = freshId();
						return update({ reset: false });
					}}
			>
				{#key testId}
					<h2 class="text-[1.1rem]! text-ink!">A periodic test</h2>
					<input type="hidden" name="id" value={testId} />
					<DayField label="On" name="testedOn" required />
					<PlainField label="Stamp of the test house" name="stamp" />
					<fieldset class="flex gap-5">
						<legend class="label">Passed</legend>
						<label class="flex min-h-11 items-center gap-2"
							><input type="radio" name="passed" value="yes" checked />yes</label
						>
						<label class="flex min-h-11 items-center gap-2"
							><input type="radio" name="passed" value="no" />no</label
						>
					</fieldset>
					<button class="button">Write it down</button>
				{/key}
			</form>
		{/if}
	</aside>
</div>
