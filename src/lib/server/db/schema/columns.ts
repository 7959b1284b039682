import { text, timestamp } from 'drizzle-orm/pg-core';
import { user } from './accounts.ts';

/** A moment, the same in every time zone. */
export const moment = (name: string) => timestamp(name, { withTimezone: true });

/** Who did it. */
export const by = (name: string) =>
	text(name)
		.notNull()
		.references(() => user.id);

export { oneOf } from './one-of.ts';
