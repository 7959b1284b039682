import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { InputError } from '../verdict.ts';
import { inBothUnits, mgPerM3ToPpm, molarVolumeLPerMol, ppmToMgPerM3 } from './concentration.ts';

const at25 = { temperatureC: 25 };

describe('conversion between ppm and mg/m³', () => {
	// Computed independently from the stated equation.
	it.each([
		['toluene', 50, 92.14, at25, 188.3],
		['toluene', 50, 92.14, { temperatureC: 20 }, 191.5],
		['ammonia', 25, 17.03, at25, 17.4],
		['chlorine', 0.5, 70.9, at25, 1.45]
	])('%s %f ppm', (_, ppm, molarMass, state, expected) => {
		expect(Math.abs(ppmToMgPerM3(ppm, molarMass, state) / expected - 1)).toBeLessThan(0.002);
	});

	// Published: NIOSH Pocket Guide to Chemical Hazards, conversion factors at 25 °C, from memory.
	it.each([
		['toluene', 92.14, 3.77],
		['ammonia', 17.03, 0.7],
		['chlorine', 70.9, 2.9],
		['benzene', 78.11, 3.19],
		['carbon monoxide', 28.01, 1.15],
		['hydrogen sulphide', 34.08, 1.4]
	])('the published factor of %s', (_, molarMass, factor) => {
		expect(Math.abs(ppmToMgPerM3(1, molarMass, at25) - factor)).toBeLessThan(0.0101);
	});

	// Published: the molar volume of an ideal gas, 22.414 L/mol at 0 °C and 1 atm (CODATA), from memory.
	it('gives the molar volume at 0 °C', () => {
		expect(molarVolumeLPerMol({ temperatureC: 0 })).toBeCloseTo(22.414, 3);
	});

	it('comes back to where it started in any state', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 1e-6, max: 1e5, noNaN: true }),
				fc.double({ min: 2, max: 500, noNaN: true }),
				fc.double({ min: -40, max: 60, noNaN: true }),
				fc.double({ min: 50, max: 300, noNaN: true }),
				(ppm, molarMass, temperatureC, pressureKpa) => {
					const state = { temperatureC, pressureKpa };
					const back = mgPerM3ToPpm(ppmToMgPerM3(ppm, molarMass, state), molarMass, state);
					expect(Math.abs(back / ppm - 1)).toBeLessThan(1e-12);
				}
			)
		);
	});

	it.each([
		['a negative concentration', -1, 92, 20],
		['more than all of the air', 1_000_001, 92, 20],
		['a molar mass of zero', 1, 0, 20],
		['a temperature below absolute zero', 1, 92, -300],
		['a concentration that is no number', Number.NaN, 92, 20]
	])('refuses %s', (_, value, molarMass, temperatureC) => {
		expect(() => inBothUnits({ value, unit: 'ppm' }, molarMass, { temperatureC })).toThrow(
			InputError
		);
	});
});
