import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { letDownSound } from '../../../instruments/sounds/let-down.ts';
import { Chance } from '../stats/chance.ts';
import { STRIP_ROWS, WhistleEar } from './whistle.ts';

const RATE = 16_000;
/** A sound of some seconds over a little hiss. */
function sound(seconds: number, at: (t: number) => number, hiss = 0.02): Float32Array {
	const chance = new Chance(7);
	return Float32Array.from(
		{ length: Math.round(seconds * RATE) },
		(_, i) => at(i / RATE) + hiss * (chance.next() - 0.5)
	);
}
const tone = (hz: number, t: number) => 0.2 * Math.sin(2 * Math.PI * hz * t);
const heard = (samples: Float32Array) => new WhistleEar(RATE).hear(samples);

describe('a warning whistle', () => {
	it.each([1600, 2800, 4700])(
		'at %s Hz that begins and stays is heard, with when it began',
		(hz) => {
			const [one, ...more] = heard(sound(7, (t) => (t > 3 ? tone(hz, t) : 0)));
			expect(more).toEqual([]);
			expect(Math.abs((one?.onsetS ?? 0) - 3)).toBeLessThan(0.1);
			expect(Math.abs((one?.hz ?? 0) - hz)).toBeLessThan(20);
			expect(one?.aboveDb).toBeGreaterThan(20);
		}
	);

	it.each([1, 2, 3, 4])('of a let-down in a workshop is heard at its onset (seed %s)', (seed) => {
		const { samples, onsetS } = letDownSound({ seed, aboveNoiseDb: 9 });
		const found = heard(samples).map((one) => Math.abs(one.onsetS - (onsetS ?? 0)));
		expect(Math.min(...found)).toBeLessThan(0.3);
	});

	it.each([11, 12, 13, 14])('is not heard in a workshop without one (seed %s)', (seed) =>
		expect(heard(letDownSound({ seed, aboveNoiseDb: null }).samples)).toEqual([])
	);

	it.each<[string, (t: number) => number]>([
		['what sounds all the time', (t) => tone(2800, t)],
		['a tone that ends too soon', (t) => (t > 3 && t < 4.5 ? tone(2800, t) : 0)],
		['a beeper', (t) => (t > 2 && t % 1 < 0.5 ? tone(2800, t) : 0)],
		[
			'a ring of two tones',
			(t) => (t > 2 && t % 3 < 1.2 ? tone(t % 0.1 < 0.05 ? 1900 : 2700, t) : 0)
		],
		['a motor that runs up', (t) => (t > 2 ? tone(1500 + 350 * (t - 2), t) : 0)],
		['a tone below', (t) => (t > 3 ? tone(1000, t) : 0)],
		['silence', () => 0]
	])('%s is none', (_, at) => expect(heard(sound(9, at))).toEqual([]));

	it('is heard the same however the sound comes in', () => {
		const samples = sound(7, (t) => (t > 3 ? tone(3100, t) : 0));
		const whole = heard(samples);
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 9000 }), (size) => {
				const ear = new WhistleEar(RATE);
				const found = [];
				for (let at = 0; at < samples.length; at += size)
					found.push(...ear.hear(samples.subarray(at, at + size)));
				expect(found).toEqual(whole);
			}),
			{ numRuns: 6 }
		);
	});

	it('may be one soon after it began, long before it is certain', () => {
		const samples = sound(7, (t) => (t > 3 ? tone(3100, t) : 0));
		const ear = new WhistleEar(RATE);
		ear.hear(samples.subarray(0, 3 * RATE));
		expect(ear.perhaps()).toBeNull();
		expect(ear.hear(samples.subarray(3 * RATE, 3.6 * RATE))).toEqual([]);
		expect(Math.abs((ear.perhaps()?.sinceS ?? 0) - 3)).toBeLessThan(0.1);
	});

	it('is drawn column by column; a rate too low for it is refused', () => {
		const columns: Float32Array[] = [];
		new WhistleEar(RATE).hear(
			sound(1, (t) => tone(2800, t)),
			(column) => columns.push(column)
		);
		expect(columns.length).toBeGreaterThan(50);
		const loudest = columns.at(-1)?.indexOf(Math.max(...(columns.at(-1) ?? [])));
		// 2800 Hz lies at 37 % of the way from 1.5 to 5 kHz.
		expect(loudest).toBe(Math.floor(0.37 * STRIP_ROWS));
		expect(() => new WhistleEar(8000)).toThrow(/sampleRate/);
	});
});
