import { levenbergMarquardt } from 'ml-levenberg-marquardt';
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

/**
 * Tells a steady leak from settling: a straight line, and an exponential on top where the data ask for it.
 * Levenberg-Marquardt by the library, started from the straight line.
 */
export function fitDecay(points: readonly { s: number; pa: number }[]): DecayFit {
	const span = Math.max(1e-9, (points.at(-1)?.s ?? 1) - (points[0]?.s ?? 0));
	const from = points[0]?.s ?? 0;
	const grouped = group(points.map((p) => ({ x: (p.s - from) / span, y: p.pa })));
	const scale = Math.max(1, Math.max(...grouped.map((p) => Math.abs(p.y))));
	const data = { x: grouped.map((p) => p.x), y: grouped.map((p) => p.y / scale) };
	const line = straightLine(grouped.map((p) => ({ x: p.x, y: p.y / scale })));
	const curve = (parameters: number[]) => {
		const [a = 0, b = 0, c = 0, tau = 1] = parameters;
		return (x: number) => a + b * x + c * Math.exp(-x / tau);
	};
	const squares = (f: (x: number) => number) =>
		data.x.reduce((sum, x, i) => sum + ((data.y[i] ?? 0) - f(x)) ** 2, 0);
	const plain = (x: number) => line.a + line.b * x;
	let best = { a: line.a, b: line.b, c: 0, tau: 1, squares: squares(plain) };
	for (const tau of [0.04, 0.12, 0.35]) {
		const rise = (data.y[0] ?? 0) - plain(data.x[0] ?? 0);
		const { parameterValues } = levenbergMarquardt(data, curve, {
			initialValues: [line.a, line.b, rise || 1e-3, tau],
			minValues: [-2, -2, -2, 0.015],
			maxValues: [2, 2, 2, 0.6],
			damping: 1e-2,
			maxIterations: 40,
			gradientDifference: 1e-6
		});
		const [a = 0, b = 0, c = 0, t = 1] = parameterValues;
		const found = squares(curve(parameterValues));
		if (Number.isFinite(found) && found < best.squares * WORTH)
			best = { a, b, c, tau: t, squares: found };
	}
	const f = curve([best.a, best.b, best.c, best.tau]);
	const off = points.map((p) => Math.abs(p.pa - f((p.s - from) / span) * scale));
	return {
		levelPa: best.a * scale,
		slopePaPerS: (best.b * scale) / span,
		settlingPa: best.c * scale,
		settlingS: best.tau * span,
		noisePa: median(off) * MAD_TO_SD
	};
}

function group(points: { x: number; y: number }[]): { x: number; y: number }[] {
	const size = Math.ceil(points.length / MOST_POINTS);
	if (size <= 1) return points;
	return Array.from({ length: Math.ceil(points.length / size) }, (_, i) => {
		const part = points.slice(i * size, (i + 1) * size);
		const mean = (key: 'x' | 'y') => part.reduce((sum, p) => sum + p[key], 0) / part.length;
		return { x: mean('x'), y: mean('y') };
	});
}

/** Least squares line y = a + b·x; level for points of one x. */
export function straightLine(points: readonly { x: number; y: number }[]): {
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
