import { mean } from '../stats/sample.ts';
import { studentQuantile } from '../stats/student.ts';
import { InputError } from '../verdict.ts';

/** Share of uses that the pessimistic figure is not exceeded in. */
const SHARE = 0.95;
const NORMAL_95 = 1.645;
/** From this many uses on a wearer's own spread is used. Common practice. */
export const OWN_SPREAD_FROM = 4;
/** Spread of one wearer from use to use where it is not known, share of the mean. Common practice. */
export const USUAL_SPREAD = 0.2;

export interface Consumption {
	uses: number;
	meanLPerMin: number;
	/** What the next use stays below with 95 % probability. */
	pessimisticLPerMin: number;
	/** Whose spread it rests on. */
	spread: 'own' | 'usual';
}

/**
 * What a wearer takes, from uses on record: mean, and the upper 95 % prediction bound of the next use. With few uses
 * their own spread says nothing and the usual one stands in.
 * Published: prediction interval of a normal sample, Hahn & Meeker; from memory.
 * @param lPerMin free litres a minute of each use
 * @returns null without a use
 * @throws InputError at lPerMin[i] that is not above zero
 */
export function consumptionFigures(lPerMin: readonly number[]): Consumption | null {
	lPerMin.forEach((value, i) => {
		if (!(value > 0)) throw new InputError(`lPerMin[${i}]`, 'A consumption above 0 L/min.');
	});
	const n = lPerMin.length;
	if (n === 0) return null;
	const meanLPerMin = mean(lPerMin);
	if (n < OWN_SPREAD_FROM)
		return {
			uses: n,
			meanLPerMin,
			pessimisticLPerMin: meanLPerMin * (1 + NORMAL_95 * USUAL_SPREAD),
			spread: 'usual'
		};
	const s = Math.sqrt(
		lPerMin.reduce((sum, value) => sum + (value - meanLPerMin) ** 2, 0) / (n - 1)
	);
	return {
		uses: n,
		meanLPerMin,
		pessimisticLPerMin: meanLPerMin + studentQuantile(SHARE, n - 1) * s * Math.sqrt(1 + 1 / n),
		spread: 'own'
	};
}
