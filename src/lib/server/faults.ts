import { and, asc, count, desc, eq, inArray, isNotNull, isNull, ne, or } from 'drizzle-orm';
import { airwayOf, stationOf } from '../../core/data/families.ts';
import { rejectCode } from '../../core/data/reject-codes.ts';
import { PARTS, partForStation, repairOf } from '../../core/data/repairs.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import type { Connection } from './db/client.ts';
import {
	defect,
	inspectionRun,
	item,
	itemModel,
	partLot,
	place,
	serviceJob,
	serviceJobDefect,
	servicePart,
	user
} from './db/schema/index.ts';
import { brokenConstraint, Fault } from './errors.ts';
import { rebuildState } from './readiness.ts';
import { dayAt, type Site } from './site.ts';

export interface NewDefect {
	id: string;
	itemId: string;
	station: string;
	code: string;
	step?: string;
	runId?: string;
	note?: string | null;
}

/** Opens a defect in the transaction of what found it; the same open fault counts as one more report. */
export async function openDefect(
	tx: Connection,
	context: Context,
	found: NewDefect
): Promise<{ id: string; merged: boolean }> {
	const [same] = await tx
		.select()
		.from(defect)
		.where(
			and(
				eq(defect.itemId, found.itemId),
				eq(defect.station, found.station),
				eq(defect.code, found.code),
				isNull(defect.closedAt)
			)
		)
		.for('update');
	const { severity } = rejectCode(found.code);
	if (same)
		await tx
			.update(defect)
			.set({ reports: same.reports + 1 })
			.where(eq(defect.id, same.id));
	else
		await tx.insert(defect).values({
			...found,
			severity,
			reportedBy: context.actor.id,
			reportedAt: context.now()
		});
	const id = same?.id ?? found.id;
	await record(tx, context.actor.id, {
		action: same ? 'defect.reported-again' : 'defect.opened',
		subject: `defect:${id}`,
		itemId: found.itemId,
		payload: { station: found.station, code: found.code, severity, note: found.note ?? null }
	});
	return { id, merged: Boolean(same) };
}

/** Takes a defect of the running inspection back, as its answer was undone before signing. */
export async function withdrawDefect(
	tx: Connection,
	context: Context,
	of: { runId: string; itemId: string; station: string; code: string }
): Promise<void> {
	const [open] = await tx
		.select()
		.from(defect)
		.where(
			and(
				eq(defect.itemId, of.itemId),
				eq(defect.station, of.station),
				eq(defect.code, of.code),
				isNull(defect.closedAt)
			)
		)
		.for('update');
	if (!open) return;
	// A fault that someone else reported before stays.
	if (open.reports > 1 || open.runId !== of.runId) {
		await tx
			.update(defect)
			.set({ reports: Math.max(1, open.reports - 1) })
			.where(eq(defect.id, open.id));
		return;
	}
	await tx
		.update(defect)
		.set({ closedAt: context.now(), closedHow: 'withdrawn' })
		.where(eq(defect.id, open.id));
	await record(tx, context.actor.id, {
		action: 'defect.withdrawn',
		subject: `defect:${open.id}`,
		itemId: of.itemId,
		payload: { station: of.station, code: of.code }
	});
}

/** Open faults, most serious and oldest first. */
export function openDefects(db: Connection, limit = 200) {
	return db
		.select({ defect, tag: item.tag, family: item.family, place: place.name, by: user.name })
		.from(defect)
		.innerJoin(item, eq(item.id, defect.itemId))
		.innerJoin(place, eq(place.id, item.placeId))
		.innerJoin(user, eq(user.id, defect.reportedBy))
		.where(isNull(defect.closedAt))
		.orderBy(asc(defect.severity), asc(defect.reportedAt))
		.limit(limit);
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
	if (!row) throw new Fault('not found', 'There is no such fault.');
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
	return { ...row, others, job, station: stationOf(row.item.family, row.defect.station) };
}

/** A repair with its parts, the people in it and the inspection that proves it. */
export async function jobWithParts(db: Connection, jobId: string) {
	const [job] = await db.select().from(serviceJob).where(eq(serviceJob.id, jobId));
	if (!job) throw new Fault('not found', 'There is no such repair.');
	const parts = await db
		.select({ part: partLot.part, lot: partLot.lot, quantity: servicePart.quantity })
		.from(servicePart)
		.innerJoin(partLot, eq(partLot.id, servicePart.lotId))
		.where(eq(servicePart.jobId, jobId));
	const ids = [job.startedBy, job.doneBy, job.releasedBy].filter((id) => id !== null);
	const people = await db
		.select({ id: user.id, name: user.name })
		.from(user)
		.where(inArray(user.id, ids));
	const covered = await db
		.select({ defect })
		.from(serviceJobDefect)
		.innerJoin(defect, eq(defect.id, serviceJobDefect.defectId))
		.where(eq(serviceJobDefect.jobId, jobId));
	const [run] = await db
		.select()
		.from(inspectionRun)
		.where(eq(inspectionRun.serviceJobId, jobId))
		.orderBy(desc(inspectionRun.startedAt))
		.limit(1);
	return {
		...job,
		parts,
		defects: covered.map((row) => row.defect),
		names: Object.fromEntries(people.map((p) => [p.id, p.name])),
		run: run ?? null
	};
}

