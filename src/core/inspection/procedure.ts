import type { Origin } from '../verdict.ts';

/** How a step is answered. */
export type AnswerKind = 'look' | 'feel' | 'confirm' | 'reading' | 'hold';

/** What a reading is judged by; the core answers the step from it. */
export interface ReadingRule {
	kind: 'fill' | 'hold' | 'whistle' | 'inlet' | 'medium';
	/** What is read. */
	label: string;
	unit: 'bar';
	/** How long a hold takes. */
	seconds?: number;
	/** Code of a failed reading; above its band where the two differ. */
	code: string;
	codeHigh?: string;
}

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
	/** Answered by a reading that the core judges. */
	reading?: ReadingRule | undefined;
	/** May be answered "not fitted". */
	ifFitted?: boolean;
	/** Answered by someone other than the person who started the run. */
	secondPerson?: boolean;
}

/**
 * What a run along a procedure is for: only an inspection proves an item. A donning list helps a person into it, a look
 * is the wearer's own, closing is what follows the use, change is of a cylinder.
 */
export type Purpose = (typeof PURPOSES)[number];
export const PURPOSES = ['inspection', 'donning', 'look', 'closing', 'change'] as const;

/** When a list is walked. */
export type Level = (typeof LEVELS)[number];
export const LEVELS = [
	'short look',
	'before use',
	'after use',
	'weekly',
	'monthly',
	'after wash',
	'yearly deep',
	'after repair',
	'cylinder change'
] as const;

/** An inspection as data. A record keeps the version it ran under. */
export interface Procedure {
	key: string;
	version: number;
	name: string;
	family: string;
	/** Where practitioners differ: which school this one is. */
	school?: string;
	/** Left out: an inspection. */
	purpose?: Purpose;
	/** Left out: the usual ones, before use, monthly, after a wash and after a repair. */
	levels?: readonly Level[];
	origin: Origin;
	steps: readonly Step[];
}
