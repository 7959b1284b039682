import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { tieSecret } from '../../src/lib/server/access/installation.ts';
import { keepBoard } from '../../src/lib/server/air/board-keeper.ts';
import { BoardFeed, boardTime } from '../../src/lib/server/air/board.ts';
import { enterTeam, leave, tellPressure } from '../../src/lib/server/air/entries.ts';
import { changeWearer, simulateWearers } from '../../src/lib/server/air/simulated-wearers.ts';
import { startInstruments } from '../../scripts/lib/instruments.mjs';
import { holdLease } from '../../src/lib/server/db/queries/leases.ts';
import { auditEntry, entryReading, lease, user } from '../../src/lib/server/db/schema/index.ts';
import { eq, like, sql } from 'drizzle-orm';
import { openYard, SITE } from '../support/database.ts';
import { SetMachine } from '../support/machine.ts';
import { expectRefusal } from '../support/refusal.ts';

const own = openYard(undefined, 'test');
const HOUR_MS = 3_600_000;

const on = (machine: SetMachine) => ({
	...own.yard.as(own.yard.people.technician),
	now: machine.now,
	machine
});
const keeper = (machine: SetMachine, receiver?: string) =>
	keepBoard({ db: own.test.db, now: machine.now, site: SITE, machine }, receiver);
const enter = async (machine: SetMachine, channel = '') => {
	const [id, wearer] = [randomUUID(), randomUUID()];
	await enterTeam(on(machine), {
		id,
		task: 'Tank 4',
		placeId: own.yard.place,
		wearers: [
			{ id: wearer, wearer: 'Ada', set: '', waterVolumeL: 6.8, startBar: 300, channel, seal: true }
		]
	});
	return { id, wearer };
};
/** How long the wearer has until the team turns, min, as a screen counts it down. */
async function left(machine: SetMachine): Promise<number> {
	const { teams } = await new BoardFeed(own.test.db).load();
	const { now } = await boardTime(on(machine));
	const plan = teams[0]?.wearers[0]?.plan;
	if (!plan) throw new Error('Nobody is on the board.');
	return (plan.turnAt - now) / 60_000;
}
const said = async () =>
	(
		await own.test.db
			.select({ payload: auditEntry.payload })
			.from(auditEntry)
			.where(eq(auditEntry.action, 'entry.clock-set'))
	).map(({ payload }) => (JSON.parse(payload) as { seconds: number }).seconds);

