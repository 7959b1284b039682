import { randomUUID } from 'node:crypto';
import { connect } from 'node:net';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { benchTrace } from '../../instruments/pressure-bench/simulate.ts';
import { startInstruments } from '../../scripts/lib/instruments.mjs';
import { stationOf } from '../../src/core/data/families.ts';
import { procedureFor } from '../../src/core/data/procedures.ts';
import { resumeTests } from '../../src/lib/server/bench/acquire.ts';
import { samplesOf } from '../../src/lib/server/bench/judged-test.ts';
import {
	importTrace,
	instruments,
	judgedBy,
	startTest,
	testPage,
	traceCsv
} from '../../src/lib/server/bench/tests.ts';
import { packTrace, unpackTrace } from '../../src/lib/server/bench/trace-bytes.ts';
import { benchTest, item, itemModel } from '../../src/lib/server/db/schema/index.ts';
import { faultsByStation, openDefects } from '../../src/lib/server/faults/faults.ts';
import { answer } from '../../src/lib/server/inspection/answers.ts';
import { runPage, signRun, startRun } from '../../src/lib/server/inspection/runs.ts';
import { runningTimers, startTimer } from '../../src/lib/server/inspection/timers.ts';
import { pressureBenchAt } from '../../src/lib/server/instruments/pressure-bench.ts';
import { rebuildState } from '../../src/lib/server/readiness/rebuild.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import {
	SITE,
	freshDatabase,
	smallSite,
	type SmallSite,
	type TestDatabase
} from '../support/database.ts';
import { SetMachine } from '../support/machine.ts';
import { expectRefusal } from '../support/refusal.ts';
import { heldUp } from '../support/held-up.ts';
import { inspect } from '../support/work.ts';

let test: TestDatabase;
let yard: SmallSite;
let bench: Awaited<ReturnType<typeof startInstruments>>;
let address: string;
const tech = (now?: Date) => yard.as(yard.people.technician, now);

/** A piece of equipment of another family. */
async function add(family: string, tag: string, ratedBar: number | null = null): Promise<string> {
	const [modelId, id] = [randomUUID(), randomUUID()];
	await test.db
		.insert(itemModel)
		.values({ id: modelId, family, maker: 'T', name: `T ${tag}`, mount: 'none', ratedBar });
	await test.db
		.insert(item)
		.values({ id, tag, family, modelId, size: 'M', placeId: yard.place, inUseSince: '2025-01-01' });
	await rebuildState(test.db, [id], SITE);
	return id;
}

async function startBench(): Promise<void> {
	bench = await startInstruments({ benches: 1 });
	address = bench.env.GREVAN_PRESSURE_BENCH;
}

beforeAll(startBench);
beforeEach(async () => {
	await test?.close();
	test = await freshDatabase();
	yard = await smallSite(test.db);
});
afterAll(async () => {
	await bench.stop();
	await test.close();
});

