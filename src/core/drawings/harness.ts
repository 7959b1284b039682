import {
	circle,
	crack,
	mark,
	type Mark,
	path,
	rect,
	shut,
	smooth,
	specks,
	type Subject
} from './mark.ts';

const band = (
	points: [number, number][],
	width: number,
	ink: 'body' | 'shade' = 'body'
): Mark[] => {
	const [up, down] = [
		points.map(([x, y]): [number, number] => [x, y - width / 2]),
		points.map(([x, y]): [number, number] => [x, y + width / 2]).reverse()
	];
	return [mark(ink, `${smooth(up)}L${down[0]?.join(' ')}${smooth(down).replace(/^M[^C]*/, '')}Z`)];
};

const strap: Subject = {
	name: 'Strap',
	good: 'The strap lies flat, its edges whole; let go, it is back to its length.',
	faults: {
		CUT: 'The edge is cut and frayed.',
		TEAR: 'The strap is torn half through.',
		ELAS: 'Let go, it stays long: it hangs in waves.',
		CRK: 'The rubber is cracked where it bends.',
		STRAP: 'The closed strap has slipped: its end hangs out of the clasp.',
		EXT: 'The strap is still pulled tight: a short end at the buckle.'
	},
	near: 'Its colour has faded; edges and stretch are whole.',
	draw: (what, { amount, at }) => {
		const x = 90 + 60 * at;
		const wave: [number, number][] =
			what === 'ELAS'
				? [
						[20, 60],
						[50, 90],
						[80, 58],
						[110, 94],
						[140, 60],
						[170, 96],
						[200, 62],
						[222, 86]
					]
				: [
						[20, 80],
						[80, 78],
						[140, 82],
						[222, 80]
					];
		return [
			...band(wave, 34, what === 'near' ? 'body' : 'shade'),
			...(what === 'ELAS'
				? [
						mark('dash', path([20, 130], [150, 130])),
						mark('line', path([150, 124], [150, 136])),
						mark('line', path([20, 124], [20, 136]))
					]
				: [mark('thin', path([24, 70], [218, 70])), mark('thin', path([24, 90], [218, 90]))]),
			...(what === 'CUT'
				? [
						mark('body', shut([x - 10, 60], [x, 70 + 8 * amount], [x + 10, 60])),
						...[0, 1, 2, 3, 4, 5, 6].map((i) =>
							mark('line', path([x - 24 + i * 8, 98], [x - 28 + i * 8, 108 + (i % 3) * 4]))
						)
					]
				: []),
			...(what === 'TEAR'
				? [
						mark('body', shut([x - 14, 58], [x - 2, 78 + 8 * amount], [x + 10, 58])),
						...[0, 1, 2].map((i) =>
							mark('line', path([x - 5 + i * 4, 62], [x - 2, 78 + 8 * amount]))
						)
					]
				: []),
			...(what === 'CRK'
				? [0, 1, 2, 3].map((i) => crack([x - 20 + i * 14, 66], [x - 16 + i * 14, 94], 3))
				: []),
			...(what === 'STRAP'
				? [
						mark('body', rect(60, 54, 26, 52, 4)),
						mark('solid', shut([30, 66], [60, 70], [60, 92], [34, 104])),
						mark('dash', path([92, 116], [150, 116]))
					]
				: []),
			...(what === 'EXT'
				? [
						mark('bold', rect(150, 52, 18, 56, 4)),
						mark('body', rect(168, 66, 54, 30)),
						mark('dash', path([168, 70], [222, 70])),
						mark('dash', path([168, 92], [222, 92]))
					]
				: [])
		];
	}
};

const buckle: Subject = {
	name: 'Buckle',
	good: 'The buckle is whole and holds the strap with both bars.',
	faults: {
		BUCK: 'One bar of the buckle is broken: the strap slips through.',
		FREE: 'The valve on the belt does not shut: its lever stands half way.',
		LOOSE: 'It has come off its stud.'
	},
	draw: (what, { amount }) => [
		mark('shade', rect(8, 62, 90, 36)),
		mark('body', rect(84, 42, 72, 76, 8)),
		mark('line', rect(98, 54, 44, 18, 3)),
		mark('line', rect(98, 88, 44, 18, 3)),
		...(what === 'BUCK'
			? [
					mark('body', rect(112, 66, 16 + 10 * amount, 30)),
					mark('line', path([110, 72], [114, 80], [110, 88])),
					mark(
						'line',
						path([132 + 10 * amount, 72], [128 + 10 * amount, 80], [132 + 10 * amount, 88])
					),
					mark(
						'shade',
						path([142, 66], [168, 72], [196, 112], [186, 118], [160, 96], [142, 94]) + 'Z'
					)
				]
			: [mark('shade', rect(142, 62, 90, 36))]),
		...(what === 'FREE'
			? [
					mark('bold', path([120, 80], [150, 50])),
					mark('dash', path([120, 80], [160, 80])),
					mark('solid', circle(120, 80, 6))
				]
			: []),
		...(what === 'LOOSE'
			? [mark('solid', circle(196, 30, 8)), mark('dash', path([188, 36], [156, 52]))]
			: [])
	]
};

