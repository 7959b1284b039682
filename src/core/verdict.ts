/**
 * The one shape of every judgement in Grevan.
 *
 * A verdict never stands alone: it carries the reasons it was reached by, each with the rule, the origin of
 * that rule, the inputs with their units, the limit and how far the value stands from it.
 */

/** Where a number or a rule comes from. Published values are written from memory and say so. */
export interface Origin {
	kind: 'published' | 'common practice' | 'maker' | 'site' | 'computed';
	/** Standard, clause, paper or a plain statement for values without a source. */
	source: string;
}

/** A named number with its unit, as it entered a judgement. */
export interface Quantity {
	name: string;
	value: number | string;
	unit?: string;
}

/** One step of a judgement. */
export interface Reason {
	/** Stable identifier of the rule, for records and tests. */
	rule: string;
	/** One plain sentence for the person at the bench. */
	text: string;
	origin: Origin;
	inputs?: Quantity[];
	limit?: number;
	value?: number;
	unit?: string;
	/** Distance to the limit in the unit; positive lies on the permitted side. */
	margin?: number;
}

/** A judgement with its reasons and, where it can be said, what would change it. */
export interface Verdict<Outcome extends string> {
	outcome: Outcome;
	reasons: Reason[];
	changesIf?: string[];
}

/** A published origin; the reader is told that the value was written from memory. */
export const published = (source: string): Origin => ({ kind: 'published', source });
/** A fact of the trade with no published source. */
export const commonPractice = (source = 'fact of the trade, no published source'): Origin => ({
	kind: 'common practice',
	source
});
/** A value computed from other stated values. */
export const computed = (source: string): Origin => ({ kind: 'computed', source });
/** A value stated by the maker of the equipment. */
export const maker = (source: string): Origin => ({ kind: 'maker', source });
/** A choice of the site. */
export const site = (source: string): Origin => ({ kind: 'site', source });

/** The origin as one line, with the standing warning beside published values. */
export function originLine(origin: Origin): string {
	if (origin.kind === 'published')
		return `published: ${origin.source} (from memory, verify against the current edition)`;
	return origin.kind === 'common practice' && origin.source.startsWith('fact of the trade')
		? 'common practice'
		: `${origin.kind}: ${origin.source}`;
}

/** A fault in what was given, located by field. Thrown by core functions on values outside their range. */
export class InputError extends Error {
	constructor(
		readonly path: string,
		message: string
	) {
		super(message);
		this.name = 'InputError';
	}
}
