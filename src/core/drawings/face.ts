import {
	circle,
	crack,
	ellipse,
	mark,
	path,
	rect,
	shut,
	smooth,
	specks,
	type Subject
} from './mark.ts';

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

const lens: Subject = {
	name: 'Lens and frame',
	good: 'The lens is clear in the way of sight; the frame is shut all round, its screws there.',
	faults: {
		SCR: 'Scratches run across the way of sight.',
		CRK: 'A crack runs from the rim.',
		CHEM: 'A field of the lens is clouded and crazed.',
		BOND: 'The frame stands open on one side: a gap between lens and rubber.',
		MISS: 'A screw of the frame is missing.',
		LOOSE: 'The frame has slid: it is out of line with the lens.',
		DIRTY: 'Smears and grains lie on the lens.',
		SEAM: 'The seam beside the lens lifts.'
	},
	near: 'One short scratch beside the rim, out of the way of sight.',
	draw: (what, { amount, at }) => {
		const slide = what === 'LOOSE' ? 10 : 0;
		return [
			mark(
				'body',
				smooth(
					[
						[120, 18],
						[196, 34],
						[220, 84],
						[188, 136],
						[120, 146],
						[52, 136],
						[20, 84],
						[44, 34]
					],
					true
				)
			),
			mark(
				'bold',
				smooth(
					[
						[120 + slide, 32 + slide],
						[184 + slide, 46],
						[202 + slide, 84],
						[176 + slide, 124],
						[120 + slide, 132 + slide],
						[64 + slide, 124],
						[38 + slide, 84],
						[56 + slide, 46]
					],
					true
				)
			),
			mark(
				'thin',
				smooth(
					[
						[120, 40],
						[178, 52],
						[194, 84],
						[170, 116],
						[120, 124],
						[70, 116],
						[46, 84],
						[62, 52]
					],
					true
				)
			),
			...[
				[30, 84],
				[210, 84]
			].map(([x = 0, y = 0], i) =>
				what === 'MISS' && i === 1 ? mark('dash', circle(x, y, 5)) : mark('solid', circle(x, y, 4))
			),
			...(what === 'SCR'
				? Array.from({ length: 6 + Math.round(6 * amount) }, (_, i) =>
						mark(
							'line',
							path(
								[84 + i * 6 + 20 * at, 58 + ((i * 17) % 30)],
								[112 + i * 6 + 20 * at, 80 + ((i * 23) % 30)]
							)
						)
					)
				: []),
			...(what === 'CRK'
				? [crack([188, 56 + 40 * at], [120 - 30 * amount, 84], 7), crack([150, 76], [140, 112], 5)]
				: []),
			...(what === 'CHEM'
				? [
						mark(
							'shade',
							smooth(
								[
									[80, 60],
									[126, 52],
									[146, 82],
									[118, 108],
									[76, 96]
								],
								true
							)
						),
						...Array.from({ length: 9 }, (_, i) =>
							crack([84 + i * 6, 62 + ((i * 13) % 24)], [96 + i * 6, 84 + ((i * 7) % 16)], 3)
						)
					]
				: []),
			...(what === 'BOND'
				? [
						mark(
							'solid',
							smooth(
								[
									[184, 48],
									[206 + 6 * amount, 66],
									[204, 92],
									[194, 76]
								],
								true
							)
						)
					]
				: []),
			...(what === 'DIRTY'
				? [
						...specks(34, 74, 58, 96, 56, 2.4),
						mark(
							'thin',
							smooth([
								[82, 70],
								[110, 62],
								[140, 72]
							])
						),
						mark(
							'thin',
							smooth([
								[84, 80],
								[112, 72],
								[142, 82]
							])
						)
					]
				: []),
			...(what === 'SEAM'
				? [
						mark(
							'solid',
							smooth(
								[
									[50, 134],
									[80, 144],
									[110, 146],
									[84, 152 + 4 * amount]
								],
								true
							)
						)
					]
				: []),
			...(what === 'near' ? [mark('thin', path([176, 112], [184, 104]))] : [])
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

const insert: Subject = {
	name: 'Spectacle insert',
	good: 'The frame sits in both its holders, whole.',
	faults: {
		LOOSE: 'One arm has left its holder: the insert hangs.',
		CRK: 'The bridge is cracked.'
	},
	draw: (what, { amount }) => {
		const down = what === 'LOOSE' ? 16 + 14 * amount : 0;
		return [
			mark(
				'thin',
				smooth(
					[
						[120, 24],
						[196, 42],
						[208, 88],
						[120, 134],
						[32, 88],
						[44, 42]
					],
					true
				)
			),
			mark('solid', rect(26, 74, 10, 14)),
			mark('solid', rect(204, 74, 10, 14)),
			mark('bold', ellipse(84, 82 + down * 0.2, 30, 22)),
			mark('bold', ellipse(156, 82 + down * 0.8, 30, 22)),
			mark('bold', path([114, 80 + down * 0.4], [126, 80 + down * 0.6])),
			mark('bold', path([54, 82], [36, 82])),
			mark('bold', path([186, 82 + down], [204, 82 + down])),
			...(what === 'CRK' ? [crack([120, 68], [120, 94], 5)] : [])
		];
	}
};

/** The face side of a mask. */
export const FACE = { edge, lens, drink, insert } as const;
