import type { ProtectionKind } from '../data/protection-factors.ts';
import type { Substance } from '../data/substance.ts';
import type { Contaminant, HazardFacts } from '../hazards/facts.ts';
import { enTypeOf } from '../hazards/filter-needed.ts';
import { commonPractice, published, type Reason } from '../verdict.ts';
import { CLASS_TEST_ORIGIN, classTestMinutes } from './class-test.ts';
import type { GasClass } from './filter-code.ts';
import {
	adsorbateOf,
	canEstimate,
	keepableMinutes,
	LOW_BOILER_C,
	serviceLife,
	SHIFT_MIN,
	USUAL_BREAKTHROUGH,
	WORK_RATES,
	type ServiceLife
} from './service-life.ts';
import { fixedTimes } from './fixed-times.ts';
import { saturationPpm } from './vapour-pressure.ts';
import { DEFAULT_BED, type Bed } from './wheeler-jonas.ts';

/** How long the filter lasts against one contaminant. */
export interface LifePart {
	contaminant: string;
	/** Minutes of wear; null: no time, by breathing resistance and damage. */
	minutes: number | null;
	/** May not be worn again on another day. */
	singleUse: boolean;
	/** The model's figures, where it was used. */
	estimate?: ServiceLife;
	reasons: Reason[];
}

export interface PlanLife {
	/** The shortest of all parts, rounded to a time one can keep; null when only particles are there. */
	changeAfterMin: number | null;
	singleUse: boolean;
	parts: LifePart[];
}

/** Published: EN 14387, Hg-P3 at most 50 h in all; from memory. */
const MERCURY_MIN = 50 * 60;

export interface PlanLifeOptions {
	/** Filters that share the flow; a half mask usually carries two. */
	filters?: number;
	bed: Bed;
	gasClass?: GasClass;
	/** Flow through all of them, where it is not the wearer's breath: a blower's, day long. */
	flowLPerMin?: number | undefined;
}

/** How the filters of a kind are loaded: how many share the flow, and what its blower moves. */
export const wornAs = (
	kind: Pick<ProtectionKind, 'filters' | 'blowerLPerMin'>,
	bed: Bed = DEFAULT_BED
): PlanLifeOptions => ({ filters: kind.filters ?? 1, flowLPerMin: kind.blowerLPerMin, bed });

/**
 * How long a filter may be worn under a plan: the shortest over all contaminants.
 *
 * Organic vapours together are screened: each is taken at the molar concentration of all of them, and the most
 * weakly held decides. An inorganic gas gets half the linear estimate from its class test, one shift at most.
 */
export function planLife(
	contaminants: readonly Contaminant[],
	facts: HazardFacts,
	options: PlanLifeOptions
): PlanLife {
	const { filters = 2, bed, gasClass = 1 } = options;
	const flow = options.flowLPerMin ?? WORK_RATES[facts.workRate];
	const organicPpm = contaminants
		.filter((c) => c.organic && c.gas)
		.reduce((sum, c) => sum + (c.ppm ?? 0), 0);
	const parts = contaminants.map((c): LifePart => {
		const part = lifeOf(c);
		return withFixed(part, c);
	});
	const shortest = shortestMin(parts);
	return {
		changeAfterMin: shortest === null ? null : keepableMinutes(shortest),
		singleUse: parts.some((part) => part.singleUse),
		parts
	};

	function lifeOf(c: Contaminant): LifePart {
		const type = enTypeOf(c);
		const lowBoiler = (c.boilingPointC ?? Infinity) <= LOW_BOILER_C;
		if (!c.gas) return particlePart(c);
		if (type === 'Hg' || type === 'NO') return specialPart(c, type);
		if (c.substance && canEstimate(c.substance) && organicPpm > 0) {
			const estimate = serviceLife({
				adsorbate: adsorbateOf(c.substance, facts.temperatureC),
				concentrationPpm: Math.min(organicPpm, belowSaturation(c.substance, facts.temperatureC)),
				flowLPerMin: flow,
				filters,
				temperatureC: facts.temperatureC,
				relativeHumidityPercent: facts.relativeHumidityPercent,
				breakthroughFraction: breakthroughFractionOf(c),
				bed,
				...(c.substance.noFilter ? { noFilter: c.substance.noFilter } : {})
			});
			return {
				contaminant: c.name,
				minutes:
					estimate.outcome === 'estimate' ? estimate.lowerBoundMin * estimate.humidityFactor : 0,
				singleUse: lowBoiler,
				estimate,
				reasons: [...estimate.reasons, ...crossChecks(c, organicPpm)]
			};
		}
		const rough = type && classTestMinutes(type, gasClass, c, { flowLPerMin: flow, filters });
		return rough === undefined ? makerPart(c) : inorganicPart(c, rough);
	}
}

