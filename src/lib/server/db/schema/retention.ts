import { sql } from 'drizzle-orm';
import { check, integer, pgTable, text } from 'drizzle-orm/pg-core';
import { RETENTION_KINDS, type RetentionKind } from '../../../../core/records/retention.ts';
import { oneOf } from './one-of.ts';

/** How long the site keeps what stands beside the record; what has no rule is kept for ever. */
export const retentionRule = pgTable(
	'retention_rule',
	{
		kind: text('kind').$type<RetentionKind>().primaryKey(),
		/** Null: it is kept for ever. */
		keepMonths: integer('keep_months'),
		version: integer('version').notNull().default(1)
	},
	(t) => [
		oneOf('retention_rule_kind', t.kind, RETENTION_KINDS),
		check('retention_rule_months', sql`${t.keepMonths} between 1 and 600`)
	]
);
