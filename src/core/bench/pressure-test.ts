import { STANDARD_ATMOSPHERE_KPA, ZERO_CELSIUS_K } from '../units/concentration.ts';
import {
	commonPractice,
	computed,
	InputError,
	published,
	type Reason,
	type Verdict
} from '../verdict.ts';
import type { TestOutcome } from './breathing-apparatus.ts';
import { PA_PER_INCH_WATER, type Recipe } from './recipes.ts';

/** Ambient pressure assumed where none is measured, Pa. */
export const AMBIENT_PA = STANDARD_ATMOSPHERE_KPA * 1000;
/** Temperature assumed where only a change is given, K. Common practice: 20 °C. */
const ROOM_K = 20 + ZERO_CELSIUS_K;
/** Coverage factor of the guard band. Published: JCGM 106; from memory. */
const GUARD = 2;
/** The start may lie below the set pressure by this share before the test says nothing. Site. */
const START_SHARE = 0.9;
/** An instrument whose uncertainty is a larger part of the limit cannot judge it. Published: JCGM 106; from memory. */
const MOST_UNCERTAINTY_SHARE = 0.2;
const ROUNDING = 1e-9;

export interface PressureTestInput {
	startPa: number;
	endPa: number;
	/** Standard uncertainty of a pressure reading. */
	uncertaintyPa?: number;
	/** Rise of the temperature of the air inside over the hold. */
	temperatureChangeK?: number;
	/** Rise of the barometer over the hold. */
	barometerChangePa?: number;
}

export interface PressureTest extends Verdict<TestOutcome> {
	/** What the end pressure would have been at the temperature and barometer of the start. */
	correctedEndPa: number;
	/** Lost of the set pressure, in its own direction, as corrected. */
	lossPa: number;
}

/** What a closed volume near room pressure gains per kelvin, Pa/K. Computed: p/T of an ideal gas. */
export const thermalPaPerK = (gaugePa: number, temperatureK = ROOM_K): number =>
	(AMBIENT_PA + gaugePa) / temperatureK;

/**
 * Judges a pressure test by its start and end, with temperature and barometer taken out.
 *
 * Where the correction turns the verdict the answer is *repeat*: neither reading is trusted to decide alone.
 * Within the limit but nearer to it than twice the uncertainty is a marginal pass.
 * @throws InputError at start or end on pressures that no such test shows, at uncertaintyPa below zero.
 */
export function pressureTest(recipe: Recipe, input: PressureTestInput): PressureTest {
	const { startPa, endPa, uncertaintyPa = 0 } = input;
	check(recipe, input);
	const thermal = thermalPaPerK(startPa) * (input.temperatureChangeK ?? 0);
	const correctedEndPa = endPa - thermal + (input.barometerChangePa ?? 0);
	const sign = Math.sign(recipe.setPa);
	const loss = (end: number) => Number(((startPa - end) * sign).toFixed(9));
	const limit = mostLossPa(recipe, startPa);
	const raw = grade(loss(endPa), limit, uncertaintyPa);
	const corrected = grade(loss(correctedEndPa), limit, uncertaintyPa);
	const main = judged(recipe, startPa, loss(correctedEndPa), limit);
	const reasons: Reason[] = [main];
	if (correctedEndPa !== endPa) reasons.push(correction(input, thermal, endPa, correctedEndPa));
	if (uncertaintyPa > 0) reasons.push(guardReason(uncertaintyPa, loss(correctedEndPa), limit));
	const result = { correctedEndPa, lossPa: loss(correctedEndPa) };
	const again = (reason: Reason): PressureTest => ({
		...result,
		outcome: 'repeat',
		reasons: [reason, ...reasons]
	});
	if (Math.abs(startPa) < Math.abs(recipe.setPa) * START_SHARE)
		return again({
			rule: 'pressure.start',
			text: `It was set to ${readable(recipe, startPa)} only; the recipe says ${readable(recipe, recipe.setPa)}.`,
			origin: recipe.origin,
			limit: recipe.setPa,
			value: startPa,
			unit: 'Pa'
		});
	const coarse = tooUncertain(uncertaintyPa, limit);
	if (coarse) return again(coarse);
	if ((raw === 'fail') !== (corrected === 'fail'))
		return again({
			rule: 'pressure.correction-decides',
			text: `By the readings alone it would ${raw === 'fail' ? 'fail' : 'pass'}, corrected it would ${corrected === 'fail' ? 'fail' : 'pass'}: neither is trusted. Let it come to room temperature and test again.`,
			origin: computed('verdicts with and without the correction')
		});
	const gained = wrongWay(recipe, result.lossPa, uncertaintyPa);
	return gained ? again(gained) : { ...result, outcome: corrected, reasons };
}

/** An instrument that cannot tell a pass from a fail. */
const tooUncertain = (uncertaintyPa: number, limitPa: number): Reason | undefined =>
	uncertaintyPa > limitPa * MOST_UNCERTAINTY_SHARE + ROUNDING
		? {
				rule: 'pressure.uncertain',
				text: `An uncertainty of ${uncertaintyPa} Pa is more than a fifth of the ${Math.round(limitPa)} Pa that may be lost: this instrument cannot judge it.`,
				origin: published('JCGM 106, guard banding'),
				limit: limitPa * MOST_UNCERTAINTY_SHARE,
				value: uncertaintyPa,
				unit: 'Pa',
				margin: limitPa * MOST_UNCERTAINTY_SHARE - uncertaintyPa
			}
		: undefined;

