import { and, desc, eq, ne, or } from 'drizzle-orm';
import { notice, noticeChoice, user } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { may } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';
import { postHere } from './mail.ts';
import { digestPreview } from './make.ts';

const SHOWN = 50;

/** What the page of messages shows: own choices, what today's would say, what was sent, and what could not be. */
export async function noticesPage(context: Context) {
	const { db, actor, site } = context;
	const keeps = may(actor.role, 'keep the site');
	const [[choice], preview, own, stuck] = await Promise.all([
		db.select().from(noticeChoice).where(eq(noticeChoice.userId, actor.id)),
		digestPreview(context, actor.id),
		db
			.select()
			.from(notice)
			.where(eq(notice.userId, actor.id))
			.orderBy(desc(notice.madeAt))
			.limit(SHOWN),
		keeps
			? db
					.select({
						id: notice.id,
						subject: notice.subject,
						to: user.name,
						address: notice.address,
						tries: notice.tries,
						state: notice.state,
						nextTryAt: notice.nextTryAt,
						lastError: notice.lastError,
						madeAt: notice.madeAt
					})
					.from(notice)
					.innerJoin(user, eq(user.id, notice.userId))
					.where(and(ne(notice.state, 'sent'), ne(notice.lastError, '')))
					.orderBy(desc(notice.madeAt))
					.limit(SHOWN)
			: []
	]);
	return {
		/** How messages leave: by a mail server, into the mailbox of the demo, or not at all. */
		way: postHere()?.way ?? null,
		choice: { digest: choice?.digest ?? true, urgent: choice?.urgent ?? true },
		preview,
		own,
		stuck,
		keeps,
		digestHour: site.digestHour,
		version: site.version
	};
}

/** Every message in the simulated mailbox of the demo, the newest first. @throws Refusal where this is no demo */
export async function mailbox({ db }: Pick<Context, 'db'>) {
	if (postHere()?.way !== 'mailbox')
		throw new Refusal('not found', 'There is a mailbox in the demo only.');
	return db
		.select({ notice, to: user.name })
		.from(notice)
		.innerJoin(user, eq(user.id, notice.userId))
		.where(or(eq(notice.state, 'sent'), eq(notice.state, 'waiting')))
		.orderBy(desc(notice.madeAt))
		.limit(200);
}

/** What somebody wants to be told. */
export function chooseNotices(
	context: Context,
	input: { requestId: string; digest: boolean; urgent: boolean }
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'view', { id, content }, async (at) => {
		const { digest, urgent } = content;
		await at.tx
			.insert(noticeChoice)
			.values({ userId: at.actor.id, digest, urgent })
			.onConflictDoUpdate({ target: noticeChoice.userId, set: { digest, urgent } });
		at.record('account.notices', { of: at.actor.id, payload: content });
	});
}

/** Has a message that failed tried again now. */
export function tryAgain(
	context: Context,
	input: { requestId: string; noticeId: string }
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'keep the site', { id, content }, async (at) => {
		const [held] = await at.tx
			.select()
			.from(notice)
			.where(eq(notice.id, input.noticeId))
			.for('update');
		if (!held) throw new Refusal('not found', 'There is no such message.');
		if (held.state === 'sent') return;
		await at.tx
			.update(notice)
			.set({ state: 'waiting', tries: 0, nextTryAt: at.now })
			.where(eq(notice.id, held.id));
		at.record('notice.tried-again', {
			of: held.userId,
			payload: { subject: held.subject, address: held.address }
		});
	});
}
