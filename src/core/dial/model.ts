import { InputError } from '../verdict.ts';

/**
 * A gauge as it is read: two marked points of its scale on the upright dial, and what lies between them.
 * Angles run clockwise from the top, as on a clock.
 */
export interface GaugeDial {
	/** Figure and angle of the first mark. */
	from: { bar: number; deg: number };
	/** Figure and angle of the last mark, further along the scale. */
	to: { bar: number; deg: number };
	/** Bar from one small mark to the next. */
	smallBar: number;
	/** Bar from one large mark to the next; a multiple of the small ones. */
	largeBar: number;
}

/** Whole marks: a scale is divided evenly. */
const even = (whole: number, part: number) =>
	Math.abs(whole / part - Math.round(whole / part)) < 1e-6;

/**
 * A gauge from what is written on its card.
 * @throws InputError at what cannot be
 */
export function checkDial(dial: GaugeDial): GaugeDial {
	const { from, to, smallBar, largeBar } = dial;
	const span = to.bar - from.bar;
	if (span <= 0) throw new InputError('dialToBar', 'The last mark is above the first.');
	const sweep = Math.abs(sweepOf(dial));
	if (sweep < 90 || sweep > 340)
		throw new InputError('dialToDeg', 'A scale takes from 90 to 340 degrees.');
	if (!(smallBar > 0) || !even(span, smallBar))
		throw new InputError('dialSmallBar', 'The scale is divided evenly by its small marks.');
	if (!(largeBar > 0) || !even(largeBar, smallBar) || !even(span, largeBar))
		throw new InputError('dialLargeBar', 'Large marks stand at small ones, evenly.');
	const marks = span / smallBar;
	if (marks < 9 || marks > 80)
		throw new InputError('dialSmallBar', 'A scale that is read has from 9 to 80 small marks.');
	return dial;
}

/** Degrees that a scale takes, along it: positive clockwise, negative the other way round. */
export const sweepOf = ({ from, to }: GaugeDial): number => to.deg - from.deg;

/** Bar at an angle of the upright dial. */
export const barAtAngle = (dial: GaugeDial, deg: number): number =>
	dial.from.bar + ((deg - dial.from.deg) / sweepOf(dial)) * (dial.to.bar - dial.from.bar);

/** The angle of a figure on the upright dial. */
export const angleAtBar = (dial: GaugeDial, bar: number): number =>
	dial.from.deg + ((bar - dial.from.bar) / (dial.to.bar - dial.from.bar)) * sweepOf(dial);

/** Figures of all marks, and which are large. */
export function marksOf(dial: GaugeDial): { bar: number; large: boolean }[] {
	const { from, to, smallBar, largeBar } = dial;
	const steps = Math.round((to.bar - from.bar) / smallBar);
	const every = Math.round(largeBar / smallBar);
	return Array.from({ length: steps + 1 }, (_, i) => ({
		bar: from.bar + i * smallBar,
		large: i % every === 0
	}));
}
