import type { RuleSet } from '../data/substance.ts';
import { checkDay, plusMonths, readable, type Day } from '../plan/calendar.ts';
import {
	commonPractice,
	InputError,
	maker,
	published,
	type Origin,
	type Reason,
	type Verdict
} from '../verdict.ts';
import { checkVolume } from './content.ts';

export const MATERIALS = ['steel', 'aluminium', 'composite'] as const;
export type CylinderMaterial = (typeof MATERIALS)[number];

/** Months between periodic tests. Published: 49 CFR 180.205 and 180.209 (US), EN ISO 18119 and 11623 as used for BA cylinders (UK, EU), 5 years in both; from memory. */
export const TEST_MONTHS = 60;
/** Life of a composite cylinder under the US rules where its stamp says nothing longer, years. Published: 49 CFR 173.34 special permits, 15 years; from memory. */
const US_COMPOSITE_YEARS = 15;
/** A gauge that shows less cannot be told from an empty cylinder, bar. Common practice. */
export const RESIDUAL_BAR = 2;
/** Air that failed its test is let down to this before the cylinder is filled anew, bar. Site default. */
export const LET_DOWN_BAR = 5;
/** Longest time between tests and life that a stamp may state, years. Common practice. */
const [MOST_TEST_YEARS, MOST_VALUE_BAR] = [10, 500] as const;

/** What is stamped on a cylinder or comes from its maker. */
export interface CylinderData {
	waterVolumeL: number;
	/** At 15 °C, gauge. */
	ratedBar: number;
	/** What it may develop at 65 °C, gauge. */
	maximumBar: number;
	material: CylinderMaterial;
	/** With its valve, without air; null: not weighed. */
	emptyKg: number | null;
	thread: string;
	manufacturedOn: Day;
	/** Last day of its life as stamped; null: nothing stamped. */
	lifeEndsOn: Day | null;
	/** Years between its tests where stamp or maker ask for less than the rule. */
	testYears: number | null;
}

/** @throws InputError at the field that cannot be */
export function checkCylinder(data: CylinderData): void {
	checkVolume(data.waterVolumeL);
	const bar = (path: 'ratedBar' | 'maximumBar', value: number) => {
		if (!(value >= 20 && value <= MOST_VALUE_BAR))
			throw new InputError(path, `${value} bar is outside 20 to ${MOST_VALUE_BAR} bar.`);
	};
	bar('ratedBar', data.ratedBar);
	bar('maximumBar', data.maximumBar);
	if (data.maximumBar < data.ratedBar)
		throw new InputError('maximumBar', 'The maximum lies at or above the rated pressure.');
	if (data.emptyKg !== null && !(data.emptyKg > 0 && data.emptyKg < 100))
		throw new InputError('emptyKg', 'A weight above 0, below 100 kg.');
	checkDay(data.manufacturedOn, 'manufacturedOn');
	if (data.lifeEndsOn !== null && checkDay(data.lifeEndsOn, 'lifeEndsOn') <= data.manufacturedOn)
		throw new InputError('lifeEndsOn', 'Its life ends after it was made.');
	const years = data.testYears;
	if (years !== null && !(Number.isInteger(years) && years >= 1 && years <= MOST_TEST_YEARS))
		throw new InputError('testYears', `A whole number of years from 1 to ${MOST_TEST_YEARS}.`);
}

export interface CylinderDates {
	/** Last day before its next periodic test. */
	testBy: Day;
	/** Last day of its life; null: no end is stated. */
	lifeEndsOn: Day | null;
	/** Last day on which it may be filled or worn: the earlier of both. */
	lastDay: Day;
	reasons: Reason[];
}

/**
 * Next periodic test and last day of life by the rule set; stamp and maker decide where they ask for more. A new
 * cylinder counts as tested on the day it was made.
 * @param lastTestOn day of the last test that it passed
 */
export function cylinderDates(
	data: Pick<CylinderData, 'material' | 'manufacturedOn' | 'lifeEndsOn' | 'testYears'>,
	lastTestOn: Day | null,
	ruleSet: RuleSet
): CylinderDates {
	const rule = published(
		ruleSet === 'us' ? '49 CFR 180.205 and 180.209' : 'EN ISO 18119 and EN ISO 11623'
	);
	const sooner = data.testYears !== null && data.testYears * 12 < TEST_MONTHS;
	const months = sooner ? (data.testYears ?? 0) * 12 : TEST_MONTHS;
	const from = lastTestOn ?? data.manufacturedOn;
	const testBy = plusMonths(from, months);
	const byRule =
		ruleSet === 'us' && data.material === 'composite'
			? plusMonths(data.manufacturedOn, US_COMPOSITE_YEARS * 12)
			: null;
	const ends = [data.lifeEndsOn, byRule].filter((day) => day !== null).sort();
	const [lifeEndsOn = null] = ends;
	return {
		testBy,
		lifeEndsOn,
		lastDay: lifeEndsOn !== null && lifeEndsOn < testBy ? lifeEndsOn : testBy,
		reasons: [
			{
				rule: 'cylinder.test',
				text: `Periodic test every ${months / 12} years: by ${readable(testBy)}.`,
				origin: sooner ? maker('its stamp or its maker') : rule
			},
			{
				rule: 'cylinder.life',
				text: lifeEndsOn
					? `Its life ends on ${readable(lifeEndsOn)}.`
					: 'No end of its life is stated.',
				origin:
					lifeEndsOn !== null && lifeEndsOn === byRule
						? published('49 CFR, special permits for composite cylinders, 15 years')
						: maker('its stamp')
			}
		]
	};
}

