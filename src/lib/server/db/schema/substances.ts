import { sql } from 'drizzle-orm';
import {
	boolean,
	check,
	index,
	integer,
	jsonb,
	pgTable,
	text,
	timestamp,
	uuid
} from 'drizzle-orm/pg-core';
import type { Substance } from '../../../../core/data/substance.ts';
import { user } from './accounts.ts';

/** A substance of the site's own, or the corrected fields of a shipped one. */
export const siteSubstance = pgTable(
	'site_substance',
	{
		key: text('key').primaryKey(),
		own: boolean('own').notNull(),
		record: jsonb('record').$type<Partial<Substance>>().notNull(),
		name: text('name').notNull(),
		/** Name, synonyms and CAS number in lower case, for searching. */
		words: text('words').notNull(),
		changedBy: text('changed_by')
			.notNull()
			.references(() => user.id),
		changedAt: timestamp('changed_at', { withTimezone: true }).notNull(),
		version: integer('version').notNull().default(1)
	},
	(t) => [
		index('site_substance_name').on(t.name),
		check('site_substance_key', sql`${t.key} ~ '^[a-z0-9-]+$'`)
	]
);

/** Every change to a substance: what it was, what it became, why. Append-only. */
export const substanceChange = pgTable(
	'substance_change',
	{
		id: uuid('id').primaryKey(),
		key: text('key').notNull(),
		field: text('field').notNull(),
		before: jsonb('before'),
		after: jsonb('after'),
		why: text('why').notNull(),
		changedBy: text('changed_by')
			.notNull()
			.references(() => user.id),
		changedAt: timestamp('changed_at', { withTimezone: true }).notNull()
	},
	(t) => [
		index('substance_change_key').on(t.key, t.changedAt),
		check('substance_change_why', sql`length(trim(${t.why})) > 0`)
	]
);
