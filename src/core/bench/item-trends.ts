import { groupBy } from '../group-by.ts';
import type { ReadingFacts } from '../inspection/reading.ts';
import type { Day } from '../plan/calendar.ts';
import type { Reason } from '../verdict.ts';
import { HOLD_DROP_BAR, WHISTLE_BAND_BAR, type TestOutcome } from './breathing-apparatus.ts';
import { mostLossPa } from './pressure-test.ts';
import { recipeOf } from './recipes.ts';
import { trendOf, trendReason, type Band, type Trend, type TrendPoint } from './trend.ts';

/** One value of an item over time. */
export interface ItemTrend {
	/** Step of the inspection or recipe of the bench that it comes from. */
	key: string;
	name: string;
	unit: string;
	points: TrendPoint[];
	band: Band;
	trend: Trend | null;
	/** What makes the item watched: a crossing ahead, or the last test passed only within its uncertainty. */
	reasons: Reason[];
}

/** A reading of an inspection that counts. */
export interface TakenReading {
	runId: string;
	step: string;
	on: Day;
	readings: { value?: number; start?: number; end?: number };
	/** It was rejected. */
	failed: boolean;
}

/** A test on the bench that was judged. */
export interface JudgedTest {
	recipe: string;
	version: number;
	on: Day;
	outcome: TestOutcome;
	leakPaPerMin: number | null;
	reasons: readonly Reason[];
}

const FOLLOWED = [
	{ key: 'whistle', name: 'Whistle', unit: 'bar' },
	{ key: 'hold', name: 'Drop in the hold', unit: 'bar' }
] as const;
const SECONDS_PER_MINUTE = 60;

/**
 * Every followed value of an item, with its direction and when it will leave its band.
 * @param readings the earliest first; of a step answered again in one run the last stands
 * @param tests the earliest first
 * @param limits what the maker says where it is stricter than the standard
 */
export function itemTrends(
	readings: readonly TakenReading[],
	tests: readonly JudgedTest[],
	limits: Pick<ReadingFacts, 'holdDropBar' | 'whistle'>
): ItemTrend[] {
	return [...ofReadings(readings, limits), ...ofTests(tests)];
}

/** What makes an item watched, of all that is followed. */
export const watchedBy = (trends: readonly ItemTrend[]): Reason[] =>
	trends.flatMap((trend) => trend.reasons);

function ofReadings(
	rows: readonly TakenReading[],
	limits: Pick<ReadingFacts, 'holdDropBar' | 'whistle'>
): ItemTrend[] {
	return FOLLOWED.flatMap((followed) => {
		const byRun = new Map<string, Judged>();
		for (const row of rows) {
			const value = row.step === followed.key ? valueOf(row.readings) : undefined;
			if (value !== undefined) byRun.set(row.runId, { on: row.on, value, failed: row.failed });
		}
		const points = sinceRepair([...byRun.values()]);
		const band = bandOf(followed.key, limits);
		return points.length ? [followedUp({ ...followed, points, band })] : [];
	});
}

function ofTests(rows: readonly JudgedTest[]): ItemTrend[] {
	return [...groupBy(rows, (row) => row.recipe)].map(([key, tests]) => {
		const last = tests.at(-1);
		const recipe = recipeOf(key, last?.version);
		const points = sinceRepair(
			tests.map((t) => ({ on: t.on, value: t.leakPaPerMin ?? 0, failed: t.outcome === 'fail' }))
		);
		const to = (mostLossPa(recipe, recipe.setPa) / recipe.holdSeconds) * SECONDS_PER_MINUTE;
		const one = followedUp({
			key,
			name: `Leak, ${recipe.name}`,
			unit: 'Pa/min',
			points,
			band: { to }
		});
		return { ...one, reasons: [...marginal(last), ...one.reasons] };
	});
}

/** What a test that passed only within its uncertainty says of the item. */
const marginal = (test?: JudgedTest): Reason[] =>
	test?.outcome === 'pass, marginal'
		? test.reasons
				.filter((reason) => reason.rule === 'pressure.guard-band')
				.map((reason) => ({
					...reason,
					text: `Passed only within its uncertainty. ${reason.text}`
				}))
		: [];

type Judged = TrendPoint & { failed: boolean };

/** What failed was mended: the line begins anew after it, unless it was the last. */
function sinceRepair(points: readonly Judged[]): TrendPoint[] {
	const failure = points.slice(0, -1).findLastIndex((p) => p.failed);
	return points.slice(failure + 1).map(({ on, value }) => ({ on, value }));
}

function followedUp(one: Omit<ItemTrend, 'trend' | 'reasons'>): ItemTrend {
	const trend = trendOf(one.points, one.band) ?? null;
	const reason = trend && trendReason(one.name, one.unit, trend, one.band);
	return { ...one, trend, reasons: reason ? [reason] : [] };
}

const valueOf = (readings: TakenReading['readings']) =>
	readings.value ??
	(readings.start !== undefined && readings.end !== undefined
		? Number((readings.start - readings.end).toFixed(3))
		: undefined);

const bandOf = (
	step: string,
	{ holdDropBar, whistle }: Pick<ReadingFacts, 'holdDropBar' | 'whistle'>
): Band =>
	step === 'whistle'
		? (whistle ?? WHISTLE_BAND_BAR)
		: { to: Math.min(holdDropBar ?? HOLD_DROP_BAR, HOLD_DROP_BAR) };
