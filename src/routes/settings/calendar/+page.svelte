<script lang="ts">
	import { WEEKDAYS } from '$core/site/calendar';
	import { DAY_BENCH_MINUTES } from '$core/site/choices';
	import { enhance } from '$lib/ui/form/enhance';
	import { untrack } from 'svelte';
	import DayField from '$lib/ui/form/DayField.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import { refusedAt } from '$lib/ui/form/refused';
	import HouseForm from './HouseForm.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const OF_HOUSE = ['name', 'takes', 'turnaroundDays'];
	const ofHouse = $derived(OF_HOUSE.includes(refusal?.path ?? ''));
	let open = $state<string | null>(null);
	let next = 0;
	let holidays = $state(untrack(() => data.site.holidays.map((one) => ({ id: next++, ...one }))));
	const holidayRefusal = $derived(
		/^holidays|^days|^names/.test(refusal?.path ?? '') ? (refusal?.message ?? null) : null
	);
</script>

<svelte:head><title>Calendar and test houses · Grevan</title></svelte:head>
<div class="mt-4 grid gap-x-12 gap-y-8 lg:grid-cols-2">
	<section aria-labelledby="calendar">
		<h2 id="calendar">When the bench works</h2>
		<p class="mt-1">
			What falls due on another day is planned for the last working day before it; a day with more
			work than it has is said so.
		</p>
		<form
			method="post"
			action="?/calendar"
			class="mt-3 grid gap-5"
			use:enhance={() =>
				({ update }) =>
					update({ reset: false })}
		>
			<input type="hidden" name="version" value={data.site.version} />
			{#if form && 'kept' in form}<Notice kind="good"><p role="status">Kept.</p></Notice>{/if}
			{#if refusal && !ofHouse && !holidayRefusal && !['benchMinutes', 'workDays'].includes(refusal.path ?? '')}<FormRefusal
					refusal={{ message: refusal.message }}
				/>{/if}
			<fieldset>
				<legend class="label">Working days</legend>
				{#if refusedAt(refusal, 'workDays')}<p class="font-semibold text-held" role="alert">
						{refusedAt(refusal, 'workDays')}
					</p>{/if}
				<div class="flex flex-wrap gap-x-5">
					{#each WEEKDAYS as day, i (day)}<label class="flex min-h-11 items-center gap-2"
							><input
								type="checkbox"
								name="workDays[]"
								value={i + 1}
								checked={data.site.workDays.includes(i + 1)}
							/>{day}</label
						>{/each}
				</div>
			</fieldset>
			<PlainField
				name="benchMinutes"
				label="Bench work in such a day, minutes"
				value={data.site.benchMinutes}
				inputmode="numeric"
				mono
				width="w-28"
				hint="All who work at the bench together. Usual for one: {DAY_BENCH_MINUTES}."
				refusal={refusedAt(refusal, 'benchMinutes')}
			/>
			<fieldset>
				<legend class="label">Holidays</legend>
				{#if holidayRefusal}<p class="font-semibold text-held" role="alert">
						{holidayRefusal}
					</p>{/if}
				{#each holidays as holiday, i (holiday.id)}
					<div class="mb-3 grid items-end gap-3 sm:grid-cols-[13rem_1fr_auto]">
						<DayField name="days[]" label="Day" value={holiday.on} />
						<PlainField name="names[]" label="Name" value={holiday.name} maxlength={60} />
						<button
							type="button"
							class="linkish min-h-11"
							aria-label="Take out {holiday.name || `row ${i + 1}`}"
							onclick={() => (holidays = holidays.filter((one) => one !== holiday))}
							>Take out</button
						>
					</div>
				{:else}<p>None yet.</p>{/each}
				<button
					type="button"
					class="button mt-1"
					onclick={() => (holidays = [...holidays, { id: next++, on: '', name: '' }])}
					>Add a holiday</button
				>
			</fieldset>
			<button class="button primary justify-self-start">Keep these</button>
		</form>
	</section>
	<section aria-labelledby="houses">
		<div class="flex items-center gap-4">
			<h2 id="houses">Test houses</h2>
			<button class="button ml-auto" onclick={() => (open = open === 'new' ? null : 'new')}
				>New test house</button
			>
		</div>
		<p class="mt-1">Where cylinders, sets and suits are sent, and how long until they are back.</p>
		{#if form && 'keptHouse' in form}<div class="mt-2">
				<Notice kind="good"><p role="status">{form.keptHouse} is kept.</p></Notice>
			</div>{/if}
		{#if open === 'new'}<HouseForm {refusal} done={() => (open = null)} />{/if}
		{#if data.houses.length === 0 && open !== 'new'}<p class="mt-2">
				None yet. Until there is one, nothing says how long a cylinder is away.
			</p>{/if}
		<ul class="mt-2">
			{#each data.houses as house (house.id)}
				<li class="rowline py-2">
					<div class="flex flex-wrap items-center gap-x-4">
						<span class="flex-1"
							><b>{house.name}</b><br /><span class="text-soft"
								>{house.takes.join(', ')} · back after {house.turnaroundDays} days</span
							></span
						>
						<button
							class="button"
							aria-expanded={open === house.id}
							onclick={() => (open = open === house.id ? null : house.id)}>Change</button
						>
					</div>
					{#if open === house.id}<HouseForm {house} {refusal} done={() => (open = null)} />{/if}
				</li>
			{/each}
		</ul>
	</section>
</div>
