import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readPressure } from './pressure.ts';

describe('a pressure as it is typed', () => {
	// Published: 1 psi = 6894.76 Pa, 1 MPa = 10 bar; from memory.
	it.each([
		['300', 300, '300 bar'],
		[' 207,5 bar ', 207.5, '207,5 bar'],
		['4350 psi', 299.922, '4350 psi'],
		['30MPa', 300, '30 MPa'],
		['30 mpa', 300, '30 MPa'],
		['863 kPa', 8.63, '863 kPa'],
		['0', 0, '0 bar']
	])('%s is %f bar and is shown as %s', (text, bar, entered) => {
		const read = readPressure(text);
		expect(read.bar).toBeCloseTo(bar, 3);
		expect(read.entered).toBe(entered);
	});

	it.each(['', 'full', '300 atm', '3 00', '300 bar psi', 'NaN', '1e3'])('%s is none', (text) =>
		expect(() => readPressure(text)).toThrow(/Write a pressure as/)
	);

	it('below zero or only sensible as psi is said so', () => {
		expect(() => readPressure('-4')).toThrow(/below zero/);
		expect(() => readPressure('4350')).toThrow(/4350 psi, which is 300 bar/);
	});

	it('comes back from what is shown', () => {
		fc.assert(
			fc.property(fc.double({ min: 0, max: 400, noNaN: true }), (bar) => {
				const text = bar.toFixed(2);
				expect(readPressure(readPressure(text).entered).bar).toBeCloseTo(Number(text), 9);
			})
		);
	});
});
