import { cellNumber, textTable, type TextRow } from './text-table.ts';
import { CONCENTRATION_UNITS, type ConcentrationUnit } from '../units/concentration.ts';
import {
	HARMS,
	type Antoine,
	type ContaminantForm,
	type EnGasType,
	type ExposureLimit,
	type Harm,
	type Substance,
	type TargetOrgan,
	type UsGasType
} from './substance.ts';

/** A shipped substance before its molar mass is computed from its formula. */
export type SubstanceRow = Omit<Substance, 'molarMassGPerMol'>;

/** Why a gas that only takes the place of air has no filter. */
export const ASPHYXIANT = 'It displaces the air; a filter adds no oxygen';

interface TableUse {
	form: ContaminantForm;
	organic: boolean;
	/** Unit of the limits and of the immediate danger value. */
	unit: ConcentrationUnit;
}

/**
 * Reads a table of substances: one row a line, columns apart by bars, the first line names them.
 *
 * Limits are written `8 h mean / 15 min`, a ceiling with `c`, and `-` for none: `50/100`, `c10`, `-/5`; one in
 * another unit than the table's carries it: `0.02 mg/m3`.
 * @throws RangeError naming row and column where a cell cannot be read, so that a slip fails the first test.
 */
export function substanceTable(text: string, use: TableUse): SubstanceRow[] {
	return textTable(text).map((row) => readRow(row, use));
}

function readRow(row: TextRow, use: TableUse): SubstanceRow {
	const { unit } = use;
	const limit = (column: string) => limitOf(row[column], unit);
	const idlh = limit('idlh');
	const us = limit('us');
	const uk = limit('uk');
	return defined({
		key: row.key ?? '',
		name: row.name ?? '',
		synonyms: row.synonyms?.split(';') ?? [],
		cas: row.cas,
		formula: row.formula,
		form: (row.form as ContaminantForm | undefined) ?? use.form,
		organic: row.organic ? row.organic === 'yes' : use.organic,
		boilingPointC: cellNumber(row, 'bp'),
		vapourPressureMmHg: cellNumber(row, 'vp'),
		antoine: antoineOf(row.antoine),
		liquidDensityGPerCm3: cellNumber(row, 'density'),
		refractiveIndex: cellNumber(row, 'nD'),
		limits: { ...(us ? { us } : {}), ...(uk ? { uk } : {}) },
		rel: limit('rel'),
		idlh: idlh?.twa === undefined ? undefined : { value: idlh.twa, unit: idlh.unit },
		lelPercent: cellNumber(row, 'lel'),
		odourThresholdPpm: cellNumber(row, 'odour'),
		warning: (row.warning as Substance['warning'] | undefined) ?? 'none',
		skin: row.skin === 'yes',
		skinHarmPpm: cellNumber(row, 'burns'),
		en: row.en as EnGasType | undefined,
		us: row.cartridge as UsGasType | undefined,
		organs: row.organs?.split(',') as TargetOrgan[] | undefined,
		harms: harmsOf(row),
		noFilter: row['no filter'],
		note: row.note
	});
}

function harmsOf(row: TextRow): Harm[] | undefined {
	return row.harm?.split(',').map((word) => {
		const found = HARMS.find((harm) => harm === word);
		if (!found) throw new RangeError(`${row.key}, harm: "${word}" is none of ${HARMS.join(', ')}`);
		return found;
	});
}

/** Reads `50/100`, `c10` or `-/5` in a unit, or in the one that stands behind it. */
export function limitOf(
	cell: string | undefined,
	usual: ConcentrationUnit
): ExposureLimit | undefined {
	if (!cell) return undefined;
	const own = CONCENTRATION_UNITS.find((one) => cell.endsWith(` ${one}`));
	const unit = own ?? usual;
	const text = own ? cell.slice(0, -own.length - 1) : cell;
	if (text.startsWith('c')) return { short: Number(text.slice(1)), shortKind: 'ceiling', unit };
	const [twa, short] = text.split('/');
	const ceiling = short?.startsWith('c') ?? false;
	return {
		...(twa && twa !== '-' ? { twa: Number(twa) } : {}),
		...(short
			? {
					short: Number(ceiling ? short.slice(1) : short),
					shortKind: ceiling ? ('ceiling' as const) : ('STEL' as const)
				}
			: {}),
		unit
	};
}

function antoineOf(text: string | undefined): Antoine | undefined {
	if (!text) return undefined;
	const [a = NaN, b = NaN, c = NaN] = text.split(' ').map(Number);
	return { a, b, c };
}

/** Leaves out what the table does not give. */
function defined<T extends object>(row: { [K in keyof T]: T[K] | undefined }): T {
	return Object.fromEntries(Object.entries(row).filter(([, value]) => value !== undefined)) as T;
}
