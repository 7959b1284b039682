import { sql } from 'drizzle-orm';
import { check, text, timestamp, type AnyPgColumn } from 'drizzle-orm/pg-core';
import { user } from './accounts.ts';

/** A moment, the same in every time zone. */
export const moment = (name: string) => timestamp(name, { withTimezone: true });

/** Who did it. */
export const by = (name: string) =>
	text(name)
		.notNull()
		.references(() => user.id);

/** A column holds one word of a closed set, or nothing where it may be empty. */
export const oneOf = <Word extends string>(
	name: string,
	column: AnyPgColumn,
	words: readonly Word[]
) => check(name, sql`${column} in (${sql.raw(words.map((word) => `'${word}'`).join(', '))})`);
