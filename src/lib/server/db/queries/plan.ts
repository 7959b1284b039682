import {
	and,
	asc,
	desc,
	eq,
	gte,
	inArray,
	isNotNull,
	isNull,
	lte,
	ne,
	notInArray,
	or,
	sql
} from 'drizzle-orm';
import { alias, type PgColumn } from 'drizzle-orm/pg-core';
import type { Day } from '../../../../core/plan/calendar.ts';
import { FAR } from '../../../../core/readiness/findings.ts';
import { atMost, type Connection } from '../client.ts';
import { NOT_PLANNED } from './stock.ts';
import {
	benchTest,
	custody,
	cylinderFill,
	defect,
	filterLot,
	filterPair,
	inspectionRun,
	item,
	itemDue,
	itemModel,
	itemState,
	partLot,
	place,
	planFeed,
	plannedJob,
	serviceJob,
	servicePart,
	user,
	workPlan
} from '../schema/index.ts';

const inSet = alias(item, 'in_set');

/** Dues that a plan takes; what is held or in service waits for that first. */
const planned = (until: Day) =>
	and(
		lte(itemDue.dueOn, until),
		ne(itemDue.what, 'part'),
		ne(itemDue.dueOn, FAR),
		or(isNull(itemState.blocked), notInArray(itemState.blocked, [...NOT_PLANNED]))
	);

/** Dues of a horizon with what a plan asks of their items. */
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
		.where(planned(until))
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

/** The last of a year are enough to tell how long a job takes, however many a large site does. */
const LAST_DONE = 2000;

/** How many there are of each family, and the middle of their minutes. */
const middles = (db: Connection, done: ReturnType<typeof lastInspections | typeof lastTests>) =>
	db
		.select({
			family: item.family,
			many: sql<number>`count(*)`.mapWith(Number),
			middle: sql<number>`percentile_cont(0.5) within group (order by ${done.minutes})`.mapWith(
				Number
			)
		})
		.from(done)
		.innerJoin(item, eq(item.id, done.itemId))
		.groupBy(item.family);

const minutesBetween = (from: PgColumn, to: PgColumn) =>
	sql<number>`(extract(epoch from ${to} - ${from}) / 60)::float8`.as('minutes');

const lastInspections = (db: Connection, since: Date) =>
	db
		.select({
			itemId: inspectionRun.itemId,
			minutes: minutesBetween(inspectionRun.startedAt, inspectionRun.signedAt)
		})
		.from(inspectionRun)
		.where(
			and(
				gte(inspectionRun.signedAt, since),
				eq(inspectionRun.purpose, 'inspection'),
				// From paper it is not known how long it took.
				isNull(inspectionRun.doneAt)
			)
		)
		.orderBy(desc(inspectionRun.signedAt))
		.limit(atMost(LAST_DONE))
		.as('done');

const lastTests = (db: Connection, since: Date) =>
	db
		.select({
			itemId: benchTest.itemId,
			minutes: minutesBetween(benchTest.startedAt, benchTest.endedAt)
		})
		.from(benchTest)
		.where(and(gte(benchTest.startedAt, since), isNotNull(benchTest.endedAt)))
		.orderBy(desc(benchTest.startedAt))
		.limit(atMost(LAST_DONE))
		.as('done');

/** Minutes that signed inspections of each family took, the middle one of the last since a day, and how many those were. */
export const inspectionMinutes = (db: Connection, since: Date) =>
	middles(db, lastInspections(db, since));

/** The same of bench tests. */
export const benchMinutesOf = (db: Connection, since: Date) => middles(db, lastTests(db, since));

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

/** What of each family was looked over and failed since a day. */
export const failuresSince = (db: Connection, since: Date) =>
	db
		.select({
			family: item.family,
			of: sql<number>`count(*)`.mapWith(Number),
			failed: sql<number>`count(*) filter (where ${inspectionRun.outcome} = 'fail')`.mapWith(Number)
		})
		.from(inspectionRun)
		.innerJoin(item, eq(item.id, inspectionRun.itemId))
		.where(and(gte(inspectionRun.signedAt, since), eq(inspectionRun.purpose, 'inspection')))
		.groupBy(item.family);

/** Days from a fault to its end, on average, by family. */
export const repairDaysSince = (db: Connection, since: Date) =>
	db
		.select({
			family: item.family,
			days: sql<number>`avg(extract(epoch from ${defect.closedAt} - ${defect.reportedAt}) / 86400)`.mapWith(
				Number
			)
		})
		.from(defect)
		.innerJoin(item, eq(item.id, defect.itemId))
		.where(and(gte(defect.closedAt, since), inArray(defect.severity, ['stop', 'repair'])))
		.groupBy(item.family);

/** How often things of a place and family went out since a day, and how long they were away until back on a shelf, days. */
export const usesSince = (db: Connection, since: Date) =>
	db
		.select({
			placeId: item.placeId,
			family: item.family,
			times: sql<number>`count(*)`.mapWith(Number)
		})
		.from(custody)
		.innerJoin(item, eq(item.id, custody.itemId))
		.where(and(gte(custody.since, since), eq(custody.where, 'issued')))
		.groupBy(item.placeId, item.family);

/** How many of each model stand at each place that has a floor for them. */
export const modelsByPlace = (db: Connection) =>
	db
		.select({
			place: place.name,
			family: item.family,
			id: itemModel.id,
			name: itemModel.name,
			count: sql<number>`count(*)`.mapWith(Number)
		})
		.from(item)
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(place, eq(place.id, item.placeId))
		.where(and(isNull(item.retiredOn), isNull(item.setId)))
		.groupBy(place.name, item.family, itemModel.id, itemModel.name);

/** How many filters of each model were opened since a day. */
export const openedSince = (db: Connection, since: Day) =>
	db
		.select({
			modelId: filterLot.modelId,
			pieces: sql<number>`sum(${filterPair.filters})`.mapWith(Number)
		})
		.from(filterPair)
		.innerJoin(filterLot, eq(filterLot.id, filterPair.lotId))
		.where(gte(filterPair.openedOn, since))
		.groupBy(filterLot.modelId);

/** Which model of filter is on each item now. */
export const filtersOnItems = (db: Connection) =>
	db
		.select({ itemId: filterPair.itemId, modelId: filterLot.modelId, pieces: filterPair.filters })
		.from(filterPair)
		.innerJoin(filterLot, eq(filterLot.id, filterPair.lotId))
		.where(isNull(filterPair.discardedAt));

/** How many of each part went into repairs since a day. */
export const partsUsedSince = (db: Connection, since: Date) =>
	db
		.select({
			part: partLot.part,
			pieces: sql<number>`sum(${servicePart.quantity})`.mapWith(Number)
		})
		.from(servicePart)
		.innerJoin(partLot, eq(partLot.id, servicePart.lotId))
		.innerJoin(serviceJob, eq(serviceJob.id, servicePart.jobId))
		.where(gte(serviceJob.startedAt, since))
		.groupBy(partLot.part);

/** How many cylinders were filled since a day. */
export const fillsSince = async (db: Connection, since: Date): Promise<number> => {
	const [row] = await db
		.select({ many: sql<number>`count(*)`.mapWith(Number) })
		.from(cylinderFill)
		.where(gte(cylinderFill.endedAt, since));
	return row?.many ?? 0;
};

/** Notes that a calendar was read. */
export const noteFeedRead = async (db: Connection, id: string, at: Date): Promise<void> => {
	await db.update(planFeed).set({ readAt: at }).where(eq(planFeed.id, id));
};
