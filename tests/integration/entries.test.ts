import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { startInstruments } from '../../scripts/lib/instruments.mjs';
import { keepBoard } from '../../src/lib/server/air/board-keeper.ts';
import { BoardFeed, boardFeed } from '../../src/lib/server/air/board.ts';
import { cylinderByTag } from '../../src/lib/server/air/cylinders.ts';
import {
	enterTeam,
	leave,
	seeAlarm,
	tellPressure,
	turnTeam,
	type WearerInput
} from '../../src/lib/server/air/entries.ts';
import { consumptions } from '../../src/lib/server/air/uses.ts';
import { entryLog } from '../../src/lib/server/air/entry-log.ts';
import { changeWearer, simulateWearers } from '../../src/lib/server/air/simulated-wearers.ts';
import { movePart } from '../../src/lib/server/register/sets.ts';
import { addCylinder } from '../support/air.ts';
import { openYard, SITE } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { completed, addPiece, inspected } from '../support/yard.ts';

const T0 = Date.parse('2026-11-24T10:00:00Z');
const at = (minutes: number) => new Date(T0 + minutes * 60_000);
const own = openYard();

const tech = (minutes = 0) => own.yard.as(own.yard.people.technician, at(minutes));
const one = (wearer: string, part: Partial<WearerInput> = {}): WearerInput => ({
	id: randomUUID(),
	wearer,
	set: '',
	waterVolumeL: 6.8,
	startBar: 300,
	channel: '',
	seal: true,
	...part
});
const enter = async (wearers: WearerInput[], minutes = 0) => {
	const id = randomUUID();
	const team = { id, task: 'Tank 4', placeId: own.yard.place, wearers };
	await enterTeam(tech(minutes), team);
	return { id, wearers: wearers.map((w) => w.id), again: () => enterTeam(tech(), team) };
};
const tell = (wearerId: string, bar: number, minutes: number, corrects = false) =>
	tellPressure(tech(minutes), { id: randomUUID(), wearerId, bar, corrects });
const board = () => new BoardFeed(own.test.db).load();
const onBoard = async (id: string | undefined) => {
	const found = (await board()).teams.flatMap((t) => t.wearers).find((w) => w.id === id);
	if (!found) throw new Error('not on the board');
	return found;
};
const out = (wearerId: string, endBar: number, minutes: number) =>
	leave(tech(minutes), { requestId: randomUUID(), wearerId, endBar });

