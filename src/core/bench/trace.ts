import { MAD_TO_SD, median } from '../stats/theil-sen.ts';
import { ZERO_CELSIUS_K } from '../units/concentration.ts';
import { commonPractice, computed, InputError, type Reason, type Verdict } from '../verdict.ts';
import type { TestOutcome } from './breathing-apparatus.ts';
import { fitDecay, straightLine } from './decay-fit.ts';
import { AMBIENT_PA, mostLossPa, pressureTest } from './pressure-test.ts';
import type { Recipe } from './recipes.ts';

/** One reading of a trace. */
export interface TraceSample {
	/** Seconds since the set pressure was reached. */
	s: number;
	pa: number;
	/** Of the air inside, where it is measured. */
	temperatureC?: number | undefined;
	barometerPa?: number | undefined;
}

export interface TraceVerdict extends Verdict<TestOutcome> {
	/** Steady loss, after settling is taken out; below zero where pressure rose. */
	leakPaPerMin: number;
	leakMlPerMin?: number;
	startPa: number;
	/** As corrected to the temperature and barometer of the start. */
	correctedEndPa: number;
	/** Robust spread of the readings about the fitted line. */
	noisePa: number;
}

const FEWEST_SAMPLES = 12;
const DEFAULT_UNCERTAINTY_PA = 3;
/** Seconds at either end that one reading is taken from, by a straight line through them. */
const END_SECONDS = 10;
/** A pause so many times the usual one is a gap. */
const GAP_STEPS = 6;
/** A sensor that moves otherwise stands still for so long, over so many readings, only when it is stuck or clipped. */
const FROZEN_S = 6;
const FROZEN_READINGS = 10;
/** A jump that no leak makes: this share of the set pressure, and this many times the noise. */
const STEP_SHARE = 0.035;
const STEP_NOISE = 7;
/** Settling that is left at the middle of the hold, as a share of the limit. */
const SETTLING_SHARE = 0.35;
const ORIGIN = commonPractice('how a careful technician looks at a trace');

/**
 * Judges a whole trace of a pressure test.
 *
 * The end-point rule of the recipe decides; before it, anything that would make the end points lie is looked for:
 * sign, range, gaps, a frozen sensor, noise, steps, a hold that is too short or still settling. Each answers
 * *repeat* with its reason. The steady leak is told apart from settling by a fit of line and exponential.
 * @throws InputError at samples on too few, at samples[i] on times that do not run forwards or values that are none.
 */
export function judgeTrace(
	recipe: Recipe,
	samples: readonly TraceSample[],
	options: { uncertaintyPa?: number; volumeL?: number } = {}
): TraceVerdict {
	checkSamples(samples);
	const uncertaintyPa = options.uncertaintyPa ?? DEFAULT_UNCERTAINTY_PA;
	const span = (samples.at(-1)?.s ?? 0) - (samples[0]?.s ?? 0);
	const held = samples.filter((x) => x.s - (samples[0]?.s ?? 0) <= recipe.holdSeconds + 1e-6);
	const plain = corrected(held);
	const fit = fitDecay(plain.map((x) => ({ s: x.s, pa: x.pa })));
	const { startPa, endPa, temperatureChangeK, barometerChangePa } = endPoints(held);
	const sign = Math.sign(recipe.setPa);
	const leakPaPerMin = -fit.slopePaPerS * 60 * sign;
	const facts = {
		leakPaPerMin,
		...(options.volumeL ? { leakMlPerMin: volumeFlowMlPerMin(leakPaPerMin, options.volumeL) } : {}),
		startPa,
		noisePa: fit.noisePa
	};
	const faults = [
		...signOrRange(recipe, held),
		...gaps(held),
		...frozen(held, fit.noisePa),
		...noisy(recipe, fit.noisePa),
		...steps(recipe, plain),
		...tooShort(recipe, span),
		...unsettled(recipe, fit, startPa)
	];
	if (Math.sign(startPa) !== sign || faults.length)
		return {
			...facts,
			outcome: 'repeat',
			correctedEndPa: endPa,
			reasons: faults.length ? faults : signOrRange(recipe, held, true)
		};
	const judged = pressureTest(recipe, {
		startPa,
		endPa,
		uncertaintyPa,
		...(temperatureChangeK === undefined ? {} : { temperatureChangeK }),
		...(barometerChangePa === undefined ? {} : { barometerChangePa })
	});
	return {
		...facts,
		outcome: judged.outcome,
		correctedEndPa: judged.correctedEndPa,
		reasons: [...judged.reasons, leakReason(facts.leakPaPerMin, options.volumeL)]
	};
}

