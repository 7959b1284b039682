import { and, desc, eq, inArray } from 'drizzle-orm';
import { randomInt } from 'node:crypto';
import { canLookBad } from '../../../core/drawings/at.ts';
import { type Handed, handOver, type Level } from '../../../core/drill/hand-over.ts';
import type { DrillMode } from '../../../core/drill/modes.ts';
import { afterMeeting, FIRST_RATING } from '../../../core/drill/rating.ts';
import { meetAgain } from '../../../core/drill/schedule.ts';
import {
	type DrillAnswer,
	type DrillScore,
	judgeExam,
	metOf,
	scoreDrill
} from '../../../core/drill/score.ts';
import { addSignals, NO_SIGNALS } from '../../../core/drill/signal-detection.ts';
import type { Procedure } from '../../../core/inspection/procedure.ts';
import type { Connection } from '../db/client.ts';
import {
	drillExam,
	drillKind,
	drillMemory,
	drillPerson,
	drillSession,
	user
} from '../db/schema/index.ts';
import { procedureAt, proceduresFor } from '../inspection/procedures.ts';
import type { Context } from '../kernel/context.ts';
import { may, type Role } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Work, write } from '../kernel/write.ts';

/** A drill as a device sends it when it was walked to its end. */
export interface WalkedDrill {
	id: string;
	mode: Exclude<DrillMode, 'exam'>;
	procedure: string;
	version: number;
	handed: Handed;
	answers: DrillAnswer[];
	seconds: number;
}

/** Keeps a drill of one's own, scored again here, with what it says of what should be met next. */
export function keepDrill(context: Context, input: WalkedDrill): Promise<{ id: string }> {
	return write(context, 'drill', { id: input.id, content: input }, async (at) => {
		const procedure = await procedureAt(at.tx, input.procedure, input.version);
		requireOf(procedure, input.handed);
		const score = scoreDrill(procedure, input.handed, input.answers, input.seconds);
		await keepWalked(at, { ...input, examId: null, passed: null }, procedure, score, at.actor.id);
		return { id: input.id };
	});
}

/** What a device says was handed over must be something that this procedure can hand over. */
function requireOf(procedure: Procedure, handed: Handed): void {
	for (const { step: key, code } of handed.faults) {
		const step = procedure.steps.find((one) => one.key === key);
		if (!step || !(step.rejects.includes(code) || step.reading))
			throw new Refusal('invalid', 'This drill is none that this list can hand over.', 'handed');
	}
}

/** Begins an exam: what is handed over is fixed, and known to nobody before it ends. */
export function beginExam(
	context: Context,
	input: {
		id: string;
		family: string;
		level: Level;
		supervisor: { id: string; name: string; role: Role };
	}
): Promise<{ id: string }> {
	const { id, family, level, supervisor } = input;
	const content = { family, level, supervisor: supervisor.id };
	return write(context, 'drill', { id, content }, async (at) => {
		if (!may(supervisor.role, 'keep competence'))
			throw new Refusal('forbidden', `${supervisor.name} is no supervisor.`, 'who');
		if (supervisor.id === at.actor.id)
			throw new Refusal(
				'forbidden',
				'Nobody examines themselves: another supervisor stands by.',
				'who'
			);
		const procedure = await drillProcedure(at.tx, family);
		await at.tx.insert(drillExam).values({
			id,
			userId: at.actor.id,
			supervisorId: supervisor.id,
			procedure: procedure.key,
			procedureVersion: procedure.version,
			level,
			seed: randomInt(1, 2 ** 31 - 1),
			startedAt: at.now
		});
		at.record('drill.exam-begun', {
			of: id,
			payload: { procedure: procedure.name, who: at.actor.name, beside: supervisor.name }
		});
		return { id };
	});
}

