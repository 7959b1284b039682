import { weibullMean, weibullSurvival, type Weibull } from './weibull.ts';

/** What it costs to change a part in time, and what if it fails in service first; in one money or in minutes. */
export interface ReplacementCosts {
	planned: number;
	failed: number;
}

export interface ReplacementChoice {
	/** In the unit of the law. */
	interval: number;
	/** Chance that it fails in service before it is changed. */
	failsBefore: number;
	/** Changes per unit of time, planned and not. */
	changesPerTime: number;
	costPerTime: number;
}

/** Slices of the integral of the share that lives. */
const SLICES = 400;

/**
 * What an interval of planned change brings in the long run: each part is changed at that age, or when it fails before. Published: Barlow
 * & Proschan, Mathematical Theory of Reliability (1965); from memory. The integral by Simpson's rule.
 * @throws RangeError where the interval is not above zero
 */
export function ageReplacement(
	law: Weibull,
	interval: number,
	{ planned, failed }: ReplacementCosts
): ReplacementChoice {
	if (!(interval > 0)) throw new RangeError('An interval above zero.');
	const lives = weibullSurvival(interval, law);
	const length = meanLife(law, interval);
	return {
		interval,
		failsBefore: 1 - lives,
		changesPerTime: 1 / length,
		costPerTime: (planned * lives + failed * (1 - lives)) / length
	};
}

/** Mean time that a part serves where it is changed at that age. */
function meanLife(law: Weibull, interval: number): number {
	const width = interval / SLICES;
	let sum = weibullSurvival(0, law) + weibullSurvival(interval, law);
	for (let i = 1; i < SLICES; i++) sum += (i % 2 ? 4 : 2) * weibullSurvival(i * width, law);
	return Math.min(weibullMean(law), (sum * width) / 3);
}

/**
 * The interval that costs least in the long run.
 * @returns null where changing in time never pays: the rate of failing does not rise, or a failure costs no more
 */
export function bestInterval(law: Weibull, costs: ReplacementCosts): ReplacementChoice | null {
	if (law.shape <= 1 || costs.failed <= costs.planned || costs.planned <= 0) return null;
	const unplanned = costs.failed / weibullMean(law);
	let best: ReplacementChoice | null = null;
	// The cost has one valley; a grid that is fine where lives are short finds it to one part in a hundred.
	for (let t = law.scale / 200; t < law.scale * 5; t *= 1.01) {
		const choice = ageReplacement(law, t, costs);
		if (!best || choice.costPerTime < best.costPerTime) best = choice;
	}
	return best && best.costPerTime < unplanned * 0.999 ? best : null;
}