describe('a set with readings', () => {
	const procedure = procedureFor('ba-set', 'bench');
	const at = (s: number) => new Date(Date.parse('2026-11-24T10:00:00Z') + s * 1000);
	const give = (runId: string, step: string, part: object, now = at(0)) =>
		answer(tech(now), { id: randomUUID(), runId, step, value: 'good', seen: 1000, ...part });

	async function begin(): Promise<string> {
		await add('ba-set', 'BA-0001', 300);
		const { id } = await startRun(tech(), {
			id: randomUUID(),
			tag: 'BA-0001',
			procedure: procedure.key
		});
		for (const s of procedure.steps)
			if (!s.reading) await give(id, s.key, s.ifFitted ? { value: 'not fitted' } : {});
		await give(id, 'cyl-fill', { readings: { value: 294 } });
		return id;
	}

	it('takes the time of a hold from the server’s clock, whatever the page says', async () => {
		const id = await begin();
		const timer = randomUUID();
		await startTimer(tech(at(0)), { id: timer, runId: id, step: 'hold', start: 294 });
		await startTimer(tech(at(5)), { id: timer, runId: id, step: 'hold', start: 294 });
		expect(await runningTimers(test.db)).toMatchObject([{ tag: 'BA-0001', seconds: 60 }]);
		const hasty = give(id, 'hold', { readings: { start: 294, end: 293, seconds: 600 } }, at(30));
		await expectRefusal(hasty, 'invalid', /Held 30 s only/);
		await give(id, 'hold', { readings: { start: 1, end: 293 } }, at(61));
		const page = await runPage(tech(), id);
		expect(page.answers.find((a) => a.step === 'hold')).toMatchObject({
			value: 'good',
			readings: { start: 294, end: 293, seconds: 61 }
		});
		expect(page.timers).toEqual([]);
	});

	it('takes the time that passed, though the clock of the server be set an hour back meanwhile', async () => {
		const id = await begin();
		const machine = new SetMachine();
		const on = () => ({ ...tech(), now: machine.now, machine });
		await startTimer(on(), { id: randomUUID(), runId: id, step: 'hold', start: 294 });
		machine.pass(61);
		machine.set(-3_600_000);
		const readings = { start: 294, end: 293 };
		await answer(on(), {
			id: randomUUID(),
			runId: id,
			step: 'hold',
			value: 'good',
			seen: 1000,
			readings
		});
		const page = await runPage(tech(), id);
		expect(page.answers.find((a) => a.step === 'hold')?.readings).toMatchObject({ seconds: 61 });
	});

	it('a late whistle holds the set at once, by the core and not by the page', async () => {
		const id = await begin();
		await give(id, 'hold', { readings: { start: 294, end: 292, seconds: 60 } });
		await give(id, 'whistle', { value: 'good', readings: { value: 47 } });
		const state = await itemPage(tech(), 'BA-0001');
		expect(state.verdict.outcome).toBe('held');
		expect(state.defects).toMatchObject([{ station: 'whistle', code: 'WHL' }]);
		await signRun(tech(), { requestId: randomUUID(), runId: id });
		expect((await runPage(tech(), id)).run.outcome).toBe('fail');
	});

	it('its faults are counted apart from those of a mask, each on its own airway', async () => {
		await inspect(tech(), 'HM-0001', { 'exhalation-disc': 'CURL' });
		await give(await begin(), 'whistle', { value: 'good', readings: { value: 47 } });
		expect(await faultsByStation(test.db)).toEqual(
			expect.arrayContaining([
				{ family: 'half-mask', station: 'exhalation', n: 1 },
				{ family: 'ba-set', station: 'whistle', n: 1 }
			])
		);
		const open = await openDefects(test.db);
		expect(open.map((row) => stationOf(row.family, row.defect.station).key).sort()).toEqual([
			'exhalation',
			'whistle'
		]);
	});

	it('is not answered good without its reading, nor by one that cannot be', async () => {
		const id = await begin();
		await expectRefusal(give(id, 'whistle', {}), 'invalid', /type what was read/);
		await expectRefusal(
			give(id, 'whistle', { readings: { value: 4350 } }),
			'invalid',
			/more than a gauge shows/
		);
		await expectRefusal(
			startTimer(tech(), { id: randomUUID(), runId: id, step: 'whistle', start: 200 }),
			'invalid',
			/takes no hold/
		);
		await expectRefusal(
			startRun(tech(), { id: randomUUID(), tag: 'HM-0001', procedure: procedure.key }),
			'invalid',
			/no such procedure/
		);
	});
});