function checkSamples(samples: readonly TraceSample[]): void {
	if (samples.length < FEWEST_SAMPLES)
		throw new InputError('samples', `A trace needs ${FEWEST_SAMPLES} readings at least.`);
	samples.forEach((sample, i) => {
		if (!Number.isFinite(sample.s) || !Number.isFinite(sample.pa))
			throw new InputError(
				`samples[${i}]`,
				'A reading is a time in seconds and a pressure in pascal.'
			);
		const before = samples[i - 1];
		if (before && sample.s <= before.s)
			throw new InputError(
				`samples[${i}].s`,
				`The time of ${sample.s} s is not after the ${before.s} s before it.`
			);
	});
}

/** Each reading as it would be at the temperature and barometer of the start. */
function corrected(samples: readonly TraceSample[]): TraceSample[] {
	const first = samples[0];
	const kelvin = (c: number) => c + ZERO_CELSIUS_K;
	return samples.map((x) => {
		let { pa } = x;
		if (first?.temperatureC !== undefined && x.temperatureC !== undefined) {
			const ambient = x.barometerPa ?? AMBIENT_PA;
			pa = (ambient + pa) * (kelvin(first.temperatureC) / kelvin(x.temperatureC)) - ambient;
		}
		if (first?.barometerPa !== undefined && x.barometerPa !== undefined)
			pa += x.barometerPa - first.barometerPa;
		return { ...x, pa };
	});
}

/** The first and the last reading, each by a line through the seconds beside it, so that noise does not decide. */
function endPoints(held: readonly TraceSample[]) {
	const from = held[0]?.s ?? 0;
	const to = held.at(-1)?.s ?? 0;
	const width = Math.min(END_SECONDS, (to - from) / 6);
	const first = held.filter((x) => x.s <= from + width);
	const last = held.filter((x) => x.s >= to - width);
	const read = (
		list: readonly TraceSample[],
		key: 'pa' | 'temperatureC' | 'barometerPa',
		at: number
	) => {
		const points = list.flatMap((x) => {
			const y = x[key];
			return y === undefined ? [] : [{ x: x.s - at, y }];
		});
		return points.length ? straightLine(points).a : undefined;
	};
	const change = (key: 'temperatureC' | 'barometerPa') => {
		const [a, b] = [read(first, key, from), read(last, key, to)];
		return a === undefined || b === undefined ? undefined : b - a;
	};
	return {
		startPa: read(first, 'pa', from) ?? NaN,
		endPa: read(last, 'pa', to) ?? NaN,
		temperatureChangeK: change('temperatureC'),
		barometerChangePa: change('barometerPa')
	};
}

const fault = (rule: string, text: string, part: Partial<Reason> = {}): Reason[] => [
	{ rule: `trace.${rule}`, text: `${text} Test again.`, origin: ORIGIN, ...part }
];

function signOrRange(recipe: Recipe, held: readonly TraceSample[], always = false): Reason[] {
	const middle = median(held.map((x) => x.pa));
	if (always || Math.sign(middle) !== Math.sign(recipe.setPa))
		return fault(
			'sign',
			`The readings lie on the wrong side of zero: the hose is on the wrong port, or nothing was set.`,
			{ value: middle, unit: 'Pa' }
		);
	const beyond = held.find((x) => Math.abs(x.pa) > recipe.rangePa);
	return beyond
		? fault('range', `${Math.round(beyond.pa)} Pa lies beyond the range of ${recipe.rangePa} Pa.`, {
				limit: recipe.rangePa,
				value: beyond.pa,
				unit: 'Pa'
			})
		: [];
}

function gaps(held: readonly TraceSample[]): Reason[] {
	const pauses = held.slice(1).map((x, i) => x.s - (held[i]?.s ?? 0));
	const usual = median(pauses);
	const longest = Math.max(...pauses);
	return longest > Math.max(usual * GAP_STEPS, 2)
		? fault('gap', `For ${longest.toFixed(1)} s nothing was read.`, {
				value: longest,
				unit: 's'
			})
		: [];
}

