import { randomUUID } from 'node:crypto';
import { inArray } from 'drizzle-orm';
import { afterAll, describe, expect, it } from 'vitest';
import { startInstruments } from '../../scripts/lib/instruments.mjs';
import { cylinderByTag, notePressure } from '../../src/lib/server/air/cylinders.ts';
import { fillLog, fillNow, fillRoom } from '../../src/lib/server/air/fill-room.ts';
import {
	finishFill,
	openBank,
	pumpBank,
	rejectCylinder,
	startFill
} from '../../src/lib/server/air/fills.ts';
import { panelState, simulatePanel } from '../../src/lib/server/air/panel.ts';
import { addSource, listSources, noteWork, testsOf } from '../../src/lib/server/air/sources.ts';
import { auditEntry } from '../../src/lib/server/db/schema/index.ts';
import { fillPanelAt } from '../../src/lib/server/instruments/fill-panel.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import { movePart } from '../../src/lib/server/register/sets.ts';
import { today } from '../../src/lib/server/today/shift-sheet.ts';
import { addCompressor, addCylinder, testAir } from '../support/air.ts';
import { openYard, SITE } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { addPiece } from '../support/yard.ts';

const DAY = 86_400_000;
const NOW = new Date('2026-11-24T10:00:00Z');
let simulated: Awaited<ReturnType<typeof startInstruments>>;
let address: string;
let source: string;
const own = openYard(async () => {
	simulated = await startInstruments({ benches: 0 });
	address = simulated.env.GREVAN_FILL_PANEL;
	source = await addCompressor(tech(), 'Compressor 1', new Date(NOW.getTime() - 5 * DAY));
	await addPiece(own.test, own.yard, 'ba-set', 'BA-0001');
	await simulatePanel(tech(), address, { speed: 2000, fault: 'none' });
});
afterAll(() => simulated.stop());

const tech = (now = NOW) => own.yard.as(own.yard.people.technician, now);
const begin = (tag: string, id = randomUUID(), at: string | undefined = address, now = NOW) =>
	startFill(tech(now), at, { id, tag, sourceId: source, looked: true }).then(() => id);
const level = (fillId: string, bank: number) =>
	openBank(tech(), address, { requestId: randomUUID(), fillId, bank }).then(() =>
		expect
			.poll(() => fillNow(own.test.db, address, 0).then((now) => now.reading.state), {
				timeout: 30_000
			})
			.toMatch(/level|stopped/)
	);
const stateOf = async (tag: string) => (await itemPage(tech(), tag)).verdict;

