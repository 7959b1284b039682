<script lang="ts">
	/**
	 * A day, or a day and a time, as people here write it: by keyboard part by part, or picked from a month. The form
	 * gets it as YYYY-MM-DD; a moment as the same with its offset, in the zone of the site.
	 */
	import { untrack } from 'svelte';
	import {
		parseAbsolute,
		parseDate,
		parseDateTime,
		toCalendarDateTime,
		today,
		toZoned,
		type DateValue
	} from '@internationalized/date';
	import { CalendarDays, ChevronLeft, ChevronRight } from '@lucide/svelte';
	import { DatePicker } from 'bits-ui';
	import { siteZone } from '$lib/ui/time/moments';

	interface Props {
		label: string;
		name: string;
		/** YYYY-MM-DD; with a time YYYY-MM-DDTHH:MM of the site, or an ISO moment; empty for none. */
		value?: string | null;
		min?: string;
		max?: string;
		/** Asks for the time as well. */
		withTime?: boolean;
		required?: boolean;
		refusal?: string | null | undefined;
		hint?: string;
	}
	let {
		label,
		name,
		value = $bindable(''),
		min,
		max,
		withTime = false,
		required = false,
		refusal = null,
		hint
	}: Props = $props();

	const LOCALE = 'en-GB';
	const id = $props.id();
	const zone = siteZone();
	const read = (text: string | null | undefined): DateValue | undefined => {
		if (!text) return undefined;
		if (!withTime) return parseDate(text);
		return /Z$|[+-]\d\d:\d\d$/.test(text)
			? toCalendarDateTime(parseAbsolute(text, zone))
			: parseDateTime(text);
	};
	let chosen = $state.raw<DateValue | undefined>(untrack(() => read(value)));
	const text = $derived(
		!chosen
			? ''
			: withTime
				? toZoned(toCalendarDateTime(chosen), zone).toAbsoluteString()
				: chosen.toString().slice(0, 10)
	);
	const said = $derived(refusal ? `${id}-refusal` : hint ? `${id}-hint` : undefined);
	/** The month that is shown first. */
	const around = $derived(chosen ?? read(max) ?? today(zone));
</script>

<DatePicker.Root
	value={chosen}
	onValueChange={(next) => {
		chosen = next;
		value = text;
	}}
	placeholder={around}
	locale={LOCALE}
	granularity={withTime ? 'second' : 'day'}
	hourCycle={24}
	hideTimeZone
	weekStartsOn={1}
	fixedWeeks
	minValue={read(min)}
	maxValue={read(max)}
	{required}
>
	<div>
		<DatePicker.Label class="label">{label}</DatePicker.Label>
		<div class="flex gap-2">
			<DatePicker.Input
				class="flex min-h-11 flex-1 items-center rounded border border-ink bg-sheet px-2 font-mono whitespace-nowrap focus-within:outline-2 focus-within:outline-ink {refusal
					? 'border-held!'
					: ''}"
				aria-describedby={said}
			>
				{#snippet children({ segments })}
					{#each segments as { part, value: shown }, i (part + i)}
						{#if part === 'literal'}<span class="text-soft px-0.5" aria-hidden="true">{shown}</span>
						{:else}<DatePicker.Segment
								{part}
								class="rounded px-0.5 py-1 focus:bg-ink focus:text-paper focus:outline-none"
								>{shown}</DatePicker.Segment
							>{/if}
					{/each}
				{/snippet}
			</DatePicker.Input>
			<DatePicker.Trigger class="button px-3!" aria-label="Choose from a month: {label}">
				<CalendarDays size={20} aria-hidden="true" />
			</DatePicker.Trigger>
		</div>
		<input type="hidden" {name} value={text} />
		{#if refusal}<p id="{id}-refusal" class="mt-1 font-semibold text-held">{refusal}</p>
		{:else if hint}<p id="{id}-hint" class="text-soft mt-1 text-[0.9rem]">{hint}</p>{/if}
	</div>
	<DatePicker.Content sideOffset={6} class="z-50 rounded border-2 border-ink bg-sheet p-3">
		<DatePicker.Calendar>
			{#snippet children({ months, weekdays })}
				<DatePicker.Header class="flex items-center justify-between gap-2">
					<DatePicker.PrevButton class="button px-3!" aria-label="The month before"
						><ChevronLeft size={20} aria-hidden="true" /></DatePicker.PrevButton
					>
					<DatePicker.Heading class="font-semibold" />
					<DatePicker.NextButton class="button px-3!" aria-label="The month after"
						><ChevronRight size={20} aria-hidden="true" /></DatePicker.NextButton
					>
				</DatePicker.Header>
				{#each months as month (month.value.toString())}
					<DatePicker.Grid class="mt-2">
						<DatePicker.GridHead>
							<DatePicker.GridRow class="flex">
								{#each weekdays as weekday, i (i)}<DatePicker.HeadCell
										class="text-soft w-11 text-center text-[0.88rem] font-normal"
										>{weekday.slice(0, 2)}</DatePicker.HeadCell
									>{/each}
							</DatePicker.GridRow>
						</DatePicker.GridHead>
						<DatePicker.GridBody>
							{#each month.weeks as week, i (i)}
								<DatePicker.GridRow class="flex">
									{#each week as date (date.toString())}
										<DatePicker.Cell {date} month={month.value} class="p-0">
											<DatePicker.Day
												class="flex h-11 w-11 cursor-pointer items-center justify-center rounded font-mono hover:bg-rule data-disabled:opacity-40 data-outside-month:opacity-40 data-selected:bg-ink data-selected:text-paper data-today:font-bold data-today:underline"
											/>
										</DatePicker.Cell>
									{/each}
								</DatePicker.GridRow>
							{/each}
						</DatePicker.GridBody>
					</DatePicker.Grid>
				{/each}
			{/snippet}
		</DatePicker.Calendar>
	</DatePicker.Content>
</DatePicker.Root>
