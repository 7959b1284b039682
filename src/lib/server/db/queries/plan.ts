import { and, asc, eq, gte, inArray, isNotNull, isNull, lte, ne, notInArray, or, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import type { Day } from '../../../../core/plan/calendar.ts';
import { FAR } from '../../../../core/readiness/findings.ts';
import { atMost, type Connection } from '../client.ts';
import {
	benchTest,
	custody,
	defect,
	inspectionRun,
	item,
	itemDue,
	itemState,
	place,
	plannedJob,
	user,
	workPlan
} from '../schema/index.ts';

const inSet = alias(item, 'in_set');

/** Dues of a horizon with what a plan asks of their items; what is held or in service waits for that first. */
export const duesForPlan = (db: Connection, until: Day, limit: number) =>
	db
		.select({
			id: item.id,
			tag: item.tag,
			family: item.family,
			modelId: item.modelId,
			usePattern: item.usePattern,
			place: place.name,
			placeId: place.id,
			/** The set that it is on: with a part the set is away. */
			setId: inSet.id,
			setFamily: inSet.family,
			what: itemDue.what,
			detail: itemDue.detail,
			from: itemDue.dueFrom,
			on: itemDue.dueOn
		})
		.from(itemDue)
		.innerJoin(item, eq(item.id, itemDue.itemId))
		.innerJoin(itemState, eq(itemState.itemId, item.id))
		.innerJoin(place, eq(place.id, item.placeId))
		.leftJoin(inSet, eq(inSet.id, item.setId))
		.where(
			and(
				lte(itemDue.dueOn, until),
				ne(itemDue.what, 'part'),
				ne(itemDue.dueOn, FAR),
				or(isNull(itemState.blocked), notInArray(itemState.blocked, ['held', 'in service', 'retired']))
			)
		)
		.orderBy(asc(itemDue.dueOn), asc(item.tag))
		.limit(atMost(limit));
export type PlanDueRow = Awaited<ReturnType<typeof duesForPlan>>[number];

const aboutItem = {
	id: item.id,
	tag: item.tag,
	family: item.family,
	modelId: item.modelId,
	place: place.name,
	placeId: place.id
};

/** Faults that hold an item and are not repaired, one row each. */
export const faultsForPlan = (db: Connection, limit: number) =>
	db
		.select({
			...aboutItem,
			defectId: defect.id,
			code: defect.code,
			station: defect.station,
			reportedAt: defect.reportedAt
		})
		.from(defect)
		.innerJoin(item, eq(item.id, defect.itemId))
		.innerJoin(place, eq(place.id, item.placeId))
		.where(and(isNull(defect.closedAt), inArray(defect.severity, ['stop', 'repair'])))
		.orderBy(asc(defect.reportedAt))
		.limit(atMost(limit));

/** What came back dirty and waits for the wash. */
export const dirtyForPlan = (db: Connection, limit: number) =>
	db
		.select({ ...aboutItem, since: custody.since })
		.from(custody)
		.innerJoin(item, eq(item.id, custody.itemId))
		.innerJoin(place, eq(place.id, item.placeId))
		.where(and(isNull(custody.until), eq(custody.where, 'returned')))
		.orderBy(asc(custody.since))
		.limit(atMost(limit));

/** Minutes that signed inspections of each family took, the middle one of those since a day, and how many there were. */
export const inspectionMinutes = (db: Connection, since: Date) =>
	db
		.select({
			family: item.family,
			many: sql<number>`count(*)`.mapWith(Number),
			middle:
				sql<number>`percentile_cont(0.5) within group (order by extract(epoch from ${inspectionRun.signedAt} - ${inspectionRun.startedAt}) / 60)`.mapWith(
					Number
				)
		})
		.from(inspectionRun)
		.innerJoin(item, eq(item.id, inspectionRun.itemId))
		.where(and(gte(inspectionRun.signedAt, since), eq(inspectionRun.purpose, 'inspection')))
		.groupBy(item.family);

/** The same of bench tests. */
export const benchMinutesOf = (db: Connection, since: Date) =>
	db
		.select({
			family: item.family,
			many: sql<number>`count(*)`.mapWith(Number),
			middle:
				sql<number>`percentile_cont(0.5) within group (order by extract(epoch from ${benchTest.endedAt} - ${benchTest.startedAt}) / 60)`.mapWith(
					Number
				)
		})
		.from(benchTest)
		.innerJoin(item, eq(item.id, benchTest.itemId))
		.where(and(gte(benchTest.startedAt, since), isNotNull(benchTest.endedAt)))
		.groupBy(item.family);

/** The plan in force, without its jobs. */
export const planInForce = async (db: Connection) => {
	const [row] = await db
		.select({ plan: workPlan, by: user.name })
		.from(workPlan)
		.leftJoin(user, eq(user.id, workPlan.madeBy))
		.orderBy(sql`${workPlan.number} desc`)
		.limit(1);
	return row ?? null;
};

/** Jobs of the plan in force from a day to a day, of one person where one is named. */
export const plannedJobs = (
	db: Connection,
	between: { from?: Day; until?: Day; userId?: string; placeId?: string } = {}
) =>
	db
		.select()
		.from(plannedJob)
		.where(
			and(
				between.from ? gte(plannedJob.day, between.from) : undefined,
				between.until ? lte(plannedJob.day, between.until) : undefined,
				between.userId ? eq(plannedJob.userId, between.userId) : undefined,
				between.placeId ? eq(plannedJob.placeId, between.placeId) : undefined
			)
		)
		.orderBy(asc(plannedJob.day), asc(plannedJob.jobKey));

/** Lets one plan be put in force at a time, until the transaction ends. */
export const lockPlans = async (tx: Connection): Promise<void> => {
	await tx.execute(sql`select pg_advisory_xact_lock(hashtext('work plan'))`);
};
