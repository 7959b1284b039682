import type { Snippet } from 'svelte';

/** A column of a list. */
export interface TableColumn<T> {
	/** Names it in the address. */
	key: string;
	head: string;
	/** What is sorted by and written out: days as YYYY-MM-DD, figures as numbers. */
	value: (row: T) => string | number | null | undefined;
	/** What is shown, where it is more than its value. */
	cell?: Snippet<[T]>;
	/** May be sorted by. */
	sorts?: boolean;
	class?: string;
}

/** How a list is sorted: the key of a column, with a minus in front for the other way round; '' as it comes. */
export function sortOf(sort: string): { key: string; desc: boolean } | null {
	if (!sort) return null;
	return sort.startsWith('-') ? { key: sort.slice(1), desc: true } : { key: sort, desc: false };
}

/** What a press on the head of a column asks for next: up, down, as it comes. */
export function nextSort(sort: string, key: string): string {
	if (sort === key) return `-${key}`;
	return sort === `-${key}` ? '' : key;
}

/** The address of a page with its list sorted otherwise, from its first page on. */
export function sortedAt(url: URL, sort: string): string {
	// The address stands for itself; nothing follows it.
	const to = new URL(url.href);
	if (sort) to.searchParams.set('sort', sort);
	else to.searchParams.delete('sort');
	to.searchParams.delete('page');
	return to.pathname + to.search;
}

/** A cell as a table for others holds it: what a spreadsheet would take for a formula is told apart by an apostrophe. */
const plain = (value: string | number | null | undefined): string | number =>
	typeof value === 'string' && /^[=+\-@\t\r]/.test(value) ? `'${value}` : (value ?? '');

/** Rows and columns as they are seen, as CSV. */
export async function csvOf<T>(
	rows: readonly T[],
	columns: readonly Pick<TableColumn<T>, 'head' | 'value'>[]
): Promise<string> {
	const { default: Papa } = await import('papaparse');
	return Papa.unparse({
		fields: columns.map(({ head }) => head),
		data: rows.map((row) => columns.map(({ value }) => plain(value(row))))
	});
}
