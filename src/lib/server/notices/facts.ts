import { asc, eq, inArray } from 'drizzle-orm';
import { rejectCode } from '../../../core/data/reject-codes.ts';
import type { DigestFacts } from '../../../core/notices/digest.ts';
import { dueWords, lastDayWords } from '../../../core/plan/agenda.ts';
import { daysBetween, plusDays, readable, type Day } from '../../../core/plan/calendar.ts';
import type { Connection } from '../db/client.ts';
import { type DueRow, duesOver, duesUntil } from '../db/queries/dues.ts';
import { item, itemState, place } from '../db/schema/index.ts';
import { plannedJobs } from '../db/queries/plan.ts';
import { openDefects } from '../faults/faults.ts';
import { partsStore } from '../faults/parts.ts';
import { store } from '../filters/store.ts';
import { listPlans } from '../hazards/plans.ts';
import type { Reader } from '../kernel/context.ts';
import { lastBackup } from '../records/backups.ts';
import { dayAt } from '../kernel/site.ts';
import { peopleDues } from '../people/dues.ts';
import type { Site } from '../kernel/site.ts';

/** Rows of one kind that are read. */
const MOST = 1000;
/** How far ahead the message of a day looks. Site default. */
const AHEAD_DAYS = 7;
/** A backup older than so many days is told of: one night may be missed. Site default. */
const LATE_DAYS = 2;

/** Everything that the messages of a day are made from, read once for all of them. */
export async function digestFacts(db: Connection, site: Site, day: Day): Promise<DigestFacts> {
	const reader: Reader = { db, site, now: () => new Date(`${day}T12:00:00Z`) };
	const until = plusDays(day, AHEAD_DAYS);
	const [overdue, due, held, defects, plans, filters, parts, people, planned, last] =
		await Promise.all([
			duesOver(db, day, MOST),
			duesUntil(db, until, day, MOST),
			heldItems(db),
			openDefects(db, MOST),
			listPlans(reader),
			store(reader),
			partsStore(reader),
			peopleDues(db, day, until),
			plannedJobs(db, { from: day, until: day }),
			lastBackup(db)
		]);
	const line = (row: DueRow) => ({
		tag: row.tag,
		what: dueWords(row.dueWhat, row.dueDetail).toLowerCase(),
		by: lastDayWords({ on: row.dueOn, left: row.dueLeft }, day),
		placeId: row.placeId,
		place: row.place
	});
	const whyHeld = new Map(
		defects.map((row) => [row.tag, rejectCode(row.defect.code).name] as const).reverse()
	);
	return {
		site: site.name,
		day,
		overdue: overdue.map(line),
		due: due.filter(({ dueOn }) => dueOn >= day).map(line),
		held: held.map((row) => ({
			...row,
			why: whyHeld.get(row.tag) ?? (row.blocked === 'in service' ? 'in service' : 'see its page')
		})),
		plans: plans.flatMap(({ plan, status, place: where }) =>
			['review due', 'expired', 'in question'].includes(status.outcome)
				? [`${plan.task}, ${where}: ${status.outcome}`]
				: []
		),
		planned: planned.map(({ userId, job }) => ({
			userId,
			line: `${job.tag}: ${job.title.charAt(0).toLowerCase()}${job.title.slice(1)}${job.place ? `. ${job.place}` : ''}, ${job.minutes} min`
		})),
		backups: last ? backupLate(dayAt(last.takenAt, site.timeZone), day) : [],
		people: people.map(({ name, says }) => `${name}: ${says}`),
		buy: [
			...filters.models.flatMap(({ model, usable, buy }) =>
				buy ? [`${model.name}: ${usable} sealed, bought below ${model.reorderLevel}`] : []
			),
			...parts.flatMap(({ name, usable, level, buy, runsOut, lots }) => [
				...(buy ? [`${name}: ${usable} left, bought below ${level}`] : []),
				...(runsOut
					? [`${name}: ${runsOut} run out, the first on ${readable(lots[0]?.useBy ?? day)}`]
					: [])
			])
		]
	};
}

/** A site that never took one here may take them elsewhere; one that did and stopped is told. */
const backupLate = (taken: Day, day: Day): string[] =>
	daysBetween(taken, day) > LATE_DAYS ? [`The last was taken on ${readable(taken)}.`] : [];

/** What may not be used, by tag. */
const heldItems = (db: Connection) =>
	db
		.select({
			tag: item.tag,
			blocked: itemState.blocked,
			placeId: item.placeId,
			place: place.name
		})
		.from(itemState)
		.innerJoin(item, eq(item.id, itemState.itemId))
		.innerJoin(place, eq(place.id, item.placeId))
		.where(inArray(itemState.blocked, ['held', 'in service']))
		.orderBy(asc(item.tag))
		.limit(MOST);
