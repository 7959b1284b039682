import type { Origin } from '../verdict.ts';

/** How a step is answered. */
export type AnswerKind = 'look' | 'feel' | 'confirm';

/** One step at one station. */
export interface Step {
	key: string;
	station: string;
	title: string;
	/** What to do. */
	action: string;
	/** What good looks like. */
	good: string;
	/** Codes it can be rejected with, likeliest first. */
	rejects: readonly string[];
	kind: AnswerKind;
	/** Why, for someone new. */
	why: string;
	/** May be answered "not fitted". */
	ifFitted?: boolean;
}

/** An inspection as data. A record keeps the version it ran under. */
export interface Procedure {
	key: string;
	version: number;
	name: string;
	family: string;
	origin: Origin;
	steps: readonly Step[];
}
