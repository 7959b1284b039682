import { commonPractice, InputError, published, type Reason } from '../verdict.ts';

/** What disinfects in two minutes, ppm of available chlorine or iodine. Published: 29 CFR 1910.134 app. B-2; from memory. */
export const DOSE_PPM = 50;
/** One per cent weight by volume in mg/mL, and so in thousands of ppm for one millilitre in a litre. */
const MG_PER_ML_PER_PERCENT = 10;
/** Available chlorine of sodium hypochlorite, by mass: Cl₂ 70.90 over NaOCl 74.44. Computed. */
export const CHLORINE_OF_HYPOCHLORITE = 0.952;

const positive = (path: string, value: number, what: string): void => {
	if (!(value > 0) || !Number.isFinite(value)) throw new InputError(path, `${what} above zero.`);
};

/** A dose of stock in a bath. */
export interface Bath {
	/** Strength of the stock, % weight by volume of available chlorine. */
	stockPercent: number;
	/** Water of the bath, L. */
	volumeL: number;
}

/**
 * Stock for a bath, mL: target × volume over strength.
 * @throws InputError at stockPercent, volumeL or targetPpm
 */
export function stockFor({ stockPercent, volumeL }: Bath, targetPpm = DOSE_PPM): number {
	positive('stockPercent', stockPercent, 'A strength in per cent');
	positive('volumeL', volumeL, 'A volume in litres');
	positive('targetPpm', targetPpm, 'A dose in ppm');
	return (targetPpm * volumeL) / (stockPercent * MG_PER_ML_PER_PERCENT);
}

/**
 * What so much stock really gives in a bath, ppm: the other way round.
 * @throws InputError at stockPercent, volumeL or stockMl
 */
export function doseOf({ stockPercent, volumeL }: Bath, stockMl: number): number {
	positive('stockPercent', stockPercent, 'A strength in per cent');
	positive('volumeL', volumeL, 'A volume in litres');
	if (!(stockMl >= 0) || !Number.isFinite(stockMl))
		throw new InputError('stockMl', 'An amount of stock in millilitres, zero or more.');
	return (stockMl * stockPercent * MG_PER_ML_PER_PERCENT) / volumeL;
}

/** Strength of a stock given as sodium hypochlorite, as available chlorine, %. */
export const asAvailableChlorine = (hypochloritePercent: number): number =>
	hypochloritePercent * CHLORINE_OF_HYPOCHLORITE;

/**
 * Strength that is left of a stock after some days: first order, by its half-life.
 * @throws InputError at days or halfLifeDays
 */
export function strengthLeft(percent: number, days: number, halfLifeDays: number): number {
	if (!(days >= 0)) throw new InputError('days', 'Days since it was opened, zero or more.');
	positive('halfLifeDays', halfLifeDays, 'A half-life in days');
	return percent * 0.5 ** (days / halfLifeDays);
}

/** What is said of a dose beside its number. */
export function doseReasons(resultPpm: number, targetPpm = DOSE_PPM): Reason[] {
	const shown = Number(resultPpm.toPrecision(3));
	const reasons: Reason[] = [
		{
			rule: 'dose.result',
			text: `${shown} ppm of available chlorine; ${targetPpm} ppm for two minutes disinfects.`,
			origin: published('29 CFR 1910.134 appendix B-2'),
			limit: targetPpm,
			value: resultPpm,
			unit: 'ppm',
			margin: resultPpm - targetPpm
		}
	];
	if (resultPpm > targetPpm * 1.1)
		reasons.push({
			rule: 'dose.stronger',
			text: `That is more than the ${targetPpm} ppm it is often said to be: rinse the longer, rubber and metal suffer.`,
			origin: commonPractice('recipes are quoted rounder than they are')
		});
	reasons.push({
		rule: 'dose.never-mixed',
		text: 'Never chlorine together with an acid or with ammonia: poisonous gas.',
		origin: commonPractice()
	});
	return reasons;
}
