import { addDays, addMonths, differenceInCalendarDays, format, parseISO } from 'date-fns';
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

/** The same day of a later month, or that month's last day: 31 January + 1 month = 28 February. */
export const plusMonths = (day: Day, months: number): Day =>
	write(addMonths(parseISO(day), months));

export const plusDays = (day: Day, days: number): Day => write(addDays(parseISO(day), days));

/** Whole days from one day to another; negative when the second lies before the first. */
export const daysBetween = (from: Day, to: Day): number =>
	differenceInCalendarDays(parseISO(to), parseISO(from));

/** A day as people read it: 24 Nov 2026. */
export const readable = (day: Day): string => format(parseISO(day), 'd MMM yyyy');

const write = (date: Date): Day => format(date, 'yyyy-MM-dd');
