import { and, asc, eq, isNotNull, inArray } from 'drizzle-orm';
import { HOLD_DROP_BAR, WHISTLE_BAND_BAR } from '../../core/bench/breathing-apparatus.ts';
import { mostLossPa } from '../../core/bench/pressure-test.ts';
import { recipeOf } from '../../core/bench/recipes.ts';
import {
	trendOf,
	trendReason,
	type Band,
	type Trend,
	type TrendPoint
} from '../../core/bench/trend.ts';
import type { Reason } from '../../core/verdict.ts';
import type { Connection } from './db/client.ts';
import { standing } from './db/queries/inspections.ts';
import { benchTest, inspectionAnswer, inspectionRun } from './db/schema/index.ts';
import { groupBy } from './group.ts';
import { dayAt } from './site.ts';

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

const FOLLOWED = [
	{ key: 'whistle', name: 'Whistle', unit: 'bar' },
	{ key: 'hold', name: 'Drop in the hold', unit: 'bar' }
] as const;
const SECONDS_PER_MINUTE = 60;

/** Every followed value of items, with its direction and when it will leave its band, by item. */
export async function trendsOf(
	db: Connection,
	timeZone: string,
	items: readonly { id: string; holdDropBar: number | null }[]
): Promise<Map<string, ItemTrend[]>> {
	const ids = items.map((one) => one.id);
	const readings = groupBy(await readingsOf(db, ids), (row) => row.itemId);
	const tests = groupBy(await testsOf(db, ids), (row) => row.itemId);
	return new Map(
		items.map(({ id, holdDropBar }) => [
			id,
			[
				...ofReadings(readings.get(id) ?? [], holdDropBar, timeZone),
				...ofTests(tests.get(id) ?? [], timeZone)
			]
		])
	);
}

const readingsOf = async (db: Connection, itemIds: string[]) =>
	itemIds.length === 0
		? []
		: db
				.select({
					itemId: inspectionRun.itemId,
					step: inspectionAnswer.step,
					value: inspectionAnswer.value,
					readings: inspectionAnswer.readings,
					run: inspectionRun.id,
					signedAt: inspectionRun.signedAt
				})
				.from(inspectionAnswer)
				.innerJoin(inspectionRun, eq(inspectionRun.id, inspectionAnswer.runId))
				.where(
					and(
						inArray(inspectionRun.itemId, itemIds),
						inArray(
							inspectionAnswer.step,
							FOLLOWED.map((f) => f.key)
						),
						isNotNull(inspectionAnswer.readings),
						...standing(db)
					)
				)
				.orderBy(asc(inspectionRun.signedAt), asc(inspectionAnswer.position));

/** Judged tests, the earliest first; one that has to be repeated says nothing of the item. */
const testsOf = async (db: Connection, itemIds: string[]) =>
	itemIds.length === 0
		? []
		: db
				.select({
					itemId: benchTest.itemId,
					recipe: benchTest.recipe,
					version: benchTest.recipeVersion,
					startedAt: benchTest.startedAt,
					outcome: benchTest.outcome,
					leakPaPerMin: benchTest.leakPaPerMin,
					reasons: benchTest.reasons
				})
				.from(benchTest)
				.where(
					and(
						inArray(benchTest.itemId, itemIds),
						inArray(benchTest.outcome, ['pass', 'pass, marginal', 'fail'])
					)
				)
				.orderBy(asc(benchTest.startedAt));

function ofReadings(
	rows: Awaited<ReturnType<typeof readingsOf>>,
	holdDropBar: number | null,
	timeZone: string
): ItemTrend[] {
	return FOLLOWED.flatMap((followed) => {
		// Of a step that was answered again in the same run the last answer stands.
		const byRun = new Map<string, Judged>();
		for (const row of rows) {
			const value = row.step === followed.key ? valueOf(row.readings) : undefined;
			if (value !== undefined && row.signedAt)
				byRun.set(row.run, {
					on: dayAt(row.signedAt, timeZone),
					value,
					failed: row.value === 'reject'
				});
		}
		const points = sinceRepair([...byRun.values()]);
		const band = bandOf(followed.key, holdDropBar);
		return points.length ? [followedUp({ ...followed, points, band })] : [];
	});
}

function ofTests(rows: Awaited<ReturnType<typeof testsOf>>, timeZone: string): ItemTrend[] {
	return [...groupBy(rows, (row) => row.recipe)].map(([key, tests]) => {
		const last = tests.at(-1);
		const recipe = recipeOf(key, last?.version);
		const points = sinceRepair(
			tests.map((t) => ({
				on: dayAt(t.startedAt, timeZone),
				value: t.leakPaPerMin ?? 0,
				failed: t.outcome === 'fail'
			}))
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
const marginal = (test?: Awaited<ReturnType<typeof testsOf>>[number]): Reason[] =>
	test?.outcome === 'pass, marginal'
		? (test.reasons ?? [])
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

const valueOf = (readings: (typeof inspectionAnswer.$inferSelect)['readings']) =>
	readings?.value ??
	(readings?.start !== undefined && readings.end !== undefined
		? Number((readings.start - readings.end).toFixed(3))
		: undefined);

const bandOf = (step: string, holdDropBar: number | null): Band =>
	step === 'whistle'
		? WHISTLE_BAND_BAR
		: { to: Math.min(holdDropBar ?? HOLD_DROP_BAR, HOLD_DROP_BAR) };
