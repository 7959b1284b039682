<script lang="ts">
	/** One airline rig: whether it may be breathed from, its tags, how long a bank lasts, how it is put together. */
	import { enhance } from '$lib/ui/form/enhance';
	import { bankMinutes } from '$core/airline/bank-minutes';
	import { BORES_MM } from '$core/airline/fixes';
	import { ALARM_TEST_DAYS, CO_ALARM_PPM, RIG_ALARMS } from '$core/airline/rig';
	import { readPressure } from '$core/units/pressure';
	import { readable } from '$core/plan/calendar';
	import { readableNumber } from '$core/units/number';
	import { InputError } from '$core/verdict';
	import { freshId } from '$lib/fresh-id';
	import { fixWords } from '$lib/ui/air/fix-words';
	import HoseChart from '$lib/ui/air/HoseChart.svelte';
	import Because from '$lib/ui/because/Because.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import NumberField from '$lib/ui/form/NumberField.svelte';
	import { typedNumber } from '$lib/ui/form/number';
	import PressureField from '$lib/ui/form/PressureField.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import Reading from '$lib/ui/reading/Reading.svelte';
	import DayField from '$lib/ui/form/DayField.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	const { rig, judged } = $derived(data);
	/** With a new one the form begins anew. */
	let eventId = $state(freshId());
	let bank = $state('200');
	let banks = $state('2');
	let litres = $state('50');
	let flow = $state('60');
	let escape = $state('10');
	const minutes = $derived.by(() => {
		if (!judged) return null;
		try {
			const count = typedNumber(banks);
			if (!(count >= 1 && count <= 50)) throw new InputError('banks', 'From 1 to 50 cylinders.');
			return {
				...bankMinutes({
					banks: Array.from({ length: count }, () => ({
						waterVolumeL: typedNumber(litres),
						pressureBar: readPressure(bank).bar
					})),
					leastBar: rig?.regulatorBar ?? 6,
					wearers: judged.wearers,
					lPerMin: typedNumber(flow),
					escapeMin: typedNumber(escape)
				}),
				refusal: null
			};
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			return { refusal: error.message, workMinutes: 0, litres: 0, totalMinutes: 0 };
		}
	});
	const last = (kind: 'sorbent' | 'alarm') => judged?.events.find((event) => event.kind === kind);
	const FIELDS = [
		['regulatorBar', 'Regulator, bar', '6'],
		['leastBar', 'Valve needs, bar', '4'],
		['lengthM', 'Hose, m', '30'],
		['fittingsM', 'Fittings as, m', '2'],
		['outlets', 'Outlets', '2']
	] as const;
</script>