const channel: Subject = {
	name: 'Strap in its channel',
	good: 'The strap runs through its channel on both sides of the cradle.',
	faults: { CHAN: 'On one side the strap lies outside of its channel.' },
	draw: (what, { amount }) => [
		mark(
			'body',
			smooth(
				[
					[120, 34],
					[184, 60],
					[196, 112],
					[120, 136],
					[44, 112],
					[56, 60]
				],
				true
			)
		),
		mark('line', rect(40, 78, 26, 30, 4)),
		mark('line', rect(174, 78, 26, 30, 4)),
		mark('bold', path([8, 64], [40, 88], [66, 94], [120, 98])),
		mark(
			'bold',
			what === 'CHAN'
				? smooth([
						[120, 98],
						[160, 66 - 12 * amount],
						[190, 58 - 10 * amount],
						[232, 64]
					])
				: path([120, 98], [174, 94], [200, 88], [232, 64])
		)
	]
};

const frame: Subject = {
	name: 'Back frame',
	good: 'The frame is whole; its edges are smooth.',
	faults: { CRK: 'A crack runs from the handle.', CUT: 'The pad is cut through to its foam.' },
	near: 'Paint is scraped at the foot; the frame is whole.',
	draw: (what, { at }) => [
		mark(
			'body',
			smooth(
				[
					[84, 12],
					[156, 12],
					[172, 60],
					[160, 148],
					[80, 148],
					[68, 60]
				],
				true
			)
		),
		mark('line', rect(96, 24, 48, 14, 7)),
		mark('thin', rect(90, 54, 60, 76, 8)),
		...(what === 'CRK' ? [crack([144, 31], [166, 60 + 10 * at], 6)] : []),
		...(what === 'CUT'
			? [
					mark('solid', shut([100, 70], [140, 96 + 10 * at], [102, 78])),
					...specks(14, 104, 74, 34, 24, 1.4)
				]
			: []),
		...(what === 'near'
			? [0, 1, 2, 3].map((i) => mark('thin', path([92 + i * 8, 144], [98 + i * 8, 138])))
			: [])
	]
};

const bag: Subject = {
	name: 'Bag',
	good: 'The bag is whole, clean and dry; its fastener shuts.',
	faults: {
		BAG: 'A corner of the bag is torn open.',
		DIRTY: 'Dirt lies in the bag.',
		WET: 'Water stands in the bag.',
		MILD: 'Round spots of mildew have spread over it.',
		CARD: 'The pocket for the cards is empty.'
	},
	near: 'It is creased from folding; whole, clean and dry.',
	draw: (what, { amount, at }) => [
		mark(
			'body',
			smooth(
				[
					[46, 44],
					[120, 38],
					[194, 44],
					[206, 140],
					[120, 146],
					[34, 140]
				],
				true
			)
		),
		mark('line', path([52, 52], [188, 52])),
		mark(
			'bold',
			smooth([
				[84, 42],
				[96, 16],
				[144, 16],
				[156, 42]
			])
		),
		mark('line', rect(84, 74, 72, 46, 3)),
		...(what === 'CARD'
			? [mark('dash', rect(92, 66, 56, 40))]
			: [
					mark('shade', rect(92, 64, 56, 46)),
					mark('thin', path([100, 74], [140, 74])),
					mark('thin', path([100, 84], [132, 84]))
				]),
		...(what === 'BAG'
			? [mark('solid', shut([196, 140], [178 - 14 * amount, 128], [170 - 10 * amount, 142]))]
			: []),
		...(what === 'DIRTY' ? specks(40, 46, 118, 140, 22, 2.4) : []),
		...(what === 'WET'
			? [
					mark(
						'shade',
						smooth(
							[
								[42, 128],
								[80, 122],
								[120, 130],
								[160, 122],
								[200, 128],
								[202, 140],
								[40, 140]
							],
							true
						)
					),
					...[
						[66, 100],
						[172, 90],
						[182, 112]
					].map(([x = 0, y = 0]) => mark('line', `M${x} ${y}q6 8 0 12q-6-4 0-12`))
				]
			: []),
		...(what === 'MILD'
			? Array.from({ length: 11 }, (_, i) =>
					mark(
						i % 2 ? 'line' : 'shade',
						circle(54 + ((i * 37) % 130), 60 + ((i * 53 + 20 * at) % 76), 3 + (i % 4) * 2)
					)
				)
			: []),
		...(what === 'near'
			? [mark('thin', path([54, 66], [70, 130])), mark('thin', path([178, 62], [186, 128]))]
			: [])
	]
};

/** What holds it on, and what it is kept in. */
export const HARNESS = { strap, buckle, channel, frame, bag } as const;
