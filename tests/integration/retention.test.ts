import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { entryReading, entryWearer, notice, wearer } from '../../src/lib/server/db/schema/index.ts';
import { verifyChain } from '../../src/lib/server/kernel/chain.ts';
import { history } from '../../src/lib/server/records/history.ts';
import {
	dropRetained,
	retentionPage,
	setRetention
} from '../../src/lib/server/records/retention.ts';
import { takePast } from '../../src/lib/server/records/take-in.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';

const own = openYard(undefined, 'test');
const admin = () => own.yard.as({ ...own.yard.people.supervisor, role: 'admin' });
const kept = async (kind: string) =>
	(await retentionPage(admin())).find((one) => one.kind === kind);
const set = (
	kind: 'gauge readings' | 'messages' | 'wearers who left',
	keepMonths: number | null,
	version = 0
) => setRetention(admin(), { requestId: randomUUID(), kind, keepMonths, version });
const drop = (kind: 'gauge readings' | 'messages' | 'wearers who left' | 'drills', version = 1) =>
	dropRetained(admin(), { requestId: randomUUID(), kind, version });

/** An entry with a reading, at a day. */
async function entry(day: string): Promise<void> {
	const name = `Wearer of ${day}`;
	await takePast(admin(), 'entries', {
		id: randomUUID(),
		file: new TextEncoder().encode(
			`task,wearer,started at,ended at,start bar,end bar,water volume L\nTank,${name},${day} 09:00,${day} 09:20,290,90,6.8`
		),
		leaveOutBad: false
	});
	// Past its guards: nobody tells the gauge of somebody who is out.
	await own.test.raw.begin(async (sql) => {
		await sql`set local session_replication_role = replica`;
		await sql`insert into entry_reading (id, wearer_id, at, bar, by)
			select ${randomUUID()}, id, started_at, 250, 'hand' from entry_wearer where wearer = ${name}`;
	});
}
const readings = () => own.test.db.select().from(entryReading);

describe('what stands beside the record', () => {
	it('is kept for ever until somebody says for how long; what would go is shown, and only that goes', async () => {
		await entry('2024-03-01');
		await entry('2026-10-01');
		expect(await kept('gauge readings')).toMatchObject({ keepMonths: null, old: null });
		await expectRefusal(drop('gauge readings', 0), 'conflict', /for ever/);
		await set('gauge readings', 24);
		expect(await kept('gauge readings')).toMatchObject({
			keepMonths: 24,
			before: '2024-11-24',
			old: { count: 1, oldest: '2024-03-01' }
		});
		expect(await readings()).toHaveLength(2);
		expect(await drop('gauge readings')).toEqual({ dropped: 1 });
		expect(await readings()).toHaveLength(1);
		expect(await own.test.db.select().from(entryWearer)).toHaveLength(2);
		await expectRefusal(drop('gauge readings'), 'conflict', /Nothing of it is that old/);
		const said = (await history({ db: own.test.db }, { limit: 2 })).map(({ says }) => says);
		expect(said).toEqual([
			'Let go of: gauge readings from before 24 Nov 2024, 1 rows',
			'Kept from now on: gauge readings, 24 months; before, for ever'
		]);
		expect((await verifyChain(own.test.db)).faults).toEqual([]);
	});

	it('is let go of by that one way alone, whatever the application asks its database', async () => {
		await entry('2020-03-01');
		const asked = own.test.db.transaction(async (tx) => {
			await tx.execute("select set_config('grevan.dropping', 'entry_reading', true)");
			await tx.execute('delete from entry_reading');
		});
		await expect(asked).rejects.toThrow();
		for (const [what, before] of [
			['gauge readings', 'now()'],
			['inspections', "now() - interval '10 years'"]
		])
			await expect(
				own.test.db.execute(`select drop_retained('${what}', ${before}, 100)`)
			).rejects.toThrow();
		expect(await readings()).toHaveLength(1);
	});

	it('of wearers who left is who they are; the number stays', async () => {
		const [gone, here] = [randomUUID(), randomUUID()];
		await own.test.raw`insert into wearer (id, number, name, cleared_until, left_on) values
			(${gone}, 'W7', 'Edda Runge', '2023-01-01', '2023-05-01'), (${here}, 'W8', 'Nils Ahrend', null, null)`;
		await set('wearers who left', 24);
		expect(await kept('wearers who left')).toMatchObject({ old: { count: 1 } });
		expect(await drop('wearers who left')).toEqual({ dropped: 1 });
		const rows = await own.test.db.select().from(wearer).orderBy(wearer.number);
		expect(
			rows.map(({ number, name, leftOn, clearedUntil }) => [number, name, leftOn, clearedUntil])
		).toEqual([
			['W7', 'Wearer W7', '2023-05-01', null],
			['W8', 'Nils Ahrend', null, null]
		]);
	});

	it('of messages is their text; one that still waits stays', async () => {
		const to = own.yard.people.supervisor.id;
		for (const state of ['given up', 'waiting'])
			await own.test
				.raw`insert into notice (id, kind, user_id, address, subject, body, day, made_at, state)
				values (${randomUUID()}, 'urgent', ${to}, 'a@b.example', 'S', 'B', '2025-01-01', '2025-01-01', ${state})`;
		await set('messages', 6);
		expect(await drop('messages')).toEqual({ dropped: 1 });
		expect((await own.test.db.select().from(notice)).map(({ state }) => state)).toEqual([
			'waiting'
		]);
	});

	it('is for an admin, within bounds, and by the rule that was seen', async () => {
		const boss = own.yard.as(own.yard.people.supervisor);
		const ask = { requestId: randomUUID(), kind: 'drills' as const, version: 0 };
		await expectRefusal(setRetention(boss, { ...ask, keepMonths: 24 }), 'forbidden', /admin/);
		await expectRefusal(dropRetained(boss, ask), 'forbidden', /admin/);
		await expectRefusal(set('messages', 2), 'invalid', /From 3 to 600/);
		await set('messages', 6);
		await expectRefusal(set('messages', 12), 'conflict', /changed/);
		await set('messages', null, 1);
		expect(await kept('messages')).toMatchObject({ keepMonths: null, version: 2 });
	});
});
