import { and, eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { DEFAULT_FACTS, type HazardFacts } from '../../src/core/hazards/facts.ts';
import {
	filterLot,
	filterModel,
	filterPair,
	hazardPlan,
	item,
	itemDue
} from '../../src/lib/server/db/schema/index.ts';
import { runPage, startRun } from '../../src/lib/server/inspection/runs.ts';
import { openPairIds } from '../../src/lib/server/db/queries/open-pairs.ts';
import { openPair, openPairs, stockForPlan } from '../../src/lib/server/filters/opening.ts';
import { recallLot } from '../../src/lib/server/filters/store.ts';
import { savePlan } from '../../src/lib/server/hazards/plans.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import { findByScan } from '../../src/lib/server/register/scan.ts';
import { today } from '../../src/lib/server/today/shift-sheet.ts';
import {
	freshDatabase,
	smallSite,
	type SmallSite,
	type TestDatabase
} from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { inspect } from '../support/work.ts';
import { addPiece } from '../support/yard.ts';

let test: TestDatabase;
let yard: SmallSite;
let planId: string;
const styrene = (ppm: number): HazardFacts => ({
	...DEFAULT_FACTS,
	ruleSet: 'uk',
	exposureMin: 120,
	contaminants: [
		{
			substance: 'styrene',
			name: 'Styrene',
			form: 'vapour',
			concentration: { value: ppm, unit: 'ppm' }
		}
	]
});
const plan = (part = {}) => ({
	id: planId,
	task: 'Laminating',
	placeId: yard.place,
	facts: styrene(160),
	version: 0,
	...part
});
const tech = () => yard.as(yard.people.technician);
const open = (part = {}, context = tech()) =>
	openPair(context, {
		id: randomUUID(),
		lotId: yard.lots.a2,
		itemTag: 'hm-0001',
		planId,
		initials: 'TT',
		discardReason: '',
		...part
	});

beforeEach(async () => {
	await test?.close();
	test = await freshDatabase();
	yard = await smallSite(test.db);
	await test.raw`update item_model set filter_count = 2`;
	planId = randomUUID();
	await savePlan(tech(), { requestId: randomUUID(), ...plan() });
});
afterAll(() => test.close());

describe('a hazard plan', () => {
	it('is saved once for a retried first save', async () => {
		const raced = { requestId: randomUUID(), ...plan({ id: randomUUID() }) };
		expect(await Promise.all([savePlan(tech(), raced), savePlan(tech(), raced)])).toEqual([1, 1]);
		expect(await savePlan(tech(), raced)).toBe(1);
		await test.raw`delete from hazard_plan where id = ${raced.id}`;
		expect(await test.db.select().from(hazardPlan)).toHaveLength(1);
	});

	it('is not written over by a stale page, and names who was first', async () => {
		expect(
			await savePlan(yard.as(yard.people.supervisor), {
				requestId: randomUUID(),
				...plan({ version: 1, task: 'By the other' })
			})
		).toBe(2);
		await expectRefusal(
			savePlan(tech(), { requestId: randomUUID(), ...plan({ version: 1, task: 'By me' }) }),
			'conflict',
			/The supervisor changed this plan meanwhile \(version 2\)/
		);
		expect((await test.db.select().from(hazardPlan))[0]?.task).toBe('By the other');
	});

	it.each([
		['oxygen of 209', { oxygenPercent: 209 }, /mean 20\.9 %/],
		[
			'a negative concentration',
			{ contaminants: [{ ...styrene(-5).contaminants[0] }] },
			/below zero/
		]
	])('is refused with %s and keeps what it had', async (_, facts, message) => {
		const bad = plan({ version: 1, facts: { ...styrene(160), ...facts } });
		await expectRefusal(savePlan(tech(), { requestId: randomUUID(), ...bad }), 'invalid', message);
		expect((await test.db.select().from(hazardPlan))[0]?.facts.oxygenPercent).toBe(20.9);
	});

	it('is refused to a viewer', () =>
		expectRefusal(
			savePlan(yard.as(yard.people.viewer), { requestId: randomUUID(), ...plan({ version: 1 }) }),
			'forbidden',
			/viewer/
		));
});

describe('opening filters', () => {
	it('finds what serves and says why each other does not', async () => {
		const { judged } = await stockForPlan(tech(), planId);
		const words = judged.map(
			(row) => `${row.lot.lot}: ${row.verdict?.reasons.map((r) => r.rule).join() ?? ''}`
		);
		expect(words).toEqual(['L1: ', 'L0: stock.use-by', 'L2: stock.type']);
	});

	it('dates the pair, takes two from the lot, and moves the mask with its change date', async () => {
		await inspect(tech(), 'HM-0001');
		const result = await open();
		expect(result.tag).toBe('FP-0001');
		expect(result.changeAfterMin).toBeGreaterThan(120);
		const [lot] = await test.db.select().from(filterLot).where(eq(filterLot.id, yard.lots.a2));
		expect(lot?.sealedQuantity).toBe(2);
		const page = await itemPage(tech(), 'HM-0001');
		expect(page.facts.filterChangeOn).toBe(result.changeOn);
		expect(await findByScan(test.db, 'fp-0001')).toBe('/items/HM-0001');
		const later = yard.as(yard.people.technician, new Date('2027-02-01T10:00:00Z'));
		expect((await itemPage(later, 'HM-0001')).verdict.outcome).toBe('overdue');
	});

	it('stands among the opened ones by its day, after those of a recalled lot', async () => {
		const lot = randomUUID();
		const [a2] = await test.db.select().from(filterLot).where(eq(filterLot.id, yard.lots.a2));
		if (!a2) throw new Error('no lot');
		await test.db.insert(filterLot).values({ ...a2, id: lot, lot: 'L8', sealedQuantity: 2 });
		await addPiece(test, yard, 'half-mask', 'HM-0003', { mount: 'quarter turn' });
		const before = yard.as(yard.people.technician, new Date('2026-11-03T10:00:00Z'));
		await open();
		await open({ itemTag: 'HM-0002' }, before);
		await open({ itemTag: 'HM-0003', lotId: lot });
		const listed = async (page: number) =>
			(await openPairs(tech(), page)).pairs.map((pair) => [pair.itemTag, pair.recalled]);
		expect((await listed(1)).map(([tag]) => tag)).toEqual(['HM-0002', 'HM-0001', 'HM-0003']);
		await recallLot(yard.as(yard.people.supervisor), {
			requestId: randomUUID(),
			id: lot,
			reason: 'cracked housing'
		});
		expect(await listed(1)).toEqual([
			['HM-0003', true],
			['HM-0002', false],
			['HM-0001', false]
		]);
		expect(await openPairs(tech(), 2)).toEqual({ total: 3, more: false, pages: 1, pairs: [] });
		// Whatever the size of a page, each stands once: also one that nothing falls due of.
		const whole = await openPairIds(test.db, { limit: 9, offset: 0 });
		const [due] = (await openPairs(tech(), 1)).pairs.filter((pair) => pair.itemTag === 'HM-0002');
		await test.db
			.delete(itemDue)
			.where(and(eq(itemDue.itemId, due?.pair.itemId ?? ''), eq(itemDue.what, 'filters')));
		const [recalled, early, late] = whole;
		for (const limit of [1, 2, 3]) {
			const pages = [];
			for (let offset = 0; offset < 5; offset += limit)
				pages.push(...(await openPairIds(test.db, { limit, offset })));
			expect(pages).toEqual([recalled, late, early]);
		}
	});

	it.each([
		[
			'past its use-by date',
			() => ({ lotId: yard.lots.old }),
			/Past its use-by date of 1 Jan 2020/
		],
		['the wrong type', () => ({ lotId: yard.lots.k2 }), /does not catch type A/],
		['an unknown mask', () => ({ itemTag: 'HM-7777' }), /No item carries the tag HM-7777/]
	])('is refused: %s', async (_, part, message) => {
		await expectRefusal(open(part()), _ === 'an unknown mask' ? 'not found' : 'conflict', message);
		expect(await test.db.select().from(filterPair)).toHaveLength(0);
	});

	it('asks why the old pair goes, opens once for a double click, and stops when the lot is empty', async () => {
		const id = randomUUID();
		await Promise.all([open({ id }), open({ id }), open({ id })]);
		expect(await test.db.select().from(filterPair)).toHaveLength(1);
		await expectRefusal(open(), 'invalid', /still carries FP-000\d\. Say why it goes/);
		await open({ discardReason: 'damage' });
		await expectRefusal(open({ itemTag: 'HM-0002' }), 'conflict', /0 sealed left, 2 are needed/);
	});

	it('is refused where the plan permits no filter for a half mask', async () => {
		await savePlan(tech(), {
			requestId: randomUUID(),
			...plan({ version: 1, facts: styrene(750) })
		});
		await expectRefusal(open(), 'conflict', /a half mask with filters is not permitted/);
	});
});

describe('what hangs on a hose or sits on a blower', () => {
	const stocked = async (mount: string, massG: number, quantity: number) => {
		const [modelId, lotId] = [randomUUID(), randomUUID()];
		await test.db.insert(filterModel).values({
			id: modelId,
			maker: 'T',
			name: `T ${mount}`,
			mount,
			codeEn: 'A2-P3',
			codeUs: 'OV-P100',
			massG
		});
		await test.db.insert(filterLot).values({
			id: lotId,
			modelId,
			lot: `${mount}-1`,
			useBy: '2099-01-01',
			sealedQuantity: quantity,
			location: 'A1'
		});
		return lotId;
	};

	it('is opened, dated and tracked as a pair is; a canister is one, and its weight hangs elsewhere', async () => {
		await addPiece(test, yard, 'canister-mask', 'CM-0001', { mount: 'thread', filterCount: 1 });
		const before = await itemPage(tech(), 'CM-0001');
		expect(before.verdict.reasons[0]?.text).toContain('No filters on it are on record');
		const lotId = await stocked('thread', 620, 3);
		const { tag } = await open({ lotId, itemTag: 'CM-0001' });
		const after = await itemPage(tech(), 'CM-0001');
		expect(after.pair).toMatchObject({ pair: { filters: 1 }, lot: { sealedQuantity: 2 } });
		expect(after.dues.map((due) => due.what)).toContain('filters');
		const { id } = await startRun(tech(), { id: randomUUID(), tag: 'CM-0001' });
		expect((await runPage(tech(), id)).onRecord).toMatchObject({
			filterPlaces: 1,
			filters: { tag, count: 1, initials: 'TT' }
		});
	});

	it('is judged in the store by what it fits, not as a pair on a half mask', async () => {
		await addPiece(test, yard, 'canister-mask', 'CM-0002', { mount: 'thread', filterCount: 1 });
		await stocked('thread', 480, 1);
		await stocked('nowhere', 480, 4);
		const { judged } = await stockForPlan(tech(), planId);
		const of = (name: string) => judged.find((row) => row.model.name === name);
		expect(of('T thread')?.verdict?.outcome).toBe('serves');
		// It fits nothing of the site's: judged as a pair on the lightest mask, which it is too heavy for.
		expect(of('T nowhere')?.verdict?.reasons.map((r) => r.rule)).toEqual(['stock.mass']);
	});

	it('serves a beard where only a hood does', async () => {
		await addPiece(test, yard, 'powered-blower', 'PB-0002', { mount: 'blower', filterCount: 2 });
		const lotId = await stocked('blower', 210, 8);
		const facts = { ...styrene(160), facialHair: true };
		await savePlan(tech(), { requestId: randomUUID(), ...plan({ version: 1, facts }) });
		const { need, judged } = await stockForPlan(tech(), planId);
		expect(need).toMatchObject({ kind: 'powered-hood', carrier: 'blower' });
		expect(judged.find((row) => row.lot.id === lotId)?.verdict?.outcome).toBe('serves');
		expect((await open({ lotId, itemTag: 'PB-0002' })).tag).toMatch(/^FP-/);
		await expectRefusal(open(), 'conflict', /a half mask with filters is not permitted/);
	});

	it('is worn out by the blower’s own flow, as what it is with the mask that is on it', async () => {
		const lotId = await stocked('blower', 210, 12);
		const blower = await addPiece(test, yard, 'powered-blower', 'PB-0001', {
			mount: 'blower',
			filterCount: 2
		});
		const hood = await open({ lotId, itemTag: 'PB-0001' });
		const mask = await open();
		expect(hood.changeAfterMin).toBeLessThan(mask.changeAfterMin ?? 0);
		const face = await addPiece(test, yard, 'full-face', 'FF-0001');
		await test.db.update(item).set({ setId: blower.id }).where(eq(item.id, face.id));
		const other = await open({ lotId, itemTag: 'PB-0001', discardReason: 'damage' });
		// 115 L/min through a mask, 170 through a hood: less through each filter lasts longer.
		expect(other.changeAfterMin).toBeGreaterThan(hood.changeAfterMin ?? Infinity);
	});
});

describe('today', () => {
	it('lists what is held before what is overdue, and counts the shelf against the floor', async () => {
		await inspect(tech(), 'HM-0001', { 'exhalation-disc': 'CURL' });
		const sheet = await today(tech());
		expect(sheet.lines.map((l) => [l.kind, l.tag])).toEqual([
			['held', 'HM-0001'],
			['overdue', 'HM-0002']
		]);
		expect(sheet.shelves).toMatchObject([{ usable: 0, floor: 1, short: 1 }]);
	});
});