describe('the board, as the clock of the server is set while somebody is in', () => {
	it.each([
		['forward', HOUR_MS],
		['back', -HOUR_MS]
	])(
		'counts on when it is set an hour %s, says it once, and takes it over when all are out',
		async (_, jumpMs) => {
			const machine = new SetMachine();
			await keeper(machine);
			const { id, wearer } = await enter(machine);
			machine.pass(60);
			await keeper(machine);
			const before = await left(machine);
			machine.set(jumpMs);
			// Before the keeper comes to it, and after.
			expect(Math.abs((await left(machine)) - before)).toBeLessThan(1 / 60);
			await keeper(machine);
			await keeper(machine);
			expect(Math.abs((await left(machine)) - before)).toBeLessThan(1 / 60);
			expect(await said()).toEqual([jumpMs / 1000]);
			expect((await boardTime(on(machine))).aheadMs).toBe(jumpMs);

			machine.pass(60);
			await tellPressure(on(machine), {
				id: randomUUID(),
				wearerId: wearer,
				bar: 280,
				corrects: false
			});
			machine.pass(600);
			const { lPerMin } = await leave(on(machine), {
				requestId: randomUUID(),
				wearerId: wearer,
				endBar: 200
			});
			// 12 minutes by what passed, whatever the clock says: 100 bar of 6.8 L, some 510 to 680 L of air.
			expect(lPerMin).toBeGreaterThan(40);
			expect(lPerMin).toBeLessThan(60);
			await keeper(machine);
			expect((await boardTime(on(machine))).aheadMs).toBe(0);
			expect(id).toBeTruthy();
		}
	);

	it('loses no telemetry', async () => {
		const simulated = await startInstruments({ benches: 0 });
		const receiver = simulated.env.GREVAN_TELEMETRY;
		try {
			const machine = new SetMachine();
			const { wearer } = await enter(machine, 'CH-1');
			await simulateWearers(on(machine), receiver, [
				{ channel: 'CH-1', startBar: 300, waterVolumeL: 6.8, lPerMin: 40 }
			]);
			await changeWearer(on(machine), receiver, {
				channel: 'CH-1',
				lPerMin: 40,
				fault: 'none',
				speed: 1
			});
			const heard = async () =>
				(await own.test.db.select().from(entryReading).where(eq(entryReading.wearerId, wearer)))
					.length;
			let expected = 0;
			for (const jumpMs of [0, 0, HOUR_MS, 0, -2 * HOUR_MS, 0, 0]) {
				machine.set(jumpMs);
				machine.pass(6);
				await keeper(machine, receiver);
				expect(await heard()).toBe(++expected);
			}
		} finally {
			await simulated.stop();
		}
	});

	it('goes on after its machine was started anew, by the clock of the database', async () => {
		const machine = new SetMachine();
		await keeper(machine);
		await enter(machine);
		await keeper(machine);
		const before = await left(machine);
		// Started anew with a clock that is an hour off: the database knows better.
		const other = new SetMachine(Date.now() + HOUR_MS);
		expect(Math.abs((await left(other)) - before)).toBeLessThan(0.2);
	});
});

describe('a lease', () => {
	it('from before the clock was set back is taken over', async () => {
		const { db } = own.test;
		await db.insert(lease).values({
			name: 'held long',
			holder: randomUUID(),
			until: new Date(Date.now() + HOUR_MS)
		});
		await db.insert(lease).values({
			name: 'held now',
			holder: randomUUID(),
			until: new Date(Date.now() + 2000)
		});
		expect(await holdLease(db, 'held long', 3000)).toBe(true);
		expect(await holdLease(db, 'held now', 3000)).toBe(false);
		await db.update(lease).set({ until: sql`clock_timestamp() - interval '1 second'` });
		expect(await holdLease(db, 'held now', 3000)).toBe(true);
	});
});

describe('the secret of the installation', () => {
	const context = () => ({ db: own.test.db, now: () => new Date(), site: SITE });
	const [first, second] = ['a'.repeat(40), 'b'.repeat(40)];

	it('is tied once, and another is refused with the way out; nothing is changed', async () => {
		await own.test.db.update(user).set({ pinHash: 'kept' }).where(eq(user.id, 'user-technician'));
		expect(await tieSecret(context(), first, false)).toBeUndefined();
		expect(await tieSecret(context(), first, false)).toBeUndefined();
		await expectRefusal(tieSecret(context(), second, false), 'conflict', /GREVAN_NEW_SECRET=1/);
		const [kept] = await own.test.db.select().from(user).where(eq(user.id, 'user-technician'));
		expect(kept?.pinHash).toBe('kept');
	});

	it('is given up where that is said: PINs and second steps are taken away, and it is recorded', async () => {
		await own.test.db.update(user).set({ pinHash: 'kept' }).where(eq(user.id, 'user-technician'));
		await tieSecret(context(), first, false);
		expect(await tieSecret(context(), second, true)).toMatch(/^The secret .* 1 PINs and 0 second/);
		expect(await tieSecret(context(), second, false)).toBeUndefined();
		const [kept] = await own.test.db.select().from(user).where(eq(user.id, 'user-technician'));
		expect(kept?.pinHash).toBeNull();
		const entries = await own.test.db
			.select()
			.from(auditEntry)
			.where(like(auditEntry.action, 'site.secret%'));
		expect(entries).toHaveLength(1);
	});
});
