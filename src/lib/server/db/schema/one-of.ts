import { sql } from 'drizzle-orm';
import { check, type AnyPgColumn } from 'drizzle-orm/pg-core';

/** A column holds one word of a closed set, or nothing where it may be empty. */
export const oneOf = <Word extends string>(
	name: string,
	column: AnyPgColumn,
	words: readonly Word[]
) => check(name, sql`${column} in (${sql.raw(words.map((word) => `'${word}'`).join(', '))})`);
