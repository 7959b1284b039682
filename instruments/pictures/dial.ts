import sharp from 'sharp';
import { angleAtBar, type GaugeDial, marksOf } from '../../src/core/dial/model.ts';
import { type GrayPicture, shadeAt } from '../../src/core/picture/gray.ts';
import type { Chance } from '../../src/core/stats/chance.ts';
import { pictureOf, type Shot } from './shot.ts';

/** A gauge and how it looks: dark print on a light face, or the other way round. */
export interface ShownDial extends GaugeDial {
	face: 'light' | 'dark';
}

/** What is wrong with a dial, or in the way. */
export interface DialHarm {
	/** A reflection on the glass: middle and size as shares of the radius. */
	glare?: { x: number; y: number; size: number; strength: number };
	/** Cracks of the glass. */
	cracks?: number;
}

const SIZE = 800;
const R = SIZE / 2 - 20;
/** How far the needle stands off its dial, as a share of the radius. */
const LIFT = 0.035;

const at = (deg: number, share: number): [number, number] => [
	SIZE / 2 + R * share * Math.sin((deg * Math.PI) / 180),
	SIZE / 2 - R * share * Math.cos((deg * Math.PI) / 180)
];
const line = (deg: number, from: number, to: number, width: number, colour: string) => {
	const [[x1, y1], [x2, y2]] = [at(deg, from), at(deg, to)];
	return `<line x1="${x1}" y1="${y1}" x2="${x2}" y2="${y2}" stroke="${colour}" stroke-width="${width}"/>`;
};

/** The face of a gauge that shows a figure. Its looks are drawn from chance. */
function faceSvg(dial: ShownDial, bar: number, chance: Chance, shift: [number, number]): string {
	const dark = dial.face === 'dark';
	const paper = chance.int(215, 250);
	const [face, ink] = dark
		? ['#23262a', '#e8e8e0']
		: [`rgb(${paper},${paper},${paper})`, '#161616'];
	const [outer, small, large] = [
		chance.between(0.86, 0.93),
		chance.between(0.05, 0.08),
		chance.between(0.11, 0.16)
	];
	const marks = marksOf(dial)
		.map(({ bar: figure, large: isLarge }) =>
			line(angleAtBar(dial, figure), outer, outer - (isLarge ? large : small), isLarge ? 9 : 5, ink)
		)
		.join('');
	const letters = chance.between(40, 52);
	const figures = marksOf(dial)
		.filter(({ large: isLarge }) => isLarge)
		.map(({ bar: figure }) => {
			const [x, y] = at(angleAtBar(dial, figure), outer - large - 0.13);
			return `<text x="${x}" y="${y + letters / 3}" font-size="${letters}" text-anchor="middle" font-family="sans-serif" fill="${ink}">${figure}</text>`;
		})
		.join('');
	const arc =
		chance.next() < 0.5
			? `<circle cx="${SIZE / 2}" cy="${SIZE / 2}" r="${R * outer}" fill="none" stroke="${ink}" stroke-width="3" stroke-dasharray="${(R * outer * Math.PI * 3) / 2} 9999" transform="rotate(${dial.from.deg - 90} ${SIZE / 2} ${SIZE / 2})"/>`
			: '';
	const angle = angleAtBar(dial, bar);
	const [tip, tail, wide] = [
		chance.between(outer - 0.14, outer - 0.03),
		chance.between(0.12, 0.26),
		chance.between(9, 16)
	];
	const needle = `<g transform="translate(${shift[0]},${shift[1]}) rotate(${angle} ${SIZE / 2} ${SIZE / 2})" fill="${ink}">
<polygon points="${SIZE / 2 - wide / 2},${SIZE / 2 + R * tail} ${SIZE / 2 + wide / 2},${SIZE / 2 + R * tail} ${SIZE / 2 + wide / 4},${SIZE / 2 - R * tip} ${SIZE / 2 - wide / 4},${SIZE / 2 - R * tip}"/>
<circle cx="${SIZE / 2}" cy="${SIZE / 2}" r="${chance.between(28, 48)}"/></g>`;
	const case_ = chance.int(20, 120);
	return `<svg xmlns="http://www.w3.org/2000/svg" width="${SIZE}" height="${SIZE}">
<circle cx="${SIZE / 2}" cy="${SIZE / 2}" r="${SIZE / 2}" fill="rgb(${case_},${case_},${case_})"/>
<circle cx="${SIZE / 2}" cy="${SIZE / 2}" r="${R}" fill="${face}"/>${arc}${marks}${figures}
<text x="${SIZE / 2}" y="${SIZE / 2 + R * 0.42}" font-size="44" text-anchor="middle" font-family="sans-serif" fill="${ink}">bar</text>${needle}</svg>`;
}

