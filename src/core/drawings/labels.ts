import {
	arc,
	circle,
	mark,
	path,
	rect,
	shut,
	smooth,
	specks,
	type Subject,
	words
} from './mark.ts';

const stamp: Subject = {
	name: 'Test stamp and life',
	good: 'The next test and the end of life lie ahead; the stamp is sharp.',
	faults: {
		STAMP: 'The day of the next test has passed.',
		LIFE: 'The end of its life has passed.',
		LABEL: 'The stamp is painted over: it cannot be read.'
	},
	near: 'The next test is due this month: it still holds.',
	draw: (what, { at }) => [
		mark('body', rect(24, 24, 192, 104, 6)),
		...(what === 'LABEL'
			? [
					mark('shade', rect(36, 34, 168, 84, 3)),
					...[0, 1, 2, 3, 4, 5].map((i) =>
						mark(
							'line',
							smooth([
								[40, 44 + i * 13],
								[90, 40 + i * 13],
								[150, 48 + i * 13],
								[200, 42 + i * 13]
							])
						)
					)
				]
			: [
					words('next test', 76, 60, 13),
					words(
						what === 'STAMP'
							? at < 0.5
								? 'Jun 2026'
								: 'Sep 2024'
							: what === 'near'
								? 'Nov 2026'
								: 'Mar 2029',
						160,
						61,
						18,
						true
					),
					words('life to', 76, 100, 13),
					words(
						what === 'LIFE' ? (at < 0.5 ? 'Jan 2026' : 'Oct 2023') : 'Mar 2034',
						160,
						101,
						18,
						true
					)
				]),
		words('today: 26 Nov 2026', 120, 148, 11, true)
	]
};

const label: Subject = {
	name: 'Label',
	good: 'Tag, size and marking can be read.',
	faults: {
		LABEL: 'The label is rubbed away: it cannot be read.',
		DATE: 'Its test date has passed.'
	},
	near: 'One corner is scuffed; everything can be read.',
	draw: (what, { amount }) => [
		mark('body', rect(24, 34, 192, 92, 6)),
		...(what === 'LABEL'
			? [
					words('H', 64, 76, 24, true),
					mark(
						'shade',
						smooth(
							[
								[80, 44],
								[196, 40],
								[206, 112],
								[90, 116],
								[70, 90]
							],
							true
						)
					),
					...[0, 1, 2, 3, 4].map((i) =>
						mark('thin', path([84 + i * 22, 110], [100 + i * 22, 52 + 10 * amount]))
					)
				]
			: [
					words('HM-0107', 112, 76, 24, true),
					words(
						what === 'DATE' ? 'test until Aug 2026' : 'size M, test until Aug 2027',
						118,
						108,
						13,
						true
					)
				]),
		...(what === 'near'
			? [0, 1, 2, 3].map((i) => mark('thin', path([196 + i * 5, 124], [206 + i * 3, 112])))
			: [])
	]
};

const seal: Subject = {
	name: 'Pack seal',
	good: 'The seal is whole, its strip unbroken across the lid.',
	faults: {
		SEALB: 'The strip is broken across the lid.',
		OPEN: 'The lid stands open.',
		DATE: 'The date on the seal has passed.'
	},
	near: 'The strip is creased; it is whole.',
	draw: (what, { amount }) => {
		const open = what === 'OPEN' ? 18 + 14 * amount : 0;
		return [
			mark('body', rect(44, 66, 152, 80, 4)),
			mark('body', shut([40, 66], [40, 48], [200, 48 - open], [200, 66 - open])),
			...(open
				? []
				: what === 'SEALB'
					? [
							mark('shade', rect(108, 40, 24, 22)),
							mark(
								'shade',
								shut([108, 74], [116, 68], [124, 76], [132, 70], [132, 104], [108, 104])
							),
							mark('line', path([108, 62], [116, 58], [124, 66], [132, 60]))
						]
					: [mark('shade', rect(108, 40, 24, 64))]),
			...(what === 'near' ? [mark('thin', path([108, 78], [132, 84]))] : []),
			words(what === 'DATE' ? 'until Jul 2026' : 'until Jul 2028', 120, 128, 14, true)
		];
	}
};