/** Lots in the store that a repair at a station can take its parts from, the first to expire first. */
export async function partsFor(db: Connection, repairKey: string, station: string, asOf: string) {
	const wanted = repairOf(repairKey).parts.map((p) => ({
		...p,
		part: partForStation(p.part, station)
	}));
	if (wanted.length === 0) return [];
	const lots = await db
		.select()
		.from(partLot)
		.where(
			inArray(
				partLot.part,
				wanted.map((p) => p.part)
			)
		)
		.orderBy(asc(partLot.useBy));
	return wanted.map((p) => ({
		...p,
		name: PARTS[p.part]?.name ?? p.part,
		lots: lots.filter((lot) => lot.part === p.part && (!lot.useBy || lot.useBy >= asOf))
	}));
}

export interface JobStart {
	id: string;
	itemId: string;
	repair: string;
	defectIds: string[];
}

/** Starts a repair: the item goes into service. */
export async function startJob(context: Context, site: Site, start: JobStart): Promise<string> {
	requireRole(context.actor, 'repair');
	const repair = findRepair(start.repair);
	try {
		return await inTransaction(context, async (tx) => {
			const defects = await tx
				.select()
				.from(defect)
				.where(and(inArray(defect.id, start.defectIds), isNull(defect.closedAt)))
				.for('update');
			const [again] = await tx.select().from(serviceJob).where(eq(serviceJob.id, start.id));
			if (again) return again.id;
			if (defects.length === 0 || defects.some((d) => d.itemId !== start.itemId))
				throw new Fault('conflict', 'These faults are not open on this item any more.');
			const taken = await supersedeFailed(tx, context, start.itemId);
			await tx.insert(serviceJob).values({
				id: start.id,
				itemId: start.itemId,
				repair: repair.key,
				startedBy: context.actor.id,
				startedAt: context.now(),
				proof: repair.proof.map(() => false)
			});
			await tx.insert(serviceJobDefect).values(
				[...new Set([...defects.map((d) => d.id), ...taken])].map((defectId) => ({
					jobId: start.id,
					defectId
				}))
			);
			await rebuildState(tx, [start.itemId], site);
			await record(tx, context.actor.id, {
				action: 'repair.started',
				subject: `job:${start.id}`,
				itemId: start.itemId,
				payload: { repair: repair.key, defects: defects.map((d) => d.code) }
			});
			return start.id;
		});
	} catch (error) {
		if (brokenConstraint(error) === 'service_job_one_open')
			throw new Fault('conflict', 'A repair of this item is already under way. Open it instead.');
		throw error;
	}
}

/** The repair that is open on an item; undefined without one. */
export async function openJob(db: Connection, itemId: string) {
	const [job] = await db
		.select()
		.from(serviceJob)
		.where(
			and(
				eq(serviceJob.itemId, itemId),
				isNull(serviceJob.releasedAt),
				isNull(serviceJob.supersededAt)
			)
		);
	return job;
}

/** Sets aside a repair whose inspection failed; gives its faults, which the next repair takes over. */
async function supersedeFailed(
	tx: Connection,
	context: Context,
	itemId: string
): Promise<string[]> {
	const job = await openJob(tx, itemId);
	if (!job?.doneAt || (await lastRunOutcome(tx, job.id)) !== 'fail') return [];
	await tx
		.update(serviceJob)
		.set({ supersededAt: context.now(), version: job.version + 1 })
		.where(eq(serviceJob.id, job.id));
	const rows = await tx
		.select({ id: serviceJobDefect.defectId })
		.from(serviceJobDefect)
		.where(eq(serviceJobDefect.jobId, job.id));
	return rows.map((row) => row.id);
}

async function lastRunOutcome(tx: Connection, jobId: string) {
	const [run] = await tx
		.select({ outcome: inspectionRun.outcome })
		.from(inspectionRun)
		.where(and(eq(inspectionRun.serviceJobId, jobId), isNotNull(inspectionRun.signedAt)))
		.orderBy(desc(inspectionRun.signedAt))
		.limit(1);
	return run?.outcome ?? null;
}

export interface JobFinish {
	jobId: string;
	version: number;
	proof: boolean[];
	parts: { lotId: string; quantity: number }[];
	note: string;
}

