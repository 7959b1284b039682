/**
 * What a site may let go of after some time: what stands beside the record, never the record itself, so that the log
 * still proves. How long each is kept is the site's choice; local law comes first.
 */
export const RETENTION_KINDS = [
	'gauge readings',
	'drills',
	'messages',
	'wearers who left'
] as const;
export type RetentionKind = (typeof RETENTION_KINDS)[number];

export interface Retained {
	what: string;
	/** What stays of it. */
	stays: string;
	/** Fewest months that it can be kept. Site default. */
	least: number;
}

export const RETAINED: Record<RetentionKind, Retained> = {
	'gauge readings': {
		what: 'Each pressure of each wearer on the board, and the alarms that were raised.',
		stays: 'Who went in with what, when, and the pressures at the start and the end.',
		least: 12
	},
	drills: {
		what: 'Walks of the trainer and short tests, step by step.',
		stays: 'Exams, and how good each person is at what.',
		least: 12
	},
	messages: {
		what: 'Texts of the messages that were sent to people.',
		stays: 'What they told of is in the log.',
		least: 3
	},
	'wearers who left': {
		what: 'Names of wearers who left, with their clearance, training and face.',
		stays: 'The number, with the fit tests and hand-outs that stand under it.',
		least: 12
	}
};

/** Longest that a rule can ask for, months. Site default. */
export const MOST_MONTHS = 600;
