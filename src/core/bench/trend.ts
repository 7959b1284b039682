import { plusDays, daysBetween, type Day } from '../plan/calendar.ts';
import { hasDirection, theilSen } from '../stats/theil-sen.ts';
import { computed, type Reason } from '../verdict.ts';

/** A value that was read on a day. */
export interface TrendPoint {
	on: Day;
	value: number;
}

/** The side of a limit that is permitted: at or above `from`, at or below `to`. */
export interface Band {
	from?: number;
	to?: number;
}

export interface Trend {
	n: number;
	/** Change in thirty days, in the unit of the values. */
	perMonth: number;
	/** The readings go one way rather than scatter; without it nothing is said of the future. */
	sure: boolean;
	/** Where the line stands on the last day. */
	now: number;
	/** Day on which the line leaves the band; null when it does not within the horizon. */
	crossesOn: Day | null;
	/** Days from the last reading to the crossing. */
	inDays: number | null;
}

/** Fewer readings say nothing of a direction. Common practice. */
export const LEAST_POINTS = 4;
/** Farther ahead a line means nothing. Site default. */
export const HORIZON_DAYS = 730;
/** A crossing within this time is a watch. Site default: a quarter. */
export const WATCH_DAYS = 90;
const MONTH_DAYS = 30;

/**
 * A robust line through the readings of an item over time, and when it will leave its band.
 * @returns undefined while there are fewer than four days with readings
 */
export function trendOf(points: readonly TrendPoint[], band: Band): Trend | undefined {
	const sorted = [...points].sort((a, b) => (a.on < b.on ? -1 : 1));
	const [first, last] = [sorted[0], sorted.at(-1)];
	if (!first || !last || new Set(sorted.map((p) => p.on)).size < LEAST_POINTS) return undefined;
	const line = theilSen(sorted.map((p) => ({ x: daysBetween(first.on, p.on), y: p.value })));
	if (!line) return undefined;
	const end = daysBetween(first.on, last.on);
	const now = line.intercept + line.slope * end;
	const sure = hasDirection(sorted.map((p) => p.value));
	const inDays = daysToLeave(now, sure ? line.slope : 0, band);
	return {
		n: sorted.length,
		perMonth: line.slope * MONTH_DAYS,
		sure,
		now,
		crossesOn: inDays === null ? null : plusDays(last.on, inDays),
		inDays
	};
}

function daysToLeave(now: number, perDay: number, { from, to }: Band): number | null {
	if ((from !== undefined && now < from) || (to !== undefined && now > to)) return 0;
	const edge = perDay < 0 ? from : to;
	if (edge === undefined || perDay === 0) return null;
	const days = Math.floor((edge - now) / perDay) + 1;
	return days <= HORIZON_DAYS ? days : null;
}

/** What a trend says about an item, where it says anything. */
export function trendReason(
	name: string,
	unit: string,
	trend: Trend,
	band: Band
): Reason | undefined {
	if (trend.inDays === null || trend.inDays > WATCH_DAYS) return undefined;
	const limit = trend.perMonth < 0 ? band.from : band.to;
	return {
		rule: 'trend.crossing',
		text: `${name} ${trend.perMonth < 0 ? 'falls' : 'rises'} by ${Math.abs(trend.perMonth).toFixed(1)} ${unit} a month and reaches ${limit} ${unit} in ${trend.inDays} days if it goes on so.`,
		origin: computed(
			`Theil-Sen line (Sen 1968) with a direction by Mann-Kendall at 5 %, ${trend.n} readings; from memory`
		),
		...(limit === undefined ? {} : { limit }),
		value: Number(trend.now.toFixed(2)),
		unit
	};
}