describe('a fill at the panel', () => {
	it('goes from bank to bank, stops where it will be at its rated pressure when cool, and is kept', async () => {
		await addCylinder(own.test, own.yard, 'CY-0001', { bar: 50 });
		const id = await begin('CY-0001');
		expect(await begin('CY-0001', id)).toBe(id);
		for (const bank of [1, 2, 3]) await level(id, bank);
		const now = await fillNow(own.test.db, address, 0);
		expect(now.points.length).toBeGreaterThan(3);
		expect(now.points[0]?.bar).toBeCloseTo(50, 0);
		const { outcome, settledBar } = await finishFill(tech(), address, {
			requestId: randomUUID(),
			id
		});
		expect(outcome).toBe('full');
		// Never above its rated pressure when cool.
		expect(settledBar).toBeLessThanOrEqual(301);
		const [kept] = await fillLog(own.test.db);
		expect(kept).toMatchObject({ tag: 'CY-0001', batch: 1, source: 'Compressor 1' });
		expect(kept?.fill.banksBar).toHaveLength(3);
		expect(await finishFill(tech(), address, { requestId: randomUUID(), id })).toEqual({
			outcome,
			settledBar
		});
		const { facts } = await cylinderByTag(own.test.db, SITE, 'CY-0001');
		expect(facts).toMatchObject({ freshUntil: '2027-11-24', location: 'rack' });
		await expect(
			own.test.raw`update cylinder_fill set end_bar = 1 where id = ${id}`
		).rejects.toThrow(/never changed/);
	});

	it('is of one cylinder at a time, looked at, and not out of a bank that is not there', async () => {
		await addCylinder(own.test, own.yard, 'CY-0002', { bar: 50 });
		await addCylinder(own.test, own.yard, 'CY-0003', { bar: 50 });
		const unseen = { id: randomUUID(), tag: 'CY-0002', sourceId: source, looked: false };
		await expectRefusal(startFill(tech(), address, unseen), 'invalid', /Look at the cylinder/);
		const id = await begin('CY-0002');
		await expectRefusal(begin('CY-0003'), 'conflict', /CY-0002 is on the panel/);
		await expectRefusal(begin('CY-0003', randomUUID(), ''), 'conflict', /Another cylinder/);
		await expectRefusal(
			openBank(tech(), address, { requestId: randomUUID(), fillId: id, bank: 9 }),
			'unavailable',
			/refused/
		);
		await expectRefusal(
			openBank(tech(), address, { requestId: randomUUID(), fillId: randomUUID(), bank: 1 }),
			'conflict',
			/has ended/
		);
		await level(id, 1);
		expect((await finishFill(tech(), address, { requestId: randomUUID(), id })).outcome).toBe(
			'short'
		);
		const room = await fillRoom(tech(), address);
		expect(room.queue.rows.map((row) => row.tag)).toEqual(['CY-0002']);
		expect(room.open).toBeNull();
	});

	it('goes on by hand when the panel sends nonsense or is away', async () => {
		const id = await begin('CY-0003');
		await simulatePanel(tech(), address, { speed: 2000, fault: 'garbage' });
		await expectRefusal(
			finishFill(tech(), address, { requestId: randomUUID(), id }),
			'unavailable',
			/by hand/
		);
		await simulatePanel(tech(), address, { speed: 2000, fault: 'none' });
		const hand = (bar: number) => ({ id, hand: { bar, celsius: 20 } });
		await expectRefusal(
			finishFill(tech(), address, { requestId: randomUUID(), ...hand(451) }),
			'invalid',
			/above the 450/
		);
		await expectRefusal(
			finishFill(tech(), address, { requestId: randomUUID(), ...hand(20) }),
			'invalid',
			/Read again/
		);
		await openBank(tech(), address, { requestId: randomUUID(), fillId: id, bank: 3 });
		expect(
			(await finishFill(tech(), address, { requestId: randomUUID(), ...hand(296) })).outcome
		).toBe('full');
		expect((await panelState(address)).reading?.openBank).toBeNull();
		const away = await begin('CY-0002');
		await finishFill(tech(), '127.0.0.1:9', { requestId: randomUUID(), ...hand(290), id: away });
		expect(await panelState('127.0.0.1:9')).toMatchObject({ reading: null });
		expect(await panelState(undefined)).toMatchObject({ reading: null });
	});

	it('pumps a bank up', async () => {
		const panel = fillPanelAt(address);
		const first = async () => (await panel.read()).banksBar[0] ?? 0;
		const before = await first();
		await pumpBank(tech(), address, { requestId: randomUUID(), bank: 1 });
		await expect.poll(first, { timeout: 30_000 }).toBeGreaterThan(Math.max(before, 295));
		panel.close();
	});
});

describe('what is not filled', () => {
	it('is a cylinder with a fault found at the look, past its test, or empty and not looked into', async () => {
		await addCylinder(own.test, own.yard, 'CY-0005', { bar: 50 });
		const fault = { id: randomUUID(), tag: 'CY-0005', step: 'stamp', code: 'LABEL' };
		await expectRefusal(
			rejectCylinder(tech(), { ...fault, code: 'WHL' }),
			'invalid',
			/Choose one of/
		);
		await rejectCylinder(tech(), fault);
		await expectRefusal(begin('CY-0005'), 'conflict', /Open fault: LABEL/);
		await addCylinder(own.test, own.yard, 'CY-0006', {
			testedOn: '2021-01-01',
			manufacturedOn: '2016-01-01'
		});
		await expectRefusal(begin('CY-0006'), 'conflict', /Past its test/);
		await addCylinder(own.test, own.yard, 'CY-0007', { bar: 0 });
		await expectRefusal(begin('CY-0007'), 'conflict', /looked at inside/);
		await addCylinder(own.test, own.yard, 'CY-0008', { bar: null });
		await expectRefusal(begin('CY-0008'), 'conflict', /not known/);
	});

	it('is anything from a source without an air test in force', async () => {
		await addCylinder(own.test, own.yard, 'CY-0009', { bar: 60 });
		const id = randomUUID();
		await noteWork(tech(), { id: randomUUID(), sourceId: source, what: 'Filters changed' });
		await expectRefusal(begin('CY-0009', id), 'conflict', /worked on since its last air test/);
		const later = new Date(NOW.getTime() + DAY);
		await testAir(tech(later), source, later);
		await begin('CY-0009', id, address, later);
		await finishFill(tech(later), address, {
			requestId: randomUUID(),
			id,
			hand: { bar: 298, celsius: 18 }
		});
		// A new test, a new batch.
		expect((await fillLog(own.test.db))[0]?.batch).toBe(2);
		const much = new Date(NOW.getTime() + 120 * DAY);
		await expectRefusal(begin('CY-0001', randomUUID(), address, much), 'conflict', /good until/);
		const dry = { id: randomUUID(), name: 'Quay air', kind: 'banks' as const, banks: [] };
		await addSource(tech(), { ...dry, oilLubricated: false, fills: false });
		await expectRefusal(
			addSource(tech(), { ...dry, id: randomUUID(), oilLubricated: false, fills: false }),
			'conflict',
			/already/
		);
	});
});

