import {
	arc,
	circle,
	crack,
	ellipse,
	mark,
	type Mark,
	onCircle,
	path,
	rect,
	shut,
	smooth,
	specks,
	type Subject,
	words
} from './mark.ts';

const body = (x: number, w: number, bands: number): Mark[] => [
	mark('body', rect(x, 46, w, 76, 8)),
	mark('line', path([x, 62], [x + w, 62])),
	...Array.from({ length: bands }, (_, i) =>
		mark('bold', path([x + 6, 78 + i * 8], [x + w - 6, 78 + i * 8]))
	),
	mark('line', rect(x + w / 2 - 16, 122, 32, 14)),
	mark('thin', path([x + w / 2 - 16, 129], [x + w / 2 + 16, 129]))
];

const cartridge: Subject = {
	name: 'Cartridge',
	good: 'The body is round and whole, its inlet free, its seam closed.',
	faults: {
		DENT: 'The side of the body is pressed in.',
		RUST: 'Patches of rust have lifted the paint at the rim.',
		CLOG: 'The inlet is caked over with dust.',
		HOLE: 'There is a hole in the side of the body.',
		SEAM: 'The seam of the rim has opened.',
		WET: 'Water stands in drops on the inlet.',
		CRK: 'A crack runs down the body.',
		RATTLE: 'Shaken, the grains inside move about: a gap stands above them.'
	},
	near: 'The paint is rubbed at one edge; the body is round and whole.',
	draw: (what, { amount, at }) => {
		const dent = what === 'DENT' ? 8 + 16 * amount : 0;
		const y = 74 + 24 * at;
		const outline = dent
			? `M60 40H180V${y - 20}C180 ${y - 8} ${180 - dent} ${y - 10} ${180 - dent} ${y}C${180 - dent} ${y + 10} 180 ${y + 8} 180 ${y + 20}V126H60Z`
			: rect(60, 40, 120, 86, 8);
		return [
			mark('body', outline),
			mark('line', path([60, 58], [180, 58])),
			mark('line', path([60, 112], [180 - (y > 96 ? dent / 2 : 0), 112])),
			// The inlet: slots on top.
			...(what === 'CLOG'
				? [
						mark(
							'shade',
							smooth([
								[66, 56],
								[72, 34],
								[96, 38],
								[120, 28],
								[146, 37],
								[170, 33],
								[176, 56]
							])
						),
						...specks(60, 70, 36, 98, 20, 2)
					]
				: Array.from({ length: 9 }, (_, i) =>
						mark('line', path([72 + i * 12, 44], [72 + i * 12, 54]))
					)),
			mark('line', rect(98, 126, 44, 18)),
			mark('thin', path([98, 135], [142, 135])),
			...(dent ? [mark('thin', arc(180 - dent - 4, y, 10, 0.05, 0.45))] : []),
			...(what === 'RUST'
				? [
						mark(
							'shade',
							smooth(
								[
									[66, 112],
									[74, 100],
									[88, 106],
									[98, 98],
									[104, 112]
								],
								true
							)
						),
						...specks(36, 66, 100, 40, 22, 2.4),
						...specks(18, 140, 106, 34, 16, 2)
					]
				: []),
			...(what === 'HOLE'
				? [
						mark(
							'solid',
							smooth(
								[
									[96 + 40 * at, 80],
									[104 + 40 * at, 76],
									[110 + 40 * at, 84],
									[102 + 40 * at, 90]
								],
								true
							)
						)
					]
				: []),
			...(what === 'SEAM'
				? [mark('solid', shut([92, 57], [120, 53 - 4 * amount], [156, 57], [120, 63]))]
				: []),
			...(what === 'WET'
				? [
						[84, 46],
						[112, 40],
						[140, 47],
						[162, 42],
						[128, 66]
					].map(([x = 0, at = 0]) => mark('body', ellipse(x, at, 7, 5)))
				: []),
			...(what === 'RATTLE'
				? [
						mark('body', rect(84, 66, 72, 40, 3)),
						mark('line', path([84, 82], [100, 76], [118, 84], [138, 77], [156, 85])),
						...specks(40, 88, 88, 62, 14, 2),
						mark('solid', circle(112, 74, 2)),
						mark('solid', circle(132, 71, 2)),
						mark('dash', arc(44, 83, 14, 0.55, 0.95)),
						mark('dash', arc(196, 83, 14, 0.05, 0.45))
					]
				: []),
			...(what === 'CRK' ? [crack([90 + 40 * at, 62], [110 + 40 * at, 112], 6)] : []),
			...(what === 'near'
				? [0, 1, 2, 3, 4].map((i) => mark('thin', path([62 + i * 4, 64 + i], [66 + i * 4, 60])))
				: [])
		];
	}
};

