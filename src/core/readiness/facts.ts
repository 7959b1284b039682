import type { CylinderData } from '../air/cylinder.ts';
import type { Severity } from '../data/reject-codes.ts';
import type { Day } from '../plan/calendar.ts';
import type { IntervalRule } from '../plan/rules.ts';
import type { Reason } from '../verdict.ts';

/** What is known of an item; its state follows from this and from nothing else. */
export interface ItemFacts {
	retiredOn: Day | null;
	openDefects: readonly { severity: Severity; code: string; station: string }[];
	/** A repair is under way. */
	inService: boolean;
	/** Day of the last signed inspection that it passed. */
	lastInspectionOn: Day | null;
	/** Day of the last bench test that it passed. */
	lastBenchTestOn?: Day | null;
	/** Rules of intervals that hold for it; left out: those of the rule set. */
	rules?: readonly IntervalRule[];
	/** What makes it looked at sooner though nothing is wrong: a drift, a test passed within its uncertainty. */
	watched?: readonly Reason[];
	/** Change date of the pair of filters on it. */
	filterChangeOn: Day | null;
	/** The lot of the filters on it was recalled. */
	filtersRecalled?: boolean;
	/** Its maker took the model from the market. */
	withdrawn?: { on: Day; why: string } | null;
	/** What it lacks on record, as sentences: nothing is ready with a place left empty. */
	lacks?: readonly string[];
	/** What is known of a cylinder beyond what was looked at. */
	cylinder?: CylinderKnown | null;
	/** What a set is put together from, each with its own facts. */
	parts?: readonly { tag: string; facts: ItemFacts }[];
}

/** What the state of a cylinder follows from besides its inspections. */
export interface CylinderKnown extends Pick<
	CylinderData,
	'material' | 'manufacturedOn' | 'lifeEndsOn' | 'testYears'
> {
	/** Day of the last periodic test that it passed; null: none since it was made. */
	lastTestOn: Day | null;
	/** Day of its last fill; null: none on record. */
	filledOn: Day | null;
	/** It failed its last periodic test. */
	testFailed: boolean;
	/** What was last read on it; null: nobody knows what is left in it. */
	pressureBar: number | null;
	/** The air in it failed a test that was taken after it was filled. */
	airFailed: { source: string; on: Day } | null;
}
