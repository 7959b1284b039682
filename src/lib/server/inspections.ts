import { and, asc, desc, eq, isNull } from 'drizzle-orm';
import { procedureFor, procedureVersion } from '../../core/data/procedures.ts';
import { rejectCode } from '../../core/data/reject-codes.ts';
import { checkAnswer, judgeRun, runState, type AnswerValue } from '../../core/inspection/run.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import type { Connection } from './db/client.ts';
import {
	inspectionAnswer,
	inspectionRun,
	item,
	itemModel,
	place,
	user
} from './db/schema/index.ts';
import { brokenConstraint, Fault } from './errors.ts';
import { openDefect, openJob, withdrawDefect } from './faults.ts';
import { itemByTag, lastSignedRun } from './items.ts';
import { rebuildState } from './readiness.ts';
import type { Site } from './site.ts';

type RunRow = typeof inspectionRun.$inferSelect;

/** Starts the inspection of an item, or gives the one that is already open on it. */
export async function startRun(
	context: Context,
	start: { id: string; tag: string }
): Promise<{ id: string; resumed: boolean }> {
	requireRole(context.actor, 'inspect');
	const { item: found } = await itemByTag(context.db, start.tag);
	if (found.retiredOn)
		throw new Fault('conflict', `${found.tag} was taken out of use on ${found.retiredOn}.`);
	const open = () =>
		context.db
			.select({ id: inspectionRun.id })
			.from(inspectionRun)
			.where(and(eq(inspectionRun.itemId, found.id), isNull(inspectionRun.signedAt)));
	const [running] = await open();
	if (running) return { id: running.id, resumed: true };
	const procedure = procedureFor(found.family);
	try {
		await inTransaction(context, async (tx) => {
			const job = await openJob(tx, found.id);
			await tx.insert(inspectionRun).values({
				id: start.id,
				itemId: found.id,
				procedure: procedure.key,
				procedureVersion: procedure.version,
				serviceJobId: job?.doneAt ? job.id : null,
				startedBy: context.actor.id,
				startedAt: context.now()
			});
			await record(tx, context.actor.id, {
				action: 'inspection.started',
				subject: `run:${start.id}`,
				itemId: found.id,
				payload: { procedure: procedure.key, version: procedure.version }
			});
		});
		return { id: start.id, resumed: false };
	} catch (error) {
		// Somebody else started it in the same moment.
		if (!brokenConstraint(error)) throw error;
		const [other] = await open();
		if (other) return { id: other.id, resumed: true };
		throw error;
	}
}

export interface Answer {
	/** Made by the client; a retry with the same id answers nothing twice. */
	id: string;
	runId: string;
	step: string;
	value: AnswerValue;
	code?: string | null;
	note?: string | null;
	/** Position of the last answer that the page had seen. */
	seen: number;
}

/** Keeps one answer. A reject that holds opens its defect and holds the item in the same transaction. */
export async function answer(context: Context, site: Site, given: Answer): Promise<void> {
	requireRole(context.actor, 'inspect');
	await inTransaction(context, async (tx) => {
		const run = await lockRun(tx, given.runId);
		const answers = await answersOf(tx, run.id);
		if (answers.some((a) => a.id === given.id)) return;
		if (run.signedAt) throw await alreadySigned(tx, run);
		const procedure = procedureVersion(run.procedure, run.procedureVersion);
		const step = checkAnswer(procedure, given);
		const before = answers.findLast((a) => a.step === given.step);
		if (before && before.position > given.seen && before.answeredBy !== context.actor.id)
			throw new Fault(
				'conflict',
				`${step.title} was answered "${before.value}" meanwhile by someone else. Yours was not kept; answer again to replace it.`,
				given.step
			);
		await tx.insert(inspectionAnswer).values({
			id: given.id,
			runId: run.id,
			position: (answers.at(-1)?.position ?? 0) + 1,
			step: given.step,
			value: given.value,
			code: given.value === 'reject' ? (given.code ?? null) : null,
			note: given.note || null,
			answeredBy: context.actor.id,
			answeredAt: context.now()
		});
		const changed = before?.code !== given.code || given.value !== 'reject';
		if (before?.value === 'reject' && before.code && changed)
			await withdrawDefect(tx, context, {
				runId: run.id,
				itemId: run.itemId,
				station: step.station,
				code: before.code
			});
		const opens = given.value === 'reject' && given.code && (before?.value !== 'reject' || changed);
		if (opens)
			await openDefect(tx, context, {
				id: given.id,
				itemId: run.itemId,
				station: step.station,
				code: given.code ?? '',
				step: step.key,
				runId: run.id,
				note: given.note ?? null
			});
		if (opens || before?.value === 'reject') await rebuildState(tx, [run.itemId], site);
	});
}