/** An exam with what it hands over, for who takes it. */
export async function examPage(context: Context, id: string) {
	const [row] = await context.db
		.select({ exam: drillExam, session: drillSession.id })
		.from(drillExam)
		.leftJoin(drillSession, eq(drillSession.examId, drillExam.id))
		.where(eq(drillExam.id, id));
	if (!row || row.exam.userId !== context.actor.id)
		throw new Refusal('not found', 'There is no such exam of yours.');
	const procedure = await procedureAt(context.db, row.exam.procedure, row.exam.procedureVersion);
	return { exam: row.exam, ended: row.session, procedure, handed: handedOf(row.exam, procedure) };
}

const handedOf = ({ seed, level }: { seed: number; level: Level }, procedure: Procedure): Handed =>
	handOver({
		procedure,
		seed,
		level,
		canBeNear: (step) => canLookBad(procedure.family, step)
	});

/** Ends an exam: judged by what was fixed when it began, timed by the clock of the server. */
export function endExam(
	context: Context,
	input: { id: string; examId: string; answers: DrillAnswer[] }
): Promise<{ id: string; passed: boolean }> {
	const { id, ...content } = input;
	return write(context, 'drill', { id, content }, async (at) => {
		const [exam] = await at.tx
			.select()
			.from(drillExam)
			.where(and(eq(drillExam.id, input.examId), eq(drillExam.userId, at.actor.id)));
		if (!exam) throw new Refusal('not found', 'There is no such exam of yours.');
		const [ended] = await at.tx
			.select({ id: drillSession.id })
			.from(drillSession)
			.where(eq(drillSession.examId, exam.id));
		if (ended) throw new Refusal('conflict', 'This exam has ended already.');
		const procedure = await procedureAt(at.tx, exam.procedure, exam.procedureVersion);
		const handed = handedOf(exam, procedure);
		const seconds = Math.round((at.now.getTime() - exam.startedAt.getTime()) / 1000);
		const score = scoreDrill(procedure, handed, input.answers, seconds);
		const { passed, why } = judgeExam(score);
		await keepWalked(
			at,
			// Under the id of its beginning: the log leads from both to one page.
			{ id: exam.id, mode: 'exam', examId: exam.id, handed, answers: input.answers, passed },
			procedure,
			score,
			at.actor.id
		);
		at.record('drill.exam-ended', {
			of: exam.id,
			payload: { procedure: procedure.name, who: at.actor.name, points: score.index, passed, why }
		});
		return { id: exam.id, passed };
	});
}

