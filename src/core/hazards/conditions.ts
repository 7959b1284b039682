import { readableNumber } from '../units/number.ts';
import type { HazardOutcome, Suit } from './decision.ts';
import type { Contaminant, HazardFacts } from './facts.ts';
import { written } from './facts.ts';
import { names } from './finding.ts';
import { traceOnly } from './traces.ts';

/** Published: EN 689:2018, 5.5.3, least number for the statistical test; from memory. */
const MANY_MEASUREMENTS = 6;
/** Published: 29 CFR 1910.134 table II, note 2; from memory. */
const ENRICHED_ABOVE_FT = 14_000;

export interface Answered {
	contaminants: readonly Contaminant[];
	/** Without those that were entered as nothing. */
	present: readonly Contaminant[];
	/** Whether a filter is among what is permitted. */
	filters: boolean;
	facts: HazardFacts;
	ratio: number | null;
	/** No assigned factor reaches the ratio. */
	beyond: boolean;
	outcome: HazardOutcome;
	suit: Suit;
}

/** What goes with an answer, whatever kind is taken: part of it on the screen, on the card, in the interface. */
export function conditionsOf(answered: Answered): string[] {
	return [
		...controls(answered),
		...nothingNeeded(answered),
		...around(answered),
		...onTheSkin(answered),
		...bySubstance(answered)
	];
}

function controls({ ratio, beyond, outcome, present }: Answered): string[] {
	const list: string[] = [];
	if (beyond)
		list.push(
			`No assigned factor of the rule set reaches ${readableNumber(ratio ?? 0, 3)}: bring the concentration down before anyone goes in.`
		);
	if (present.length && (ratio === null || ratio > 1) && outcome !== 'escape set')
		list.push(
			'Engineering controls first: enclose, extract, substitute; breathing protection is for what remains.'
		);
	return list;
}

function nothingNeeded({ contaminants, present, filters, ratio }: Answered): string[] {
	const list: string[] = [];
	const zero = contaminants.filter((c) => !present.includes(c));
	if (contaminants.length && present.length === 0)
		list.push(
			'Nothing to protect from as entered: no contaminant is there. It was measured, and can change.'
		);
	else if (zero.length)
		list.push(`${names(zero)}: nothing is there as entered. It was measured, and can change.`);
	if (present.length && present.every(traceOnly))
		list.push(
			'Nothing to protect from as entered: what is there only takes the place of air, and leaves enough. It was measured, and can change: oxygen is measured all the time.'
		);
	else if (present.length && ratio !== null && ratio <= 1)
		list.push(
			filters
				? 'At or below the limit: the limit itself calls for no protection. What follows holds if it is worn all the same, a dust mask of one’s own choice included.'
				: 'At or below the limit: the limit itself calls for no protection, and no filter would help. Whoever wants it all the same takes supplied air.'
		);
	return list;
}

function around({ facts, outcome, present }: Answered): string[] {
	const list: string[] = [];
	if (facts.confinedSpace) {
		list.push(
			'Confined space: an attendant stays outside in contact, and an escape set or a way to be pulled out is at hand; oxygen is measured before and all the time.'
		);
		if (facts.lelReadingPercent === null || facts.lelReadingPercent === undefined)
			list.push(
				'Confined space: flammable gas is measured before anyone goes in; nothing is entered.'
			);
	}
	if (facts.altitudeFt > ENRICHED_ABOVE_FT && outcome !== 'filter')
		list.push(
			'Above 14,000 ft breathing air is enriched with oxygen: by ordinary compressed air the wearer gets too little.'
		);
	if (outcome === 'self-contained')
		list.push(
			'Immediately dangerous air: a second person stands by outside, equipped to fetch the wearer, and stays in contact.'
		);
	if (outcome === 'supplied air' && present.some((c) => (c.idlhRatio ?? 0) >= 0.5))
		list.push('More than half of the immediately dangerous level: carry an escape set.');
	if (present.some((c) => c.substance?.biologicalGroup))
		list.push(
			'Air that is breathed out leaves unfiltered through a valve: near a patient or a sterile field, or where the wearer may be infectious, take a kind without one.'
		);
	return list;
}

function onTheSkin({ suit, present }: Answered): string[] {
	if (suit === 'gas-tight')
		return ['A gas-tight suit, with a full-face mask on its own air under it or beside it.'];
	const entering = present.filter((c) => c.substance?.skin && !traceOnly(c));
	return entering.length
		? [`${names(entering)}: enters through the skin; gloves and clothing to suit.`]
		: [];
}

function bySubstance({ contaminants }: Answered): string[] {
	const list: string[] = [];
	for (const c of contaminants) {
		if (c.summary && c.summary.n < MANY_MEASUREMENTS)
			list.push(
				`${c.name}: ${c.summary.n} measurements are few; EN 689 asks for ${MANY_MEASUREMENTS} before the spread is trusted.`
			);
		if (c.laxer) list.push(laxerSentence(c));
		if (c.substance?.note) list.push(`${c.name}: ${c.substance.note}`);
		if (!c.substance && c.gas)
			list.push(
				`${c.name} is not in the library: its change schedule comes from the filter's maker.`
			);
	}
	return list;
}

function laxerSentence(c: Contaminant): string {
	if (!c.laxer) return '';
	const { entered, published, reason } = c.laxer;
	const both = `${c.name}: the entered limit of ${entered.value} ${written(entered.unit)} is laxer than the published ${published.value} ${written(published.unit)}`;
	return reason ? `${both} and is kept: ${reason}` : `${both}; the published one decides.`;
}
