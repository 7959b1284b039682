import { normalFrom } from '../chance.ts';
import { type GrayPicture, grayPicture, shadeAt } from '../../src/core/picture/gray.ts';
import type { Chance } from '../../src/core/stats/chance.ts';

/** How a flat thing is held before a camera, and what the camera makes of it. */
export interface Shot {
	/** Pixels of the picture. */
	frame: { width: number; height: number };
	/** Pixels that the width of the flat thing takes, seen straight on. */
	widthPx: number;
	turnDeg: number;
	/** Leant out of the plane of the picture, about an axis in it. */
	tiltDeg: number;
	tiltAxisDeg: number;
	/** Middle of the thing, as shares of the frame. */
	middle?: { x: number; y: number };
	/** Standard deviation of the blur, px. */
	blurPx?: number;
	/** Standard deviation of the noise, in shades. */
	noise?: number;
	/** Brightness at the darker and at the lighter side, and towards where it grows. */
	light?: { from: number; to: number; deg: number };
	/** What is behind it. */
	behind?: number;
}

const rad = (deg: number) => (deg * Math.PI) / 180;
/** Distance of the camera in widths of the frame. */
const DISTANCE = 1.6;

type Vector = readonly [number, number, number];
/** Where a pixel of the frame lies on the flat thing, in its own pixels. */
export function ontoFlat(flat: { width: number; height: number }, shot: Shot) {
	const { frame, middle = { x: 0.5, y: 0.5 } } = shot;
	const focal = DISTANCE * frame.width;
	const scale = shot.widthPx / flat.width;
	const [turn, tilt, axis] = [rad(shot.turnDeg), rad(shot.tiltDeg), rad(shot.tiltAxisDeg)];
	/** Turned in the plane, then leant about the axis (Rodrigues' formula, published). */
	const lean = (x: number, y: number): Vector => {
		const [kx, ky] = [Math.cos(axis), Math.sin(axis)];
		const along = (kx * x + ky * y) * (1 - Math.cos(tilt));
		return [
			x * Math.cos(tilt) + kx * along,
			y * Math.cos(tilt) + ky * along,
			(kx * y - ky * x) * Math.sin(tilt)
		];
	};
	const across = lean(Math.cos(turn) * scale, Math.sin(turn) * scale);
	const down = lean(-Math.sin(turn) * scale, Math.cos(turn) * scale);
	const [mx, my] = [middle.x * frame.width, middle.y * frame.height];
	return {
		/** Of a pixel of the frame. */
		flatAt(u: number, v: number): { x: number; y: number } {
			// u (X a_z + Y b_z + f) = f (X a_x + Y b_x), the same for v: two equations for X and Y.
			const [du, dv] = [u - mx, v - my];
			const [a, b] = [focal * across[0] - du * across[2], focal * down[0] - du * down[2]];
			const [c, d] = [focal * across[1] - dv * across[2], focal * down[1] - dv * down[2]];
			const det = a * d - b * c;
			const [X, Y] = [(focal * (du * d - dv * b)) / det, (focal * (dv * a - du * c)) / det];
			return { x: X + flat.width / 2, y: Y + flat.height / 2 };
		}
	};
}

/** Blurs along rows and columns with a bell curve. */
function blurred(picture: GrayPicture, deviationPx: number): GrayPicture {
	const reach = Math.ceil(deviationPx * 3);
	const weights = Array.from({ length: 2 * reach + 1 }, (_, i) =>
		Math.exp(-((i - reach) ** 2) / (2 * deviationPx ** 2))
	);
	const sum = weights.reduce((a, b) => a + b, 0);
	const pass = (from: GrayPicture, stepX: number, stepY: number): GrayPicture => {
		const to = grayPicture(from.width, from.height);
		for (let y = 0; y < from.height; y++)
			for (let x = 0; x < from.width; x++) {
				let total = 0;
				for (let i = -reach; i <= reach; i++) {
					const cx = Math.max(0, Math.min(from.width - 1, x + i * stepX));
					const cy = Math.max(0, Math.min(from.height - 1, y + i * stepY));
					total += (weights[i + reach] ?? 0) * (from.data[cy * from.width + cx] ?? 0);
				}
				to.data[y * from.width + x] = total / sum;
			}
		return to;
	};
	return pass(pass(picture, 1, 0), 0, 1);
}

/** What the camera sees of a flat thing. */
export function pictureOf(flat: GrayPicture, shot: Shot, chance: Chance): GrayPicture {
	const { width, height } = shot.frame;
	const { flatAt } = ontoFlat(flat, shot);
	const { from, to, deg } = shot.light ?? { from: 1, to: 1, deg: 0 };
	const [lx, ly] = [Math.cos(rad(deg)), Math.sin(rad(deg))];
	const seen = grayPicture(width, height);
	for (let v = 0; v < height; v++)
		for (let u = 0; u < width; u++) {
			const { x, y } = flatAt(u + 0.5, v + 0.5);
			const on = x >= 0 && y >= 0 && x < flat.width && y < flat.height;
			const shade = on ? shadeAt(flat, x - 0.5, y - 0.5) : (shot.behind ?? 96);
			const along = 0.5 + ((u / width - 0.5) * lx + (v / height - 0.5) * ly);
			seen.data[v * width + u] = shade * (from + (to - from) * along);
		}
	const soft = shot.blurPx ? blurred(seen, shot.blurPx) : seen;
	const { noise } = shot;
	if (noise)
		for (let i = 0; i < soft.data.length; i++)
			soft.data[i] = (soft.data[i] ?? 0) + noise * normalFrom(chance);
	return soft;
}