/** Keeps what was walked, and moves ratings and days by it. */
export async function keepWalked(
	{ tx, now }: Pick<Work, 'tx' | 'now'>,
	of: Pick<
		typeof drillSession.$inferInsert,
		'id' | 'mode' | 'examId' | 'handed' | 'answers' | 'passed'
	>,
	procedure: Procedure,
	score: DrillScore,
	userId: string
): Promise<void> {
	const { family } = procedure;
	await tx.insert(drillSession).values({
		id: of.id,
		mode: of.mode,
		examId: of.examId,
		handed: of.handed,
		answers: of.answers,
		passed: of.passed,
		userId,
		family,
		procedure: procedure.key,
		procedureVersion: procedure.version,
		score,
		points: score.index,
		endedAt: now
	});
	const met = metOf(score).sort((a, b) => (a.kind < b.kind ? -1 : 1));
	const kinds = [...new Set(met.map(({ kind }) => kind))];
	const [person] = await tx
		.select()
		.from(drillPerson)
		.where(and(eq(drillPerson.userId, userId), eq(drillPerson.family, family)))
		.for('update');
	const known = kinds.length
		? await tx.select().from(drillKind).where(inArray(drillKind.kind, kinds)).for('update')
		: [];
	const memories = kinds.length
		? await tx
				.select()
				.from(drillMemory)
				.where(and(eq(drillMemory.userId, userId), inArray(drillMemory.kind, kinds)))
		: [];
	const ratings = new Map(known.map((row) => [row.kind, row]));
	const kept = new Map(memories.map((row) => [row.kind, row]));
	let rating = person?.rating ?? FIRST_RATING;
	for (const { kind, met: how } of met) {
		const row = ratings.get(kind) ?? { kind, rating: FIRST_RATING, met: 0, found: 0 };
		const found = how === 'missed' ? 0 : 1;
		const next = afterMeeting(rating, row.rating, found === 1);
		rating = next.person;
		ratings.set(kind, { kind, rating: next.fault, met: row.met + 1, found: row.found + found });
		const before = kept.get(kind);
		const memory = meetAgain(before?.memory ?? null, how, now);
		kept.set(kind, {
			userId,
			kind,
			memory,
			dueAt: new Date(memory.due),
			met: (before?.met ?? 0) + 1,
			found: (before?.found ?? 0) + found
		});
	}
	for (const kind of kinds) {
		const [row, own] = [ratings.get(kind), kept.get(kind)];
		if (row)
			await tx
				.insert(drillKind)
				.values(row)
				.onConflictDoUpdate({ target: drillKind.kind, set: row });
		if (own)
			await tx
				.insert(drillMemory)
				.values(own)
				.onConflictDoUpdate({ target: [drillMemory.userId, drillMemory.kind], set: own });
	}
	const next = {
		userId,
		family,
		rating,
		sessions: (person?.sessions ?? 0) + 1,
		...addSignals(person ?? NO_SIGNALS, score.signals)
	};
	await tx
		.insert(drillPerson)
		.values(next)
		.onConflictDoUpdate({ target: [drillPerson.userId, drillPerson.family], set: next });
}

/** The list that a drill of a family walks: its usual inspection. @throws Refusal where it has none */
export async function drillProcedure(db: Connection, family: string): Promise<Procedure> {
	const procedure = (await proceduresFor(db, family)).find(
		({ purpose }) => (purpose ?? 'inspection') === 'inspection'
	);
	if (!procedure) throw new Refusal('not found', 'There is no list to walk for that.');
	return procedure;
}

/** A drill that ended: one's own, or anybody's for who keeps competence. */
export async function sessionOf(context: Context, id: string) {
	const [row] = await context.db
		.select({ session: drillSession, exam: drillExam, by: user.name })
		.from(drillSession)
		.innerJoin(user, eq(user.id, drillSession.userId))
		.leftJoin(drillExam, eq(drillExam.id, drillSession.examId))
		.where(eq(drillSession.id, id));
	const mine = row?.session.userId === context.actor.id;
	if (!row || !(mine || may(context.actor.role, 'keep competence')))
		throw new Refusal('not found', 'There is no such drill of yours.');
	const procedure = await procedureAt(
		context.db,
		row.session.procedure,
		row.session.procedureVersion
	);
	const kinds = row.session.score.steps.flatMap(({ kind }) => (kind ? [kind] : []));
	const [beside] = row.exam
		? await context.db
				.select({ name: user.name })
				.from(user)
				.where(eq(user.id, row.exam.supervisorId))
		: [];
	return {
		...row,
		procedure,
		beside: beside?.name ?? null,
		why: row.session.mode === 'exam' ? judgeExam(row.session.score).why : null,
		/** How often each of its kinds was met and found, by everybody. */
		others: kinds.length
			? await context.db.select().from(drillKind).where(inArray(drillKind.kind, kinds))
			: []
	};
}

/** The last drills of a person, the newest first. */
export const lastDrills = (db: Connection, userId: string, most = 12) =>
	db
		.select({
			id: drillSession.id,
			mode: drillSession.mode,
			family: drillSession.family,
			points: drillSession.points,
			passed: drillSession.passed,
			endedAt: drillSession.endedAt
		})
		.from(drillSession)
		.where(eq(drillSession.userId, userId))
		.orderBy(desc(drillSession.endedAt))
		.limit(most);
