import {
	type BandBar,
	checkGaugeBar,
	fillTest,
	HOLD_DROP_BAR,
	holdTest,
	mediumTest,
	suspectUnit,
	whistleTest,
	WHISTLE_BAND_BAR,
	type TestOutcome
} from '../bench/breathing-apparatus.ts';
import { inletTest } from '../airline/inlet.ts';
import { InputError, type Reason } from '../verdict.ts';
import type { ReadingRule, Step } from './procedure.ts';

/** What was read at a step. */
export interface Readings {
	/** A single reading, bar. */
	value?: number | undefined;
	/** A hold: pressure before and after, bar, and how long it took. */
	start?: number | undefined;
	end?: number | undefined;
	seconds?: number | undefined;
	/** Timed by the device while the server could not be reached. */
	clock?: 'device' | undefined;
}

/** What of the item a reading is judged against. */
export interface ReadingFacts {
	ratedBar: number | null;
	/** Most that its maker allows to be lost in the hold, bar; the standard's limit where it says nothing. */
	holdDropBar?: number | null | undefined;
	/** A loss of just that fails: its maker says “less than”. */
	holdBelow?: boolean | undefined;
	/** Band of its whistle, bar, where its maker is stricter than the standard. */
	whistle?: BandBar | null | undefined;
	/** Band of its medium pressure, bar; null: not on record. */
	medium?: BandBar | null | undefined;
	/** Least pressure at the inlet that the approval of a rig gives, bar. */
	leastInletBar?: number | null;
}

export interface JudgedReading {
	value: 'good' | 'reject';
	code: string | null;
	outcome: TestOutcome;
	reasons: Reason[];
}

/** Rated pressure where the model states none, bar. Common practice. */
const USUAL_RATED_BAR = 300;

/**
 * Answers a step from what was read. The verdict is the core's, never the person's.
 * @throws InputError at readings.* on a reading that cannot be, or a hold that was too short to say anything.
 */
export function judgeReading(step: Step, readings: Readings, facts: ReadingFacts): JudgedReading {
	const rule = step.reading;
	if (!rule) throw new InputError('readings', `${step.title} takes no reading.`);
	const verdict = locate(() => judge(rule, readings, facts));
	if (verdict.outcome === 'repeat')
		throw new InputError(
			rule.kind === 'hold' ? 'readings.end' : 'readings.value',
			verdict.reasons[0]?.text ?? 'Read it again.'
		);
	const passed = verdict.outcome !== 'fail';
	const high = verdict.reasons[0]?.rule === 'whistle.high';
	return {
		value: passed ? 'good' : 'reject',
		code: passed ? null : high ? (rule.codeHigh ?? rule.code) : rule.code,
		outcome: verdict.outcome,
		reasons: verdict.reasons
	};
}

function judge(rule: ReadingRule, readings: Readings, facts: ReadingFacts) {
	const { start, end, seconds } = readings;
	if (rule.kind === 'hold') {
		if (start === undefined) throw new InputError('start', 'Note the pressure before the hold.');
		if (end === undefined) throw new InputError('end', 'Note the pressure after the hold.');
		return holdTest(start, end, seconds ?? 0, {
			limitBar: mostDropBar(facts),
			limitIncluded: !facts.holdBelow,
			ratedBar: facts.ratedBar ?? undefined
		});
	}
	const { value } = readings;
	if (value === undefined) throw new InputError('value', 'Type what the gauge shows.');
	if (rule.kind === 'inlet') return inletTest(value, facts.leastInletBar ?? null);
	if (rule.kind === 'medium') return mediumTest(value, facts.medium ?? null);
	return rule.kind === 'whistle'
		? whistleTest(value, facts.whistle ?? null)
		: fillTest(value, facts.ratedBar ?? USUAL_RATED_BAR);
}

/** The maker may be stricter than the standard, never looser. */
const mostDropBar = ({ holdDropBar }: ReadingFacts) =>
	Math.min(holdDropBar ?? HOLD_DROP_BAR, HOLD_DROP_BAR);

/** Names the field as the page does. */
function locate<T>(work: () => T): T {
	try {
		return work();
	} catch (error) {
		if (!(error instanceof InputError)) throw error;
		const path = { startBar: 'start', endBar: 'end', bar: 'value' }[error.path] ?? error.path;
		throw new InputError(`readings.${path}`, error.message);
	}
}

/** What a value was likely meant as, when it does not fit what this step reads. */
export function readingSuspicion(rule: ReadingRule, value: number, facts: ReadingFacts) {
	const rated = facts.ratedBar ?? USUAL_RATED_BAR;
	const expected =
		rule.kind === 'whistle'
			? { from: WHISTLE_BAND_BAR.from / 2, to: WHISTLE_BAND_BAR.to * 2 }
			: rule.kind === 'inlet' || rule.kind === 'medium'
				? { from: 1, to: 20 }
				: { from: rated / 3, to: rated * 1.2 };
	return suspectUnit(value, expected);
}

/** A reading as people write it. */
export function readingText(readings: Readings): string {
	if (readings.value !== undefined) return `${readings.value} bar`;
	return `${readings.start ?? '?'} → ${readings.end ?? '?'} bar in ${Math.round(readings.seconds ?? 0)} s`;
}

/** @throws InputError at readings.start when a hold cannot be begun with it. */
export function checkHoldStart(start: number): void {
	locate(() => checkGaugeBar(start, 'startBar'));
	if (start === 0)
		throw new InputError(
			'readings.start',
			'There is no pressure to hold: open the cylinder first.'
		);
}
