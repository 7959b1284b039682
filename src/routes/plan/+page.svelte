<script lang="ts">
	import { format, parseISO } from 'date-fns';
	import { dueWords } from '$core/plan/agenda';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { readable } from '$core/plan/calendar';

	let { data } = $props();
	const HORIZONS = [7, 30, 90];
	const count = $derived(
		data.days.reduce((sum, day) => sum + day.dues.length + day.people.length, 0)
	);
</script>

<svelte:head><title>Plan · Grevan</title></svelte:head>
<div class="flex flex-wrap items-baseline gap-x-4">
	<h1>Plan</h1>
	<p class="text-soft">
		{data.cut ? `The first ${count} that fall due until` : `${count} fall due until`}
		{readable(data.until)}, by last day
	</p>
	<nav class="ml-auto flex gap-2" aria-label="How far ahead">
		{#each HORIZONS as days (days)}
			<a
				class="button {days === data.horizon ? 'primary' : ''}"
				href="/plan?days={days}"
				aria-current={days === data.horizon ? 'true' : undefined}>{days} days</a
			>
		{/each}
	</nav>
</div>
{#if count === 0}<p class="mt-4">Nothing falls due in this time.</p>{/if}
<div class="mt-4 grid gap-x-10 md:grid-cols-2">
	{#each data.days as { day, dues, people, off, doneBy, minutes } (day)}
		<section class="mb-5 break-inside-avoid" aria-label={day}>
			<h2 class={day === 'overdue' ? 'text-held!' : ''}>
				{day === 'overdue' ? 'Overdue, not usable' : format(parseISO(day), 'EEE d MMM yyyy')} · {dues.length +
					people.length}
			</h2>
			{#if off}<p class="text-[0.93rem]">
					Nobody works ({off}){doneBy ? `: to be done by ${readable(doneBy)}` : ''}.
				</p>{/if}
			{#if minutes > data.benchMinutes}<p class="text-[0.93rem] font-semibold text-due">
					About {minutes} min at the bench, and a day has {data.benchMinutes}: begin earlier.
				</p>{/if}
			<ul>
				{#each dues as due (due.id + due.dueWhat + due.dueDetail)}
					<li class="rowline">
						<a
							href="/items/{due.tag}"
							class="grid min-h-11 grid-cols-[1.6rem_5.6rem_1fr] items-center gap-3 no-underline"
						>
							<StateMark state={due.state} /><span class="tag">{due.tag}</span>
							<span
								>{dueWords(due.dueWhat, due.dueDetail)}
								<span class="text-soft">· {due.set ? `on ${due.set}, ` : ''}{due.place}</span></span
							>
						</a>
					</li>
				{/each}
				{#each people as one (one.key)}
					<li class="rowline">
						<a
							href={one.href}
							class="grid min-h-11 grid-cols-[1.6rem_5.6rem_1fr] items-center gap-3 no-underline"
						>
							<StateMark state={day === 'overdue' ? 'overdue' : 'due'} /><span class="tag"
								>{one.number || 'People'}</span
							>
							<span>{one.says} <span class="text-soft">· {one.name}</span></span>
						</a>
					</li>
				{/each}
			</ul>
		</section>
	{/each}
</div>
