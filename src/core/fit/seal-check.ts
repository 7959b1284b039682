import {
	BLOCKING,
	SEAL_CHECK_ORIGIN,
	SEAL_WAYS,
	type Inlet,
	type SealWay
} from '../data/blocking.ts';
import { recordOf } from '../data/family-records.ts';
import type { SealSchool } from '../site/choices.ts';
import { InputError, type Verdict } from '../verdict.ts';

/** What the wearer felt, with the inlet blocked and a gentle breath in, or the outlet covered and one out. */
export const FELT = {
	'pulled in and held': 'It pulled in and held',
	'lifted and held': 'It lifted a little and held',
	'air at the filter': 'Air came through the filter',
	'air at the edge': 'Air came in at the edge',
	'not pulled in': 'It did not pull in, and no leak was felt',
	'not lifted': 'It did not lift, and no leak was felt'
} as const;
export type Felt = keyof typeof FELT;

export interface SealAttempt {
	inlet: Inlet;
	felt: Felt;
	/** Left out: breathing in. */
	way?: SealWay | undefined;
}

/** What can be felt each way. */
export const FELT_BY_WAY: Record<SealWay, readonly Felt[]> = {
	in: ['pulled in and held', 'air at the filter', 'air at the edge', 'not pulled in'],
	out: ['lifted and held', 'air at the edge', 'not lifted']
};
export type SealOutcome = 'seals' | 'try again' | 'inspect' | 'no entry';

/** What is felt where it holds. */
const HELD: readonly Felt[] = ['pulled in and held', 'lifted and held'];

/** Leaks at the face after which it is another mask's turn. Common practice. */
const MOST_FAILURES = 2;

/**
 * What the attempts of a seal check so far come to, and what to do next. A filter that was not blocked says nothing
 * of the face: it counts as an attempt, never as a leak.
 * @param asked ways that have to hold, each once after the last leak; the first is tried first
 * @throws InputError on an inlet that the family cannot have
 */
export function judgeSealCheck(
	family: string,
	attempts: readonly SealAttempt[],
	asked: readonly SealWay[] = ['in']
): Verdict<SealOutcome> & { leaks: number; next: SealWay } {
	const { inlets } = recordOf(family);
	for (const [i, attempt] of attempts.entries()) {
		if (!inlets.includes(attempt.inlet))
			throw new InputError(`attempts.${i}.inlet`, 'This equipment has no such inlet.');
		if (!FELT_BY_WAY[attempt.way ?? 'in'].includes(attempt.felt))
			throw new InputError(`attempts.${i}.felt`, 'That is not felt this way.');
	}
	const last = attempts.at(-1);
	const leaks = attempts.filter((a) => a.felt === 'air at the edge').length;
	const open = waysOpen(attempts, asked);
	const say = (outcome: SealOutcome, rule: string, text: string) => ({
		outcome,
		leaks,
		/** The way that is tried next. */
		next: open[0] ?? last?.way ?? 'in',
		reasons: [{ rule: `seal.${rule}`, text, origin: SEAL_CHECK_ORIGIN }]
	});
	if (!last) return say('try again', 'start', BLOCKING[inlets[0] ?? 'port'].how);
	const [other] = open;
	if (other && HELD.includes(last.felt))
		return say(
			'try again',
			'other-way',
			`It held one way. This site asks for both: now ${SEAL_WAYS[other].name.toLowerCase()}.`
		);
	if (last.felt === 'pulled in and held')
		return say(
			'seals',
			'held',
			'It pulled in and held. This says nothing of its filters, and it is no fit test.'
		);
	if (last.felt === 'lifted and held')
		return say(
			'seals',
			'held-out',
			'It lifted and held. This says nothing of its filters, and it is no fit test.'
		);
	if (last.felt === 'not lifted')
		return say(
			'inspect',
			'cover',
			'No leak at the face, yet no over-pressure: the outlet was not covered, or air goes out elsewhere. Cover it lightly and try once more, then inspect the mask.'
		);
	if (last.felt === 'not pulled in')
		return say(
			'inspect',
			'valve',
			'No leak at the face, yet no under-pressure: a valve or the lens lets air in. Inspect the mask.'
		);
	if (last.felt === 'air at the filter')
		return say(
			'try again',
			'not-blocked',
			`The inlet was not blocked fully. ${BLOCKING[last.inlet].how} ${BLOCKING[last.inlet].wrong}`
		);
	if (leaks >= MOST_FAILURES)
		return say(
			'no entry',
			'two-leaks',
			'Two leaks at the face: stop, no entry with it. Another size or model, or a hood.'
		);
	return say(
		'try again',
		'edge',
		'Set it anew on the face and tighten in pairs, evenly; never one side more than the other.'
	);
}

/** Ways of those asked that did not hold since the last leak; whatever is asked, one has to. */
function waysOpen(attempts: readonly SealAttempt[], asked: readonly SealWay[]): SealWay[] {
	const from = attempts.findLastIndex((a) => !HELD.includes(a.felt)) + 1;
	const held = attempts.slice(from).map((a) => a.way ?? 'in');
	return asked.length > 1 ? asked.filter((way) => !held.includes(way)) : [];
}

/** The ways that a site asks for of those that a model allows. */
export const waysAsked = (allowed: readonly SealWay[], school: SealSchool): SealWay[] =>
	school === 'both' ? [...allowed] : allowed.slice(0, 1);