/** The same figure for so long, from a sensor that moves otherwise. */
function frozen(held: readonly TraceSample[], noisePa: number): Reason[] {
	let [since, longest] = [0, 0];
	held.forEach((x, i) => {
		if (x.pa !== held[since]?.pa) since = i;
		if (i - since >= FROZEN_READINGS) longest = Math.max(longest, x.s - (held[since]?.s ?? x.s));
	});
	let resolution = Infinity;
	held.forEach((x, i) => {
		const step = Math.abs(x.pa - (held[i - 1]?.pa ?? x.pa));
		if (step > 0 && step < resolution) resolution = step;
	});
	// A quiet sensor of coarse steps may stand still by right.
	const coarse = resolution !== Infinity && resolution > 2 * noisePa;
	return longest > FROZEN_S && !coarse
		? fault('frozen', `The sensor showed one and the same value for ${Math.round(longest)} s.`, {
				value: longest,
				unit: 's'
			})
		: [];
}

const noisy = (recipe: Recipe, noisePa: number): Reason[] =>
	noisePa > recipe.noisePa
		? fault(
				'noise',
				`The readings scatter by ${noisePa.toFixed(1)} Pa, ${recipe.noisePa} at most.`,
				{
					limit: recipe.noisePa,
					value: noisePa,
					unit: 'Pa',
					margin: recipe.noisePa - noisePa
				}
			)
		: [];

/** Levels a few seconds apart that differ by more than a leak can: a valve, a hand on the suit, a knocked hose. */
function steps(recipe: Recipe, plain: readonly TraceSample[]): Reason[] {
	const noisePa = readingNoise(plain);
	const width = Math.max(3, Math.round(plain.length / 60));
	const most = Math.max(Math.abs(recipe.setPa) * STEP_SHARE, noisePa * STEP_NOISE);
	// What settling and a leak at the limit themselves may do within the window.
	const usual =
		(mostLossPa(recipe, recipe.setPa) * 3 * (plain[width]?.s ?? 0)) / recipe.holdSeconds;
	const readings = plain.map((x) => x.pa);
	// Of each window once: what is after a moment is before a later one.
	const middles = Array.from({ length: Math.max(0, plain.length - width + 1) }, (_, i) =>
		median(readings.slice(i, i + width))
	);
	for (let i = width; i + width <= plain.length; i++) {
		const [before, after] = [middles[i - width] ?? NaN, middles[i] ?? NaN];
		const jump = Math.abs(after - before);
		if (jump > most + usual)
			return fault(
				'step',
				`At ${Math.round(plain[i]?.s ?? 0)} s the pressure jumped by ${Math.round(after - before)} Pa: a valve, a hand on it, a knocked hose.`,
				{ limit: most, value: jump, unit: 'Pa' }
			);
	}
	return [];
}

/** Spread from one reading to the next, which no step or bend inflates. */
function readingNoise(plain: readonly TraceSample[]): number {
	const differences = plain.slice(1).map((x, i) => Math.abs(x.pa - (plain[i]?.pa ?? x.pa)));
	return (median(differences) * MAD_TO_SD) / Math.SQRT2;
}

const tooShort = (recipe: Recipe, spanS: number): Reason[] =>
	spanS < recipe.holdSeconds - 1
		? fault('short', `Held ${Math.round(spanS)} s of ${recipe.holdSeconds}.`, {
				limit: recipe.holdSeconds,
				value: spanS,
				unit: 's',
				margin: spanS - recipe.holdSeconds
			})
		: [];

function unsettled(recipe: Recipe, fit: ReturnType<typeof fitDecay>, startPa: number): Reason[] {
	const left = Math.abs(fit.settlingPa) * Math.exp(-recipe.holdSeconds / 2 / fit.settlingS);
	const most = SETTLING_SHARE * mostLossPa(recipe, startPa);
	return left > most && left > 4 * fit.noisePa
		? fault(
				'settling',
				`Half way through it was still settling by ${Math.round(left)} Pa. Give it longer before the hold.`,
				{ limit: most, value: left, unit: 'Pa', margin: most - left }
			)
		: [];
}

/** Q = V/p · dp/dt at ambient pressure. */
const volumeFlowMlPerMin = (leakPaPerMin: number, volumeL: number): number =>
	(volumeL * 1000 * leakPaPerMin) / AMBIENT_PA;

const leakReason = (leakPaPerMin: number, volumeL: number | undefined): Reason => ({
	rule: 'trace.leak',
	text: `Steady leak ${leakPaPerMin.toFixed(1)} Pa/min${volumeL ? `, ${volumeFlowMlPerMin(leakPaPerMin, volumeL).toFixed(1)} mL/min` : ''}, settling taken out.`,
	origin: computed('least squares fit of a line and an exponential; volume flow Q = V/p · dp/dt'),
	value: leakPaPerMin,
	unit: 'Pa/min'
});
