import { and, desc, eq, isNull } from 'drizzle-orm';
import type { OnRecord } from '../../../core/inspection/on-record.ts';
import type { Procedure, Purpose } from '../../../core/inspection/procedure.ts';
import { readingLimits } from '../../../core/register/model-card.ts';
import { judgeRun, type RunOutcome, runState } from '../../../core/inspection/run.ts';
import { type Day, readable } from '../../../core/plan/calendar.ts';
import { maker, type Verdict } from '../../../core/verdict.ts';
import { partOf } from '../../../core/people/two-people.ts';
import type { Connection } from '../db/client.ts';
import { airlineRig, inspectionRun, item, itemModel, place, user } from '../db/schema/index.ts';
import { openJob } from '../faults/jobs.ts';
import { openPairOn, pairChange } from '../filters/change.ts';
import { pairTag } from '../filters/opening.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Work, write } from '../kernel/write.ts';
import { requireAuthorisedOn } from '../people/authorisations.ts';
import { itemByTag, refuseRetired } from '../register/items.ts';
import { partsIn } from '../register/sets.ts';
import { answersOf, plainAnswer } from './answers.ts';
import { layersOn } from '../filters/layers.ts';
import { lastSignedRun } from './last-run.ts';
import { alreadySigned, type LockedRun, lockRun } from './locked-run.ts';
import { photosOf } from './photos.ts';
import { procedureAt, proceduresFor } from './procedures.ts';
import { openTimers } from './timers.ts';

export interface RunStart {
	/** Made by the client. */
	id: string;
	tag: string;
	procedure?: string | undefined;
	/** A signed run that the new one is to take the place of, and why. */
	supersede?: { run: string; reason: string } | undefined;
}

/** Starts the inspection of an item, or gives the one that is already open on it. */
export function startRun(
	context: Context,
	start: RunStart
): Promise<{ id: string; resumed: boolean }> {
	return write(context, 'inspect', { id: start.id, content: start }, async (at) => {
		const { tx } = at;
		const { item: found } = await itemByTag(tx, start.tag);
		refuseRetired(found);
		const old = start.supersede && (await supersedable(tx, found.id, start.supersede));
		const offered = await proceduresFor(tx, found.family);
		const wanted = old?.procedure ?? start.procedure;
		const procedure = wanted ? offered.find((p) => p.key === wanted) : offered[0];
		if (!procedure)
			throw new Refusal('invalid', `There is no such procedure for ${found.tag}.`, 'procedure');
		const purpose: Purpose = procedure.purpose ?? 'inspection';
		const job = await openJob(tx, found.id);
		const reason = start.supersede?.reason.trim();
		const started = await tx
			.insert(inspectionRun)
			.values({
				id: start.id,
				itemId: found.id,
				procedure: procedure.key,
				procedureVersion: procedure.version,
				purpose,
				supersedes: old?.id ?? null,
				supersedeReason: old ? (reason ?? null) : null,
				serviceJobId: purpose === 'inspection' && job?.doneAt ? job.id : null,
				startedBy: at.actor.id,
				startedAt: at.now
			})
			.onConflictDoNothing()
			.returning({ id: inspectionRun.id });
		if (started.length === 0) {
			// One is open already, or was started in the same moment.
			const [running] = await tx
				.select({ id: inspectionRun.id, purpose: inspectionRun.purpose })
				.from(inspectionRun)
				.where(and(eq(inspectionRun.itemId, found.id), isNull(inspectionRun.signedAt)));
			if (!running || running.purpose !== purpose || old)
				throw new Refusal(
					'conflict',
					`${found.tag} has another list open. Finish and sign it first.`
				);
			return { id: running.id, resumed: true };
		}
		at.record('inspection.started', {
			of: start.id,
			itemId: found.id,
			payload: {
				procedure: procedure.key,
				version: procedure.version,
				supersedes: old?.id,
				reason: old ? reason : undefined
			}
		});
		return { id: start.id, resumed: false };
	});
}