describe('a team on the board', () => {
	it('goes in once, is turned, comes out, and its consumption is kept', async () => {
		const team = await enter([one('Ada'), one('Bo', { startBar: 280 })]);
		await team.again();
		const [ada = '', bo = ''] = team.wearers;
		const before = await onBoard(bo);
		await tell(ada, 265, 6);
		await tell(bo, 200, 6);
		const hard = await onBoard(bo);
		expect(hard.plan.turnAt).toBeLessThan(before.plan.turnAt);
		expect(hard.plan.lPerMin).toBeGreaterThan((await onBoard(ada)).plan.lPerMin);
		await turnTeam(tech(8), { requestId: randomUUID(), teamId: team.id });
		await out(ada, 190, 20);
		expect((await board()).teams).toHaveLength(1);
		const { lPerMin } = await out(bo, 90, 20);
		expect(await out(bo, 90, 21)).toEqual({ lPerMin });
		expect((await board()).teams).toHaveLength(0);
		const figures = (await consumptions(own.test.db)).get('Bo');
		expect(figures).toMatchObject({ uses: 1, meanLPerMin: lPerMin });
		// The next entry is planned with the pessimistic figure of the last.
		const next = await enter([one('Bo')], 60);
		expect((await onBoard(next.wearers[0])).plan.lPerMin).toBe(figures?.pessimisticLPerMin);
		await expectRefusal(enter([one('Bo')], 61), 'conflict', /in already/);
		await out(next.wearers[0] ?? '', 290, 62);
		// Two minutes say nothing of a consumption.
		expect((await consumptions(own.test.db)).get('Bo')?.uses).toBe(1);
		const [, first] = await entryLog(own.test.db);
		expect(first?.wearers.map((w) => w.wearer.wearer)).toEqual(['Ada', 'Bo']);
		await expect(
			own.test.raw`update entry_wearer set end_bar = 1 where id = ${bo}`
		).rejects.toThrow(/never changed/);
		await expect(own.test.raw`delete from entry_reading`).rejects.toThrow(/append-only/);
	});

	it('is refused with what cannot be', async () => {
		const refused = (part: Partial<WearerInput>) => enter([one('Cy', part)]);
		await expectRefusal(refused({ startBar: 4350 }), 'invalid', /outside 0 to 400/);
		await expectRefusal(refused({ startBar: 80 }), 'invalid', /leaves nothing/);
		await expectRefusal(refused({ waterVolumeL: 6800 }), 'invalid', /6.8 L/);
		await expectRefusal(refused({ waterVolumeL: null }), 'invalid', /litres of water/);
		await expectRefusal(refused({ wearer: ' ' }), 'invalid', /Who is it/);
		await expectRefusal(refused({ seal: false }), 'invalid', /Cy: seal check first/);
		await expectRefusal(refused({ channel: 'A B;' }), 'invalid', /letters, figures/);
		await expectRefusal(refused({ set: 'HM-0001' }), 'invalid', /no breathing apparatus/);
		await expectRefusal(enter([]), 'invalid', /one to 12/);
		await expectRefusal(enter([one('Cy'), one('Cy')]), 'conflict', /in already/);
		const same = { channel: 'T1' };
		await expectRefusal(enter([one('Cy', same), one('Di', same)]), 'conflict', /channels is used/);
	});

	it('wears sets that are ready, once, and leaves what is left in their cylinders', async () => {
		await addPiece(own.test, own.yard, 'ba-set', 'BA-0001');
		await expectRefusal(enter([one('Di', { set: 'BA-0001' })]), 'conflict', /No cylinder on it/);
		await completed(own.test, own.yard, 'BA-0001', at(-60), ['full-face']);
		await addCylinder(own.test, own.yard, 'CY-0001', { bar: 300 });
		await movePart(tech(), { requestId: randomUUID(), tag: 'CY-0001', set: 'BA-0001' });
		await inspected(own.test, own.yard, ['CY-0001'], at(-60));
		await expectRefusal(enter([one('Di', { set: 'BA-0001' })]), 'conflict', /BA-0001 is overdue/);
		await inspected(own.test, own.yard, ['BA-0001'], at(-60));
		const worn = one('Di', { set: 'BA-0001', waterVolumeL: null });
		const team = await enter([worn]);
		expect((await onBoard(worn.id)).plan.waterVolumeL).toBe(6.8);
		await expectRefusal(enter([one('Ed', { set: 'BA-0001' })]), 'conflict', /worn by somebody/);
		await out(team.wearers[0] ?? '', 120, 15);
		expect((await cylinderByTag(own.test.db, SITE, 'CY-0001')).row.pressureBar).toBe(120);
	});
});

describe('pressures', () => {
	it('that cannot follow are refused by hand, and taken where they correct', async () => {
		const { wearers } = await enter([one('Fay')]);
		const [fay = ''] = wearers;
		await tell(fay, 210, 5);
		await expectRefusal(tell(fay, 265, 6), 'invalid', /does not follow/);
		await expectRefusal(tell(fay, 400, 6), 'invalid', /went in with 300/);
		// Who says that less is left is believed; it is put right by one that corrects it.
		await tell(fay, 20, 5.5);
		expect((await onBoard(fay)).plan.bar).toBe(20);
		await tell(fay, 265, 6, true);
		expect((await onBoard(fay)).plan.bar).toBe(265);
		// A clock that is set back does not turn the order round.
		await tell(fay, 260, -30);
		expect((await onBoard(fay)).plan).toMatchObject({ bar: 260, at: at(6).getTime() });
		await expectRefusal(out(fay, 301, 10), 'invalid', /went in with 300/);
		await out(fay, 240, 10);
		await expectRefusal(tell(fay, 230, 11), 'conflict', /out already/);
		await expectRefusal(tell(randomUUID(), 230, 11), 'not found', /no such wearer/);
	});

	it('told twice are one, told from two screens at once are both there', async () => {
		const { wearers } = await enter([one('Gil'), one('Hal')]);
		const [gil = '', hal = ''] = wearers;
		const same = { id: randomUUID(), wearerId: gil, bar: 280, corrects: false };
		await Promise.all([tellPressure(tech(3), same), tell(hal, 275, 3)]);
		await tellPressure(tech(4), same);
		const [{ n } = { n: 0 }] = await own.test
			.raw`select count(*)::int as n from entry_reading where wearer_id in (${gil}, ${hal})`;
		expect(n).toBe(2);
		for (const id of wearers) await out(id, 260, 8);
	});
});

