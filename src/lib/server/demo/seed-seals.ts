import { desc, eq, inArray } from 'drizzle-orm';
import { item, itemSeal } from '../db/schema/index.ts';
import { Chance } from '../../../core/stats/chance.ts';
import type { Seed } from './seeding.ts';

/** How many escape sets lie sealed in cupboards. */
const IN_CUPBOARDS = 4;
const SEALED_DAYS_AGO = 12;

/** Escape sets that are kept for emergencies, sealed in their cupboards. */
export async function seedSeals(seed: Seed): Promise<void> {
	const kept = await seed.tx
		.select({ id: item.id })
		.from(item)
		.where(eq(item.family, 'escape-set'))
		.orderBy(desc(item.tag))
		.limit(IN_CUPBOARDS);
	if (kept.length === 0) return;
	const ids = kept.map(({ id }) => id);
	await seed.tx.update(item).set({ usePattern: 'emergency' }).where(inArray(item.id, ids));
	const chance = new Chance(4_512);
	const sealedAt = seed.moment(SEALED_DAYS_AGO);
	await seed.tx.insert(itemSeal).values(
		ids.map((itemId, i) => ({
			id: chance.uuid(),
			itemId,
			number: `00451${i + 1}`,
			sealedBy: seed.person('ilse'),
			sealedAt
		}))
	);
	for (const [i, id] of ids.entries())
		seed.happen({
			action: 'item.sealed',
			by: seed.person('ilse'),
			at: sealedAt,
			of: id,
			itemId: id,
			payload: { number: `00451${i + 1}` }
		});
}
