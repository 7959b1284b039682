import { desc, eq, inArray, isNotNull } from 'drizzle-orm';
import { failedAfter, type SourceFacts } from '../../core/air/source.ts';
import type { Day } from '../../core/plan/calendar.ts';
import type { Connection } from './db/client.ts';
import { latestFills } from './db/queries/fills.ts';
import { airSource, airTest, airWork, cylinder, cylinderTest } from './db/schema/index.ts';
import { groupBy } from './group.ts';
import { dayAt } from './site.ts';

export interface HeldCylinder {
	cylinder: typeof cylinder.$inferSelect;
	/** Day of its last fill. */
	filledOn: Day | null;
	/** Day of the last periodic test that it passed. */
	lastTestOn: Day | null;
	/** Its last periodic test was failed. */
	testFailed: boolean;
	/** The air in it failed a test that was taken after it was filled. */
	airFailed: AirFailed | null;
}

export interface AirFailed {
	source: string;
	sourceId: string;
	on: Day;
	testId: string;
}

/** The data of cylinders with their periodic tests and their last fill, by item; those without data are left out. */
export async function cylindersOf(
	db: Connection,
	itemIds: string[],
	timeZone: string
): Promise<Map<string, HeldCylinder>> {
	if (itemIds.length === 0) return new Map();
	const rows = await db.select().from(cylinder).where(inArray(cylinder.itemId, itemIds));
	if (rows.length === 0) return new Map();
	const tests = groupBy(
		await db
			.select()
			.from(cylinderTest)
			.where(inArray(cylinderTest.itemId, itemIds))
			.orderBy(desc(cylinderTest.testedOn), desc(cylinderTest.notedAt)),
		(test) => test.itemId
	);
	const fills = await latestFills(db, itemIds);
	const failed = await airFailedIn(db, fills, timeZone);
	const filled = new Map(fills.map((fill) => [fill.itemId, dayAt(fill.endedAt, timeZone)]));
	return new Map(
		rows.map((row) => {
			const own = tests.get(row.itemId) ?? [];
			return [
				row.itemId,
				{
					cylinder: row,
					filledOn: filled.get(row.itemId) ?? null,
					lastTestOn: own.find((test) => test.passed)?.testedOn ?? null,
					testFailed: own[0]?.passed === false,
					airFailed: failed.get(row.itemId) ?? null
				}
			];
		})
	);
}

/** Tests of and work on sources, by source; of all of them where none is named. */
export async function sourceFacts(
	db: Connection,
	timeZone: string,
	sourceIds?: string[]
): Promise<Map<string, SourceFacts>> {
	if (sourceIds?.length === 0) return new Map();
	const of = sourceIds ? inArray(airSource.id, sourceIds) : isNotNull(airSource.id);
	const sources = await db.select({ id: airSource.id }).from(airSource).where(of);
	const ids = sources.map((source) => source.id);
	if (ids.length === 0) return new Map();
	const tests = groupBy(
		await db
			.select({
				id: airTest.id,
				sourceId: airTest.sourceId,
				takenAt: airTest.takenAt,
				outcome: airTest.outcome
			})
			.from(airTest)
			.where(inArray(airTest.sourceId, ids)),
		(test) => test.sourceId
	);
	const works = groupBy(
		await db
			.select({ sourceId: airWork.sourceId, doneAt: airWork.doneAt })
			.from(airWork)
			.where(inArray(airWork.sourceId, ids)),
		(work) => work.sourceId
	);
	return new Map(
		ids.map((id) => {
			const moments = (works.get(id) ?? []).map((work) => work.doneAt.getTime());
			return [
				id,
				{
					tests: (tests.get(id) ?? []).map(({ id: testId, takenAt, outcome }) => ({
						...{ id: testId, outcome, at: takenAt.getTime(), on: dayAt(takenAt, timeZone) }
					})),
					workedAt: moments.length ? Math.max(...moments) : null
				}
			];
		})
	);
}

type LastFill = Awaited<ReturnType<typeof latestFills>>[number];

/** Of last fills, those whose air failed a test that was taken after them, by item. */
async function airFailedIn(
	db: Connection,
	fills: readonly LastFill[],
	timeZone: string
): Promise<Map<string, AirFailed>> {
	const held = new Map<string, AirFailed>();
	if (fills.length === 0) return held;
	const facts = await sourceFacts(db, timeZone, [...new Set(fills.map((f) => f.sourceId))]);
	for (const { itemId, startedAt, endedAt, source, sourceId } of fills) {
		const tests = facts.get(sourceId)?.tests ?? [];
		const test = failedAfter(startedAt.getTime(), endedAt.getTime(), tests);
		if (test) held.set(itemId, { source, sourceId, on: test.on, testId: test.id });
	}
	return held;
}

/** Everything that is known of one source. @returns undefined where there is none */
export async function sourceRow(db: Connection, id: string) {
	const [row] = await db.select().from(airSource).where(eq(airSource.id, id));
	return row;
}