<svelte:head><title>{data.item.tag}, airline · Grevan</title></svelte:head>
<div class="mt-4 flex flex-wrap items-center gap-x-4 gap-y-1">
	<a
		class="tag rounded border-[1.5px] border-ink bg-sheet px-2 text-[1.45rem] no-underline"
		href="/items/{data.item.tag}">{data.item.tag}</a
	>
	<p>{data.model.name}, {data.place}</p>
	{#if judged}<a class="linkish" href="/air/tests/{judged.source.id}">{judged.source.name}</a>{/if}
</div>
<div class="mt-4 grid gap-10 lg:grid-cols-[minmax(0,1fr)_22rem]">
	<div class="grid content-start gap-7">
		{#if judged && rig}
			<section aria-label="Verdict" class="grid gap-2">
				<p class="flex items-center gap-3 text-[1.35rem] font-bold">
					<StateMark
						state={judged.verdict.outcome === 'pass' ? 'good' : 'reject'}
						size={24}
					/>{judged.verdict.outcome === 'pass'
						? `May be breathed from by ${judged.wearers}`
						: 'Not to be breathed from'}
					<Because
						title="{data.item.tag}, {judged.wearers} wearers"
						reasons={judged.verdict.reasons}
					/>
				</p>
				<ul>
					{#each judged.verdict.outcome === 'pass' ? judged.verdict.reasons.slice(0, 4) : judged.verdict.against as reason, i (i)}<li
						>
							{reason.text}
						</li>{/each}
				</ul>
				{#if judged.fixes.length}<p class="mt-1">
						One of these makes its hose pass: <b>{judged.fixes.map(fixWords).join('; ')}</b>.
					</p>{/if}
				<form method="get" class="flex flex-wrap items-end gap-3">
					<label
						><span class="label">Wearers on it</span><input
							name="wearers"
							value={judged.wearers}
							inputmode="numeric"
							class="w-20 font-mono"
						/></label
					>
					<button class="button">Judge</button>
				</form>
			</section>
			<section aria-labelledby="along">
				<h2 id="along">Pressure along its hose</h2>
				<HoseChart hose={judged.hose} height={240} />
			</section>
			<section aria-labelledby="lasts">
				<h2 id="lasts">How long a bank lasts for {judged.wearers}</h2>
				<div class="mt-1 flex flex-wrap items-end gap-3">
					<NumberField label="Cylinders" bind:value={banks} width="w-20" />
					<NumberField label="Litres each" bind:value={litres} width="w-24" />
					<PressureField label="At, bar" bind:value={bank} width="w-24" />
					<NumberField label="Each takes, L/min" bind:value={flow} width="w-24" />
					<NumberField label="Way out, min" bind:value={escape} width="w-20" />
				</div>
				{#if minutes?.refusal}<p class="mt-2 font-semibold text-held" role="alert">
						{minutes.refusal}
					</p>{:else if minutes}
					<div class="mt-3 flex flex-wrap gap-x-8 gap-y-2" aria-live="polite">
						<Reading
							label="Work, with the way out kept back"
							value={String(Math.floor(minutes.workMinutes))}
							unit="min"
						/>
						<Reading
							label="Until the regulator gives no more"
							value={String(Math.floor(minutes.totalMinutes))}
							unit="min"
							large={false}
						/>
						<Reading
							label="Free air"
							value={readableNumber(Math.round(minutes.litres), 6)}
							unit="L"
							large={false}
						/>
					</div>{/if}
			</section>
		{:else}
			<p>
				It is not written down yet how this rig is put together. Until it is, nobody can say whether
				the last wearer gets air. Fill in the form.
			</p>
		{/if}
		{#if data.mayKeep}
			<details open={!rig} class="border-t border-rule pt-3">
				<summary class="linkish min-h-11 cursor-pointer content-center font-semibold"
					>{rig ? 'Change how it is put together' : 'How it is put together'}</summary
				>
				<form
					method="post"
					action="?/rig"
					use:enhance={() =>
						({ update }) =>
							update({ reset: false })}
					class="mt-2 grid grid-cols-2 gap-4 md:grid-cols-4"
				>
					<input type="hidden" name="version" value={rig?.version ?? ''} />
					<label class="col-span-2"
						><span class="label">Air from</span><select
							name="sourceId"
							value={rig?.sourceId ?? ''}
							class="w-full"
							><option value=""></option>{#each data.sources as one (one.id)}<option value={one.id}
									>{one.name}</option
								>{/each}</select
						></label
					>
					<PlainField label="Dryer" name="dryer" value={rig?.dryer ?? ''} />
					<PlainField
						label="Sorbent lasts, months"
						name="sorbentMonths"
						value={rig?.sorbentMonths ?? ''}
						placeholder="none in it"
						mono
					/>
					<label
						><span class="label">Alarm</span><select
							name="alarm"
							value={rig?.alarm ?? 'CO'}
							class="w-full"
							>{#each RIG_ALARMS as one (one)}<option>{one}</option>{/each}</select
						></label
					>
					<PlainField
						label="CO alarm at, ppm"
						name="alarmPpm"
						value={rig ? (rig.alarmPpm ?? '') : CO_ALARM_PPM}
						mono
					/>
					<PlainField
						label="Alarm tested every, days"
						name="alarmDays"
						value={rig?.alarmDays ?? ALARM_TEST_DAYS}
						mono
					/>
					<label
						><span class="label">Hose bore, mm</span><input
							name="boreMm"
							value={rig?.boreMm ?? ''}
							list="bores"
							class="w-full font-mono"
						/><datalist id="bores"
							>{#each BORES_MM as bore (bore)}<option value={bore}></option>{/each}</datalist
						></label
					>
					{#each FIELDS as [key, label, usual] (key)}<PlainField
							{label}
							name={key}
							value={rig?.[key] ?? usual}
							mono
						/>{/each}
					<label
						><span class="label">Facepiece</span><select
							name="wearing"
							value={rig?.wearing ?? 'tight-fitting'}
							class="w-full"><option>tight-fitting</option><option>hood</option></select
						></label
					>
					<div class="col-span-full"><button class="button">Write it down</button></div>
				</form>
			</details>
		{/if}
	</div>
	<aside class="grid grid-cols-[minmax(0,1fr)] content-start gap-5">
		<FormRefusal {refusal} />
		{#if judged && rig}
			<section aria-labelledby="tags" class="grid gap-2">
				<h2 id="tags">Tags</h2>
				{#if rig.sorbentMonths !== null}<p>
						<b>Sorbent and filters</b>:
						{last('sorbent')
							? `changed ${readable(last('sorbent')?.doneOn ?? '')}, ${last('sorbent')?.by}`
							: 'no change on record'}
					</p>{/if}
				{#if rig.alarm !== 'none'}<p>
						<b>{rig.alarm} alarm</b>:
						{last('alarm')
							? `tested ${readable(last('alarm')?.doneOn ?? '')}, ${last('alarm')?.by}, ${last('alarm')?.passed ? 'sounds' : 'failed'}`
							: 'no test on record'}
					</p>{/if}
			</section>
			{#if data.mayTest && (rig.sorbentMonths !== null || rig.alarm !== 'none')}
				<form
					method="post"
					action="?/event"
					class="grid gap-3 rounded border-2 border-ink bg-sheet p-4"
					use:enhance={() =>
						({ update, result }) => {
							if (result.type === 'success') eventId = freshId();
							return update({ reset: false });
						}}
				>
					{#key eventId}
						<h2 class="text-[1.1rem]! text-ink!">Sign a tag</h2>
						<input type="hidden" name="id" value={eventId} />
						<label
							><span class="label">What was done</span><select name="kind" class="w-full"
								>{#if rig.sorbentMonths !== null}<option value="sorbent"
										>sorbent and filters changed</option
									>{/if}{#if rig.alarm !== 'none'}<option value="alarm">alarm tested</option
									>{/if}</select
							></label
						>
						<DayField label="On" name="doneOn" value={data.today} />
						<fieldset class="flex gap-5">
							<legend class="label">Worked as it should</legend>
							<label class="flex min-h-11 items-center gap-2"
								><input type="radio" name="passed" value="yes" checked />yes</label
							>
							<label class="flex min-h-11 items-center gap-2"
								><input type="radio" name="passed" value="no" />no</label
							>
						</fieldset>
						<PlainField label="Note" name="note" />
						<button class="button">Sign it</button>
					{/key}
				</form>
			{/if}
			{#if judged.events.length}
				<ul aria-label="Tags signed" class="text-[0.92rem]">
					{#each judged.events.slice(0, 8) as event (event.id)}<li class="rowline py-1">
							{readable(event.doneOn)}: {event.kind === 'sorbent'
								? 'sorbent changed'
								: `alarm tested, ${event.passed ? 'sounds' : 'failed'}`}
							<span class="text-soft">{event.by}{event.note ? `, ${event.note}` : ''}</span>
						</li>{/each}
				</ul>
			{/if}
		{/if}
	</aside>
</div>
