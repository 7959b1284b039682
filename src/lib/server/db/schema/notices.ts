import { sql } from 'drizzle-orm';
import {
	boolean,
	check,
	date,
	index,
	integer,
	pgTable,
	text,
	timestamp,
	uniqueIndex,
	uuid
} from 'drizzle-orm/pg-core';
import { user } from './accounts.ts';
import { oneOf } from './one-of.ts';

const at = (name: string) => timestamp(name, { withTimezone: true });

export const NOTICE_KINDS = ['digest', 'urgent'] as const;
export type NoticeKind = (typeof NOTICE_KINDS)[number];
/** Whether a message waits for its next try, was taken by the mail server, or is given up. */
export const NOTICE_STATES = ['waiting', 'sent', 'given up'] as const;
export type NoticeState = (typeof NOTICE_STATES)[number];

/** What somebody wants to be told by e-mail; who chose nothing gets both. */
export const noticeChoice = pgTable('notice_choice', {
	userId: text('user_id')
		.primaryKey()
		.references(() => user.id),
	digest: boolean('digest').notNull().default(true),
	urgent: boolean('urgent').notNull().default(true)
});

/** A message to one person. */
export const notice = pgTable(
	'notice',
	{
		id: uuid('id').primaryKey(),
		kind: text('kind').$type<NoticeKind>().notNull(),
		userId: text('user_id')
			.notNull()
			.references(() => user.id),
		address: text('address').notNull(),
		subject: text('subject').notNull(),
		body: text('body').notNull(),
		/** The day of the site that it is of. */
		day: date('day').notNull(),
		madeAt: at('made_at').notNull(),
		state: text('state').$type<NoticeState>().notNull().default('waiting'),
		tries: integer('tries').notNull().default(0),
		/** When it is tried next; null where it is not any more. */
		nextTryAt: at('next_try_at'),
		/** What the mail server said last. */
		lastError: text('last_error').notNull().default(''),
		sentAt: at('sent_at')
	},
	(t) => [
		uniqueIndex('notice_digest_once')
			.on(t.userId, t.day)
			.where(sql`${t.kind} = 'digest'`),
		index('notice_next')
			.on(t.nextTryAt)
			.where(sql`${t.state} = 'waiting'`),
		index('notice_user').on(t.userId, t.madeAt),
		oneOf('notice_kind', t.kind, NOTICE_KINDS),
		oneOf('notice_state', t.state, NOTICE_STATES),
		check('notice_sent_whole', sql`(${t.state} = 'sent') = (${t.sentAt} is not null)`)
	]
);
