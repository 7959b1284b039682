import {
	AIR_OXYGEN_PERCENT,
	ASPHYXIANT_ORIGIN,
	OXYGEN_CONTRADICTS_PERCENT,
	SIMPLE_ASPHYXIANTS,
	TRACE_PPM
} from '../data/asphyxiants.ts';
import { rulesFor } from '../data/substance-rules.ts';
import { canEstimate, LOW_BOILER_C } from '../filters/service-life.ts';
import { oxygenPressureMmHg } from '../units/altitude.ts';
import { saturationPpm } from '../filters/vapour-pressure.ts';
import { readableNumber } from '../units/number.ts';
import { commonPractice, InputError, published, site, type Reason } from '../verdict.ts';
import type { HazardOutcome } from './decision.ts';
import { enTypeOf, usTypeOf } from './filter-needed.ts';
import { written, type Contaminant, type HazardFacts } from './facts.ts';

/** What one rung found: nothing, a note, or the end of the ladder. */
export interface Finding {
	outcome?: HazardOutcome;
	text: string;
	reasons: Reason[];
	/** Says something that the reader must see although the ladder goes on. */
	notes?: boolean;
}

/** Published: 29 CFR 1910.134(b) and (d)(2)(iii); UK: kept as the cautious line. From memory. */
export const OXYGEN_LINE_PERCENT = 19.5;
/** Published: 29 CFR 1910.146(b), oxygen-enriched atmosphere; from memory. */
export const OXYGEN_FIRE_PERCENT = 23.5;
/** Published: 29 CFR 1910.146(b), hazardous atmosphere at a tenth of the LEL; from memory. */
const LEL_FRACTION = 0.1;

/** Lowest oxygen by altitude that any airline may be worn in. Published: 29 CFR 1910.134 table II; from memory. */
const ALTITUDE_TABLE: readonly { belowFt: number; fromPercent: number }[] = [
	{ belowFt: 3001, fromPercent: 16.0 },
	{ belowFt: 4001, fromPercent: 16.4 },
	{ belowFt: 5001, fromPercent: 17.1 },
	{ belowFt: 6001, fromPercent: 17.8 },
	{ belowFt: 7001, fromPercent: 18.5 },
	{ belowFt: 8001, fromPercent: 19.3 }
];

const oxygenOrigin = (facts: HazardFacts) =>
	facts.ruleSet === 'us'
		? published('29 CFR 1910.134(b) and (d)(2)(iii)')
		: site('19.5 % kept as the cautious line; some national rules allow filters down to 17 %');
const dangerOrigin = published('29 CFR 1910.134(d)(2)(i)');
const ladderOrigin = published(
	'29 CFR 1910.134(d)(1)(iii), unknown is treated as immediate danger'
);

const self = (text: string, reasons: Reason[]): Finding => ({
	outcome: 'self-contained',
	text,
	reasons
});
const names = (list: readonly Contaminant[]) => list.map((c) => c.name).join(', ');

/** Rung 1: is every contaminant known, measured and comparable with a limit? */
export function known(contaminants: readonly Contaminant[]): Finding {
	const rule = 'hazard.unknown';
	if (contaminants.length === 0)
		return self('Nothing is entered: an unknown air is treated as immediately dangerous.', [
			{ rule, text: 'No contaminant is entered.', origin: ladderOrigin }
		]);
	const reasons = contaminants.flatMap((c): Reason[] => {
		if (c.substance?.biologicalGroup) return [];
		if (!c.concentration)
			return [{ rule, text: `${c.name}: the concentration is not known.`, origin: ladderOrigin }];
		if (c.substance?.noFilter && !c.limit) return [];
		if (!c.limit)
			return [
				{
					rule: 'hazard.no-limit',
					text: `${c.name}: no exposure limit is known under this rule set. Enter the one your assessment uses.`,
					origin: ladderOrigin
				}
			];
		return [];
	});
	return reasons.length
		? self(reasons[0]?.text ?? '', reasons)
		: { text: `${contaminants.length} of ${contaminants.length} known, with a limit`, reasons: [] };
}

/** Oxygen that is left beside what is in the air, % by volume. */
export function oxygenLeftPercent(contaminants: readonly Contaminant[]): number {
	const gases = contaminants.reduce((sum, c) => sum + (c.gas ? (c.peakPpm ?? 0) : 0), 0);
	return AIR_OXYGEN_PERCENT * Math.max(0, 1 - gases / 1e6);
}

