import {
	arc,
	circle,
	crack,
	ellipse,
	mark,
	onCircle,
	path,
	rect,
	shut,
	smooth,
	specks,
	type Subject,
	words
} from './mark.ts';

const cylinder: Subject = {
	name: 'Cylinder body',
	good: 'The body is round and even; the winding is smooth.',
	faults: {
		DENTC: 'A gouge goes deep into the body.',
		FIBRE: 'Fibres stand up and are cut through.',
		RUST: 'Rust has lifted the paint.',
		HOLE: 'There is a hole in the outer layer.',
		CHEM: 'A field of the surface is eaten and dull.',
		DIRTY: 'Dirt sticks to it.',
		CRK: 'A crack runs along it.'
	},
	near: 'A scuff in the paint; nothing goes into the winding.',
	draw: (what, { amount, at }) => {
		const x = 90 + 60 * at;
		return [
			mark(
				'body',
				'M70 46H186C212 46 224 64 224 84S212 122 186 122H70C56 122 44 112 38 98H24V70H38C44 56 56 46 70 46Z'
			),
			mark('solid', rect(8, 74, 16, 20, 3)),
			...Array.from({ length: 8 }, (_, i) =>
				mark('thin', path([74 + i * 16, 50], [86 + i * 16, 118]))
			),
			...(what === 'DENTC'
				? [
						mark('solid', shut([x - 16, 46], [x, 58 + 14 * amount], [x + 14, 46])),
						mark('thin', path([x - 22, 52], [x + 20, 52]))
					]
				: []),
			...(what === 'FIBRE'
				? [
						mark(
							'shade',
							smooth(
								[
									[x - 18, 76],
									[x + 6, 70],
									[x + 22, 82],
									[x + 2, 94]
								],
								true
							)
						),
						...Array.from({ length: 9 }, (_, i) =>
							mark(
								'line',
								smooth([
									[x - 14 + i * 4, 84],
									[x - 16 + i * 5, 70 - (i % 3) * 5],
									[x - 8 + i * 5, 60 - (i % 4) * 5 * amount]
								])
							)
						)
					]
				: []),
			...(what === 'RUST'
				? [
						mark(
							'shade',
							smooth(
								[
									[150, 100],
									[176, 96],
									[196, 108],
									[180, 120],
									[152, 120]
								],
								true
							)
						),
						...specks(40, 146, 96, 54, 24, 2.2)
					]
				: []),
			...(what === 'HOLE' ? [mark('solid', circle(x, 84, 5 + 4 * amount))] : []),
			...(what === 'CHEM'
				? [
						mark(
							'shade',
							smooth(
								[
									[x - 30, 64],
									[x + 4, 58],
									[x + 34, 74],
									[x + 20, 102],
									[x - 22, 98]
								],
								true
							)
						),
						...specks(30, x - 24, 66, 50, 32, 1.4)
					]
				: []),
			...(what === 'DIRTY' ? specks(40, 80, 60, 110, 50, 2.6) : []),
			...(what === 'CRK' ? [crack([x - 30, 70], [x + 40, 98], 5)] : []),
			...(what === 'near'
				? [0, 1, 2, 3, 4].map((i) => mark('thin', path([x + i * 4, 112], [x + 8 + i * 4, 108])))
				: [])
		];
	}
};

