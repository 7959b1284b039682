import { type GrayPicture, type Point } from '../picture/gray.ts';

/** Widths of the five parts of a finder of a QR code. Published: ISO/IEC 18004; from memory. */
const PARTS = [1, 1, 3, 1, 1] as const;
/** How far a part may be off, in modules: what a camera blurs and tilts. */
const OFF = 0.6;
/** A pixel is dark when it is so much below the mean about it. */
const DARK = 0.8;
/** Smaller ones are noise, px a module. */
const LEAST_PX = 2.5;

/** Dark pixels, by the mean of a window about each (published: J. Bernsen's and D. Bradley's local thresholds; from memory). */
function darkOf({ width, height, data }: GrayPicture): Uint8Array {
	const sums = new Float64Array((width + 1) * (height + 1));
	for (let y = 0; y < height; y++) {
		let row = 0;
		for (let x = 0; x < width; x++) {
			row += data[y * width + x] ?? 0;
			sums[(y + 1) * (width + 1) + x + 1] = (sums[y * (width + 1) + x + 1] ?? 0) + row;
		}
	}
	const reach = Math.max(8, Math.round(width / 16));
	const dark = new Uint8Array(width * height);
	for (let y = 0; y < height; y++)
		for (let x = 0; x < width; x++) {
			const [l, r] = [Math.max(0, x - reach), Math.min(width, x + reach + 1)];
			const [t, b] = [Math.max(0, y - reach), Math.min(height, y + reach + 1)];
			const at = (cx: number, cy: number) => sums[cy * (width + 1) + cx] ?? 0;
			const mean = (at(r, b) - at(l, b) - at(r, t) + at(l, t)) / ((r - l) * (b - t));
			dark[y * width + x] = (data[y * width + x] ?? 0) < DARK * mean ? 1 : 0;
		}
	return dark;
}

/** Module of a finder whose five runs these are, px; null: they are none. */
function moduleOf(runs: readonly number[]): number | null {
	const module = runs.reduce((a, b) => a + b, 0) / 7;
	if (module < LEAST_PX) return null;
	return PARTS.every(
		(part, i) => Math.abs((runs[i] ?? 0) / module - part) <= OFF * Math.max(1, part / 2)
	)
		? module
		: null;
}

/** Runs through a dark middle, both ways along a line: two on each side of it. */
function runsThrough(darkAt: (step: number) => number | undefined): number[] | null {
	const runs = [0, 0, 0, 0, 0];
	for (const way of [-1, 1]) {
		let step = way === 1 ? 1 : 0;
		for (const [part, wanted] of [
			[2, 1],
			[2 + way, 0],
			[2 + 2 * way, 1]
		] as const)
			while (darkAt(step) === wanted) {
				runs[part] = (runs[part] ?? 0) + 1;
				step += way;
			}
	}
	return runs.every((run) => run > 0) ? runs : null;
}

/**
 * The corner squares of QR codes in a picture. A code that is half hidden still shows one or two of its three: enough to
 * say so, and never to read it.
 * @returns the middle of each, px
 */
export function finderSquares(picture: GrayPicture): Point[] {
	const { width, height } = picture;
	const dark = darkOf(picture);
	const found: (Point & { module: number })[] = [];
	for (let y = 2; y < height; y += 2) {
		let x = 0;
		while (x < width) {
			// The dark middle of five runs: where a dark run begins, tried once.
			while (x < width && !dark[y * width + x]) x++;
			const from = x;
			while (x < width && dark[y * width + x]) x++;
			if (x - from < 3) continue;
			const middle = Math.floor((from + x) / 2);
			const square = squareAt(dark, width, height, { x: middle, y });
			if (
				square &&
				!found.some((one) => Math.hypot(one.x - square.x, one.y - square.y) < 3 * one.module)
			)
				found.push(square);
		}
	}
	return found.map(({ x, y }) => ({ x, y }));
}

function squareAt(
	dark: Uint8Array,
	width: number,
	height: number,
	{ x, y }: Point
): (Point & { module: number }) | null {
	const at = (cx: number, cy: number) =>
		cx < 0 || cy < 0 || cx >= width || cy >= height ? undefined : dark[cy * width + cx];
	const across = runsThrough((step) => at(x + step, y));
	const wide = across && moduleOf(across);
	if (!wide) return null;
	const down = runsThrough((step) => at(x, y + step));
	const tall = down && moduleOf(down);
	if (!tall || Math.max(wide, tall) > 1.6 * Math.min(wide, tall)) return null;
	return { x, y, module: (wide + tall) / 2 };
}