/** What breaks through stays below the limit in the mask. */
const breakthroughFractionOf = (c: Contaminant): number =>
	Math.min(USUAL_BREAKTHROUGH, c.meanRatio ? 1 / c.meanRatio : USUAL_BREAKTHROUGH);

/** Vapours together can be more than one of them alone could reach; the model holds below that. */
const belowSaturation = (substance: Substance, temperatureC: number): number =>
	0.999 * (saturationPpm(substance, temperatureC) ?? Infinity);

/** The shortest life of the parts that have a time, not rounded; null when none has one. */
export function shortestMin(parts: readonly LifePart[]): number | null {
	const timed = parts.flatMap((part) => (part.minutes === null ? [] : [part.minutes]));
	return timed.length ? Math.min(...timed) : null;
}

/** Published rule of thumb: AIHA, The Occupational Environment; from memory. */
const THUMB_BOILS_ABOVE_C = 70;
const THUMB_BELOW_PPM = 200;

/** What stands beside the estimate: the screening of mixtures and the old rule of thumb. */
function crossChecks(c: Contaminant, organicPpm: number): Reason[] {
	const reasons: Reason[] = [];
	if ((c.ppm ?? 0) < organicPpm)
		reasons.push({
			rule: 'filter.mixture-screen',
			text: 'Vapours together are screened: each at the concentration of all of them, the most weakly held decides. A screening estimate.',
			origin: commonPractice('additive use of capacity'),
			value: organicPpm,
			unit: 'ppm'
		});
	if ((c.boilingPointC ?? 0) > THUMB_BOILS_ABOVE_C && organicPpm < THUMB_BELOW_PPM)
		reasons.push({
			rule: 'filter.rule-of-thumb',
			text: 'Cross-check: above 70 °C boiling point and below 200 ppm the rule of thumb says about 8 h at normal work. It never lengthens the estimate.',
			origin: published('AIHA, The Occupational Environment, rule of thumb')
		});
	return reasons;
}

/** A fixed time over the estimate: a regulation's, or that of the AX groups; the shorter one decides. */
function withFixed(part: LifePart, c: Contaminant): LifePart {
	if (!c.gas || !c.substance) return part;
	const fixed = fixedTimes(c.substance, c.ppm ?? Infinity);
	if (fixed.length === 0) return part;
	return {
		...part,
		minutes: Math.min(part.minutes ?? Infinity, ...fixed.map(({ minutes }) => minutes)),
		singleUse: part.singleUse || enTypeOf(c) === 'AX',
		reasons: [...part.reasons, ...fixed.map(({ reason }) => reason)]
	};
}

const particlePart = (c: Contaminant): LifePart => ({
	contaminant: c.name,
	minutes: null,
	singleUse: false,
	reasons: [
		{
			rule: 'change.particles',
			text: `${c.name}: change when breathing gets harder, when damaged, wet or soiled.`,
			origin: commonPractice()
		}
	]
});

function specialPart(c: Contaminant, type: 'Hg' | 'NO'): LifePart {
	return {
		contaminant: c.name,
		minutes: type === 'Hg' ? MERCURY_MIN : SHIFT_MIN,
		singleUse: type === 'NO',
		reasons: [
			{
				rule: `change.${type.toLowerCase()}`,
				text: type === 'Hg' ? 'Hg-P3: 50 h in all at most.' : 'NO-P3: once, then discard.',
				origin: published('EN 14387')
			}
		]
	};
}

function inorganicPart(c: Contaminant, roughMin: number): LifePart {
	const minutes = Math.min(roughMin, SHIFT_MIN);
	return {
		contaminant: c.name,
		minutes,
		singleUse: false,
		reasons: [
			{
				rule: 'change.class-test',
				text: `${c.name}: about ${minutes.toFixed(0)} min, half the linear estimate from the class test. Rough.`,
				origin: CLASS_TEST_ORIGIN,
				value: minutes,
				unit: 'min'
			}
		]
	};
}

const makerPart = (c: Contaminant): LifePart => ({
	contaminant: c.name,
	minutes: null,
	singleUse: true,
	reasons: [
		{
			rule: 'change.maker',
			text: `${c.name}: no estimate can be made. Ask the filter's maker; until then one shift at most.`,
			origin: commonPractice()
		}
	]
});
