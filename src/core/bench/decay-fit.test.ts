import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fitDecay, straightLine } from './decay-fit.ts';

/** A trace of known truth: level, slope in Pa/s, what settles and how fast, noise from a fixed sequence. */
function trace(truth: {
	level: number;
	slope: number;
	settling?: number;
	tau?: number;
	noise?: number;
	seconds?: number;
}) {
	const { level, slope, settling = 0, tau = 60, noise = 0, seconds = 360 } = truth;
	let state = 7;
	return Array.from({ length: seconds * 2 + 1 }, (_, i) => {
		const s = i / 2;
		state = (state * 48271) % 2147483647;
		const off = (state / 2147483647 - 0.5) * 2 * noise;
		return { s, pa: level + slope * s + settling * Math.exp(-s / tau) + off };
	});
}

describe('telling a leak from settling', () => {
	it('gives a straight line back as it was', () => {
		const fit = fitDecay(trace({ level: 1650, slope: -0.4 }));
		expect(fit.levelPa).toBeCloseTo(1650, 3);
		expect(fit.slopePaPerS).toBeCloseTo(-0.4, 6);
		expect(fit.settlingPa).toBeCloseTo(0, 6);
		expect(fit.noisePa).toBeCloseTo(0, 6);
	});

	it.each([
		[-0.05, 80, 25],
		[-0.4, 60, 45],
		[-0.9, 30, 60],
		[0, 50, 40]
	])('finds a leak of %f Pa/s under %i Pa that settle in %i s', (slope, settling, tau) => {
		const fit = fitDecay(trace({ level: 1600, slope, settling, tau }));
		expect(fit.slopePaPerS).toBeCloseTo(slope, 1);
		expect(fit.settlingPa).toBeGreaterThan(settling * 0.7);
		// A straight line alone would have taken the settling for leak.
		const line = straightLine(
			trace({ level: 1600, slope, settling, tau }).map((p) => ({ x: p.s, y: p.pa }))
		);
		expect(Math.abs(fit.slopePaPerS - slope)).toBeLessThan(Math.abs(line.b - slope) / 2);
	});

	it('says how much the readings scatter, and does not take scatter for settling', () => {
		const fit = fitDecay(trace({ level: 1650, slope: -0.3, noise: 6 }));
		expect(fit.slopePaPerS).toBeCloseTo(-0.3, 1);
		expect(Math.abs(fit.settlingPa)).toBeLessThan(15);
		expect(fit.noisePa).toBeGreaterThan(2);
		expect(fit.noisePa).toBeLessThan(7);
	});

	it('does not depend on where the clock began, nor on the sign of the pressure', () => {
		fc.assert(
			fc.property(
				fc.double({ min: -1, max: -0.02, noNaN: true }),
				fc.integer({ min: 0, max: 5000 }),
				(slope, start) => {
					const points = trace({ level: 1650, slope, settling: 40, tau: 40 });
					const plain = fitDecay(points);
					const shifted = fitDecay(points.map((p) => ({ ...p, s: p.s + start })));
					expect(shifted.slopePaPerS).toBeCloseTo(plain.slopePaPerS, 6);
					const under = fitDecay(points.map((p) => ({ ...p, pa: -p.pa })));
					expect(under.slopePaPerS).toBeCloseTo(-plain.slopePaPerS, 3);
				}
			),
			{ numRuns: 12 }
		);
	});

	it('makes do with few points and with points of one moment', () => {
		expect(straightLine([{ x: 3, y: 5 }])).toEqual({ a: 5, b: 0 });
		expect(
			straightLine([
				{ x: 0, y: 1 },
				{ x: 2, y: 5 }
			])
		).toEqual({ a: 1, b: 2 });
		const two = fitDecay([
			{ s: 0, pa: 1000 },
			{ s: 60, pa: 940 }
		]);
		expect(two.slopePaPerS).toBeCloseTo(-1, 6);
	});
});