/** A signed run of the item that nothing has taken the place of yet. */
async function supersedable(
	db: Connection,
	itemId: string,
	asked: { run: string; reason: string }
) {
	if (!asked.reason.trim())
		throw new Refusal('invalid', 'Say why the signed one does not stand.', 'reason');
	const [run] = await db.select().from(inspectionRun).where(eq(inspectionRun.id, asked.run));
	if (run?.itemId !== itemId) throw new Refusal('not found', 'There is no such inspection.');
	if (!run.signedAt)
		throw new Refusal('conflict', 'It is not signed yet: its answers can still be changed.');
	const [later] = await db
		.select({ id: inspectionRun.id })
		.from(inspectionRun)
		.where(eq(inspectionRun.supersedes, run.id));
	if (later) throw new Refusal('conflict', 'Another one takes its place already.');
	return run;
}

/** Signs a finished run. The same person twice is once; a second person is told who was first. */
export function signRun(
	context: Context,
	input: { requestId: string; runId: string }
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'inspect', { id, content }, async (at) => {
		const { tx } = at;
		const locked = await lockRun(tx, input.runId);
		const { run } = locked;
		if (run.signedAt) {
			if (run.signedBy === at.actor.id) return;
			throw await alreadySigned(tx, run);
		}
		await requireAuthorisedOn(at, 'inspect', run.itemId);
		const answers = await answersOf(tx, run.id);
		const procedure = await procedureAt(tx, run.procedure, run.procedureVersion);
		const first = answers[0]?.answeredAt ?? run.startedAt;
		const last = answers.at(-1)?.answeredAt ?? run.startedAt;
		const seconds = (last.getTime() - first.getTime()) / 1000;
		await closeRun(at, locked, procedure, answers, seconds);
	});
}

/** Judges a run whose steps are all answered, and signs it. */
export async function closeRun(
	at: Work,
	locked: LockedRun,
	procedure: Procedure,
	answers: Awaited<ReturnType<typeof answersOf>>,
	seconds: number,
	paper?: { day: Day; by: string }
): Promise<RunOutcome> {
	const { run } = locked;
	const verdict = withWithdrawal(judgeRun(procedure, answers, seconds, locked.limits), locked);
	await at.tx
		.update(inspectionRun)
		.set({
			signedBy: at.actor.id,
			signedAt: at.now,
			outcome: verdict.outcome,
			reasons: verdict.reasons
		})
		.where(eq(inspectionRun.id, run.id));
	at.changed(run.itemId);
	at.record('inspection.signed', {
		of: run.id,
		itemId: run.itemId,
		payload: {
			procedure: run.procedure,
			version: run.procedureVersion,
			outcome: verdict.outcome,
			answers: [...runState(procedure, answers).answers.values()].map((a) => ({
				step: a.step,
				value: a.value,
				code: a.code ?? null,
				note: a.note ?? null,
				readings: a.readings ?? undefined
			})),
			supersedes: run.supersedes ?? undefined,
			reason: run.supersedes ? run.supersedeReason : undefined,
			reasons: verdict.reasons.map((r) => ({ rule: r.rule, text: r.text })),
			paper
		}
	});
	return verdict.outcome;
}

/** A run on a model that was withdrawn is finished and kept, and passes nothing. */
function withWithdrawal(verdict: Verdict<RunOutcome>, facts: LockedRun): Verdict<RunOutcome> {
	if (!facts.withdrawnOn) return verdict;
	const text = `The model was withdrawn on ${readable(facts.withdrawnOn)}: ${facts.withdrawnWhy ?? ''}`;
	const reason = { rule: 'model.withdrawn', text, origin: maker('notice of the maker') };
	return { outcome: 'fail', reasons: [reason, ...verdict.reasons] };
}

