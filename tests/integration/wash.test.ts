import { eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from 'vitest';
import {
	beginBatch,
	giveUpBatch,
	intoBatch,
	outOfBatch,
	readBath,
	stepBatch,
	type StepInput
} from '../../src/lib/server/care/batches.ts';
import { openBatches } from '../../src/lib/server/care/batch-lists.ts';
import { lookOver } from '../../src/lib/server/care/look-over.ts';
import { closeStock, listStock, openStock } from '../../src/lib/server/care/stock.ts';
import { bringItem, wipeItem } from '../../src/lib/server/custody/bring-back.ts';
import { openRow } from '../../src/lib/server/custody/move.ts';
import { returnItem } from '../../src/lib/server/custody/returns.ts';
import { careOf } from '../../src/lib/server/db/queries/care.ts';
import {
	item,
	itemModel,
	personalItem,
	place,
	washBatch
} from '../../src/lib/server/db/schema/index.ts';
import { verifyChain } from '../../src/lib/server/kernel/chain.ts';
import { history } from '../../src/lib/server/records/history.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import { openYard } from '../support/database.ts';
import { fitted } from '../support/loop.ts';
import { expectRefusal } from '../support/refusal.ts';
import { addPiece, inspected } from '../support/yard.ts';

const own = openYard(undefined, 'test');
const NOW = new Date('2026-11-24T10:00:00Z');
const later = (minutes: number) => new Date(NOW.getTime() + minutes * 60_000);
const tech = (minutes = 0) => own.yard.as(own.yard.people.technician, later(minutes));
let stock = '';

async function stocked(part: object = {}): Promise<string> {
	const id = randomUUID();
	await openStock(tech(), {
		id,
		name: `C ${id.slice(0, 4)}`,
		agent: 'chlorine',
		percent: 5,
		strengthAs: 'available chlorine',
		openedOn: '2026-11-24',
		halfLifeDays: null,
		expiresOn: null,
		leftMl: 1000,
		labelMin: null,
		...part
	});
	return id;
}

beforeEach(async () => {
	await inspected(own.test, own.yard, ['HM-0001', 'HM-0002'], new Date('2026-11-20T10:00:00Z'));
	stock = await stocked();
});

const dirty = async (tag: string) => {
	const said = await returnItem(tech(), { id: randomUUID(), tag, because: 'own item' });
	expect(said.done).toBe(true);
};
const begin = async (cleaner: 'neutral' | 'acid' = 'neutral') => {
	const id = randomUUID();
	await beginBatch(tech(), { id, cleaner });
	return id;
};
const into = (batchId: string, tag: string, minutes = 0) =>
	intoBatch(tech(minutes), { requestId: randomUUID(), batchId, tag });
const step = (
	batchId: string,
	to: StepInput['to'],
	minutes: number,
	part: Partial<StepInput> = {}
) => stepBatch(tech(minutes), { requestId: randomUUID(), batchId, to, ...part });
const dosed = { volumeL: 10, stockMl: 10 };
const whereOf = async (tag: string) => {
	const [row] = await own.test.db.select().from(item).where(eq(item.tag, tag));
	return (await openRow(own.test.db, row?.id ?? '')).where;
};
const idOf = async (tag: string) =>
	(await own.test.db.select().from(item).where(eq(item.tag, tag)))[0]?.id ?? '';

/** A whole batch of one mask, to the end of its drying. */
async function washed(tags: string[], celsius = 41, contactMin = 3, part: Partial<StepInput> = {}) {
	const batchId = await begin();
	for (const tag of tags) await into(batchId, tag);
	await step(batchId, 'wash', 1);
	await readBath(tech(2), { id: randomUUID(), batchId, celsius, measured: true });
	await step(batchId, 'disinfect', 6, { containerId: stock, ...dosed });
	await step(batchId, 'rinse', 6 + contactMin);
	await step(batchId, 'dry', 12, { rinsed: true, driedBy: 'air', ...part });
	return batchId;
}

describe('a clean mask', () => {
	it('goes round without a fault, a repair or a supervisor, in four scans of its own', async () => {
		await dirty('HM-0001');
		const batchId = await washed(['HM-0001']);
		expect(await step(batchId, 'ended', 60)).toEqual({ step: 'ended', outcome: 'pass' });
		const said = await lookOver(tech(61), { id: randomUUID(), tag: 'HM-0001', faults: [] });
		expect(said).toMatchObject({ next: 'shelf', state: 'ready' });
		expect((await itemPage(tech(61), 'HM-0001')).verdict.outcome).toBe('ready');
		expect(await careOf(own.test.db, await idOf('HM-0001'))).toMatchObject({
			batch: 1,
			agent: 'chlorine',
			by: 'The technician',
			wipes: 0
		});
		const lines = (await history({ db: own.test.db }, { limit: 20 })).map(({ says }) => says);
		expect(lines).toContain('Wash batch 1 of 1 ended: within every limit');
		expect(await verifyChain(own.test.db)).toMatchObject({ faults: [] });
	});

	it('is not looked over before its batch has ended, nor washed twice at once', async () => {
		await dirty('HM-0001');
		const batchId = await begin();
		await into(batchId, 'HM-0001');
		await expectRefusal(
			lookOver(tech(), { id: randomUUID(), tag: 'HM-0001', faults: [] }),
			'conflict',
			/in the bath/
		);
		const other = await begin();
		await expectRefusal(into(other, 'HM-0001'), 'conflict', /is in the bath/);
		expect(await into(batchId, 'HM-0001')).toMatchObject({ count: 1 });
	});

	it('that is not good on looking goes to repair by a fault', async () => {
		await dirty('HM-0001');
		const batchId = await washed(['HM-0001']);
		await expectRefusal(
			lookOver(tech(20), { id: randomUUID(), tag: 'HM-0001', faults: [] }),
			'conflict',
			/not ended/
		);
		await step(batchId, 'ended', 60);
		const said = await lookOver(tech(61), {
			id: randomUUID(),
			tag: 'HM-0001',
			faults: [{ station: 'exhalation', code: 'CURL' }]
		});
		expect(said).toMatchObject({ next: 'service', state: 'in service' });
	});
});

describe('a batch', () => {
	it('that broke its temperature asks what is done with its items', async () => {
		await dirty('HM-0001');
		const batchId = await washed(['HM-0001'], 47);
		const asked = await step(batchId, 'ended', 60);
		expect(asked).toMatchObject({ step: 'dry', outcome: 'fail' });
		expect('reasons' in asked && asked.reasons.join(' ')).toMatch(/47 °C; 43 °C at most/);
		expect(await whereOf('HM-0001')).toBe('drying');
		await step(batchId, 'ended', 61, { decision: 'inspect discs' });
		expect(
			await lookOver(tech(62), { id: randomUUID(), tag: 'HM-0001', faults: [] })
		).toMatchObject({
			next: 'shelf'
		});
	});

	it.each([
		['again', 'returned'],
		['hold', 'quarantine']
	] as const)('broken and decided “%s”: its items are %s', async (decision, where) => {
		await dirty('HM-0001');
		const batchId = await washed(['HM-0001'], 41, 1);
		await step(batchId, 'ended', 60, { decision });
		expect(await whereOf('HM-0001')).toBe(where);
	});

	it('left overnight, not rinsed, dried by direct heat, too weak: each is said', async () => {
		await dirty('HM-0001');
		const batchId = await begin();
		await into(batchId, 'HM-0001');
		await step(batchId, 'wash', 0);
		await step(batchId, 'disinfect', 5, { containerId: stock, volumeL: 20, stockMl: 10 });
		await step(batchId, 'rinse', 14 * 60);
		await step(batchId, 'dry', 14 * 60 + 5, { rinsed: false, driedBy: 'direct heat' });
		const said = await step(batchId, 'ended', 15 * 60);
		const text = 'reasons' in said ? said.reasons.join('\n') : '';
		for (const part of [/14 h/, /not known/, /25 ppm/, /Not rinsed/, /direct heat/])
			expect(text).toMatch(part);
	});

	it('goes step by step, the same step twice is once, and nothing goes in after loading', async () => {
		await dirty('HM-0001');
		await dirty('HM-0002');
		const batchId = await begin();
		await expectRefusal(step(batchId, 'wash', 0), 'invalid', /Nothing lies in it/);
		await into(batchId, 'HM-0001');
		await into(batchId, 'HM-0002');
		await outOfBatch(tech(), { requestId: randomUUID(), batchId, tag: 'HM-0002' });
		expect(await whereOf('HM-0002')).toBe('returned');
		await expectRefusal(step(batchId, 'rinse', 0), 'conflict', /another step/);
		await step(batchId, 'wash', 1);
		expect(await step(batchId, 'wash', 2)).toEqual({ step: 'wash', outcome: null });
		await expectRefusal(into(batchId, 'HM-0002', 2), 'conflict', /past loading/);
		const [open] = await openBatches(own.test.db);
		expect(open).toMatchObject({ items: 1, readyAt: null });
		await step(batchId, 'disinfect', 3, { containerId: stock, ...dosed });
		const [timed] = await openBatches(own.test.db);
		expect(timed?.readyAt).toBe(later(5).getTime());
	});

	it('given up puts its items back before the wash; ended it is changed by nobody', async () => {
		await dirty('HM-0001');
		const batchId = await begin();
		await into(batchId, 'HM-0001');
		const give = (why: string) => giveUpBatch(tech(), { requestId: randomUUID(), batchId, why });
		await expectRefusal(give(' '), 'invalid', /Say why/);
		await give('Boiler is out.');
		expect(await whereOf('HM-0001')).toBe('returned');
		await expectRefusal(step(batchId, 'wash', 1), 'conflict', /has ended/);
		await expect(own.test.db.update(washBatch).set({ outcome: 'pass' })).rejects.toThrow();
	});
});

describe('what may not go into a bath', () => {
	it.each(['ba-set', 'powered-blower', 'cylinder'])('%s is never immersed', async (family) => {
		await addPiece(own.test, own.yard, family, 'XX-0901');
		const batchId = await begin();
		await expectRefusal(into(batchId, 'XX-0901'), 'conflict', /never immersed/);
	});

	it('what is out, and what its maker does not allow', async () => {
		const wearer = await fitted(own.test, own.yard, 'W1');
		const id = await idOf('HM-0001');
		await own.test.raw`update custody set until = now() where item_id = ${id}`;
		await own.test.raw`insert into custody (item_id, where_it_is, wearer_id, since)
			values (${id}, 'issued', ${wearer}, ${NOW})`;
		const batchId = await begin();
		await expectRefusal(into(batchId, 'HM-0001'), 'conflict', /out with wearer W1/);
		await own.test.db
			.update(itemModel)
			.set({ card: { agents: ['iodine'] } })
			.where(eq(itemModel.name, 'T1'));
		await dirty('HM-0002');
		await into(batchId, 'HM-0002');
		await step(batchId, 'wash', 1);
		await expectRefusal(
			step(batchId, 'disinfect', 2, { containerId: stock, ...dosed }),
			'conflict',
			/does not take chlorine.*iodine/
		);
	});

	it('chlorine after an acid cleaner is refused, by the database too', async () => {
		await dirty('HM-0001');
		const batchId = await begin('acid');
		await into(batchId, 'HM-0001');
		await step(batchId, 'wash', 1);
		await expectRefusal(
			step(batchId, 'disinfect', 2, { containerId: stock, ...dosed }),
			'conflict',
			/poisonous gas/
		);
		await expect(
			own.test.raw`update wash_batch set agent = 'chlorine' where id = ${batchId}`
		).rejects.toThrow(/never_mixed/);
	});

	it('an empty or old container is refused with what is left, and its stock goes down', async () => {
		await dirty('HM-0001');
		const batchId = await begin();
		await into(batchId, 'HM-0001');
		await step(batchId, 'wash', 1);
		const dose = (containerId: string) =>
			step(batchId, 'disinfect', 2, { containerId, volumeL: 10, stockMl: 10 });
		await expectRefusal(dose(await stocked({ leftMl: 5 })), 'conflict', /5 mL left, 10 are wanted/);
		await expectRefusal(
			dose(await stocked({ openedOn: '2026-10-01', expiresOn: '2026-11-01' })),
			'conflict',
			/used by 1 Nov 2026/
		);
		// Half of it is gone after thirty days: half the dose. Computed.
		const old = await stocked({ openedOn: '2026-10-25', halfLifeDays: 30 });
		await dose(old);
		expect((await own.test.db.select().from(washBatch))[0]?.dosePpm).toBeCloseTo(25, 6);
		const left = await listStock(own.test.db, '2026-11-24');
		expect(left.find(({ id }) => id === old)).toMatchObject({ leftMl: 990 });
		await closeStock(tech(), { requestId: randomUUID(), id: old, version: 2 });
		expect((await listStock(own.test.db, '2026-11-24')).some(({ id }) => id === old)).toBe(false);
	});

	it('stock that cannot be is refused at its field', async () => {
		await expectRefusal(stocked({ percent: null }), 'invalid', /label/);
		await expectRefusal(stocked({ openedOn: '2027-01-01' }), 'invalid', /later than today/);
		await expectRefusal(stocked({ leftMl: 0 }), 'invalid', /Millilitres/);
		const id = await stocked({ percent: 5.25, strengthAs: 'sodium hypochlorite' });
		const kept = (await listStock(own.test.db, '2026-11-24')).find((one) => one.id === id);
		// 5.25 % of sodium hypochlorite as available chlorine. Computed by atomic masses.
		expect(kept?.percentNow).toBeCloseTo(5, 2);
	});
});

describe('putting something away', () => {
	it('asks once where it was not washed, where the place does not suit, and where it is kept elsewhere', async () => {
		await dirty('HM-0001');
		const put = (part: object = {}) =>
			bringItem(tech(), { requestId: randomUUID(), tag: 'HM-0001', to: 'shelf', ...part });
		expect(await put()).toMatchObject({
			done: false,
			asked: [expect.stringMatching(/not washed since/)]
		});
		const van = randomUUID();
		await own.test.db.insert(place).values({ id: van, name: 'Van', kind: 'vehicle' });
		const said = await put({ placeId: van });
		expect(said.done ? [] : said.asked).toHaveLength(3);
		expect(await put({ placeId: van, because: 'washed by hand' })).toMatchObject({
			done: true,
			place: 'Van'
		});
		expect(await put({ placeId: van })).toMatchObject({ done: true });
		expect((await itemPage(tech(), 'HM-0001')).place).toBe('Van');
	});

	it('held needs a reason, and so does its way back', async () => {
		const bring = (to: 'quarantine' | 'shelf', because?: string) =>
			bringItem(tech(), { requestId: randomUUID(), tag: 'HM-0001', to, because });
		expect(await bring('quarantine')).toMatchObject({ done: false });
		await bring('quarantine', 'Smells of solvent.');
		expect((await itemPage(tech(), 'HM-0001')).verdict.outcome).toBe('held');
		expect(await bring('shelf')).toMatchObject({ done: false });
		expect(await bring('shelf', 'Aired, clean.')).toMatchObject({ done: true });
	});
});

describe('a wipe', () => {
	it('is for one’s own mask, counted, and the sixth is a wash', async () => {
		const wipe = () => wipeItem(tech(), { id: randomUUID(), tag: 'HM-0001' });
		await expectRefusal(wipe(), 'conflict', /nobody’s own/);
		const wearerId = await fitted(own.test, own.yard, 'W1');
		await own.test.db
			.insert(personalItem)
			.values({ itemId: await idOf('HM-0001'), wearerId, since: '2026-11-01' });
		await dirty('HM-0001');
		for (let n = 1; n <= 5; n++) expect(await wipe()).toEqual({ wipes: n, most: 5 });
		expect(await whereOf('HM-0001')).toBe('shelf');
		await expectRefusal(wipe(), 'conflict', /wiped 5 times.*wash it now/);
		await dirty('HM-0001');
		await step(await washed(['HM-0001']), 'ended', 60);
		expect(await wipe()).toEqual({ wipes: 1, most: 5 });
	});
});
