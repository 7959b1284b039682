import { randomUUID } from 'node:crypto';
import { createServer, type Server } from 'node:net';
import { eq } from 'drizzle-orm';
import { afterAll, describe, expect, it } from 'vitest';
import { boardFeed } from '../../src/lib/server/air/board.ts';
import { enterTeam } from '../../src/lib/server/air/entries.ts';
import { startTest } from '../../src/lib/server/bench/tests.ts';
import { forgetLeases, holdLease } from '../../src/lib/server/db/queries/leases.ts';
import { defect, entryWearer } from '../../src/lib/server/db/schema/index.ts';
import { finishJob, openJobs, releaseJob, startJob } from '../../src/lib/server/faults/jobs.ts';
import { answer } from '../../src/lib/server/inspection/answers.ts';
import { startRun } from '../../src/lib/server/inspection/runs.ts';
import { history } from '../../src/lib/server/records/history.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import { today } from '../../src/lib/server/today/shift-sheet.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { given, inspect } from '../support/work.ts';
import { addPiece } from '../support/yard.ts';

const own = openYard();
const { tech } = own;
const boss = () => own.yard.as(own.yard.people.supervisor);
const lines = async () => (await today(tech())).lines;

describe('an item taken out of use for good', () => {
	it('leaves none of its other faults as work', async () => {
		await inspect(tech(), 'HM-0001', { 'exhalation-disc': 'CURL', 'harness-straps': 'ELAS' });
		const found = await own.test.db.select().from(defect);
		expect((await lines()).filter((line) => line.kind === 'held')).toHaveLength(2);
		const jobId = await startJob(tech(), {
			id: randomUUID(),
			itemId: own.yard.masks[0] ?? '',
			repair: 'retire',
			defectIds: [found[0]?.id ?? '']
		});
		const proof = [true, true, true, true];
		await finishJob(tech(), {
			requestId: randomUUID(),
			jobId,
			version: 1,
			proof,
			parts: [],
			note: ''
		});
		await releaseJob(boss(), { requestId: randomUUID(), jobId, version: 2 });
		expect((await lines()).filter((line) => line.tag === 'HM-0001')).toEqual([]);
		const page = await itemPage(tech(), 'HM-0001');
		expect([page.verdict.outcome, page.defects, page.dues]).toEqual(['retired', [], []]);
	});
});

describe('the second report of a fault', () => {
	it('is taken back with an entry of its own', async () => {
		await addPiece(own.test, own.yard, 'half-mask', 'HM-0500');
		await inspect(tech(), 'HM-0500', { 'exhalation-disc': 'CURL' });
		const { id } = await startRun(tech(), { id: randomUUID(), tag: 'HM-0500' });
		const reject = { value: 'reject' as const, code: 'CURL' };
		await answer(tech(), given(id, 'exhalation-disc', reject));
		await answer(tech(), given(id, 'exhalation-disc', { value: 'cleared' }));
		const { item } = await itemPage(tech(), 'HM-0500');
		const said = (await history(tech(), { itemId: item.id })).map((line) => line.says);
		expect(said.slice(0, 2)).toEqual([
			'One report of a fault taken back before signing: CURL, valve disc curled or creased',
			'Fault reported again: CURL, valve disc curled or creased'
		]);
	});
});

describe('a repair under way', () => {
	it('stands on the shift sheet whatever was set aside before it', async () => {
		const { id: itemId } = await addPiece(own.test, own.yard, 'half-mask', 'HM-0600');
		const by = own.yard.people.technician.id;
		for (let i = 0; i < 35; i++)
			await own.test.raw`insert into service_job
				(id, item_id, repair, started_by, started_at, proof, done_by, done_at, superseded_at)
				values (${randomUUID()}, ${itemId}, 'clean', ${by}, '2026-01-01', '[]', ${by}, '2026-01-02', '2026-01-03')`;
		await own.test.raw`insert into service_job (id, item_id, repair, started_by, started_at, proof)
			values (${randomUUID()}, ${itemId}, 'clean', ${by}, '2026-11-20', '[]')`;
		expect((await openJobs(own.test.db, 30)).map((row) => row.tag)).toEqual(['HM-0600']);
		expect((await lines()).find((line) => line.tag === 'HM-0600')?.title).toMatch(
			/^Repair under way/
		);
	});
});

