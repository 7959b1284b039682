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

const zip: Subject = {
	name: 'Zip',
	good: 'Bent, the chain runs in a round bow; its teeth stand close.',
	faults: {
		ZIPV: 'Bent, the chain breaks to a sharp V; teeth stand apart at its tip.',
		WAX: 'The teeth are dry and pale, with a white bloom.'
	},
	near: 'Wax has gathered beside the chain; the bow is round.',
	draw: (what, { amount }) => {
		const run = (t: number): [number, number] => {
			const x = 20 + 200 * t;
			const bow = 112 - 72 * Math.sin(Math.PI * t);
			const v = 112 - 2 * (0.5 - Math.abs(t - 0.5)) * (86 + 10 * amount);
			return [x, what === 'ZIPV' ? v : bow];
		};
		const all = Array.from({ length: 41 }, (_, i) => run(i / 40));
		return [
			mark('line', path(...all.map(([x, y]): [number, number] => [x, y + 20]))),
			mark('line', path(...all.map(([x, y]): [number, number] => [x, y - 20]))),
			...all.flatMap(([x, y], i) =>
				what === 'ZIPV' && Math.abs(i - 20) < 2
					? []
					: [mark(what === 'WAX' ? 'line' : 'solid', rect(x - 1.8, y - 7, 3.6, 14))]
			),
			...(what === 'WAX' ? specks(70, 30, 40, 180, 76, 0.9) : []),
			...(what === 'near'
				? [mark('body', ellipse(64, 88, 8, 4)), mark('body', ellipse(176, 90, 8, 4))]
				: [])
		];
	}
};

const glove: Subject = {
	name: 'Glove and its ring',
	good: 'The glove is whole; ring, O-rings and locking pin are in place.',
	faults: {
		PIN: 'The locking pin stands out.',
		ORNG: 'One of the two O-rings is not in its groove.',
		HOLE: 'A hole between two fingers.',
		GLOVE: 'The fingertips are worn through to the lining.',
		CRK: 'The ring is cracked.',
		CHEM: 'The back of the hand is swollen and blistered.',
		DIRTY: 'Dirt lies on the sealing face of the ring.'
	},
	near: 'Talc on the glove; it is whole.',
	draw: (what, { amount, at }) => [
		mark(
			'body',
			'M86 60H130C150 60 160 56 176 44C184 38 194 46 188 54L170 72H214C224 72 224 84 214 84H176H218C228 84 228 96 218 96H176H212C222 96 222 108 212 108H174H200C210 108 210 120 200 120H136C112 120 100 118 86 118Z'
		),
		mark('thin', path([172, 84], [186, 84])),
		mark('thin', path([172, 96], [186, 96])),
		mark('shade', rect(44, 50, 42, 78, 4)),
		mark('bold', path([54, 50], [54, 128])),
		...(what === 'ORNG'
			? [mark('dash', path([70, 50], [70, 128]))]
			: [mark('bold', path([70, 50], [70, 128]))]),
		...(what === 'PIN'
			? [mark('solid', rect(56, 26 - 8 * amount, 8, 18)), mark('dash', path([60, 36], [60, 50]))]
			: [mark('solid', rect(56, 44, 8, 14))]),
		...(what === 'HOLE'
			? [mark('solid', circle(180, 78 + (at < 0.5 ? 0 : 12), 4 + 2 * amount))]
			: []),
		...(what === 'GLOVE'
			? [
					[214, 78],
					[218, 90],
					[212, 102]
				].map(([x = 0, y = 0]) => mark('solid', ellipse(x, y, 6, 4)))
			: []),
		...(what === 'CRK' ? [crack([44, 74], [86, 96], 5)] : []),
		...(what === 'CHEM'
			? [
					[112, 82],
					[126, 96],
					[140, 80],
					[118, 106],
					[146, 102]
				].map(([x = 0, y = 0], i) => mark('shade', circle(x, y, 6 + (i % 3) * 2)))
			: []),
		...(what === 'DIRTY' ? specks(26, 46, 54, 38, 70, 2.2) : []),
		...(what === 'near' ? specks(30, 96, 68, 60, 44, 0.8) : [])
	]
};

