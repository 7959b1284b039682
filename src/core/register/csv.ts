import { FAR, NEVER } from '../readiness/findings.ts';
import { USE_PATTERNS, type UsePattern } from '../site/places.ts';
import { dayColumn, textColumn } from '../csv/columns.ts';
import type { Column } from '../csv/table.ts';

/** An item as a row of a table gives it: names, not keys. */
export interface ItemRow {
	tag: string;
	model: string;
	size: string;
	serial: string;
	place: string;
	inUseSince: string;
	/** Whose it is; left out: shared. */
	usePattern?: UsePattern;
	/** Tag of the set that it is in. */
	set?: string;
	/** Only written, never read: state and dates follow from the record. */
	state?: string;
	dueOn?: string;
}

export const emptyItemRow = (): ItemRow => ({
	tag: '',
	model: '',
	size: '',
	serial: '',
	place: '',
	inUseSince: ''
});

const TAG = /^[A-Z0-9][A-Z0-9-]{1,19}$/;
const LONGEST = 80;

/** A tag as it is stored. @throws RangeError on one that no label could carry. */
export function checkTag(text: string): string {
	const tag = text.trim().toUpperCase().replaceAll(/\s+/g, '-');
	if (!TAG.test(tag))
		throw new RangeError(
			`“${text}” is no tag: 2 to 20 letters, digits and hyphens, such as HM-0101.`
		);
	return tag;
}

/** Columns of the register as a table. */
export const ITEM_COLUMNS: readonly Column<ItemRow>[] = [
	{
		name: 'tag',
		required: true,
		read: (cell, into) => {
			into.tag = checkTag(cell);
		},
		write: (row) => row.tag
	},
	textColumn<ItemRow>('model', 'model', { longest: LONGEST, required: true }),
	textColumn<ItemRow>('size', 'size', { longest: LONGEST }),
	textColumn<ItemRow>('serial', 'serial', { longest: LONGEST }),
	textColumn<ItemRow>('place', 'place', { longest: LONGEST, required: true }),
	dayColumn<ItemRow>('in use since', 'inUseSince'),
	{
		name: 'use',
		read: (cell, into) => {
			const pattern = USE_PATTERNS.find((one) => one === cell.toLowerCase());
			if (!pattern) throw new RangeError(`One of: ${USE_PATTERNS.join(', ')}.`);
			into.usePattern = pattern;
		},
		write: (row) => row.usePattern
	},
	{
		name: 'set',
		read: (cell, into) => {
			into.set = checkTag(cell);
		},
		write: (row) => row.set
	},
	{ name: 'state', read: () => undefined, write: (row) => row.state },
	{
		name: 'last day',
		read: () => undefined,
		write: (row) => (row.dueOn === NEVER || row.dueOn === FAR ? '' : row.dueOn)
	}
];
