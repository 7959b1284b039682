<script lang="ts">
	/**
	 * Weeks by people: what each day holds against what it has. Every day of a person is a button; arrows walk them. A job that is dragged from the list beside is put on the day it is dropped on.
	 */
	import { format, parseISO } from 'date-fns';
	import { dndzone, type DndEvent, TRIGGERS } from 'svelte-dnd-action';
	import type { Bar, Planner } from './planner.svelte';
	import { hoursAndMinutes } from './words';

	interface Dragged {
		id: string;
	}
	interface Props {
		planner: Planner;
		/** A job was dropped on a day; left out: nothing may be moved. */
		drop?: ((key: string, slot: number) => void) | undefined;
	}
	let { planner, drop }: Props = $props();
	const days = $derived(planner.problem.days);
	const HIGH = 84;
	/** The scale of all bars: the longest day that anybody has, or works. */
	const most = $derived(
		Math.max(1, ...planner.bars.flat().map((bar) => Math.max(bar.capacity, sum(bar))))
	);
	const sum = ({ look, test, rest, way }: Bar) => look + test + rest + way;
	const high = (minutes: number) => (minutes / most) * HIGH;
	const monday = (day: string) => parseISO(day).getDay() === 1;
	const label = (bar: Bar) => {
		const name = planner.problem.workers[bar.worker]?.id ?? '';
		const date = format(parseISO(days[bar.day] ?? ''), 'EEE d MMM');
		return bar.capacity === 0 && bar.jobs === 0
			? `${name}, ${date}: away`
			: `${name}, ${date}: ${bar.jobs} jobs, ${hoursAndMinutes(sum(bar))} of ${hoursAndMinutes(bar.capacity)}`;
	};
	let grid: HTMLElement | undefined = $state();
	let over = $state(-1);
	const STEPS: Record<string, [-1 | 0 | 1, -1 | 0 | 1]> = {
		ArrowLeft: [-1, 0],
		ArrowRight: [1, 0],
		ArrowUp: [0, -1],
		ArrowDown: [0, 1]
	};
	function walk(event: KeyboardEvent) {
		const step = STEPS[event.key];
		if (!step || event.altKey || event.ctrlKey || event.metaKey) return;
		event.preventDefault();
		planner.step(...step);
		grid?.querySelector<HTMLElement>(`[data-slot="${planner.slot}"]`)?.focus();
	}
	/** What hovers over each day while it is dragged. */
	let hovering = $state.raw<Record<number, Dragged[]>>({});
	const consider = (slot: number) => (event: CustomEvent<DndEvent<Dragged>>) => {
		hovering = { ...hovering, [slot]: event.detail.items };
		over =
			event.detail.info.trigger === TRIGGERS.DRAGGED_ENTERED ? slot : over === slot ? -1 : over;
	};
	const finalize = (slot: number) => (event: CustomEvent<DndEvent<Dragged>>) => {
		over = -1;
		hovering = { ...hovering, [slot]: [] };
		if (event.detail.info.trigger === TRIGGERS.DROPPED_INTO_ZONE)
			drop?.(event.detail.info.id, slot);
	};
	const columns = $derived(`9rem repeat(${days.length}, minmax(1.05rem, 1fr))`);
</script>