/** Months after which the air in a stored cylinder is changed. Common practice: yearly. */
const FRESH_AIR_MONTHS = 12;

/** Last day of the air that was filled on a day; null where no fill is on record. */
export const freshUntil = (filledOn: Day | null): Day | null =>
	filledOn === null ? null : plusMonths(filledOn, FRESH_AIR_MONTHS);

/** Where a cylinder is when it is in no set. */
export const LOCATIONS = ['rack', 'filling', 'test house'] as const;
export type CylinderLocation = (typeof LOCATIONS)[number];

/** What is known of a cylinder on a day. */
export interface CylinderFacts {
	dates: CylinderDates;
	/** It failed its last periodic test. */
	testFailed: boolean;
	location: CylinderLocation;
	/** Tag of the set that it is in. */
	inSet: string | null;
	/** What was last read on it, gauge; null: nobody knows. */
	pressureBar: number | null;
	/** Looked at inside since it was last found without pressure. */
	lookedInside: boolean;
	/** Open faults that hold it. */
	faults: readonly string[];
	/** The air in it failed a test that was taken after it was filled. */
	airFailed: { source: string; on: Day } | null;
	/** Last day of the air in it; null: no fill on record. */
	freshUntil: Day | null;
}

const because = (rule: string, text: string, origin: Origin = commonPractice()): Reason => ({
	rule: `cylinder.${rule}`,
	text,
	origin
});

/** What keeps a cylinder from being filled and from being worn alike. */
function neither(facts: CylinderFacts, asOf: Day): Reason[] {
	const { dates } = facts;
	const [test, life] = dates.reasons;
	const reasons: Reason[] = [];
	if (asOf > dates.testBy)
		reasons.push(
			because('past-test', `Past its test: it was due by ${readable(dates.testBy)}.`, test?.origin)
		);
	if (dates.lifeEndsOn !== null && asOf > dates.lifeEndsOn)
		reasons.push(
			because('past-life', `Its life ended on ${readable(dates.lifeEndsOn)}.`, life?.origin)
		);
	if (facts.testFailed) reasons.push(because('test-failed', 'It failed its periodic test.'));
	for (const fault of facts.faults) reasons.push(because('fault', `Open fault: ${fault}.`));
	if (facts.location === 'test house')
		reasons.push(because('away', 'It is at the test house; book it in first.'));
	if (facts.pressureBar === null)
		reasons.push(
			because('unknown', 'What is left in it is not known: read its gauge and note it.')
		);
	return reasons;
}

/** Whether a cylinder may be filled on a day; every reason against it. The look at it comes on top. */
export function mayFill(facts: CylinderFacts, asOf: Day): Verdict<'may' | 'refused'> {
	const reasons = neither(facts, asOf);
	if (facts.inSet) reasons.push(because('in-set', `It is on ${facts.inSet}; take it off first.`));
	if (facts.pressureBar !== null && facts.pressureBar < RESIDUAL_BAR && !facts.lookedInside)
		reasons.push(
			because(
				'empty',
				`${facts.pressureBar} bar left, less than ${RESIDUAL_BAR}: it has to be looked at inside before it is filled.`
			)
		);
	if (facts.airFailed && (facts.pressureBar ?? 0) > LET_DOWN_BAR)
		reasons.push(
			because(
				'air-failed',
				`The air in it, from ${facts.airFailed.source}, failed on ${readable(facts.airFailed.on)}: let it down to ${LET_DOWN_BAR} bar first.`
			)
		);
	return { outcome: reasons.length ? 'refused' : 'may', reasons };
}

/** Whether a cylinder may be put on a set on a day; every reason against it. */
export function mayFit(facts: CylinderFacts, asOf: Day): Verdict<'may' | 'refused'> {
	const reasons = neither(facts, asOf);
	if (facts.inSet)
		reasons.push(because('in-set', `It is on ${facts.inSet}; take it off there first.`));
	if (facts.location === 'filling')
		reasons.push(because('filling', 'It waits to be filled; take it out of the queue first.'));
	if (facts.freshUntil !== null && asOf > facts.freshUntil)
		reasons.push(
			because(
				'stale',
				`The air in it is older than a year: fresh air was due by ${readable(facts.freshUntil)}.`,
				commonPractice('fresh air in stored cylinders yearly')
			)
		);
	if (facts.airFailed)
		reasons.push(
			because(
				'air-failed',
				`The air in it, from ${facts.airFailed.source}, failed its test on ${readable(facts.airFailed.on)}.`
			)
		);
	return { outcome: reasons.length ? 'refused' : 'may', reasons };
}
