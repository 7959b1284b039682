import { asc, eq, inArray } from 'drizzle-orm';
import type { Day } from '../../../core/plan/calendar.ts';
import type { PlanJob } from '../../../core/plan/jobs.ts';
import type { Connection } from '../db/client.ts';
import { plannedJobs } from '../db/queries/plan.ts';
import { item, itemDue, user } from '../db/schema/index.ts';
import { type Context, type Reader, todayOf } from '../kernel/context.ts';
import { may } from '../kernel/permissions.ts';
import { planWorkers } from './facts.ts';

/** A job of a day, and whether the record says that it is done. */
export interface DayJob extends PlanJob {
	userId: string;
	done: boolean;
}

/** The days of somebody by the plan in force: one day, and which others there are. */
export async function planDay(context: Context, asked: { day?: Day; who?: string }) {
	const { db, actor } = context;
	const today = todayOf(context);
	const workers = await planWorkers(db, context.site);
	const who = workers.find(({ id }) => id === (asked.who ?? actor.id)) ?? workers[0] ?? null;
	const rows = who ? await plannedJobs(db, { from: today, userId: who.id }) : [];
	const days = [...new Set(rows.map(({ day }) => day))];
	const day = asked.day ?? days.find((one) => one >= today) ?? today;
	const own = who ? await plannedJobs(db, { from: day, until: day, userId: who.id }) : [];
	const sees = may(actor.role, 'see wearers');
	const jobs = await withDone(db, own);
	return {
		today,
		day,
		days,
		workers: workers.map(({ id, name }) => ({ id, name })),
		who: who && { id: who.id, name: who.name },
		jobs: sees ? jobs : jobs.filter(({ key }) => !key.startsWith('person:'))
	};
}

type Row = Awaited<ReturnType<typeof plannedJobs>>[number];

/** What fell due on an item is done once its due lies later than the plan knew it. */
async function withDone(db: Connection, rows: readonly Row[]): Promise<DayJob[]> {
	const tags = [...new Set(rows.filter(({ itemId }) => itemId).map(({ job }) => job.tag))];
	const dues = tags.length
		? await db
				.select({ tag: item.tag, what: itemDue.what, detail: itemDue.detail, on: itemDue.dueOn })
				.from(itemDue)
				.innerJoin(item, eq(item.id, itemDue.itemId))
				.where(inArray(item.tag, tags))
		: [];
	const dueOn = new Map(dues.map(({ tag, what, detail, on }) => [`${tag} ${what} ${detail}`, on]));
	return rows
		.map(({ job, userId }) => {
			const on = dueOn.get(`${job.tag} ${job.what} ${job.detail}`);
			return { ...job, userId, done: on !== undefined && on > job.latest };
		})
		.sort(
			(a, b) =>
				(a.place ?? '').localeCompare(b.place ?? '') ||
				a.title.localeCompare(b.title) ||
				a.tag.localeCompare(b.tag)
		);
}

/** Where the plan has each thing that falls due: key of the job, its day and who does it. */
export async function plannedNow(context: Reader): Promise<Map<string, { day: Day; who: string }>> {
	const [rows, people] = await Promise.all([
		plannedJobs(context.db),
		context.db.select({ id: user.id, name: user.name }).from(user).orderBy(asc(user.name))
	]);
	const nameOf = new Map(people.map(({ id, name }) => [id, name]));
	return new Map(
		rows.map(({ jobKey, day, userId }) => [jobKey, { day, who: nameOf.get(userId) ?? '' }])
	);
}
