import type { RuleSet } from '../data/substance.ts';
import { checkDay, plusMonths, readable, type Day } from '../plan/calendar.ts';
import { commonPractice, published, type Reason, type Verdict } from '../verdict.ts';

/** What makes a fit test worth nothing any more. Published: 29 CFR 1910.134(f)(3) and app. A; from memory. */
export const FACE_CHANGES = ['weight', 'dental', 'pregnancy', 'scar', 'visible'] as const;
export type FaceChange = (typeof FACE_CHANGES)[number];

export const CHANGE_WORDS: Record<FaceChange, string> = {
	weight: 'weight changed by a tenth or more',
	dental: 'dental work',
	pregnancy: 'pregnancy',
	scar: 'scar or surgery of the face',
	visible: 'a visible change of the face'
};

/** How a fit test was made. */
export const FIT_METHODS = ['quantitative', 'qualitative'] as const;
export type FitMethod = (typeof FIT_METHODS)[number];

/** A fit test of a wearer, as far as it decides what may be worn. */
export interface FitTest {
	model: string;
	size: string;
	on: Day;
	method: FitMethod;
	passed: boolean;
	/** Moment of the test, where it is known: a change of the same day before it does not end it. */
	at?: string;
}

/** A change of a wearer that was reported. */
export interface ReportedChange {
	what: FaceChange;
	on: Day;
	at?: string;
}

/** Months that a fit test counts. Published: 29 CFR 1910.134(f)(2) yearly; UK common practice one to two years, yearly kept. */
export const FIT_MONTHS = 12;
/** Most that a qualitative test may be relied on for. Published: 29 CFR 1910.134 app. A; from memory. */
export const QUALITATIVE_FACTOR = 10;

const YEARLY = published('29 CFR 1910.134(f)(2), a test yearly');
const AFTER_CHANGE = published('29 CFR 1910.134(f)(3), a test after a change');

/** The last day on which a test counts, as far as the calendar says. */
export const fitUntil = (on: Day): Day => plusMonths(checkDay(on, 'on'), FIT_MONTHS);

/** Whether a change came after a test, so that the test ended with it. */
function endedBy(test: FitTest, change: ReportedChange): boolean {
	if (change.on !== test.on) return change.on > test.on;
	// Of one day the moments decide; where they are not known it is taken to be after.
	return !test.at || !change.at || Date.parse(change.at) >= Date.parse(test.at);
}

/**
 * Whether a fit test counts on a day: passed, of the last twelve months, with no change since, and not failed since with
 * the same mask.
 * @param later tests with the same model and size that came after it
 * @throws InputError on a day that is none
 */
export function judgeFitTest(
	test: FitTest,
	changes: readonly ReportedChange[],
	asOf: Day,
	later: readonly FitTest[] = []
): Verdict<'counts' | 'does not'> {
	const until = fitUntil(test.on);
	const reasons: Reason[] = [];
	const say = (rule: string, text: string, origin = YEARLY) => reasons.push({ rule, text, origin });
	const what = `${test.model}, size ${test.size}`;
	if (!test.passed)
		say('fit.failed', `The fit test of ${readable(test.on)} with ${what} was not passed.`);
	if (test.on > asOf) say('fit.future', `The fit test is of ${readable(test.on)}, a day to come.`);
	if (asOf > until)
		say('fit.lapsed', `The fit test of ${readable(test.on)} counted until ${readable(until)}.`);
	const ended = changes.filter((change) => change.on <= asOf && endedBy(test, change));
	for (const change of ended)
		say(
			'fit.changed',
			`Reported on ${readable(change.on)}: ${CHANGE_WORDS[change.what]}. The fit test of ${readable(test.on)} ended that day.`,
			AFTER_CHANGE
		);
	const failed = later.find(({ passed, on }) => !passed && on <= asOf);
	if (test.passed && failed)
		say(
			'fit.failed-since',
			`A later test with ${what}, on ${readable(failed.on)}, was not passed.`,
			commonPractice()
		);
	if (reasons.length > 0) return { outcome: 'does not', reasons };
	say(
		'fit.counts',
		`Fit test with ${what} on ${readable(test.on)}, counts until ${readable(until)}.`
	);
	return { outcome: 'counts', reasons };
}

/**
 * Whether a method of testing is good enough for a factor: a qualitative test up to ten, and under the UK pack for a
 * full-face mask not at all.
 */
export function methodServes(
	method: FitMethod,
	need: { requiredFactor: number; fullFace: boolean; ruleSet: RuleSet }
): boolean {
	if (method === 'quantitative') return true;
	if (need.fullFace && need.ruleSet === 'uk') return false;
	return need.requiredFactor <= QUALITATIVE_FACTOR;
}
