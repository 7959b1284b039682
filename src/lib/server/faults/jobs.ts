import { jobOfRepair } from '../../../core/people/competence.ts';
import { and, asc, desc, eq, inArray, isNotNull, isNull, type SQL } from 'drizzle-orm';
import { airwayOf } from '../../../core/data/families.ts';
import { partName } from '../../../core/service/parts-store.ts';
import { partForStation, repairOf, type Repair } from '../../../core/data/repairs.ts';
import { closesItself } from '../../../core/people/two-people.ts';
import { releasedByAnother } from '../../../core/people/two-people.ts';
import { backFromRepair } from '../custody/move.ts';
import type { Connection } from '../db/client.ts';
import {
	defect,
	inspectionRun,
	item,
	partLot,
	place,
	serviceJob,
	serviceJobDefect,
	servicePart,
	user
} from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal, stale } from '../kernel/refusal.ts';
import { type Work, write } from '../kernel/write.ts';
import { requireAuthorisedOn } from '../people/authorisations.ts';
import { endFittings, usePart } from './fittings.ts';

/** A repair with its parts, the people in it and the inspection that proves it. */
export async function jobWithParts(db: Connection, jobId: string) {
	const [job] = await db.select().from(serviceJob).where(eq(serviceJob.id, jobId));
	if (!job) throw new Refusal('not found', 'There is no such repair.');
	const parts = await db
		.select({
			part: partLot.part,
			lot: partLot.lot,
			quantity: servicePart.quantity,
			costEach: partLot.costEach
		})
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
		name: partName(p.part),
		lots: lots.filter(
			(lot) => lot.part === p.part && lot.quantity > 0 && (!lot.useBy || lot.useBy >= asOf)
		)
	}));
}

export interface JobStart {
	/** Made by the client. */
	id: string;
	itemId: string;
	repair: string;
	defectIds: string[];
}

/** @throws Refusal at repair where the family of an item cannot have it */
export async function requireFamilyHas(
	tx: Connection,
	itemId: string,
	repair: Repair
): Promise<void> {
	const [row] = await tx
		.select({ tag: item.tag, family: item.family })
		.from(item)
		.where(eq(item.id, itemId));
	if (row && !repair.families.includes(row.family))
		throw new Refusal(
			'invalid',
			`“${repair.name}” is no repair of ${row.tag}: a ${airwayOf(row.family).name.toLowerCase()} cannot have it.`,
			'repair'
		);
}

/** Starts a repair: the item goes into service. */
export function startJob(context: Context, start: JobStart): Promise<string> {
	return write(context, 'repair', { id: start.id, content: start }, (at) => beginJob(at, start));
}

/** The write of a job that begins. */
export async function beginJob(at: Work, start: JobStart): Promise<string> {
	const { tx } = at;
	const repair = findRepair(start.repair);
	await requireAuthorisedOn(at, jobOfRepair(repair.key), start.itemId);
	const defects = await tx
		.select()
		.from(defect)
		.where(and(inArray(defect.id, start.defectIds), isNull(defect.closedAt)))
		.for('update');
	if (defects.length === 0 || defects.some((d) => d.itemId !== start.itemId))
		throw new Refusal('conflict', 'These faults are not open on this item any more.');
	await requireFamilyHas(tx, start.itemId, repair);
	const taken = await supersedeFailed(at, start.itemId);
	const started = await tx
		.insert(serviceJob)
		.values({
			id: start.id,
			itemId: start.itemId,
			repair: repair.key,
			startedBy: at.actor.id,
			startedAt: at.now,
			proof: repair.proof.map(() => false)
		})
		.onConflictDoNothing()
		.returning({ id: serviceJob.id });
	if (started.length === 0)
		throw new Refusal('conflict', 'A repair of this item is already under way. Open it instead.');
	await tx.insert(serviceJobDefect).values(
		[...new Set([...defects.map((d) => d.id), ...taken])].map((defectId) => ({
			jobId: start.id,
			defectId
		}))
	);
	at.changed(start.itemId);
	at.record('repair.started', {
		of: start.id,
		itemId: start.itemId,
		payload: { repair: repair.key, defects: defects.map((d) => d.code) }
	});
	return start.id;
}

