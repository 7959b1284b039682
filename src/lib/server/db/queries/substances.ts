import { sql } from 'drizzle-orm';
import type { Connection } from '../client.ts';
import { siteSubstance } from '../schema/index.ts';

/** Writes substances of the site, over those of the same key; whoever had one open before is then told so. */
export const putSubstances = (tx: Connection, rows: (typeof siteSubstance.$inferInsert)[]) =>
	tx
		.insert(siteSubstance)
		.values(rows)
		.onConflictDoUpdate({
			target: siteSubstance.key,
			set: {
				record: sql`excluded.record`,
				name: sql`excluded.name`,
				words: sql`excluded.words`,
				changedBy: sql`excluded.changed_by`,
				changedAt: sql`excluded.changed_at`,
				version: sql`${siteSubstance.version} + 1`
			}
		});