/** Oxygen that nobody measured: what is known of it, and whether that is enough to go by. */
function unmeasured(facts: HazardFacts, contaminants: readonly Contaminant[]): Finding {
	const left = Number(oxygenLeftPercent(contaminants).toPrecision(4));
	const displacing = contaminants.filter(
		(c) => SIMPLE_ASPHYXIANTS.has(c.substance?.key ?? '') && (c.peakPpm ?? Infinity) >= TRACE_PPM
	);
	const why = displacing.length
		? `${names(displacing)} takes the place of air`
		: facts.confinedSpace
			? 'the space is confined'
			: undefined;
	const inputs = [{ name: 'oxygen left by what is in the air', value: left, unit: '%' }];
	if (facts.oxygenPercent === null || why || left < OXYGEN_LINE_PERCENT) {
		const text = why
			? `Oxygen is not measured, and ${why}: treated as too little.`
			: facts.oxygenPercent === null
				? 'Oxygen is not measured: treated as too little.'
				: `What is in the air leaves ${left} % of oxygen: treated as too little.`;
		return self(text, [
			{
				rule: 'hazard.oxygen-unknown',
				text,
				origin: ladderOrigin,
				inputs,
				...(why ? {} : { value: left, unit: '%' })
			}
		]);
	}
	const text = `Oxygen was not entered: ${left} % is assumed, not measured.`;
	return {
		text: `${left} % assumed, not measured`,
		notes: true,
		reasons: [{ rule: 'hazard.oxygen-assumed', text, origin: ASPHYXIANT_ORIGIN, inputs }]
	};
}

/** @throws InputError where the oxygen that was entered cannot be there beside what else was */
function refuseContradiction(percent: number, contaminants: readonly Contaminant[]): void {
	const left = oxygenLeftPercent(contaminants);
	const displaced = AIR_OXYGEN_PERCENT - left;
	if (displaced < (AIR_OXYGEN_PERCENT * TRACE_PPM) / 1e6) return;
	if (percent <= left + OXYGEN_CONTRADICTS_PERCENT) return;
	throw new InputError(
		'oxygenPercent',
		`What is entered leaves ${readableNumber(left, 3)} % of oxygen, and ${percent} % cannot be there beside it. Measure both again.`
	);
}

/** Rung 2: is there enough oxygen, and not too much? */
export function oxygen(facts: HazardFacts, contaminants: readonly Contaminant[] = []): Finding {
	const { oxygenPercent: percent, altitudeFt } = facts;
	const reason = (rule: string, text: string, limit: number, value: number): Reason => ({
		rule,
		text,
		origin: oxygenOrigin(facts),
		inputs: [{ name: 'oxygen', value, unit: '%' }, ...partialPressures(value, altitudeFt)],
		limit,
		value,
		unit: '%',
		margin: Number((value - limit).toFixed(4))
	});
	if (percent === null || percent === undefined) return unmeasured(facts, contaminants);
	if (!(percent >= 0 && percent <= 100))
		throw new InputError(
			'oxygenPercent',
			percent > 100 && percent / 10 <= 30
				? `Oxygen of ${percent} % cannot be. Did you mean ${percent / 10} %?`
				: 'Oxygen lies between 0 and 100 % by volume.'
		);
	refuseContradiction(percent, contaminants);
	if (percent > OXYGEN_FIRE_PERCENT) {
		const text = `Oxygen of ${percent} % lies above ${OXYGEN_FIRE_PERCENT} %: things burn that should not. Stop, ventilate, find the source.`;
		return {
			outcome: 'stop',
			text,
			reasons: [
				{
					...reason('hazard.oxygen-fire', text, OXYGEN_FIRE_PERCENT, percent),
					origin: published('29 CFR 1910.146(b)'),
					margin: Number((OXYGEN_FIRE_PERCENT - percent).toFixed(4))
				}
			]
		};
	}
	if (percent >= OXYGEN_LINE_PERCENT)
		return {
			text: `${percent} %, line at ${OXYGEN_LINE_PERCENT}`,
			reasons: [
				reason(
					'hazard.oxygen',
					`Oxygen of ${percent} % lies at or above the line.`,
					OXYGEN_LINE_PERCENT,
					percent
				)
			]
		};
	const row = ALTITUDE_TABLE.find((entry) => altitudeFt < entry.belowFt);
	const exception =
		facts.ruleSet === 'us' && facts.oxygenStaysInRange && row && percent >= row.fromPercent;
	if (exception) {
		const text = `Oxygen of ${percent} % lies within the altitude exception (${row.fromPercent} to 19.5 % at ${altitudeFt} ft): any airline, no filter.`;
		return {
			outcome: 'supplied air',
			text,
			reasons: [
				{
					...reason('hazard.oxygen-altitude', text, row.fromPercent, percent),
					origin: published('29 CFR 1910.134 table II')
				}
			]
		};
	}
	const text = `Oxygen of ${percent} % lies below ${OXYGEN_LINE_PERCENT} %: treated as immediately dangerous. A filter adds no oxygen.`;
	return self(text, [reason('hazard.oxygen', text, OXYGEN_LINE_PERCENT, percent)]);
}