/** A closed volume that gained what it should lose: warming or a valve, which may hide a leak. */
function wrongWay(recipe: Recipe, lossPa: number, uncertaintyPa: number): Reason | undefined {
	const noise = Math.max(GUARD * uncertaintyPa, recipe.noisePa);
	if (lossPa >= -noise) return undefined;
	const moved = recipe.setPa > 0 ? 'rose' : 'deepened';
	return {
		rule: 'pressure.wrong-way',
		text: `The pressure ${moved} by ${Math.round(-lossPa)} Pa. A closed volume does not do that by itself: warming, or a valve, may hide a leak. Let it come to room temperature and test again.`,
		origin: commonPractice('a change past the noise, in the wrong direction'),
		limit: -noise,
		value: lossPa,
		unit: 'Pa',
		margin: lossPa + noise
	};
}

/** Most that may be lost from a start pressure, Pa. */
export const mostLossPa = (recipe: Recipe, startPa: number): number =>
	recipe.pass.kind === 'loss'
		? recipe.pass.mostPa
		: Math.abs(startPa) * (1 - recipe.pass.leastShare);

function grade(lossPa: number, limitPa: number, uncertaintyPa: number): TestOutcome {
	if (lossPa > limitPa + ROUNDING) return 'fail';
	return lossPa + GUARD * uncertaintyPa > limitPa + ROUNDING ? 'pass, marginal' : 'pass';
}

function check(recipe: Recipe, { startPa, endPa, uncertaintyPa }: PressureTestInput): void {
	for (const [path, value] of [
		['start', startPa],
		['end', endPa]
	] as const) {
		if (!Number.isFinite(value)) throw new InputError(path, 'Type the pressure in pascal.');
		if (Math.abs(value) > AMBIENT_PA / 2)
			throw new InputError(path, `${value} Pa is no pressure of this test. Check the unit.`);
	}
	if (Math.sign(startPa) !== Math.sign(recipe.setPa))
		throw new InputError(
			'start',
			`This test is done at ${recipe.setPa > 0 ? 'over' : 'under'}-pressure; ${startPa} Pa has the wrong sign.`
		);
	if (uncertaintyPa !== undefined && !(uncertaintyPa >= 0))
		throw new InputError('uncertaintyPa', 'An uncertainty cannot be below zero.');
}

function judged(recipe: Recipe, startPa: number, lossPa: number, limitPa: number): Reason {
	const share = recipe.pass.kind === 'left';
	const left = Math.abs(startPa) - lossPa;
	return {
		rule: `pressure.${recipe.key}`,
		text: share
			? `${readable(recipe, left)} of ${readable(recipe, Math.abs(startPa))} are left, ${Math.round(100 * (left / Math.abs(startPa)))} %; 80 % at least.`
			: `It lost ${Math.round(lossPa)} Pa in ${recipe.holdSeconds} s, ${Math.round(limitPa)} at most.`,
		origin: recipe.origin,
		inputs: [
			{ name: 'start', value: Number(startPa.toFixed(1)), unit: 'Pa' },
			{ name: 'recipe', value: `${recipe.key}, version ${recipe.version}` }
		],
		limit: limitPa,
		value: lossPa,
		unit: 'Pa',
		margin: limitPa - lossPa
	};
}

const readable = (recipe: Recipe, pa: number) =>
	recipe.key.startsWith('suit-us')
		? `${(pa / PA_PER_INCH_WATER).toFixed(2)} in.`
		: `${Math.round(pa)} Pa`;

function correction(
	input: PressureTestInput,
	thermalPa: number,
	endPa: number,
	correctedEndPa: number
): Reason {
	return {
		rule: 'pressure.correction',
		text: `Temperature and barometer moved the end from ${Math.round(correctedEndPa)} to ${Math.round(endPa)} Pa.`,
		origin: computed('ideal gas in a closed volume; gauge pressure falls as the barometer rises'),
		inputs: [
			{ name: 'temperature change', value: input.temperatureChangeK ?? 0, unit: 'K' },
			{ name: 'by temperature', value: Math.round(thermalPa), unit: 'Pa' },
			{ name: 'barometer change', value: input.barometerChangePa ?? 0, unit: 'Pa' }
		],
		value: correctedEndPa,
		unit: 'Pa'
	};
}

const guardReason = (uncertaintyPa: number, lossPa: number, limitPa: number): Reason => ({
	rule: 'pressure.guard-band',
	text: `With twice the uncertainty of ${uncertaintyPa} Pa the loss may be ${Math.round(lossPa + GUARD * uncertaintyPa)} Pa.`,
	origin: published('JCGM 106, guard banding'),
	limit: limitPa,
	value: lossPa + GUARD * uncertaintyPa,
	unit: 'Pa',
	margin: limitPa - lossPa - GUARD * uncertaintyPa
});
