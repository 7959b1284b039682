import { readNumber, readTable, writeTable, type Column } from '../csv/table.ts';
import { InputError } from '../verdict.ts';
import type { TraceSample } from './trace.ts';

const number = (
	name: string,
	key: keyof TraceSample,
	also: string[],
	required = false
): Column<TraceSample> => ({
	name,
	also,
	required,
	read: (cell, into, table) => void (into[key] = readNumber(cell, table)),
	write: (sample) => sample[key]
});

/** The columns of a trace, in and out. */
export const TRACE_COLUMNS: readonly Column<TraceSample>[] = [
	number('s', 's', ['seconds', 'time s'], true),
	number('Pa', 'pa', ['pressure', 'pressure pa'], true),
	number('temperature C', 'temperatureC', ['temperature', 'temp']),
	number('barometer Pa', 'barometerPa', ['barometer'])
];

/**
 * Reads a trace that was made elsewhere.
 * @throws InputError at file, located by row, on a bad cell or a table that is none.
 */
export function readTraceCsv(text: string): TraceSample[] {
	const read = readTable(text, TRACE_COLUMNS, (): TraceSample => ({ s: NaN, pa: NaN }));
	const [fault] = read.faults;
	if (fault) throw new InputError('file', `Row ${fault.row}, ${fault.column}: ${fault.message}`);
	const samples = read.good.map(({ record }) => record);
	samples.forEach((sample, i) => {
		const before = samples[i - 1];
		if (before && sample.s <= before.s)
			throw new InputError('file', `Row ${i + 2}: its time is not after the row before it.`);
	});
	return samples;
}

export const writeTraceCsv = (samples: readonly TraceSample[]): string =>
	writeTable(samples, TRACE_COLUMNS);
