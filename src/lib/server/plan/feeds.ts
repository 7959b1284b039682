import { and, asc, eq, isNull } from 'drizzle-orm';
import ical, { ICalCalendarMethod } from 'ical-generator';
import { plusDays } from '../../../core/plan/calendar.ts';
import { drawSecret } from '../access/draw-secret.ts';
import type { Connection } from '../db/client.ts';
import { noteFeedRead, plannedJobs } from '../db/queries/plan.ts';
import { place, planFeed, user } from '../db/schema/index.ts';
import type { Context, Unattended } from '../kernel/context.ts';
import { todayOf } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { sha256 } from '../kernel/sha256.ts';
import { write } from '../kernel/write.ts';

/** Calendars that may be read by token, those that may no more left out. */
export const listFeeds = (db: Connection) =>
	db
		.select({
			id: planFeed.id,
			person: user.name,
			place: place.name,
			madeAt: planFeed.madeAt,
			readAt: planFeed.readAt
		})
		.from(planFeed)
		.leftJoin(user, eq(user.id, planFeed.userId))
		.leftJoin(place, eq(place.id, planFeed.placeId))
		.where(isNull(planFeed.revokedAt))
		.orderBy(asc(planFeed.madeAt));

export interface NewFeed {
	id: string;
	/** Whose days, or those of which place. */
	userId: string | null;
	placeId: string | null;
}

/**
 * Makes a calendar of the plan that is read with a token.
 * @returns the token, which is shown once
 * @throws Refusal where it was made before, or is of nobody
 */
export async function makeFeed(context: Context, input: NewFeed): Promise<string> {
	const token = drawSecret();
	const { id, ...content } = input;
	const hash = await write(context, 'keep the plan', { id, content }, async (at) => {
		const of = await nameOf(at.tx, input);
		await at.tx.insert(planFeed).values({
			...input,
			hash: sha256(token),
			madeBy: at.actor.id,
			madeAt: at.now
		});
		at.record('plan-feed.made', { of: 'plan', payload: { of } });
		return sha256(token);
	});
	if (hash !== sha256(token))
		throw new Refusal(
			'conflict',
			'This calendar was made and its address shown. Revoke it, then make another.'
		);
	return token;
}

async function nameOf(tx: Connection, { userId, placeId }: Omit<NewFeed, 'id'>): Promise<string> {
	const [found] = userId
		? await tx.select({ name: user.name }).from(user).where(eq(user.id, userId))
		: placeId
			? await tx.select({ name: place.name }).from(place).where(eq(place.id, placeId))
			: [];
	if (!found) throw new Refusal('invalid', 'Choose whose calendar it is.', 'userId');
	return found.name;
}

/** Revokes a calendar: its token opens nothing from now on. */
export function revokeFeed(context: Context, requestId: string, id: string): Promise<void> {
	return write(context, 'keep the plan', { id: requestId, content: { id } }, async (at) => {
		const [found] = await at.tx.select().from(planFeed).where(eq(planFeed.id, id)).for('update');
		if (!found) throw new Refusal('not found', 'There is no such calendar.');
		if (found.revokedAt) return;
		await at.tx.update(planFeed).set({ revokedAt: at.now }).where(eq(planFeed.id, id));
		at.record('plan-feed.revoked', { of: 'plan', payload: { of: await nameOf(at.tx, found) } });
	});
}

/** Days that lie behind and are still in a calendar. */
const BEHIND_DAYS = 7;
/** A calendar says when it was read no more often than so, ms, so that a busy client writes little. */
const READ_EVERY_MS = 3_600_000;
/** How often a calendar client should ask, s. */
const REFRESH_S = 3600;

/**
 * A calendar by its token: a line a day with what is to be done, nothing about a person beyond the job.
 * @returns null where the token opens nothing, whether it was revoked or never was
 */
export async function readFeed(
	context: Pick<Unattended, 'db' | 'now' | 'site'>,
	token: string,
	address: string
): Promise<string | null> {
	const { db, site } = context;
	const now = context.now();
	const [feed] = await db
		.select()
		.from(planFeed)
		.where(and(eq(planFeed.hash, sha256(token)), isNull(planFeed.revokedAt)));
	if (!feed) return null;
	if (!feed.readAt || now.getTime() - feed.readAt.getTime() > READ_EVERY_MS)
		await noteFeedRead(db, feed.id, now);
	const rows = await plannedJobs(db, {
		from: plusDays(todayOf(context), -BEHIND_DAYS),
		...(feed.userId ? { userId: feed.userId } : {}),
		...(feed.placeId ? { placeId: feed.placeId } : {})
	});
	const calendar = ical({
		name: `${site.name}: ${await nameOf(db, feed)}`,
		method: ICalCalendarMethod.PUBLISH,
		prodId: { company: 'Grevan', product: 'plan' },
		ttl: REFRESH_S
	});
	for (const { jobKey, day, job } of rows)
		calendar.createEvent({
			id: `${sha256(jobKey).slice(0, 32)}@grevan`,
			start: new Date(`${day}T00:00:00`),
			allDay: true,
			summary: `${job.tag}: ${job.title}, ${job.minutes} min`,
			location: job.place,
			url: `${address}${job.href}`,
			stamp: now
		});
	return calendar.toString();
}
