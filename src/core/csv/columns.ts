import { checkDay, type Day } from '../plan/calendar.ts';
import { type CellWays, type Column, readNumber } from './table.ts';
import { AskFirst } from './ways.ts';

type KeysOf<T, V> = { [K in keyof T]: T[K] extends V ? K : never }[keyof T];

/** A column of words, at most so many characters. */
export const textColumn = <T extends object>(
	name: string,
	key: KeysOf<T, string | undefined>,
	{ longest, required = false }: { longest: number; required?: boolean }
): Column<T> => ({
	name,
	required,
	read(cell, into) {
		if (cell.length > longest) throw new RangeError(`At most ${longest} characters.`);
		Object.assign(into, { [key]: cell });
	},
	write: (row) => row[key] as string | undefined
});

const YEAR_FIRST = /^(\d{4})[-./](\d{1,2})[-./](\d{1,2})$/;
const YEAR_LAST = /^(\d{1,2})[-./](\d{1,2})[-./](\d{4})$/;

/**
 * A day of a table cell, YYYY-MM-DD: the year first, or in the order that was said.
 * @throws AskFirst where nobody said it yet; InputError where it is no day
 */
export function readDay(cell: string, heading: string, { days }: CellWays): Day {
	if (days === undefined) return checkDay(cell, heading);
	const first = YEAR_FIRST.exec(cell);
	const last = YEAR_LAST.exec(cell);
	if (last && days === null) throw new AskFirst('days', cell);
	const [year, month, day] = first
		? [first[1], first[2], first[3]]
		: last
			? [last[3], ...(days === 'day first' ? [last[2], last[1]] : [last[1], last[2]])]
			: [];
	return checkDay(
		year ? [year, month, day].map((part) => part?.padStart(2, '0')).join('-') : cell,
		heading
	);
}

/** A column of days. */
export const dayColumn = <T extends object>(
	name: string,
	key: KeysOf<T, string | null | undefined>,
	{ required = false }: { required?: boolean } = {}
): Column<T> => ({
	name,
	required,
	read(cell, into, table) {
		Object.assign(into, { [key]: readDay(cell, name, table) });
	},
	write: (row) => (row[key] as string | null) ?? ''
});

const ISO_MOMENT = /^\d{4}-\d\d-\d\dT\d\d:\d\d(?::\d\d(?:\.\d+)?)?(?:Z|[+-]\d\d:\d\d)$/;

/** A day and a time of it by the clock of the site, YYYY-MM-DDTHH:MM; or a moment with its zone, as it is exported. */
export const momentColumn = <T extends object>(
	name: string,
	key: KeysOf<T, string | null>,
	{ required = false }: { required?: boolean } = {}
): Column<T> => ({
	name,
	required,
	read(cell, into, table) {
		if (ISO_MOMENT.test(cell) && !Number.isNaN(Date.parse(cell))) {
			Object.assign(into, { [key]: cell });
			return;
		}
		const [, day, hour, minute] = /^(\S+?)[T ]+(\d{1,2}):(\d{2})(?::\d{2})?$/.exec(cell) ?? [];
		if (!day || !hour || Number(hour) > 23 || Number(minute) > 59)
			throw new RangeError(`“${cell}” is no day with its time, such as 2026-11-24 14:30.`);
		Object.assign(into, {
			[key]: `${readDay(day, name, table)}T${hour.padStart(2, '0')}:${minute}`
		});
	},
	write: (row) => ((row[key] as string | null) ?? '').replace('T', ' ')
});

interface Bounds {
	least: number;
	most: number;
	required?: boolean;
}

/** A column of figures from one to another. */
export const numberColumn = <T extends object>(
	name: string,
	key: KeysOf<T, number | null>,
	bounds: Bounds
): Column<T> => figureColumn(name, key, bounds, false);

/** A column of whole numbers from one to another. */
export const wholeColumn = <T extends object>(
	name: string,
	key: KeysOf<T, number | null>,
	bounds: Bounds
): Column<T> => figureColumn(name, key, bounds, true);

const figureColumn = <T extends object>(
	name: string,
	key: KeysOf<T, number | null>,
	{ least, most, required = false }: Bounds,
	whole: boolean
): Column<T> => ({
	name,
	required,
	read(cell, into, table) {
		const value = readNumber(cell, table);
		if ((whole && !Number.isInteger(value)) || !(value >= least && value <= most))
			throw new RangeError(`A ${whole ? 'whole number' : 'figure'} from ${least} to ${most}.`);
		Object.assign(into, { [key]: value });
	},
	write: (row) => (row[key] as number | null) ?? ''
});

const YES = ['yes', 'y', 'true', '1', 'x'];
const NO = ['no', 'n', 'false', '0', '-'];

/** A column of yes and no. */
export const yesColumn = <T extends object>(
	name: string,
	key: KeysOf<T, boolean | null>,
	{ required = false }: { required?: boolean } = {}
): Column<T> => ({
	name,
	required,
	read(cell, into) {
		const word = cell.toLowerCase();
		if (!YES.includes(word) && !NO.includes(word)) throw new RangeError('yes or no.');
		Object.assign(into, { [key]: YES.includes(word) });
	},
	write: (row) => (row[key] === null ? '' : row[key] ? 'yes' : 'no')
});

/** A column of one of some words. */
export const wordColumn = <T extends object>(
	name: string,
	key: KeysOf<T, string | null>,
	words: readonly string[],
	{ required = false }: { required?: boolean } = {}
): Column<T> => ({
	name,
	required,
	read(cell, into) {
		const found = words.find((word) => word.toLowerCase() === cell.toLowerCase());
		if (found === undefined) throw new RangeError(`One of: ${words.join(', ')}.`);
		Object.assign(into, { [key]: found });
	},
	write: (row) => (row[key] as string | null) ?? ''
});
