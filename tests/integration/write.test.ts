import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { eq, sql } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import type { Connection } from '../../src/lib/server/db/client.ts';
import {
	auditEntry,
	filterLot,
	item,
	itemDue,
	itemState,
	writeRequest
} from '../../src/lib/server/db/schema/index.ts';
import { addItem, moveItems } from '../../src/lib/server/register/register.ts';
import { receiveLot } from '../../src/lib/server/filters/store.ts';
import { enterTeam } from '../../src/lib/server/air/entries.ts';
import { startFill } from '../../src/lib/server/air/fills.ts';
import { answer } from '../../src/lib/server/inspection/answers.ts';
import { startRun } from '../../src/lib/server/inspection/runs.ts';
import { verifyChain } from '../../src/lib/server/kernel/chain.ts';
import { Refusal } from '../../src/lib/server/kernel/refusal.ts';
import { write, writeAfter, type Work } from '../../src/lib/server/kernel/write.ts';
import { addCompressor, addCylinder } from '../support/air.ts';
import { openYard, type Yard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { given } from '../support/work.ts';

const own = openYard();
const { tech } = own;

/** Counts a delivery of one filter on a lot: an effect that shows when it happens twice. */
const count = async ({ tx, record }: Pick<Work, 'tx' | 'record'>, yard: Yard, of = 'A2') => {
	const id = yard.yard.lots.a2;
	await tx
		.update(filterLot)
		.set({ sealedQuantity: sql`${filterLot.sealedQuantity} + 1` })
		.where(eq(filterLot.id, id));
	record('filter-lot.received', {
		of: id,
		payload: { filter: of, lot: 'L1', useBy: '2030-01-01', quantity: 1 }
	});
	return { counted: of };
};
const quantity = async (db: Connection = own.test.db) => {
	const [lot] = await db.select().from(filterLot).where(eq(filterLot.id, own.yard.lots.a2));
	return lot?.sealedQuantity ?? -1;
};
const entries = async () => (await own.test.db.select().from(auditEntry)).length;

/** Fails with a refusal that must not reach anyone. */
const crash = () => {
	throw new Error('the process died here');
};

/** A context whose database dies after so many statements. */
function dyingAfter(statements: number): { context: Context; ran: () => number } {
	let ran = 0;
	const { db, ...rest } = tech();
	const dying = new Proxy(db, {
		get(target, name) {
			if (name !== 'transaction') return Reflect.get(target, name) as unknown;
			return (work: (tx: Connection) => Promise<unknown>) =>
				target.transaction((tx) => work(counting(tx)));
		}
	});
	const counting = (tx: Connection): Connection =>
		new Proxy(tx, {
			get(target, name) {
				const value = Reflect.get(target, name) as unknown;
				if (
					!['select', 'insert', 'update', 'delete', 'execute', 'selectDistinct'].includes(
						String(name)
					)
				)
					return value;
				return (...args: unknown[]) => {
					if (ran++ >= statements) crash();
					return (value as (...a: unknown[]) => unknown).apply(target, args);
				};
			}
		});
	return { context: { ...rest, db: dying }, ran: () => ran };
}

describe('the one write path', () => {
	it('gives one effect and one answer to any interleaving of two sends of one id', async () => {
		const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
		await fc.assert(
			fc.asyncProperty(
				fc.array(fc.integer({ min: 0, max: 12 }), { minLength: 6, maxLength: 6 }),
				fc.boolean(),
				async (waits, firstFails) => {
					const [id, before, logged] = [randomUUID(), await quantity(), await entries()];
					const send = async (i: number) => {
						await pause(waits[i] ?? 0);
						return write(tech(), 'inspect', { id, content: { count: 1 } }, async (at) => {
							await pause(waits[2 + i] ?? 0);
							const counted = await count(at, own);
							await pause(waits[4 + i] ?? 0);
							if (firstFails && i === 0) crash();
							return counted;
						});
					};
					const sent = await Promise.allSettled([send(0), send(1)]);
					const answers = sent.flatMap((s) => (s.status === 'fulfilled' ? [s.value] : []));
					expect(answers.length).toBeGreaterThanOrEqual(1);
					for (const one of answers) expect(one).toEqual({ counted: 'A2' });
					expect(await quantity()).toBe(before + 1);
					expect(await entries()).toBe(logged + 1);
				}
			),
			{ numRuns: 25 }
		);
	});

	it('gives a retry that overtakes its first try what that one gets, also where only one may ask outside', async () => {
		const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
		await fc.assert(
			fc.asyncProperty(
				fc.array(fc.integer({ min: 0, max: 20 }), { minLength: 3, maxLength: 3 }),
				async ([first = 0, second = 0, working = 0]) => {
					const [id, before] = [randomUUID(), await quantity()];
					let asking = false;
					let done = false;
					const send = async (ms: number) => {
						await pause(ms);
						return writeAfter(
							tech(),
							'inspect',
							{ id, content: { count: 1 } },
							async () => {
								// An instrument that one has at a time, and that is used up.
								if (asking || done) throw new Refusal('conflict', 'The instrument is busy.');
								asking = true;
								await pause(working);
								asking = false;
								done = true;
							},
							(at) => count(at, own)
						);
					};
					expect(await Promise.all([send(first), send(second)])).toEqual([
						{ counted: 'A2' },
						{ counted: 'A2' }
					]);
					expect(await quantity()).toBe(before + 1);
				}
			),
			{ numRuns: 25 }
		);
	});

	it('tells whoever sends the same while the first try hangs that it is under way, not that nothing was changed', async () => {
		const [id, before] = [randomUUID(), await quantity()];
		let goOn = () => {};
		let began = () => {};
		const hanging = new Promise<void>((resolve) => (goOn = resolve));
		const begun = new Promise<void>((resolve) => (began = resolve));
		const first = write(tech(), 'inspect', { id, content: { count: 1 } }, async (at) => {
			began();
			await hanging;
			return count(at, own);
		});
		await begun;
		const retry = () =>
			write(tech(), 'inspect', { id, content: { count: 1 } }, (at) => count(at, own));
		await expectRefusal(retry(), 'busy', /still being done.*done once/);
		goOn();
		await first;
		expect(await retry()).toEqual({ counted: 'A2' });
		expect(await quantity()).toBe(before + 1);
	});

	it('refuses an id that was used for something else, or by somebody else, and says so', async () => {
		const id = randomUUID();
		const as = (context: Context, content: unknown) =>
			write(context, 'inspect', { id, content }, (at) => count(at, own));
		const before = await quantity();
		await as(tech(), { count: 1 });
		await expectRefusal(
			as(tech(), { count: 2 }),
			'conflict',
			/something else under the same number/
		);
		const other = own.yard.as(own.yard.people.second);
		await expectRefusal(
			as(other, { count: 1 }),
			'conflict',
			/something else under the same number/
		);
		expect(await quantity()).toBe(before + 1);
	});

	it('answers again before it asks an instrument anew', async () => {
		const id = randomUUID();
		let asked = 0;
		const send = () =>
			writeAfter(
				tech(),
				'inspect',
				{ id, content: 'read' },
				() => Promise.resolve(++asked),
				(_, n) => Promise.resolve({ n })
			);
		expect([await send(), await send(), await send()]).toEqual([{ n: 1 }, { n: 1 }, { n: 1 }]);
		expect(asked).toBe(1);
	});

	it('asks nobody and claims nothing without the permission', async () => {
		const viewer = own.yard.as(own.yard.people.viewer);
		let asked = 0;
		const id = randomUUID();
		await expectRefusal(
			writeAfter(
				viewer,
				'inspect',
				{ id, content: 1 },
				() => Promise.resolve(++asked),
				() => Promise.resolve()
			),
			'forbidden',
			/Ask a technician/
		);
		expect(asked).toBe(0);
		expect(await own.test.db.select().from(writeRequest).where(eq(writeRequest.id, id))).toEqual(
			[]
		);
	});

	it('leaves nothing of a rejected step whichever statement it dies before', async () => {
		const { id: runId } = await startRun(tech(), { id: randomUUID(), tag: 'HM-0002' });
		const step = given(runId, 'exhalation-disc', { value: 'reject', code: 'CURL' });
		const look = async () => ({
			entries: await entries(),
			state: await own.test.db.select().from(itemState),
			dues: await own.test.db.select().from(itemDue),
			answers: await own.test.raw`select * from inspection_answer where run_id = ${runId}`,
			faults: await own.test.raw`select * from defect`,
			claimed: await own.test.db.select().from(writeRequest)
		});
		const before = await look();
		let died = 0;
		for (let statements = 0; ; statements++) {
			const { context } = dyingAfter(statements);
			const outcome = await answer(context, step).then(
				() => 'kept',
				(error: Error) => error.message
			);
			if (outcome === 'kept') break;
			expect(outcome).toBe('the process died here');
			expect(await look()).toEqual(before);
			died++;
		}
		// Claim, run, answers, the answer, the fault, the rules, the facts, the state, the log: BEGIN and COMMIT besides.
		expect(died).toBeGreaterThanOrEqual(6);
		expect(died).toBeLessThanOrEqual(9);
		const after = await look();
		expect(after.answers).toHaveLength(1);
		expect(after.faults).toHaveLength(1);
		expect(after.entries).toBe(before.entries + 2);
		expect((await verifyChain(own.test.db)).broken).toBeUndefined();
	});
});

describe('two sends at once of', () => {
	it('a delivery to a lot that is there count once', async () => {
		const before = await quantity();
		const delivery = {
			id: randomUUID(),
			modelId: (await lotModel()) ?? '',
			lot: 'L1',
			useBy: '2030-01-01',
			quantity: 5,
			location: ''
		};
		await Promise.all([receiveLot(tech(), delivery), receiveLot(tech(), delivery)]);
		await receiveLot(tech(), delivery);
		expect(await quantity()).toBe(before + 5);
	});

	it('a new item, a team and a fill are one each, and no error of the database', async () => {
		const [model] = await own.test.raw`select id from item_model limit 1`;
		const piece = {
			id: randomUUID(),
			tag: 'HM-0777',
			modelId: String(model?.id),
			size: 'M',
			serial: '',
			placeId: own.yard.place
		};
		expect(await Promise.all([addItem(tech(), piece), addItem(tech(), piece)])).toEqual([
			'HM-0777',
			'HM-0777'
		]);
		const team = {
			id: randomUUID(),
			task: 'Tank 4',
			placeId: null,
			wearers: [
				{
					id: randomUUID(),
					wearer: 'Someone',
					set: '',
					waterVolumeL: 6.8,
					startBar: 300,
					channel: '',
					seal: true
				}
			]
		};
		await Promise.all([enterTeam(tech(), team), enterTeam(tech(), team)]);
		const source = await addCompressor(tech(), 'Compressor 1', new Date('2026-11-20T08:00:00Z'));
		await addCylinder(own.test, own.yard, 'CY-0777', { bar: 50 });
		const fill = { id: randomUUID(), tag: 'CY-0777', sourceId: source, looked: true };
		await Promise.all([startFill(tech(), undefined, fill), startFill(tech(), undefined, fill)]);
		const [{ n } = { n: -1 }] = await own.test
			.raw`select (select count(*) from entry_team)::int + (select count(*) from cylinder_fill)::int as n`;
		expect(n).toBe(2);
	});

	it('a move to a place is recorded once', async () => {
		const place = randomUUID();
		await own.test.raw`insert into place (id, name) values (${place}, 'Store')`;
		const move = { requestId: randomUUID(), tags: ['HM-0001'], placeId: place };
		const before = await entries();
		const moved = await Promise.all([moveItems(tech(), move), moveItems(tech(), move)]);
		expect(moved).toEqual([{ moved: 1 }, { moved: 1 }]);
		expect(await entries()).toBe(before + 1);
		const [row] = await own.test.db.select().from(item).where(eq(item.tag, 'HM-0001'));
		expect(row?.placeId).toBe(place);
	});
});

const lotModel = async () => {
	const [lot] = await own.test.db
		.select()
		.from(filterLot)
		.where(eq(filterLot.id, own.yard.lots.a2));
	return lot?.modelId;
};
