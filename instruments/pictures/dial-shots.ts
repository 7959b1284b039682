import type { GaugeDial } from '../../src/core/dial/model.ts';
import type { DialGuess } from '../../src/core/dial/rim.ts';
import type { GrayPicture } from '../../src/core/picture/gray.ts';
import { Chance } from '../../src/core/stats/chance.ts';
import { type DialHarm, dialPicture, type ShownDial } from './dial.ts';
import type { Shot } from './shot.ts';

/** Gauges of an invented maker's range: two scales, light and dark. */
export const DIALS: readonly ShownDial[] = [
	{
		from: { bar: 0, deg: -135 },
		to: { bar: 300, deg: 135 },
		smallBar: 10,
		largeBar: 50,
		face: 'light'
	},
	{
		from: { bar: 0, deg: -135 },
		to: { bar: 350, deg: 135 },
		smallBar: 10,
		largeBar: 50,
		face: 'dark'
	},
	{
		from: { bar: 0, deg: -120 },
		to: { bar: 400, deg: 120 },
		smallBar: 20,
		largeBar: 100,
		face: 'light'
	}
];
/** One of another range: its marks stand elsewhere. */
export const OTHER_DIAL: ShownDial = {
	from: { bar: 0, deg: -135 },
	to: { bar: 200, deg: 135 },
	smallBar: 10,
	largeBar: 50,
	face: 'light'
};

export type DialKind = 'plain' | 'hard' | 'other gauge' | 'reversed' | 'cracked' | 'glare';

export interface DialShot {
	picture: GrayPicture;
	/** What is read as. */
	dial: GaugeDial;
	guess: DialGuess;
	/** What it shows, bar. */
	bar: number;
	shot: Shot;
}

/** A picture of a gauge as a hand holds a telephone over it, drawn from a seed. */
export async function dialShot(seed: number, kind: DialKind): Promise<DialShot> {
	const chance = new Chance(seed);
	const dial =
		DIALS[kind === 'other gauge' || kind === 'reversed' ? 0 : chance.int(0, DIALS.length - 1)] ??
		OTHER_DIAL;
	const shown: ShownDial =
		kind === 'other gauge'
			? OTHER_DIAL
			: kind === 'reversed'
				? { ...dial, from: { bar: 0, deg: 135 }, to: { bar: 300, deg: -135 } }
				: dial;
	const bar = chance.between(shown.from.bar, shown.to.bar);
	const hard = kind === 'hard';
	const side = chance.pick([240, 320, 480, 640]);
	const radius = side * 0.36;
	const widthPx = 2 * radius * chance.between(0.85, 1.15);
	const [dx, dy] = [chance.between(-0.15, 0.15) * radius, chance.between(-0.15, 0.15) * radius];
	const shot: Shot = {
		frame: { width: side, height: side },
		widthPx,
		turnDeg: chance.between(-60, 60),
		tiltDeg: chance.between(0, hard ? 45 : 25),
		tiltAxisDeg: chance.between(0, 360),
		middle: { x: 0.5 + dx / side, y: 0.5 + dy / side },
		blurPx: (side / 480) * chance.between(0.3, hard ? 5 : 1.4),
		noise: chance.between(1, hard ? 20 : 8),
		light: {
			from: chance.between(hard ? 0.15 : 0.45, 1),
			to: chance.between(0.7, 1.15),
			deg: chance.between(0, 360)
		}
	};
	const harm: DialHarm =
		kind === 'cracked'
			? { cracks: chance.int(1, 3) }
			: kind === 'glare'
				? {
						glare: {
							x: chance.between(-0.7, 0.7),
							y: chance.between(-0.7, 0.7),
							size: chance.between(0.1, 0.5),
							strength: chance.between(0.4, 1.2)
						}
					}
				: {};
	return {
		picture: await dialPicture(shown, bar, shot, chance, harm),
		dial,
		guess: { x: side / 2, y: side / 2, radiusPx: radius },
		bar,
		shot
	};
}
