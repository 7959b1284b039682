<script lang="ts">
	/** One day of one person by the plan: on a phone, at the bench, on paper. */
	import { format, parseISO } from 'date-fns';
	import { groupBy } from '$core/group-by';
	import { goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import Field from '$lib/ui/form/Field.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { readable } from '$core/plan/calendar';
	import { hoursAndMinutes } from '$lib/ui/plan/words';

	let { data } = $props();
	const minutes = $derived(data.jobs.reduce((sum, job) => sum + job.minutes, 0));
	const left = $derived(data.jobs.filter(({ done }) => !done).length);
	const places = $derived(
		[...groupBy(data.jobs, ({ place }) => place ?? 'Anywhere')].map(([place, jobs]) => ({
			place,
			jobs
		}))
	);
	const show = (day: string, who: string) =>
		goto(resolve(`/plan/day?day=${day}&who=${encodeURIComponent(who)}`), { keepFocus: true });
</script>

<svelte:head><title>{data.who?.name ?? 'Day'} · Plan · Grevan</title></svelte:head>
<div class="mt-4 flex flex-wrap items-baseline gap-x-4 gap-y-1">
	<h1>
		{data.who?.name ?? 'Nobody works on the plan'}, {format(parseISO(data.day), 'EEEE d MMM yyyy')}
	</h1>
	<p class="text-soft" role="status">
		{#if data.jobs.length}{data.jobs.length} jobs, {hoursAndMinutes(minutes)}; {left} to do{:else}Nothing
			is planned on this day.{/if}
	</p>
	<button class="button no-print ml-auto" type="button" onclick={() => print()}>Print</button>
</div>
{#if data.who}
	<div class="no-print mt-3 flex flex-wrap gap-x-4 gap-y-2">
		<Field id="plan-who" label="Whose day">
			{#snippet children(field)}<select
					{...field}
					class="w-56"
					value={data.who?.id}
					onchange={(event) => void show(data.day, event.currentTarget.value)}
				>
					{#each data.workers as { id, name } (id)}<option value={id}>{name}</option>{/each}
				</select>{/snippet}
		</Field>
		<Field id="plan-day" label="Day">
			{#snippet children(field)}<select
					{...field}
					class="w-48"
					value={data.day}
					onchange={(event) => void show(event.currentTarget.value, data.who?.id ?? '')}
				>
					{#if !data.days.includes(data.day)}<option value={data.day}>{readable(data.day)}</option
						>{/if}
					{#each data.days as day (day)}<option value={day}
							>{format(parseISO(day), 'EEE d MMM yyyy')}</option
						>{/each}
				</select>{/snippet}
		</Field>
	</div>
{/if}
{#each places as { place, jobs } (place)}
	<section class="mt-5 max-w-[52rem] break-inside-avoid" aria-label={place}>
		<h2>{place} · {hoursAndMinutes(jobs.reduce((sum, job) => sum + job.minutes, 0))}</h2>
		<ul>
			{#each jobs as job (job.key)}
				<li class="rowline">
					<a
						href={job.href}
						class="grid min-h-11 grid-cols-[1.6rem_6rem_1fr_auto] items-center gap-x-3 py-1 no-underline {job.done
							? 'text-soft'
							: ''}"
					>
						<StateMark state={job.done ? 'good' : job.latest < data.day ? 'overdue' : 'open'} />
						<span class="tag overflow-hidden text-ellipsis">{job.tag}</span>
						<span class="leading-snug"
							>{job.title}
							<span class="text-soft"
								>· {job.done
									? 'done'
									: job.latest < data.day
										? `was due ${readable(job.latest)}`
										: `by ${readable(job.latest)}`}</span
							></span
						>
						<span class="font-mono whitespace-nowrap">{job.minutes} min</span>
					</a>
				</li>
			{/each}
		</ul>
	</section>
{/each}
{#if data.jobs.length === 0}
	<p class="mt-4 max-w-prose">
		{data.days.length
			? 'Choose another day above.'
			: 'There is no plan in force, or nothing in it is theirs.'}
		<a href="/plan">The weeks</a>
	</p>
{/if}
