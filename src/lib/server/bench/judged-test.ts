import { and, asc, eq, gte } from 'drizzle-orm';
import { recipeOf } from '../../../core/bench/recipes.ts';
import { judgeTrace, type TraceSample } from '../../../core/bench/trace.ts';
import { recordOf } from '../../../core/data/family-records.ts';
import { InputError } from '../../../core/verdict.ts';
import type { Connection } from '../db/client.ts';
import { benchChunk, benchTest } from '../db/schema/index.ts';
import { openDefect } from '../faults/faults.ts';
import type { Work } from '../kernel/write.ts';
import { packTrace, unpackTrace } from './trace-bytes.ts';

/** Recipes that an item can be tested by; empty for a family that takes none. */
export const recipesFor = (family: string) =>
	(recordOf(family).bench?.recipes ?? []).map((key) => recipeOf(key));

/** What readings come to by the recipe of a test; to be repeated where they say nothing. */
export function judgeKept(
	test: Pick<typeof benchTest.$inferSelect, 'recipe' | 'recipeVersion' | 'volumeL'>,
	samples: readonly TraceSample[]
) {
	const recipe = recipeOf(test.recipe, test.recipeVersion);
	try {
		return judgeTrace(recipe, samples, test.volumeL ? { volumeL: test.volumeL } : {});
	} catch (error) {
		if (!(error instanceof InputError)) throw error;
		return {
			outcome: 'repeat' as const,
			leakPaPerMin: 0,
			startPa: samples[0]?.pa ?? 0,
			correctedEndPa: samples.at(-1)?.pa ?? 0,
			reasons: [{ rule: 'trace.none', text: `${error.message} Test again.`, origin: recipe.origin }]
		};
	}
}

/** Ends a test with its verdict and its whole trace. A failed one holds its item at once. */
export async function closeTest(
	at: Work,
	test: typeof benchTest.$inferSelect,
	family: string,
	samples: readonly TraceSample[]
): Promise<void> {
	const verdict = judgeKept(test, samples);
	const why = verdict.reasons[0]?.text ?? '';
	await at.tx
		.update(benchTest)
		.set({
			endedAt: at.now,
			outcome: verdict.outcome,
			reasons: verdict.reasons,
			leakPaPerMin: verdict.leakPaPerMin,
			startPa: verdict.startPa,
			correctedEndPa: verdict.correctedEndPa,
			trace: packTrace(samples)
		})
		.where(eq(benchTest.id, test.id));
	await at.tx.delete(benchChunk).where(eq(benchChunk.testId, test.id));
	if (verdict.outcome === 'fail')
		await openDefect(at, {
			id: crypto.randomUUID(),
			itemId: test.itemId,
			station: recordOf(family).bench?.station ?? 'label',
			code: 'LEAK',
			note: why || null
		});
	at.changed(test.itemId);
	at.record('bench.judged', {
		of: test.id,
		itemId: test.itemId,
		payload: {
			recipe: test.recipe,
			version: test.recipeVersion,
			outcome: verdict.outcome,
			leakPaPerMin: Number(verdict.leakPaPerMin.toFixed(3)),
			why
		}
	});
}

/** Every reading that was kept, in order. */
export async function samplesOf(db: Connection, testId: string, from = 0): Promise<TraceSample[]> {
	const chunks = await db
		.select()
		.from(benchChunk)
		.where(and(eq(benchChunk.testId, testId), gte(benchChunk.first, from)))
		.orderBy(asc(benchChunk.first));
	if (chunks.length) return chunks.flatMap((chunk) => chunk.samples);
	const [whole] = await db
		.select({ trace: benchTest.trace })
		.from(benchTest)
		.where(eq(benchTest.id, testId));
	return whole?.trace ? unpackTrace(whole.trace).slice(from) : [];
}
