import { turnBack } from '../air/turn-back.ts';
import { PROCEDURES } from '../data/procedures.ts';
import type { RuleSet } from '../data/substance.ts';
import { findSubstance } from '../data/substances.ts';
import { decideWithChanges } from '../hazards/changes.ts';
import type { HazardOutcome } from '../hazards/decision.ts';
import { type ContaminantFact, DEFAULT_FACTS } from '../hazards/facts.ts';
import { Chance } from '../stats/chance.ts';
import { drilledTrace, TRACE_ANSWERS, traceMarks } from './traces.ts';
import type { Mark } from '../drawings/mark.ts';
import type { ShortTestKey } from './short-test-names.ts';
import {
	MISTAKE_QUESTIONS,
	type Pictured,
	type PlainQuestion,
	SEAL_QUESTIONS
} from './short-questions.ts';

/** A question as it is asked: one of its options is right. */
export interface Question extends Pictured {
	asks: string;
	options: string[];
	right: number;
	why: string;
	/** What is asked about, drawn for this question alone. */
	marks?: Mark[];
}

/** Questions in one test. */
const ASKED = 6;

const shuffled = <T>(list: readonly T[], chance: Chance): T[] => {
	const all = [...list];
	for (let i = all.length - 1; i > 0; i--) {
		const j = chance.int(0, i);
		const [a, b] = [all[i], all[j]];
		if (a !== undefined && b !== undefined) [all[i], all[j]] = [b, a];
	}
	return all;
};

function asked({ options: [right, ...wrong], ...rest }: PlainQuestion, chance: Chance): Question {
	const options = shuffled([right, ...wrong], chance);
	return { ...rest, options, right: options.indexOf(right) };
}

/** Air that is met at work: a substance, how much of it in ppm or mg/m³, what else. */
interface Air {
	substance: string;
	value: number;
	unit: 'ppm' | 'mg/m3';
	oxygenPercent?: number;
}

const AIRS: readonly Air[] = [
	{ substance: 'styrene', value: 180, unit: 'ppm' },
	{ substance: 'toluene', value: 220, unit: 'ppm' },
	{ substance: 'xylene', value: 150, unit: 'ppm' },
	{ substance: 'ammonia', value: 90, unit: 'ppm' },
	{ substance: 'ammonia', value: 2000, unit: 'ppm' },
	{ substance: 'chlorine', value: 2, unit: 'ppm' },
	{ substance: 'chlorine', value: 40, unit: 'ppm' },
	{ substance: 'hydrogen sulphide', value: 20, unit: 'ppm' },
	{ substance: 'hydrogen sulphide', value: 300, unit: 'ppm' },
	{ substance: 'sulphur dioxide', value: 3, unit: 'ppm' },
	{ substance: 'carbon monoxide', value: 120, unit: 'ppm' },
	{ substance: 'styrene', value: 60, unit: 'ppm', oxygenPercent: 17 },
	{ substance: 'toluene', value: 60, unit: 'ppm', oxygenPercent: 14 }
];

const judged = (air: Air, ruleSet: RuleSet) => {
	const found = findSubstance(air.substance);
	if (!found) throw new RangeError(`The library has no ${air.substance}.`);
	const fact: ContaminantFact = {
		substance: found.key,
		name: found.name,
		form: found.form,
		concentration: { value: air.value, unit: air.unit },
		limit: null
	};
	return {
		name: found.name,
		decision: decideWithChanges({
			...DEFAULT_FACTS,
			ruleSet,
			contaminants: [fact],
			oxygenPercent: air.oxygenPercent ?? 20.9
		})
	};
};

const airWords = (name: string, { value, unit, oxygenPercent = 20.9 }: Air) =>
	`${name}, ${value} ${unit === 'ppm' ? 'ppm' : 'mg/m³'}; oxygen ${oxygenPercent} %.`;

const OUTCOMES: Record<HazardOutcome, string> = {
	filter: 'A filter of the right kind',
	'supplied air': 'Air from a line',
	'self-contained': 'A set that carries its air, or a line with an escape cylinder',
	'escape set': 'An escape set, out only',
	stop: 'Nobody goes in'
};

/** What the ladder allows: the answer is worked out, never written down. */
function equipmentQuestions(chance: Chance, ruleSet: RuleSet): Question[] {
	return shuffled(AIRS, chance)
		.slice(0, ASKED)
		.map((air) => {
			const { name, decision } = judged(air, ruleSet);
			const right = OUTCOMES[decision.outcome];
			const wrong = Object.values(OUTCOMES).filter((words) => words !== right);
			return asked(
				{
					asks: `${airWords(name, air)} What is the least that may be worn?`,
					options: [right, ...shuffled(wrong, chance).slice(0, 3)],
					why:
						decision.rungs.find(({ answer }) => answer === 'decides')?.text ??
						decision.reasons.at(-1)?.text ??
						''
				},
				chance
			);
		});
}

