import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { figureAtOnset, lateBy } from './onset-figure.ts';

describe('the figure as the whistle began', () => {
	it('lies between the figures beside it', () => {
		const stream = [
			{ atS: 10, bar: 60 },
			{ atS: 11, bar: 57 },
			{ atS: 12, bar: 54 }
		];
		expect(figureAtOnset(stream, 11.5)?.bar).toBeCloseTo(55.5);
		expect(figureAtOnset(stream, 11)?.bar).toBeCloseTo(57);
	});
	it('is as uncertain as the set is let down fast', () => {
		const fall = (perS: number) => [
			{ atS: 0, bar: 60 },
			{ atS: 1, bar: 60 - perS }
		];
		const [slow, fast] = [figureAtOnset(fall(1), 0.5), figureAtOnset(fall(8), 0.5)];
		expect(fast?.plusMinusBar ?? 0).toBeGreaterThan(4 * (slow?.plusMinusBar ?? Infinity));
	});
	it('is none before the first and after the last figure', () => {
		const stream = [
			{ atS: 10, bar: 60 },
			{ atS: 11, bar: 57 }
		];
		expect(figureAtOnset(stream, 9)).toBeNull();
		expect(figureAtOnset(stream, 11.2)).toBeNull();
		expect(figureAtOnset([], 5)).toBeNull();
	});
	it('is met within what it states, however late ear and bench are', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 0.2, max: 8, noNaN: true }),
				fc.double({ min: -0.1, max: 0.1, noNaN: true }),
				fc.double({ min: 0.05, max: 1, noNaN: true }),
				fc.double({ min: 2, max: 8, noNaN: true }),
				(perS, off, every, onsetS) => {
					const stream = Array.from({ length: 300 }, (_, i) => ({
						atS: i * every,
						bar: 100 - perS * i * every
					}));
					const said = figureAtOnset(stream, onsetS + off);
					expect(Math.abs((said?.bar ?? 0) - (100 - perS * onsetS))).toBeLessThanOrEqual(
						said?.plusMinusBar ?? 0
					);
				}
			)
		);
	});
	it('that was read by eye is late by what fell meanwhile', () => {
		expect(lateBy(10, 12, 1)).toBeCloseTo(2.15);
		expect(lateBy(10, 9, 1)).toBe(0);
	});
});
