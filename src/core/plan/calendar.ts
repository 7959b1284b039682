import { format, parseISO } from 'date-fns';
import { InputError } from '../verdict.ts';

/** A day without a time, YYYY-MM-DD. */
export type Day = string;

/** Days that anything of this trade can carry. Site default. */
const FIRST_DAY = '1900-01-01';
const LAST_DAY = '2199-12-31';

/**
 * Reads a day. Days never carry a time zone: they are the site's own calendar.
 * @throws InputError when the text is no day of the calendar.
 */
export function checkDay(text: string, path: string): Day {
	const date = parseISO(text);
	if (!/^\d{4}-\d{2}-\d{2}$/.test(text) || Number.isNaN(date.getTime()))
		throw new InputError(path, `"${text}" is no date. Write it as 2026-11-24.`);
	if (text < FIRST_DAY || text > LAST_DAY)
		throw new InputError(path, `${text} lies outside ${FIRST_DAY} to ${LAST_DAY}. Check the year.`);
	return text;
}

const DAY_MS = 86_400_000;
const MONTHS = 'Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec'.split(' ');

/** Midnight of a day on a calendar without time zones, ms. */
const midnight = (day: Day): number => Date.parse(`${day}T00:00:00Z`);

/** The same day of a later month, or that month's last day: 31 January + 1 month = 28 February. @throws RangeError when the text is no day */
export function plusMonths(day: Day, months: number): Day {
	const from = new Date(midnight(day));
	const month = from.getUTCMonth() + Math.trunc(months);
	const lastDay = new Date(Date.UTC(from.getUTCFullYear(), month + 1, 0)).getUTCDate();
	const to = Date.UTC(from.getUTCFullYear(), month, Math.min(from.getUTCDate(), lastDay));
	return new Date(to).toISOString().slice(0, 10);
}

/** So many days later. @throws RangeError when the text is no day */
export const plusDays = (day: Day, days: number): Day =>
	new Date(midnight(day) + Math.trunc(days) * DAY_MS).toISOString().slice(0, 10);

/** Whole days from one day to another; negative when the second lies before the first. */
export const daysBetween = (from: Day, to: Day): number =>
	Math.round((midnight(to) - midnight(from)) / DAY_MS);

/** A day as people read it: 24 Nov 2026. @throws RangeError when the text is no day */
export function readable(day: Day): string {
	const date = new Date(midnight(day));
	const month = MONTHS[date.getUTCMonth()];
	// What carries a time as well is read by it.
	if (!month) return format(parseISO(day), 'd MMM yyyy');
	return `${date.getUTCDate()} ${month} ${date.getUTCFullYear()}`;
}