const pair: Subject = {
	name: 'Pair of filters',
	good: 'Both carry the same bands and the same mark: one kind, one class.',
	faults: { MIX: 'The left carries two bands, the right another number: two different filters.' },
	near: 'The lots differ by one number; kind and class are the same on both.',
	draw: (what, { at }) => {
		const other = what === 'MIX' ? (at < 0.5 ? 1 : 3) : 2;
		return [
			...body(22, 84, 2),
			...body(134, 84, other),
			words('A2 P3', 64, 58, 12, true),
			words(what === 'MIX' ? (at < 0.5 ? 'A1' : 'K2 P3') : 'A2 P3', 176, 58, 12, true),
			words(what === 'near' ? 'lot 71' : 'lot 72', 64, 114, 10, true),
			words('lot 72', 176, 114, 10, true)
		];
	}
};

const window_: Subject = {
	name: 'End-of-life indicator',
	good: 'The field in the window is clear, of one tone.',
	faults: { IND: 'The field in the window is specked and dark: it has changed.' },
	draw: (what, { amount }) => [
		...body(60, 120, 1),
		mark('body', rect(84, 88, 72, 28, 6)),
		...(what === 'IND'
			? [
					mark('shade', rect(86, 90, 68, 24, 5)),
					...specks(20 + Math.round(50 * amount), 88, 92, 64, 20, 2)
				]
			: [])
	]
};

const prefilter: Subject = {
	name: 'Pre-filter and retainer',
	good: 'The pad is clean, its printing to the outside, the retainer clicked home on both sides.',
	faults: {
		CLOG: 'The pad is caked with dust.',
		REV: 'The printing is turned inward: the outside is blank.',
		CRK: 'The retainer is cracked at its rim.',
		ONCE: 'The adapter has been on before: both its tongues are bent, it sits half on.'
	},
	near: 'A little dust at the rim of the pad; the air goes through.',
	draw: (what, { amount, at }) => {
		const tilt = what === 'ONCE' ? 10 + 8 * amount : 0;
		return [
			mark('body', circle(120, 84, 60)),
			mark('line', circle(120, 84, 48)),
			...(what === 'REV' ? [] : [words('OUTSIDE', 120, 80, 13), words('P3 R', 120, 98, 13, true)]),
			...(what === 'CLOG'
				? [mark('shade', circle(120, 84, 46)), ...specks(90, 80, 44, 80, 78, 2.2)]
				: []),
			...(what === 'near' ? specks(12, 148, 108, 16, 14, 1.2) : []),
			mark('bold', `M52 ${84 + tilt}A68 68 0 0 1 188 ${84 - tilt}`),
			mark('bold', rect(46, 80 + tilt, 12, 16)),
			mark('bold', rect(182, 80 - tilt, 12, 16)),
			...(what === 'ONCE'
				? [
						mark('bold', path([48, 96 + tilt], [40, 108 + tilt])),
						mark('bold', path([192, 96 - tilt], [202, 104 - tilt])),
						mark('dash', path([182, 96 - tilt], [182, 112]))
					]
				: []),
			...(what === 'CRK'
				? [
						crack(
							onCircle(120, 84, 70, 0.08 + at * 0.1),
							onCircle(120, 84, 46, 0.11 + at * 0.1),
							4
						),
						crack(onCircle(120, 84, 70, 0.08 + at * 0.1), onCircle(120, 84, 74, 0.02 + at * 0.1), 3)
					]
				: [])
		];
	}
};

