import { eq, inArray } from 'drizzle-orm';
import { familiesWhere } from '../../../core/data/family-records.ts';
import { plusDays } from '../../../core/plan/calendar.ts';
import { filterLot, filterModel, filterPair, item, itemModel } from '../db/schema/index.ts';
import { masksWithoutFilters } from '../db/queries/seed.ts';
import { pairChange } from '../filters/change.ts';
import { pairTag } from '../filters/opening.ts';
import { PEOPLE } from './scenario.ts';
import { CANISTERS, FILTER_HOODS, OVER_FILTERS } from './scenario-filters.ts';
import type { Seed } from './seeding.ts';

/** What hangs on the masks that no plan was worn on yet, by how they take it. */
const SPARE: Record<string, string> = {
	'quarter turn': 'Tesselow A2-P3',
	'press ring': 'Brannick P2 disc'
};
/** Masks whose filters came off and were not replaced: not ready, though nothing is wrong with them. */
const LEFT_BARE = 3;

/** A pair on every mask that takes one and has none, but for the last few. */
export async function fitFilters(seed: Seed): Promise<void> {
	const bare = await masksWithoutFilters(
		seed.tx,
		familiesWhere(({ carries }) => carries === 'half mask' || carries === 'full-face mask')
	);
	for (const { id, mount } of bare.slice(0, -LEFT_BARE)) {
		const lot = seed.lots.get(SPARE[mount] ?? '');
		if (lot) await fit(seed, id, lot, 2);
	}
}

/** Canisters and the filters of blowers: their stock, and one full set on each item that takes them. */
export async function fitCanisters(seed: Seed): Promise<void> {
	const [hood] = await seed.tx
		.insert(itemModel)
		.values({
			id: seed.chance.uuid(),
			family: 'escape-set',
			maker: FILTER_HOODS.maker,
			name: FILTER_HOODS.name,
			mount: 'hood',
			filterCount: 1
		})
		.returning();
	if (hood)
		await seed.tx
			.update(item)
			.set({ modelId: hood.id })
			.where(inArray(item.tag, [...FILTER_HOODS.tags]));
	for (const row of CANISTERS) {
		const model = await seed.filterModel(row);
		if (!model) continue;
		const id = seed.chance.uuid();
		await seed.tx.insert(filterLot).values({
			id,
			modelId: model.id,
			lot: row.lot.name,
			useBy: plusDays(seed.today, row.lot.days),
			sealedQuantity: row.lot.sealed,
			location: 'Store B2'
		});
		await seed.tx
			.update(itemModel)
			.set({ filterCount: row.filters })
			.where(eq(itemModel.mount, row.mount));
		const bare = await masksWithoutFilters(
			seed.tx,
			familiesWhere(({ carries }) => carries === row.carries)
		);
		const sealedUntil = row.carries === 'pouch' ? plusDays(seed.today, row.lot.days) : null;
		for (const each of bare) await fit(seed, each.id, { id, model }, row.filters, sealedUntil);
	}
	for (const { en, ...row } of OVER_FILTERS) {
		const modelId = seed.chance.uuid();
		await seed.tx.insert(filterModel).values({
			...row,
			id: modelId,
			maker: row.name.split(' ')[0] ?? '',
			codeEn: en,
			reorderLevel: 10
		});
		await seed.tx.insert(filterLot).values({
			id: seed.chance.uuid(),
			modelId,
			lot: `OVR-${seed.chance.int(1000, 9999)}`,
			useBy: plusDays(seed.today, 800),
			sealedQuantity: 40,
			location: 'Store B3'
		});
	}
}

/** Filters that were opened some weeks ago, outside any plan. */
async function fit(
	seed: Seed,
	itemId: string,
	lot: { id: string; model: typeof filterModel.$inferSelect },
	filters: number,
	sealedUntil: string | null = null
): Promise<void> {
	const ago = seed.chance.int(4, 60);
	const [by, initials] = [seed.person('odd'), PEOPLE[1]?.initials ?? ''];
	const [pair] = await seed.tx
		.insert(filterPair)
		.values({
			id: seed.chance.uuid(),
			lotId: lot.id,
			itemId,
			filters,
			openedOn: plusDays(seed.today, -ago),
			initials,
			openedBy: by,
			sealedUntil
		})
		.returning();
	if (!pair) return;
	const { changeOn } = pairChange({ pair, model: lot.model });
	seed.happen({
		at: seed.moment(ago),
		by,
		action: 'filters.opened',
		of: pair.id,
		itemId,
		payload: {
			pair: pairTag(pair.number),
			filter: lot.model.name,
			initials,
			changeOn,
			sealed: sealedUntil !== null
		}
	});
}