const CODES = ['A1', 'B1', 'E1', 'K1', 'AX', 'P2', 'P3', 'A2P3'];

/** The filter that is needed: worked out as well. */
function filterQuestions(chance: Chance, ruleSet: RuleSet): Question[] {
	return shuffled(AIRS, chance)
		.flatMap((air) => {
			const { name, decision } = judged(air, ruleSet);
			const code = decision.permitted.find(({ filters }) => filters?.en)?.filters?.en;
			return decision.outcome === 'filter' && code ? [{ air, name, code }] : [];
		})
		.slice(0, ASKED)
		.map(({ air, name, code }) =>
			asked(
				{
					asks: `${airWords(name, air)} Which filter, by EN 14387 or EN 143?`,
					options: [
						code,
						...shuffled(
							CODES.filter((other) => other[0] !== code[0]),
							chance
						).slice(0, 3)
					],
					why: `${name} is held by ${code}. What the maker of the filter states comes first.`
				},
				chance
			)
		);
}

/** At which pressure a team turns back, worked out from its start. */
function turningQuestions(chance: Chance): Question[] {
	return Array.from({ length: ASKED }, () => {
		const starts = [chance.int(26, 30) * 10, chance.int(24, 30) * 10];
		const warning = chance.pick([50, 55, 60]);
		const bar = (value: number) => `${Math.round(value)} bar`;
		const right = bar(turnBack(starts, warning).turnAtBar);
		const least = Math.min(...starts);
		const wrong = [least / 2, warning, least - warning, Math.max(...starts) / 2 + warning / 2 + 15]
			.map(bar)
			.filter((words, i, all) => words !== right && all.indexOf(words) === i);
		return asked(
			{
				asks: `Two go in with ${starts[0]} and ${starts[1]} bar; the whistles sound at ${warning} bar. At which pressure does the first of them turn the team back, with as much for the way out as for the way in?`,
				options: [right, ...wrong.slice(0, 3)],
				why: 'The whistle’s part is kept out of the sum: of what lies above it, half is for the way out. The one who comes to it first turns both.'
			},
			chance
		);
	});
}

/** What a trace of the pressure bench says: judged by the rules of the bench. */
function traceQuestions(chance: Chance): Question[] {
	return Array.from({ length: ASKED }, () => {
		const drawn = drilledTrace(chance);
		const others = Object.entries(TRACE_ANSWERS).filter(([key]) => key !== drawn.answer);
		return {
			...asked(
				{
					asks: `${drawn.recipe.name}: what does this hold say? Dashed: the limit. Below: the air inside.`,
					options: [
						TRACE_ANSWERS[drawn.answer],
						...shuffled(others, chance)
							.slice(0, 3)
							.map(([, words]) => words)
					],
					why: drawn.why
				},
				chance
			),
			marks: traceMarks(drawn)
		};
	});
}

/** What comes next on the way into a gas-tight suit, by the list itself. */
function donningQuestions(chance: Chance): Question[] {
	const steps = PROCEDURES.find(({ key }) => key === 'gas-tight-suit-donning')?.steps ?? [];
	return shuffled(steps.slice(0, -1), chance)
		.slice(0, ASKED)
		.map((step) => {
			const at = steps.indexOf(step);
			const next = steps[at + 1] ?? step;
			const others = steps.filter((one) => one !== next && one !== step);
			return asked(
				{
					asks: `Done: ${step.title.toLowerCase()}. What comes next?`,
					options: [
						next.title,
						...shuffled(others, chance)
							.slice(0, 3)
							.map(({ title }) => title)
					],
					why: next.why
				},
				chance
			);
		});
}

/** The questions of a test, always the same for the same seed. */
export function questionsOf(key: ShortTestKey, seed: number, ruleSet: RuleSet): Question[] {
	const chance = new Chance(seed);
	const plain = (all: readonly PlainQuestion[]) =>
		shuffled(all, chance)
			.slice(0, ASKED)
			.map((one) => asked(one, chance));
	switch (key) {
		case 'seal-check':
			return plain(SEAL_QUESTIONS);
		case 'mistakes':
			return plain(MISTAKE_QUESTIONS);
		case 'equipment':
			return equipmentQuestions(chance, ruleSet);
		case 'filter':
			return filterQuestions(chance, ruleSet);
		case 'turn-back':
			return turningQuestions(chance);
		case 'trace':
			return traceQuestions(chance);
		case 'donning':
			return donningQuestions(chance);
	}
}