/** Oxygen as the body meets it: what altitude changes and the percentage does not show. */
function partialPressures(percent: number, altitudeFt: number) {
	const { ambient, moist } = oxygenPressureMmHg(percent, altitudeFt);
	return [
		{ name: 'oxygen pressure in the air', value: Math.round(ambient), unit: 'mmHg' },
		{ name: 'oxygen pressure in the windpipe', value: Math.round(moist), unit: 'mmHg' }
	];
}

/** Up to here somebody may be fetched, with their own air and ignition under control, % LEL. Common practice. */
const RESCUE_LEL_PERCENT = 25;

/** How near the air is to burning: what the meter read, or the sum over what is in it, % LEL. */
function flammable(
	contaminants: readonly Contaminant[],
	facts: Pick<HazardFacts, 'lelReadingPercent' | 'emergency'>
): Finding | undefined {
	const burning = contaminants.filter((c) => (c.lelRatio ?? 0) > 0);
	const sum = burning.reduce((all, c) => all + (c.lelRatio ?? 0) * 100, 0);
	const meter = facts.lelReadingPercent ?? 0;
	const value = Math.max(sum, meter);
	if (value < LEL_FRACTION * 100) return undefined;
	const read = readableNumber(value, 3);
	const what =
		meter >= sum
			? `The meter read ${read} % of the lower explosive limit`
			: burning.length > 1
				? `${names(burning)} are together at ${read} % of the lower explosive limit`
				: `${names(burning)} is at ${read} % of its lower explosive limit`;
	const rescue = facts.emergency === 'entry' && value < RESCUE_LEL_PERCENT;
	const text = rescue
		? `${what}: control ignition first; then with own air, to fetch somebody and for nothing else.`
		: `${what}: from ${facts.emergency === 'entry' ? RESCUE_LEL_PERCENT : 10} % on, nobody goes in. Ventilate, find the source.`;
	return {
		outcome: rescue ? 'self-contained' : 'stop',
		text,
		reasons: [
			{
				rule: meter >= sum ? 'hazard.lel-reading' : 'hazard.lel',
				text,
				origin: published('29 CFR 1910.146(b)'),
				inputs: burning.map((c) => ({
					name: c.name,
					value: Number(((c.lelRatio ?? 0) * 100).toPrecision(4)),
					unit: '% LEL'
				})),
				limit: 10,
				value,
				unit: '% LEL',
				margin: 10 - value
			}
		]
	};
}

