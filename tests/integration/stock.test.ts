import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { eq, sql } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import { BLOCKS } from '../../src/core/readiness/block.ts';
import type { ItemState } from '../../src/core/readiness/findings.ts';
import { plusDays } from '../../src/core/plan/calendar.ts';
import { stateOnDay } from '../../src/lib/server/db/queries/items.ts';
import {
	countReady,
	countStock,
	gatherStock,
	statesByPlace
} from '../../src/lib/server/db/queries/stock.ts';
import {
	item,
	itemState,
	place,
	placeFloor,
	stockCount
} from '../../src/lib/server/db/schema/index.ts';
import { openYard } from '../support/database.ts';
import { addPiece } from '../support/yard.ts';

const TODAY = '2026-11-24';
const FAMILIES = ['half-mask', 'full-face'];
const PLACES = [randomUUID(), randomUUID()];
const ITEMS: string[] = [];
let set = '';
const own = openYard(async ({ test, yard }) => {
	for (const [i, id] of PLACES.entries()) {
		await test.db.insert(place).values({ id, name: `Shelf ${i}` });
		for (const family of FAMILIES)
			await test.db.insert(placeFloor).values({ placeId: id, family, floor: 1 });
	}
	for (let i = 0; i < 8; i++)
		ITEMS.push((await addPiece(test, yard, FAMILIES[i % 2] ?? '', `ST-000${i}`)).id);
	set = (await addPiece(test, yard, 'ba-set', 'ST-0009')).id;
});

/** What happens to several items at once, each in one statement as the app writes it. */
const happening = fc.record({
	items: fc.uniqueArray(fc.nat(7), { minLength: 1 }),
	what: fc.oneof(
		fc.record({ placeAt: fc.nat(1) }),
		fc.record({ onSet: fc.boolean() }),
		fc.record({
			blocked: fc.option(fc.constantFrom(...BLOCKS)),
			from: fc.integer({ min: -20, max: 20 }),
			days: fc.nat(10)
		}),
		fc.constant({ gone: true }),
		fc.constant({ gather: true }),
		fc.constant({ undone: true })
	)
});
type Happening = typeof happening extends fc.Arbitrary<infer T> ? T : never;

async function happens({ items, what }: Happening): Promise<void> {
	const { db } = own.test;
	const ids = items.map((i) => ITEMS[i] ?? '');
	const among = sql`in ${ids}`;
	if ('placeAt' in what)
		await db
			.update(item)
			.set({ placeId: PLACES[what.placeAt] })
			.where(sql`${item.id} ${among}`);
	else if ('onSet' in what)
		await db
			.update(item)
			.set({ setId: what.onSet ? set : null })
			.where(sql`${item.id} ${among}`);
	else if ('gone' in what) await db.delete(itemState).where(sql`${itemState.itemId} ${among}`);
	else if ('gather' in what) await gatherStock(db);
	else if ('undone' in what)
		await db
			.transaction(async (tx) => {
				await tx.delete(itemState);
				throw new Error('undone');
			})
			.catch(() => undefined);
	else {
		const dueFrom = plusDays(TODAY, what.from);
		const kept = { blocked: what.blocked, dueFrom, dueOn: plusDays(dueFrom, what.days) };
		await db
			.insert(itemState)
			.values(ids.map((itemId) => ({ itemId, dueWhat: 'inspection' as const, ...kept })))
			.onConflictDoUpdate({ target: itemState.itemId, set: kept });
	}
}

/** The same, counted from the items one by one. */
const listed = () =>
	own.test.db
		.select({
			placeId: item.placeId,
			family: item.family,
			inSet: sql<boolean>`${item.setId} is not null`,
			state: stateOnDay(TODAY)
		})
		.from(item)
		.innerJoin(itemState, eq(itemState.itemId, item.id));

const STATES: ItemState[] = ['ready', 'due', 'overdue', ...BLOCKS];

describe('counts of stock', () => {
	it('are what counting the items one by one gives, whatever happens to them', async () => {
		const { db } = own.test;
		await fc.assert(
			fc.asyncProperty(fc.array(happening, { minLength: 1, maxLength: 6 }), async (all) => {
				for (const one of all) await happens(one);
				const items = await listed();
				for (const state of STATES)
					expect([state, await countStock(db, { state }, TODAY)]).toEqual([
						state,
						items.filter((one) => one.state === state).length
					]);
				for (const row of await statesByPlace(db, TODAY)) {
					const here = items.filter(
						(one) => one.placeId === row.placeId && one.family === row.family && !one.inSet
					);
					for (const [state, n] of Object.entries(row.counts))
						expect([row.place, state, n]).toEqual([
							row.place,
							state,
							here.filter((one) => one.state === state).length
						]);
					expect(await countStock(db, { placeId: row.placeId, family: row.family }, TODAY)).toBe(
						items.filter((one) => one.placeId === row.placeId && one.family === row.family).length
					);
				}
				const ready = Object.fromEntries(
					(await countReady(db, TODAY)).map((row) => [row.family, row.n])
				);
				for (const family of FAMILIES)
					expect(ready[family] ?? 0).toBe(
						items.filter(
							(one) => one.family === family && (one.state === 'ready' || one.state === 'due')
						).length
					);
			}),
			{ numRuns: 60 }
		);
	});

	it('become few again when they are drawn together, and counting anew gives the same', async () => {
		const { db } = own.test;
		for (let i = 0; i < 20; i++)
			await happens({ items: [0, 1, 2, 3], what: { blocked: null, from: i, days: 3 } });
		const sums = async () => ({
			rows: await db.$count(stockCount),
			all: await countStock(db, {}, TODAY)
		});
		const before = await sums();
		await gatherStock(db);
		const after = await sums();
		expect(after.all).toBe(before.all);
		expect(after.rows).toBeLessThan(before.rows);
		await db.execute(sql`select recount_stock()`);
		expect(await sums()).toEqual(after);
	});

	it('hold what two write at once, while they are drawn together and counted anew', async () => {
		const { db } = own.test;
		const total = (await listed()).length;
		await Promise.all(
			Array.from({ length: 12 }, (_, i) =>
				i % 4 === 3
					? i % 8 === 3
						? gatherStock(db)
						: db.execute(sql`select recount_stock()`)
					: happens({ items: [i % 8], what: { blocked: null, from: i, days: 2 } })
			)
		);
		expect(await countStock(db, {}, TODAY)).toBe((await listed()).length);
		expect((await listed()).length).toBeGreaterThanOrEqual(total);
	});
});
