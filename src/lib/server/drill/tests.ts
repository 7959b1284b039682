import { desc, eq } from 'drizzle-orm';
import { type ShortTestKey, shortTest } from '../../../core/drill/short-test-names.ts';
import { questionsOf } from '../../../core/drill/short-tests.ts';
import type { Connection } from '../db/client.ts';
import { drillTest } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';

/** Keeps a short test, judged again here by the questions of its number. */
export function keepTest(
	context: Context,
	input: { id: string; test: string; seed: number; chosen: number[] }
): Promise<{ right: number; asked: number }> {
	return write(context, 'drill', { id: input.id, content: input }, async (at) => {
		const test = shortTest(input.test);
		if (!test) throw new Refusal('not found', 'There is no such test.');
		const questions = questionsOf(test.key, input.seed, at.site.ruleSet);
		if (input.chosen.length !== questions.length)
			throw new Refusal('invalid', 'Answer every question.', 'chosen');
		const right = questions.filter((question, i) => question.right === input.chosen[i]).length;
		const { id, seed, chosen } = input;
		await at.tx.insert(drillTest).values({
			id,
			userId: at.actor.id,
			test: test.key,
			seed,
			chosen,
			right,
			asked: questions.length,
			endedAt: at.now
		});
		return { right, asked: questions.length };
	});
}

/** The last result of each short test of a person. */
export async function lastTests(db: Connection, userId: string) {
	const rows = await db
		.selectDistinctOn([drillTest.test], {
			test: drillTest.test,
			right: drillTest.right,
			asked: drillTest.asked,
			endedAt: drillTest.endedAt
		})
		.from(drillTest)
		.where(eq(drillTest.userId, userId))
		.orderBy(drillTest.test, desc(drillTest.endedAt));
	return new Map<ShortTestKey, (typeof rows)[number]>(rows.map((row) => [row.test, row]));
}
