import { and, asc, desc, eq } from 'drizzle-orm';
import type { Connection } from '../db/client.ts';
import { standing } from '../db/queries/inspections.ts';
import { inspectionAnswer, inspectionRun, user } from '../db/schema/index.ts';

/** The last signed inspection of an item with its answers. */
export async function lastSignedRun(db: Connection, itemId: string) {
	const [run] = await db
		.select({ run: inspectionRun, by: user.name })
		.from(inspectionRun)
		.innerJoin(user, eq(user.id, inspectionRun.signedBy))
		.where(and(eq(inspectionRun.itemId, itemId), ...standing(db)))
		.orderBy(desc(inspectionRun.signedAt))
		.limit(1);
	if (!run?.run.signedAt) return null;
	const answers = await db
		.select()
		.from(inspectionAnswer)
		.where(eq(inspectionAnswer.runId, run.run.id))
		.orderBy(asc(inspectionAnswer.position));
	return { ...run.run, by: run.by, answers };
}
