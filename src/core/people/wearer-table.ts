import { dayColumn, textColumn, yesColumn } from '../csv/columns.ts';
import { readTableFile } from '../csv/read-file.ts';
import { type Column, type TableFault } from '../csv/table.ts';
import type { TableAsks, TableFile } from '../csv/ways.ts';

/** A wearer as a row of a table gives it. */
export interface WearerRow {
	number: string;
	name: string;
	eyewear: boolean;
	beard: boolean;
	clearedUntil: string | null;
	trainedUntil: string | null;
	/** Names of places. */
	places: string[];
}

export const emptyWearerRow = (): WearerRow => ({
	number: '',
	name: '',
	eyewear: false,
	beard: false,
	clearedUntil: null,
	trainedUntil: null,
	places: []
});

/** Columns of the wearers as a table; places apart by bars. */
export const WEARER_COLUMNS: readonly Column<WearerRow>[] = [
	textColumn<WearerRow>('number', 'number', { longest: 20, required: true }),
	textColumn<WearerRow>('name', 'name', { longest: 80, required: true }),
	yesColumn<WearerRow>('glasses', 'eyewear'),
	yesColumn<WearerRow>('beard', 'beard'),
	dayColumn<WearerRow>('cleared until', 'clearedUntil'),
	dayColumn<WearerRow>('trained until', 'trainedUntil'),
	{
		name: 'places',
		read(cell, into) {
			into.places = cell
				.split('|')
				.map((place) => place.trim())
				.filter(Boolean);
		},
		write: (row) => row.places.join(' | ')
	}
];

export interface WearerTable {
	wearers: WearerRow[];
	faults: TableFault[];
	rows: number;
	unknown: string[];
	encoding: string;
	asks: TableAsks;
}

/**
 * Reads a table of wearers: whom it brings, and every fault by row and column.
 * @param held numbers and names of places that there are
 * @throws InputError at file where it is no such table
 */
export function readWearerTable(
	file: TableFile,
	held: { numbers: readonly string[]; places: readonly string[] }
): WearerTable {
	const read = readTableFile(file, WEARER_COLUMNS, emptyWearerRow);
	const { encoding, asks } = read;
	const places = new Map(held.places.map((name) => [name.toLowerCase(), name] as const));
	const kept = new Set(held.numbers.map((number) => number.toLowerCase()));
	const seen = new Map<string, number>();
	const faults: TableFault[] = [...read.faults];
	const wearers = read.good.flatMap(({ row, record }): WearerRow[] => {
		const number = record.number.toLowerCase();
		const strange = record.places.find((name) => !places.has(name.toLowerCase()));
		const earlier = seen.get(number);
		const [column, message] = earlier
			? ['number', `This number stands in row ${earlier} already.`]
			: kept.has(number)
				? ['number', 'This number is in the register already.']
				: strange
					? ['places', `“${strange}” is no place here. Several are set apart by |.`]
					: ['', ''];
		if (message) {
			faults.push({ row, column, message });
			return [];
		}
		seen.set(number, row);
		return [
			{ ...record, places: record.places.map((name) => places.get(name.toLowerCase()) ?? name) }
		];
	});
	faults.sort((a, b) => a.row - b.row);
	return { wearers, faults, rows: read.rows, unknown: read.unknown, encoding, asks };
}