const thread: Subject = {
	name: 'Thread and sealing face',
	good: 'Metal lies on metal all round; the thread is sharp and clean.',
	faults: {
		THRD: 'It is screwed on askew: a gap on one side, the thread flattened.',
		DIRTY: 'Grit lies in the thread.',
		ORNG: 'The groove has no ring in it.',
		COUP: 'The hand wheel stands off the face: not screwed home.',
		EMPTY: 'The valve stands open and the cylinder is empty.'
	},
	draw: (what, { amount }) => {
		const tilt = what === 'THRD' ? 6 + 8 * amount : 0;
		const off = what === 'COUP' ? 16 : 0;
		return [
			mark('body', rect(18, 46, 66, 72, 4)),
			...Array.from({ length: 6 }, (_, i) =>
				mark(
					what === 'THRD' && i < 3 ? 'thin' : 'line',
					path([84, 56 + i * 10], [108, 56 + i * 10], [112, 61 + i * 10], [84, 61 + i * 10])
				)
			),
			mark(
				'body',
				shut(
					[114 + off, 38 - tilt],
					[206 + off * 0.6, 38 + tilt],
					[206 + off * 0.6, 126 + tilt],
					[114 + off, 126 - tilt]
				)
			),
			...Array.from({ length: 6 }, (_, i) =>
				mark('thin', path([140 + i * 12 + off, 40], [140 + i * 12 + off, 124]))
			),
			...[52, 100].map((y) =>
				mark(
					what === 'ORNG' ? 'line' : 'solid',
					rect(116 + off, y + (y < 80 ? -tilt : tilt) / 2, 12, 14, what === 'ORNG' ? 0 : 5)
				)
			),
			...(what === 'DIRTY' ? specks(24, 86, 50, 26, 66, 2.2) : []),
			...(off
				? [mark('dash', path([112, 60], [130, 60])), mark('dash', path([112, 108], [130, 108]))]
				: []),
			...(what === 'EMPTY'
				? [
						mark('bold', path([50, 46], [50, 22])),
						mark('bold', path([32, 22], [68, 22])),
						words('0 bar', 50, 86, 13, true)
					]
				: [])
		];
	}
};

const hose: Subject = {
	name: 'Hose',
	good: 'The hose runs in a wide bend; its skin is whole, its ends tight.',
	faults: {
		HOSE: 'The hose is kinked.',
		CUT: 'A cut goes through the outer skin.',
		CRK: 'Cracks stand open between the folds.',
		DIRTY: 'Dirt sticks in the folds.',
		LOOSE: 'The ring at its end has slid off.'
	},
	near: 'A mark of chalk on the skin; the skin is whole.',
	draw: (what, { amount, at }) => {
		const kink = what === 'HOSE';
		const run: [number, number][] = kink
			? [
					[20, 120],
					[70, 112],
					[112, 60],
					[118 + 4 * amount, 50],
					[128, 62],
					[160, 116],
					[222, 122]
				]
			: [
					[20, 120],
					[64, 102],
					[88, 66],
					[120, 48],
					[152, 66],
					[176, 102],
					[222, 120]
				];
		const off = kink ? 8 : 16;
		const [x, y] = [118 + 30 * (at - 0.5), kink ? 80 : 56];
		return [
			mark('bold', kink ? path(...run) : smooth(run)),
			mark(
				'bold',
				kink
					? path(
							...run.map(([px, py], i): [number, number] => [
								px + (i === 3 ? 3 : 0),
								py + (i === 3 ? 4 : 16)
							])
						)
					: smooth(run.map(([px, py]): [number, number] => [120 + (px - 120) * 0.84, py + off]))
			),
			mark('solid', rect(8, what === 'LOOSE' ? 88 : 114, 14, 30, 3)),
			mark('solid', rect(218, 114, 14, 30, 3)),
			...(what === 'LOOSE'
				? [mark('dash', path([15, 118], [15, 132])), mark('line', path([20, 120], [20, 136]))]
				: []),
			...(what === 'CUT'
				? [mark('solid', shut([x - 12, y - 8], [x + 4, y + 8 + 4 * amount], [x + 12, y - 4]))]
				: []),
			...(what === 'CRK'
				? [0, 1, 2, 3, 4].map((i) => crack([x - 24 + i * 12, y - 8], [x - 22 + i * 12, y + 10], 3))
				: []),
			...(what === 'DIRTY' ? [...specks(34, 70, 52, 100, 34, 2.2)] : []),
			...(what === 'near' ? [mark('thin', path([x - 4, y], [x + 6, y + 6]))] : [])
		];
	}
};