describe('an air test that fails', () => {
	it('holds what was filled since the last good one and says where it is', async () => {
		const at = (days: number) => new Date(NOW.getTime() + days * DAY);
		const held = async () =>
			(await testsOf(own.test.db, SITE, source)).tests.flatMap((t) => t.held.map((h) => h.tag));
		await movePart(tech(at(2)), { requestId: randomUUID(), tag: 'CY-0009', set: 'BA-0001' });
		const result = await testAir(tech(at(3)), source, at(3), { coPpm: 14 });
		expect(result).toEqual({ outcome: 'fail', held: ['CY-0009'] });
		expect((await stateOf('CY-0009')).outcome).toBe('held');
		expect((await stateOf('BA-0001')).outcome).toBe('held');
		// Filled before the last good test: covered by it.
		expect((await stateOf('CY-0001')).outcome).not.toBe('held');
		const sheet = (await today(tech(at(3)))).lines.filter((line) => line.kind === 'air');
		expect(sheet.map((line) => `${line.title}. ${line.detail}`).join(' ')).toMatch(
			/Compressor 1 gives no air out.*1 cylinder holds air of Compressor 1 that failed.*CY-0009/
		);
		const [test1] = (await testsOf(own.test.db, SITE, source)).tests;
		expect(test1?.held[0]).toMatchObject({ tag: 'CY-0009', where: 'on BA-0001, Shed' });
		const states = await listSources(tech(at(3)));
		expect(states.find((s) => s.source.id === source)?.state.outcome).toBe('failed');
		await expectRefusal(
			begin('CY-0001', randomUUID(), address, at(3)),
			'conflict',
			/failed the test/
		);

		// A good test later frees the source, not the air that was filled before.
		await testAir(tech(at(4)), source, at(4));
		expect(await held()).toEqual(['CY-0009']);
		await movePart(tech(at(4)), { requestId: randomUUID(), tag: 'CY-0009', set: null });
		await expectRefusal(begin('CY-0009', randomUUID(), address, at(4)), 'conflict', /let it down/);
		await notePressure(tech(at(4)), { requestId: randomUUID(), tag: 'CY-0009', pressureBar: 3 });
		const id = await begin('CY-0009', randomUUID(), address, at(4));
		await finishFill(tech(at(4)), address, {
			requestId: randomUUID(),
			id,
			hand: { bar: 300, celsius: 15 }
		});
		expect(await held()).toEqual([]);
		expect((await stateOf('CY-0009')).outcome).not.toBe('held');
	});

	it('that lacks a gas decides nothing, and cannot lie in the future', async () => {
		const later = new Date(NOW.getTime() + 6 * DAY);
		const before = await testAir(tech(later), source, later, { coPpm: undefined });
		expect(before).toEqual({ outcome: 'incomplete', held: [] });
		const states = await listSources(tech(later));
		expect(states.find((s) => s.source.id === source)?.state.outcome).toBe('in force');
		await expectRefusal(testAir(tech(), source, later), 'invalid', /later than now/);
		await expectRefusal(
			testAir(tech(later), source, later, { coPpm: -1 }),
			'invalid',
			/below zero/
		);
	});
});

describe('a retry at the panel', () => {
	it('answers a retry that overtakes its first try as that one, at every step of a fill', async () => {
		await addCylinder(own.test, own.yard, 'CY-0050', { bar: 50 });
		const twice = <T>(send: () => Promise<T>) => Promise.all([send(), send(), send()]);
		const id = randomUUID();
		await twice(() => begin('CY-0050', id));
		const bank = randomUUID();
		await twice(() => openBank(tech(), address, { requestId: bank, fillId: id, bank: 1 }));
		const pumped = randomUUID();
		await twice(() => pumpBank(tech(), address, { requestId: pumped, bank: 1 }));
		const seen = randomUUID();
		await twice(() => notePressure(tech(), { requestId: seen, tag: 'CY-0050', pressureBar: 60 }));
		const end = randomUUID();
		const ends = await twice(() => finishFill(tech(), address, { requestId: end, id }));
		expect(new Set(ends.map((one) => JSON.stringify(one))).size).toBe(1);
		const told = await own.test.db
			.select({ action: auditEntry.action, subject: auditEntry.subject })
			.from(auditEntry)
			.where(inArray(auditEntry.action, ['fill.started', 'fill.bank', 'fill.ended']));
		expect(
			told
				.filter(({ subject }) => subject.endsWith(id))
				.map(({ action }) => action)
				.sort()
		).toEqual(['fill.bank', 'fill.ended', 'fill.started']);
	});
});
