import { and, desc, eq, notInArray } from 'drizzle-orm';
import type { Connection } from '../client.ts';
import { auditEntry, item, user } from '../schema/index.ts';

/** Entries of the log, newest first, with who acted and the tag of the item. */
export const historyRows = (
	db: Connection,
	filter: {
		itemId: string | undefined;
		subject: string | undefined;
		without: readonly string[];
		limit: number;
	}
) =>
	db
		.select({ entry: auditEntry, actor: user.name, tag: item.tag })
		.from(auditEntry)
		.leftJoin(user, eq(user.id, auditEntry.actorId))
		.leftJoin(item, eq(item.id, auditEntry.itemId))
		.where(
			and(
				filter.itemId ? eq(auditEntry.itemId, filter.itemId) : undefined,
				filter.subject ? eq(auditEntry.subject, filter.subject) : undefined,
				filter.without.length ? notInArray(auditEntry.action, [...filter.without]) : undefined
			)
		)
		.orderBy(desc(auditEntry.seq))
		.limit(filter.limit);
