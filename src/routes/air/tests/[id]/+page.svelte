<script lang="ts">
	/** The air tests of one source, by both standards, and which cylinders a failed one holds. */
	import PaperLink from '$lib/ui/records/PaperLink.svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import { judgeAir, type AirSample, type SampledAt } from '$core/air/breathing-air';
	import { moisture } from '$core/air/moisture';
	import { readPressure } from '$core/units/pressure';
	import { InputError } from '$core/verdict';
	import { freshId } from '$lib/fresh-id';
	import Because from '$lib/ui/because/Because.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import NumberField from '$lib/ui/form/NumberField.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import PressureField from '$lib/ui/form/PressureField.svelte';
	import { typedOrNull } from '$lib/ui/form/number';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { SOURCE_MARKS } from '$lib/ui/air/marks';
	import { untrack } from 'svelte';
	import { siteMoment } from '$lib/ui/time/moments';
	import DayField from '$lib/ui/form/DayField.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	const tested = $derived(form && 'tested' in form ? form.tested : null);
	const FIGURES = [
		['oxygenPercent', 'Oxygen, %'],
		['coPpm', 'CO, ppm'],
		['co2Ppm', 'CO2, ppm'],
		['oilMgPerM3', 'Oil, mg/m³'],
		['waterMgPerM3', 'Water, mg/m³']
	] as const;
	const EMPTY = { oxygenPercent: '', coPpm: '', co2Ppm: '', oilMgPerM3: '', waterMgPerM3: '' };
	let said: HTMLElement | undefined = $state();
	let typed = $state({ ...EMPTY });
	let sampledAt = $state<SampledAt>(
		untrack(() => (data.source.fills ? 'filling outlet' : 'airline'))
	);
	let pressure = $state(untrack(() => (data.source.fills ? '300' : '6')));
	let lowestUse = $state('5');
	let odour = $state('none');
	let taken = $state(untrack(() => `${data.today}T08:00`));
	let [testId, workId] = $state([freshId(), freshId()]);

	const given = $derived(FIGURES.some(([key]) => typed[key].trim() !== ''));
	/** What both standards would say of what has been typed so far. */
	const preview = $derived.by(() => {
		if (!given) return null;
		try {
			const figure = (key: (typeof FIGURES)[number][0]) => typedOrNull(typed[key]) ?? undefined;
			const sample: AirSample = {
				oxygenPercent: figure('oxygenPercent'),
				coPpm: figure('coPpm'),
				co2Ppm: figure('co2Ppm'),
				oilMgPerM3: figure('oilMgPerM3'),
				waterMgPerM3: figure('waterMgPerM3'),
				sampledAt,
				odour: odour === '' ? undefined : odour === 'smells',
				pressureBar: readPressure(pressure).bar,
				lowestUseC: typedOrNull(lowestUse) ?? undefined
			};
			const water = sample.waterMgPerM3;
			return {
				en: judgeAir('en-12021', sample),
				gradeD: judgeAir('grade-d', sample),
				dew: water ? moisture({ mgPerM3: water }, sample.pressureBar) : null
			};
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			return { refusal: error.message };
		}
	});
	const WORDS = { pass: 'passes', fail: 'fails', incomplete: 'incomplete' } as const;
	const MARKS = { pass: 'good', fail: 'reject', incomplete: 'due' } as const;
	const decides = (standard: 'en' | 'gradeD') => (standard === 'en') === (data.ruleSet === 'uk');
	const STANDARDS = [
		['en', 'EN 12021'],
		['gradeD', 'Grade D']
	] as const;
</script>

<svelte:head><title>{data.source.name}, air tests · Grevan</title></svelte:head>
<div class="mt-4 flex flex-wrap items-center gap-x-4">
	<StateMark state={SOURCE_MARKS[data.state.outcome]} size={24} />
	<h2 class="text-[1.35rem]! text-ink!">{data.source.name}</h2>
	<p class={data.state.outcome === 'in force' ? '' : 'font-semibold text-held'}>
		{data.state.reasons[0]?.text}
	</p>
	<Because title="Air of {data.source.name}" reasons={data.state.reasons} />
