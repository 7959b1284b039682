import { decodeText } from './decode.ts';
import { type Column, readTable, type TableRead } from './table.ts';
import type { TableFile } from './ways.ts';

/**
 * Reads a file as a table. What cannot be told from it is asked, where somebody can be asked.
 * @throws InputError at file where it is no such table
 */
export function readTableFile<T extends object>(
	file: TableFile,
	columns: readonly Column<T>[],
	empty: () => T
): TableRead<T> & { encoding: string } {
	const { bytes, ways } = file instanceof Uint8Array ? { bytes: file, ways: undefined } : file;
	const { text, encoding, asks } = decodeText(bytes, ways);
	const read = readTable(text, columns, empty, ways);
	return { ...read, encoding, asks: { ...asks, ...read.asks } };
}
