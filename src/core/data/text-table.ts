/** One row of a text table: the cell of each column that is not empty. */
export type TextRow = Readonly<Record<string, string | undefined>>;

/**
 * Reads a table written as text: one row a line, cells apart by bars, the first line names the columns.
 * @throws RangeError naming the row when its cells do not match the heading, so that a slip fails the first test.
 */
export function textTable(text: string): TextRow[] {
	const [head = '', ...lines] = text
		.split('\n')
		.map((line) => line.trim())
		.filter(Boolean);
	const columns = head.split('|').map((cell) => cell.trim());
	return lines.map((line) => {
		const cells = line.split('|').map((cell) => cell.trim());
		if (cells.length !== columns.length)
			throw new RangeError(`${cells[0]}: ${cells.length} cells for ${columns.length} columns`);
		return Object.fromEntries(columns.map((column, i) => [column, cells[i] || undefined]));
	});
}

/** The number of a cell. @throws RangeError naming row and column when it is none. */
export function cellNumber(row: TextRow, column: string): number | undefined {
	const text = row[column];
	if (text === undefined) return undefined;
	const value = Number(text);
	if (!Number.isFinite(value))
		throw new RangeError(`${Object.values(row)[0]}, ${column}: "${text}" is not a number`);
	return value;
}
