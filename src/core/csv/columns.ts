import { type Column, readNumber } from './table.ts';

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

/** A column of whole numbers from one to another. */
export const wholeColumn = <T extends object>(
	name: string,
	key: KeysOf<T, number | null>,
	{ least, most, required = false }: { least: number; most: number; required?: boolean }
): Column<T> => ({
	name,
	required,
	read(cell, into, table) {
		const value = readNumber(cell, table);
		if (!Number.isInteger(value) || value < least || value > most)
			throw new RangeError(`A whole number from ${least} to ${most}.`);
		Object.assign(into, { [key]: value });
	},
	write: (row) => (row[key] as number | null) ?? ''
});
