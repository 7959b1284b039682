import type { GrayPicture, Point } from '../picture/gray.ts';
import { DialFace } from './face.ts';
import { figuresRun } from './figures.ts';
import { barAtAngle, type GaugeDial, sweepOf } from './model.ts';
import { findNeedle } from './needle.ts';
import { type DialGuess, findRim } from './rim.ts';
import { findScale, fitScale, leanFace } from './scale.ts';

/** A figure that was read off a dial. */
export interface DialReading {
	bar: number;
	/** Half of what it is uncertain by, at about two standard deviations, bar. */
	plusMinusBar: number;
	/** For the eye: the rim and the needle in the picture, px. */
	rim: Point[];
	needle: [Point, Point];
}

/** A picture that was not read, and why. */
export interface DialRefusal {
	refused: DialTrouble;
	message: string;
}

/** Why a picture was not read. */
export type DialTrouble =
	| 'no dial'
	| 'small'
	| 'aslant'
	| 'marks'
	| 'glare'
	| 'needle'
	| 'two lines'
	| 'figures'
	| 'beyond';

const WORDS: Record<DialTrouble, string> = {
	'no dial': 'No dial is seen. Hold it into the ring.',
	small: 'The dial is too small. Come nearer.',
	aslant: 'Seen from too far aside. Look straight at it.',
	marks: 'The marks do not fit this gauge: blurred, too dark, or another gauge.',
	glare: 'Light shines off the glass. Turn it a little.',
	needle: 'The needle cannot be told from the face.',
	'two lines': 'More than one line could be the needle. Is the glass cracked?',
	figures: 'The figures do not run as on this gauge: another one, or blurred.',
	beyond: 'The needle points beyond the scale.'
};

/** Limits of what is read, beyond which a picture is refused. Site: measured against seeded pictures. */
const LIMITS = {
	radiusPx: 34,
	flatness: 0.85,
	rimFound: 0.5,
	fit: 0.5,
	margin: 0.12,
	marksFound: 0.7,
	marksRmsDeg: 0.9,
	contrast: 0.1,
	glare: 0.06,
	needle: 0.12,
	second: 0.62,
	spreadDeg: 0.6,
	asideDeg: 3.5,
	figures: 0.1
} as const;
/** What a figure is uncertain by at the least, as a share of the scale: marks and needle are no thinner. Site. */
const LEAST_SHARE = 0.004;

/** What was measured on the way, for the benchmark and for those who set the limits. */
export type DialTrace = Partial<Record<keyof typeof LIMITS, number>>;

/** Shades of what lies within the rim, in order. */
function shadesOf(face: DialFace): number[] {
	const shades: number[] = [];
	for (let far = 0.1; far < 0.95; far += 0.05)
		for (let deg = 0; deg < 360; deg += 4) shades.push(face.shadeAt(deg, far));
	return shades.sort((a, b) => a - b);
}
const shadeOf = (shades: readonly number[], share: number): number =>
	shades[Math.floor((shades.length - 1) * share)] ?? 0;

/** Whether print is lighter than its face: most of a face is face, and what departs from it is print. */
function isDark(shades: readonly number[]): boolean {
	const usual = shadeOf(shades, 0.5);
	return shadeOf(shades, 0.97) - usual > usual - shadeOf(shades, 0.03);
}

/** Share of the face that is as white as it can be, where most of it is not. */
function glareOf(shades: readonly number[]): number {
	const usual = shadeOf(shades, 0.6);
	return shades.filter((shade) => shade >= 250 && shade > usual * 1.2).length / shades.length;
}

/**
 * Reads the figure that the needle of a gauge shows, or says why not: a figure that could be wrong is no help.
 * @param guess where the dial was held, px
 * @param trace is told what was measured
 */
export function readDial(
	picture: GrayPicture,
	dial: GaugeDial,
	guess: DialGuess,
	trace: DialTrace = {}
): DialReading | DialRefusal {
	const refuse = (refused: DialTrouble): DialRefusal => ({ refused, message: WORDS[refused] });
	const rim = findRim(picture, guess);
	if (!rim) return refuse('no dial');
	Object.assign(trace, { radiusPx: rim.radiusPx, flatness: rim.flatness, rimFound: rim.found });
	if (rim.found < LIMITS.rimFound) return refuse('no dial');
	if (rim.radiusPx < LIMITS.radiusPx) return refuse('small');
	if (rim.flatness < LIMITS.flatness) return refuse('aslant');
	const shades = shadesOf(new DialFace(picture, rim, { x: 0, y: 0 }, false));
	trace.glare = glareOf(shades);
	if (trace.glare > LIMITS.glare) return refuse('glare');
	const plain = new DialFace(picture, rim, { x: 0, y: 0 }, isDark(shades));
	let face = leanFace(plain, rim, dial);
	let scale = findScale(face, dial);
	let marks = fitScale(face, dial, scale);
	// What the first look left is measured mark by mark.
	for (let again = 0; marks && again < 2; again++) {
		face = face.leaning(marks.aside);
		scale = findScale(face, dial);
		marks = fitScale(face, dial, scale);
	}
	Object.assign(trace, { fit: scale.fit, margin: scale.margin });
	if (!marks) return refuse('marks');
	Object.assign(trace, {
		fit: scale.fit,
		margin: scale.margin,
		marksFound: marks.found,
		marksRmsDeg: marks.rmsDeg,
		contrast: marks.contrast
	});
	if (
		scale.fit < LIMITS.fit ||
		scale.margin < LIMITS.margin ||
		marks.found < LIMITS.marksFound ||
		marks.rmsDeg > LIMITS.marksRmsDeg ||
		marks.contrast < LIMITS.contrast
	)
		return refuse('marks');
	const needle = findNeedle(face, scale.far);
	if (!needle) return refuse('needle');
	const asideDeg = Math.abs(needle.tipDeg - needle.deg);
	Object.assign(trace, {
		needle: needle.contrast,
		second: needle.second,
		spreadDeg: needle.spreadDeg,
		asideDeg
	});
	if (needle.contrast < LIMITS.needle || needle.spreadDeg > LIMITS.spreadDeg)
		return refuse('needle');
	if (needle.second > LIMITS.second) return refuse('two lines');
	if (asideDeg > LIMITS.asideDeg) return refuse('aslant');
	trace.figures = figuresRun(face, dial, { marks, ring: scale.far, needleDeg: needle.deg });
	if (trace.figures < LIMITS.figures) return refuse('figures');
	const bar = barAtAngle(dial, marks.onDial(needle.deg));
	const span = Math.abs(dial.to.bar - dial.from.bar);
	const [low, high] = [Math.min(dial.from.bar, dial.to.bar), Math.max(dial.from.bar, dial.to.bar)];
	const over = span * 0.02;
	if (bar < low - over || bar > high + over) return refuse('beyond');
	const perDeg = span / Math.abs(sweepOf(dial));
	const spread = Math.hypot(
		needle.spreadDeg * perDeg,
		(marks.rmsDeg / 2) * perDeg,
		// What a needle that stands off its dial moves, seen aslant.
		(asideDeg / 4) * perDeg,
		LEAST_SHARE * span
	);
	return {
		bar: Math.max(low, Math.min(high, bar)),
		plusMinusBar: 2 * spread,
		rim: Array.from({ length: 48 }, (_, i) => plain.placeAt((i * 360) / 48, 1)),
		needle: [face.placeAt(needle.deg, 0), face.placeAt(needle.deg, scale.far)]
	};
}
