import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { prepareZXingModule } from 'zxing-wasm/reader';
import { beforeAll, describe, expect, it } from 'vitest';
import type { GrayPicture } from '../../src/core/picture/gray.ts';
import { finderSquares } from '../../src/core/scan/finders.ts';
import { Chance } from '../../src/core/stats/chance.ts';
import { codesIn } from '../../src/workers/read-codes.ts';
import { labelPicture } from './label.ts';
import { pictureOf } from './shot.ts';

beforeAll(() => {
	const path = fileURLToPath(import.meta.resolve('zxing-wasm/reader/zxing_reader.wasm'));
	const { buffer } = new Uint8Array(readFileSync(path));
	prepareZXingModule({ overrides: { wasmBinary: buffer } });
});

/** As a screen gives it. */
function screenOf({ width, height, data }: GrayPicture): ImageData {
	const rgba = new Uint8ClampedArray(width * height * 4);
	data.forEach((shade, i) => rgba.fill(shade, 4 * i, 4 * i + 3).fill(255, 4 * i + 3, 4 * i + 4));
	return { width, height, data: rgba, colorSpace: 'srgb' } as ImageData;
}

async function seen(text: string, widthPx: number, seed: number, hidden = false) {
	const chance = new Chance(seed);
	const flat = await labelPicture(text, Math.round(widthPx * 1.5), hidden);
	return pictureOf(
		flat,
		{
			frame: { width: Math.round(widthPx * 1.3), height: widthPx },
			widthPx,
			turnDeg: chance.between(-30, 30),
			tiltDeg: chance.between(0, 30),
			tiltAxisDeg: chance.between(0, 360),
			blurPx: 0.6,
			noise: 6,
			light: { from: 0.5, to: 1, deg: chance.between(0, 360) }
		},
		chance
	);
}

/** A text of each kind of label that the app prints. */
const LABELS = [
	'HM-0101',
	'BA-0207',
	'FP-00412',
	'A2P3-9215',
	'GC-7K2MWQ9R4T',
	'GV-UNUSED',
	'PLAN-12',
	'LOT-2026-11-00042-A'
];

describe('labels before a camera', () => {
	it.each(LABELS)('%s is read from 200 to 800 px wide, turned and tilted to 30°', async (text) => {
		for (const [i, widthPx] of [200, 280, 420, 600, 800].entries()) {
			const codes = await codesIn(screenOf(await seen(text, widthPx, 31 * i + text.length)));
			expect(
				codes.map((code) => code.text),
				`${widthPx} px`
			).toContain(text);
			expect(codes.every((code) => code.text === null || code.text === text)).toBe(true);
		}
	});
	it('is known to be half hidden, and not read as another', async () => {
		for (let seed = 0; seed < 10; seed++) {
			const codes = await codesIn(screenOf(await seen('HM-0109', 560, seed, true)));
			expect(codes.length, String(seed)).toBeGreaterThan(0);
			expect(codes.every(({ text }) => text === null || text === 'HM-0109')).toBe(true);
		}
	});
	it('is not seen where there is none', async () => {
		for (let seed = 0; seed < 10; seed++) {
			const chance = new Chance(seed);
			const plain = { width: 300, height: 200, data: new Uint8ClampedArray(60_000).fill(200) };
			const picture = pictureOf(
				plain,
				{
					frame: { width: 640, height: 480 },
					widthPx: 400,
					turnDeg: 10,
					tiltDeg: 10,
					tiltAxisDeg: 40,
					noise: 20
				},
				chance
			);
			expect(finderSquares(picture)).toEqual([]);
			expect(await codesIn(screenOf(picture))).toEqual([]);
		}
	});
});