/** A fault that a repair mends. @throws Refusal where there is no such repair */
export async function faultOfJob(db: Connection, jobId: string): Promise<string> {
	const [row] = await db
		.select({ id: serviceJobDefect.defectId })
		.from(serviceJobDefect)
		.where(eq(serviceJobDefect.jobId, jobId))
		.limit(1);
	if (!row) throw new Refusal('not found', 'There is no such repair.');
	return row.id;
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

/** Repairs under way, the longest first. */
export const openJobs = (db: Connection, limit: number) =>
	db
		.select({ job: serviceJob, tag: item.tag, place: place.name })
		.from(serviceJob)
		.innerJoin(item, eq(item.id, serviceJob.itemId))
		.innerJoin(place, eq(place.id, item.placeId))
		.where(and(isNull(serviceJob.releasedAt), isNull(serviceJob.supersededAt)))
		.orderBy(asc(serviceJob.startedAt))
		.limit(limit);

/** Sets aside a repair whose inspection failed; gives its faults, which the next repair takes over. */
async function supersedeFailed({ tx, now }: Work, itemId: string): Promise<string[]> {
	const job = await openJob(tx, itemId);
	if (!job?.doneAt || (await lastRunOutcome(tx, job.id)) !== 'fail') return [];
	await tx
		.update(serviceJob)
		.set({ supersededAt: now, version: job.version + 1 })
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
	requestId: string;
	jobId: string;
	version: number;
	proof: boolean[];
	parts: { lotId: string; quantity: number }[];
	note: string;
	/** At the bench. */
	minutes?: number | null | undefined;
}

/** Ends the work of a repair: every line of the proving check holds and the parts leave the store. */
export function finishJob(context: Context, finish: JobFinish): Promise<void> {
	const { requestId: id, ...content } = finish;
	return write(context, 'repair', { id, content }, async (at) => {
		const { tx } = at;
		const job = await lockJob(tx, finish.jobId);
		if (job.doneAt) return;
		if (job.version !== finish.version) throw stale('repair');
		const repair = findRepair(job.repair);
		await requireAuthorisedOn(at, jobOfRepair(repair.key), job.itemId);
		const missing = repair.proof.findIndex((_, i) => !finish.proof[i]);
		if (missing >= 0)
			throw new Refusal(
				'invalid',
				`The proving check is not complete: "${repair.proof[missing]}" is not confirmed.`,
				'proof'
			);
		const defects = await mendedBy(tx, job.id);
		for (const part of finish.parts) await usePart(at, job, part, defects);
		const closes = closesItself(repair, defects);
		await tx
			.update(serviceJob)
			.set({
				proof: finish.proof,
				doneBy: at.actor.id,
				doneAt: at.now,
				note: finish.note || null,
				minutes: finish.minutes ?? null,
				version: job.version + 1,
				...(closes ? { releasedBy: at.actor.id, releasedAt: at.now } : {})
			})
			.where(eq(serviceJob.id, job.id));
		at.record('repair.done', {
			of: job.id,
			itemId: job.itemId,
			payload: { repair: job.repair, proof: repair.proof, parts: finish.parts, note: finish.note }
		});
		if (!closes) return;
		await closeDefects(
			at,
			inArray(
				defect.id,
				defects.map((d) => d.id)
			),
			'released'
		);
		at.changed(job.itemId);
		at.record('repair.closed', {
			of: job.id,
			itemId: job.itemId,
			payload: { repair: job.repair, defects: defects.map((d) => d.code) }
		});
		await backFromRepair(at, job.itemId);
	});
}

const mendedBy = (tx: Connection, jobId: string) =>
	tx
		.select({
			id: defect.id,
			severity: defect.severity,
			code: defect.code,
			station: defect.station
		})
		.from(serviceJobDefect)
		.innerJoin(defect, eq(defect.id, serviceJobDefect.defectId))
		.where(eq(serviceJobDefect.jobId, jobId))
		.orderBy(asc(defect.reportedAt), asc(defect.id));

const closeDefects = (
	{ tx, now }: Work,
	which: SQL | undefined,
	closedHow: 'released' | 'retired'
) =>
	tx
		.update(defect)
		.set({ closedAt: now, closedHow })
		.where(and(which, isNull(defect.closedAt)));

/**
 * Lets a repaired item go, or takes it out of use for good. By a supervisor; after the repair and a passed
 * inspection that followed it; by someone else than the repairer, which a site can waive but for a stop fault.
 */
export function releaseJob(
	context: Context,
	release: { requestId: string; jobId: string; version: number }
): Promise<void> {
	const { requestId: id, ...content } = release;
	return write(context, 'release', { id, content }, async (at) => {
		const { tx, now } = at;
		const job = await lockJob(tx, release.jobId);
		if (job.releasedAt) return;
		if (job.version !== release.version) throw stale('repair');
		if (!job.doneAt) throw new Refusal('conflict', 'The repair is not done yet.');
		await requireAuthorisedOn(at, 'release', job.itemId);
		const defects = await mendedBy(tx, job.id);
		if (releasedByAnother(at.site, defects) && job.doneBy === at.actor.id)
			throw new Refusal(
				'forbidden',
				`${defects.some((d) => d.severity === 'stop') ? 'A stop fault' : 'A repair'} is released by someone else than the repairer. Ask another supervisor.`
			);
		const { retires } = findRepair(job.repair);
		if (!retires) await requirePassedRun(tx, job.id);
		await tx
			.update(serviceJob)
			.set({ releasedBy: at.actor.id, releasedAt: now, version: job.version + 1 })
			.where(eq(serviceJob.id, job.id));
		const mended = inArray(
			defect.id,
			defects.map((d) => d.id)
		);
		// What is out of use for good has nothing left to mend.
		const closes = retires ? eq(defect.itemId, job.itemId) : mended;
		await closeDefects(at, closes, retires ? 'retired' : 'released');
		if (retires) {
			await tx.update(item).set({ retiredOn: at.today }).where(eq(item.id, job.itemId));
			await endFittings(at, job.itemId);
		}
		at.changed(job.itemId);
		at.record(retires ? 'item.retired' : 'repair.released', {
			of: job.id,
			itemId: job.itemId,
			payload: { repair: job.repair, defects: defects.map((d) => d.code) }
		});
		if (!retires) await backFromRepair(at, job.itemId);
	});
}

async function requirePassedRun(tx: Connection, jobId: string): Promise<void> {
	const outcome = await lastRunOutcome(tx, jobId);
	if (!outcome)
		throw new Refusal(
			'conflict',
			'No inspection has followed the repair. Inspect it, then release.'
		);
	if (outcome === 'fail')
		throw new Refusal(
			'conflict',
			'The inspection after the repair failed. Mend what it found first.'
		);
}

async function lockJob(tx: Connection, id: string) {
	const [job] = await tx.select().from(serviceJob).where(eq(serviceJob.id, id)).for('update');
	if (!job) throw new Refusal('not found', 'There is no such repair.');
	return job;
}

export function findRepair(key: string) {
	try {
		return repairOf(key);
	} catch {
		throw new Refusal('invalid', 'Choose one of the repairs.', 'repair');
	}
}
