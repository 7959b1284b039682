import { and, eq, isNotNull, notExists } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import type { Connection } from '../client.ts';
import { inspectionRun } from '../schema/index.ts';

/** What makes a signed inspection count: it is no donning list, and no later one takes its place. */
export const standing = (db: Connection) => [
	isNotNull(inspectionRun.signedAt),
	eq(inspectionRun.purpose, 'inspection'),
	notExists(
		db
			.select({ id: later.id })
			.from(later)
			.where(and(eq(later.supersedes, inspectionRun.id), isNotNull(later.signedAt)))
	)
];
const later = alias(inspectionRun, 'later');