const coupling: Subject = {
	name: 'Coupling',
	good: 'Plug and socket are pushed home; the sleeve has sprung forward over both.',
	faults: {
		COUP: 'The plug stands short of the stop; the sleeve has not sprung forward.',
		DIRTY: 'Grit lies in the socket.',
		MISS: 'The cap is gone: the outlet lies open.'
	},
	draw: (what, { amount }) => {
		const out = what === 'COUP' ? 14 + 16 * amount : 0;
		return [
			mark('body', rect(14, 62, 92, 44, 4)),
			mark('shade', rect(what === 'COUP' ? 56 : 78, 52, 48, 64, 6)),
			...[0, 1, 2, 3].map((i) =>
				mark(
					'thin',
					path(
						[(what === 'COUP' ? 64 : 86) + i * 10, 54],
						[(what === 'COUP' ? 64 : 86) + i * 10, 114]
					)
				)
			),
			...(what === 'MISS'
				? [mark('solid', ellipse(132, 84, 8, 22))]
				: [
						mark('body', rect(126 + out, 66, 92 - out, 36, 4)),
						mark('line', path([140 + out, 66], [140 + out, 102]))
					]),
			...(out
				? [
						mark('dash', path([108, 84], [126 + out, 84])),
						mark('line', path([112, 76], [112, 92])),
						mark('line', path([122 + out, 76], [122 + out, 92]))
					]
				: []),
			...(what === 'DIRTY' ? specks(26, 120, 62, 30, 44, 2.6) : [])
		];
	}
};

const ring: Subject = {
	name: 'O-ring',
	good: 'The ring lies round and whole in its groove, with a film of grease.',
	faults: { ORNG: 'The ring is cut: its ends stand apart.' },
	near: 'A little grease has squeezed out; the ring is whole.',
	draw: (what, { amount, at }) => {
		const gap = what === 'ORNG' ? 0.03 + 0.06 * amount : 0;
		return [
			mark('body', circle(120, 80, 66)),
			mark('line', circle(120, 80, 54)),
			mark('line', circle(120, 80, 40)),
			...[50, 44].map((r) =>
				mark('bold', gap ? arc(120, 80, r, at + gap, at + 1 - gap) : circle(120, 80, r))
			),
			...(what === 'near'
				? [
						mark('body', circle(...onCircle(120, 80, 56, 0.15), 4)),
						mark('body', circle(...onCircle(120, 80, 57, 0.2), 3))
					]
				: [])
		];
	}
};

const plate: Subject = {
	name: 'Two cylinders on the plate of the set',
	good: 'Both cylinders are of one kind that the plate names; the weight stays under its limit.',
	faults: {
		COMP: 'The plate names another cylinder than the two that are fitted.',
		WGHT: 'The scale stands above the limit of the plate.'
	},
	draw: (what, { at }) => [
		mark('body', rect(22, 22, 54, 96, 26)),
		mark('body', rect(84, 22, 54, 96, 26)),
		words(what === 'COMP' && at < 0.5 ? '9 L' : '6.8 L', 49, 74, 13, true),
		words(what === 'COMP' ? '9 L' : '6.8 L', 111, 74, 13, true),
		mark('body', rect(152, 34, 78, 68, 4)),
		words('2 × 6.8 L', 191, 58, 12, true),
		words('max 18 kg', 191, 84, 12, true),
		words(what === 'WGHT' ? '18.9 kg' : '17.2 kg', 80, 146, 15, true)
	]
};

const guard: Subject = {
	name: 'Protective cover',
	good: 'The cover is whole and closed over valve and gauge.',
	faults: { CRK: 'The cover is cracked.', MISS: 'There is no cover: the valve stands free.' },
	draw: (what, { at }) => [
		mark('solid', rect(108, 56, 24, 60, 4)),
		mark('solid', rect(88, 46, 64, 14, 4)),
		...(what === 'MISS'
			? []
			: [
					mark('body', 'M56 138V70C56 34 84 18 120 18S184 34 184 70V138Z'),
					mark('line', path([72, 138], [72, 72])),
					mark('line', path([168, 138], [168, 72]))
				]),
		mark('line', path([36, 138], [204, 138])),
		...(what === 'CRK' ? [crack([64, 64], [124, 120 - 20 * at], 7)] : [])
	]
};

/** Air under pressure. */
export const PRESSURE = {
	cylinder,
	thread,
	hose,
	coupling,
	ring,
	plate,
	guard
} as const;
