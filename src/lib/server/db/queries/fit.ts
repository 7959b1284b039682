import { and, asc, count, eq, gte, isNull, sql } from 'drizzle-orm';
import type { FitTest } from '../../../../core/people/fit-standing.ts';
import type { FitTally } from '../../../../core/fit/pass-rate.ts';
import type { Connection } from '../client.ts';
import { fitSession, fitTest, item, itemModel, itemState } from '../schema/index.ts';

/** How many of the signed tests of each model and size were passed. */
export const fitTallies = (db: Connection): Promise<FitTally[]> =>
	db
		.select({
			model: itemModel.name,
			size: fitTest.size,
			passed: sql<number>`count(*) filter (where ${fitTest.passed})::int`,
			tested: count()
		})
		.from(fitTest)
		.innerJoin(itemModel, eq(itemModel.id, fitTest.modelId))
		.groupBy(itemModel.name, fitTest.size)
		.orderBy(asc(itemModel.name), asc(fitTest.size));

/** Models and sizes that stand in the register, with how many of each nothing holds. */
export const readyMasks = (db: Connection) =>
	db
		.select({
			model: itemModel.name,
			family: item.family,
			size: item.size,
			ready: sql<number>`count(*) filter (where ${itemState.blocked} is null)::int`
		})
		.from(item)
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(itemState, eq(itemState.itemId, item.id))
		.where(and(isNull(item.retiredOn), isNull(itemModel.withdrawnOn)))
		.groupBy(itemModel.name, item.family, item.size);

/** Models in use, by name. */
export const fitModels = (db: Connection) =>
	db
		.select({ id: itemModel.id, name: itemModel.name, family: itemModel.family })
		.from(itemModel)
		.where(isNull(itemModel.withdrawnOn))
		.orderBy(asc(itemModel.name));

/** Every signed test as far as it decides what lapses, the earliest first. */
export async function testsForDues(db: Connection): Promise<(FitTest & { wearerId: string })[]> {
	const rows = await db
		.select({
			wearerId: fitTest.wearerId,
			model: itemModel.name,
			size: fitTest.size,
			on: fitTest.testedOn,
			method: fitTest.method,
			passed: fitTest.passed,
			at: fitTest.testedAt
		})
		.from(fitTest)
		.innerJoin(itemModel, eq(itemModel.id, fitTest.modelId))
		.orderBy(asc(fitTest.testedOn), asc(fitTest.signedAt));
	return rows.map(({ at, ...row }) => ({ ...row, ...(at ? { at: at.toISOString() } : {}) }));
}

/** Tests of a wearer since a day, the earliest first, as they were signed. */
export const signedSince = (db: Connection, wearerId: string, day: string) =>
	db
		.select({ model: itemModel.name, size: fitTest.size, passed: fitTest.passed })
		.from(fitTest)
		.innerJoin(itemModel, eq(itemModel.id, fitTest.modelId))
		.where(and(eq(fitTest.wearerId, wearerId), gte(fitTest.testedOn, day)))
		.orderBy(asc(fitTest.signedAt));

/** The test of a wearer that is under way; undefined where none is. */
export async function openFit(db: Connection, wearerId: string) {
	const [open] = await db
		.select({ id: fitSession.id, startedAt: fitSession.startedAt })
		.from(fitSession)
		.where(and(eq(fitSession.wearerId, wearerId), isNull(fitSession.endedAt)));
	return open;
}