/** Everything that the running inspection shows. */
export async function runPage(context: Context, runId: string) {
	const { db } = context;
	const [row] = await db
		.select({
			run: inspectionRun,
			item,
			model: itemModel.name,
			ratedBar: itemModel.ratedBar,
			holdDropBar: itemModel.holdDropBar,
			card: itemModel.card,
			makerLines: itemModel.makerLines,
			mount: itemModel.mount,
			filterPlaces: itemModel.filterCount,
			leastInletBar: airlineRig.leastBar,
			withdrawnOn: itemModel.withdrawnOn,
			withdrawnWhy: itemModel.withdrawnWhy,
			place: place.name,
			startedBy: user.name
		})
		.from(inspectionRun)
		.innerJoin(item, eq(item.id, inspectionRun.itemId))
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(place, eq(place.id, item.placeId))
		.innerJoin(user, eq(user.id, inspectionRun.startedBy))
		.leftJoin(airlineRig, eq(airlineRig.itemId, item.id))
		.where(eq(inspectionRun.id, runId));
	if (!row) throw new Refusal('not found', 'There is no such inspection.');
	const answers = await answersOf(db, runId);
	const procedure = await procedureAt(db, row.run.procedure, row.run.procedureVersion);
	const last = await lastSignedRun(db, row.item.id);
	const [later] = await db
		.select({
			id: inspectionRun.id,
			signedAt: inspectionRun.signedAt,
			reason: inspectionRun.supersedeReason
		})
		.from(inspectionRun)
		.where(eq(inspectionRun.supersedes, runId));
	const { ratedBar: _, holdDropBar: __, leastInletBar, ...shown } = row;
	return {
		...shown,
		limits: { ...readingLimits(row), leastInletBar },
		signedByName: await nameOf(db, row.run.signedBy),
		doneByName: await nameOf(db, row.run.doneBy),
		assistant: await nameOf(db, row.run.assistantId),
		procedure,
		/** Whoever looks has worked at it: the second person is another. */
		worked: partOf(procedure, row.run.startedBy, answers, context.actor.id).first,
		answers: answers.map(plainAnswer),
		photos: await photosOf(db, runId),
		supersededBy: later ?? null,
		timers: await openTimers(db, runId),
		/** What the record says is fitted, to be compared with what is there; of a signed run it is past. */
		onRecord: row.run.signedAt ? null : await fittedTo(db, row),
		last: last && last.id !== runId ? { ...last, answers: last.answers.map(plainAnswer) } : null
	};
}

/** The name of a person; null where there is none. */
async function nameOf(db: Connection, id: string | null): Promise<string | null> {
	if (!id) return null;
	const [found] = await db.select({ name: user.name }).from(user).where(eq(user.id, id));
	return found?.name ?? null;
}

/** What the record says is fitted to an item. */
async function fittedTo(
	db: Connection,
	row: { item: typeof item.$inferSelect; mount: string; filterPlaces: number }
): Promise<OnRecord> {
	const pair = await openPairOn(db, row.item.id);
	const layers = pair ? await layersOn(db, pair.pair.id) : [];
	const parts = await partsIn(db, row.item.id);
	const own = row.mount !== 'none' && !row.item.setId;
	return {
		family: row.item.family,
		filterPlaces: own ? row.filterPlaces : 0,
		filters: pair
			? {
					tag: pairTag(pair.pair.number),
					name: pair.model.name,
					count: pair.pair.filters,
					openedOn: pair.pair.openedOn,
					initials: pair.pair.initials,
					changeOn: pairChange(pair).changeOn,
					sealed: pair.pair.sealedUntil !== null,
					layers
				}
			: null,
		parts: parts.map(({ family, tag, model }) => ({ family, tag, name: model }))
	};
}

/** Open runs, newest first. */
export function openRuns(db: Connection) {
	return db
		.select({
			id: inspectionRun.id,
			tag: item.tag,
			startedAt: inspectionRun.startedAt,
			by: user.name
		})
		.from(inspectionRun)
		.innerJoin(item, eq(item.id, inspectionRun.itemId))
		.innerJoin(user, eq(user.id, inspectionRun.startedBy))
		.where(isNull(inspectionRun.signedAt))
		.orderBy(desc(inspectionRun.startedAt))
		.limit(50);
}
