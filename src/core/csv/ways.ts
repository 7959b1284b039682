/** How a table may be written, where the table itself does not tell. */
export const NUMBER_WAYS = ['point', 'comma'] as const;
export const DAY_WAYS = ['day first', 'month first'] as const;
/** Encodings of one byte a letter, by the letters that they have. */
export const ENCODINGS = ['Windows-1252', 'Windows-1250', 'Windows-1251', 'Windows-1253'] as const;
export type Encoding = (typeof ENCODINGS)[number];

/** What somebody said of how a table is written; what is left out was not asked or not answered. */
export interface TableWays {
	numbers?: (typeof NUMBER_WAYS)[number] | undefined;
	days?: (typeof DAY_WAYS)[number] | undefined;
	encoding?: Encoding | undefined;
}

/** A table as a file, with what was said of it. Bytes alone: nobody can be asked. */
export type TableFile = Uint8Array | { bytes: Uint8Array; ways: TableWays };

/** What has to be asked before a table is read: nothing of it is guessed. Empty: nothing. */
export interface TableAsks {
	/** Numbers as they stand there. */
	numbers?: string[];
	/** Days as they stand there. */
	days?: string[];
	/** A line of it as each encoding reads it. */
	encoding?: { encoding: Encoding; sample: string }[];
}

export const asksNothing = (asks: TableAsks): boolean => Object.keys(asks).length === 0;

/** A cell that reads two ways: how is asked first. */
export class AskFirst extends RangeError {
	constructor(
		readonly question: 'numbers' | 'days',
		cell: string
	) {
		super(
			question === 'days'
				? `“${cell}”: say above whether the day or the month stands first.`
				: `“${cell}”: say above whether a comma or a point parts the decimals.`
		);
	}
}
