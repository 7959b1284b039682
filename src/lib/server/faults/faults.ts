import { and, asc, count, desc, eq, isNull, ne, or } from 'drizzle-orm';
import { stationOf } from '../../../core/data/families.ts';
import { rejectCode } from '../../../core/data/reject-codes.ts';
import type { Connection } from '../db/client.ts';
import { reportFault } from '../db/queries/faults.ts';
import {
	defect,
	defectReport,
	item,
	itemModel,
	place,
	serviceJob,
	serviceJobDefect,
	user
} from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import type { Work } from '../kernel/write.ts';
import { jobWithParts } from './jobs.ts';

export interface NewDefect {
	id: string;
	itemId: string;
	station: string;
	code: string;
	step?: string;
	runId?: string;
	note?: string | null;
}

/** Opens a defect in the write of what found it; the same open fault counts as one more report. */
export async function openDefect(
	at: Work,
	found: NewDefect
): Promise<{ id: string; merged: boolean }> {
	const { severity } = rejectCode(found.code);
	const id = await reportFault(at.tx, {
		...found,
		severity,
		reportedBy: at.actor.id,
		reportedAt: at.now
	});
	const merged = id !== found.id;
	at.changed(found.itemId);
	at.record(merged ? 'defect.reported-again' : 'defect.opened', {
		of: id,
		itemId: found.itemId,
		payload: { station: found.station, code: found.code, severity, note: found.note ?? null }
	});
	return { id, merged };
}

/** Takes a defect of the running inspection back, as its answer was undone before signing. */
export async function withdrawDefect(
	at: Work,
	of: { runId: string; itemId: string; station: string; code: string }
): Promise<void> {
	const { tx } = at;
	const [found] = await tx
		.select({ report: defectReport, open: defect })
		.from(defectReport)
		.innerJoin(defect, eq(defect.id, defectReport.defectId))
		.where(
			and(
				eq(defectReport.runId, of.runId),
				isNull(defectReport.withdrawnAt),
				eq(defect.itemId, of.itemId),
				eq(defect.station, of.station),
				eq(defect.code, of.code),
				isNull(defect.closedAt)
			)
		)
		.for('update');
	if (!found) return;
	const { stays } = await takeBack(at, found.report.id, found.open.id);
	at.changed(of.itemId);
	at.record(stays ? 'defect.report-withdrawn' : 'defect.withdrawn', {
		of: found.open.id,
		itemId: of.itemId,
		payload: { station: of.station, code: of.code }
	});
}

/** Takes one report back; without another that stands, the fault ends with it. */
export async function takeBack(
	{ tx, now, actor }: Work,
	reportId: string,
	defectId: string,
	why: string | null = null
): Promise<{ stays: boolean }> {
	await tx.update(defectReport).set({ withdrawnAt: now }).where(eq(defectReport.id, reportId));
	const [left] = await tx
		.select({ id: defectReport.id })
		.from(defectReport)
		.where(and(eq(defectReport.defectId, defectId), isNull(defectReport.withdrawnAt)))
		.limit(1);
	if (!left)
		await tx
			.update(defect)
			.set({ closedAt: now, closedHow: 'withdrawn', closedBy: actor.id, closedWhy: why })
			.where(eq(defect.id, defectId));
	return { stays: left !== undefined };
}

/** Open defects, the most serious first; without a number all of them. */
export function openDefects(db: Connection, most?: number) {
	const rows = db
		.select({
			defect,
			tag: item.tag,
			family: item.family,
			place: place.name,
			by: user.name
		})
		.from(defect)
		.innerJoin(item, eq(item.id, defect.itemId))
		.innerJoin(place, eq(place.id, item.placeId))
		.innerJoin(user, eq(user.id, defect.reportedBy))
		.where(isNull(defect.closedAt))
		.orderBy(asc(defect.severity), asc(defect.reportedAt));
	return most === undefined ? rows : rows.limit(most);
}

/** How often each station of each family failed, over all time; withdrawn reports are not counted. */
export function faultsByStation(db: Connection) {
	return db
		.select({ family: item.family, station: defect.station, n: count() })
		.from(defect)
		.innerJoin(item, eq(item.id, defect.itemId))
		.where(or(isNull(defect.closedHow), ne(defect.closedHow, 'withdrawn')))
		.groupBy(item.family, defect.station);
}

/** A defect with everything its page shows. */
export async function defectPage(context: Context, id: string) {
	const { db } = context;
	const [row] = await db
		.select({ defect, item, model: itemModel.name, place: place.name, by: user.name })
		.from(defect)
		.innerJoin(item, eq(item.id, defect.itemId))
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(place, eq(place.id, item.placeId))
		.innerJoin(user, eq(user.id, defect.reportedBy))
		.where(eq(defect.id, id));
	if (!row) throw new Refusal('not found', 'There is no such fault.');
	const others = await db
		.select()
		.from(defect)
		.where(and(eq(defect.itemId, row.item.id), isNull(defect.closedAt)))
		.orderBy(asc(defect.reportedAt));
	const [linked] = await db
		.select({ job: serviceJob })
		.from(serviceJobDefect)
		.innerJoin(serviceJob, eq(serviceJob.id, serviceJobDefect.jobId))
		.where(eq(serviceJobDefect.defectId, id))
		.orderBy(desc(serviceJob.startedAt))
		.limit(1);
	const job = linked ? await jobWithParts(db, linked.job.id) : null;
	const reports = await db
		.select({ report: defectReport, by: user.name })
		.from(defectReport)
		.innerJoin(user, eq(user.id, defectReport.reportedBy))
		.where(eq(defectReport.defectId, id))
		.orderBy(asc(defectReport.reportedAt));
	return { ...row, others, reports, job, station: stationOf(row.item.family, row.defect.station) };
}