/** Ends the work of a repair: every line of the proving check holds and the parts leave the store. */
export async function finishJob(context: Context, site: Site, finish: JobFinish): Promise<void> {
	requireRole(context.actor, 'repair');
	await inTransaction(context, async (tx) => {
		const job = await lockJob(tx, finish.jobId);
		if (job.doneAt) return;
		if (job.version !== finish.version) throw stale('repair');
		const repair = findRepair(job.repair);
		const missing = repair.proof.findIndex((_, i) => !finish.proof[i]);
		if (missing >= 0)
			throw new Fault(
				'invalid',
				`The proving check is not complete: "${repair.proof[missing]}" is not confirmed.`,
				'proof'
			);
		for (const { lotId, quantity } of finish.parts)
			await takePart(tx, context, site, job.id, lotId, quantity);
		await tx
			.update(serviceJob)
			.set({
				proof: finish.proof,
				doneBy: context.actor.id,
				doneAt: context.now(),
				note: finish.note || null,
				version: job.version + 1
			})
			.where(eq(serviceJob.id, job.id));
		await record(tx, context.actor.id, {
			action: 'repair.done',
			subject: `job:${job.id}`,
			itemId: job.itemId,
			payload: { repair: job.repair, proof: repair.proof, parts: finish.parts, note: finish.note }
		});
	});
}

async function takePart(
	tx: Connection,
	context: Context,
	site: Site,
	jobId: string,
	lotId: string,
	quantity: number
): Promise<void> {
	const [lot] = await tx.select().from(partLot).where(eq(partLot.id, lotId)).for('update');
	if (!lot) throw new Fault('invalid', 'This part lot is not in the store.', 'parts');
	const name = PARTS[lot.part]?.name ?? lot.part;
	if (lot.quantity < quantity)
		throw new Fault(
			'invalid',
			`${name}, lot ${lot.lot}: ${lot.quantity} left, ${quantity} wanted.`,
			'parts'
		);
	if (lot.useBy && lot.useBy < dayAt(context.now(), site.timeZone))
		throw new Fault(
			'invalid',
			`${name}, lot ${lot.lot}: past its shelf life of ${lot.useBy}.`,
			'parts'
		);
	await tx
		.update(partLot)
		.set({ quantity: lot.quantity - quantity })
		.where(eq(partLot.id, lotId));
	await tx.insert(servicePart).values({ jobId, lotId, quantity });
}

/**
 * Lets a repaired item go, or takes it out of use for good. By a supervisor; after the repair and a passed
 * inspection that followed it; by someone else than the repairer where a stop fault was mended.
 */
export async function releaseJob(
	context: Context,
	site: Site,
	release: { jobId: string; version: number }
): Promise<void> {
	requireRole(context.actor, 'release');
	await inTransaction(context, async (tx) => {
		const job = await lockJob(tx, release.jobId);
		if (job.releasedAt) return;
		if (job.version !== release.version) throw stale('repair');
		if (!job.doneAt) throw new Fault('conflict', 'The repair is not done yet.');
		const defects = await tx
			.select({ id: defect.id, severity: defect.severity, code: defect.code })
			.from(serviceJobDefect)
			.innerJoin(defect, eq(defect.id, serviceJobDefect.defectId))
			.where(eq(serviceJobDefect.jobId, job.id));
		if (defects.some((d) => d.severity === 'stop') && job.doneBy === context.actor.id)
			throw new Fault(
				'forbidden',
				'A stop fault is released by someone else than the repairer. Ask another supervisor.'
			);
		const retires = findRepair(job.repair).retires === true;
		if (!retires) await requirePassedRun(tx, job.id);
		const now = context.now();
		await tx
			.update(serviceJob)
			.set({ releasedBy: context.actor.id, releasedAt: now, version: job.version + 1 })
			.where(eq(serviceJob.id, job.id));
		await tx
			.update(defect)
			.set({ closedAt: now, closedHow: retires ? 'retired' : 'released' })
			.where(
				and(
					inArray(
						defect.id,
						defects.map((d) => d.id)
					),
					isNull(defect.closedAt)
				)
			);
		if (retires)
			await tx
				.update(item)
				.set({ retiredOn: dayAt(now, site.timeZone) })
				.where(eq(item.id, job.itemId));
		await rebuildState(tx, [job.itemId], site);
		await record(tx, context.actor.id, {
			action: retires ? 'item.retired' : 'repair.released',
			subject: `job:${job.id}`,
			itemId: job.itemId,
			payload: { repair: job.repair, defects: defects.map((d) => d.code) }
		});
	});
}

async function requirePassedRun(tx: Connection, jobId: string): Promise<void> {
	const outcome = await lastRunOutcome(tx, jobId);
	if (!outcome)
		throw new Fault('conflict', 'No inspection has followed the repair. Inspect it, then release.');
	if (outcome === 'fail')
		throw new Fault(
			'conflict',
			'The inspection after the repair failed. Mend what it found first.'
		);
}

async function lockJob(tx: Connection, id: string) {
	const [job] = await tx.select().from(serviceJob).where(eq(serviceJob.id, id)).for('update');
	if (!job) throw new Fault('not found', 'There is no such repair.');
	return job;
}

function findRepair(key: string) {
	try {
		return repairOf(key);
	} catch {
		throw new Fault('invalid', 'Choose one of the repairs.', 'repair');
	}
}

/** Somebody saved in between: nothing of theirs may be written over. */
export const stale = (what: string) =>
	new Fault(
		'conflict',
		`This ${what} was changed meanwhile. Nothing was written over; load the page again to see the change.`
	);

/** Stations of a family, for statistics drawn along the line. */
export const stationsOf = (family: string) => airwayOf(family).stations;
