import type { ConcentrationUnit } from '../units/concentration.ts';
import type {
	Antoine,
	ContaminantForm,
	EnGasType,
	ExposureLimit,
	Substance,
	TargetOrgan,
	UsGasType
} from './substance.ts';

/** A shipped substance before its molar mass is computed from its formula. */
export type SubstanceRow = Omit<Substance, 'molarMassGPerMol'>;

interface TableUse {
	form: ContaminantForm;
	organic: boolean;
	/** Unit of the limits and of the immediate danger value. */
	unit: ConcentrationUnit;
}

/**
 * Reads a table of substances: one row a line, columns apart by bars, the first line names them.
 *
 * Limits are written `8 h mean / 15 min`, a ceiling with `c`, and `-` for none: `50/100`, `c10`, `-/5`.
 * @throws RangeError naming row and column where a cell cannot be read, so that a slip fails the first test.
 */
export function substanceTable(text: string, use: TableUse): SubstanceRow[] {
	const [head = '', ...lines] = text
		.split('\n')
		.map((line) => line.trim())
		.filter(Boolean);
	const columns = head.split('|').map((cell) => cell.trim());
	return lines.map((line) => {
		const cells = line.split('|').map((cell) => cell.trim());
		if (cells.length !== columns.length)
			throw new RangeError(`${cells[0]}: ${cells.length} cells for ${columns.length} columns`);
		return readRow(new Cells(columns, cells), use);
	});
}

class Cells {
	constructor(
		private readonly columns: string[],
		private readonly cells: string[]
	) {}

	text(column: string): string | undefined {
		const at = this.columns.indexOf(column);
		return at < 0 ? undefined : this.cells[at] || undefined;
	}

	number(column: string): number | undefined {
		const text = this.text(column);
		if (text === undefined) return undefined;
		const value = Number(text);
		if (!Number.isFinite(value))
			throw new RangeError(`${this.cells[0]}, ${column}: "${text}" is not a number`);
		return value;
	}
}

function readRow(cells: Cells, use: TableUse): SubstanceRow {
	const { unit } = use;
	const limit = (column: string) => limitOf(cells.text(column), unit);
	const idlh = cells.number('idlh');
	const us = limit('us');
	const uk = limit('uk');
	return defined({
		key: cells.text('key') ?? '',
		name: cells.text('name') ?? '',
		synonyms: cells.text('synonyms')?.split(';') ?? [],
		cas: cells.text('cas'),
		formula: cells.text('formula'),
		form: (cells.text('form') as ContaminantForm | undefined) ?? use.form,
		organic: cells.text('organic') ? cells.text('organic') === 'yes' : use.organic,
		boilingPointC: cells.number('bp'),
		vapourPressureMmHg: cells.number('vp'),
		antoine: antoineOf(cells.text('antoine')),
		liquidDensityGPerCm3: cells.number('density'),
		refractiveIndex: cells.number('nD'),
		limits: { ...(us ? { us } : {}), ...(uk ? { uk } : {}) },
		rel: limit('rel'),
		idlh: idlh === undefined ? undefined : { value: idlh, unit },
		lelPercent: cells.number('lel'),
		odourThresholdPpm: cells.number('odour'),
		warning: (cells.text('warning') as Substance['warning'] | undefined) ?? 'none',
		skin: cells.text('skin') === 'yes',
		skinHarmPpm: cells.number('burns'),
		en: cells.text('en') as EnGasType | undefined,
		us: cells.text('cartridge') as UsGasType | undefined,
		organs: cells.text('organs')?.split(',') as TargetOrgan[] | undefined,
		noFilter: cells.text('no filter'),
		note: cells.text('note')
	});
}

/** Reads `50/100`, `c10` or `-/5` in a unit. */
export function limitOf(
	text: string | undefined,
	unit: ConcentrationUnit
): ExposureLimit | undefined {
	if (!text) return undefined;
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
