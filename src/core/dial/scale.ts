import { apartRound, type DialFace, roundAt, TURN_DEG } from './face.ts';
import { angleAtBar, type GaugeDial, marksOf, sweepOf } from './model.ts';
import type { Rim } from './rim.ts';
import { leastSquares } from './solve.ts';

/** Where the marks of a scale are on a face. */
export interface FoundScale {
	/** Degrees by which the upright dial is turned. */
	turnDeg: number;
	/** How well the marks fit, from 0 to 1. */
	fit: number;
	/** How much better than at any other turn. */
	margin: number;
	/** Distance of the ring of marks, in radii. */
	far: number;
}

/** Half of a mark as it is looked for, degrees. */
const HALF_MARK = 1.1;

/** The places of marks in a row of directions, as a perfect scale would have them. */
interface Comb {
	at: Int32Array;
	turns: number;
	/** Length of its row without its mean. */
	length: number;
}

function combOf(degs: readonly number[], halfDeg: number, turns: number): Comb {
	const half = Math.round((halfDeg * turns) / 360);
	const places = new Set<number>();
	for (const deg of degs)
		for (let k = -half; k <= half; k++)
			places.add((((Math.round((deg * turns) / 360) + k) % turns) + turns) % turns);
	const share = places.size / turns;
	return {
		at: Int32Array.from(places).sort(),
		turns,
		length: Math.sqrt(turns * share * (1 - share))
	};
}

/** Correlation of a row with a comb at every turn. */
function fits(print: Float64Array, { at, turns, length }: Comb): Float64Array {
	const limited = print.map((value) => Math.max(-0.3, Math.min(0.6, value)));
	const mean = limited.reduce((a, b) => a + b, 0) / turns;
	const own = Math.sqrt(limited.reduce((sum, value) => sum + (value - mean) ** 2, 0)) || 1;
	// Once round and again: a place beyond the end is there too.
	const twice = new Float64Array(2 * turns);
	twice.set(limited);
	twice.set(limited, turns);
	const fit = new Float64Array(turns);
	for (let turn = 0; turn < turns; turn++) {
		let sum = 0;
		for (let k = 0; k < at.length; k++) sum += twice[(at[k] ?? 0) + turn] ?? 0;
		fit[turn] = (sum - at.length * mean) / (own * length);
	}
	return fit;
}

/** Degrees from one small mark to the next. */
const spacingOf = (dial: GaugeDial): number =>
	Math.abs((dial.smallBar / (dial.to.bar - dial.from.bar)) * sweepOf(dial));

function mostOf(row: Float64Array): number {
	let most = -Infinity;
	for (let i = 0; i < row.length; i++) most = Math.max(most, row[i] ?? 0);
	return most;
}

/** The ring on which the marks fit best, and how well at each turn. */
function ringOf(face: DialFace, dial: GaugeDial, turns: number, step: number) {
	const spacing = spacingOf(dial);
	const comb = combOf(
		marksOf(dial).map(({ bar }) => angleAtBar(dial, bar)),
		Math.min(HALF_MARK, spacing / 5),
		turns
	);
	let best: { far: number; fit: Float64Array; most: number } | undefined;
	for (let far = 0.68; far <= 0.98; far += step) {
		const fit = fits(face.printAt(far, spacing * 1.5, { turns }), comb);
		const most = mostOf(fit);
		if (!best || most > best.most) best = { far, fit, most };
	}
	if (!best) throw new RangeError('a ring was looked at');
	return best;
}

/** How far aside the middle of a dial may lie, in radii, and how finely that is tried. */
const [LEAN_MOST, LEAN_STEP] = [0.16, 0.02];

/** Leans that are tried: along the direction in which the rim is flat, and a little to every side. */
function leansOf(rim: Rim): { x: number; y: number }[] {
	// The shorter axis, in the directions of the upright dial.
	const turn = Math.atan2(2 * rim.xy, rim.xx - rim.yy) / 2 + Math.PI / 2;
	const [ux, uy] = [Math.cos(turn), Math.sin(turn)];
	const along = Array.from({ length: 2 * Math.round(LEAN_MOST / LEAN_STEP) + 1 }, (_, i) => {
		const size = i * LEAN_STEP - LEAN_MOST;
		return { x: size * ux, y: size * uy };
	});
	const about = [0.02, 0.04].flatMap((size) =>
		Array.from({ length: 8 }, (_, i) => ({
			x: size * Math.cos((i * Math.PI) / 4),
			y: size * Math.sin((i * Math.PI) / 4)
		}))
	);
	return [...along, ...about];
}

/** Directions of the first look, a degree apart, and of the second. */
const [COARSE, FINE] = [360, 720];

/** The face at the lean at which its marks fit best. */
export function leanFace(face: DialFace, rim: Rim, dial: GaugeDial): DialFace {
	let best = { face, most: -Infinity };
	for (const lean of leansOf(rim)) {
		const tried = face.leaning(lean);
		const { most } = ringOf(tried, dial, COARSE, 0.03);
		if (most > best.most) best = { face: tried, most };
	}
	return best.face;
}

