import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from 'vitest';
import { bringItem } from '../../src/lib/server/custody/bring-back.ts';
import { breakSeal, sealItem, sealOf } from '../../src/lib/server/custody/seals.ts';
import { itemSeal } from '../../src/lib/server/db/schema/index.ts';
import { history } from '../../src/lib/server/records/history.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { addPiece, inspected } from '../support/yard.ts';

const own = openYard(undefined, 'test');
const NOON = new Date('2026-11-24T12:00:00Z');
const tech = (now = NOON) => own.yard.as(own.yard.people.technician, now);
const later = (hours: number) => new Date(NOON.getTime() + hours * 3_600_000);

beforeEach(async () => {
	await addPiece(own.test, own.yard, 'escape-set', 'ES-0001');
	await own.test.raw`update item set use_pattern = 'emergency' where tag = 'ES-0001'`;
	await inspected(own.test, own.yard, ['ES-0001'], new Date('2026-11-20T09:00:00Z'));
});
const seal = (number: string, now = NOON, tag = 'ES-0001') =>
	sealItem(tech(now), { requestId: randomUUID(), tag, number });
const verdict = async (now = NOON) => (await itemPage(tech(now), 'ES-0001')).verdict;
const texts = async (now = NOON) => (await verdict(now)).reasons.map(({ text }) => text).join(' ');

describe('an emergency set in its cupboard', () => {
	it('is sealed by its number, once, in its place, and only it', async () => {
		await seal('004512');
		const page = await itemPage(tech(), 'ES-0001');
		expect(page.seal?.seal).toMatchObject({ number: '004512', brokenAt: null });
		await expectRefusal(seal('004513'), 'conflict', /sealed already, 004512/);
		await expectRefusal(seal('1', NOON, 'HM-0001'), 'invalid', /not kept for emergencies/);
		const [told] = await history(tech(), { limit: 1 });
		expect(told?.says).toBe('Sealed in its place, seal 004512');
	});

	it('that was opened is looked over before it counts, and then sealed anew', async () => {
		await seal('004512');
		expect((await verdict()).outcome).not.toBe('overdue');
		await breakSeal(tech(later(1)), { requestId: randomUUID(), tag: 'ES-0001', why: 'A drill' });
		expect((await verdict(later(2))).outcome).toBe('overdue');
		expect(await texts(later(2))).toContain('(A drill): look it over, then seal it.');
		await expectRefusal(
			breakSeal(tech(later(2)), { requestId: randomUUID(), tag: 'ES-0001', why: 'again' }),
			'conflict',
			/not sealed/
		);
		await inspected(own.test, own.yard, ['ES-0001'], later(3));
		expect((await verdict(later(4))).outcome).not.toBe('overdue');
		expect(await texts(later(4))).toContain('looked over since, seal it anew');
		await seal('004513', later(5));
		expect(await texts(later(6))).not.toContain('seal');
		expect(
			(await sealOf(own.test.db, (await itemPage(tech(), 'ES-0001')).item.id))?.seal.number
		).toBe('004513');
	});

	it('has its seal broken when it leaves its place, by whatever way', async () => {
		await seal('004512');
		await bringItem(tech(later(1)), { requestId: randomUUID(), tag: 'ES-0001', to: 'bench' });
		const [row] = await own.test.db.select().from(itemSeal);
		expect(row?.brokenWhy).toMatch(/^it left its place, /);
		await expectRefusal(seal('004513', later(2)), 'conflict', /not in its place/);
	});

	it('keeps what was: a broken seal is never changed', async () => {
		await seal('004512');
		await breakSeal(tech(), { requestId: randomUUID(), tag: 'ES-0001', why: 'A drill' });
		await expect(own.test.raw`update item_seal set broken_why = 'other'`).rejects.toThrow(
			/broken once/
		);
	});
});
