import type { RuleSet } from '../data/substance.ts';
import { type Origin, published } from '../verdict.ts';
import type { FitMask } from './fit-factor.ts';
import { FIT_PROTOCOLS, type FitExercise } from './protocols.ts';

/** What may be tasted, smelled or coughed at in a qualitative test. */
export const AGENT_KEYS = ['sweet', 'bitter', 'banana', 'smoke'] as const;
export type AgentKey = (typeof AGENT_KEYS)[number];

/** Squeezes after which an agent may be noticed before the test; noticed at none of them it cannot be used. */
export const SCREENING_SQUEEZES = [10, 20, 30] as const;

/** An agent of a qualitative test as data. */
export interface FitAgent {
	key: AgentKey;
	name: string;
	/** What the wearer notices. */
	notices: string;
	/** What has to be on the mask for it. */
	filter: string;
	/** A taste: nothing eaten, drunk or smoked before it. */
	taste: boolean;
	/** Before the test: what is done to see that the wearer notices it at all. */
	screening: string;
	/** It is given by squeezes of a bulb into a hood; else as its own text says. */
	squeezed: boolean;
	/** How it is given during the test, where it is not squeezed. */
	gives: string;
	ruleSets: readonly RuleSet[];
	caution: string;
	origin: Origin;
}

const APP_A = (part: string): Origin => published(`29 CFR 1910.134 appendix A, part I ${part}`);

/** Agents that are shipped. Published, from memory. */
export const FIT_AGENTS: readonly FitAgent[] = [
	{
		key: 'sweet',
		name: 'Saccharin, sweet',
		notices: 'sweet',
		filter: 'particle filters',
		taste: true,
		screening:
			'In the hood without a mask, mouth a little open: ten squeezes of the thin solution.',
		squeezed: true,
		gives: '',
		ruleSets: ['us', 'uk'],
		caution: '',
		origin: APP_A('B 3')
	},
	{
		key: 'bitter',
		name: 'Denatonium benzoate, bitter',
		notices: 'bitter',
		filter: 'particle filters',
		taste: true,
		screening:
			'In the hood without a mask, mouth a little open: ten squeezes of the thin solution.',
		squeezed: true,
		gives: '',
		ruleSets: ['us', 'uk'],
		caution: '',
		origin: APP_A('B 4')
	},
	{
		key: 'banana',
		name: 'Isoamyl acetate, banana',
		notices: 'banana',
		filter: 'filters for organic vapours',
		taste: false,
		screening:
			'Two jars, one with water, one with the odour: the wearer says which is which, in a room apart from the test.',
		squeezed: false,
		gives: 'Hang the wetted paper up in the hood, and wait two minutes before the first exercise.',
		ruleSets: ['us'],
		caution: '',
		origin: APP_A('B 2')
	},
	{
		key: 'smoke',
		name: 'Irritant smoke',
		notices: 'a cough or a sting',
		filter: 'P100 filters',
		taste: false,
		screening: 'A weak waft of the smoke: the wearer says that it stings.',
		squeezed: false,
		gives:
			'Without a hood: from 30 cm away, slowly nearer and round the whole edge of the mask, eyes shut.',
		ruleSets: ['us'],
		caution:
			'It harms eyes and lungs: no hood, good extraction, as little as is needed, never into an unmasked face.',
		origin: APP_A('B 5')
	}
];

/** @throws RangeError where there is none of that name */
export function fitAgent(key: string): FitAgent {
	const found = FIT_AGENTS.find((one) => one.key === key);
	if (!found) throw new RangeError(`There is no agent “${key}”.`);
	return found;
}

/** Seconds of each exercise of a qualitative test. Published: app. A, part I A 14; from memory. */
export const QUALITATIVE_S = 60;
/** The dose is given anew so often, s. Published: app. A, part I B 3 and 4; from memory. */
export const DOSE_EVERY_S = 30;

/** Exercises of a qualitative test: those of the full protocol but for the grimace, which it leaves out. */
export const QUALITATIVE_EXERCISES: readonly FitExercise[] = (
	FIT_PROTOCOLS.find(({ key }) => key === 'us-full')?.exercises ?? []
)
	.filter(({ key }) => key !== 'grimace')
	.map((one) => ({ ...one, seconds: QUALITATIVE_S, counted: true }));

/** How often the bulb is squeezed: at first as often as before the test, then half of it every half minute. */
export const squeezesFor = (screening: number): { first: number; then: number } => ({
	first: screening,
	then: screening / 2
});

/** Agents that a qualitative test may use here: none for a full-face mask under the UK rule set. */
export const agentsFor = (ruleSet: RuleSet, mask: FitMask): readonly FitAgent[] =>
	ruleSet === 'uk' && mask === 'full'
		? []
		: FIT_AGENTS.filter(({ ruleSets }) => ruleSets.includes(ruleSet));

/** Where a qualitative test stands so many seconds after its exercises began. */
export interface QualitativeNow {
	/** Index of the exercise; its number once all are done. */
	index: number;
	exercise: FitExercise | null;
	leftS: number;
	/** Doses that were due by now, the first at the begin. */
	doses: number;
	done: boolean;
}

/** Where a qualitative test stands. @param seconds since its exercises began */
export function qualitativeNow(seconds: number): QualitativeNow {
	const all = QUALITATIVE_EXERCISES.length * QUALITATIVE_S;
	const at = Math.max(0, Math.min(all, seconds));
	const index = Math.floor(at / QUALITATIVE_S);
	const done = at >= all;
	return {
		index,
		exercise: QUALITATIVE_EXERCISES[index] ?? null,
		leftS: done ? 0 : QUALITATIVE_S - (at % QUALITATIVE_S),
		doses: Math.floor(Math.min(at, all - 1) / DOSE_EVERY_S) + 1,
		done
	};
}

/**
 * What is looked at before any fit test, and for which: a taste needs an empty mouth, a counter its adapter; by taste the
 * mask goes on only after the screening. Common practice; the wait published: app. A, part I B; from memory.
 */
export const BEFORE_TEST = [
	{ key: 'shaven', text: 'Clean-shaven within a day where the mask seals', of: 'any' },
	{ key: 'fasting', text: 'Nothing eaten, drunk, chewed or smoked for 15 minutes', of: 'taste' },
	{ key: 'clean', text: 'The mask was inspected and is clean', of: 'any' },
	{ key: 'adapter', text: 'The sampling adapter is on, with its particle filters', of: 'counter' },
	{ key: 'seal', text: 'Seal check passed, by the wearer', of: 'counter' },
	{ key: 'worn', text: 'Worn for five minutes', of: 'counter' },
	{ key: 'straps', text: 'The straps sit as they will at work', of: 'counter' }
] as const;

/** What is looked at before a test of this kind. @param agent null: with a counter */
export const beforeTest = (agent: FitAgent | null) =>
	BEFORE_TEST.filter(
		({ of }) =>
			of === 'any' || (of === 'counter' && !agent) || (of === 'taste' && (agent?.taste ?? false))
	);
