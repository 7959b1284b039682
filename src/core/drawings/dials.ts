import {
	arc,
	circle,
	crack,
	mark,
	type Mark,
	onCircle,
	path,
	rect,
	type Subject,
	words
} from './mark.ts';

/** Turns of a dial from its lowest to its highest figure, by turns from the top. */
const FROM = -0.36;
const TO = 0.36;
const turnAt = (share: number) => FROM + (TO - FROM) * share;

/**
 * A dial with its needle.
 * @param share where the needle stands, of the whole scale
 * @param band what is marked on the rim, of the whole scale
 */
export function dial(
	share: number,
	band: readonly [number, number] | null,
	label: string,
	top: number,
	unit = 'bar'
): Mark[] {
	const marks: Mark[] = [
		mark('body', circle(120, 84, 68)),
		mark('line', arc(120, 84, 58, FROM, TO))
	];
	for (let i = 0; i <= 12; i++) {
		const turn = turnAt(i / 12);
		marks.push(
			mark(
				i % 4 === 0 ? 'bold' : 'line',
				path(onCircle(120, 84, 58, turn), onCircle(120, 84, i % 4 === 0 ? 47 : 52, turn))
			)
		);
		if (i % 4 === 0) {
			const [x, y] = onCircle(120, 84, 38, turn);
			marks.push(words(String(Math.round((top * i) / 12)), x, y + 4, 11, true));
		}
	}
	if (band) marks.push(mark('bold', arc(120, 84, 63, turnAt(band[0]), turnAt(band[1]))));
	const end = onCircle(120, 84, 52, turnAt(share));
	marks.push(
		mark('bold', path([120, 84], end)),
		mark('solid', circle(120, 84, 6)),
		words(unit, 120, 122, 11, true)
	);
	if (label) marks.push(words(label, 120, 138, 11));
	return marks;
}

const fill: Subject = {
	name: 'Contents gauge',
	good: 'The needle stands at or above 90 % of the rated pressure.',
	faults: {
		FILL: 'The needle stands well below the mark for 90 %.',
		GAUGE: 'With the air off, the needle does not go back to its pin.'
	},
	near: 'The needle stands at 92 %: just above the mark.',
	draw: (what, { amount }) =>
		what === 'GAUGE'
			? [
					...dial(0.12 + 0.1 * amount, [0.9, 1], 'air off', 300),
					mark('solid', circle(...onCircle(120, 84, 58, turnAt(0)), 4))
				]
			: dial(
					what === 'FILL' ? 0.78 - 0.3 * amount : what === 'near' ? 0.92 : 0.97,
					[0.9, 1],
					'air on',
					300
				)
};

const needle: Subject = {
	name: 'Gauge',
	good: 'With the air off the needle rests on its pin; the glass is whole.',
	faults: {
		GAUGE: 'With the air off the needle does not rest on its pin.',
		CRK: 'The glass is cracked across.'
	},
	draw: (what, { amount, at }) => [
		...dial(what === 'GAUGE' ? 0.14 + 0.14 * amount : 0, null, 'air off', 300),
		mark('solid', circle(...onCircle(120, 84, 58, turnAt(0)), 4)),
		...(what === 'CRK'
			? [crack([76, 40 + 20 * at], [168, 112], 7), crack([120, 72], [150, 34], 5)]
			: [])
	]
};

const whistle: Subject = {
	name: 'Whistle on the gauge',
	good: 'It sounds while the needle passes through the marked range.',
	faults: {
		WHL: 'It sounds only when the needle is below the marked range: too late.',
		WHH: 'It sounds while the needle is still above the marked range: too early.',
		GAUGE: 'The needle sticks: it stays where it was while air is let out.'
	},
	near: 'It sounds at the upper edge of the range: still within.',
	draw: (what, { amount }) => {
		const at =
			what === 'WHL'
				? 0.13 - 0.06 * amount
				: what === 'WHH'
					? 0.27 + 0.1 * amount
					: what === 'GAUGE'
						? 0.9
						: what === 'near'
							? 0.2
							: 0.183;
		const marks = dial(
			at,
			[50 / 300, 61 / 300],
			what === 'GAUGE' ? 'air let out' : 'it sounds here',
			300
		);
		if (what !== 'GAUGE')
			marks.push(
				...[8, 14, 20].map((r) => mark('line', arc(26, 40, r, 0.12, 0.38))),
				mark('solid', rect(14, 35, 12, 10, 2))
			);
		return marks;
	}
};

const band: Subject = {
	name: 'Supply pressure',
	good: 'The needle stands within the marked band of the approval.',
	faults: {
		BAND: 'The needle stands outside of the marked band.',
		GAUGE: 'The needle does not rest on its pin with the air off.'
	},
	near: 'The needle stands near the upper end of the band: within.',
	draw: (what, { amount, at }) =>
		dial(
			what === 'BAND'
				? at < 0.5
					? 0.34 - 0.2 * amount
					: 0.72 + 0.2 * amount
				: what === 'GAUGE'
					? 0.2
					: what === 'near'
						? 0.61
						: 0.52,
			what === 'GAUGE' ? null : [0.42, 0.64],
			what === 'GAUGE' ? 'air off' : 'air flows',
			12
		)
};

/** Gauges, and what the needle says. */
export const DIALS = { fill, needle, whistle, band } as const;