<div class="overflow-x-auto pb-1" bind:this={grid}>
	<div class="min-w-[44rem]">
		<div class="grid" style="grid-template-columns: {columns}" aria-hidden="true">
			<span></span>
			{#each days as day (day)}
				<span
					class="text-center text-[0.78rem] leading-tight text-soft {monday(day)
						? 'border-l border-rule'
						: ''}"
					>{format(parseISO(day), 'EEEEEE')}<br /><b class="font-mono text-ink"
						>{format(parseISO(day), 'd')}</b
					></span
				>
			{/each}
		</div>
		{#each planner.bars as row, worker (worker)}
			<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
			<div
				class="grid items-end pt-3"
				style="grid-template-columns: {columns}"
				role="group"
				aria-label={planner.problem.workers[worker]?.id}
				onkeydown={walk}
			>
				<b class="self-center pr-2 leading-tight">{planner.problem.workers[worker]?.id}</b>
				{#each row as bar (bar.slot)}
					<div class="relative {monday(days[bar.day] ?? '') ? 'border-l border-rule' : ''}">
						<!-- What is dropped on lies over the button and catches nothing else. -->
						<span
							class="pointer-events-none absolute inset-0"
							aria-hidden="true"
							use:dndzone={{
								items: hovering[bar.slot] ?? [],
								type: 'plan-job',
								dragDisabled: true,
								dropFromOthersDisabled: !drop || bar.capacity === 0,
								dropTargetStyle: {},
								morphDisabled: true,
								useCursorForDetection: true,
								zoneTabIndex: -1
							}}
							onconsider={consider(bar.slot)}
							onfinalize={finalize(bar.slot)}
						>
							{#each hovering[bar.slot] ?? [] as ghost (ghost.id)}<span
									class="block h-full w-full opacity-0"
								></span>{/each}
						</span>
						<button
							type="button"
							data-slot={bar.slot}
							tabindex={bar.slot === planner.slot ? 0 : -1}
							aria-pressed={bar.slot === planner.slot}
							aria-label={label(bar)}
							class="block w-full px-px {bar.slot === planner.slot || over === bar.slot
								? 'bg-tint'
								: ''}"
							onclick={() => (planner.slot = bar.slot)}
						>
							<svg
								viewBox="0 0 10 {HIGH + 4}"
								preserveAspectRatio="none"
								class="block h-[5.4rem] w-full"
								aria-hidden="true"
							>
								<rect
									x="1"
									width="8"
									y={HIGH + 2 - high(bar.look)}
									height={high(bar.look)}
									fill="var(--accent)"
								/>
								<rect
									x="1"
									width="8"
									y={HIGH + 2 - high(bar.look + bar.test)}
									height={high(bar.test)}
									fill="var(--accent)"
									opacity="0.55"
								/>
								<rect
									x="1"
									width="8"
									y={HIGH + 2 - high(bar.look + bar.test + bar.rest)}
									height={high(bar.rest)}
									fill="var(--accent)"
									opacity="0.28"
								/>
								<rect
									x="1"
									width="8"
									y={HIGH + 2 - high(sum(bar))}
									height={high(bar.way)}
									fill="none"
									stroke="var(--accent)"
									stroke-width="1"
									vector-effect="non-scaling-stroke"
								/>
								{#if bar.capacity > 0}<line
										x1="0"
										x2="10"
										y1={HIGH + 2 - high(bar.capacity)}
										y2={HIGH + 2 - high(bar.capacity)}
										stroke="var(--held)"
										stroke-dasharray="3 2"
										vector-effect="non-scaling-stroke"
									/>{/if}
								<line
									x1="0"
									x2="10"
									y1={HIGH + 3}
									y2={HIGH + 3}
									stroke="var(--ink)"
									stroke-width={bar.slot === planner.slot ? 4 : 1.5}
									vector-effect="non-scaling-stroke"
								/>
							</svg>
							{#if bar.capacity === 0 && bar.jobs === 0}<span
									class="absolute bottom-1 left-1/2 origin-bottom-left -rotate-90 text-[0.72rem] text-soft"
									aria-hidden="true">away</span
								>{/if}
						</button>
					</div>
				{/each}
			</div>
		{/each}
		<p class="mt-1 ml-[9rem] flex flex-wrap gap-x-4 text-[0.85rem] text-soft" aria-hidden="true">
			<span><i class="mr-1 inline-block size-3 bg-accent align-[-1px]"></i>looks</span>
			<span><i class="mr-1 inline-block size-3 bg-accent align-[-1px] opacity-55"></i>tests</span>
			<span
				><i class="mr-1 inline-block size-3 bg-accent align-[-1px] opacity-28"></i>repairs, washing,
				filters</span
			>
			<span
				><i class="mr-1 inline-block size-3 border border-accent align-[-1px]"></i>ways to places</span
			>
			<span class="before:mr-1 before:text-held before:content-['┄']">minutes of the day</span>
		</p>
	</div>
</div>
