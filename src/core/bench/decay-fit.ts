import { MAD_TO_SD, median } from '../stats/theil-sen.ts';

/** p(t) = level + slope·t + settling·exp(−t/τ). */
export interface DecayFit {
	levelPa: number;
	slopePaPerS: number;
	/** Amplitude of what settles, and its time constant. */
	settlingPa: number;
	settlingS: number;
	/** Robust standard deviation of the readings about the line. */
	noisePa: number;
}

/** Points the fit is made on at most; more are averaged in groups. */
const MOST_POINTS = 72;
/** Part by which the exponential must better the straight line to be believed. */
const WORTH = 0.85;

/** Time constants that are looked at, as parts of the time: shorter is noise, longer is a straight line. */
const TAU = { from: 0.015, to: 0.6, steps: 24 };
/** Halvings of the way between two of them: far below what a reading tells. */
const NARROWER = 30;
/** Largest part of the pressure that a level, its change or what settles may come to; beyond it nothing is told apart. */
const MOST_PART = 2;

/** A line with what settles at one time constant, and the sum of squares that it leaves. */
interface Curve {
	a: number;
	b: number;
	c: number;
	tau: number;
	squares: number;
}

/**
 * Tells a steady leak from settling: a straight line, and an exponential on top where the data ask for it. For a time
 * constant the rest is linear, so that only the constant is searched for (variable projection; Golub and Pereyra 1973,
 * from memory): first over its whole range, then about the best by golden section.
 */
export function fitDecay(points: readonly { s: number; pa: number }[]): DecayFit {
	const span = Math.max(1e-9, (points.at(-1)?.s ?? 1) - (points[0]?.s ?? 0));
	const from = points[0]?.s ?? 0;
	const grouped = group(points.map((p) => ({ x: (p.s - from) / span, y: p.pa })));
	const scale = Math.max(1, Math.max(...grouped.map((p) => Math.abs(p.y))));
	const data = grouped.map((p) => ({ x: p.x, y: p.y / scale }));
	const line = straightLine(data);
	const left = data.reduce((sum, { x, y }) => sum + (y - line.a - line.b * x) ** 2, 0);
	const settling = bestSettling(data, line);
	const best: Curve =
		settling.squares < left * WORTH
			? settling
			: { a: line.a, b: line.b, c: 0, tau: 1, squares: left };
	const f = (x: number) => best.a + best.b * x + best.c * Math.exp(-x / best.tau);
	const off = points.map((p) => Math.abs(p.pa - f((p.s - from) / span) * scale));
	return {
		levelPa: best.a * scale,
		slopePaPerS: (best.b * scale) / span,
		settlingPa: best.c * scale,
		settlingS: best.tau * span,
		noisePa: median(off) * MAD_TO_SD
	};
}

interface Point {
	x: number;
	y: number;
}

/** The curve that leaves least, over all time constants. */
function bestSettling(data: readonly Point[], line: { a: number; b: number }): Curve {
	const at = (power: number) => withSettling(data, line, TAU.from * (TAU.to / TAU.from) ** power);
	let [best, among] = [at(0), 0];
	for (let i = 1; i <= TAU.steps; i++) {
		const found = at(i / TAU.steps);
		if (found.squares < best.squares) [best, among] = [found, i];
	}
	let low = Math.max(0, among - 1) / TAU.steps;
	let high = Math.min(TAU.steps, among + 1) / TAU.steps;
	const golden = (Math.sqrt(5) - 1) / 2;
	let [one, other] = [high - golden * (high - low), low + golden * (high - low)];
	let [ofOne, ofOther] = [at(one), at(other)];
	for (let i = 0; i < NARROWER; i++)
		if (ofOne.squares < ofOther.squares) {
			[high, other, ofOther] = [other, one, ofOne];
			one = high - golden * (high - low);
			ofOne = at(one);
		} else {
			[low, one, ofOne] = [one, other, ofOther];
			other = low + golden * (high - low);
			ofOther = at(other);
		}
	for (const found of [ofOne, ofOther]) if (found.squares < best.squares) best = found;
	return best;
}

/**
 * Least squares of a line and an exponential of one time constant. What the exponential has in common with a line is
 * taken out of it first, so that the two do not blur into each other where the constant is long.
 */
function withSettling(data: readonly Point[], line: { a: number; b: number }, tau: number): Curve {
	const shape = data.map(({ x }) => ({ x, y: Math.exp(-x / tau) }));
	const common = straightLine(shape);
	let [along, own] = [0, 0];
	data.forEach(({ x, y }, i) => {
		const only = (shape[i]?.y ?? 0) - common.a - common.b * x;
		along += only * (y - line.a - line.b * x);
		own += only * only;
	});
	const c = own > 0 ? along / own : 0;
	const [a, b] = [line.a - c * common.a, line.b - c * common.b];
	const squares = data.reduce(
		(sum, { x, y }, i) => sum + (y - a - b * x - c * (shape[i]?.y ?? 0)) ** 2,
		0
	);
	const told = [a, b, c].every((part) => Math.abs(part) <= MOST_PART);
	return { a, b, c, tau, squares: told ? squares : Infinity };
}

function group(points: Point[]): Point[] {
	const size = Math.ceil(points.length / MOST_POINTS);
	if (size <= 1) return points;
	return Array.from({ length: Math.ceil(points.length / size) }, (_, i) => {
		const part = points.slice(i * size, (i + 1) * size);
		const mean = (key: 'x' | 'y') => part.reduce((sum, p) => sum + p[key], 0) / part.length;
		return { x: mean('x'), y: mean('y') };
	});
}

/** Least squares line y = a + b·x; level for points of one x. */
export function straightLine(points: readonly Point[]): {
	a: number;
	b: number;
} {
	const n = points.length;
	const mx = points.reduce((sum, p) => sum + p.x, 0) / n;
	const my = points.reduce((sum, p) => sum + p.y, 0) / n;
	const xy = points.reduce((sum, p) => sum + (p.x - mx) * (p.y - my), 0);
	const xx = points.reduce((sum, p) => sum + (p.x - mx) ** 2, 0);
	const b = xx ? xy / xx : 0;
	return { a: my - b * mx, b };
}
