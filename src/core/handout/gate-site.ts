import { commonPractice, published, site } from '../verdict.ts';
import type { GateVerdict } from './gate.ts';
import { type GateReason, stop } from './gate-reason.ts';

/** What the counter knows beside item, wearer and task. */
export interface CounterFacts {
	/** The wearer needs glasses, and it covers the eyes. */
	wantsInsert: boolean;
	/** Content of what brings its air, of full; null: it brings none. */
	airShare: number | null;
	/** Parts on it that its model does not name as approved with it. */
	unapproved: readonly string[];
	/** What its place has ready of its family after this, and what it keeps; null: no floor is set. */
	floor: { left: number; keeps: number; place: string } | null;
	/** Days since the wearer reported discomfort with the same model and size; null: never. */
	discomfortDays: number | null;
	/** Number of whoever owns it, where that is somebody else; null: nobody does. */
	ownedBy: string | null;
	/** The plan asks for what is tight against skin or vapour as well. */
	suit: 'none' | 'skin protection' | 'gas-tight';
	/** Bare eyes are harmed: goggles go with it. */
	needsGoggles: boolean;
}

/** Least content of a set that is handed out. Published: 29 CFR 1910.134(h)(3)(iii) for emergency sets; taken for all. From memory. */
export const LEAST_AIR_SHARE = 0.9;
/** For how long a report of discomfort is asked about. Site default. */
const DISCOMFORT_DAYS = 365;

const condition = (
	rule: string,
	text: string,
	fix: string,
	origin = commonPractice()
): GateReason => ({
	rule: `gate.${rule}`,
	text,
	fix,
	origin,
	weight: 'condition'
});

/** Everything that the counter adds to what the gate asks. */
export function ofCounter(facts: CounterFacts): GateReason[] {
	const reasons: GateReason[] = [];
	if (facts.airShare !== null && facts.airShare < LEAST_AIR_SHARE)
		reasons.push(
			stop(
				'air.not-full',
				`${Math.floor(facts.airShare * 100)} % of full; ${LEAST_AIR_SHARE * 100} % at least.`,
				'Take a full one, or have this one filled.',
				published('29 CFR 1910.134(h)(3)(iii)'),
				{
					limit: LEAST_AIR_SHARE,
					value: facts.airShare,
					unit: 'of full',
					margin: facts.airShare - LEAST_AIR_SHARE
				}
			)
		);
	if (facts.ownedBy !== null)
		reasons.push(
			stop(
				'not-theirs',
				`It is the own item of wearer ${facts.ownedBy}.`,
				'Take another; or end the personal issue on its owner’s page, and wash it first.',
				published('29 CFR 1910.134(h)(1), washed before another wears it')
			)
		);
	for (const name of facts.unapproved)
		reasons.push(
			stop(
				'unapproved',
				`${name} is not approved with it.`,
				'Put on what its model names, under Parts.',
				site('approved combinations of the model')
			)
		);
	if (facts.wantsInsert)
		reasons.push(
			condition('insert', 'The wearer needs glasses.', 'Their spectacle insert is fitted first.')
		);
	if (facts.needsGoggles)
		reasons.push(condition('goggles', 'It leaves the eyes bare.', 'Gas-tight goggles go with it.'));
	if (facts.suit !== 'none')
		reasons.push(
			condition(
				'suit',
				`The plan asks for ${facts.suit === 'gas-tight' ? 'a gas-tight suit' : 'skin protection'} as well.`,
				'Hand it out together with this.',
				site('hazard plan')
			)
		);
	if (facts.discomfortDays !== null && facts.discomfortDays <= DISCOMFORT_DAYS)
		reasons.push(
			condition(
				'discomfort',
				'It hurt or slipped when they wore this model and size last.',
				'Ask them; another size or model where they would rather.'
			)
		);
	if (facts.floor && facts.floor.left < facts.floor.keeps)
		reasons.push(
			condition(
				'floor',
				`${facts.floor.place} keeps ${facts.floor.keeps} ready and has ${facts.floor.left} after this.`,
				'Say so to whoever answers for the place, or take it from elsewhere.',
				site('floor of the place')
			)
		);
	return reasons;
}

/** A verdict with more reasons: never better for it. */
export function withReasons(verdict: GateVerdict, more: readonly GateReason[]): GateVerdict {
	if (more.length === 0) return verdict;
	const against = verdict.outcome === 'hand out' ? [] : verdict.reasons;
	const reasons = [...against, ...more];
	return {
		outcome: reasons.some(({ weight }) => weight === 'stop') ? 'do not' : 'with conditions',
		reasons
	};
}
