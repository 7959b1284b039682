import type { EnGasType } from '../data/substance.ts';
import { published } from '../verdict.ts';
import type { GasClass } from './filter-code.ts';

/** One laboratory test of a filter class. */
export interface ClassTest {
	gas: string;
	ppm: number;
	minutes: number;
}

type Row = Record<GasClass, ClassTest>;
const row = (gas: string, one: number, two: number, three: number, threePpm = 10_000): Row => ({
	1: { gas, ppm: 1000, minutes: one },
	2: { gas, ppm: 5000, minutes: two },
	3: { gas, ppm: threePpm, minutes: three }
});

/** Least breakthrough times at 30 L/min, 70 % RH, 20 °C. Published: EN 14387; from memory. */
export const CLASS_TESTS: Partial<Record<EnGasType, readonly Row[]>> = {
	A: [row('cyclohexane', 70, 35, 65, 8000)],
	B: [
		row('chlorine', 20, 20, 30),
		row('hydrogen-sulphide', 40, 40, 60),
		row('hydrogen-cyanide', 25, 25, 35)
	],
	E: [row('sulphur-dioxide', 20, 20, 30)],
	K: [row('ammonia', 50, 40, 60)]
};
export const CLASS_TEST_ORIGIN = published('EN 14387, least breakthrough times of the class tests');

/** Flow through the filter under test, L/min. Published: EN 14387; from memory. */
export const TEST_FLOW_L_PER_MIN = 30;
/** Taken off the linear estimate because it is rough. Common practice. */
const ROUGH_FACTOR = 0.5;

/** The test of the gas itself where the class has one, else the strictest of the type. */
export function classTestOf(
	type: EnGasType,
	gasClass: GasClass,
	substanceKey: string | undefined
): ClassTest | undefined {
	const rows = CLASS_TESTS[type];
	if (!rows?.length) return undefined;
	const own = rows.find((r) => r[1].gas === substanceKey);
	const tests = own ? [own[gasClass]] : rows.map((r) => r[gasClass]);
	return tests.reduce((least, test) => (test.minutes < least.minutes ? test : least));
}

/** Caught by another reaction than its type is tested with, so that the test says nothing of it. Common practice. */
const NOT_BY_CLASS_TEST: ReadonlySet<string> = new Set(['formaldehyde']);

/**
 * Rough minutes until breakthrough of a classed filter: linear in concentration and flow from its class test,
 * halved. Undefined where the type has no class test that says something of the substance, or the concentration is
 * not known.
 */
export function classTestMinutes(
	type: EnGasType,
	gasClass: GasClass,
	contaminant: { ppm?: number | undefined; substance?: { key: string } | undefined },
	use: { flowLPerMin: number; filters: number }
): number | undefined {
	const key = contaminant.substance?.key;
	const test = classTestOf(type, gasClass, key);
	if (key !== undefined && NOT_BY_CLASS_TEST.has(key)) return undefined;
	if (!test || !contaminant.ppm) return undefined;
	const linear = (test.minutes * test.ppm) / contaminant.ppm;
	return linear * ((TEST_FLOW_L_PER_MIN * use.filters) / use.flowLPerMin) * ROUGH_FACTOR;
}
