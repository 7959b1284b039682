/** What a drawing is made of. It is 240 wide and 160 high; ink tells what a stroke stands for, never whether it is good. */
export type Ink =
	/** An edge. */
	| 'line'
	/** What is meant: the body of the thing. */
	| 'bold'
	/** What lies behind, folds, hatching. */
	| 'thin'
	/** What is not there, or moves. */
	| 'dash'
	/** A body, filled with paper. */
	| 'body'
	/** A body in its shadow. */
	| 'shade'
	/** Solid: rubber in section, dirt, a needle. */
	| 'solid';

export type Mark =
	{ d: string; ink: Ink } | { text: string; x: number; y: number; size: number; mono: boolean };

/** How a variant differs: how far it has gone and where it sits, each from 0 to 1. */
export interface Vary {
	amount: number;
	at: number;
}

/** A thing that is looked at, with everything that can be seen to be wrong with it. */
export interface Subject {
	name: string;
	/** What is seen where it is good, in words. */
	good: string;
	/** What is seen of each fault, by its code. */
	faults: Readonly<Record<string, string>>;
	/** What looks like a fault and is none. */
	near?: string;
	/** @param what a code of the faults, "near", or null where it is good */
	draw(what: string | null, vary: Vary): Mark[];
}

export const PLAIN: Vary = { amount: 0.7, at: 0.3 };

type Point = readonly [x: number, y: number];
const n = (value: number) => Number(value.toFixed(1));
const p = ([x, y]: Point) => `${n(x)} ${n(y)}`;

export const mark = (ink: Ink, d: string): Mark => ({ d, ink });
export const words = (text: string, x: number, y: number, size = 13, mono = false): Mark => ({
	text,
	x,
	y,
	size,
	mono
});

/** Straight from point to point. */
export const path = (...points: Point[]): string => `M${points.map(p).join('L')}`;
export const shut = (...points: Point[]): string => `${path(...points)}Z`;
export const circle = (x: number, y: number, r: number): string => ellipse(x, y, r, r);
export const ellipse = (x: number, y: number, rx: number, ry: number): string =>
	`M${n(x - rx)} ${n(y)}a${n(rx)} ${n(ry)} 0 1 0 ${n(2 * rx)} 0a${n(rx)} ${n(ry)} 0 1 0 ${n(-2 * rx)} 0Z`;
export const rect = (x: number, y: number, w: number, h: number, r = 0): string =>
	r === 0
		? shut([x, y], [x + w, y], [x + w, y + h], [x, y + h])
		: `M${n(x + r)} ${n(y)}h${n(w - 2 * r)}a${r} ${r} 0 0 1 ${r} ${r}v${n(h - 2 * r)}a${r} ${r} 0 0 1 ${-r} ${r}h${n(2 * r - w)}a${r} ${r} 0 0 1 ${-r} ${-r}v${n(2 * r - h)}a${r} ${r} 0 0 1 ${r} ${-r}Z`;

/** A smooth line through points (Catmull-Rom as Bézier curves). */
export function smooth(points: readonly Point[], closed = false): string {
	const of = (i: number): Point => {
		const at = closed
			? (i + points.length) % points.length
			: Math.min(points.length - 1, Math.max(0, i));
		return points[at] ?? [0, 0];
	};
	let d = `M${p(of(0))}`;
	for (let i = 0; i < (closed ? points.length : points.length - 1); i++) {
		const [a, b, c, e] = [of(i - 1), of(i), of(i + 1), of(i + 2)];
		d += `C${p([b[0] + (c[0] - a[0]) / 6, b[1] + (c[1] - a[1]) / 6])} ${p([c[0] - (e[0] - b[0]) / 6, c[1] - (e[1] - b[1]) / 6])} ${p(c)}`;
	}
	return closed ? `${d}Z` : d;
}

/** A point on a circle, by turns from the top clockwise. */
export const onCircle = (x: number, y: number, r: number, turn: number, ry = r): Point => [
	x + r * Math.sin(turn * 2 * Math.PI),
	y - ry * Math.cos(turn * 2 * Math.PI)
];

/** Part of a circle, by turns from the top clockwise. */
export function arc(x: number, y: number, r: number, from: number, to: number, ry = r): string {
	const [a, b] = [onCircle(x, y, r, from, ry), onCircle(x, y, r, to, ry)];
	return `M${p(a)}A${n(r)} ${n(ry)} 0 ${to - from > 0.5 ? 1 : 0} 1 ${p(b)}`;
}

/** Numbers from 0 to 1 that are always the same for the same place in a drawing. */
export const scatter = (i: number): number => {
	const s = Math.sin(i * 127.1 + 11.7) * 43758.5453;
	return s - Math.floor(s);
};

/** Dots strewn over a box. */
export const specks = (count: number, x: number, y: number, w: number, h: number, r = 2): Mark[] =>
	Array.from({ length: count }, (_, i) =>
		mark('solid', circle(x + scatter(i) * w, y + scatter(i + 51) * h, r * (0.5 + scatter(i + 99))))
	);

/** A crack that runs from a point: a jagged line that grows thinner. */
export function crack(from: Point, to: Point, jag = 5): Mark {
	const points = Array.from({ length: 6 }, (_, i): Point => {
		const t = i / 5;
		const side = i % 2 === 0 ? 1 : -1;
		const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
		const length = Math.hypot(dx, dy) || 1;
		const off = i === 0 || i === 5 ? 0 : side * jag;
		return [from[0] + dx * t - (dy / length) * off, from[1] + dy * t + (dx / length) * off];
	});
	return mark('line', path(...points));
}