const tag: Subject = {
	name: 'Air test tag',
	good: 'The air test is in force.',
	faults: {
		AIRT: 'The air test ran out.',
		FILL: 'The bank stands low.',
		DATE: 'The change of the filter bed is overdue.'
	},
	draw: (what, { at }) => [
		mark('bold', path([120, 8], [120, 30])),
		mark('body', shut([72, 44], [120, 28], [168, 44], [168, 146], [72, 146])),
		mark('line', circle(120, 44, 5)),
		words('AIR TEST', 120, 74, 13),
		words(
			what === 'AIRT' ? (at < 0.5 ? 'to Oct 2026' : 'to Feb 2026') : 'to Jan 2027',
			120,
			98,
			14,
			true
		),
		words(what === 'FILL' ? 'bank 40 bar' : 'bank 290 bar', 120, 118, 12, true),
		words(what === 'DATE' ? 'bed Mar 2026' : 'bed Jun 2027', 120, 136, 12, true)
	]
};

const lamp: Subject = {
	name: 'Lamp and alarm',
	good: 'Woken, the lamp lights and the sounder calls.',
	faults: {
		ALRM: 'Woken, the lamp stays dark and nothing sounds.',
		BATT: 'The sign for a low battery stands in the field.'
	},
	draw: (what) => [
		mark('body', rect(66, 44, 108, 96, 12)),
		...(what === 'ALRM'
			? [mark('solid', circle(120, 74, 16))]
			: [
					mark('body', circle(120, 74, 16)),
					...Array.from({ length: 8 }, (_, i) =>
						mark(
							'bold',
							path(
								[120 + 22 * Math.sin((i * Math.PI) / 4), 74 - 22 * Math.cos((i * Math.PI) / 4)],
								[120 + 30 * Math.sin((i * Math.PI) / 4), 74 - 30 * Math.cos((i * Math.PI) / 4)]
							)
						)
					),
					...[10, 17].map((r) => mark('line', arc(186, 74, r, 0.12, 0.38)))
				]),
		mark('line', rect(88, 114, 64, 16, 2)),
		mark('solid', what === 'BATT' ? rect(90, 116, 9, 12) : rect(90, 116, 56, 12))
	]
};

const battery: Subject = {
	name: 'Battery and contacts',
	good: 'All bars are lit; the contacts are bright.',
	faults: { BATT: 'One bar of five is lit.', RUST: 'The contacts are crusted over.' },
	draw: (what, { amount }) => {
		const lit = what === 'BATT' ? 1 : 5;
		return [
			mark('body', rect(50, 48, 140, 84, 8)),
			...[0, 1].map((i) => mark('line', rect(78 + i * 60, 32, 24, 16))),
			...(what === 'RUST'
				? [0, 1].flatMap((i) => [
						mark(
							'shade',
							smooth(
								[
									[74 + i * 60, 34],
									[90 + i * 60, 22 - 4 * amount],
									[108 + i * 60, 32],
									[102 + i * 60, 48],
									[78 + i * 60, 48]
								],
								true
							)
						),
						...specks(18, 76 + i * 60, 26, 28, 20, 1.8)
					])
				: []),
			...[0, 1, 2, 3, 4].map((i) => mark(i < lit ? 'solid' : 'dash', rect(64 + i * 24, 76, 16, 32)))
		];
	}
};

const flow: Subject = {
	name: 'Flow indicator',
	good: 'The ball stands at or above the mark.',
	faults: {
		FLOW: 'The ball stays below the mark.',
		LABEL: 'The mark on the tube is gone.',
		CLOG: 'The outlet is covered with dust, the ball stays low.'
	},
	near: 'The ball stands just on the mark: it is enough.',
	draw: (what, { amount }) => {
		const low = what === 'FLOW' || what === 'CLOG';
		const y = low ? 104 + 18 * amount : what === 'near' ? 78 : 58;
		return [
			mark('body', shut([98, 14], [142, 14], [132, 146], [108, 146])),
			...(what === 'LABEL'
				? []
				: [mark('bold', path([86, 80], [154, 80])), words('mark', 180, 84, 12)]),
			mark('solid', circle(120, y, 11)),
			...[0, 1, 2].map((i) => mark('thin', path([100 + i * 20, 158], [100 + i * 20, 150]))),
			...(what === 'CLOG' ? specks(30, 98, 140, 44, 14, 2) : [])
		];
	}
};

/** What is written on it, and what it says for itself. */
export const LABELS = { stamp, label, seal, tag, lamp, battery, flow } as const;
