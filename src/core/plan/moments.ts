import { parseDate, parseDateTime, toZoned } from '@internationalized/date';
import { readable, type Day } from './calendar.ts';

const formats = new Map<string, Intl.DateTimeFormat>();

function formatOf(timeZone: string, parts: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
	const key = `${timeZone} ${Object.keys(parts).join()}`;
	let format = formats.get(key);
	if (!format) {
		// Swedish writes dates as ISO 8601 does, and hours to 24.
		format = new Intl.DateTimeFormat('sv-SE', { timeZone, ...parts });
		formats.set(key, format);
	}
	return format;
}

/** The day that the calendar of a time zone shows at a moment. */
export const dayAt = (moment: Date | number, timeZone: string): Day =>
	formatOf(timeZone, { dateStyle: 'short' }).format(moment);

/** The middle of a day, of which only the day is known. */
export const middleOf = (day: Day, timeZone: string): Date =>
	toZoned(parseDateTime(`${day}T12:00`), timeZone).toDate();

/** A moment with its zone, or a day and a time by the clock of a time zone, YYYY-MM-DDTHH:MM. */
export const momentOf = (text: string, timeZone: string): Date =>
	/(?:Z|[+-]\d\d:\d\d)$/.test(text)
		? new Date(text)
		: toZoned(parseDateTime(text), timeZone).toDate();

/** The moment at which a day begins. */
export const startOf = (day: Day, timeZone: string): Date => parseDate(day).toDate(timeZone);

/** The day of a moment as people read it: 24 Nov 2026. */
export const readableDay = (moment: Date | number, timeZone: string): string =>
	readable(dayAt(moment, timeZone));

/** The time of a moment: 14:28. */
export const readableTime = (moment: Date | number, timeZone: string): string =>
	formatOf(timeZone, { hour: '2-digit', minute: '2-digit' }).format(moment);

/** The time of a moment to the second: 14:28:05. */
export const readableClock = (moment: Date | number, timeZone: string): string =>
	formatOf(timeZone, { hour: '2-digit', minute: '2-digit', second: '2-digit' }).format(moment);

/** A moment as people read it: 24 Nov 2026, 14:28. */
export const readableMoment = (moment: Date | number, timeZone: string): string =>
	`${readableDay(moment, timeZone)}, ${readableTime(moment, timeZone)}`;