/** Rung 3: do the contaminants reach immediate danger, each or together, or a tenth of their explosive limit? */
export function immediateDanger(
	contaminants: readonly Contaminant[],
	facts: Partial<Pick<HazardFacts, 'lelReadingPercent' | 'emergency'>> = {}
): Finding {
	const burns = flammable(contaminants, { emergency: 'none', ...facts });
	if (burns?.outcome === 'stop') return burns;
	const reasons: Reason[] = [...(burns?.reasons ?? [])];
	const counted = contaminants.filter((c) => c.idlhRatio !== undefined);
	for (const c of counted)
		if (c.idlh && (c.idlhRatio ?? 0) >= 1)
			reasons.push({
				rule: 'hazard.idlh',
				text:
					c.idlhRatio === 1
						? `${c.name} is at the level immediately dangerous to life (${c.idlh.value} ${written(c.idlh.unit)}).`
						: `${c.name} is at ${percentOf(c.idlhRatio ?? 0)} of the level immediately dangerous to life (${c.idlh.value} ${written(c.idlh.unit)}).`,
				origin: dangerOrigin,
				limit: c.idlh.value,
				value: (c.idlhRatio ?? 0) * c.idlh.value,
				unit: written(c.idlh.unit),
				margin: c.idlh.value * (1 - (c.idlhRatio ?? 0))
			});
	const together = counted.reduce((sum, c) => sum + (c.idlhRatio ?? 0), 0);
	if (together >= 1 && counted.length > 1 && !counted.some((c) => (c.idlhRatio ?? 0) >= 1))
		reasons.push({
			rule: 'hazard.idlh-sum',
			text: `${names(counted)} together reach ${percentOf(together)} of the level immediately dangerous to life: their effects may add up.`,
			origin: commonPractice('like effects add up; when unsure, all do'),
			inputs: counted.map((c) => ({
				name: `${c.name} over its immediate-danger level`,
				value: Number((c.idlhRatio ?? 0).toPrecision(4)),
				unit: '×'
			})),
			limit: 1,
			value: together,
			unit: '×',
			margin: 1 - together
		});
	if (reasons.length) return self(reasons[0]?.text ?? '', reasons);
	const nearest = contaminants
		.filter((c) => c.idlhRatio !== undefined)
		.sort((a, b) => (b.idlhRatio ?? 0) - (a.idlhRatio ?? 0))[0];
	const unlisted = contaminants.filter((c) => c.idlhRatio === undefined);
	return {
		text: nearest
			? `nearest: ${nearest.name}, ${percentOf(nearest.idlhRatio ?? 0)} of it`
			: 'no immediate-danger value is listed for these',
		notes: unlisted.length > 0,
		reasons: unlisted.length
			? [
					{
						rule: 'hazard.idlh-unlisted',
						text: `No immediate-danger value is listed for ${names(unlisted)}.`,
						origin: dangerOrigin
					}
				]
			: []
	};
}

/** Rung 4: is it a fire, or an entry for rescue? */
export function fire(facts: HazardFacts): Finding {
	if (!facts.fire && facts.emergency !== 'entry') return { text: 'neither', reasons: [] };
	const text = facts.fire
		? 'Fire: breathing apparatus only.'
		: 'Entry for rescue: the air is treated as immediately dangerous.';
	return {
		outcome: 'self-contained',
		text,
		reasons: [
			{
				rule: facts.fire ? 'hazard.fire' : 'hazard.rescue',
				text,
				origin: published('29 CFR 1910.134(d)(2) and (g)(4)')
			}
		]
	};
}

/** Rung 5: is it worn only to leave? `filterable` says whether no earlier rung calls for own air. */
export function escape(facts: HazardFacts, filterable: boolean): Finding {
	if (facts.emergency !== 'escape') return { text: 'entered to work', reasons: [] };
	const text = filterable
		? 'For leaving only: an escape set suited to these contaminants and to the way out.'
		: 'For leaving only: an escape set with its own air.';
	return {
		outcome: 'escape set',
		text,
		reasons: [{ rule: 'hazard.escape', text, origin: published('29 CFR 1910.134(d)(2)(ii)') }]
	};
}

/** Rung 6: does the vapour itself harm the skin, or enter through it? */
export function skin(contaminants: readonly Contaminant[]): Finding & {
	suit: 'none' | 'skin protection' | 'gas-tight';
} {
	const harming = contaminants.filter(
		(c) =>
			c.substance?.skinHarmPpm !== undefined &&
			(c.peakPpm === undefined || c.peakPpm >= c.substance.skinHarmPpm)
	);
	const entering = contaminants.filter((c) => c.substance?.skin);
	if (harming.length) {
		const text = `${names(harming)} harms the skin at this level: a gas-tight suit with the air supply of its kind.`;
		return {
			suit: 'gas-tight',
			outcome: 'supplied air',
			text,
			reasons: [{ rule: 'hazard.skin', text, origin: commonPractice() }]
		};
	}
	if (entering.length) {
		const text = `${names(entering)} can enter through the skin: gloves and clothing to suit.`;
		return {
			suit: 'skin protection',
			text,
			notes: true,
			reasons: [
				{
					rule: 'hazard.skin-notation',
					text,
					origin: published('skin notations of the limit lists')
				}
			]
		};
	}
	return { suit: 'none', text: 'no skin notation', reasons: [] };
}

