import { circle, crack, mark, path, rect, shut, smooth, specks, type Subject } from './mark.ts';

type Point = [number, number];
const EDGE: Point[] = [
	[120, 10],
	[158, 26],
	[186, 70],
	[180, 116],
	[146, 148],
	[120, 152],
	[94, 148],
	[60, 116],
	[54, 70],
	[82, 26]
];
const inner = (grow: number): Point[] =>
	EDGE.map(([x, y]) => [120 + (x - 120) * grow, 84 + (y - 84) * grow]);

const edge: Subject = {
	name: 'Sealing edge',
	good: 'The edge runs smooth and even all round, whole and clean.',
	faults: {
		TEAR: 'A nick goes through the edge.',
		DIST: 'The edge is bent out of its line on one side.',
		DIRTY: 'Grains and a hair lie on the edge.',
		CRK: 'Stretched, cracks open in the rubber.',
		AGE: 'Fine cracks show in the surface; they do not open.',
		MISS: 'A piece of the edge is gone.',
		LOOSE: 'The edge has come off its frame on one side.',
		HOLE: 'There is a hole beside the edge.'
	},
	near: 'The edge carries a moulding line; it is whole.',
	draw: (what, { amount, at }) => {
		const low = at < 0.5;
		const outer = EDGE.map(([x, y], i): Point =>
			(what === 'DIST' && (low ? i === 3 : i === 7)) ||
			(what === 'DIST' && (low ? i === 2 : i === 8))
				? [120 + (x - 120) * (0.72 - 0.14 * amount), y + 6]
				: [x, y]
		);
		const [nx, ny]: Point = low ? [184, 92] : [56, 92];
		const s = low ? -1 : 1;
		return [
			mark('shade', smooth(outer, true)),
			mark(
				'body',
				smooth(
					what === 'DIST'
						? outer.map(([x, y]): Point => [120 + (x - 120) * 0.76, 84 + (y - 84) * 0.78])
						: inner(0.78),
					true
				)
			),
			mark('thin', path([120, 46], [110, 92], [130, 92])),
			mark(
				'thin',
				smooth([
					[96, 118],
					[120, 124],
					[144, 118]
				])
			),
			...(what === 'TEAR'
				? [
						mark(
							'body',
							shut(
								[nx - s * 4, ny - 5 - 4 * amount],
								[nx + s * (20 + 10 * amount), ny],
								[nx - s * 4, ny + 5 + 4 * amount]
							)
						)
					]
				: []),
			...(what === 'MISS' ? [mark('body', rect(low ? 158 : 50, ny - 14, 32, 30))] : []),
			...(what === 'HOLE' ? [mark('solid', circle(nx + s * 16, ny + 10, 4))] : []),
			...(what === 'DIRTY'
				? [
						...specks(22, low ? 160 : 56, 70, 22, 44, 2.2),
						mark(
							'line',
							smooth([
								[nx - 6, 62],
								[nx + s * 8, 74],
								[nx - 2, 86],
								[nx + s * 12, 96]
							])
						)
					]
				: []),
			...(what === 'CRK'
				? [0, 1, 2].map((i) =>
						mark(
							'solid',
							shut(
								[nx + s * 4, ny - 22 + i * 18],
								[nx + s * 24, ny - 24 + i * 18],
								[nx + s * 14, ny - 18 + i * 18 + 3 * amount]
							)
						)
					)
				: []),
			...(what === 'CRK'
				? [
						mark('dash', path([nx - s * 8, ny - 34], [nx - s * 22, ny - 44])),
						mark('dash', path([nx - s * 8, ny + 34], [nx - s * 22, ny + 44]))
					]
				: []),
			...(what === 'AGE'
				? Array.from({ length: 9 }, (_, i) =>
						mark(
							'thin',
							path(
								[nx + s * (4 + (i % 3) * 7), ny - 24 + i * 6],
								[nx + s * (10 + (i % 3) * 7), ny - 22 + i * 6]
							)
						)
					)
				: []),
			...(what === 'LOOSE'
				? [
						mark(
							'body',
							smooth(
								[
									[low ? 168 : 72, 56],
									[low ? 214 : 26, 74],
									[low ? 212 : 28, 104],
									[low ? 170 : 70, 124],
									[low ? 182 : 58, 90]
								],
								true
							)
						),
						mark('dash', path([nx, ny], [nx - s * 26, ny]))
					]
				: []),
			...(what === 'near' ? [mark('thin', path([120, 12], [120, 26]))] : [])
		];
	}
};

const drink: Subject = {
	name: 'Drink tube and coupling',
	good: 'The tube runs round and open from coupling to mouth, its ring in place.',
	faults: {
		DRINK: 'The tube is kinked flat.',
		ORNG: 'The groove of the coupling is empty: no ring.',
		MISS: 'The tube is not there: only the coupling.',
		CRK: 'The tube is cracked at the coupling.'
	},
	draw: (what, { amount }) => [
		mark('body', rect(24, 94, 40, 34, 4)),
		mark('line', path([64, 102], [72, 102], [72, 120], [64, 120])),
		...(what === 'ORNG'
			? [mark('line', rect(40, 94, 8, 34))]
			: [mark('solid', rect(40, 91, 8, 40, 3))]),
		...(what === 'MISS'
			? []
			: what === 'DRINK'
				? [
						mark(
							'bold',
							smooth([
								[72, 106],
								[110, 100],
								[132, 70],
								[138, 62]
							])
						),
						mark(
							'bold',
							smooth([
								[72, 116],
								[116, 112],
								[136 + 4 * amount, 74],
								[141, 63]
							])
						),
						mark(
							'bold',
							smooth([
								[138, 62],
								[160, 84],
								[206, 76]
							])
						),
						mark(
							'bold',
							smooth([
								[141, 63],
								[164, 74],
								[206, 66]
							])
						)
					]
				: [
						mark(
							'bold',
							smooth([
								[72, 106],
								[116, 100],
								[150, 60],
								[206, 46]
							])
						),
						mark(
							'bold',
							smooth([
								[72, 116],
								[122, 110],
								[156, 70],
								[206, 57]
							])
						),
						mark('line', path([206, 46], [206, 57]))
					]),
		...(what === 'CRK' ? [crack([76, 100], [90, 120], 5), crack([84, 100], [94, 116], 4)] : [])
	]
};

/** The face side of a mask. */
export const FACE = { edge, drink } as const;
