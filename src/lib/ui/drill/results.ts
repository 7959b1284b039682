import type { ScoredStep } from '$core/drill/score';
import type { Sensitivity } from '$core/drill/signal-detection';

/** What came of a step, in words. */
export function resultWords({ result, near }: Pick<ScoredStep, 'result' | 'near'>): string {
	switch (result) {
		case 'found':
			return 'found';
		case 'wrong code':
			return 'rejected, for the wrong reason';
		case 'missed':
			return 'missed';
		case 'false reject':
			return near
				? 'rejected, although it only looks like a fault'
				: 'rejected, although it is good';
		case 'left alone':
			return near ? 'left alone, rightly: it only looks like a fault' : 'good, rightly';
		case 'misread':
			return 'another figure than the gauge shows';
		case 'not answered':
			return 'not answered';
	}
}

/** So wide an interval says nothing yet, in standard deviations. Common practice. */
const WIDE = 2.6;

/** How somebody sees, in words. Common practice: below 1 hardly more than guessing, above 2.5 sharp; leaning from 0.4 and 0.9 on. */
export function eyeWords(of: Pick<Sensitivity, 'dPrime' | 'lower' | 'upper' | 'bias'>): string {
	if (of.upper - of.lower > WIDE) return 'too little to say yet';
	const eye =
		of.dPrime < 1
			? 'hardly tells good from bad'
			: of.dPrime < 2.5
				? 'tells good from bad'
				: 'sharp eye';
	const leans =
		of.bias < -0.4
			? 'rejects too readily'
			: of.bias > 0.9
				? 'lets too much pass'
				: 'leans neither way';
	return `${eye}, ${leans}`;
}

/** The figures behind the words. */
export const eyeFigures = (of: Pick<Sensitivity, 'dPrime' | 'lower' | 'upper'>): string =>
	`${of.dPrime.toFixed(1)} (${of.lower.toFixed(1)} to ${of.upper.toFixed(1)})`.replaceAll('-', '−');