/** Rung 7: does a regulation fix the equipment for one of them? */
export function substanceRule(contaminants: readonly Contaminant[], facts: HazardFacts): Finding {
	const reasons: Reason[] = [];
	let outcome: HazardOutcome | undefined;
	for (const c of contaminants)
		for (const rule of rulesFor(c.substance?.key, facts.ruleSet)) {
			const most = rule.filterUpToPpm;
			const value = c.peakPpm ?? Infinity;
			if (rule.suppliedAirOnly || (most !== undefined && value > most)) outcome = 'supplied air';
			reasons.push({
				rule: `substance.${rule.substance}`,
				text: rule.text,
				origin: rule.origin,
				...(most !== undefined && Number.isFinite(value)
					? { limit: most, value, unit: 'ppm', margin: most - value }
					: {})
			});
		}
	return {
		...(outcome ? { outcome } : {}),
		text: reasons[0]?.text ?? 'no own rule for these',
		notes: reasons.length > 0,
		reasons
	};
}

/** Rung 8: does a filter exist that can be relied on for each, and for all of them together? */
export function filterExists(contaminants: readonly Contaminant[], facts: HazardFacts): Finding {
	const reasons: Reason[] = [];
	const trap = (rule: string, text: string) =>
		reasons.push({ rule, text, origin: commonPractice('known traps of air-purifying filters') });
	for (const c of contaminants) {
		// A trace of what only takes the place of air harms by nothing else; below a limit of its own it does no harm.
		if (traceOnly(c)) continue;
		if (c.substance?.noFilter) trap('filter.trap', `${c.substance.noFilter}.`);
		else if (c.gas && !gasTypeKnown(c, facts.ruleSet))
			trap(
				'filter.no-type',
				`${c.name}: no filter type of the ${facts.ruleSet === 'us' ? '42 CFR 84' : 'EN 14387'} scheme is known for it. Supplied air, or a canister that is approved for it by name.`
			);
		else if (c.gas && c.warning !== 'adequate' && !scheduleExists(c))
			trap(
				'filter.no-warning',
				`${c.name} gives no reliable warning and no change schedule can be defended for it.`
			);
		const limit = saturationPpm(c.substance ?? {}, facts.temperatureC);
		if (!c.particle && limit !== undefined && (c.peakPpm ?? 0) > limit)
			throw new InputError(
				`contaminants[${contaminants.indexOf(c)}].concentration`,
				`${c.name}: ${Math.round(c.peakPpm ?? 0)} ppm lies above saturation. At ${facts.temperatureC} °C its vapour reaches ${Math.round(limit)} ppm at most.`
			);
	}
	const organic = contaminants.filter((c) => c.organic && c.gas);
	const low = organic.filter((c) => (c.boilingPointC ?? Infinity) <= LOW_BOILER_C);
	if (low.length && organic.length > 1)
		reasons.push({
			rule: 'filter.low-boiler-mixture',
			text: `${names(low)} boils at or below 65 °C and would be pushed out of the carbon by ${names(organic.filter((c) => c !== low[0]))}: no filter for that mixture.`,
			origin: published('EN 14387, type AX'),
			limit: LOW_BOILER_C,
			value: low[0]?.boilingPointC ?? NaN,
			unit: '°C'
		});
	return reasons.length
		? { outcome: 'supplied air', text: reasons[0]?.text ?? '', reasons }
		: {
				text: contaminants.every((c) => c.warning === 'adequate')
					? 'all of them have warning signs'
					: 'a change schedule stands in for poor warning',
				reasons: []
			};
}

/** A gas that harms only by taking the place of air, and of which there is too little for that. */
export const traceOnly = (c: Contaminant): boolean =>
	SIMPLE_ASPHYXIANTS.has(c.substance?.key ?? '') &&
	(c.peakPpm ?? Infinity) < TRACE_PPM &&
	(c.ratio ?? 0) <= 1;

/** A filter needs a type of the scheme in force; that of the other scheme opens no cartridge. */
const gasTypeKnown = (c: Contaminant, ruleSet: HazardFacts['ruleSet']): boolean =>
	(ruleSet === 'us' ? usTypeOf(c) : enTypeOf(c)) !== undefined;

function scheduleExists(c: Contaminant): boolean {
	if (!c.substance) return false;
	return canEstimate(c.substance) || (c.substance.en !== undefined && c.substance.en !== 'A');
}

const percentOf = (ratio: number) => `${readableNumber(ratio * 100, 3)} %`;
