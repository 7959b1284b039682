import type { Substance } from '../data/substance.ts';
import type { Concentration, ConcentrationUnit } from '../units/concentration.ts';
import { InputError } from '../verdict.ts';
import {
	type ContaminantFact,
	type HazardFacts,
	type LaxerLimit,
	listedLimit,
	publishedLimit
} from './facts.ts';

/**
 * A short-term limit where the list has none: so many times the 8-hour one.
 * Published: HSE EH40, paragraph on short-term exposure limits; ACGIH excursion guidance; from memory.
 */
const SHORT_TERM_MULTIPLE = 3;

/** How one amount is brought into another unit, and whether it can be. */
export interface Convert {
	(amount: Concentration, unit: ConcentrationUnit): number;
	possible: (from: ConcentrationUnit, to: ConcentrationUnit) => boolean;
}

export interface LimitsInForce {
	/** 8-hour mean, lowered for a long shift where that is asked for. */
	limit?: Concentration | undefined;
	limitSource: string;
	shortLimit?: Concentration | undefined;
	shortLimitSource: string;
	laxer?: LaxerLimit | undefined;
}

type Around = Pick<HazardFacts, 'ruleSet' | 'longShiftHours'>;

/**
 * The limits that a contaminant is compared with: the entered one where it is not laxer than the published one or
 * is kept for a reason, else the published ones of the rule set.
 * @throws InputError at longShiftHours on a shift that cannot be
 */
export function limitsInForce(
	fact: ContaminantFact,
	substance: Substance | undefined,
	facts: Around,
	convert: Convert
): LimitsInForce {
	const published = publishedLimit(substance, facts.ruleSet);
	const laxer = laxerLimit(fact, published, convert);
	const entered = laxer && !laxer.reason ? undefined : (fact.limit ?? undefined);
	const limit = entered ?? published;
	const listed = listedLimit(substance, facts.ruleSet);
	const lowered = longShift(limit, substance, facts);
	const country = facts.ruleSet === 'us' ? 'US' : 'UK';
	const list =
		facts.ruleSet === 'us' && substance && !substance.limits.us && substance.rel
			? 'recommended US limit of the library (NIOSH), as no legal one is listed'
			: `${country} limit of the library`;
	// An entered limit puts the listed short-term one out of force unless a peak was measured against it.
	const short = listed?.short !== undefined && (!entered || fact.peak) ? listed.short : undefined;
	return {
		limit: lowered,
		limitSource: entered
			? laxer
				? `entered in the plan, laxer than the published ${laxer.published.value}: ${laxer.reason}`
				: 'entered in the plan'
			: `${list}${lowered === limit ? '' : `, lowered for a shift of ${facts.longShiftHours} h`}`,
		...(limit
			? {
					shortLimit:
						short !== undefined && listed
							? { value: short, unit: listed.unit }
							: { value: limit.value * SHORT_TERM_MULTIPLE, unit: limit.unit }
				}
			: {}),
		shortLimitSource:
			listed?.short === undefined
				? `${SHORT_TERM_MULTIPLE} × the 8-hour limit, as no short-term limit is listed`
				: 'short-term limit of the library',
		...(laxer ? { laxer } : {})
	};
}

/** The entered limit where it lies above the published one; undefined where not, or where the two cannot be compared. */
function laxerLimit(
	fact: ContaminantFact,
	published: Concentration | undefined,
	convert: Convert
): LaxerLimit | undefined {
	const { limit } = fact;
	if (!limit || !published || !convert.possible(limit.unit, published.unit)) return undefined;
	// A limit typed in the other unit is as rounded as the list it was read from.
	const rounding = limit.unit === published.unit ? 1 : LIST_ROUNDING;
	if (convert(limit, published.unit) <= published.value * rounding) return undefined;
	return { entered: limit, published, reason: fact.limitReason?.trim() || undefined };
}

/** How far the mg/m³ of a list lie from its ppm by rounding and by its temperature. Common practice. */
const LIST_ROUNDING = 1.05;

/**
 * The 8-hour limit lowered for a long shift by 8/h · (24 − h)/16; short-term and ceiling values stay.
 * Published: Brief & Scala, AIHA J. 36 (1975) 467; from memory.
 */
function longShift(
	limit: Concentration | undefined,
	substance: Substance | undefined,
	facts: Around
): Concentration | undefined {
	const hours = facts.longShiftHours;
	const mean = listedLimit(substance, facts.ruleSet)?.twa !== undefined || !substance;
	if (!limit || !hours || hours <= 8 || !mean) return limit;
	if (hours >= 24)
		throw new InputError('longShiftHours', 'A shift is shorter than 24 hours for this correction.');
	return { value: limit.value * briefScalaFactor(hours), unit: limit.unit };
}

/** Brief & Scala's reduction factor for a shift of so many hours, 1 up to eight. */
export const briefScalaFactor = (hours: number): number =>
	hours <= 8 ? 1 : (8 / hours) * ((24 - hours) / 16);
