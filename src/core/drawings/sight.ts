import { circle, crack, ellipse, mark, path, rect, smooth, specks, type Subject } from './mark.ts';

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

/** What one sees through. */
export const SIGHT = { lens, insert } as const;
