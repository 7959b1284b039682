import { recipeOf, type Recipe } from '../bench/recipes.ts';
import { judgeTrace, type TraceSample } from '../bench/trace.ts';
import { mostLossPa, thermalPaPerK } from '../bench/pressure-test.ts';
import { mark, type Mark, path, words } from '../drawings/mark.ts';
import type { Chance } from '../stats/chance.ts';

/** What a trace says, as it is chosen from. */
export const TRACE_ANSWERS = {
	pass: 'It passes',
	fail: 'It fails: it leaks',
	temperature: 'Test again: the temperature decides, not the item',
	settling: 'Test again: it had not settled',
	touched: 'Test again: something touched it, or a valve let go'
} as const;
export type TraceAnswer = keyof typeof TRACE_ANSWERS;

export interface DrilledTrace {
	recipe: Recipe;
	samples: TraceSample[];
	answer: TraceAnswer;
	/** What the judgement says of it. */
	why: string;
}

const RULES: Readonly<Record<string, TraceAnswer>> = {
	'trace.step': 'touched',
	'trace.settling': 'settling',
	'pressure.correction-decides': 'temperature',
	'pressure.wrong-way': 'temperature'
};
const RECIPES_DRILLED = ['suit-en', 'suit-us', 'mask-full-face'] as const;
const READINGS = 120;
const TRIES = 60;

/** Readings of a hold with a leak, cooling, settling and a knock, Pa and °C by second. */
function readings(recipe: Recipe, cause: TraceAnswer, chance: Chance): TraceSample[] {
	const { setPa, holdSeconds } = recipe;
	const most = mostLossPa(recipe, setPa);
	const sign = Math.sign(setPa);
	const share = cause === 'fail' ? chance.between(1.3, 2.2) : chance.between(0.05, 0.5);
	const kelvin =
		cause === 'temperature'
			? (-sign * most * chance.between(0.9, 1.4)) / thermalPaPerK(setPa)
			: ((chance.next() - 0.5) * 0.2 * most) / thermalPaPerK(setPa);
	const settling = cause === 'settling' ? most * chance.between(1.4, 2.4) : 0;
	const knockAt = cause === 'touched' ? chance.between(0.25, 0.75) * holdSeconds : Infinity;
	const knock = Math.abs(setPa) * chance.between(0.1, 0.16);
	return Array.from({ length: READINGS + 1 }, (_, i): TraceSample => {
		const s = (i * holdSeconds) / READINGS;
		const far = s / holdSeconds;
		const lost =
			most * share * far +
			settling * (1 - Math.exp(-s / (holdSeconds * 0.35))) +
			(s >= knockAt ? knock : 0);
		const noise = (chance.next() - 0.5) * recipe.noisePa * 0.4;
		return {
			s,
			pa: setPa - sign * lost + thermalPaPerK(setPa) * kelvin * far + noise,
			temperatureC: 20 + kelvin * far
		};
	});
}

/** A trace whose meaning the bench's own judgement gives; the cause is drawn, the answer is worked out. */
export function drilledTrace(chance: Chance): DrilledTrace {
	for (let i = 0; i < TRIES; i++) {
		const recipe = recipeOf(chance.pick(RECIPES_DRILLED));
		const samples = readings(
			recipe,
			chance.pick(Object.keys(TRACE_ANSWERS) as TraceAnswer[]),
			chance
		);
		const { outcome, reasons } = judgeTrace(recipe, samples);
		const known = (rule: string) => reasons.find((reason) => reason.rule === rule);
		// A jump also scatters: what caused it is the answer.
		const told = Object.keys(RULES).map(known).find(Boolean) ?? reasons[0];
		if (!told) continue;
		const answer = outcome === 'pass' || outcome === 'fail' ? outcome : RULES[told.rule];
		if (answer) return { recipe, samples, answer, why: told.text };
	}
	throw new RangeError('No trace came of this chance.');
}

const [LEFT, RIGHT] = [44, 232];

/** A curve over the hold between two heights of the paper. */
function curve(
	points: readonly { s: number; y: number }[],
	hold: number,
	top: number,
	foot: number,
	low: number,
	high: number
): string {
	const at = (y: number) => foot - ((y - low) / (high - low)) * (foot - top);
	return path(
		...points.map(({ s, y }): [number, number] => [LEFT + (s / hold) * (RIGHT - LEFT), at(y)])
	);
}

/** Pressure over the hold with the least that may be left, and the temperature below it. */
export function traceMarks({ recipe, samples }: Pick<DrilledTrace, 'recipe' | 'samples'>): Mark[] {
	const { setPa, holdSeconds } = recipe;
	const most = mostLossPa(recipe, setPa);
	const limit = Math.abs(setPa) - most;
	const pressures = samples.map(({ s, pa }) => ({ s, y: Math.abs(pa) }));
	const all = [...pressures.map(({ y }) => y), Math.abs(setPa), limit];
	const [low, high] = [Math.min(...all) - most * 0.2, Math.max(...all) + most * 0.2];
	const temperatures = samples.map(({ s, temperatureC = 20 }) => ({ s, y: temperatureC }));
	const end = temperatures.at(-1)?.y ?? 20;
	const at = (y: number) => 100 - ((y - low) / (high - low)) * 92;
	return [
		mark('thin', path([LEFT, 6], [LEFT, 152])),
		mark('thin', path([LEFT, 102], [RIGHT, 102])),
		mark('dash', path([LEFT, at(limit)], [RIGHT, at(limit)])),
		mark('line', curve(pressures, holdSeconds, 8, 100, low, high)),
		words(`${Math.round(Math.abs(setPa))} Pa`, 21, at(Math.abs(setPa)) + 4, 9),
		words(`${Math.round(limit)} Pa`, 21, at(limit) + 4, 9),
		mark(
			'line',
			curve(temperatures, holdSeconds, 110, 146, Math.min(20, end) - 0.5, Math.max(20, end) + 0.5)
		),
		words(`${end >= 20 ? '+' : '−'}${Math.abs(end - 20).toFixed(1)} °C`, 21, 131, 9),
		words(`${holdSeconds / 60} min`, 218, 157, 9)
	];
}
