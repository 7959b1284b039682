import {
	arc,
	circle,
	ellipse,
	mark,
	type Mark,
	onCircle,
	path,
	rect,
	shut,
	type Subject
} from './mark.ts';

const lugged = (
	gasket: (mark: typeof import('./mark.ts').mark) => Mark[],
	worn = false
): Mark[] => [
	mark('body', circle(120, 80, 66)),
	mark('thin', circle(120, 80, 30)),
	...gasket(mark),
	...[0.08, 0.41, 0.75].map((turn, i) =>
		mark(
			'shade',
			worn && i === 1
				? shut(
						onCircle(120, 80, 30, turn - 0.03),
						onCircle(120, 80, 39, turn - 0.01),
						onCircle(120, 80, 34, turn + 0.03),
						onCircle(120, 80, 30, turn + 0.03)
					)
				: shut(
						onCircle(120, 80, 30, turn - 0.04),
						onCircle(120, 80, 58, turn - 0.035),
						onCircle(120, 80, 58, turn + 0.035),
						onCircle(120, 80, 30, turn + 0.04)
					)
		)
	)
];

const gasket: Subject = {
	name: 'Mount and gasket',
	good: 'A ring of rubber lies flat under all three lugs; the lugs are sharp.',
	faults: {
		GASK: 'The ring of rubber is cut and stands up between two lugs.',
		MISS: 'There is no ring of rubber under the lugs.',
		LUG: 'One lug is worn down to a stump.',
		DIRTY: 'Grains lie on the ring of rubber.',
		REV: 'The ring of rubber lies over one lug instead of under it.'
	},
	near: 'The ring of rubber has a moulded mark; it lies flat under all lugs.',
	draw: (what, { at, amount }) => {
		const whole = (m: typeof mark) => [
			m('bold', circle(120, 80, 50)),
			m('bold', circle(120, 80, 42))
		];
		if (what === 'MISS') return lugged(() => []);
		if (what === 'LUG') return lugged(whole, true);
		if (what === 'GASK') {
			const from = 0.16 + 0.1 * at;
			const gap = 0.05 + 0.08 * amount;
			return [
				...lugged((m) => [
					m('bold', arc(120, 80, 50, from + gap, from + 0.96)),
					m('bold', arc(120, 80, 42, from + gap, from + 0.96))
				]),
				mark(
					'bold',
					path(
						onCircle(120, 80, 42, from + 0.96),
						onCircle(120, 80, 56, from + 0.99),
						onCircle(120, 80, 62, from + 0.965),
						onCircle(120, 80, 50, from + 0.955)
					)
				),
				mark('bold', path(onCircle(120, 80, 50, from + gap), onCircle(120, 80, 42, from + gap)))
			];
		}
		if (what === 'REV')
			return [
				...lugged(whole),
				mark(
					'body',
					`${arc(120, 80, 62, 0.68, 0.82)}L${onCircle(120, 80, 52, 0.82).join(' ')}L${onCircle(120, 80, 52, 0.68).join(' ')}Z`
				),
				mark('bold', arc(120, 80, 62, 0.67, 0.83)),
				mark('bold', arc(120, 80, 52, 0.67, 0.83))
			];
		const marks = lugged(whole);
		if (what === 'DIRTY')
			for (let i = 0; i < 14; i++) {
				const [x, y] = onCircle(120, 80, 46 + ((i * 7) % 5) - 2, 0.5 + at * 0.2 + i * 0.014);
				marks.push(mark('solid', circle(x, y, 1.5 + (i % 3))));
			}
		if (what === 'near')
			marks.push(
				mark('thin', path(onCircle(120, 80, 43, 0.25), onCircle(120, 80, 49, 0.25))),
				mark('thin', path(onCircle(120, 80, 43, 0.262), onCircle(120, 80, 49, 0.262)))
			);
		return marks;
	}
};

const closing: Subject = {
	name: 'Self-closing disc',
	good: 'With the filter off, the disc has swung shut over its port.',
	faults: { DISC: 'With the filter off, the disc stands open: the port gapes.' },
	draw: (what, { amount }) => {
		const open = what === 'DISC' ? 26 + 30 * amount : 0;
		return [
			mark('body', rect(56, 30, 128, 100, 14)),
			mark('thin', circle(120, 80, 42)),
			...(open ? [mark('solid', circle(120, 80, 40))] : []),
			mark('shade', open ? ellipse(120 - open, 80, 42 - open * 0.6, 40) : circle(120, 80, 40)),
			mark('bold', path([78 - open * 0.3, 66], [78 - open * 0.3, 94])),
			mark('line', circle(78 - open * 0.3, 80, 4))
		];
	}
};

/** Where a filter goes on. */
export const MOUNTS = { gasket, closing } as const;
