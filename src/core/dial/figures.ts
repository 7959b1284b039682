import { sampleCorrelation } from 'simple-statistics';
import { type DialFace, roundAt, TURN_DEG } from './face.ts';
import { angleAtBar, type GaugeDial, marksOf } from './model.ts';
import type { ScaleFit } from './scale.ts';

/** Where figures stand, in radii inside the ring of marks, and degrees on each side of their mark. */
const [NEAREST, FURTHEST, BESIDE_DEG] = [0.1, 0.42, 11];
/** A figure so near to the needle is left out, degrees. */
const CLEAR_DEG = 16;

/** How two rows go together; nothing where one of them says the same throughout. */
const together = (a: readonly number[], b: readonly number[]): number =>
	a.length < 2 ? 0 : sampleCorrelation([...a], [...b]) || 0;

/**
 * Whether the figures of a scale run the way they should: 300 takes more ink than 0, and a scale that runs the other way
 * has them turned about. Its marks alone do not tell.
 * @param needleDeg on the face: what it hides is left out
 * @returns by how much the right way fits better, from -2 to 2
 */
export function figuresRun(
	face: DialFace,
	dial: GaugeDial,
	{ marks, ring, needleDeg }: { marks: ScaleFit; ring: number; needleDeg: number }
): number {
	const large = marksOf(dial).filter((mark) => mark.large);
	const fars = Array.from(
		{ length: 12 },
		(_, i) => ring - NEAREST - ((FURTHEST - NEAREST) * i) / 11
	);
	const prints = fars.map((far) => face.printAt(far, 30, { thick: 0.01 }));
	const inkAt = (deg: number) => {
		const [middle, reach] = [Math.round(deg / TURN_DEG), Math.round(BESIDE_DEG / TURN_DEG)];
		let sum = 0;
		for (const print of prints)
			for (let k = -reach; k <= reach; k++) sum += Math.max(0, roundAt(print, middle + k) - 0.05);
		return sum;
	};
	const seen = large.flatMap(({ bar }, i) => {
		const deg = marks.onFace(angleAtBar(dial, bar));
		const from = Math.abs(((((deg - needleDeg) % 180) + 270) % 180) - 90);
		if (from < CLEAR_DEG) return [];
		const turned = large[large.length - 1 - i]?.bar ?? 0;
		return [{ ink: inkAt(deg), right: String(bar).length, wrong: String(turned).length }];
	});
	const inks = seen.map(({ ink }) => ink);
	return (
		together(
			inks,
			seen.map(({ right }) => right)
		) -
		together(
			inks,
			seen.map(({ wrong }) => wrong)
		)
	);
}
