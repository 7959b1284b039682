import { apartRound, type DialFace, roundAt, TURN_DEG, TURNS } from './face.ts';
import { leastSquares } from './solve.ts';

/** A needle on a face. */
export interface FoundNeedle {
	/** Where it points, degrees on the face: by its direction, which a look from aside does not move. */
	deg: number;
	/** Where its tip would meet the ring of marks. */
	tipDeg: number;
	/** Of the direction, one standard deviation, degrees. */
	spreadDeg: number;
	/** How dark it is, as a share of its face. */
	contrast: number;
	/** The next line that could be one, as a share of it. */
	second: number;
}

/** Between these shares of the radius of the ring a needle is looked for: beyond its hub, before the marks. */
const [INNER, OUTER] = [0.22, 0.74];
const STEPS = 28;
/** What part of its length may be hidden: the score is the value that so many of the pieces exceed. */
const HIDDEN = 0.3;

/** @param ring distance of the marks, in radii */
export function findNeedle(face: DialFace, ring: number): FoundNeedle | null {
	const fars = Array.from(
		{ length: STEPS },
		(_, i) => ring * (INNER + ((OUTER - INNER) * i) / (STEPS - 1))
	);
	// A few degrees about: a needle is narrow.
	const prints = fars.map((far) => face.printAt(far, 14, { thick: 0.008 }));
	const widen = 2;
	const score = Float64Array.from({ length: TURNS }, (_, turn) => {
		const values = prints.map((print) => {
			let most = -1;
			for (let k = -widen; k <= widen; k++) most = Math.max(most, roundAt(print, turn + k));
			return most;
		});
		return values.sort((a, b) => a - b)[Math.floor(STEPS * HIDDEN)] ?? 0;
	});
	let best = 0;
	for (let i = 0; i < TURNS; i++) if ((score[i] ?? 0) > (score[best] ?? 0)) best = i;
	const contrast = score[best] ?? 0;
	if (contrast <= 0) return null;
	let second = 0;
	for (let i = 0; i < TURNS; i++) {
		const apart = apartRound(i, best, TURNS) * TURN_DEG;
		if (apart > 12) second = Math.max(second, score[i] ?? 0);
	}
	const line = lineOf(prints, fars, best);
	if (!line) return null;
	const [aside, slope] = line.factors;
	const tip = ((aside + slope * ring) / ring) * (180 / Math.PI);
	return {
		deg: best * TURN_DEG + Math.atan(slope) * (180 / Math.PI),
		tipDeg: best * TURN_DEG + tip,
		spreadDeg: (line.spread * 180) / Math.PI,
		contrast,
		second: second / contrast
	};
}

/** Middle of the needle at each distance, beside the direction that it was found in, and the line through them. */
function lineOf(prints: readonly Float64Array[], fars: readonly number[], best: number) {
	const reach = Math.round(6 / TURN_DEG);
	let own = prints.flatMap((print, i) => {
		const far = fars[i] ?? 0;
		let [sum, moment] = [0, 0];
		const at = (k: number) => roundAt(print, best + k);
		let most = 0;
		for (let k = -reach; k <= reach; k++) most = Math.max(most, at(k));
		for (let k = -reach; k <= reach; k++) {
			const value = Math.max(0, at(k) - most * 0.35);
			sum += value;
			moment += value * k;
		}
		if (sum === 0) return [];
		return [{ far, aside: far * Math.tan(((moment / sum) * TURN_DEG * Math.PI) / 180) }];
	});
	for (let again = 0; ; again++) {
		const factors = leastSquares(
			own.map(({ far }) => [1, far]),
			own.map(({ aside }) => aside)
		);
		if (!factors || own.length < STEPS / 2) return null;
		const [zero = 0, slope = 0] = factors;
		const left = own.map(({ far, aside }) => aside - zero - slope * far);
		const rms = Math.sqrt(left.reduce((sum, value) => sum + value * value, 0) / own.length);
		const mean = own.reduce((sum, { far }) => sum + far, 0) / own.length;
		const wide = Math.sqrt(own.reduce((sum, { far }) => sum + (far - mean) ** 2, 0));
		if (again === 3) return { factors: [zero, slope] as const, spread: rms / wide };
		own = own.filter((_, i) => Math.abs(left[i] ?? 0) <= Math.max(0.004, 2 * rms));
	}
}
