import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { besidePressure, besideTemperature } from './beside.ts';
import { readPressure } from './pressure.ts';

describe('what stands beside a figure', () => {
	// Published: 1 bar = 14.5038 psi = 0.1 MPa; 0 °C = 32 °F (SI, international pound and inch), from memory.
	it.each([
		[300, 'psi', '4351 psi'],
		[55, 'psi', '798 psi'],
		[200, 'MPa', '20.00 MPa'],
		[7.5, 'MPa', '0.75 MPa'],
		[300, 'bar', ''],
		[NaN, 'psi', '']
	] as const)('%d bar in %s: “%s”', (bar, unit, says) =>
		expect(besidePressure(bar, unit).replace(/[\s, ]/g, '')).toBe(says.replace(' ', ''))
	);
	it.each([
		[43, '°F', '109 °F'],
		[-40, '°F', '-40 °F'],
		[100, '°F', '212 °F'],
		[20, '°C', '']
	] as const)('%d °C in %s: “%s”', (celsius, unit, says) =>
		expect(besideTemperature(celsius, unit)).toBe(says)
	);
	it('typed back it comes to the same, as near as it is shown', () => {
		fc.assert(
			fc.property(fc.double({ min: 1, max: 400, noNaN: true }), (bar) => {
				for (const [unit, near] of [
					['psi', 0.035],
					['MPa', 0.051]
				] as const) {
					const text = besidePressure(bar, unit).replace(/[,\u202F\u00A0](?=\d)/g, '');
					expect(Math.abs(readPressure(text).bar - bar)).toBeLessThan(near);
				}
			})
		);
	});
});
