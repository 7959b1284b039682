import { readTableFile } from '../csv/read-file.ts';
import { type TableFault } from '../csv/table.ts';
import type { TableAsks, TableFile } from '../csv/ways.ts';
import { emptyItemRow, ITEM_COLUMNS, type ItemRow } from './csv.ts';

/** What the register holds that new items are set against. */
export interface Register {
	models: readonly { id: string; name: string; family: string }[];
	places: readonly { id: string; name: string }[];
	/** Tags that are taken. */
	tags: readonly string[];
}

export interface ItemTable {
	/** Rows that the register takes, each with its model and place. */
	items: (Omit<ItemRow, 'model' | 'place'> & {
		model: Register['models'][number];
		place: Register['places'][number];
	})[];
	faults: TableFault[];
	rows: number;
	unknown: string[];
	encoding: string;
	asks: TableAsks;
}

const byName = <T extends { name: string }>(list: readonly T[]) =>
	new Map(list.map((one) => [one.name.toLowerCase(), one]));

/**
 * Reads a table of new items: what the register would take of it, and every fault by row and column.
 * @throws InputError at file where it is no such table
 */
export function readItemTable(file: TableFile, register: Register): ItemTable {
	const read = readTableFile(file, ITEM_COLUMNS, emptyItemRow);
	const { encoding, asks } = read;
	const [modelOf, placeOf] = [byName(register.models), byName(register.places)];
	const known = new Set(register.tags);
	const faults: TableFault[] = [...read.faults];
	const seen = new Map<string, number>();
	const items = read.good.flatMap(({ row, record: line }) => {
		const fault = (column: string, message: string) => {
			faults.push({ row, column, message });
			return [];
		};
		const [model, place] = [
			modelOf.get(line.model.toLowerCase()),
			placeOf.get(line.place.toLowerCase())
		];
		if (!model)
			return fault('model', `“${line.model}” is not among the models; add it there first.`);
		if (!place) return fault('place', `“${line.place}” is none of the places of the site.`);
		const earlier = seen.get(line.tag);
		if (earlier) return fault('tag', `${line.tag} stands in row ${earlier} already.`);
		if (known.has(line.tag)) return fault('tag', `${line.tag} is in the register already.`);
		seen.set(line.tag, row);
		return [{ ...line, model, place }];
	});
	faults.sort((a, b) => a.row - b.row);
	return { items, faults, rows: read.rows, unknown: read.unknown, encoding, asks };
}
