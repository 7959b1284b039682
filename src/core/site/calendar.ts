import { getISODay, parseISO } from 'date-fns';
import { checkDay, plusDays, readable, type Day } from '../plan/calendar.ts';
import { InputError } from '../verdict.ts';
import type { Holiday } from './choices.ts';

/** When a site works. */
export interface WorkCalendar {
	/** Weekdays, Monday 1 to Sunday 7. */
	workDays: readonly number[];
	holidays: readonly Holiday[];
}

export const WEEKDAYS = [
	'Monday',
	'Tuesday',
	'Wednesday',
	'Thursday',
	'Friday',
	'Saturday',
	'Sunday'
] as const;

/** Further back than any holiday lasts, a working day is looked for. */
const FURTHEST_DAYS = 400;

/** Why nobody works on a day; null where somebody does. */
export function offBecause(day: Day, calendar: WorkCalendar): string | null {
	const holiday = calendar.holidays.find(({ on }) => on === day);
	if (holiday) return holiday.name;
	const weekday = getISODay(parseISO(checkDay(day, 'day')));
	return calendar.workDays.includes(weekday) ? null : (WEEKDAYS[weekday - 1] ?? '');
}

/** The last working day up to a day, on which what falls due then is done; null where there is none in a year. */
export function workDayUpTo(day: Day, calendar: WorkCalendar): Day | null {
	for (let back = 0; back < FURTHEST_DAYS; back++) {
		const on = plusDays(day, -back);
		if (offBecause(on, calendar) === null) return on;
	}
	return null;
}

/**
 * A calendar as it is kept: weekdays and holidays in order, each once.
 * @throws InputError where no day of the week is worked on, or a holiday is no day or has no name
 */
export function checkWorkCalendar(calendar: WorkCalendar): {
	workDays: number[];
	holidays: Holiday[];
} {
	const workDays = [...new Set(calendar.workDays)].sort((a, b) => a - b);
	if (workDays.length === 0)
		throw new InputError(
			'workDays',
			'A calendar without a working day plans nothing: choose one at least.'
		);
	if (workDays.some((day) => !Number.isInteger(day) || day < 1 || day > 7))
		throw new InputError('workDays', 'Weekdays are 1, Monday, to 7, Sunday.');
	const holidays = calendar.holidays.map(({ on, name }, i) => {
		const tidy = name.trim();
		if (!tidy) throw new InputError(`holidays.${i}.name`, 'Name the holiday.');
		return { on: checkDay(on, `holidays.${i}.on`), name: tidy };
	});
	holidays.sort((a, b) => a.on.localeCompare(b.on));
	const twice = holidays.findIndex(({ on }, i) => holidays[i - 1]?.on === on);
	if (twice > 0)
		throw new InputError(
			'holidays',
			`${readable(holidays[twice]?.on ?? '')} stands in the list twice.`
		);
	return { workDays, holidays };
}
