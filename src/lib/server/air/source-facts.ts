import { eq, inArray, isNotNull } from 'drizzle-orm';
import type { SourceFacts } from '../../../core/air/source.ts';
import { groupBy } from '../../../core/group-by.ts';
import type { Connection } from '../db/client.ts';
import { airSource, airTest, airWork } from '../db/schema/index.ts';
import { dayAt } from '../kernel/site.ts';

/** Tests of and work on sources, by source; of all of them where none is named. */
export async function sourceFacts(
	db: Connection,
	timeZone: string,
	sourceIds?: string[]
): Promise<Map<string, SourceFacts>> {
	if (sourceIds?.length === 0) return new Map();
	const of = sourceIds ? inArray(airSource.id, sourceIds) : isNotNull(airSource.id);
	const sources = await db.select({ id: airSource.id }).from(airSource).where(of);
	const ids = sources.map((source) => source.id);
	if (ids.length === 0) return new Map();
	const tests = groupBy(
		await db
			.select({
				id: airTest.id,
				sourceId: airTest.sourceId,
				takenAt: airTest.takenAt,
				outcome: airTest.outcome
			})
			.from(airTest)
			.where(inArray(airTest.sourceId, ids)),
		(test) => test.sourceId
	);
	const works = groupBy(
		await db
			.select({ sourceId: airWork.sourceId, doneAt: airWork.doneAt })
			.from(airWork)
			.where(inArray(airWork.sourceId, ids)),
		(work) => work.sourceId
	);
	return new Map(
		ids.map((id) => {
			const moments = (works.get(id) ?? []).map((work) => work.doneAt.getTime());
			return [
				id,
				{
					tests: (tests.get(id) ?? []).map(({ id: testId, takenAt, outcome }) => ({
						id: testId,
						outcome,
						at: takenAt.getTime(),
						on: dayAt(takenAt, timeZone)
					})),
					workedAt: moments.length ? Math.max(...moments) : null
				}
			];
		})
	);
}

/** Everything that is known of one source. @returns undefined where there is none */
export async function sourceRow(db: Connection, id: string) {
	const [row] = await db.select().from(airSource).where(eq(airSource.id, id));
	return row;
}
