import { Chance } from '../chance.ts';
import { mostLossPa } from '../../src/core/bench/pressure-test.ts';
import { recipeOf } from '../../src/core/bench/recipes.ts';
import { judgeTrace } from '../../src/core/bench/trace.ts';
import { benchTrace, SENSOR_FAULTS, truePressurePa, type BenchOptions } from './simulate.ts';

/** How seeded traces with known truth were judged. */
export interface Confusion {
	cases: number;
	/** truth → verdict → count */
	table: Record<string, Record<string, number>>;
	/** Leaking beyond the limit by more than the guard band, and passed. */
	leakingPassed: number;
	/** Sound sensor and little temperature change, and repeated all the same. */
	wrongRepeat: number;
	/** Cases of a sound sensor and little temperature change. */
	sound: number;
	/** The sensor lied, and the trace was judged. */
	faultyNotRepeated: number;
}

const UNCERTAINTY_PA = 3;
/** A measured change below this calls for no repeat unless it turns the verdict. */
const LITTLE_K = 0.15;

/** Judges so many seeded traces of EN suit tests: leaks round the limit, temperature ramps, sensor faults. */
export function confusion(cases: number, seed = 20_261): Confusion {
	const recipe = recipeOf('suit-en');
	const limit = mostLossPa(recipe, recipe.setPa);
	const chance = new Chance(seed);
	const result: Confusion = {
		cases,
		table: {},
		leakingPassed: 0,
		wrongRepeat: 0,
		sound: 0,
		faultyNotRepeated: 0
	};
	for (let i = 0; i < cases; i++) {
		const fault =
			chance.next() < 0.2
				? (SENSOR_FAULTS[Math.floor(chance.next() * SENSOR_FAULTS.length)] ?? 'none')
				: 'none';
		const warm =
			chance.next() < 0.4 ? chance.between(-1.5, 1.5) : chance.between(-LITTLE_K, LITTLE_K);
		const options: BenchOptions = {
			seed: seed + i * 7919,
			setPa: recipe.setPa,
			seconds: recipe.holdSeconds,
			perSecond: 2,
			leakPaPerMin: (limit / (recipe.holdSeconds / 60)) * chance.between(0.02, 2.2),
			settlingPa: chance.between(0, 40),
			settlingS: chance.between(15, 50),
			temperatureRiseK: warm,
			measuresTemperature: true,
			barometerDriftPa: chance.between(-15, 15),
			measuresBarometer: true,
			fault
		};
		const isothermal = { ...options, temperatureRiseK: 0, barometerDriftPa: 0 };
		const lost = recipe.setPa - truePressurePa(isothermal, recipe.holdSeconds);
		const raw = recipe.setPa - truePressurePa(options, recipe.holdSeconds);
		const truth = fault !== 'none' ? 'sensor fault' : lost > limit ? 'leaks' : 'tight';
		const { outcome } = judgeTrace(recipe, benchTrace(options), { uncertaintyPa: UNCERTAINTY_PA });
		const row = (result.table[truth] ??= {});
		row[outcome] = (row[outcome] ?? 0) + 1;
		const passed = outcome.startsWith('pass');
		if (truth === 'leaks' && passed && lost > limit + 2 * UNCERTAINTY_PA) result.leakingPassed++;
		if (truth === 'sensor fault' && outcome !== 'repeat') result.faultyNotRepeated++;
		const turned =
			lost > limit !== raw > limit || Math.abs(lost - limit) < 12 || Math.abs(raw - limit) < 12;
		if (truth !== 'sensor fault' && !turned) {
			result.sound++;
			if (outcome === 'repeat') result.wrongRepeat++;
		}
	}
	return result;
}
