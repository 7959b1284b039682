import { and, eq, isNull } from 'drizzle-orm';
import type { Database } from '../db/client.ts';
import { benchChunk, benchTest, item, user } from '../db/schema/index.ts';
import { follow } from '../instruments/follow.ts';
import { pressureBenchAt } from '../instruments/pressure-bench.ts';
import type { Unattended } from '../kernel/context.ts';
import { writeUnattended } from '../kernel/write.ts';
import { log, logged } from '../web/log.ts';
import { closeTest, samplesOf } from './judged-test.ts';
import type { Benches } from './tests.ts';

/** How long a bench may take from being taken to the begin of its hold. */
const BEGIN_MS = 60_000;
const listening = new Set<string>();

/**
 * Sees to it that somebody listens to every test that runs: this process takes over where the other is gone. A test
 * whose bench was taken but never begun is ended, to be repeated.
 */
export async function resumeTests(context: Unattended, benches: Benches): Promise<void> {
	if (benches.length === 0) return;
	const open = await context.db
		.select({
			id: benchTest.id,
			bench: benchTest.bench,
			startedAt: benchTest.startedAt,
			begunAt: benchTest.begunAt
		})
		.from(benchTest)
		.where(isNull(benchTest.endedAt));
	const now = context.now().getTime();
	for (const test of open)
		if (test.begunAt) listen(context, benches, test);
		// One from well after now was taken before the clock was set back.
		else if (Math.abs(now - test.startedAt.getTime()) > BEGIN_MS) await finish(context, test.id);
}

/**
 * Notes that the bench has obeyed, so that whoever listens from here on hears this test and none before it.
 * @returns false where the test was ended meanwhile
 */
export const begin = (context: Unattended, testId: string) =>
	writeUnattended(context, null, async ({ tx, now }) => {
		const begun = await tx
			.update(benchTest)
			.set({ begunAt: now })
			.where(and(eq(benchTest.id, testId), isNull(benchTest.endedAt)))
			.returning({ id: benchTest.id });
		return begun.length > 0;
	});

/** Listens to a test until it has ended, whether or not anyone looks. */
export function listen(
	context: Unattended,
	benches: Benches,
	{ id, bench }: { id: string; bench: number | null }
): void {
	const address = benches[(bench ?? 0) - 1];
	if (!address || listening.has(id)) return;
	listening.add(id);
	void acquire(context, address, id)
		.catch((error: unknown) => log.error({ what: 'bench', ...logged(error) }))
		.finally(() => listening.delete(id));
}

/** Takes readings until the bench is done or gone, keeps each chunk before asking for the next, then judges. */
async function acquire(context: Unattended, address: string, testId: string): Promise<void> {
	const end = () => finish(context, testId);
	await follow(context.db, {
		lease: `bench-test:${testId}`,
		kept: (await samplesOf(context.db, testId)).length,
		instrument: pressureBenchAt(address),
		keep: (first, samples) => keep(context, testId, first, samples),
		done: async () => {
			await end();
			return true;
		},
		lost: end
	});
}

const keep = (
	context: Unattended,
	testId: string,
	first: number,
	samples: (typeof benchChunk.$inferInsert)['samples']
) =>
	writeUnattended(context, null, async ({ tx }) => {
		await tx.insert(benchChunk).values({ testId, first, samples }).onConflictDoNothing();
	});

/** Judges a test by what was kept of it, in the name of who started it. */
export async function finish(context: Unattended, testId: string): Promise<void> {
	const by = await startedBy(context.db, testId);
	if (!by) return;
	await writeUnattended(context, by, async (at) => {
		const [row] = await at.tx
			.select({ test: benchTest, family: item.family })
			.from(benchTest)
			.innerJoin(item, eq(item.id, benchTest.itemId))
			.where(and(eq(benchTest.id, testId), isNull(benchTest.endedAt)))
			.for('update', { of: benchTest });
		if (row) await closeTest(at, row.test, row.family, await samplesOf(at.tx, testId));
	});
}

async function startedBy(db: Database, testId: string) {
	const [row] = await db
		.select({ id: user.id, name: user.name, initials: user.initials, role: user.role })
		.from(benchTest)
		.innerJoin(user, eq(user.id, benchTest.startedBy))
		.where(eq(benchTest.id, testId));
	return row;
}
