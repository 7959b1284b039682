import { asc, eq } from 'drizzle-orm';
import { rejectCode } from '../../../core/data/reject-codes.ts';
import type { Step } from '../../../core/inspection/procedure.ts';
import { judgeReading, type Readings } from '../../../core/inspection/reading.ts';
import { type AnswerValue, checkAnswer } from '../../../core/inspection/run.ts';
import { partOf } from '../../../core/people/two-people.ts';
import type { Connection } from '../db/client.ts';
import { inspectionAnswer } from '../db/schema/index.ts';
import { openDefect, withdrawDefect } from '../faults/faults.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { steadyAt } from '../kernel/steady.ts';
import { type Work, write } from '../kernel/write.ts';
import { alreadySigned, type LockedRun, lockRun } from './locked-run.ts';
import { procedureAt } from './procedures.ts';
import { endTimer } from './timers.ts';

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

/**
 * Keeps one answer. A reject that holds opens its defect and holds the item in the same transaction.
 * @returns the answers of the run as the page takes them
 */
export async function answer(context: Context, raw: Answer): Promise<PlainAnswer[]> {
	// How long it waited, and what was seen meanwhile, differ between two sends of one answer.
	const { id, seen: _, heldMs: __, ...content } = raw;
	let answered: PlainAnswer[] | undefined;
	await write(context, 'inspect', { id, content }, async (at) => {
		answered = await keepAnswer(at, raw);
	});
	return answered ?? runAnswers(context.db, raw.runId);
}

async function keepAnswer(at: Work, raw: Answer): Promise<PlainAnswer[]> {
	const { tx, actor, now } = at;
	const locked = await lockRun(tx, raw.runId);
	const { run } = locked;
	if (run.signedAt) throw await alreadySigned(tx, run);
	const answers = await answersOf(tx, run.id);
	const procedure = await procedureAt(tx, run.procedure, run.procedureVersion);
	const step = checkAnswer(procedure, raw);
	const part = partOf(procedure, run.startedBy, answers, actor.id);
	// On the device of the first, the steps of a second person who was named there are theirs.
	const by = step.secondPerson && part.first ? (run.assistantId ?? actor.id) : actor.id;
	if (step.secondPerson && part.first && by === actor.id && raw.value !== 'cleared')
		throw new Refusal(
			'forbidden',
			`${step.title} is for a second person: they say who they are here, or open this list on their own device.`,
			step.key
		);
	if (!step.secondPerson && part.second)
		throw new Refusal(
			'forbidden',
			`You were the second person in this list. Whoever does the work answers ${step.title}.`,
			step.key
		);
	const given = await withReading(at, locked, step, raw);
	const before = answers.findLast((a) => a.step === given.step);
	if (before && before.position > given.seen && before.answeredBy !== by)
		throw new Refusal(
			'conflict',
			`${step.title} was answered "${before.value}" meanwhile by someone else. Yours was not kept; answer again to replace it.`,
			given.step
		);
	const row = await putAnswer(at, run, step, given, {
		position: (answers.at(-1)?.position ?? 0) + 1,
		by,
		answeredAt: givenAt(now, given.heldMs, answers.at(-1)?.answeredAt ?? run.startedAt),
		before
	});
	return [...answers, row].map(plainAnswer);
}

/** Keeps an answer, opens the fault that it found and takes back the one that it replaces. */
export async function putAnswer(
	at: Work,
	run: { id: string; itemId: string },
	step: Step,
	given: Pick<Answer, 'id' | 'step' | 'value' | 'code' | 'note' | 'readings'>,
	how: {
		position: number;
		by: string;
		answeredAt: Date;
		before?: { value: AnswerValue; code: string | null } | undefined;
	}
) {
	const row = {
		id: given.id,
		runId: run.id,
		position: how.position,
		step: given.step,
		value: given.value,
		code: given.value === 'reject' ? (given.code ?? null) : null,
		note: given.note || null,
		readings: given.readings ?? null,
		answeredBy: how.by,
		answeredAt: how.answeredAt,
		receivedAt: at.now
	};
	await at.tx.insert(inspectionAnswer).values(row);
	at.record('inspection.answered', {
		of: run.id,
		itemId: run.itemId,
		payload: {
			step: row.step,
			value: row.value,
			code: row.code,
			note: row.note,
			readings: row.readings ?? undefined
		}
	});
	const same =
		how.before?.value === 'reject' && row.value === 'reject' && how.before.code === row.code;
	if (how.before?.code && !same)
		await withdrawDefect(at, {
			runId: run.id,
			itemId: run.itemId,
			station: step.station,
			code: how.before.code
		});
	if (row.code && !same)
		await openDefect(at, {
			id: given.id,
			itemId: run.itemId,
			station: step.station,
			code: row.code,
			step: step.key,
			runId: run.id,
			note: row.note
		});
	return row;
}

/** The time of an answer that waited on a device: never before the one before it, never after now. */
function givenAt(now: Date, heldMs = 0, notBefore: Date): Date {
	return new Date(Math.max(now.getTime() - heldMs, Math.min(notBefore.getTime(), now.getTime())));
}

/** A reading answers its step: value and code come from the core; the time of a hold from the server's clock. */
async function withReading(at: Work, locked: LockedRun, step: Step, raw: Answer): Promise<Answer> {
	if (!step.reading || !raw.readings || raw.value === 'cleared' || raw.value === 'not fitted')
		return { ...raw, readings: null };
	let { readings } = raw;
	if (step.reading.kind === 'hold') {
		const timer = await endTimer(at, locked.run.id, step.key);
		const now = await steadyAt(at);
		readings = timer
			? {
					start: timer.startReading,
					end: readings.end,
					seconds: Math.floor((now.getTime() - timer.startedAt.getTime()) / 1000)
				}
			: { ...readings, clock: 'device' };
	}
	const judged = judgeReading(step, readings, locked.limits);
	return { ...raw, readings, value: judged.value, code: judged.code };
}

/** The answers of a run as the page takes them. */
export async function runAnswers(db: Connection, runId: string): Promise<PlainAnswer[]> {
	return (await answersOf(db, runId)).map(plainAnswer);
}

export const plainAnswer = (a: Omit<typeof inspectionAnswer.$inferSelect, 'receivedAt'>) => ({
	step: a.step,
	value: a.value,
	code: a.code,
	note: a.note,
	readings: a.readings,
	position: a.position,
	severity: a.code ? rejectCode(a.code).severity : null
});
export type PlainAnswer = ReturnType<typeof plainAnswer>;

export const answersOf = (db: Connection, runId: string) =>
	db
		.select()
		.from(inspectionAnswer)
		.where(eq(inspectionAnswer.runId, runId))
		.orderBy(asc(inspectionAnswer.position));
