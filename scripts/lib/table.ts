/** One row of a table as the documents write it. */
export const tableRow = (cells: readonly unknown[]): string => `| ${cells.join(' | ')} |`;

/** Its head, and the line under it: figures to the right, but for columns of words, which come first. */
export const tableHead = (heads: readonly string[], words = 0): string =>
	[tableRow(heads), tableRow(heads.map((_, i) => (i < words ? '---' : '---:')))].join('\n');
