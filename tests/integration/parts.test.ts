import { eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { partLot } from '../../src/lib/server/db/schema/index.ts';
import {
	countParts,
	disposeParts,
	lotsToCount,
	partsStore,
	receiveParts,
	setPartLevel
} from '../../src/lib/server/faults/parts.ts';
import { history } from '../../src/lib/server/records/history.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';

const NOW = new Date('2026-11-24T10:00:00Z');
const own = openYard();
const tech = () => own.yard.as(own.yard.people.technician, NOW);
const delivery = (part: object = {}) => ({
	id: randomUUID(),
	part: 'gasket',
	lot: 'G1',
	useBy: '2028-05-31' as string | null,
	quantity: 10,
	location: 'Drawer 3',
	...part
});
const store = async (part: string) => (await partsStore(tech())).find((one) => one.part === part);
const lotOf = async (lot: string) =>
	(await own.test.db.select().from(partLot).where(eq(partLot.lot, lot)))[0];
const lastWords = async () => (await history({ db: own.test.db }, { limit: 1 }))[0]?.says;

describe('a delivery', () => {
	it('makes a lot, adds to one that is there, once; another date or what is past is refused', async () => {
		const first = delivery();
		await receiveParts(tech(), first);
		await receiveParts(tech(), first);
		await receiveParts(tech(), delivery({ quantity: 5 }));
		expect(await lotOf('G1')).toMatchObject({ quantity: 15, location: 'Drawer 3' });
		await expectRefusal(
			receiveParts(tech(), delivery({ useBy: '2029-01-01' })),
			'invalid',
			/with the use-by date 31 May 2028/
		);
		await expectRefusal(
			receiveParts(tech(), delivery({ useBy: null })),
			'invalid',
			/with the use-by date/
		);
		await expectRefusal(
			receiveParts(tech(), delivery({ lot: 'G2', useBy: '2026-11-23' })),
			'invalid',
			/has passed/
		);
		await expectRefusal(receiveParts(tech(), delivery({ part: 'kite' })), 'invalid', /what came/);
		await receiveParts(tech(), delivery({ lot: 'G3', useBy: '2026-11-24' }));
		await receiveParts(tech(), delivery({ part: 'wipes-no-bleach', lot: 'W1', useBy: null }));
		expect(await store('wipes-no-bleach')).toMatchObject({ consumable: true, usable: 10 });
	});

	it('too small a stock is bought, and the level is kept with old and new', async () => {
		const set = (level: number) =>
			setPartLevel(tech(), { requestId: randomUUID(), part: 'gasket', level });
		await set(30);
		expect(await store('gasket')).toMatchObject({ buy: true, level: 30 });
		await set(20);
		expect(await lastWords()).toBe('Filter gasket: bought below 20, before below 30');
		expect(await store('gasket')).toMatchObject({ usable: 25, buy: false });
		await setPartLevel(tech(), { requestId: randomUUID(), part: 'lens', level: 1 });
		expect(await store('lens')).toMatchObject({ buy: true, lots: [] });
	});
});

describe('a stock-take', () => {
	it('takes the place of the record where it differs, whole or not at all', async () => {
		const lots = await lotsToCount(own.test.db);
		const first = await lotOf('G1');
		const counts = lots.map(({ id, quantity }) => ({
			lotId: id,
			seen: quantity,
			counted: quantity
		}));
		const off = (by: number) =>
			counts.map((one) => (one.lotId === first?.id ? { ...one, counted: one.seen + by } : one));
		// Somebody takes one while it is counted.
		const last = lots.find(({ lot }) => lot === 'W1');
		if (!last) throw new RangeError('nothing in the store');
		await own.test.db
			.update(partLot)
			.set({ quantity: last.quantity - 1 })
			.where(eq(partLot.id, last.id));
		const count = (list: typeof counts) =>
			countParts(tech(), { requestId: randomUUID(), counts: list, note: 'Under the bench.' });
		await expectRefusal(count(off(-1)), 'conflict', /Count it again/);
		expect(await lotsToCount(own.test.db)).toHaveLength(lots.length);
		expect(await lotOf('G1')).toEqual(first);
		await own.test.db
			.update(partLot)
			.set({ quantity: last.quantity })
			.where(eq(partLot.id, last.id));
		expect(await count(off(-1))).toEqual({ differ: 1 });
		expect((await lotOf('G1'))?.quantity).toBe((first?.quantity ?? 0) - 1);
		const words = (await history({ db: own.test.db }, { limit: 2 })).map(({ says }) => says);
		expect(words.join(' ')).toMatch(/lots counted, 1 differed/);
		expect(words.join(' ')).toMatch(/the record said \d+\. Under the bench\./);
		await expectRefusal(count([]), 'invalid', /Nothing was counted/);
	});

	it('what goes for good says why, and is not counted any more', async () => {
		const held = await lotOf('G3');
		const out = (part: object) =>
			disposeParts(tech(), {
				requestId: randomUUID(),
				lotId: held?.id ?? '',
				seen: held?.quantity ?? 0,
				why: 'Hard.',
				...part
			});
		await expectRefusal(out({ why: ' ' }), 'invalid', /Say why/);
		await expectRefusal(out({ seen: 3 }), 'conflict', /not 3/);
		await out({});
		expect((await lotsToCount(own.test.db)).some(({ lot }) => lot === 'G3')).toBe(false);
		expect(await lastWords()).toBe('10 × Filter gasket, lot G3, taken out of the store. Hard.');
	});
});
