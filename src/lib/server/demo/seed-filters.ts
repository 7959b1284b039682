import { eq, inArray } from 'drizzle-orm';
import { familiesWhere } from '../../../core/data/family-records.ts';
import { plusDays } from '../../../core/plan/calendar.ts';
import { filterLot, filterModel, filterPair, item, itemModel } from '../db/schema/index.ts';
import { insertMany } from '../db/insert-many.ts';
import { masksWithoutFilters, pairNumbers } from '../db/queries/seed.ts';
import { changeOf } from '../filters/change.ts';
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
	await fit(
		seed,
		bare.slice(0, -LEFT_BARE).flatMap(({ id, mount }) => {
			const lot = seed.lots.get(SPARE[mount] ?? '');
			return lot ? [{ itemId: id, lot }] : [];
		}),
		2
	);
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
		await fit(
			seed,
			bare.map((each) => ({ itemId: each.id, lot: { id, model } })),
			row.filters,
			sealedUntil
		);
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
	on: readonly { itemId: string; lot: { id: string; model: typeof filterModel.$inferSelect } }[],
	filters: number,
	sealedUntil: string | null = null
): Promise<void> {
	const [by, initials] = [seed.person('odd'), PEOPLE[1]?.initials ?? ''];
	const fitted = on.map(({ itemId, lot }) => {
		const ago = seed.chance.int(4, 60);
		const pair = {
			id: seed.chance.uuid(),
			lotId: lot.id,
			itemId,
			filters,
			openedOn: plusDays(seed.today, -ago),
			initials,
			openedBy: by,
			sealedUntil
		};
		return { pair, model: lot.model, at: seed.moment(ago) };
	});
	await insertMany(
		seed.tx,
		filterPair,
		fitted.map(({ pair }) => pair)
	);
	const numbers = await pairNumbers(seed.tx, by);
	for (const { pair, model, at } of fitted)
		seed.happen({
			at,
			by,
			action: 'filters.opened',
			of: pair.id,
			itemId: pair.itemId,
			payload: {
				pair: pairTag(numbers.get(pair.id) ?? 0),
				filter: model.name,
				initials,
				changeOn: changeOf({ ...NEVER_WORN, ...pair, ...model }).changeOn,
				sealed: sealedUntil !== null
			}
		});
}

/** What is so of filters that were fitted outside any plan. */
const NEVER_WORN = { exposureMin: null, changeAfterMin: null, singleUse: false, wears: [] };