const boot: Subject = {
	name: 'Boot and its joint',
	good: 'The boot is whole, the joint tight, the sole has its profile.',
	faults: {
		BOOT: 'The joint between boot and leg has opened.',
		HOLE: 'A hole goes through the sole.',
		SEAM: 'The tape over the joint lifts.'
	},
	near: 'Mud in the profile; the sole is whole.',
	draw: (what, { amount, at }) => [
		mark('body', 'M84 12H136V92C136 100 144 104 160 108L194 116C204 118 208 126 208 136H84Z'),
		mark('shade', rect(80, 136, 130, 12)),
		...Array.from({ length: 10 }, (_, i) =>
			mark('line', path([86 + i * 13, 148], [86 + i * 13, 141]))
		),
		mark('line', path([80, 44], [140, 44])),
		mark('line', path([80, 56], [140, 56])),
		...(what === 'BOOT'
			? [
					mark(
						'solid',
						smooth(
							[
								[88, 50],
								[110, 46 - 3 * amount],
								[134, 50],
								[112, 55 + 3 * amount]
							],
							true
						)
					)
				]
			: []),
		...(what === 'HOLE' ? [mark('solid', rect(104 + 50 * at, 134, 18 + 8 * amount, 16))] : []),
		...(what === 'SEAM'
			? [
					mark(
						'bold',
						smooth([
							[140, 44],
							[160, 34 - 8 * amount],
							[168, 40]
						])
					),
					mark('solid', shut([136, 45], [156, 40], [138, 55]))
				]
			: []),
		...(what === 'near' ? specks(20, 90, 140, 110, 8, 2) : [])
	]
};

const seam: Subject = {
	name: 'Seam',
	good: 'The tape lies flat over the stitches along its whole length.',
	faults: {
		SEAM: 'The tape lifts: the stitches show under it.',
		LOOSE: 'The tube has come out of its joint.',
		TEAR: 'The channel is torn from the seam.'
	},
	draw: (what, { amount, at }) => {
		const x = 80 + 60 * at;
		return [
			mark('body', rect(14, 20, 212, 120, 4)),
			mark('shade', rect(14, 66, 212, 28)),
			...(what === 'SEAM'
				? [
						mark(
							'body',
							smooth(
								[
									[x - 34, 66],
									[x, 66 - 16 * amount - 8],
									[x + 34, 66],
									[x + 34, 72],
									[x, 78],
									[x - 34, 72]
								],
								true
							)
						),
						...Array.from({ length: 8 }, (_, i) =>
							mark('line', path([x - 28 + i * 8, 80], [x - 24 + i * 8, 80]))
						),
						mark(
							'bold',
							smooth([
								[x - 38, 66],
								[x, 54 - 14 * amount],
								[x + 38, 66]
							])
						)
					]
				: []),
			...(what === 'LOOSE'
				? [
						mark('bold', rect(60, 40, 40, 80, 6)),
						mark('bold', rect(132 + 14 * amount, 64, 90, 32, 4)),
						mark('dash', path([100, 80], [132 + 14 * amount, 80]))
					]
				: []),
			...(what === 'TEAR'
				? [
						mark(
							'solid',
							shut([x - 30, 92], [x + 10, 86], [x + 40, 96], [x + 6, 104 + 6 * amount])
						),
						crack([x + 40, 96], [x + 70, 92], 4)
					]
				: [])
		];
	}
};

