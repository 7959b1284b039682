import Papa from 'papaparse';
import { InputError } from '../verdict.ts';
import { AskFirst, type TableAsks, type TableWays } from './ways.ts';

/** How the cells of a table are written; null: it has to be asked, undefined: nobody can be asked. */
export interface CellWays {
	decimalComma: boolean | null;
	days?: 'day first' | 'month first' | null | undefined;
}

/** How one column of a table is read into a record. */
export interface Column<T> {
	name: string;
	/** Other headings that are understood. */
	also?: readonly string[];
	required?: boolean;
	/** Puts a cell into the record; throws InputError or RangeError with what is wrong. Empty cells are skipped. */
	read: (cell: string, into: T, table: CellWays) => void;
	/** Writes the field for export. */
	write: (record: T) => string | number | undefined;
}

/** A fault of a table, by the row as a spreadsheet numbers it (the heading is row 1) and the column's heading. */
export interface TableFault {
	row: number;
	column: string;
	message: string;
}

export interface TableRead<T> {
	/** Records without a fault, each with its row. */
	good: { row: number; record: T }[];
	faults: TableFault[];
	/** Rows below the heading that hold anything. */
	rows: number;
	separator: string;
	decimalComma: boolean;
	/** Headings that no column knows; their cells are not read. */
	unknown: string[];
	/** What has to be asked before it is read. */
	asks: TableAsks;
}

/** More rows than this are refused at once. Site. */
export const MOST_ROWS = 50_000;
/** More columns than this are no table of ours. Site. */
export const MOST_COLUMNS = 200;
const SEPARATORS: Record<string, string> = {
	',': 'comma',
	';': 'semicolon',
	'\t': 'tab',
	'|': 'bar'
};

/**
 * Reads a CSV text against columns. The separator is found out; every bad cell is named by row and column, and a bad
 * row does not stop the others.
 * @param ways what was said of how it is written; left out: nobody can be asked, and what most cells have decides
 * @throws InputError when there is no heading, a required column is missing, or there are too many rows.
 */
export function readTable<T extends object>(
	text: string,
	columns: readonly Column<T>[],
	empty: () => T,
	ways?: TableWays
): TableRead<T> {
	const parsed = Papa.parse<string[]>(text.trim(), {
		skipEmptyLines: 'greedy',
		delimitersToGuess: Object.keys(SEPARATORS)
	});
	const [heading, ...body] = parsed.data;
	if (!heading || heading.length === 0 || body.length === 0)
		throw new InputError('file', 'There is no row below the heading.');
	if (body.length > MOST_ROWS)
		throw new InputError(
			'file',
			`${body.length} rows; at most ${MOST_ROWS} are taken at once. Split the file.`
		);
	if (heading.length > MOST_COLUMNS)
		throw new InputError(
			'file',
			`${heading.length} columns; at most ${MOST_COLUMNS} are read. Leave out those that are not of this table.`
		);
	const places = matchHeadings(heading, columns);
	const separator = parsed.meta.delimiter;
	const cellWays: CellWays = ways
		? { decimalComma: commaBy(ways, body, separator), days: ways.days ?? null }
		: { decimalComma: separator !== ',' && usesDecimalComma(body) };
	const read: TableRead<T> = {
		good: [],
		faults: [],
		rows: body.length,
		separator: SEPARATORS[separator] ?? separator,
		decimalComma: cellWays.decimalComma ?? false,
		asks: {},
		unknown: heading.filter((_, i) => !places.some((place) => place?.at === i))
	};
	const torn = new Map(parsed.errors.map((error) => [error.row ?? -1, error.message]));
	body.forEach((cells, i) => {
		const row = i + 2;
		const faults: TableFault[] = [];
		const record = empty();
		const tear = torn.get(i + 1);
		if (tear) faults.push({ row, column: '', message: `The row is torn: ${tear}.` });
		else if (cells.length > heading.length)
			faults.push({
				row,
				column: '',
				message: `${cells.length} cells for ${heading.length} headings. A ${read.separator} inside a cell needs quotes.`
			});
		else
			for (const place of places) {
				const fault = place && readCell(place, cells, record, { ways: cellWays, asks: read.asks });
				if (fault) faults.push({ row, column: place.column.name, message: fault });
			}
		if (faults.length) read.faults.push(...faults);
		else read.good.push({ row, record });
	});
	return read;
}

interface Place<T> {
	column: Column<T>;
	at: number;
}

function matchHeadings<T>(heading: readonly string[], columns: readonly Column<T>[]): Place<T>[] {
	const tidy = (text: string) =>
		text
			.trim()
			.toLowerCase()
			.replaceAll(/[\s_-]+/g, ' ');
	const found = heading.map(tidy);
	const seen = new Set<string>();
	const twice = heading.find((_, i) => {
		const name = found[i] ?? '';
		if (name && seen.has(name)) return true;
		seen.add(name);
		return false;
	});
	if (twice) throw new InputError('file', `The heading “${twice}” stands there twice.`);
	const missing: string[] = [];
	const places = columns.flatMap((column) => {
		const at = [column.name, ...(column.also ?? [])]
			.map((name) => found.indexOf(tidy(name)))
			.find((i) => i >= 0);
		if (at !== undefined) return [{ column, at }];
		if (column.required) missing.push(column.name);
		return [];
	});
	if (missing.length)
		throw new InputError(
			'file',
			`The heading lacks ${missing.map((name) => `“${name}”`).join(', ')}. It holds: ${heading.map((h) => h.trim()).join(', ')}.`
		);
	return places;
}