/** Signs a finished run. The same person twice is once; a second person is told who was first. */
export async function signRun(context: Context, site: Site, runId: string): Promise<void> {
	requireRole(context.actor, 'inspect');
	await inTransaction(context, async (tx) => {
		const run = await lockRun(tx, runId);
		if (run.signedAt) {
			if (run.signedBy === context.actor.id) return;
			throw await alreadySigned(tx, run);
		}
		const answers = await answersOf(tx, run.id);
		const procedure = procedureVersion(run.procedure, run.procedureVersion);
		const from = answers[0]?.answeredAt ?? run.startedAt;
		const to = answers.at(-1)?.answeredAt ?? run.startedAt;
		const verdict = judgeRun(procedure, answers, (to.getTime() - from.getTime()) / 1000);
		await tx
			.update(inspectionRun)
			.set({
				signedBy: context.actor.id,
				signedAt: context.now(),
				outcome: verdict.outcome,
				reasons: verdict.reasons
			})
			.where(eq(inspectionRun.id, run.id));
		await rebuildState(tx, [run.itemId], site);
		await record(tx, context.actor.id, {
			action: 'inspection.signed',
			subject: `run:${run.id}`,
			itemId: run.itemId,
			payload: {
				procedure: run.procedure,
				version: run.procedureVersion,
				outcome: verdict.outcome,
				answers: [...runState(procedure, answers).answers.values()].map((a) => ({
					step: a.step,
					value: a.value,
					code: a.code ?? null,
					note: a.note ?? null
				})),
				reasons: verdict.reasons.map((r) => ({ rule: r.rule, text: r.text }))
			}
		});
	});
}

/** Everything that the running inspection shows. */
export async function runPage(context: Context, runId: string) {
	const { db } = context;
	const [row] = await db
		.select({
			run: inspectionRun,
			item,
			model: itemModel.name,
			place: place.name,
			startedBy: user.name
		})
		.from(inspectionRun)
		.innerJoin(item, eq(item.id, inspectionRun.itemId))
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(place, eq(place.id, item.placeId))
		.innerJoin(user, eq(user.id, inspectionRun.startedBy))
		.where(eq(inspectionRun.id, runId));
	if (!row) throw new Fault('not found', 'There is no such inspection.');
	const answers = await answersOf(db, runId);
	const last = await lastSignedRun(db, row.item.id);
	const signer = row.run.signedBy
		? (await db.select({ name: user.name }).from(user).where(eq(user.id, row.run.signedBy)))[0]
		: undefined;
	return {
		...row,
		signedByName: signer?.name ?? null,
		procedure: procedureVersion(row.run.procedure, row.run.procedureVersion),
		answers: answers.map(plainAnswer),
		last: last && last.id !== runId ? { ...last, answers: last.answers.map(plainAnswer) } : null
	};
}

/** The answers of a run as the page takes them. */
export async function runAnswers(db: Connection, runId: string) {
	return (await answersOf(db, runId)).map(plainAnswer);
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

const plainAnswer = (a: typeof inspectionAnswer.$inferSelect) => ({
	step: a.step,
	value: a.value,
	code: a.code,
	note: a.note,
	position: a.position,
	severity: a.code ? rejectCode(a.code).severity : null
});

const answersOf = (db: Connection, runId: string) =>
	db
		.select()
		.from(inspectionAnswer)
		.where(eq(inspectionAnswer.runId, runId))
		.orderBy(asc(inspectionAnswer.position));

async function lockRun(tx: Connection, id: string): Promise<RunRow> {
	const [run] = await tx.select().from(inspectionRun).where(eq(inspectionRun.id, id)).for('update');
	if (!run) throw new Fault('not found', 'There is no such inspection.');
	return run;
}

async function alreadySigned(tx: Connection, run: RunRow): Promise<Fault> {
	const [by] = await tx
		.select({ name: user.name })
		.from(user)
		.where(eq(user.id, run.signedBy ?? ''));
	return new Fault(
		'conflict',
		`${by?.name ?? 'Someone'} has already signed this inspection. A signed inspection is never changed; start a new one.`
	);
}
