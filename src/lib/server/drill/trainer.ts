import { and, count, desc, eq, gte, inArray, isNull, lte, max } from 'drizzle-orm';
import { withoutSide } from '../../../core/airway/airway.ts';
import { airwayOf, FAMILIES, stationOf } from '../../../core/data/families.ts';
import { rejectCode } from '../../../core/data/reject-codes.ts';
import { type Kind, kindsOf } from '../../../core/drill/kinds.ts';
import { FIRST_RATING, suits } from '../../../core/drill/rating.ts';
import {
	addSignals,
	NO_SIGNALS,
	type Sensitivity,
	sensitivity,
	type Signals
} from '../../../core/drill/signal-detection.ts';
import { SHORT_TESTS } from '../../../core/drill/short-test-names.ts';
import type { Procedure } from '../../../core/inspection/procedure.ts';
import { wilson } from '../../../core/stats/wilson.ts';
import { medianSecondsOf } from '../db/queries/teach.ts';
import { drillKind, drillMemory, drillPerson, drillSession, user } from '../db/schema/index.ts';
import { readableDay } from '../../../core/plan/moments.ts';
import type { Context } from '../kernel/context.ts';
import { may } from '../kernel/permissions.ts';
import { lastTests } from './tests.ts';
import { drillProcedure, lastDrills, sessionOf } from './sessions.ts';

/** A kind of fault in words. */
export function kindWords(kind: Kind): string {
	const [family = '', station = '', code = ''] = kind.split('/');
	const at = airwayOf(family).stations.find(({ key }) => withoutSide(key) === station);
	const name = (at ? stationOf(family, at.key).name : station).replace(/, (left|right)$/, '');
	return `${name}: ${rejectCode(code).name}`;
}

const sharp = (of: Signals | undefined): Sensitivity | null =>
	of && of.hits + of.misses > 0 && of.falseAlarms + of.correctRejections > 0
		? sensitivity(of)
		: null;

/** Where somebody stands: each family with what is due again, and their last drills. */
export async function drillHome(context: Context) {
	const { db, actor } = context;
	const [persons, due, last, tests] = await Promise.all([
		db.select().from(drillPerson).where(eq(drillPerson.userId, actor.id)),
		db
			.select({ kind: drillMemory.kind, met: drillMemory.met, found: drillMemory.found })
			.from(drillMemory)
			.where(and(eq(drillMemory.userId, actor.id), lte(drillMemory.dueAt, context.now())))
			.orderBy(drillMemory.dueAt),
		lastDrills(db, actor.id),
		lastTests(db, actor.id)
	]);
	return {
		families: FAMILIES.map(({ family, plural }) => {
			const own = persons.find((row) => row.family === family);
			return {
				family,
				plural,
				sessions: own?.sessions ?? 0,
				due: due.filter(({ kind }) => kind.startsWith(`${family}/`)).length,
				sharp: sharp(own)
			};
		}),
		due: due.slice(0, 8).map((row) => ({ ...row, words: kindWords(row.kind) })),
		dueInAll: due.length,
		tests: SHORT_TESTS.map((test) => ({ ...test, last: tests.get(test.key) ?? null })),
		last
	};
}

/** What a walk of a family needs: its list, what should be met, and how long passed inspections take. */
export async function drillRun(context: Context, family: string) {
	const procedure = await drillProcedure(context.db, family);
	const [favour, medianSeconds] = await Promise.all([
		favourOf(context, procedure),
		medianSecondsOf(context.db, family)
	]);
	return { procedure, favour, medianSeconds };
}

/** Kinds that should be met next: what is due again, then what was never met and suits the person best. */
async function favourOf(context: Context, procedure: Procedure): Promise<Kind[]> {
	const { db, actor } = context;
	const kinds = kindsOf(procedure);
	const [memories, ratings, [person]] = await Promise.all([
		db.select().from(drillMemory).where(eq(drillMemory.userId, actor.id)),
		db.select().from(drillKind).where(inArray(drillKind.kind, kinds)),
		db
			.select()
			.from(drillPerson)
			.where(and(eq(drillPerson.userId, actor.id), eq(drillPerson.family, procedure.family)))
	]);
	const now = context.now().getTime();
	const known = new Map(memories.map((row) => [row.kind, row.dueAt.getTime()]));
	const hard = new Map(ratings.map((row) => [row.kind, row.rating]));
	const aim = suits(person?.rating ?? FIRST_RATING);
	const due = kinds
		.filter((kind) => (known.get(kind) ?? Infinity) <= now)
		.sort((a, b) => (known.get(a) ?? 0) - (known.get(b) ?? 0));
	const off = (kind: Kind) => Math.abs((hard.get(kind) ?? FIRST_RATING) - aim);
	const unseen = kinds.filter((kind) => !known.has(kind));
	// Somebody who begins meets first what everybody should know: a valve disc that is curled.
	if (known.size === 0) unseen.sort((a, b) => Number(FIRST.test(b)) - Number(FIRST.test(a)));
	else unseen.sort((a, b) => off(a) - off(b));
	return [...due.slice(0, 5), ...unseen.slice(0, 3)];
}