</div>
{#if tested}
	<div class="mt-3" role="status" tabindex="-1" bind:this={said}>
		<Notice kind={tested.outcome === 'pass' ? 'good' : 'refusal'}>
			<p class="font-semibold">
				{tested.outcome === 'pass'
					? 'The air passed. It may be given out.'
					: tested.outcome === 'fail'
						? `The air failed. ${tested.held.length === 0 ? 'No cylinder was filled since the last good test.' : `${tested.held.length} filled since the last good test ${tested.held.length === 1 ? 'is' : 'are'} held: ${tested.held.join(', ')}.`}`
						: 'Not everything was measured: it passes nothing.'}
			</p>
		</Notice>
	</div>
{/if}
<div class="mt-5 grid gap-10 lg:grid-cols-[minmax(0,1fr)_22rem]">
	<section aria-labelledby="tests">
		<h2 id="tests">Tests, newest first</h2>
		{#if data.tests.length === 0}<p class="mt-1">None yet: no air is given out.</p>{/if}
		<ul>
			{#each data.tests as test (test.id)}
				<li class="rowline">
					<div class="flex flex-wrap items-center gap-x-4">
						<StateMark state={MARKS[test.outcome]} />
						<b>{siteMoment(test.takenAt)}</b>
						{#each STANDARDS as [standard, name] (standard)}
							<span class="inline-flex items-center gap-2 {decides(standard) ? '' : 'text-soft'}"
								>{name}
								{WORDS[test[standard].outcome]}<Because
									title="{name}: {WORDS[test[standard].outcome]}"
									reasons={test[standard].reasons}
									label="why"
								/></span
							>
						{/each}
						<span class="text-soft ml-auto">{test.laboratory}, {test.sample.sampledAt}</span>
						<PaperLink kind="air-test" id={test.id} />
					</div>
					{#if test.outcome === 'fail'}
						{#if test.held.length}
							<p class="mt-1 font-semibold text-held">
								Held, filled since the last good test: let down and fill anew.
							</p>
							<ul aria-label="Held by this test" class="mt-1 grid gap-x-8 sm:grid-cols-2">
								{#each test.held as one (one.id)}<li class="flex items-center gap-3">
										<StateMark state="held" /><a
											class="tag inline-flex min-h-9 items-center"
											href="/air/cylinders/{one.tag}">{one.tag}</a
										><span>{one.where}</span>
									</li>{/each}
							</ul>
						{:else}<p class="mt-1">No cylinder is held by it any more.</p>{/if}
					{/if}
				</li>
			{/each}
		</ul>
		{#if data.works.length}<h2 class="mt-6">Work on it</h2>
			<ul>
				{#each data.works as { work, by } (work.id)}<li class="rowline py-1">
						{siteMoment(work.doneAt)}: {work.what}
						<span class="text-soft">{by}</span>
					</li>{/each}
			</ul>{/if}
	</section>
	{#if data.mayTest}
		<aside class="grid content-start gap-6">
			<form
				method="post"
				action="?/test"
				class="grid gap-4 rounded border-2 border-ink bg-sheet p-4"
				use:enhance={() => {
					return async ({ update, result }) => {
						if (result.type === 'success') {
							testId = freshId();
							typed = { ...EMPTY };
						}
						await update({ reset: false });
						// What came of it stands at the top of the page.
						if (result.type === 'success') said?.focus();
					};
				}}
			>
				<h2 class="text-[1.1rem]! text-ink!">A new air test</h2>
				<input type="hidden" name="id" value={testId} />
				<div class="grid grid-cols-2 gap-3">
					<div class="col-span-2">
						<DayField name="takenAt" label="Taken" withTime bind:value={taken} />
					</div>
					<label class="col-span-2"
						><span class="label">Tested by</span><input
							name="laboratory"
							required
							class="w-full"
						/></label
					>
					<label
						><span class="label">Taken at the</span><select
							name="sampledAt"
							bind:value={sampledAt}
							class="w-full"
							><option>filling outlet</option><option>cylinder</option><option>airline</option
							></select
						></label
					>
					<PressureField label="Pressure" name="pressure" width="w-full" bind:value={pressure} />
					{#each FIGURES as [key, label] (key)}<div>
							<NumberField {label} bind:value={typed[key]} width="w-full" />
							<input type="hidden" name={key} value={typed[key]} />
						</div>{/each}
					<label
						><span class="label">Odour</span><select name="odour" bind:value={odour} class="w-full"
							><option value="none">none</option><option value="smells">it smells</option><option
								value="">not tried</option
							></select
						></label
					>
					{#if sampledAt === 'airline'}<div>
							<NumberField label="Coldest use, °C" bind:value={lowestUse} width="w-full" />
						</div>{/if}
					<input type="hidden" name="lowestUseC" value={lowestUse} />
				</div>
				{#if preview && 'refusal' in preview}<p class="font-semibold text-held" role="alert">
						{preview.refusal}
					</p>{:else if preview}
					<div aria-live="polite" class="grid gap-1">
						{#each STANDARDS as [standard, name] (standard)}
							<p class="flex flex-wrap items-center gap-2">
								<StateMark state={MARKS[preview[standard].outcome]} /><b>{name}</b>
								{WORDS[preview[standard].outcome]}
								{#if decides(standard)}<span class="text-soft">decides here</span>{/if}
								{#if preview[standard].outcome !== 'pass'}<span class="w-full"
										>{preview[standard].reasons[0]?.text}</span
									>{/if}
							</p>
						{/each}
						{#if preview.dew}<p class="text-soft">
								Dew point {preview.dew.atAtmosphereC.toFixed(0)} °C at atmospheric pressure, {preview.dew.atPressureC.toFixed(
									0
								)} °C at {pressure} bar.
							</p>{/if}
					</div>
				{/if}
				<FormRefusal {refusal} />
				<button class="button primary">Enter the test</button>
			</form>
			<form
				method="post"
				action="?/work"
				class="grid gap-3 border-t border-rule pt-4"
				use:enhance={() =>
					({ update, result }) => {
						if (result.type === 'success') workId = freshId();
						return update({ reset: false });
					}}
			>
				{#key workId}
					<input type="hidden" name="id" value={workId} />
					<PlainField
						label="Work on it"
						name="what"
						required
						placeholder="filters changed, valve plate …"
					/>
					<p class="text-soft">From then on its air counts as untested.</p>
					<button class="button">Note the work</button>
				{/key}
			</form>
		</aside>
	{/if}
</div>
