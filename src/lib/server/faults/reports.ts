import { and, desc, eq, gt, isNull } from 'drizzle-orm';
import { whatFailsAt } from '../../../core/service/what-fails.ts';
import { RECALLED, rejectCode } from '../../../core/data/reject-codes.ts';
import {
	defect,
	defectReport,
	inspectionRun,
	serviceJob,
	serviceJobDefect
} from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Work, write } from '../kernel/write.ts';
import { proceduresFor } from '../inspection/procedures.ts';
import { requireAuthorisedOn } from '../people/authorisations.ts';
import { itemByTag, refuseRetired } from '../register/items.ts';
import { openDefect, takeBack } from './faults.ts';

export interface ByHand {
	/** Made by the client. */
	id: string;
	tag: string;
	station: string;
	code: string;
	note?: string | undefined;
}

/**
 * Writes a fault down outside of any inspection.
 * @returns the fault that is open now, and whether it was open before
 * @throws Refusal where there is no such item or station, or that is nothing that can be found there
 */
export function reportByHand(
	context: Context,
	input: ByHand
): Promise<{ defectId: string; again: boolean; severity: string }> {
	return write(context, 'note what happened', { id: input.id, content: input }, (at) =>
		putFault(at, input)
	);
}

/** Puts a fault down, within a write. */
export async function putFault(
	at: Work,
	input: ByHand
): Promise<{ defectId: string; again: boolean; severity: string }> {
	const { item: found } = await itemByTag(at.tx, input.tag);
	refuseRetired(found, 'tag');
	const stations = whatFailsAt(found.family, await proceduresFor(at.tx, found.family));
	const here = stations.find(({ key }) => key === input.station);
	if (!here) throw new Refusal('invalid', 'There is no such place on it.', 'station');
	if (!here.codes.includes(input.code))
		throw new Refusal(
			'invalid',
			`That is not found at ${here.name.toLowerCase()}. Choose one of the list.`,
			'code'
		);
	const { id, merged } = await openDefect(at, {
		id: input.id,
		itemId: found.id,
		station: input.station,
		code: input.code,
		note: input.note?.trim() || null
	});
	return { defectId: id, again: merged, severity: rejectCode(input.code).severity };
}

/** A report that is taken back by who made it counts no more; only before anybody began to mend. */
export function takeReportBack(
	context: Context,
	input: { requestId: string; reportId: string; why: string }
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'note what happened', { id, content }, async (at) => {
		const why = requireWhy(input.why);
		const [found] = await at.tx
			.select({ report: defectReport, defect })
			.from(defectReport)
			.innerJoin(defect, eq(defect.id, defectReport.defectId))
			.where(eq(defectReport.id, input.reportId))
			.for('update');
		if (!found) throw new Refusal('not found', 'There is no such report.');
		const { report, defect: open } = found;
		if (report.withdrawnAt) return;
		if (report.reportedBy !== at.actor.id)
			throw new Refusal(
				'forbidden',
				'Only who reported it takes it back. If it cannot be found, say that it is not confirmed.',
				'why'
			);
		if (open.code === RECALLED) throw recalledStays();
		if (report.runId)
			throw new Refusal('conflict', 'It belongs to an inspection: answer its step anew.', 'why');
		if (open.closedAt) throw new Refusal('conflict', 'This fault has ended already.', 'why');
		if (await beingMended(at, open.id))
			throw new Refusal('conflict', 'Its repair has begun. It is ended by that.', 'why');
		const { stays } = await takeBack(at, report.id, open.id, why);
		at.changed(open.itemId);
		at.record('defect.taken-back', {
			of: open.id,
			itemId: open.itemId,
			payload: { station: open.station, code: open.code, why, stays }
		});
	});
}

/**
 * Ends a fault that was looked for and is not there. By who may release; not by who reported it alone; after an inspection that followed
 * the report and passed, where the fault would hold the item.
 */
export function notConfirmed(
	context: Context,
	input: { requestId: string; defectId: string; why: string }
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'release', { id, content }, async (at) => {
		const why = requireWhy(input.why);
		const [open] = await at.tx
			.select()
			.from(defect)
			.where(eq(defect.id, input.defectId))
			.for('update');
		if (!open) throw new Refusal('not found', 'There is no such fault.');
		if (open.closedHow === 'not-confirmed') return;
		if (open.closedAt) throw new Refusal('conflict', 'This fault has ended already.', 'why');
		await requireAuthorisedOn(at, 'release', open.itemId);
		if (await beingMended(at, open.id))
			throw new Refusal('conflict', 'Its repair has begun. It is ended by that.', 'why');
		if (open.code === RECALLED) throw recalledStays();
		if (open.severity === 'stop' || open.severity === 'repair') await requireLookedAt(at, open);
		await at.tx
			.update(defect)
			.set({ closedAt: at.now, closedHow: 'not-confirmed', closedBy: at.actor.id, closedWhy: why })
			.where(eq(defect.id, open.id));
		at.changed(open.itemId);
		at.record('defect.not-confirmed', {
			of: open.id,
			itemId: open.itemId,
			payload: {
				station: open.station,
				code: open.code,
				why
			}
		});
	});
}

const recalledStays = () =>
	new Refusal(
		'conflict',
		'A recalled part is changed, or its item taken out of use: nothing else ends it.',
		'why'
	);

function requireWhy(text: string): string {
	const why = text.trim();
	if (!why) throw new Refusal('invalid', 'Say why.', 'why');
	return why;
}

async function beingMended(at: Work, defectId: string): Promise<boolean> {
	const open = await at.tx
		.select({ id: serviceJob.id })
		.from(serviceJobDefect)
		.innerJoin(serviceJob, eq(serviceJob.id, serviceJobDefect.jobId))
		.where(
			and(
				eq(serviceJobDefect.defectId, defectId),
				isNull(serviceJob.releasedAt),
				isNull(serviceJob.supersededAt)
			)
		)
		.limit(1);
	return open.length > 0;
}

/** @throws Refusal where nobody but its reporter would vouch for the item, or no inspection after the report passed */
async function requireLookedAt(at: Work, open: typeof defect.$inferSelect): Promise<void> {
	if (open.severity === 'stop' && open.reportedBy === at.actor.id)
		throw new Refusal(
			'forbidden',
			'You reported it: that it is not there says another supervisor.',
			'why'
		);
	const [run] = await at.tx
		.select({ outcome: inspectionRun.outcome })
		.from(inspectionRun)
		.where(and(eq(inspectionRun.itemId, open.itemId), gt(inspectionRun.signedAt, open.reportedAt)))
		.orderBy(desc(inspectionRun.signedAt))
		.limit(1);
	if (!run)
		throw new Refusal(
			'conflict',
			'Inspect it first: an inspection after the report shows that nothing is there.',
			'why'
		);
	if (run.outcome === 'fail')
		throw new Refusal(
			'conflict',
			'The last inspection after the report failed. Mend what it found.',
			'why'
		);
}
