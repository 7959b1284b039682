import { normalQuantile } from '../stats/tolerance.ts';

/** Answers of a person where something was to be found, and where nothing was. */
export interface Signals {
	hits: number;
	misses: number;
	falseAlarms: number;
	correctRejections: number;
}

export interface Sensitivity {
	/** How far apart good and bad lie for this person, in standard deviations: 0 is guessing. */
	dPrime: number;
	lower: number;
	upper: number;
	/** Leaning: below 0 rejects too readily, above 0 lets pass. */
	bias: number;
	hitRate: number;
	falseAlarmRate: number;
}

const Z95 = 1.959964;
const density = (z: number): number => Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI);

/**
 * Sensitivity and bias of somebody who says yes or no, equal variances assumed. Published (from memory): Green & Swets,
 * Signal Detection Theory and Psychophysics, 1966; half a count added to each so that no rate is 0 or 1 (Hautus, Behavior
 * Research Methods 27 (1995) 46); variance of d′ by Gourevitch & Galanter, Psychometrika 32 (1967) 25.
 * @param plain without the half counts, for rates that lie between 0 and 1
 * @throws RangeError without a single trial of either sort
 */
export function sensitivity(of: Signals, plain = false): Sensitivity {
	const signals = of.hits + of.misses;
	const noise = of.falseAlarms + of.correctRejections;
	if (signals <= 0 || noise <= 0)
		throw new RangeError('Sensitivity needs something to find, and something to leave alone.');
	const add = plain ? 0 : 0.5;
	const hitRate = (of.hits + add) / (signals + 2 * add);
	const falseAlarmRate = (of.falseAlarms + add) / (noise + 2 * add);
	const [zHit, zFalse] = [normalQuantile(hitRate), normalQuantile(falseAlarmRate)];
	const variance =
		(hitRate * (1 - hitRate)) / (signals * density(zHit) ** 2) +
		(falseAlarmRate * (1 - falseAlarmRate)) / (noise * density(zFalse) ** 2);
	const dPrime = zHit - zFalse;
	const half = Z95 * Math.sqrt(variance);
	return {
		dPrime,
		lower: dPrime - half,
		upper: dPrime + half,
		bias: -(zHit + zFalse) / 2,
		hitRate,
		falseAlarmRate
	};
}

export const NO_SIGNALS: Signals = { hits: 0, misses: 0, falseAlarms: 0, correctRejections: 0 };

export const addSignals = (a: Signals, b: Signals): Signals => ({
	hits: a.hits + b.hits,
	misses: a.misses + b.misses,
	falseAlarms: a.falseAlarms + b.falseAlarms,
	correctRejections: a.correctRejections + b.correctRejections
});