function readCell<T>(
	{ column, at }: Place<T>,
	cells: readonly string[],
	record: T,
	{ ways, asks }: { ways: CellWays; asks: TableAsks }
): string | undefined {
	const cell = cells[at]?.trim() ?? '';
	if (!cell) return column.required ? 'Empty, and it must be given.' : undefined;
	try {
		column.read(cell, record, ways);
		return undefined;
	} catch (error) {
		if (error instanceof AskFirst) {
			const shown = (asks[error.question] ??= []);
			if (shown.length < MOST_SHOWN && !shown.includes(cell)) shown.push(cell);
		}
		if (error instanceof InputError || error instanceof RangeError) return error.message;
		throw error;
	}
}

/** Cells that a question shows. */
const MOST_SHOWN = 3;
const WITH_COMMA = /^[-+−]?(?:\d+|\d{1,3}(?:\.\d{3})+),\d+$/;
const WITH_POINT = /^[-+−]?(?:\d*|\d{1,3}(?:,\d{3})+)\.\d+$/;
/** One thousand two hundred, or one and a bit: a sign with three digits after it. */
const EITHER = /^[-+−]?\d{1,3}[.,]\d{3}$/;

/**
 * Whether decimals have a comma, as far as it is sure: it was said, or every number can be read in one way only. In a
 * table that is parted by commas a point is a decimal point.
 * @returns null where it has to be asked
 */
function commaBy(ways: TableWays, body: readonly string[][], separator: string): boolean | null {
	if (ways.numbers) return ways.numbers === 'comma';
	let [commas, points, either] = [false, false, false];
	for (const cells of body)
		for (const cell of cells) {
			const text = cell.replaceAll(/\s/g, '');
			if (EITHER.test(text)) either ||= text.includes(',') || separator !== ',';
			else if (WITH_COMMA.test(text)) commas = true;
			else if (WITH_POINT.test(text)) points = true;
		}
	if (commas && points) return null;
	return either && !commas && !points ? null : commas;
}

/** Numbers with a comma and none with a point, in a table whose cells another sign parts. */
function usesDecimalComma(body: readonly string[][]): boolean {
	let [commas, points] = [0, 0];
	for (const cells of body.slice(0, 200))
		for (const cell of cells) {
			if (/^\s*-?\d+,\d+\s*$/.test(cell)) commas++;
			if (/^\s*-?\d+\.\d+\s*$/.test(cell)) points++;
		}
	return commas > points;
}

/**
 * A number of a table cell.
 * @throws RangeError saying what stands there.
 */
export function readNumber(cell: string, { decimalComma, days }: CellWays): number {
	const text = cell.replaceAll(/\s/g, '');
	if (decimalComma === null && /[.,]/.test(text)) throw new AskFirst('numbers', cell);
	// Where it is sure that the point parts the decimals, a comma before three digits parts thousands.
	const thousands = days !== undefined && /^[-+−]?\d{1,3}(?:,\d{3})+(?:\.\d+)?$/.test(text);
	const plain = decimalComma
		? text.replaceAll('.', '').replace(',', '.')
		: thousands
			? text.replaceAll(',', '')
			: text;
	if (!/^[-+−]?(\d+\.?\d*|\.\d+)(e[-+]?\d+)?$/i.test(plain))
		throw new RangeError(
			/,/.test(plain)
				? `“${cell}” has a comma in a table that is parted by commas: write a point.`
				: `“${cell}” is not a number.`
		);
	return Number(plain.replace('−', '-'));
}

/** A CSV text of records, for a spreadsheet: comma, point, a heading, CRLF. */
export function writeTable<T>(
	records: readonly T[],
	columns: readonly Pick<Column<T>, 'name' | 'write'>[]
): string {
	const rows = records.map((record) => columns.map((column) => guarded(column.write(record))));
	return `${Papa.unparse({ fields: columns.map((column) => column.name), data: rows })}\r\n`;
}

/** How a formula begins, also behind blanks, quotes and control characters, and in letters of full width. */
const BEGINS_FORMULA = /^[\s"'\p{Cc}\p{Cf}]*[=+\-@|%\uFF1D\uFF0B\uFF0D\uFF20]|^[\t\r\n]/u;
const PLAIN_NUMBER = /^[+-]?\d+(?:[.,]\d+)?(?:[eE][+-]?\d+)?$/;

/** Text that a spreadsheet would take for a formula is kept as text. Numbers stay numbers. */
function guarded(value: string | number | undefined): string | number {
	if (typeof value !== 'string') return value ?? '';
	return BEGINS_FORMULA.test(value) && !PLAIN_NUMBER.test(value) ? `'${value}` : value;
}