/** A dial that shows a figure, before a camera. */
export async function dialPicture(
	dial: ShownDial,
	bar: number,
	shot: Shot,
	chance: Chance,
	harm: DialHarm = {}
): Promise<GrayPicture> {
	// A needle stands off its dial: who looks from the side sees it moved.
	const [turn, axis] = [(shot.turnDeg * Math.PI) / 180, (shot.tiltAxisDeg * Math.PI) / 180];
	const off = R * LIFT * Math.tan((shot.tiltDeg * Math.PI) / 180);
	const [sx, sy] = [off * Math.sin(axis), -off * Math.cos(axis)];
	const shift: [number, number] = [
		sx * Math.cos(turn) + sy * Math.sin(turn),
		-sx * Math.sin(turn) + sy * Math.cos(turn)
	];
	const { data, info } = await sharp(Buffer.from(faceSvg(dial, bar, chance, shift)))
		.flatten({ background: '#6a6a6a' })
		.grayscale()
		.raw()
		.toBuffer({ resolveWithObject: true });
	let flat: GrayPicture = {
		width: info.width,
		height: info.height,
		data: new Uint8ClampedArray(data)
	};
	// Half of the pixels for a small picture: none of it is skipped.
	while (flat.width > 2.4 * shot.widthPx) flat = halved(flat);
	for (let i = 0; i < (harm.cracks ?? 0); i++) crack(flat, chance);
	if (harm.glare) shine(flat, harm.glare);
	return pictureOf(flat, { ...shot, behind: chance.int(40, 200) }, chance);
}

function halved(picture: GrayPicture): GrayPicture {
	const [width, height] = [picture.width >> 1, picture.height >> 1];
	const data = new Uint8ClampedArray(width * height);
	for (let y = 0; y < height; y++)
		for (let x = 0; x < width; x++)
			data[y * width + x] = shadeAt(picture, 2 * x + 0.5, 2 * y + 0.5);
	return { width, height, data };
}

/** A bright line from edge to edge, with its shadow. */
function crack(flat: GrayPicture, chance: Chance): void {
	const [cx, cy, radius] = [flat.width / 2, flat.height / 2, flat.width / 2];
	const [from, to] = [chance.between(0, 360), chance.between(120, 240)];
	const end = (deg: number): [number, number] => [
		cx + radius * Math.sin((deg * Math.PI) / 180),
		cy - radius * Math.cos((deg * Math.PI) / 180)
	];
	const [[x1, y1], [x2, y2]] = [end(from), end(from + to)];
	const steps = flat.width * 2;
	for (let i = 0; i <= steps; i++) {
		const [x, y] = [x1 + ((x2 - x1) * i) / steps, y1 + ((y2 - y1) * i) / steps];
		const wide = Math.max(1, Math.round(flat.width / 300));
		for (let k = -wide; k <= wide; k++) {
			const place = Math.round(y + k) * flat.width + Math.round(x);
			flat.data[place] = (flat.data[place] ?? 0) + (k < 0 ? 70 : -110);
		}
	}
}

function shine(flat: GrayPicture, { x, y, size, strength }: NonNullable<DialHarm['glare']>): void {
	const radius = flat.width / 2;
	for (let v = 0; v < flat.height; v++)
		for (let u = 0; u < flat.width; u++) {
			const far = Math.hypot(u - radius * (1 + x), v - radius * (1 + y)) / (radius * size);
			if (far < 2.5)
				flat.data[v * flat.width + u] =
					(flat.data[v * flat.width + u] ?? 0) + 255 * strength * Math.exp(-far * far);
		}
}
