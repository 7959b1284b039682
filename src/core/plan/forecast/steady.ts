import { poissonProbability, poissonQuantile } from '../../stats/poisson.ts';

/** Days that a month counts as. Common practice. */
export const MONTH_DAYS = 30;

/** How many are away at a time, and how often that leaves fewer than the floor. */
export interface ReadyChance {
	/** Mean number away. */
	expectedAway: number;
	/** Chance that fewer than the floor are ready. */
	chanceBelowFloor: number;
}

/**
 * In steady state the number away is Poisson with mean rate × turnaround, however the turnaround is spread (published:
 * Palm 1938, the theorem on M/G/∞; from memory).
 * @param awayPerDay how many leave in a day on average
 * @param awayDays how long one stays away on average
 */
export function readyChance({
	sets,
	awayPerDay,
	awayDays,
	floor
}: {
	sets: number;
	awayPerDay: number;
	awayDays: number;
	floor: number;
}): ReadyChance {
	const expectedAway = awayPerDay * awayDays;
	return { expectedAway, chanceBelowFloor: 1 - poissonProbability(sets - floor, expectedAway) };
}

/** Fewest sets with which the chance to fall under a floor stays within what is chosen, in steady state. */
export const setsFor = (
	{ awayPerDay, awayDays, floor }: { awayPerDay: number; awayDays: number; floor: number },
	mostChance: number
): number => floor + poissonQuantile(1 - mostChance, awayPerDay * awayDays);

/** When more of a slow mover is ordered. */
export interface Reorder {
	/** Least stock that covers the demand until a delivery comes. */
	reorderAt: number;
	/** Mean demand in that time. */
	expected: number;
}

/**
 * The stock at which more is ordered: the least that covers the Poisson demand of the lead time with the chance that is
 * wanted. A month counts as 30 days.
 * @param serviceLevel chance to have enough, above 0 and below 1
 */
export function reorderPoint({
	perMonth,
	leadTimeDays,
	serviceLevel
}: {
	perMonth: number;
	leadTimeDays: number;
	serviceLevel: number;
}): Reorder {
	const expected = (perMonth * leadTimeDays) / MONTH_DAYS;
	return { reorderAt: poissonQuantile(serviceLevel, expected), expected };
}
