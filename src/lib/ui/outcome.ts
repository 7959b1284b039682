import type { TestOutcome } from '$core/bench/breathing-apparatus';
import type { HazardOutcome } from '$core/hazards/decision';

/** How an outcome is said in a list. */
export const OUTCOME_WORDS: Record<HazardOutcome, string> = {
	filter: 'filter',
	'supplied air': 'supplied air',
	'self-contained': 'own air supply',
	'escape set': 'escape set',
	stop: 'stop'
};

/** How an outcome is said as an answer. */
export const OUTCOME_SENTENCES: Record<HazardOutcome, string> = {
	filter: 'A filter may be worn',
	'supplied air': 'Supplied air, no filter',
	'self-contained': 'Own air supply, positive pressure, full face',
	'escape set': 'An escape set, for leaving only',
	stop: 'Stop: nobody goes in'
};

/** The mark of a bench test's outcome. */
export const BENCH_MARKS: Record<TestOutcome, 'good' | 'watch' | 'reject' | 'overdue'> = {
	pass: 'good',
	'pass, marginal': 'watch',
	fail: 'reject',
	repeat: 'overdue'
};
