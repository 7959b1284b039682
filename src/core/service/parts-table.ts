import { readTableFile } from '../csv/read-file.ts';
import { dayColumn, textColumn, wholeColumn } from '../csv/columns.ts';
import { type Column, type TableFault } from '../csv/table.ts';
import type { TableAsks, TableFile } from '../csv/ways.ts';
import { partName, STORE_PARTS } from './parts-store.ts';

/** A lot of spare parts as a row of a table gives it. */
export interface PartRow {
	/** Key of the part. */
	part: string;
	lot: string;
	quantity: number;
	useBy: string | null;
	location: string;
}

export const emptyPartRow = (): PartRow => ({
	part: '',
	lot: '',
	quantity: 0,
	useBy: null,
	location: ''
});

const LONGEST = 40;
const tidy = (text: string) =>
	text
		.trim()
		.toLowerCase()
		.replaceAll(/[\s_-]+/g, ' ');

/** A part by its key or its name. @throws RangeError naming those that there are */
export function partNamed(text: string): string {
	const found = Object.entries(STORE_PARTS).find(
		([key, { name }]) => tidy(key) === tidy(text) || tidy(name) === tidy(text)
	);
	if (found) return found[0];
	throw new RangeError(
		`“${text}” is no part that the store keeps. There are: ${Object.values(STORE_PARTS)
			.map(({ name }) => name.toLowerCase())
			.join(', ')}.`
	);
}

/** Columns of the spare parts as a table: a row is a lot. */
export const PART_COLUMNS: readonly Column<PartRow>[] = [
	{
		name: 'part',
		required: true,
		read: (cell, into) => {
			into.part = partNamed(cell);
		},
		write: (row) => partName(row.part)
	},
	textColumn<PartRow>('lot', 'lot', { longest: LONGEST, required: true }),
	wholeColumn<PartRow>('quantity', 'quantity', { least: 1, most: 100_000, required: true }),
	dayColumn<PartRow>('use by', 'useBy'),
	textColumn<PartRow>('location', 'location', { longest: LONGEST })
];

export interface PartTable {
	lots: PartRow[];
	faults: TableFault[];
	rows: number;
	unknown: string[];
	encoding: string;
	asks: TableAsks;
}

/**
 * Reads a table of spare parts: which lots it brings, and every fault by row and column.
 * @param held lots that the store has
 * @throws InputError at file where it is no such table
 */
export function readPartTable(
	file: TableFile,
	held: readonly Pick<PartRow, 'part' | 'lot'>[],
	asOf: string
): PartTable {
	const read = readTableFile(file, PART_COLUMNS, emptyPartRow);
	const { encoding, asks } = read;
	const kept = new Set(held.map(({ part, lot }) => `${part}\n${lot}`));
	const faults: TableFault[] = [...read.faults];
	const seen = new Map<string, number>();
	const lots = read.good.flatMap(({ row, record }) => {
		const key = `${record.part}\n${record.lot}`;
		const earlier = seen.get(key);
		const [column, message] = earlier
			? ['lot', `This lot stands in row ${earlier} already.`]
			: kept.has(key)
				? ['lot', 'This lot is in the store already.']
				: record.useBy !== null && record.useBy < asOf
					? ['use by', 'It has passed: it is not taken into the store.']
					: ['', ''];
		if (message) {
			faults.push({ row, column, message });
			return [];
		}
		seen.set(key, row);
		return [record];
	});
	faults.sort((a, b) => a.row - b.row);
	return { lots, faults, rows: read.rows, unknown: read.unknown, encoding, asks };
}
