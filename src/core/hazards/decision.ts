import type { ProtectionKind } from '../data/protection-factors.ts';
import type { Reason, Verdict } from '../verdict.ts';
import type { Contaminant } from './facts.ts';
import type { MixtureRatio } from './mixture.ts';

export type HazardOutcome = 'filter' | 'supplied air' | 'self-contained' | 'escape set' | 'stop';

/** How protective an outcome is; a change for the worse may only go up. */
export const OUTCOME_RANK: Record<HazardOutcome, number> = {
	filter: 0,
	'supplied air': 1,
	'self-contained': 2,
	'escape set': 3,
	stop: 4
};

export type RungKey =
	| 'known'
	| 'oxygen'
	| 'immediate-danger'
	| 'fire'
	| 'escape'
	| 'skin'
	| 'substance-rule'
	| 'filter-exists'
	| 'factor'
	| 'fit'
	| 'wear';

/** One rung of the decision ladder, as it is shown. */
export interface Rung {
	key: RungKey;
	title: string;
	/** passed: goes on; decides: the ladder ends here; notes: adds something; not reached. */
	answer: 'passed' | 'decides' | 'notes' | 'not reached';
	text: string;
	reasons: Reason[];
}

/** What is worn against the skin, beside the breathing protection. */
export type Suit = 'none' | 'skin protection' | 'gas-tight';

/** A kind of equipment that the facts permit. */
export interface PermittedKind {
	kind: ProtectionKind['key'];
	label: string;
	source: ProtectionKind['source'];
	tightFitting: boolean;
	factor: number;
	/** Factor over hazard ratio; null where there is no ratio. */
	margin: number | null;
	/** Highest multiple of the limit at which this kind may still be worn. */
	maxUseMultiple: number;
	burden: number;
	/** Leaves the eyes bare to what harms them: gas-tight goggles go with it. */
	needsGoggles: boolean;
	/** Filter codes in both schemes, for filtering kinds. */
	filters?: { en: string | null; us: string | null };
	conditions: string[];
}

export interface HazardDecision extends Verdict<HazardOutcome> {
	hazardRatio: number | null;
	requiredFactor: number | null;
	/** What is worn against the skin, beside the breathing protection. */
	suit: Suit;
	rungs: Rung[];
	permitted: PermittedKind[];
	rejected: { kind: string; label: string; reason: string }[];
	contaminants: Contaminant[];
	/** How the ratio came about; null where a contaminant has none. */
	mixture: MixtureRatio | null;
	conditions: string[];
	changesIf: string[];
}
