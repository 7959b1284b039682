import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { place } from '../../src/lib/server/db/schema/index.ts';
import { answer } from '../../src/lib/server/inspection/answers.ts';
import {
	closeMuster,
	exception,
	musterPage,
	present,
	startMuster
} from '../../src/lib/server/inspection/musters.ts';
import { runPage, signRun, startRun } from '../../src/lib/server/inspection/runs.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import { register } from '../../src/lib/server/register/items.ts';
import { saveItemModel, withdrawModel } from '../../src/lib/server/register/models.ts';
import {
	addItem,
	exportItems,
	importItems,
	moveItems,
	previewItems
} from '../../src/lib/server/register/register.ts';
import { movePart } from '../../src/lib/server/register/sets.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { given, inspect, steps } from '../support/work.ts';
import { addPiece } from '../support/yard.ts';

const own = openYard(async () => {
	await own.test.db.insert(place).values({ id: QUAY, name: 'Quay' });
});

const QUAY = randomUUID();
const { tech } = own;
const boss = () => own.yard.as(own.yard.people.supervisor);
const bytes = (text: string) => new TextEncoder().encode(text);
const stateOf = async (tag: string) => (await itemPage(tech(), tag)).verdict.outcome;
const listed = async (tag: string) =>
	(await register(tech(), { text: tag }, 1)).rows.find((row) => row.tag === tag);

describe('the register', () => {
	it('takes an item in, overdue until inspected, once for a retry, never a tag twice', async () => {
		const [{ modelId }] = [await addPiece(own.test, own.yard, 'half-mask', 'HM-0901')];
		const input = {
			id: randomUUID(),
			tag: 'hm 0902',
			modelId,
			size: '',
			serial: 'S1',
			placeId: own.yard.place
		};
		expect(await addItem(tech(), input)).toBe('HM-0902');
		expect(await addItem(tech(), input)).toBe('HM-0902');
		expect(await stateOf('HM-0902')).toBe('overdue');
		await expectRefusal(
			addItem(tech(), { ...input, id: randomUUID() }),
			'conflict',
			/HM-0902 is in the register already/
		);
		await expectRefusal(
			addItem(tech(), { ...input, id: randomUUID(), tag: 'not a tag!' }),
			'invalid',
			/is no tag/
		);
	});

	it('shows what a table would do, takes all or nothing, and gives the same back', async () => {
		const table = [
			'tag;model;size;place;in use since',
			'hm-0911;T1;S;shed;2026-01-05',
			'HM-0912;T9;S;shed;',
			'HM-0911;T1;M;Shed;',
			'HM-0001;T1;M;Shed;',
			'HM-0913;T1;L;Nowhere;05.01.2026'
		].join('\n');
		const preview = await previewItems(own.tech(), bytes(table));
		expect(preview).toMatchObject({ rows: 5, newCount: 1 });
		expect(preview.faults.map((f) => `${f.row} ${f.column}`)).toEqual([
			'3 model',
			'4 tag',
			'5 tag',
			'6 in use since'
		]);
		const take = (leaveOutBad: boolean) =>
			importItems(tech(), { id: randomUUID(), file: bytes(table), leaveOutBad });
		await expectRefusal(take(false), 'invalid', /4 cells are at fault; nothing was written/);
		expect(await listed('HM-0911')).toBeUndefined();
		expect(await take(true)).toEqual({ imported: 1 });
		const out = await exportItems(tech(), { text: 'HM-0911' });
		expect(out.trim().split(/\r?\n/)).toEqual([
			'tag,model,size,serial,place,in use since,use,set,state,last day',
			'HM-0911,T1,S,,Shed,2026-01-05,shared,,overdue,'
		]);
	});

	it('moves many or none', async () => {
		await expectRefusal(
			moveItems(tech(), { requestId: randomUUID(), tags: ['HM-0001', 'HM-7777'], placeId: QUAY }),
			'conflict',
			/unknown: HM-7777/
		);
		expect((await listed('HM-0001'))?.place).toBe('Shed');
		expect(
			await moveItems(tech(), {
				requestId: randomUUID(),
				tags: ['HM-0001', 'HM-0002'],
				placeId: QUAY
			})
		).toEqual({
			moved: 2
		});
		expect((await listed('HM-0001'))?.place).toBe('Quay');
		expect(
			await moveItems(tech(), { requestId: randomUUID(), tags: ['HM-0001'], placeId: QUAY })
		).toEqual({ moved: 0 });
		await moveItems(tech(), {
			requestId: randomUUID(),
			tags: ['HM-0001', 'HM-0002'],
			placeId: own.yard.place
		});
	});
});

