import {
	AIR_OXYGEN_PERCENT,
	ASPHYXIANT_ORIGIN,
	OXYGEN_CONTRADICTS_PERCENT,
	TRACE_PPM
} from '../data/asphyxiants.ts';
import { oxygenPressureMmHg } from '../units/altitude.ts';
import { readableNumber } from '../units/number.ts';
import { InputError, published, site, type Reason } from '../verdict.ts';
import { type Contaminant, gasPpm, type HazardFacts } from './facts.ts';
import { type Finding, ladderOrigin, names, self } from './finding.ts';
import { OXYGEN_LINE_PERCENT } from './oxygen-line.ts';
import { displaces } from './traces.ts';

/** Published: 29 CFR 1910.146(b), oxygen-enriched atmosphere; from memory. */
export const OXYGEN_FIRE_PERCENT = 23.5;

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
/** Oxygen that is left beside what is in the air, % by volume. */
function oxygenLeftPercent(contaminants: readonly Contaminant[]): number {
	return AIR_OXYGEN_PERCENT * Math.max(0, 1 - gasPpm(contaminants) / 1e6);
}

/** Oxygen that nobody measured: what is known of it, and whether that is enough to go by. */
function unmeasured(facts: HazardFacts, contaminants: readonly Contaminant[]): Finding {
	const left = Number(oxygenLeftPercent(contaminants).toPrecision(4));
	const displacing = contaminants.filter(displaces);
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
export function oxygenRung(facts: HazardFacts, contaminants: readonly Contaminant[]): Finding {
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
