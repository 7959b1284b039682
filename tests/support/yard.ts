import { inArray } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { inspectionRun, item, itemModel } from '../../src/lib/server/db/schema/index.ts';
import { rebuildState } from '../../src/lib/server/readiness/rebuild.ts';
import { SITE, type SmallSite, type TestDatabase } from './database.ts';

/** A piece of equipment of any family, with a model of its own. */
export async function addPiece(
	test: TestDatabase,
	yard: SmallSite,
	family: string,
	tag: string,
	model: Partial<typeof itemModel.$inferInsert> = {}
): Promise<{ id: string; modelId: string }> {
	const [modelId, id] = [randomUUID(), randomUUID()];
	await test.db
		.insert(itemModel)
		.values({ id: modelId, family, maker: 'T', name: `T ${tag}`, mount: 'none', ...model });
	await test.db
		.insert(item)
		.values({ id, tag, family, modelId, size: 'M', placeId: yard.place, inUseSince: '2025-01-01' });
	await rebuildState(test.db, [id], SITE);
	return { id, modelId };
}

/** Items that passed an inspection at a moment. */
export async function inspected(
	test: TestDatabase,
	yard: SmallSite,
	tags: string[],
	signedAt: Date
): Promise<void> {
	const items = await test.db.select().from(item).where(inArray(item.tag, tags));
	const by = yard.people.technician.id;
	await test.db.insert(inspectionRun).values(
		items.map(({ id }) => ({
			id: randomUUID(),
			itemId: id,
			procedure: 'none',
			procedureVersion: 1,
			startedBy: by,
			startedAt: signedAt,
			signedBy: by,
			signedAt,
			outcome: 'pass' as const,
			reasons: []
		}))
	);
	await rebuildState(
		test.db,
		items.map((row) => row.id),
		SITE
	);
}

/** What a set is never without, put on it and inspected at a moment. */
export async function completed(
	test: TestDatabase,
	yard: SmallSite,
	setTag: string,
	signedAt: Date,
	families: readonly string[] = ['full-face', 'cylinder']
): Promise<void> {
	const number = setTag.slice(-4);
	const tags = families.map((family) => `${family === 'cylinder' ? 'CX' : 'FX'}-${number}`);
	for (const [i, family] of families.entries()) await addPiece(test, yard, family, tags[i] ?? '');
	const [set] = await test.db
		.select()
		.from(item)
		.where(inArray(item.tag, [setTag]));
	await test.db
		.update(item)
		.set({ setId: set?.id ?? null })
		.where(inArray(item.tag, tags));
	await inspected(test, yard, tags, signedAt);
	await rebuildState(test.db, set ? [set.id] : [], SITE);
}
