<script lang="ts">
	import { WEEKDAYS } from '$core/site/calendar';
	import { readable } from '$core/plan/calendar';
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { siteMoment } from '$lib/ui/time/moments';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	const nameOf = (userId: string) => data.people.find(({ id }) => id === userId)?.name ?? '';
</script>

<svelte:head><title>Hours and calendars · Plan · Grevan</title></svelte:head>
<h1 class="mt-4">Hours and calendars</h1>
{#if refusal}<FormRefusal {refusal} />{/if}
{#if form && 'made' in form}<div class="mt-4 max-w-prose">
		<Notice kind="good">
			<p>The address of the calendar. It is shown only now; only a hash of it is kept.</p>
			<p class="mt-1 font-mono font-semibold break-all" role="status">{form.made}</p>
		</Notice>
	</div>{/if}
<section class="mt-4" aria-labelledby="hours-title">
	<h2 id="hours-title">Minutes of plan work on each weekday</h2>
	<p class="max-w-prose text-[0.95rem] text-soft">
		Looks, tests, repairs and washing that are planned; not hand-out and return. With 0 on every day
		somebody is in no plan.
	</p>
	{#if data.maySet}
		<ul class="mt-2">
			{#each data.people as person (person.id)}
				<li class="rowline py-2">
					<form
						method="post"
						action="?/hours"
						use:enhance
						class="flex flex-wrap items-end gap-x-2 gap-y-1"
					>
						<input type="hidden" name="userId" value={person.id} />
						<b class="w-40 self-center">{person.name}</b>
						{#each WEEKDAYS as weekday, i (weekday)}
							<label class="text-[0.85rem]"
								>{weekday.slice(0, 2)}<input
									class="block w-16 font-mono"
									name="minutes[]"
									inputmode="numeric"
									aria-label="{weekday}, {person.name}"
									value={person.minutes[i]}
								/></label
							>
						{/each}
						<button class="button">Set</button>
						{#if !person.own}<span class="self-center text-[0.9rem] text-soft"
								>{person.minutes.some((one) => one > 0) ? 'as the site' : 'in no plan'}</span
							>{/if}
					</form>
				</li>
			{/each}
		</ul>
	{:else}
		<table class="mt-2 text-left">
			<thead class="text-[0.9rem] text-soft"
				><tr
					><td></td>{#each WEEKDAYS as weekday (weekday)}<th class="w-14 text-right font-normal"
							>{weekday.slice(0, 2)}</th
						>{/each}</tr
				></thead
			>
			<tbody>
				{#each data.people.filter( ({ minutes }) => minutes.some((one) => one > 0) ) as { id, name, minutes } (id)}
					<tr class="border-t border-rule"
						><th class="py-1.5 pr-4">{name}</th>{#each minutes as one, i (i)}<td
								class="text-right font-mono">{one}</td
							>{/each}</tr
					>
				{/each}
			</tbody>
		</table>
	{/if}
	{#if !data.maySet}<p class="mt-1 text-[0.95rem] text-soft">A supervisor sets hours.</p>{/if}
</section>
<div class="mt-8 grid gap-x-12 gap-y-8 lg:grid-cols-2">
	<section aria-labelledby="feeds-title">
		<h2 id="feeds-title">Calendars</h2>
		<p class="max-w-prose text-[0.95rem] text-soft">
			The days of a person or of a place as a calendar of your own program: what is to be done, and
			nothing more about anybody. Whoever has the address reads it, until it is revoked.
		</p>
		{#if data.mayFeed}
			<form method="post" action="?/make" use:enhance class="mt-3 flex flex-wrap items-end gap-3">
				<Field id="feed-of" label="Whose">
					{#snippet children(field)}<select {...field} name="of" class="w-64">
							<optgroup label="People">
								{#each data.people.filter( ({ minutes }) => minutes.some((one) => one > 0) ) as { id, name } (id)}<option
										value="user:{id}">{name}</option
									>{/each}
							</optgroup>
							<optgroup label="Places">
								{#each data.places as { id, name } (id)}<option value="place:{id}">{name}</option
									>{/each}
							</optgroup>
						</select>{/snippet}
				</Field>
				<button class="button primary">Make a calendar</button>
			</form>
		{/if}
		<ul class="mt-3">
			{#each data.feeds as feed (feed.id)}
				<li class="rowline flex flex-wrap items-center gap-x-4 py-1">
					<b>{feed.person ?? feed.place}</b>
					<span class="text-soft"
						>made {siteMoment(feed.madeAt)}{feed.readAt
							? `, last read ${siteMoment(feed.readAt)}`
							: ', not read yet'}</span
					>
					{#if data.mayFeed}<form method="post" action="?/revoke" use:enhance class="ml-auto">
							<input type="hidden" name="id" value={feed.id} />
							<button
								class="linkish min-h-11"
								aria-label="Revoke the calendar of {feed.person ?? feed.place}">revoke</button
							>
						</form>{/if}
				</li>
			{:else}<li>No calendar is read by anybody.</li>{/each}
		</ul>
	</section>
	<section aria-labelledby="barred-title">
		<h2 id="barred-title">Days that are barred</h2>
		<ul class="mt-1">
			{#each data.barred as { day, userId, why } (day + userId)}
				<li class="rowline py-1.5">
					<b>{readable(day)}</b>
					{userId ? nameOf(userId) : 'everybody'}{why ? `: ${why}` : ''}
				</li>
			{:else}<li>None. On the weeks, choose a day and bar it.</li>{/each}
		</ul>
		<p class="mt-2 text-[0.95rem] text-soft">
			Working days and holidays of the site stand under <a href="/settings/calendar"
				>Settings, Calendar</a
			>.
		</p>
	</section>
</div>