describe('a test on the bench', { timeout: 60_000 }, () => {
	const start = (part: object = {}, id = randomUUID()) =>
		startTest(tech(), [address], {
			id,
			tag: 'GS-0001',
			recipe: 'suit-en',
			volumeL: 600,
			misbehave: { leakPaPerMin: 10, temperatureRiseK: 0, fault: 'none', seed: 3, speed: 120 },
			...part
		}).then(() => id);
	const misbehave = (part: object) => ({
		misbehave: {
			leakPaPerMin: 10,
			temperatureRiseK: 0,
			fault: 'none',
			seed: 3,
			speed: 120,
			...part
		}
	});
	async function ended(id: string) {
		for (let tries = 0; tries < 300; tries++) {
			const { test: row } = await testPage(tech(), id);
			if (row.endedAt) return row;
			await new Promise((resolve) => setTimeout(resolve, 100));
		}
		throw new Error('the test did not end');
	}

	beforeEach(async () => {
		await add('gas-tight-suit', 'GS-0001');
	});

	it('is listened to, kept whole, judged and exported', async () => {
		expect(await instruments(test.db, [address])).toMatchObject([{ live: true }]);
		const id = await start();
		const row = await ended(id);
		expect(row.outcome).toBe('pass');
		expect(row.leakPaPerMin).toBeGreaterThan(8);
		const samples = await samplesOf(test.db, id);
		expect(samples).toHaveLength(721);
		expect(samples.map((x) => x.s)).toEqual(Array.from({ length: 721 }, (_, i) => i / 2));
		expect((await traceCsv(test.db, id)).split('\r\n')).toHaveLength(723);
		await expect(test.raw`update bench_test set outcome = 'fail'`).rejects.toThrow(/never changed/);
	});

	it('a leak holds the suit at once', async () => {
		await ended(await start(misbehave({ leakPaPerMin: 80 })));
		const page = await itemPage(tech(), 'GS-0001');
		expect(page.verdict.outcome).toBe('held');
		expect(page.defects).toMatchObject([{ code: 'LEAK', station: 'sleeves' }]);
	});

	it('a temperature that would turn the verdict, or a sensor that lies, is repeated and holds nothing', async () => {
		const cold = await ended(await start(misbehave({ leakPaPerMin: 12, temperatureRiseK: -1.2 })));
		expect(cold.outcome).toBe('repeat');
		expect(cold.reasons?.[0]?.rule).toBe('pressure.correction-decides');
		const stuck = await ended(await start(misbehave({ fault: 'freeze' })));
		expect(stuck.reasons?.[0]?.rule).toBe('trace.frozen');
		expect((await itemPage(tech(), 'GS-0001')).defects).toEqual([]);
	});

	it('garbage lines are asked for again, never taken', async () => {
		const row = await ended(await start(misbehave({ fault: 'garbage' })));
		expect(row.outcome).toBe('pass');
		expect(await samplesOf(test.db, row.id)).toHaveLength(721);
	});

	it('is taken up where it stood by whoever comes after', async () => {
		const id = await start(misbehave({ speed: 60 }));
		await new Promise((resolve) => setTimeout(resolve, 800));
		await resumeTests(tech(), [address]);
		await ended(id);
		expect(await samplesOf(test.db, id)).toHaveLength(721);
	});

	it('never takes the hold that the bench did before for its own', async () => {
		await ended(await start());
		await add('gas-tight-suit', 'GS-0002');
		// The bench still holds those readings; it takes its time to obey, and a process looks for tests meanwhile.
		const slow = await heldUp(address, 'CONF:HOLD', async (itself) => {
			await resumeTests(tech(), [itself]);
			await new Promise((resolve) => setTimeout(resolve, 600));
		});
		const id = randomUUID();
		await startTest(tech(), [slow.address], {
			id,
			tag: 'GS-0002',
			recipe: 'suit-en',
			volumeL: 600,
			...misbehave({ leakPaPerMin: 80 })
		});
		const row = await ended(id);
		slow.close();
		expect(row.outcome).toBe('fail');
		expect(row.leakPaPerMin).toBeGreaterThan(60);
	});

	it.each([
		['an hour ago', -3_600_000],
		['before the clock was set an hour back', 3_600_000]
	])(
		'that was taken %s and never begun is ended, to be repeated, and frees the bench',
		async (_, ms) => {
			const id = randomUUID();
			const [{ itemId } = { itemId: '' }] = await test.db
				.select({ itemId: item.id })
				.from(item)
				.where(eq(item.tag, 'GS-0001'));
			const taken = (startedAt: Date, bench: number, testId: string) =>
				test.db.insert(benchTest).values({
					id: testId,
					itemId,
					recipe: 'suit-en',
					recipeVersion: 1,
					instrument: 'B',
					bench,
					startedBy: yard.people.technician.id,
					startedAt
				});
			const fresh = randomUUID();
			const now = tech().now();
			await taken(new Date(now.getTime() + ms), 1, id);
			await taken(now, 2, fresh);
			await resumeTests(tech(), [address, address]);
			expect((await ended(id)).outcome).toBe('repeat');
			expect(await samplesOf(test.db, id)).toEqual([]);
			// One that is about to begin is left alone.
			expect((await testPage(tech(), fresh)).test.endedAt).toBeNull();
		}
	);

	it('of a bench that was started anew ends with what came, to be repeated', async () => {
		const id = await start(misbehave({ speed: 2 }));
		for (let kept = 0; kept < 2; kept = (await samplesOf(test.db, id)).length)
			await new Promise((resolve) => setTimeout(resolve, 100));
		await expect(test.raw`delete from bench_chunk`).rejects.toThrow(/append-only/);
		const [host = '', port = ''] = address.split(':');
		connect(Number(port), host).end('ABOR\n');
		const row = await ended(id);
		expect(row.outcome).toBe('repeat');
		expect((await samplesOf(test.db, id)).length).toBeGreaterThan(1);
	});

	it('is kept packed without loss, and takes no reading after its end', async () => {
		const id = await start(misbehave({ leakPaPerMin: 12, temperatureRiseK: -1.2 }));
		await ended(id);
		const [{ n } = { n: -1 }] = await test.raw`select count(*)::int n from bench_chunk`;
		expect(n).toBe(0);
		const samples = await samplesOf(test.db, id);
		expect(unpackTrace(packTrace(samples))).toEqual(samples);
		expect(await samplesOf(test.db, id, 700)).toEqual(samples.slice(700));
		await expect(
			test.raw`insert into bench_chunk values (${id}, 9999, '[]'::jsonb)`
		).rejects.toThrow(/has ended/);
		const other = await judgedBy(test.db, id, 'suit-us', 1);
		expect(other.reasons.length).toBeGreaterThan(0);
		expect((await testPage(tech(), id)).test.recipe).toBe('suit-en');
		await expectRefusal(judgedBy(test.db, id, 'mask-full-face', 1), 'not found', /no such/);
	});

	it('a file is judged the same way, and a bad one is named by its row', async () => {
		const csv = (leakPaPerMin: number) =>
			`s;Pa\n${benchTrace({ seed: 9, setPa: 1650, seconds: 360, perSecond: 2, leakPaPerMin })
				.map((x) => `${String(x.s).replace('.', ',')};${x.pa.toFixed(1).replace('.', ',')}`)
				.join('\n')}`;
		const bring = (text: string, id = randomUUID()) =>
			importTrace(tech(), {
				id,
				tag: 'GS-0001',
				recipe: 'suit-en',
				volumeL: null,
				file: 'old bench.csv',
				bytes: new TextEncoder().encode(text)
			}).then(() => id);
		expect((await ended(await bring(csv(12)))).outcome).toBe('pass');
		// 297 Pa lost of 300 allowed: within, but not by twice the uncertainty of 3 Pa.
		expect((await ended(await bring(csv(54)))).outcome).toBe('pass, marginal');
		const { facts, verdict } = await itemPage(tech(), 'GS-0001');
		expect(facts.watched?.[0]?.text).toMatch(/^Passed only within .*the loss may be 303 Pa/);
		expect(verdict.reasons.map((r) => r.rule)).toContain(facts.watched?.[0]?.rule);
		expect((await ended(await bring(csv(12)))).outcome).toBe('pass');
		expect((await itemPage(tech(), 'GS-0001')).facts.watched).toEqual([]);
		expect((await ended(await bring(csv(90)))).outcome).toBe('fail');
		await expectRefusal(bring('s,Pa\n0,1650\n1,high\n'), 'invalid', /Row 3, Pa: “high”/);
		await expectRefusal(bring('s,Pa\n1,1650\n0,1649\n'), 'invalid', /Row 3: its time/);
	});

	it('is refused where it cannot be', async () => {
		await expectRefusal(
			start({ recipe: 'mask-full-face' }),
			'invalid',
			/not tested by this recipe/
		);
		await expectRefusal(start({ tag: 'HM-0001' }), 'invalid', /not tested by this recipe/);
		const id = await start(misbehave({ speed: 30 }));
		await expectRefusal(start(), 'conflict', /busy/);
		await expectRefusal(start({ bench: 2 }), 'invalid', /no such bench/);
		await ended(id);
		const away = startTest(tech(), ['127.0.0.1:9'], {
			id: randomUUID(),
			tag: 'GS-0001',
			recipe: 'suit-en',
			volumeL: null
		});
		await expectRefusal(away, 'unavailable', /cannot be reached/);
		await expectRefusal(
			startTest(yard.as(yard.people.viewer), [address], {
				id: randomUUID(),
				tag: 'GS-0001',
				recipe: 'suit-en',
				volumeL: null
			}),
			'forbidden',
			/viewer/
		);
	});
});

describe('the line protocol', () => {
	it('answers errors by name and keeps its order', async () => {
		const client = pressureBenchAt(address);
		const [name, done] = await Promise.all([client.identify(), client.state()]);
		expect(name).toMatch(/^GREVAN,PRESSURE-BENCH/);
		expect(['idle', 'done']).toContain(done);
		await expect(client.start({ setPa: NaN, seconds: 1, perSecond: 1 })).rejects.toThrow(/-104/);
		client.close();
		expect(await client.identify()).toMatch(/GREVAN/);
		client.close();
	});
});
