import { readTableFile } from '../csv/read-file.ts';
import { dayColumn, textColumn, wholeColumn } from '../csv/columns.ts';
import { type Column, type TableFault } from '../csv/table.ts';
import type { TableAsks, TableFile } from '../csv/ways.ts';
import { parseEn, parseUs } from './filter-code.ts';
import { FILTER_ROLES, type FilterRole, isMarked } from './stock.ts';

/** A lot of the filter store with its model, as a row of a table gives it. */
export interface StoreRow {
	name: string;
	maker: string;
	role: FilterRole;
	mount: string;
	codeEn: string;
	codeUs: string;
	massG: number | null;
	openedMonths: number | null;
	reorderLevel: number;
	lot: string;
	useBy: string;
	quantity: number;
	location: string;
}

export const emptyStoreRow = (): StoreRow => ({
	name: '',
	maker: '',
	role: 'filter',
	mount: '',
	codeEn: '',
	codeUs: '',
	massG: null,
	openedMonths: null,
	reorderLevel: 0,
	lot: '',
	useBy: '',
	quantity: 0,
	location: ''
});

const LONGEST = 60;

/** Columns of the filter store as a table: a row is a lot. */
export const STORE_COLUMNS: readonly Column<StoreRow>[] = [
	textColumn<StoreRow>('filter', 'name', { longest: LONGEST, required: true }),
	textColumn<StoreRow>('maker', 'maker', { longest: LONGEST }),
	{
		name: 'what it is',
		read: (cell, into) => {
			const role = FILTER_ROLES.find((one) => one === cell.toLowerCase());
			if (!role) throw new RangeError(`One of: ${FILTER_ROLES.join(', ')}.`);
			into.role = role;
		},
		write: (row) => row.role
	},
	textColumn<StoreRow>('mount', 'mount', { longest: LONGEST }),
	{
		name: 'EN marking',
		read: (cell, into) => {
			if (!parseEn(cell))
				throw new RangeError(`“${cell}” is no EN marking such as A2B2E2K2-P3, AX or P3.`);
			into.codeEn = cell;
		},
		write: (row) => row.codeEn
	},
	{
		name: 'US marking',
		read: (cell, into) => {
			if (!parseUs(cell)) throw new RangeError(`“${cell}” is no US marking such as OV/AG-P100.`);
			into.codeUs = cell;
		},
		write: (row) => row.codeUs
	},
	wholeColumn<StoreRow>('mass of one, g', 'massG', { least: 1, most: 2000 }),
	wholeColumn<StoreRow>('months once open', 'openedMonths', { least: 1, most: 120 }),
	wholeColumn<StoreRow>('buy below', 'reorderLevel', { least: 0, most: 10_000 }),
	textColumn<StoreRow>('lot', 'lot', { longest: LONGEST, required: true }),
	dayColumn<StoreRow>('use by', 'useBy', { required: true }),
	wholeColumn<StoreRow>('sealed', 'quantity', { least: 1, most: 100_000, required: true }),
	textColumn<StoreRow>('location', 'location', { longest: LONGEST })
];

/** What the store holds that new rows are set against. */
export interface StoreHeld {
	models: readonly { id: string; name: string }[];
	lots: readonly { modelId: string; lot: string }[];
}

/** A model that the table brings. */
export type NewFilterModel = Omit<StoreRow, 'lot' | 'useBy' | 'quantity' | 'location' | 'massG'> & {
	massG: number;
};

export interface StoreTable {
	models: NewFilterModel[];
	lots: (Pick<StoreRow, 'lot' | 'useBy' | 'quantity' | 'location'> & { model: string })[];
	faults: TableFault[];
	rows: number;
	unknown: string[];
	encoding: string;
	asks: TableAsks;
}

/**
 * Reads a table of the filter store: which models and lots it brings, and every fault by row and column. A filter that
 * the store knows needs its name only.
 * @throws InputError at file where it is no such table
 */
export function readStoreTable(file: TableFile, held: StoreHeld, asOf: string): StoreTable {
	const read = readTableFile(file, STORE_COLUMNS, emptyStoreRow);
	const { encoding, asks } = read;
	const known = new Map(held.models.map((model) => [model.name.toLowerCase(), model]));
	const kept = new Set(held.lots.map(({ modelId, lot }) => `${modelId}\n${lot}`));
	const faults: TableFault[] = [...read.faults];
	const models = new Map<string, NewFilterModel>();
	const seen = new Map<string, number>();
	const lots = read.good.flatMap(({ row, record }) => {
		const before = faults.length;
		const fault = (column: string, message: string) => faults.push({ row, column, message });
		const key = record.name.toLowerCase();
		const old = known.get(key);
		const { lot, useBy, quantity, location, ...model } = record;
		if (!old && !models.has(key)) {
			if (!model.mount) fault('mount', 'A filter that the store does not know needs its mount.');
			if (model.massG === null)
				fault('mass of one, g', 'A filter that the store does not know needs its mass.');
			if (isMarked(model.role) && !model.codeEn && !model.codeUs)
				fault('EN marking', 'The marking of at least one scheme.');
		}
		const id = `${old?.id ?? key}\n${lot}`;
		const earlier = seen.get(id);
		if (earlier) fault('lot', `This lot stands in row ${earlier} already.`);
		if (kept.has(id)) fault('lot', 'This lot is in the store already: take it in as a delivery.');
		if (useBy < asOf) fault('use by', 'It has passed: it is not taken into the store.');
		if (faults.length > before) return [];
		if (!old && !models.has(key))
			models.set(key, { ...model, maker: model.maker || 'not stated', massG: model.massG ?? 0 });
		seen.set(id, row);
		return [{ model: old?.name ?? record.name, lot, useBy, quantity, location }];
	});
	faults.sort((a, b) => a.row - b.row);
	const { rows, unknown } = read;
	return { models: [...models.values()], lots, faults, rows, unknown, encoding, asks };
}