const suit: Subject = {
	name: 'Suit material',
	good: 'The surface is even; no hole, no swelling, no fold that stays.',
	faults: {
		HOLE: 'A hole goes through the material.',
		CHEM: 'A field is swollen, wrinkled and discoloured.',
		TEAR: 'A tear gapes in the material.',
		CRK: 'Cracks stand open along a fold.',
		DIRTY: 'Residue sticks to the surface.',
		CUT: 'A cut goes through the outer layer.'
	},
	near: 'A fold from the hanger; it smooths out under the hand.',
	draw: (what, { amount, at }) => {
		const [x, y] = [86 + 70 * at, 64 + 30 * at];
		return [
			mark(
				'body',
				smooth(
					[
						[24, 26],
						[120, 16],
						[216, 28],
						[224, 134],
						[120, 146],
						[16, 132]
					],
					true
				)
			),
			mark(
				'thin',
				smooth([
					[40, 120],
					[90, 108],
					[150, 116],
					[200, 106]
				])
			),
			...(what === 'HOLE'
				? [
						mark(
							'solid',
							smooth(
								[
									[x - 6, y],
									[x, y - 6 - 5 * amount],
									[x + 7, y - 2],
									[x + 3, y + 6]
								],
								true
							)
						)
					]
				: []),
			...(what === 'CHEM'
				? [
						mark(
							'shade',
							smooth(
								[
									[x - 40, y],
									[x, y - 30],
									[x + 44, y - 6],
									[x + 26, y + 32],
									[x - 24, y + 28]
								],
								true
							)
						),
						...[0, 1, 2, 3].map((i) =>
							mark(
								'line',
								smooth([
									[x - 26, y - 12 + i * 10],
									[x - 8, y - 18 + i * 10],
									[x + 8, y - 8 + i * 10],
									[x + 26, y - 14 + i * 10]
								])
							)
						)
					]
				: []),
			...(what === 'TEAR'
				? [
						mark(
							'solid',
							shut(
								[x - 40, y - 6],
								[x, y - 12 * amount - 4],
								[x + 38, y + 8],
								[x + 2, y + 10 * amount]
							)
						)
					]
				: []),
			...(what === 'CUT'
				? [
						mark('bold', path([x - 34, y + 12], [x + 36, y - 14])),
						mark('line', path([x - 30, y + 16], [x + 34, y - 8]))
					]
				: []),
			...(what === 'CRK'
				? [0, 1, 2, 3].map((i) => crack([x - 40 + i * 22, y - 14], [x - 34 + i * 22, y + 16], 4))
				: []),
			...(what === 'DIRTY' ? specks(50, 50, 36, 140, 90, 2.4) : []),
			...(what === 'near'
				? [
						mark(
							'thin',
							smooth([
								[60, 40],
								[110, 60],
								[180, 54]
							])
						),
						mark(
							'thin',
							smooth([
								[60, 46],
								[110, 66],
								[180, 60]
							])
						)
					]
				: [])
		];
	}
};

const hood: Subject = {
	name: 'Hood',
	good: 'The hood is whole; its neck seal lies even all round, hose locked.',
	faults: {
		TEAR: 'The neck seal is torn.',
		LOOSE: 'The hose has come out of its lock at the hood.',
		OPEN: 'The hood was unfolded: its folds are undone.',
		CRK: 'The shell is cracked.',
		BUCK: 'Its buckle is broken.'
	},
	draw: (what, { amount, at }) => [
		mark('body', 'M60 116C52 56 74 14 120 14S188 56 180 116Z'),
		mark('line', rect(78, 48, 84, 40, 14)),
		mark('shade', rect(54, 116, 132, 16, 6)),
		mark('bold', path([186, 60], [what === 'LOOSE' ? 204 : 178, 60])),
		mark(
			'bold',
			smooth([
				[what === 'LOOSE' ? 206 + 6 * amount : 180, 60],
				[220, 84],
				[222, 146]
			])
		),
		...(what === 'LOOSE' ? [mark('dash', path([180, 60], [204, 60]))] : []),
		...(what === 'TEAR'
			? [mark('solid', shut([84 + 50 * at, 115], [92 + 50 * at, 132 + 4], [102 + 50 * at, 115]))]
			: []),
		...(what === 'CRK' ? [crack([84, 28], [126 + 20 * at, 46], 5)] : []),
		...(what === 'OPEN'
			? [mark('dash', path([66, 100], [174, 30])), mark('dash', path([70, 36], [172, 104]))]
			: []),
		...(what === 'BUCK'
			? [mark('line', rect(104, 134, 14, 14)), mark('line', path([122, 136], [134, 146]))]
			: [])
	]
};

/** What goes round the body. */
export const SUIT = { zip, glove, boot, seam, suit, hood } as const;
