import { plusMonths, readable, type Day } from '../plan/calendar.ts';
import { commonPractice, type Verdict } from '../verdict.ts';
import { AIR_TEST_MONTHS, AIR_TEST_ORIGIN } from './breathing-air.ts';

/** A test of the air of a source; one that is incomplete passes nothing and fails nothing. */
export interface SourceTest {
	id: string;
	/** When the sample was taken, milliseconds. */
	at: number;
	/** The same as a day of the site. */
	on: Day;
	outcome: 'pass' | 'fail' | 'incomplete';
}

export interface SourceFacts {
	/** In any order. */
	tests: readonly SourceTest[];
	/** When it was last worked on, milliseconds; null: never. */
	workedAt: number | null;
}

export interface SourceState extends Verdict<'in force' | 'failed' | 'overdue' | 'untested'> {
	/** The test that the air is given out by; null: none. */
	testId: string | null;
	/** Last day of it. */
	until: Day | null;
}

const decided = (tests: readonly SourceTest[]) =>
	tests.filter((test) => test.outcome !== 'incomplete').sort((a, b) => a.at - b.at);

/** Whether the air of a source may be given out on a day: by its last test, which no work has come after. */
export function sourceState({ tests, workedAt }: SourceFacts, asOf: Day): SourceState {
	const last = decided(tests).at(-1);
	const none = { testId: null, until: null };
	const say = (rule: string, text: string) => [
		{ rule: `air.source.${rule}`, text, origin: AIR_TEST_ORIGIN }
	];
	if (!last)
		return { ...none, outcome: 'untested', reasons: say('untested', 'No air test on record.') };
	if (last.outcome === 'fail')
		return {
			...none,
			outcome: 'failed',
			reasons: say('failed', `Its air failed the test of ${readable(last.on)}.`)
		};
	if (workedAt !== null && workedAt > last.at)
		return {
			...none,
			outcome: 'untested',
			reasons: say('worked-on', 'It was worked on since its last air test.')
		};
	const until = plusMonths(last.on, AIR_TEST_MONTHS);
	if (asOf > until)
		return {
			...none,
			until,
			outcome: 'overdue',
			reasons: say('overdue', `Its air test was good until ${readable(until)}.`)
		};
	return {
		testId: last.id,
		until,
		outcome: 'in force',
		reasons: say('in-force', `Air test of ${readable(last.on)}, good until ${readable(until)}.`)
	};
}

/**
 * The failed test that a fill falls under: the first decided one after it began or after it ended, where that failed.
 * Air from before a good test is covered by it; a good sample taken while it was filled covers only what was in by
 * then.
 * @param from when the fill began, @param until when it ended; milliseconds
 */
export function failedAfter(
	from: number,
	until: number,
	tests: readonly SourceTest[]
): SourceTest | null {
	const known = decided(tests);
	const next = (at: number) => known.find((test) => test.at > at);
	return [next(from), next(until)].find((test) => test?.outcome === 'fail') ?? null;
}

/** Why what a failed test covers is held. */
export const HELD_BY_AIR = commonPractice(
	'what was filled since the last good test is held until it is emptied'
);