describe('the keeper', () => {
	it('writes each alarm down once, at its moment, and who has seen it', async () => {
		const { wearers } = await enter([one('Ida')]);
		const [ida = ''] = wearers;
		expect(
			(await keepBoard(own.yard.as(own.yard.people.technician, at(1)), undefined)).alarms
		).toBe(0);
		const { plan } = await onBoard(ida);
		const turned = new Date(plan.turnAt);
		expect(
			(await keepBoard(own.yard.as(own.yard.people.technician, turned), undefined)).alarms
		).toBe(1);
		expect(
			(await keepBoard(own.yard.as(own.yard.people.technician, turned), undefined)).alarms
		).toBe(0);
		expect((await onBoard(ida)).raised).toMatchObject([{ key: 'turn back', seenBy: null }]);
		const context = own.yard.as(own.yard.people.technician, turned);
		await seeAlarm(context, { requestId: randomUUID(), wearerId: ida, key: 'turn back' });
		await seeAlarm(context, { requestId: randomUUID(), wearerId: ida, key: 'turn back' });
		expect((await onBoard(ida)).raised).toMatchObject([{ key: 'turn back', seenBy: 'TT' }]);
		await expect(own.test.raw`update entry_alarm set kind = 'warning'`).rejects.toThrow(
			/as it was/
		);
		await out(ida, 150, 40);
		const [entry] = await entryLog(own.test.db);
		expect(entry?.wearers[0]?.alarms[0]).toMatchObject({
			alarm: { kind: 'turn back', dueAt: turned },
			seenBy: 'TT'
		});
	});

	it('hears telemetry, says it is lost when it is, and does not believe a jump', async () => {
		const simulated = await startInstruments({ benches: 0 });
		const address = simulated.env.GREVAN_TELEMETRY;
		const { wearers } = await enter([one('Jo', { channel: 'T1' })]);
		const [jo = ''] = wearers;
		const like = { waterVolumeL: 6.8, startBar: 300, lPerMin: 0 };
		await simulateWearers(tech(), address, [{ ...like, channel: 'T1' }]);
		const keep = (seconds: number) =>
			keepBoard(own.yard.as(own.yard.people.technician, at(seconds / 60)), address);
		expect((await keep(2)).readings).toBe(0);
		expect((await keep(6)).readings).toBe(1);
		expect((await onBoard(jo)).plan).toMatchObject({ bar: 300, by: 'telemetry' });
		const change = (fault: 'jump' | 'lost' | 'none' | 'garbage') =>
			changeWearer(tech(), address, { channel: 'T1', lPerMin: 0, fault, speed: 1 });
		await change('jump');
		expect(await keep(12)).toEqual({ readings: 1, alarms: 0 });
		expect(await keep(13)).toEqual({ readings: 0, alarms: 1 });
		expect((await onBoard(jo)).plan).toMatchObject({ bar: 300, doubt: { bar: 210 } });
		await change('garbage');
		expect((await keep(20)).readings).toBe(0);
		await change('lost');
		expect(await keep(41)).toEqual({ readings: 0, alarms: 0 });
		expect(await keep(43)).toEqual({ readings: 0, alarms: 1 });
		expect((await onBoard(jo)).raised).toHaveLength(2);
		expect(
			(await keepBoard(own.yard.as(own.yard.people.technician, at(1)), '127.0.0.1:9')).readings
		).toBe(0);
		await change('none');
		expect((await keep(50)).readings).toBe(1);
		await expectRefusal(
			changeWearer(tech(), undefined, { channel: 'T1', lPerMin: 1, fault: 'none', speed: 1 }),
			'unavailable',
			/No telemetry/
		);
		await simulated.stop();
		await out(jo, 290, 30);
	});

	it('leaves one process to do it at a time', async () => {
		const { wearers } = await enter([one('Kim')]);
		const late = at(120);
		const rounds = await Promise.all(
			[1, 2, 3].map(() => keepBoard(own.yard.as(own.yard.people.technician, late), undefined))
		);
		expect(rounds.reduce((sum, round) => sum + round.alarms, 0)).toBe(3);
		await out(wearers[0] ?? '', 10, 121);
	});
});

describe('the feed', () => {
	it('gives every screen the same board and misses nothing that is written meanwhile', async () => {
		const feed = boardFeed(own.test.db);
		const names = Array.from({ length: 10 }, (_, i) => one(`Wearer ${i}`));
		const { wearers } = await enter(names);
		const [first, second] = await Promise.all([feed.load(), feed.load()]);
		expect(first).toBe(second);
		await Promise.all(wearers.map((id, i) => tell(id, 290 - i, 3)));
		const shown = (await feed.load()).teams.flatMap((t) => t.wearers).map((w) => w.plan.bar);
		expect(shown.sort((a, b) => a - b)).toEqual(
			wearers.map((_, i) => 290 - i).sort((a, b) => a - b)
		);
		expect(await new BoardFeed(own.test.db).load()).toEqual(await feed.load());
		for (const id of wearers) await out(id, 200, 30);
	});
});