describe('a set', () => {
	it('is as ready as its worst part, in the page and in the list, and follows it', async () => {
		await addPiece(own.test, own.yard, 'powered-blower', 'PB-0901');
		await addPiece(own.test, own.yard, 'powered-blower', 'PB-0902');
		await addPiece(own.test, own.yard, 'half-mask', 'HM-0921');
		const one = (set: string | null, tag = 'HM-0921') =>
			movePart(tech(), { requestId: randomUUID(), tag, set });
		await one('PB-0901');
		await inspect(tech(), 'HM-0921', { 'exhalation-disc': 'CURL' });
		expect(await stateOf('PB-0901')).toBe('held');
		expect((await listed('PB-0901'))?.state).toBe('held');
		await one('PB-0902');
		expect([(await listed('PB-0901'))?.state, (await listed('PB-0902'))?.state]).toEqual([
			'overdue',
			'held'
		]);
		await expectRefusal(one('HM-0001'), 'invalid', /no set that takes parts/);
		await expectRefusal(one('HM-0921'), 'invalid', /part of itself/);
		await expectRefusal(one('PB-0901', 'PB-0902'), 'invalid', /parts of its own/);
		await expect(
			own.test
				.raw`update item set set_id = (select id from item where tag = 'HM-0921') where tag = 'PB-0901'`
		).rejects.toThrow(/cannot be a set/);
		await one(null);
		expect((await listed('PB-0902'))?.state).toBe('overdue');
	});
});

describe('what is approved together', () => {
	it('is put together; anything else is refused with what would be allowed', async () => {
		const { modelId } = await addPiece(own.test, own.yard, 'ba-set', 'BA-0950');
		await addPiece(own.test, own.yard, 'cylinder', 'CY-0950');
		await addPiece(own.test, own.yard, 'full-face', 'FF-0950');
		const put = (tag: string) => movePart(tech(), { requestId: randomUUID(), tag, set: 'BA-0950' });
		await own.test
			.raw`update item_model set approved = '["T FF-0950", "Somebody 6.8"]' where id = ${modelId}`;
		await put('FF-0950');
		await expectRefusal(
			put('CY-0950'),
			'conflict',
			/T CY-0950 is not approved with T BA-0950\. Approved: T FF-0950, Somebody 6\.8/
		);
		await own.test
			.raw`update item_model set approved = '["T FF-0950", "T CY-0950"]' where id = ${modelId}`;
		const page = await itemPage(tech(), 'BA-0950');
		expect(page.verdict.reasons.map((r) => r.text).join()).toMatch(
			/No cylinder on it is on record/
		);
	});

	it('a model that takes other filters makes its items complete or not, at once', async () => {
		const { modelId } = await addPiece(own.test, own.yard, 'half-mask', 'HM-0951', {
			mount: 'quarter turn',
			filterCount: 0
		});
		const rules = async () =>
			(await itemPage(tech(), 'HM-0951')).verdict.reasons.map((r) => r.rule);
		expect(await rules()).not.toContain('item.incomplete');
		await saveItemModel(boss(), {
			version: 1,
			card: {},
			requestId: randomUUID(),
			id: modelId,
			family: 'half-mask',
			maker: 'T',
			name: 'T HM-0951',
			mount: 'quarter turn',
			ratedBar: null,
			holdDropBar: null,
			donning: null,
			filterCount: 2,
			approved: [],
			makerLines: []
		});
		expect(await rules()).toContain('item.incomplete');
		const [row] = await own.test.raw<{ blocked: string | null }[]>`
			select s.blocked from item_state s join item i on i.id = s.item_id where i.tag = 'HM-0951'`;
		expect(row?.blocked).toBe('held');
	});
});

