<script lang="ts">
	/** The jobs of a day of a person. One is opened to its reasons; keys move it, pin it, or bar the day. */
	import { format, parseISO } from 'date-fns';
	import Pin from '@lucide/svelte/icons/pin';
	import { dndzone, type DndEvent, SHADOW_ITEM_MARKER_PROPERTY_NAME } from 'svelte-dnd-action';
	import { whyThere } from '$core/plan/level/why';
	import { hearsKeys } from '$lib/ui/shell/keys.svelte';
	import type { Planner } from './planner.svelte';
	import { hoursAndMinutes } from './words';

	interface Props {
		planner: Planner;
		/** A job is to go to a day; left out: nothing may be moved. */
		move?: ((key: string, slot: number) => void) | undefined;
		unpin?: ((key: string) => void) | undefined;
		bar?: ((slot: number) => void) | undefined;
		/** The job whose reasons stand open, by key. */
		chosen: string | null;
	}
	let { planner, move, unpin, bar, chosen = $bindable() }: Props = $props();
	const n = $derived(planner.problem.days.length);
	const day = $derived(planner.problem.days[planner.slot % n] ?? '');
	const worker = $derived(Math.floor(planner.slot / n));
	const load = $derived(planner.board.load[planner.slot] ?? 0);

	interface Row {
		id: string;
		job: number;
		[SHADOW_ITEM_MARKER_PROPERTY_NAME]?: boolean;
	}
	const rows = $derived<Row[]>(
		planner.open.map((job) => ({ id: planner.facts.jobs[job]?.key ?? '', job }))
	);
	/** While one is dragged, what the list shows. */
	let dragging = $state.raw<Row[] | null>(null);
	const listed = $derived(dragging ?? rows);
	hearsKeys(() =>
		move
			? [
					{
						keys: '← →',
						does: 'a day earlier or later: days when one has the focus, the job when a job has'
					},
					{ keys: 'P', does: 'pins the job to its day, or frees it' },
					{ keys: 'B', does: 'bars the day for this person' }
				]
			: []
	);
	function onkeydown(event: KeyboardEvent, row: Row) {
		if (event.altKey || event.ctrlKey || event.metaKey) return;
		const step = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : null;
		if (step !== null && move) {
			event.preventDefault();
			const to = planner.nextDay(worker, planner.slot % n, step);
			if (to !== null) move(row.id, worker * n + to);
		} else if (event.key.toLowerCase() === 'p') {
			event.preventDefault();
			if (planner.isPinned(row.id)) unpin?.(row.id);
			else move?.(row.id, planner.slot);
		} else if (event.key.toLowerCase() === 'b') {
			event.preventDefault();
			bar?.(planner.slot);
		} else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
			event.preventDefault();
			const buttons = [...document.querySelectorAll<HTMLElement>('[data-plan-job]')];
			const at = buttons.indexOf(event.currentTarget as HTMLElement);
			buttons[at + (event.key === 'ArrowDown' ? 1 : -1)]?.focus();
		}
	}
	const why = $derived.by(() => {
		const job = planner.facts.jobs.findIndex(({ key }) => key === chosen);
		return job < 0 ? null : whyThere(planner.problem, planner.at, job);
	});
</script>

<h2>
	{format(parseISO(day), 'EEE d MMM')}, {planner.problem.workers[worker]?.id} · {hoursAndMinutes(
		load
	)}
</h2>
{#if listed.length === 0}<p class="mt-1">
		{(planner.problem.workers[worker]?.minutes[planner.slot % n] ?? 0) === 0
			? 'Away on this day.'
			: 'Nothing planned on this day.'}
	</p>{/if}
<ul
	class="mt-1"
	use:dndzone={{
		items: listed,
		type: 'plan-job',
		dragDisabled: !move,
		dropFromOthersDisabled: true,
		useCursorForDetection: true,
		dropTargetStyle: {},
		zoneTabIndex: -1,
		zoneItemTabIndex: -1
	}}
	onconsider={(event: CustomEvent<DndEvent<Row>>) => (dragging = event.detail.items)}
	onfinalize={() => (dragging = null)}
>
	{#each listed as row (row.id)}
		{@const job = planner.facts.jobs[row.job]}
		{#if job}
			<li class="rowline">
				<button
					type="button"
					data-plan-job={row.id}
					aria-expanded={chosen === row.id}
					class="grid min-h-11 w-full grid-cols-[5.6rem_1fr_auto] items-center gap-x-2 py-1 text-left hover:bg-tint"
					onclick={() => (chosen = chosen === row.id ? null : row.id)}
					onkeydown={(event) => onkeydown(event, row)}
				>
					<span class="tag overflow-hidden text-ellipsis">{job.tag}</span>
					<span class="leading-snug"
						>{job.title}{#if job.place}<span class="ml-1 text-soft">· {job.place}</span
							>{/if}{#if planner.isPinned(row.id)}
							<Pin size={14} class="inline" aria-label="pinned" />{/if}</span
					>
					<span class="font-mono text-[0.92rem]">{job.minutes}</span>
				</button>
				{#if chosen === row.id && why}
					<div
						class="mb-2 border-l-2 border-accent pl-3 text-[0.93rem]"
						role="note"
						aria-label="Because"
					>
						<p>{why.window} {why.with}</p>
						{#if why.earlier}<p>{why.earlier}</p>{/if}
						{#if why.later}<p>{why.later}</p>{/if}
						<p><a class="inline-flex min-h-9 items-center" href={job.href}>Open {job.tag}</a></p>
					</div>
				{/if}
			</li>
		{/if}
	{/each}
</ul>
{#if move && listed.length > 0}
	<p class="mt-2 text-[0.9rem] text-soft max-md:hidden">
		On a job: <kbd>←</kbd> <kbd>→</kbd> move it a day · <kbd>P</kbd> pin · <kbd>B</kbd> bar the day
	</p>
{/if}
