import type { CylinderData } from '../air/cylinder.ts';
import type { Where } from '../custody/custody.ts';
import type { Severity } from '../data/reject-codes.ts';
import type { Day } from '../plan/calendar.ts';
import type { ItemEvent } from '../plan/events.ts';
import type { IntervalRule, RuleWhat } from '../plan/rules.ts';
import type { Reason } from '../verdict.ts';

/** When something was done: the day at the site and the moment as an ISO text. */
export interface Done {
	on: Day;
	at: string;
}

/** What a rule asks for, as a key. */
export const doneKey = (what: RuleWhat, detail: string): string => `${what} ${detail}`.trim();

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
	/** Since when it is in use: what was never done counts from here where a part came new with the item. */
	inUseSince?: Day;
	/** When each thing that rules ask for was last done, by `doneKey`. */
	done?: Readonly<Record<string, Done>>;
	/** What happened to it that rules count, the earliest first. */
	events?: readonly ItemEvent[];
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
	/** Where it is; left out: on its shelf. */
	custody?: {
		where: Where;
		/** Number of who has it, or the batch that it is in. */ with: string | null;
	} | null;
	/** The last seal of the cupboard that it lies in; null: it never had one. */
	seal?: KnownSeal | null;
	/** What it lacks on record, as sentences: nothing is ready with a place left empty. */
	lacks?: readonly string[];
	/** What is known of a cylinder beyond what was looked at. */
	cylinder?: CylinderKnown | null;
	/** What a set is put together from, each with its own facts. */
	parts?: readonly { tag: string; facts: ItemFacts }[];
}

/** The seal of an emergency item. */
export interface KnownSeal {
	number: string;
	/** Null: it is whole. */
	broken: { on: Day; why: string; lookedSince: boolean } | null;
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