describe('a model', () => {
	it('that is withdrawn during a run holds its items; the run is finished, kept, and passes nothing', async () => {
		const { modelId } = await addPiece(own.test, own.yard, 'half-mask', 'HM-0931');
		const { id } = await startRun(tech(), { id: randomUUID(), tag: 'HM-0931' });
		for (const step of steps) await answer(tech(), given(id, step.key));
		await expectRefusal(
			withdrawModel(tech(), { requestId: randomUUID(), id: modelId, why: 'x' }),
			'forbidden',
			/supervisor/
		);
		expect(
			await withdrawModel(boss(), { requestId: randomUUID(), id: modelId, why: 'Disc may tear.' })
		).toEqual({
			held: 1
		});
		expect(await stateOf('HM-0931')).toBe('held');
		await signRun(tech(), { requestId: randomUUID(), runId: id });
		const page = await runPage(tech(), id);
		expect(page.run.outcome).toBe('fail');
		expect(page.run.reasons?.[0]?.text).toMatch(/withdrawn on 24 Nov 2026: Disc may tear/);
		expect((await listed('HM-0931'))?.state).toBe('held');
	});

	it('keeps its family, and only stations of its own airway', async () => {
		const { modelId } = await addPiece(own.test, own.yard, 'half-mask', 'HM-0932');
		let version = 1;
		const save = async (part: object) => {
			await saveItemModel(boss(), {
				version,
				card: {},
				requestId: randomUUID(),
				id: modelId,
				family: 'half-mask',
				maker: 'T',
				name: 'T HM-0932',
				mount: '',
				ratedBar: null,
				holdDropBar: null,
				donning: null,
				filterCount: 2,
				approved: [],
				makerLines: [],
				...part
			});
			version++;
		};
		await save({ makerLines: [{ station: 'cover', text: 'Press until it clicks twice.' }] });
		await expectRefusal(
			save({ makerLines: [{ station: 'zip', text: 'x' }] }),
			'invalid',
			/no such station/
		);
		await expectRefusal(save({ family: 'ba-set' }), 'invalid', /never changed/);
		const card = { straps: ['Crown first.', 'Then the neck.'], inlet: 'flat-pads', holdSeconds: 6 };
		await expectRefusal(save({ donning: { ...card, inlet: 'hose' } }), 'invalid', /no such inlet/);
		await save({
			donning: card,
			makerLines: [{ station: 'cover', text: 'Press until it clicks twice.' }]
		});
		expect((await itemPage(tech(), 'HM-0932')).model.donning).toEqual(card);
		await expectRefusal(save({ name: 'T1' }), 'conflict', /T1 already/);
		const { id } = await startRun(tech(), { id: randomUUID(), tag: 'HM-0932' });
		expect((await runPage(tech(), id)).makerLines).toEqual([
			{ station: 'cover', text: 'Press until it clicks twice.' }
		]);
	});
});

describe('a muster', () => {
	it('takes scan after scan once, notes exceptions that hold, and keeps what was not presented', async () => {
		const id = randomUUID();
		await startMuster(tech(), { id, placeId: own.yard.place, family: 'half-mask' });
		const scan = (tag: string) => present(tech(), { id: randomUUID(), musterId: id, tag });
		expect(await scan('hm-0001')).toEqual({ tag: 'HM-0001', again: false, expected: true });
		expect(await scan('HM-0001')).toMatchObject({ again: true });
		expect(await scan('PB-0901')).toMatchObject({ expected: false });
		await expectRefusal(scan('HM-4711'), 'not found', /No item carries the tag HM-4711/);
		const wrong = (tag: string, step = 'harness-straps', code = 'ELAS') =>
			exception(tech(), { requestId: randomUUID(), musterId: id, tag, step, code });
		await expectRefusal(wrong('HM-0002'), 'conflict', /not presented yet/);
		await expectRefusal(wrong('HM-0001', 'harness-straps', 'ZIPV'), 'invalid', /choose one of/i);
		await wrong('HM-0001');
		await wrong('HM-0001');
		expect(await stateOf('HM-0001')).toBe('held');
		expect((await itemPage(tech(), 'HM-0001')).defects).toHaveLength(1);
		const before = await musterPage(own.test.db, id);
		await closeMuster(tech(), { requestId: randomUUID(), musterId: id });
		await closeMuster(tech(), { requestId: randomUUID(), musterId: id });
		const after = await musterPage(own.test.db, id);
		expect(after.missing).toEqual(before.missing);
		expect(after.missing).toContain('HM-0002');
		expect(after.missing).not.toContain('HM-0001');
		await expectRefusal(scan('HM-0002'), 'conflict', /closed/);
		await expectRefusal(
			closeMuster(boss(), { requestId: randomUUID(), musterId: id }),
			'conflict',
			/closed/
		);
		await expect(own.test.raw`update muster set missing = '[]'`).rejects.toThrow(/never changed/);
		await expect(own.test.raw`delete from muster_entry`).rejects.toThrow(/stays on the sheet/);
	});
});
