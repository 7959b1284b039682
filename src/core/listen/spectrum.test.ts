import { describe, expect, it } from 'vitest';
import { Spectrum } from './spectrum.ts';

const RATE = 16_000;
const SIZE = 1024;
const tone = (hz: number, amplitude = 1) =>
	Float32Array.from(
		{ length: SIZE },
		(_, i) => amplitude * Math.sin((2 * Math.PI * hz * i) / RATE)
	);
const powersOf = (samples: Float32Array) => {
	const powers = new Float64Array(SIZE / 2);
	new Spectrum(SIZE).powers(samples, 0, powers);
	return powers;
};

describe('the power of a sound by frequency', () => {
	it.each([500, 1500, 3000, 5000])(
		'of a tone of %s Hz lies in its bin, a quarter of the square',
		(hz) => {
			const powers = powersOf(tone(hz, 0.8));
			const bin = Math.round((hz * SIZE) / RATE);
			expect(powers.indexOf(Math.max(...powers))).toBe(bin);
			// A tone in the middle of its bin: the window's gain of a half, by the definition of the transform.
			expect(powers[bin]).toBeCloseTo(0.8 ** 2 / 4, 3);
		}
	);

	it('is that of the slow sum, bin by bin', () => {
		const samples = Float32Array.from(
			{ length: 64 },
			(_, i) => Math.sin(i * i * 0.37) + 0.1 * (i % 5)
		);
		const powers = new Float64Array(32);
		new Spectrum(64).powers(samples, 0, powers);
		for (let k = 0; k < 32; k++) {
			let [re, im] = [0, 0];
			for (let i = 0; i < 64; i++) {
				const value = (samples[i] ?? 0) * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / 64));
				re += value * Math.cos((2 * Math.PI * k * i) / 64);
				im -= value * Math.sin((2 * Math.PI * k * i) / 64);
			}
			expect(powers[k]).toBeCloseTo((4 * (re * re + im * im)) / 64 ** 2, 9);
		}
	});

	it('asks for a power of two', () => expect(() => new Spectrum(1000)).toThrow(/power of two/));
});
