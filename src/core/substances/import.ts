import { readTableFile } from '../csv/read-file.ts';
import { type TableFault } from '../csv/table.ts';
import type { TableAsks, TableFile } from '../csv/ways.ts';
import type { Substance } from '../data/substance.ts';
import { SHIPPED } from '../data/substances.ts';
import { InputError } from '../verdict.ts';
import { emptyDraft, SUBSTANCE_COLUMNS, withoutUnit } from './csv.ts';
import { type Disagreement, disagreements, ownSubstance } from './record.ts';

export interface SubstanceTable {
	encoding: string;
	asks: TableAsks;
	separator: string;
	decimalComma: boolean;
	unknown: string[];
	rows: number;
	faults: TableFault[];
	/** Substances without a fault, and where they disagree with shipped ones. */
	good: { row: number; substance: Substance; disagreements: Disagreement[] }[];
}

/**
 * Reads a table of a site's own substances: what would be taken of it, and every fault by row and column.
 * @throws InputError at file where it is no such table
 */
export function readSubstanceTable(file: TableFile): SubstanceTable {
	const read = readTableFile(file, SUBSTANCE_COLUMNS, emptyDraft);
	const { encoding, asks } = read;
	const faults = [...read.faults];
	const rowOf = new Map<string, number>();
	const shipped = new Set(SHIPPED.all.map((one) => one.key));
	const good = read.good.flatMap(({ row, record: draft }) => {
		try {
			const substance = ownSubstance(withoutUnit(draft));
			const first = rowOf.get(substance.key);
			if (first !== undefined)
				throw new InputError('name', `${substance.name} stands in row ${first} already.`);
			rowOf.set(substance.key, row);
			if (shipped.has(substance.key))
				throw new InputError(
					'name',
					`${substance.name} is a shipped substance. Correct its values on its own page, where the old ones are kept.`
				);
			return [{ row, substance, disagreements: disagreements(substance) }];
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			faults.push({ row, column: error.path, message: error.message });
			return [];
		}
	});
	const { separator, decimalComma, unknown, rows } = read;
	faults.sort((a, b) => a.row - b.row);
	return { encoding, asks, separator, decimalComma, unknown, rows, faults, good };
}