const seated: Subject = {
	name: 'Filter on its mount',
	good: 'The marks stand in line at the stop; the filter lies in its groove all round.',
	faults: {
		LUG: 'The lug is broken off: the filter turns past the stop.',
		GASK: 'The gasket is squeezed out on one side of the mount.',
		THRD: 'The filter sits askew on its thread: a gap on one side.',
		LABEL: 'No marks can be read: nothing shows where the stop is.',
		CLOG: 'Tape is still over the inlet.',
		REV: 'The arrow points away from the face.',
		LOOSE: 'The mark stands short of the stop: it is not screwed home.'
	},
	draw: (what, { amount }) => {
		const tilt = what === 'THRD' ? 6 + 10 * amount : 0;
		const turned = what === 'LUG' ? 162 : what === 'LOOSE' ? 148 : 120;
		return [
			mark('body', shut([30, 104], [210, 104], [196, 150], [44, 150])),
			mark('body', shut([66, 36 + tilt], [174, 36 - tilt], [174, 94 - tilt], [66, 94 + tilt])),
			mark('line', path([74, 102 + tilt * 0.2], [166, 102 - tilt * 0.8])),
			...(what === 'LABEL'
				? []
				: [
						mark('solid', shut([turned - 9, 76], [turned + 9, 76], [turned, 93])),
						mark('solid', shut([111, 125], [129, 125], [120, 108]))
					]),
			...(what === 'THRD' ? [mark('dash', path([174, 94 - tilt], [174, 104]))] : []),
			...(what === 'GASK'
				? [
						mark(
							'bold',
							smooth([
								[60, 98],
								[46, 92],
								[34, 98],
								[44, 104],
								[62, 102]
							])
						)
					]
				: []),
			...(what === 'CLOG'
				? [
						mark('shade', rect(60, 26, 120, 16, 2)),
						mark('line', path([180, 34], [194, 24], [190, 42]))
					]
				: []),
			...(what === 'LUG' ? [mark('line', path([170, 104], [176, 98], [180, 105], [186, 99]))] : []),
			mark('line', what === 'REV' ? 'M84 70V46m-8 9l8-9l8 9' : 'M84 46V70m-8-9l8 9l8-9')
		];
	}
};

const dated: Subject = {
	name: 'Dates and initials',
	good: 'The date of use lies ahead; opened, dated and initialled.',
	faults: {
		DATE: 'The date of use has passed.',
		OPEN: 'The fields for opening date and initials are empty, and the pack is open.'
	},
	near: 'The date of use ends this month: it still holds.',
	draw: (what, { at }) => [
		mark('body', rect(28, 26, 184, 108, 6)),
		words('use by', 66, 54, 13),
		words(
			what === 'DATE'
				? at < 0.5
					? 'Aug 2026'
					: 'Nov 2025'
				: what === 'near'
					? 'Nov 2026'
					: at < 0.5
						? 'May 2028'
						: 'Sep 2027',
			152,
			55,
			18,
			true
		),
		mark('thin', path([40, 66], [200, 66])),
		words('opened', 66, 88, 13),
		words('by', 66, 116, 13),
		mark('thin', path([104, 92], [200, 92])),
		mark('thin', path([104, 120], [200, 120])),
		...(what === 'OPEN'
			? []
			: [words('12 Nov 2026', 152, 88, 15, true), words('KS', 152, 116, 15, true)]),
		words('today: 26 Nov 2026', 120, 150, 11, true)
	]
};

/** What cleans the air. */
export const FILTERS = { cartridge, pair, window: window_, prefilter, seated, dated } as const;