/**
 * Finds the scale on a face: the ring and the turn at which its small and large marks fit best.
 * Published: normalised correlation with a template; the numbers are the site's own, measured against seeded pictures.
 */
export function findScale(face: DialFace, dial: GaugeDial): FoundScale {
	const spacing = spacingOf(dial);
	const ring = ringOf(face, dial, FINE, 0.015);
	const large = combOf(
		marksOf(dial)
			.filter((mark) => mark.large)
			.map(({ bar }) => angleAtBar(dial, bar)),
		HALF_MARK,
		FINE
	);
	// The large marks reach further in.
	let both = ring.fit;
	let most = -Infinity;
	for (let off = 0.03; off <= 0.12; off += 0.015) {
		const fit = fits(face.printAt(ring.far - off, spacing * 2, { turns: FINE }), large);
		const sum = ring.fit.map((value, i) => value + 0.7 * (fit[i] ?? 0));
		if (mostOf(sum) > most) [both, most] = [sum, mostOf(sum)];
	}
	const best = both.indexOf(most);
	const beside = Math.round((spacing * 0.5 * FINE) / 360);
	let second = -Infinity;
	for (let i = 0; i < FINE; i++) {
		const apart = apartRound(i, best, FINE);
		if (apart > beside) second = Math.max(second, both[i] ?? 0);
	}
	return {
		turnDeg: (best * 360) / FINE,
		fit: ring.fit[best] ?? 0,
		margin: most - second,
		far: ring.far
	};
}

/** How the angles of a face depart from those of its upright dial. */
export interface ScaleFit {
	/** Degrees on the face of an angle of the upright dial. */
	onFace: (deg: number) => number;
	/** And back. */
	onDial: (deg: number) => number;
	/** By how much the middle of the marks is beside the one of the face, in radii. */
	aside: { x: number; y: number };
	/** What is left between marks and fit, root of the mean square, degrees. */
	rmsDeg: number;
	/** Share of the marks that were found. */
	found: number;
	/** Middle contrast of the marks that were found. */
	contrast: number;
}

const turnTo = (deg: number) => ((((deg + 180) % 360) + 360) % 360) - 180;

/** Measures each mark by itself and fits how the face is distorted: turned, aside, and what a camera aslant leaves. */
export function fitScale(face: DialFace, dial: GaugeDial, scale: FoundScale): ScaleFit | null {
	const marks = marksOf(dial);
	const spacing = spacingOf(dial);
	const print = face.printAt(scale.far, spacing * 1.5, { thick: 0.02 });
	const reach = Math.round((spacing * 0.42) / TURN_DEG);
	const seen = marks.flatMap(({ bar }) => {
		const deg = angleAtBar(dial, bar);
		const middle = Math.round((deg + scale.turnDeg) / TURN_DEG);
		let [sum, moment, most] = [0, 0, 0];
		for (let k = -reach; k <= reach; k++) {
			const value = Math.max(0, roundAt(print, middle + k));
			sum += value;
			moment += value * k;
			most = Math.max(most, value);
		}
		if (sum === 0) return [];
		return [{ deg, off: turnTo((middle + moment / sum) * TURN_DEG - deg - scale.turnDeg), most }];
	});
	const contrast = [...seen].sort((a, b) => a.most - b.most)[seen.length >> 1]?.most ?? 0;
	let own = seen.filter(({ most }) => most > contrast * 0.4);
	let factors: number[] | null = null;
	const rowOf = (deg: number) => {
		const t = ((deg + scale.turnDeg) * Math.PI) / 180;
		return [1, Math.sin(t), Math.cos(t), Math.sin(2 * t), Math.cos(2 * t)];
	};
	const offAt = (deg: number) =>
		rowOf(deg).reduce((sum, value, i) => sum + value * (factors?.[i] ?? 0), 0);
	let rms = Infinity;
	for (let again = 0; again < 3; again++) {
		factors = leastSquares(
			own.map(({ deg }) => rowOf(deg)),
			own.map(({ off }) => off)
		);
		if (!factors || own.length < 8) return null;
		const left = own.map(({ deg, off }) => off - offAt(deg));
		rms = Math.sqrt(left.reduce((sum, value) => sum + value * value, 0) / own.length);
		const bound = Math.max(0.4, 2.5 * rms);
		own = own.filter((_, i) => Math.abs(left[i] ?? 0) <= bound);
	}
	const onFace = (deg: number) => deg + scale.turnDeg + offAt(deg);
	return {
		onFace,
		onDial: (deg) => {
			let guess = turnTo(deg - scale.turnDeg);
			for (let i = 0; i < 6; i++) guess += turnTo(deg - onFace(guess));
			return guess;
		},
		aside: {
			x: (((factors?.[2] ?? 0) * Math.PI) / 180) * scale.far,
			y: (((factors?.[1] ?? 0) * Math.PI) / 180) * scale.far
		},
		rmsDeg: rms,
		found: own.length / marks.length,
		contrast
	};
}
