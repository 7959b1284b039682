import { textTable } from '../data/text-table.ts';
import type { RuleSet } from '../data/substance.ts';
import { InputError, type Origin, published } from '../verdict.ts';
import { type FitMask, judgeFit, overallFactor } from './fit-factor.ts';

/** One movement of a fit test. */
export interface FitExercise {
	key: string;
	name: string;
	/** What the wearer is told, in one breath. */
	says: string;
	seconds: number;
	/** Whether its factor counts for the overall one. */
	counted: boolean;
}

/** A quantitative protocol as data. */
export interface FitProtocol {
	key: string;
	name: string;
	ruleSet: RuleSet;
	/** Kinds of masks that it may be used for. */
	masks: readonly FitMask[];
	/** How much of the time the counter samples the room before and after the masks: a fast one samples it twice in all. */
	ambient: 'each exercise' | 'first and last';
	exercises: readonly FitExercise[];
	origin: Origin;
}

/** What the wearer does, by the name that the published tables use. */
const MOVES = textTable(`
key | name | says
normal | Normal breathing | Stand, breathe as you always do, do not talk.
deep | Deep breathing | Breathe slowly and deeply. Not too fast.
side | Head side to side | Turn the head slowly from one side to the other. Breathe in at each end.
updown | Head up and down | Move the head slowly up and down. Breathe in as you look up.
talk | Talking | Read the text aloud, slowly, loud enough to be heard.
grimace | Grimace | Smile, then frown.
bend | Bending over | Bend at the waist as if to touch your toes, and come up again.
jog | Jogging in place | Jog on the spot.
`);

const exercises = (table: string): FitExercise[] =>
	table
		.trim()
		.split(/\s+/)
		.map((part) => {
			const [key = '', seconds = '0', uncounted] = part.split(':');
			const move = MOVES.find((one) => one.key === key.replace(/\d$/, ''));
			return {
				key,
				name: move?.name ?? key,
				says: move?.says ?? '',
				seconds: Number(seconds),
				counted: uncounted !== 'no'
			};
		});

/** Protocols that are shipped: exercises and seconds published, from memory. */
export const FIT_PROTOCOLS: readonly FitProtocol[] = [
	{
		key: 'us-full',
		name: 'US, eight exercises',
		ruleSet: 'us',
		masks: ['half', 'full'],
		ambient: 'each exercise',
		exercises: exercises(
			'normal:60 deep:60 side:60 updown:60 talk:60 grimace:15:no bend:60 normal2:60'
		),
		origin: published('29 CFR 1910.134 appendix A, part I A 14')
	},
	{
		key: 'us-fast',
		name: 'US, fast, elastomeric masks',
		ruleSet: 'us',
		masks: ['half', 'full'],
		ambient: 'first and last',
		exercises: exercises('bend:50 jog:30 side:30 updown:39'),
		origin: published('29 CFR 1910.134 appendix A, table A-1 (2019)')
	},
	{
		key: 'us-fast-filtering',
		name: 'US, fast, filtering facepieces',
		ruleSet: 'us',
		masks: ['half'],
		ambient: 'first and last',
		exercises: exercises('bend:50 talk:30 side:30 updown:39'),
		origin: published('29 CFR 1910.134 appendix A, table A-2 (2019)')
	},
	{
		key: 'uk-seven',
		name: 'UK, seven exercises',
		ruleSet: 'uk',
		masks: ['half', 'full'],
		ambient: 'each exercise',
		exercises: exercises('normal:60 deep:60 side:60 updown:60 talk:60 bend:60 normal2:60'),
		origin: published('HSE INDG479')
	}
];

/** @throws RangeError where there is none of that name */
export function fitProtocol(key: string): FitProtocol {
	const found = FIT_PROTOCOLS.find((one) => one.key === key);
	if (!found) throw new RangeError(`There is no protocol “${key}”.`);
	return found;
}

/** How long a protocol takes, s. */
export const protocolSeconds = ({ exercises: all }: FitProtocol): number =>
	all.reduce((sum, { seconds }) => sum + seconds, 0);

/** How a test stands: what was measured, what is left, the factor so far. */
export interface FitStanding {
	/** Keys of exercises that count and were not measured. */
	left: string[];
	/** Overall factor of what was measured; null before the first. */
	overall: number | null;
	/** The movement that let most in; null before the first. */
	worst: { key: string; factor: number } | null;
}

/** How a test stands after some of its exercises. @throws InputError at an exercise that the protocol has not */
export function standingOf(
	protocol: FitProtocol,
	factors: Readonly<Record<string, number>>
): FitStanding {
	const stray = Object.keys(factors).find(
		(key) => !protocol.exercises.some((one) => one.key === key)
	);
	if (stray) throw new InputError('factors', `${protocol.name} has no exercise “${stray}”.`);
	const counted = protocol.exercises.filter((one) => one.counted);
	const measured = counted.flatMap(({ key }) => {
		const factor = factors[key];
		return factor === undefined ? [] : [{ key, factor }];
	});
	const worst = measured.reduce<FitStanding['worst']>(
		(low, one) => (low && low.factor <= one.factor ? low : one),
		null
	);
	return {
		left: counted.flatMap(({ key }) => (factors[key] === undefined ? [key] : [])),
		overall: measured.length ? overallFactor(measured.map(({ factor }) => factor)) : null,
		worst
	};
}

/**
 * Judges a whole test by its protocol.
 * @throws InputError at mask where the protocol is not for it, at factors where an exercise that counts is missing
 */
export function judgeProtocol(
	protocol: FitProtocol,
	factors: Readonly<Record<string, number>>,
	mask: FitMask
) {
	if (!protocol.masks.includes(mask))
		throw new InputError('mask', `${protocol.name} is not for such a mask.`);
	const { left, worst } = standingOf(protocol, factors);
	if (left.length) {
		const names = protocol.exercises.filter(({ key }) => left.includes(key));
		throw new InputError(
			'factors',
			`Not measured: ${names.map(({ name }) => name.toLowerCase()).join(', ')}. A test is judged whole.`
		);
	}
	const counted = protocol.exercises.filter((one) => one.counted);
	const verdict = judgeFit(
		counted.map(({ key }) => factors[key] ?? NaN),
		mask,
		protocol.ruleSet
	);
	return { ...verdict, worst };
}