describe('two teams with the same task and size', () => {
	it('have a line each, told apart, and each wearer the warning that is stored', async () => {
		for (const wearer of ['One', 'Two'])
			await enterTeam(tech(), {
				id: randomUUID(),
				task: 'Tank 4',
				placeId: null,
				wearers: [
					{
						id: randomUUID(),
						wearer,
						set: '',
						waterVolumeL: 6.8,
						startBar: 300,
						channel: '',
						seal: true
					}
				]
			});
		const keys = (await lines()).map((line) => line.key);
		expect(new Set(keys).size).toBe(keys.length);
		expect((await lines()).filter((line) => line.kind === 'inside')).toHaveLength(2);
		await own.test.db
			.update(entryWearer)
			.set({ warningBar: 60 })
			.where(eq(entryWearer.wearer, 'Two'));
		const { teams } = await boardFeed(own.test.db).load();
		await enterTeam(tech(), {
			id: randomUUID(),
			task: 'Tank 5',
			placeId: null,
			wearers: [
				{
					id: randomUUID(),
					wearer: 'Three',
					set: '',
					waterVolumeL: 6.8,
					startBar: 300,
					channel: '',
					seal: true
				}
			]
		});
		const fresh = (await boardFeed(own.test.db).load()).teams.flatMap((team) => team.wearers);
		expect(teams.length).toBe(2);
		expect(fresh.map((w) => [w.wearer, w.warningBar])).toEqual([
			['One', 55],
			['Two', 60],
			['Three', 55]
		]);
	});
});

describe('a bench that is started', () => {
	const open: Server[] = [];
	afterAll(() => open.forEach((server) => server.close()));

	/** A bench that refuses what it is told not to know, and looks at the log while it is talked to. */
	async function bench(refuses: string): Promise<{ address: string; free: boolean[] }> {
		const free: boolean[] = [];
		const server = createServer((socket) => {
			socket.setEncoding('utf8');
			socket.on('error', () => {});
			socket.on('data', (text: string) => {
				for (const line of text.split('\n').filter(Boolean))
					void own.test.raw`select seq from audit_head for update nowait`
						.then(
							() => free.push(true),
							() => free.push(false)
						)
						.then(() => {
							if (line === '*IDN?') socket.write('BENCH,T,1\n');
							else if (line.startsWith('STAT?')) socket.write('IDLE,\n');
							else if (line.startsWith('SYST')) socket.write('-113 unknown\n');
							else socket.write(line.startsWith(refuses) ? 'ERR\n' : 'OK\n');
						});
			});
		});
		open.push(server);
		await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
		const at = server.address();
		return { address: `127.0.0.1:${typeof at === 'object' ? at?.port : 0}`, free };
	}
	const misbehave = { leakPaPerMin: 1, temperatureRiseK: 0, fault: 'none', seed: 1, speed: 1 };
	const test = (tag: string, id = randomUUID()) => ({
		id,
		tag,
		recipe: 'suit-en',
		volumeL: null,
		misbehave
	});

	it('is talked to with the log free, and may refuse what only a simulated one knows', async () => {
		await addPiece(own.test, own.yard, 'gas-tight-suit', 'GS-0500');
		const { address, free } = await bench('SIM:');
		await startTest(tech(), [address], test('GS-0500'));
		expect(free.length).toBeGreaterThan(3);
		expect(free.every(Boolean)).toBe(true);
	});

	it('and does not start ends the test, to be repeated, and says so', async () => {
		await addPiece(own.test, own.yard, 'gas-tight-suit', 'GS-0501');
		const { address } = await bench('INIT');
		const asked = test('GS-0501');
		await expectRefusal(
			startTest(tech(), ['127.0.0.1:9', address], { ...asked, bench: 2 }),
			'unavailable',
			/refused INIT/
		);
		const [row] = await own.test
			.raw`select outcome, ended_at from bench_test where id = ${asked.id}`;
		expect(row?.outcome).toBe('repeat');
		expect((await itemPage(tech(), 'GS-0501')).defects).toEqual([]);
	});
});

describe('what one process does at a time', () => {
	it('is kept by it, and taken over when it has not been heard of', async () => {
		const db = own.test.db;
		expect(await holdLease(db, 'duty', 60_000)).toBe(true);
		expect(await holdLease(db, 'duty', 60_000)).toBe(true);
		await own.test.raw`update lease set holder = ${randomUUID()} where name = 'duty'`;
		expect(await holdLease(db, 'duty', 60_000)).toBe(false);
		await own.test
			.raw`update lease set until = clock_timestamp() - interval '1 ms' where name = 'duty'`;
		const both = await Promise.all([holdLease(db, 'duty', 60_000), holdLease(db, 'duty', 60_000)]);
		expect(both).toEqual([true, true]);
		await own.test.raw`update lease set until = now() - interval '2 days'`;
		await forgetLeases(db);
		expect(await own.test.raw`select * from lease`).toHaveLength(0);
	});
});
