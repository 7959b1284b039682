import { and, asc, desc, eq, isNull } from 'drizzle-orm';
import { rejectCode } from '../../core/data/reject-codes.ts';
import type { Purpose, Step } from '../../core/inspection/procedure.ts';
import {
	checkHoldStart,
	judgeReading,
	type ReadingFacts,
	type Readings
} from '../../core/inspection/reading.ts';
import {
	checkAnswer,
	judgeRun,
	runState,
	type AnswerValue,
	type RunOutcome
} from '../../core/inspection/run.ts';
import { readable } from '../../core/plan/calendar.ts';
import { maker, type Verdict } from '../../core/verdict.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import type { Connection } from './db/client.ts';
import {
	inspectionAnswer,
	inspectionRun,
	runTimer,
	item,
	itemModel,
	place,
	user
} from './db/schema/index.ts';
import { brokenConstraint, Fault } from './errors.ts';
import { openDefect, openJob, withdrawDefect } from './faults.ts';
import { itemByTag, lastSignedRun } from './items.ts';
import { photosOf } from './photos.ts';
import { procedureAt, proceduresFor } from './procedures.ts';
import { rebuildState } from './readiness.ts';
import type { Site } from './site.ts';

type RunRow = typeof inspectionRun.$inferSelect;

/** Starts the inspection of an item, or gives the one that is already open on it. */
export async function startRun(
	context: Context,
	start: {
		id: string;
		tag: string;
		procedure?: string | undefined;
		/** A signed run that the new one is to take the place of, and why. */
		supersede?: { run: string; reason: string } | undefined;
	}
): Promise<{ id: string; resumed: boolean }> {
	requireRole(context.actor, 'inspect');
	const { item: found } = await itemByTag(context.db, start.tag);
	if (found.retiredOn)
		throw new Fault('conflict', `${found.tag} was taken out of use on ${found.retiredOn}.`);
	const open = () =>
		context.db
			.select({ id: inspectionRun.id, purpose: inspectionRun.purpose })
			.from(inspectionRun)
			.where(and(eq(inspectionRun.itemId, found.id), isNull(inspectionRun.signedAt)));
	const old = start.supersede && (await supersedable(context.db, found.id, start.supersede));
	const offered = await proceduresFor(context.db, found.family);
	const wanted = old?.procedure ?? start.procedure;
	const procedure = wanted ? offered.find((p) => p.key === wanted) : offered[0];
	if (!procedure)
		throw new Fault('invalid', `There is no such procedure for ${found.tag}.`, 'procedure');
	const purpose: Purpose = procedure.purpose ?? 'inspection';
	const [running] = await open();
	if (running && (running.purpose !== purpose || old) && running.id !== start.id)
		throw new Fault('conflict', `${found.tag} has another list open. Finish and sign it first.`);
	if (running) return { id: running.id, resumed: true };
	try {
		await inTransaction(context, async (tx) => {
			const job = await openJob(tx, found.id);
			await tx.insert(inspectionRun).values({
				id: start.id,
				itemId: found.id,
				procedure: procedure.key,
				procedureVersion: procedure.version,
				purpose,
				supersedes: old?.id ?? null,
				supersedeReason: old ? (start.supersede?.reason.trim() ?? null) : null,
				serviceJobId: purpose === 'inspection' && job?.doneAt ? job.id : null,
				startedBy: context.actor.id,
				startedAt: context.now()
			});
			await record(tx, context.actor.id, {
				action: 'inspection.started',
				subject: `run:${start.id}`,
				itemId: found.id,
				payload: {
					procedure: procedure.key,
					version: procedure.version,
					...(old ? { supersedes: old.id, reason: start.supersede?.reason.trim() } : {})
				}
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

/** A signed run of the item that nothing has taken the place of yet. */
async function supersedable(
	db: Connection,
	itemId: string,
	asked: { run: string; reason: string }
) {
	if (!asked.reason.trim())
		throw new Fault('invalid', 'Say why the signed one does not stand.', 'reason');
	const [run] = await db.select().from(inspectionRun).where(eq(inspectionRun.id, asked.run));
	if (run?.itemId !== itemId) throw new Fault('not found', 'There is no such inspection.');
	if (!run.signedAt)
		throw new Fault('conflict', 'It is not signed yet: its answers can still be changed.');
	const [later] = await db
		.select({ id: inspectionRun.id })
		.from(inspectionRun)
		.where(eq(inspectionRun.supersedes, run.id));
	if (later) throw new Fault('conflict', 'Another one takes its place already.');
	return run;
}

export interface Answer {
	/** Made by the client; a retry with the same id answers nothing twice. */
	id: string;
	runId: string;
	step: string;
	value: AnswerValue;
	code?: string | null;
	note?: string | null;
	/** What was read, at a step that a reading answers. */
	readings?: Readings | null;
	/** Position of the last answer that the page had seen. */
	seen: number;
	/** How long it waited on the device before it was sent, ms. */
	heldMs?: number | undefined;
}

/** Keeps one answer. A reject that holds opens its defect and holds the item in the same transaction. */
export async function answer(context: Context, site: Site, raw: Answer): Promise<void> {
	requireRole(context.actor, 'inspect');
	await inTransaction(context, async (tx) => {
		const run = await lockRun(tx, raw.runId);
		const answers = await answersOf(tx, run.id);
		if (answers.some((a) => a.id === raw.id)) return;
		if (run.signedAt) throw await alreadySigned(tx, run);
		const procedure = await procedureAt(tx, run.procedure, run.procedureVersion);
		const step = checkAnswer(procedure, raw);
		if (step.secondPerson && context.actor.id === run.startedBy && raw.value !== 'cleared')
			throw new Fault(
				'forbidden',
				`${step.title} is for a second person: open this list under another name, on this device or theirs.`,
				step.key
			);
		const given = await withReading(tx, context, run, step, raw);
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
			readings: given.readings ?? null,
			answeredBy: context.actor.id,
			answeredAt: givenAt(context.now(), given.heldMs, answers.at(-1)?.answeredAt ?? run.startedAt),
			receivedAt: context.now()
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

/** The time of an answer that waited on a device: never before the one before it, never after now. */
function givenAt(now: Date, heldMs = 0, notBefore: Date): Date {
	return new Date(Math.max(now.getTime() - heldMs, Math.min(notBefore.getTime(), now.getTime())));
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
		const procedure = await procedureAt(tx, run.procedure, run.procedureVersion);
		const from = answers[0]?.answeredAt ?? run.startedAt;
		const to = answers.at(-1)?.answeredAt ?? run.startedAt;
		const facts = await readingFacts(tx, run.itemId);
		const seconds = (to.getTime() - from.getTime()) / 1000;
		const verdict = withWithdrawal(judgeRun(procedure, answers, seconds, facts), facts);
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
					note: a.note ?? null,
					...(a.readings ? { readings: a.readings } : {})
				})),
				...(run.supersedes ? { supersedes: run.supersedes, reason: run.supersedeReason } : {}),
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
			ratedBar: itemModel.ratedBar,
			holdDropBar: itemModel.holdDropBar,
			makerLines: itemModel.makerLines,
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
		.where(eq(inspectionRun.id, runId));
	if (!row) throw new Fault('not found', 'There is no such inspection.');
	const answers = await answersOf(db, runId);
	const last = await lastSignedRun(db, row.item.id);
	const [later] = await db
		.select({
			id: inspectionRun.id,
			signedAt: inspectionRun.signedAt,
			reason: inspectionRun.supersedeReason
		})
		.from(inspectionRun)
		.where(eq(inspectionRun.supersedes, runId));
	const signer = row.run.signedBy
		? (await db.select({ name: user.name }).from(user).where(eq(user.id, row.run.signedBy)))[0]
		: undefined;
	return {
		...row,
		signedByName: signer?.name ?? null,
		procedure: await procedureAt(db, row.run.procedure, row.run.procedureVersion),
		answers: answers.map(plainAnswer),
		photos: await photosOf(db, runId),
		supersededBy: later ?? null,
		timers: await openTimers(db, runId),
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
	readings: a.readings,
	position: a.position,
	severity: a.code ? rejectCode(a.code).severity : null
});

const answersOf = (db: Connection, runId: string) =>
	db
		.select()
		.from(inspectionAnswer)
		.where(eq(inspectionAnswer.runId, runId))
		.orderBy(asc(inspectionAnswer.position));

/** The facts that readings of an item are judged against. */
async function readingFacts(db: Connection, itemId: string): Promise<RunFacts> {
	const [row] = await db
		.select({
			ratedBar: itemModel.ratedBar,
			holdDropBar: itemModel.holdDropBar,
			withdrawnOn: itemModel.withdrawnOn,
			withdrawnWhy: itemModel.withdrawnWhy
		})
		.from(item)
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.where(eq(item.id, itemId));
	return row ?? { ratedBar: null, withdrawnOn: null, withdrawnWhy: null };
}

interface RunFacts extends ReadingFacts {
	withdrawnOn: string | null;
	withdrawnWhy: string | null;
}

/** A run on a model that was withdrawn is finished and kept, and passes nothing. */
function withWithdrawal(verdict: Verdict<RunOutcome>, facts: RunFacts): Verdict<RunOutcome> {
	if (!facts.withdrawnOn) return verdict;
	const text = `The model was withdrawn on ${readable(facts.withdrawnOn)}: ${facts.withdrawnWhy ?? ''}`;
	const reason = { rule: 'model.withdrawn', text, origin: maker('notice of the maker') };
	return { outcome: 'fail', reasons: [reason, ...verdict.reasons] };
}

/** A reading answers its step: value and code come from the core; the time of a hold from the server's clock. */
async function withReading(
	tx: Connection,
	context: Context,
	run: RunRow,
	step: Step,
	raw: Answer
): Promise<Answer> {
	if (!step.reading || !raw.readings || raw.value === 'cleared' || raw.value === 'not fitted')
		return { ...raw, readings: null };
	let { readings } = raw;
	if (step.reading.kind === 'hold') {
		const timer = (await openTimers(tx, run.id)).find((t) => t.step === step.key);
		if (timer) {
			const seconds = Math.floor((context.now().getTime() - timer.startedAt.getTime()) / 1000);
			readings = { start: timer.startReading, end: readings.end, seconds };
		} else readings = { ...readings, clock: 'device' };
	}
	const judged = judgeReading(step, readings, await readingFacts(tx, run.itemId));
	await endTimer(tx, context, run.id, step.key);
	return { ...raw, readings, value: judged.value, code: judged.code };
}

/** Starts the clock of a hold with the pressure before it; starting it anew takes the place of one that runs. */
export async function startTimer(
	context: Context,
	input: { id: string; runId: string; step: string; start: number }
): Promise<void> {
	requireRole(context.actor, 'inspect');
	checkHoldStart(input.start);
	await inTransaction(context, async (tx) => {
		const run = await lockRun(tx, input.runId);
		if (run.signedAt) throw await alreadySigned(tx, run);
		const procedure = await procedureAt(tx, run.procedure, run.procedureVersion);
		const step = procedure.steps.find((s) => s.key === input.step);
		if (step?.reading?.kind !== 'hold')
			throw new Fault('invalid', 'This step takes no hold.', 'step');
		const [again] = await tx.select().from(runTimer).where(eq(runTimer.id, input.id));
		if (again) return;
		await endTimer(tx, context, run.id, step.key);
		await tx.insert(runTimer).values({
			id: input.id,
			runId: run.id,
			step: input.step,
			startReading: input.start,
			seconds: step.reading.seconds ?? 60,
			startedBy: context.actor.id,
			startedAt: context.now()
		});
	});
}

const endTimer = (tx: Connection, context: Context, runId: string, step: string) =>
	tx
		.update(runTimer)
		.set({ endedAt: context.now() })
		.where(and(eq(runTimer.runId, runId), eq(runTimer.step, step), isNull(runTimer.endedAt)));

const openTimers = (db: Connection, runId: string) =>
	db
		.select()
		.from(runTimer)
		.where(and(eq(runTimer.runId, runId), isNull(runTimer.endedAt)));

/** Holds that run, whoever started them: seen from every page. */
export const runningTimers = (db: Connection) =>
	db
		.select({
			id: runTimer.id,
			runId: runTimer.runId,
			tag: item.tag,
			seconds: runTimer.seconds,
			startedAt: runTimer.startedAt
		})
		.from(runTimer)
		.innerJoin(inspectionRun, eq(inspectionRun.id, runTimer.runId))
		.innerJoin(item, eq(item.id, inspectionRun.itemId))
		.where(and(isNull(runTimer.endedAt), isNull(inspectionRun.signedAt)))
		.orderBy(asc(runTimer.startedAt))
		.limit(10);

export async function lockRun(tx: Connection, id: string): Promise<RunRow> {
	const [run] = await tx.select().from(inspectionRun).where(eq(inspectionRun.id, id)).for('update');
	if (!run) throw new Fault('not found', 'There is no such inspection.');
	return run;
}

export async function alreadySigned(tx: Connection, run: RunRow): Promise<Fault> {
	const [by] = await tx
		.select({ name: user.name })
		.from(user)
		.where(eq(user.id, run.signedBy ?? ''));
	return new Fault(
		'conflict',
		`${by?.name ?? 'Someone'} has already signed this inspection. A signed inspection is never changed; start a new one.`
	);
}