const FIRST = /\/exhalation\/CURL$/;
/** Fewer than so many meetings of a kind say nothing of a team. Common practice. */
const FEWEST = 3;
const DAY_MS = 86_400_000;

/** For who trains others: who is due, which kinds the team misses, and the exams. */
export async function trainerPage(context: Context) {
	const { db } = context;
	const year = new Date(context.now().getTime() - 365 * DAY_MS);
	const [people, persons, due, kinds, exams] = await Promise.all([
		db
			.select({
				id: user.id,
				name: user.name,
				role: user.role,
				last: max(drillSession.endedAt),
				sessions: count(drillSession.id)
			})
			.from(user)
			.leftJoin(drillSession, eq(drillSession.userId, user.id))
			.where(isNull(user.disabledAt))
			.groupBy(user.id)
			.orderBy(user.name),
		db.select().from(drillPerson),
		db
			.select({ userId: drillMemory.userId, n: count() })
			.from(drillMemory)
			.where(lte(drillMemory.dueAt, context.now()))
			.groupBy(drillMemory.userId),
		db.select().from(drillKind).where(gte(drillKind.met, FEWEST)),
		db
			.select({
				id: drillSession.id,
				who: user.name,
				family: drillSession.family,
				points: drillSession.points,
				passed: drillSession.passed,
				endedAt: drillSession.endedAt
			})
			.from(drillSession)
			.innerJoin(user, eq(user.id, drillSession.userId))
			.where(and(eq(drillSession.mode, 'exam'), gte(drillSession.endedAt, year)))
			.orderBy(desc(drillSession.endedAt))
			.limit(100)
	]);
	const all = (userId: string) =>
		sharp(persons.filter((row) => row.userId === userId).reduce<Signals>(addSignals, NO_SIGNALS));
	return {
		people: people.map((row) => ({
			...row,
			due: due.find(({ userId }) => userId === row.id)?.n ?? 0,
			sharp: all(row.id)
		})),
		missed: kinds
			.filter(({ met, found }) => found < met)
			.map((row) => ({ name: kindWords(row.kind), ...wilson(row.met - row.found, row.met) }))
			.sort((a, b) => b.lower - a.lower)
			.slice(0, 15),
		exams: exams.map((row) => ({ ...row, plural: airwayOf(row.family).plural }))
	};
}

/** A drill that ended, as its page shows it. */
export async function drillSessionPage(context: Context, id: string) {
	const found = await sessionOf(context, id);
	return {
		session: found.session,
		by: found.by,
		beside: found.beside,
		why: found.why,
		procedure: found.procedure,
		medianSeconds: await medianSecondsOf(context.db, found.session.family),
		mayAuthorise: may(context.actor.role, 'keep competence'),
		othersSaid: Object.fromEntries(
			found.others
				.filter(({ met }) => met >= FEWEST)
				.map(({ kind, met, found: seen }) => [
					kind,
					`Here ${met - seen} of ${met} who met it missed it.`
				])
		)
	};
}

/** What an authorisation by a passed exam would say; null where there is none, or who asks gives none. */
export async function proposedBy(context: Context, examId: string | null) {
	if (!examId || !may(context.actor.role, 'keep competence')) return null;
	const { session, by, procedure, beside } = await sessionOf(context, examId);
	if (session.mode !== 'exam' || !session.passed) return null;
	const day = readableDay(session.endedAt, context.site.timeZone);
	return {
		userId: session.userId,
		by,
		job: 'inspect' as const,
		family: procedure.family,
		evidence:
			`Exam of the trainer, ${procedure.name}, ${day}, beside ${beside ?? 'a supervisor'}, paper ${examId.slice(0, 8)}`.slice(
				0,
				200
			)
	};
}
