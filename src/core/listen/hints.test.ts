import { describe, expect, it } from 'vitest';
import { letDownSound } from '../../../instruments/sounds/let-down.ts';
import { workshopNoise, type WorkshopNoise } from '../../../instruments/sounds/noise.ts';
import { Chance } from '../stats/chance.ts';
import { AlarmEar } from './alarm.ts';
import { HissEar } from './hiss.ts';

const RATE = 16_000;
const noise = (kinds: readonly WorkshopNoise[], seed: number, seconds = 12) =>
	workshopNoise(kinds, new Chance(seed), { samples: seconds * RATE, sampleRate: RATE });

/** Whether something was heard at any moment, in pieces as a microphone gives them. */
function ever(ear: { hear: (samples: Float32Array) => object | null }, sound: Float32Array) {
	let heard = false;
	for (let at = 0; at < sound.length; at += 2048)
		if (ear.hear(sound.subarray(at, at + 2048))) heard = true;
	return heard;
}
const SEEDS = Array.from({ length: 6 }, (_, i) => i);

describe('an alarm that comes and goes', () => {
	it('is heard over a compressor', () => {
		for (const seed of SEEDS)
			expect(ever(new AlarmEar(RATE), noise(['beeper', 'quiet room'], seed)), String(seed)).toBe(
				true
			);
	});
	it('is not a quiet room, a compressor, a hiss or a whistle', () => {
		for (const kind of ['quiet room', 'compressor', 'leak hiss'] as const)
			for (const seed of SEEDS)
				expect(ever(new AlarmEar(RATE), noise([kind], seed)), `${kind} ${seed}`).toBe(false);
		const { samples } = letDownSound({ seed: 11, aboveNoiseDb: 24 });
		expect(ever(new AlarmEar(RATE), samples)).toBe(false);
	});
});

describe('a hiss that begins', () => {
	it('is a hint', () => {
		for (const seed of SEEDS)
			expect(ever(new HissEar(RATE), noise(['leak hiss'], seed)), String(seed)).toBe(true);
	});
	it('is not what was there before, what rings or what hammers', () => {
		for (const kind of ['quiet room', 'compressor', 'beeper', 'phone'] as const)
			for (const seed of SEEDS)
				expect(ever(new HissEar(RATE), noise([kind], seed)), `${kind} ${seed}`).toBe(false);
	});
});

describe('ears', () => {
	it('want a sound that holds what they listen for', () => {
		for (const rate of [8000, 0, NaN, 400_000]) {
			expect(() => new AlarmEar(rate)).toThrow(RangeError);
			expect(() => new HissEar(rate)).toThrow(RangeError);
		}
	});
});
