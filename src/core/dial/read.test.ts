import { describe, expect, it } from 'vitest';
import { type DialKind, dialShot } from '../../../instruments/pictures/dial-shots.ts';
import { angleAtBar, barAtAngle, checkDial, marksOf } from './model.ts';
import { readDial } from './read.ts';
import { SteadyDial } from './steady.ts';

const GAUGE = {
	from: { bar: 0, deg: -135 },
	to: { bar: 300, deg: 135 },
	smallBar: 10,
	largeBar: 50
};

describe('the scale of a gauge', () => {
	it('runs from mark to mark', () => {
		expect(barAtAngle(GAUGE, -135)).toBe(0);
		expect(barAtAngle(GAUGE, 0)).toBe(150);
		expect(angleAtBar(GAUGE, 300)).toBe(135);
		expect(marksOf(GAUGE)).toHaveLength(31);
		expect(marksOf(GAUGE).filter(({ large }) => large)).toHaveLength(7);
	});
	it.each([
		['dialToBar', { to: { bar: 0, deg: 135 } }],
		['dialToDeg', { to: { bar: 300, deg: -100 } }],
		['dialSmallBar', { smallBar: 7 }],
		['dialSmallBar', { smallBar: 50 }],
		['dialLargeBar', { largeBar: 45 }]
	])('is refused at %s where it cannot be', (path, part) => {
		expect(() => checkDial({ ...GAUGE, ...part })).toThrow(expect.objectContaining({ path }));
	});
});

describe('a gauge before a camera', () => {
	const KINDS: [DialKind, number][] = [
		['plain', 8],
		['hard', 6],
		['glare', 4],
		['cracked', 4]
	];
	it.each(KINDS)(
		'%s: what is read is within 2 %% of the scale, the rest refused',
		async (kind, count) => {
			let taken = 0;
			for (let seed = 0; seed < count; seed++) {
				const { picture, dial, guess, bar } = await dialShot(700 + seed, kind);
				const said = readDial(picture, dial, guess);
				if ('refused' in said) {
					expect(said.message).not.toBe('');
					continue;
				}
				taken++;
				expect(Math.abs(said.bar - bar), `seed ${seed}`).toBeLessThanOrEqual(
					0.02 * (dial.to.bar - dial.from.bar)
				);
				expect(Math.abs(said.bar - bar), `seed ${seed}`).toBeLessThanOrEqual(said.plusMinusBar);
			}
			// Held as it should be, nearly every picture is read.
			expect(taken).toBeGreaterThanOrEqual(kind === 'plain' ? count - 1 : 1);
		}
	);
	it.each(['other gauge', 'reversed'] as const)('of %s is refused, never misread', async (kind) => {
		for (let seed = 0; seed < 3; seed++) {
			const { picture, dial, guess } = await dialShot(800 + seed, kind);
			expect(readDial(picture, dial, guess)).toHaveProperty('refused');
		}
	});
	it('is not seen in an empty picture', () => {
		const picture = { width: 320, height: 320, data: new Uint8ClampedArray(320 * 320).fill(120) };
		expect(readDial(picture, GAUGE, { x: 160, y: 160, radiusPx: 110 })).toMatchObject({
			refused: 'no dial'
		});
	});
});

describe('pictures in a row', () => {
	const reading = (bar: number) => ({ bar, plusMinusBar: 2, rim: [], needle: [] as never });
	it('are a reading when three agree, and none when the needle swings', () => {
		const steady = new SteadyDial();
		expect(steady.take(reading(100))).toBeNull();
		expect(steady.take(reading(101))).toBeNull();
		expect(steady.take(reading(102))?.bar).toBeCloseTo(101);
		expect(steady.take(reading(140))).toBeNull();
		expect(steady.take(null)).toBeNull();
		expect(steady.take(reading(140))).toBeNull();
	});
});
