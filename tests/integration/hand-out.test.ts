import { eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from 'vitest';
import { openRow } from '../../src/lib/server/custody/move.ts';
import type { Returned } from '../../src/core/custody/answers.ts';
import { returnItem, type ReturnInput } from '../../src/lib/server/custody/returns.ts';
import { itemsNotOnce } from '../../src/lib/server/db/queries/custody.ts';
import {
	cylinder,
	cylinderTest,
	defect,
	handOut,
	item,
	itemReturn,
	planFlag
} from '../../src/lib/server/db/schema/index.ts';
import { enterTeam, leave } from '../../src/lib/server/air/entries.ts';
import { rebuildState } from '../../src/lib/server/readiness/rebuild.ts';
import { openPair } from '../../src/lib/server/filters/opening.ts';
import { pairPage } from '../../src/lib/server/filters/pairs.ts';
import { gate, handOutItems, type HandOutInput } from '../../src/lib/server/handout/hand-out.ts';
import { kitOutTeam } from '../../src/lib/server/handout/kit-out.ts';
import { reportChange } from '../../src/lib/server/people/wearers.ts';
import { history } from '../../src/lib/server/records/history.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import { handOutPaper, taskPaper, wearerPaper } from '../../src/lib/server/papers/people.ts';
import { openYard, SITE } from '../support/database.ts';
import { approvedPlan, fitted, modelOf } from '../support/loop.ts';
import { expectRefusal } from '../support/refusal.ts';
import { addPiece, completed, inspected } from '../support/yard.ts';

const own = openYard(undefined, 'test');
const NOW = new Date('2026-11-24T10:00:00Z');
const later = (minutes: number) => new Date(NOW.getTime() + minutes * 60_000);
const tech = (now = NOW) => own.yard.as(own.yard.people.technician, now);
const boss = (now = NOW) => own.yard.as(own.yard.people.supervisor, now);
let planId = '';
let one = '';
let two = '';

beforeEach(async () => {
	const { test, yard } = own;
	await test.raw`update item_model set filter_count = 2 where name = 'T1'`;
	planId = await approvedPlan(yard);
	await inspected(test, yard, ['HM-0001', 'HM-0002'], new Date('2026-11-20T10:00:00Z'));
	for (const itemTag of ['HM-0001', 'HM-0002'])
		await openPair(tech(), {
			id: randomUUID(),
			lotId: yard.lots.a2,
			itemTag,
			planId,
			initials: 'TT',
			discardReason: ''
		});
	const modelId = await modelOf(test, 'HM-0001');
	one = await fitted(test, yard, 'W1', [{ modelId }]);
	two = await fitted(test, yard, 'W2', [{ modelId }]);
});

const ask = (part: Partial<HandOutInput> = {}): HandOutInput => ({
	id: randomUUID(),
	wearerId: one,
	tags: ['HM-0001'],
	planId,
	minutes: 20,
	...part
});
const out = (part: Partial<HandOutInput> = {}, context = tech()) =>
	handOutItems(context, ask(part));
const back = (part: Partial<ReturnInput> = {}, context = tech(later(30))): Promise<Returned> =>
	returnItem(context, { id: randomUUID(), tag: 'HM-0001', ...part });
const where = async (tag = 'HM-0001') => {
	const [row] = await own.test.db.select().from(item).where(eq(item.tag, tag));
	return openRow(own.test.db, row?.id ?? '');
};
const stateOf = async (tag = 'HM-0001') => (await itemPage(tech(later(40)), tag)).verdict.outcome;
const log = async () => (await history({ db: own.test.db }, { limit: 6 })).map(({ says }) => says);

describe('a hand-out', () => {
	it('that is clear goes through at once; the item is out with them until it is back', async () => {
		const said = await out();
		expect(said).toMatchObject({ done: true, outcome: 'hand out' });
		expect(await where()).toMatchObject({ where: 'issued', wearerId: one, number: 'W1' });
		expect(await stateOf()).toBe('issued');
		expect((await log())[0]).toBe('Handed out to wearer W1 for Laminating');
		// Twenty minutes and the way there and back.
		expect(said.done && said.dueBackAt).toBe('2026-11-24T11:20:00.000Z');
	});

	it('is once, however often it is sent or scanned', async () => {
		const asked = ask();
		const first = await handOutItems(tech(), asked);
		expect(await handOutItems(tech(), asked)).toEqual(first);
		expect(await out()).toMatchObject({ done: true });
		expect(await own.test.db.select().from(handOut)).toHaveLength(1);
		await expectRefusal(
			handOutItems(tech(), { ...asked, wearerId: two }),
			'conflict',
			/something else under the same number/
		);
	});

	it('says every reason at once, changes nothing, and names another that works', async () => {
		await reportChange(tech(new Date('2026-11-23T10:00:00Z')), {
			id: randomUUID(),
			wearerId: two,
			what: 'dental'
		});
		await own.test.raw`update wearer set trained_until = '2026-01-01' where id = ${two}`;
		const said = await out({ wearerId: two });
		expect(said).toMatchObject({ done: false, why: 'refused', outcome: 'do not' });
		const rules = said.judged.flatMap(({ verdict }) => verdict.reasons.map(({ rule }) => rule));
		expect(rules).toContain('gate.training');
		expect(rules.length).toBeGreaterThan(1);
		expect(await where()).toMatchObject({ where: 'shelf' });
		// Another mask that is not inspected yet is refused, and the inspected one is named.
		await addPiece(own.test, own.yard, 'half-mask', 'HM-0500', { name: 'T9' });
		const asked = await gate(tech(), { wearerId: one, tags: ['HM-0500'], planId, minutes: 20 });
		expect(asked.outcome).toBe('do not');
		expect(asked.instead.map(({ tag }) => tag)).toEqual(['HM-0001']);
	});

	it('with conditions waits until they are accepted', async () => {
		// The shed keeps one; two are ready, and one is left after the first.
		await out();
		const said = await out({ wearerId: two, tags: ['HM-0002'] });
		expect(said).toMatchObject({ done: false, why: 'conditions' });
		expect(said.judged[0]?.verdict.reasons.map(({ rule }) => rule)).toEqual(['gate.floor']);
		expect(await out({ wearerId: two, tags: ['HM-0002'], accepted: true })).toMatchObject({
			done: true
		});
	});

	it('against the gate is a supervisor’s, with a reason, and stands in the record', async () => {
		await own.test.raw`update wearer set beard = true where id = ${one}`;
		await expectRefusal(out({ override: 'Nobody else is here.' }), 'forbidden', /supervisor/);
		expect(await out({ override: 'Shaves on the way.' }, boss())).toMatchObject({ done: true });
		expect((await log())[0]).toMatch(/AGAINST THE GATE: Shaves on the way\. It said: Hair/);
		await expect(
			own.test.raw`insert into hand_out (id, wearer_id, outcome, reasons, handed_by, handed_at)
				values (${randomUUID()}, ${one}, 'do not', '[]', 'user-admin', now())`
		).rejects.toThrow(/against_the_gate/);
	});

	it('of what is out with somebody else asks once and is set right with a reason', async () => {
		await out();
		const said = await out({ wearerId: two });
		expect(said).toMatchObject({ done: false, why: 'asked' });
		expect(said.judged[0]?.asked[0]).toMatchObject({ question: 'with another' });
		await out({ wearerId: two, because: 'handed on within the team', accepted: true });
		expect(await where()).toMatchObject({ wearerId: two, note: 'handed on within the team' });
		expect(await itemsNotOnce(own.test.db)).toBe(0);
	});

	it('by two counters at once is one', async () => {
		const both = await Promise.all([
			out({ accepted: true }),
			out({ wearerId: two, accepted: true })
		]);
		expect(both.filter(({ done }) => done)).toHaveLength(1);
		expect(both.find(({ done }) => !done)).toMatchObject({ why: 'asked' });
		expect(await itemsNotOnce(own.test.db)).toBe(0);
	});

	it('refuses whoever has left, a part of a set and a tag that nobody knows, each by name', async () => {
		await own.test.raw`update wearer set left_on = '2026-11-01' where id = ${two}`;
		await expectRefusal(out({ wearerId: two }), 'conflict', /W2 has left/);
		await expectRefusal(out({ tags: ['HM-9'] }), 'not found', /HM-9/);
		await expectRefusal(out({ wearerId: randomUUID() }), 'not found', /no such wearer/);
		await addPiece(own.test, own.yard, 'ba-set', 'BA-0901');
		await completed(own.test, own.yard, 'BA-0901', NOW);
		await expectRefusal(out({ tags: ['FX-0901'] }), 'conflict', /part of BA-0901/);
	});

	it('for no one task makes it their own, and nobody else gets it', async () => {
		expect(await out({ planId: null, minutes: null })).toMatchObject({
			done: true,
			dueBackAt: null
		});
		await back({}, tech(later(30)));
		const said = await out({ wearerId: two, because: 'found here' }, tech(later(40)));
		expect(said.judged[0]?.verdict.reasons.map(({ rule }) => rule)).toContain('gate.not-theirs');
	});

	it('without a connection is written down as it was given, and the record says what the gate says now', async () => {
		await own.test.raw`update wearer set beard = true where id = ${one}`;
		expect(await out({ offline: true })).toMatchObject({ done: true, outcome: 'do not' });
		expect((await log())[0]).toMatch(/without a connection.*by what the device knew/);
	});
});

describe('a return', () => {
	it('gives minutes to the ledger, sends the mask to the wash, and says what is on it', async () => {
		await out();
		const said = await back({ minutes: 15 });
		expect(said).toMatchObject({
			done: true,
			number: 'W1',
			task: 'Laminating',
			minutes: 15,
			contaminatedWith: ['n-Butyl acetate'],
			went: [{ tag: 'HM-0001', where: 'returned' }]
		});
		expect(await where()).toMatchObject({ where: 'returned', wearerId: null });
		expect(await stateOf()).toBe('in wash');
		expect((await pairPage(tech(later(31)), 'FP-0001')).wears).toMatchObject([{ minutes: 15 }]);
	});

	it('without a word counts what was planned, and not longer than it was out', async () => {
		await out({ minutes: 20 });
		expect(await back({}, tech(later(12)))).toMatchObject({ minutes: 12 });
		await out({ tags: ['HM-0002'], accepted: true });
		expect(await back({ tag: 'HM-0002' }, tech(later(50)))).toMatchObject({ minutes: 20 });
	});

	it('of what was not used goes straight back to its shelf', async () => {
		await out();
		expect(await back({ unused: true })).toMatchObject({ done: true, minutes: null });
		expect(await where()).toMatchObject({ where: 'shelf' });
		expect(await stateOf()).toBe('ready');
	});

	it.each([
		['never issued', {}, { tag: 'HM-0002' }],
		['longer than out', {}, { minutes: 90 }],
		['by another', {}, { by: 'two' }]
	] as const)('asks once: %s', async (question, _, part) => {
		await out();
		const input = { ...part, ...('by' in part ? { by: two } : {}) };
		const said = await back(input);
		expect(said).toMatchObject({ done: false, asked: [{ question }] });
		expect(await where()).toMatchObject({ where: 'issued' });
		expect(await back({ ...input, because: 'it is so' })).toMatchObject({ done: true });
		expect((await log()).join(' ')).toContain('(it is so)');
	});

	it('twice asks whether it is back already', async () => {
		await out();
		await back();
		expect(await back()).toMatchObject({ done: false, asked: [{ question: 'back already' }] });
	});

	it('with a smell takes the filters off and puts the plan in question', async () => {
		await out();
		const said = await back({ minutes: 5, noticed: ['smell'] });
		expect(said.done && said.leads).toHaveLength(2);
		expect(await own.test.db.select().from(planFlag)).toHaveLength(1);
		expect((await pairPage(tech(later(31)), 'FP-0001')).pair.discardReason).toBe('smell');
		const next = await out({ wearerId: two, tags: ['HM-0002'] }, tech(later(40)));
		expect(next.judged[0]?.verdict.reasons.map(({ rule }) => rule)).toContain(
			'gate.plan.in-question'
		);
	});

	it('torn holds it by a fault; hurting is asked about at the next hand-out', async () => {
		await out();
		await back({ noticed: ['damage', 'discomfort'], note: 'Torn at the chin.' });
		const faults = await own.test.db.select().from(defect);
		expect(faults).toMatchObject([
			{ code: 'TEAR', station: 'facepiece', note: 'Torn at the chin.' }
		]);
		expect(await stateOf()).toBe('held');
		const said = await out({ tags: ['HM-0002'] }, tech(later(40)));
		expect(said.judged[0]?.verdict.reasons.map(({ rule }) => rule)).toContain('gate.discomfort');
	});

	it('of a set sends its mask to the wash and its cylinder to filling, each its own way', async () => {
		const { test, yard } = own;
		const set = await addPiece(test, yard, 'ba-set', 'BA-0902');
		await completed(test, yard, 'BA-0902', new Date('2026-11-20T10:00:00Z'));
		await inspected(test, yard, ['BA-0902'], new Date('2026-11-20T10:00:00Z'));
		const [bottle] = await test.db.select().from(item).where(eq(item.tag, 'CX-0902'));
		await test.db.insert(cylinder).values({
			itemId: bottle?.id ?? '',
			waterVolumeL: 6.8,
			ratedBar: 300,
			maximumBar: 450,
			material: 'composite',
			thread: 'M18',
			manufacturedOn: '2024-01-01',
			pressureBar: 300
		});
		await test.raw`update custody set until = now() where item_id = ${set.id}`;
		await test.raw`insert into custody (item_id, where_it_is, wearer_id, since, moved_by)
			values (${set.id}, 'issued', ${one}, ${NOW}, 'user-technician')`;
		const said = await back({ tag: 'BA-0902', minutes: 25, bar: 90 });
		expect(said).toMatchObject({
			done: true,
			went: [
				{ tag: 'BA-0902', where: 'returned' },
				{ tag: 'CX-0902', where: 'filling' },
				{ tag: 'FX-0902', where: 'returned' }
			]
		});
		const [after] = await test.db.select().from(cylinder);
		expect(after).toMatchObject({ location: 'filling', pressureBar: 90 });
		expect(await where('CX-0902')).toMatchObject({ where: 'filling' });
		expect(await where('FX-0902')).toMatchObject({ where: 'returned' });
		expect((await test.db.select().from(item)).filter(({ setId }) => setId !== null)).toEqual([]);
	});

	it('of a set that was on the board takes time and pressure from there, and counts the use once', async () => {
		const { test, yard } = own;
		const set = await addPiece(test, yard, 'ba-set', 'BA-0903');
		await completed(test, yard, 'BA-0903', new Date('2026-11-20T10:00:00Z'));
		await inspected(test, yard, ['BA-0903'], new Date('2026-11-20T10:00:00Z'));
		const [bottle] = await test.db.select().from(item).where(eq(item.tag, 'CX-0903'));
		await test.db.insert(cylinder).values({
			itemId: bottle?.id ?? '',
			waterVolumeL: 6.8,
			ratedBar: 300,
			maximumBar: 450,
			material: 'composite',
			thread: 'M18',
			manufacturedOn: '2024-01-01',
			pressureBar: 300
		});
		await test.db.insert(cylinderTest).values({
			id: randomUUID(),
			itemId: bottle?.id ?? '',
			testedOn: '2025-01-01',
			passed: true,
			stamp: 'T',
			notedBy: yard.people.technician.id,
			notedAt: NOW
		});
		await rebuildState(test.db, [set.id, bottle?.id ?? ''], SITE);
		await handOutItems(boss(), ask({ tags: ['BA-0903'], override: 'Drill of the crew.' }));
		expect(await where('BA-0903')).toMatchObject({ where: 'issued' });
		const wearerRow = randomUUID();
		await enterTeam(tech(later(5)), {
			id: randomUUID(),
			task: 'Tank 4',
			placeId: null,
			wearers: [
				{
					id: wearerRow,
					wearer: 'Wearer W1',
					set: 'BA-0903',
					waterVolumeL: null,
					startBar: 300,
					channel: '',
					seal: true
				}
			]
		});
		await leave(tech(later(25)), {
			requestId: randomUUID(),
			wearerId: wearerRow,
			endBar: 120
		});
		const said = await back({ tag: 'BA-0903' }, tech(later(40)));
		expect(said).toMatchObject({ done: true, minutes: 20 });
		expect((await test.db.select().from(itemReturn))[0]).toMatchObject({
			bar: 120,
			countedElsewhere: true
		});
	});

	it('refuses minutes and pressures that cannot be', async () => {
		await out();
		await expectRefusal(back({ minutes: -1 }), 'invalid', /Whole minutes/);
		await expectRefusal(back({ bar: 900 }), 'invalid', /450 bar/);
	});
});

describe('a team', () => {
	it('is kitted out so that as many as can be are served, and the rest are told why', async () => {
		const three = await fitted(own.test, own.yard, 'W3', []);
		const { rows, reasons } = await kitOutTeam(tech(), {
			wearerIds: [one, two, three],
			planId,
			minutes: 20,
			placeId: null
		});
		expect(rows.map(({ number, tag }) => [number, tag])).toEqual([
			['W1', 'HM-0001'],
			['W2', 'HM-0002'],
			['W3', null]
		]);
		expect(rows[2]?.reason).toMatch(/No fit test/);
		expect(reasons.map(({ text }) => text)).toEqual([
			'2 of 3 can be served, and no way serves more.',
			'Shed, half masks, falls 1 below its floor: no other way serves as many.',
			expect.stringMatching(/No single change/)
		]);
	});
});

describe('on paper', () => {
	it('a hand-out, what its wearer wore and its task say what went out and when it came back', async () => {
		await out();
		await back();
		await out({ wearerId: two, tags: ['HM-0002'], accepted: true }, tech(later(60)));
		const [first, second] = await own.test.db.select().from(handOut).orderBy(handOut.handedAt);
		const paper = await handOutPaper(tech(), first?.id ?? '');
		expect(paper).toMatchObject({ title: 'Hand-out', outcome: 'Go' });
		expect(paper.tables[0]?.rows).toEqual([['HM-0001', 'T1', '24 Nov 2026, 10:30']]);
		const worn = await wearerPaper(tech(), one);
		expect(worn.about).toBe('Wearer W1');
		expect(worn.tables[0]?.rows.map(([, what]) => what)).toEqual(['HM-0001, T1']);
		const task = await taskPaper(tech(), planId);
		const given = task.tables.find(({ head }) => head.includes('Wearer'));
		expect(given?.rows.map(([, , what, returned]) => [what, returned])).toEqual([
			['HM-0002, T1', 'still out'],
			['HM-0001, T1', '24 Nov 2026, 10:30']
		]);
		expect((await handOutPaper(tech(), second?.id ?? '')).tables[0]?.rows).toEqual([
			['HM-0002', 'T1', 'still out']
		]);
		const viewer = own.yard.as(own.yard.people.viewer);
		await expectRefusal(wearerPaper(viewer, one), 'forbidden', /see wearers/);
		await expectRefusal(taskPaper(viewer, planId), 'forbidden', /see wearers/);
		await expectRefusal(handOutPaper(viewer, first?.id ?? ''), 'forbidden', /see wearers/);
	});
});
