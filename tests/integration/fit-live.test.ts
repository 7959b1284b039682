import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startInstruments } from '../../scripts/lib/instruments.mjs';
import { beforeTest, fitAgent } from '../../src/core/fit/agents.ts';
import { fitProtocol } from '../../src/core/fit/protocols.ts';
import { sequenceOf, stepNow } from '../../src/core/fit/sequence.ts';
import {
	fitChunk,
	fitSession,
	fitTest,
	item,
	wearer
} from '../../src/lib/server/db/schema/index.ts';
import type { SimulatedFace } from '../../src/lib/server/instruments/simulated/fit-counter.ts';
import { certificatePdf } from '../../src/lib/server/people/certificate.ts';
import { readingsOf, resumeFits } from '../../src/lib/server/people/fit-acquire.ts';
import { behaveSimulated, fitCounters } from '../../src/lib/server/people/fit-counters.ts';
import { moveFit, startFit, type StartFit, stopFit } from '../../src/lib/server/people/fit-live.ts';
import { readingsCsv, sessionPage, sessionSince } from '../../src/lib/server/people/fit-session.ts';
import {
	beginTasting,
	noticed,
	noticedNothing,
	screened
} from '../../src/lib/server/people/fit-taste.ts';
import { signSession } from '../../src/lib/server/people/fit-tests.ts';
import { eraseWearer } from '../../src/lib/server/people/own-data.ts';
import { wearerPage } from '../../src/lib/server/people/wearers.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';

const own = openYard();
let simulated: Awaited<ReturnType<typeof startInstruments>>;
let counters: string[];
beforeAll(async () => {
	simulated = await startInstruments({ benches: 1 });
	counters = simulated.env.GREVAN_FIT_COUNTER.split(',');
});
afterAll(() => simulated.stop());

const as = (role: 'viewer' | 'technician' | 'admin' = 'technician', now = new Date()) =>
	own.yard.as(own.yard.people[role], now);
/** With a clock that goes on, as the app has. */
const running = () => ({ ...as(), now: () => new Date() });
const face = (part: Partial<SimulatedFace> = {}): SimulatedFace => ({
	seed: 11,
	roomPerCm3: 6000,
	driftPerMin: 0,
	fit: { '': 600 },
	fault: 'none',
	speed: 400,
	...part
});
let count = 40;
async function person(): Promise<{ id: string; number: string }> {
	const [id, number] = [randomUUID(), `W${++count}`];
	await own.test.db.insert(wearer).values({ id, number, name: `Wearer ${number}` });
	return { id, number };
}
const start = (who: { id: string; number: string }, part: Partial<StartFit> = {}): StartFit => ({
	id: randomUUID(),
	wearerId: who.id,
	number: who.number,
	tag: 'HM-0001',
	modelId: '',
	size: '',
	method: 'quantitative',
	protocol: 'uk-seven',
	agent: null,
	worn: '',
	before: beforeTest(null).map(({ key }) => key),
	againAfter: null,
	face: face(),
	...part
});
const begun = async (input: StartFit) => {
	await startFit(running(), counters, input);
	return input.id;
};
const ended = async (id: string) => {
	await expect
		.poll(async () => (await sessionSince(own.test.db, id, 1e9)).ended, {
			timeout: 60_000,
			interval: 100
		})
		.toBe(true);
	return sessionPage(as(), id);
};
const sign = (id: string) => signSession(as(), { requestId: randomUUID(), id });

describe('a fit test with a counter', () => {
	it('is measured, judged, signed and certified; its readings stay as they came', async () => {
		const who = await person();
		const id = await begun(start(who));
		await expectRefusal(sign(id), 'conflict', /not ended/);
		const page = await ended(id);
		expect(page.session).toMatchObject({ ended: 'whole', size: 'M', mask: 'half' });
		expect(page.passed).toBe(true);
		const overall = page.counted?.verdict?.overall ?? 0;
		expect(Math.abs(overall / 600 - 1)).toBeLessThan(0.1);
		expect(page.readings).toHaveLength(
			sequenceOf(fitProtocol('uk-seven')).reduce((sum, { seconds }) => sum + seconds, 0)
		);
		// The same counts under the other pack, for comparison.
		expect(page.otherwise.map(({ name, outcome }) => [name, outcome])).toEqual([
			['US, eight exercises', 'pass']
		]);
		expect(await sign(id)).toMatchObject({ passed: true });
		await expectRefusal(sign(id), 'conflict', /signed already/);
		const { tests } = await wearerPage(as(), who.id);
		expect(tests).toMatchObject([
			{ model: 'T1', size: 'M', overall, fromPaper: false, verdict: { outcome: 'counts' } }
		]);
		const csv = (await readingsCsv(as(), id)).split('\r\n');
		expect(csv[0]).toBe('s,run,line,exercise,particles per cm3,flow');
		expect(csv).toHaveLength(page.readings.length + 2);
		const { pdf, name } = await certificatePdf(as(), id, null);
		expect(new TextDecoder().decode(pdf.slice(0, 5))).toBe('%PDF-');
		expect(name).toContain(who.number);
		// Frozen: neither the readings nor how it ended change any more.
		const { raw } = own.test;
		for (const change of [
			raw`update fit_chunk set first = 1 where session_id = ${id}`,
			raw`update fit_session set ended = 'lost' where id = ${id}`,
			raw`update fit_test set passed = false where session_id = ${id}`
		])
			await expect(change).rejects.toThrow();
	});

	it('says which movement let most in, and goes on: anew, another mask, none that seals', async () => {
		const who = await person();
		const leaking = { face: face({ fit: { '': 600, bend: 30 } }) };
		const first = await begun(start(who, leaking));
		const page = await ended(first);
		expect([page.passed, page.counted?.standing.worst?.key]).toEqual([false, 'bend']);
		expect(page.counted?.canPass).toBe(false);
		await sign(first);
		expect((await sessionPage(as(), first)).after?.outcome).toBe('put it on anew');
		// The same mask has to be put on anew, not another.
		await own.test.db.update(item).set({ size: 'L' }).where(eq(item.tag, 'HM-0002'));
		await expectRefusal(
			begun(start(who, { againAfter: first, tag: 'HM-0002' })),
			'conflict',
			/of size M/
		);
		const second = await begun(start(who, { ...leaking, againAfter: first }));
		await ended(second);
		await sign(second);
		const { after } = await sessionPage(as(), second);
		expect(after?.outcome).toBe('another mask');
		// What stands ready in another size, and not what failed.
		expect(after?.next.map(({ model, size, tested, few }) => [model, size, tested, few])).toEqual([
			['T1', 'L', 0, true]
		]);
		// A mask of another size than the test is for is refused.
		const wanted = after?.next[0];
		await expectRefusal(
			begun(start(who, { tag: 'HM-0001', size: wanted?.size ?? '' })),
			'conflict',
			/HM-0001 is size M/
		);
		const third = await begun(start(who, { tag: 'HM-0002', size: 'L' }));
		await ended(third);
		await sign(third);
		expect((await sessionPage(as(), third)).after?.outcome).toBe('done');
		const { tests } = await wearerPage(as(), who.id);
		expect(tests.map(({ size, verdict }) => [size, verdict.outcome])).toEqual([
			['L', 'counts'],
			['M', 'does not'],
			['M', 'does not']
		]);
		await own.test.db.update(item).set({ size: 'M' }).where(eq(item.tag, 'HM-0002'));
	});

	it('goes back by itself for a movement that was left for later, and makes one again when told', async () => {
		const who = await person();
		const id = await begun(start(who, { face: face({ speed: 60 }) }));
		const at = async (exercise: string) =>
			expect
				.poll(
					async () =>
						stepNow(sequenceOf(fitProtocol('uk-seven')), await readingsOf(own.test.db, id)),
					{
						timeout: 30_000,
						interval: 50
					}
				)
				.toMatchObject({ exercise, line: 'mask' });
		await at('deep');
		await moveFit(as(), counters, { requestId: randomUUID(), id, exercise: 'deep', how: 'later' });
		await at('side');
		await moveFit(as(), counters, {
			requestId: randomUUID(),
			id,
			exercise: 'normal',
			how: 'again'
		});
		const { counted, passed } = await ended(id);
		expect(passed).toBe(true);
		const tries = Object.fromEntries((counted?.measured ?? []).map((one) => [one.key, one.tries]));
		expect(tries.normal).toBeGreaterThanOrEqual(2);
		expect(counted?.measured.every(({ state }) => state === 'measured')).toBe(true);
		await expectRefusal(
			moveFit(as(), counters, { requestId: randomUUID(), id, exercise: 'deep', how: 'again' }),
			'conflict',
			/has ended/
		);
	});

	it('that is stopped, or whose counter was at fault, is not signed', async () => {
		const who = await person();
		const id = await begun(start(who, { face: face({ speed: 20 }) }));
		await stopFit(as(), counters, { requestId: randomUUID(), id });
		await expectRefusal(sign(id), 'conflict', /Not every exercise/);
		const clogged = await begun(start(who, { face: face({ fault: 'clogged tube' }) }));
		const page = await ended(clogged);
		expect([page.passed, page.session.ended]).toEqual([null, 'whole']);
		expect(page.counted?.measured.some(({ reason }) => reason?.rule === 'fit.flow')).toBe(true);
		await expectRefusal(sign(clogged), 'conflict', /pinched or clogged/);
		const [left] = await own.test.db.select().from(fitTest).where(eq(fitTest.wearerId, who.id));
		expect(left).toBeUndefined();
	});

	it('goes on when its counter is plugged in again, and is over when it stays away', async () => {
		const who = await person();
		const id = await begun(start(who, { face: face({ fault: 'unplugged', speed: 60 }) }));
		await expect
			.poll(async () => (await readingsOf(own.test.db, id)).length, { timeout: 20_000 })
			.toBeGreaterThan(20);
		await behaveSimulated(own.test.db, counters, id, 'none');
		expect((await ended(id)).passed).toBe(true);
		const away = await begun(start(who, { face: face({ fault: 'unplugged', speed: 60 }) }));
		const page = await ended(away);
		expect([page.session.ended, page.passed]).toEqual(['lost', null]);
		expect(page.readings.length).toBeGreaterThan(0);
		await behaveSimulated(own.test.db, counters, away, 'none');
	}, 90_000);

	it('is taken up by another process, without a reading lost or doubled', async () => {
		const who = await person();
		const id = await begun(start(who, { face: face({ speed: 100 }) }));
		await Promise.all([resumeFits(running(), counters), resumeFits(running(), counters)]);
		const { readings } = await ended(id);
		expect(readings.map(({ s }) => s)).toEqual(readings.map((_, i) => i + 1));
		const chunks = await own.test.db.select().from(fitChunk).where(eq(fitChunk.sessionId, id));
		expect(chunks.reduce((sum, one) => sum + one.readings.length, 0)).toBe(readings.length);
	});

	it('that was taken and never begun is ended', async () => {
		const who = await person();
		const id = randomUUID();
		const [mask] = await own.test.db.select().from(item).where(eq(item.tag, 'HM-0001'));
		await own.test.db.insert(fitSession).values({
			id,
			wearerId: who.id,
			modelId: mask?.modelId ?? '',
			size: 'M',
			mask: 'half',
			method: 'quantitative',
			ruleSet: 'uk',
			protocol: 'uk-seven',
			before: [],
			counter: 2,
			leastRoom: 1000,
			startedBy: own.yard.people.technician.id,
			startedAt: new Date(Date.now() - 120_000)
		});
		await resumeFits(running(), counters);
		expect((await sessionPage(as(), id)).session.ended).toBe('lost');
	});
});

describe('a fit test is not begun', () => {
	it.each([
		['with somebody else’s badge', { number: 'W999' }, /the badge says W999/],
		['without a badge', { number: '' }, /the badge says nothing/],
		['with something not looked at', { before: ['shaven'] }, /Before the test: the mask was/],
		['with a mask that is not there', { tag: 'HM-9999' }, /No item carries/],
		['without a mask', { tag: '' }, /Scan the mask/],
		['with a protocol of the other pack', { protocol: 'us-full' }, /of the other rule set/],
		['without a protocol', { protocol: null }, /Choose the protocol/],
		['on a counter that is not there', { counter: 9 }, /no such counter/],
		['after a test that was not made', { againAfter: randomUUID() }, /no such test to repeat/],
		['by taste without an agent', { method: 'qualitative' as const }, /Choose what is tasted/],
		[
			'with an agent of the other pack',
			{ method: 'qualitative' as const, agent: 'smoke' },
			/not used under this rule set/
		]
	])('%s', async (_, part, says) => {
		const who = await person();
		const error = await begun(start(who, part)).then(
			() => null,
			(e: unknown) => e
		);
		expect(String((error as Error | null)?.message)).toMatch(says);
		const rows = await own.test.db.select().from(fitSession).where(eq(fitSession.wearerId, who.id));
		expect(rows).toEqual([]);
	});

	it('in a room with too little to count, and says how to raise it', async () => {
		const who = await person();
		await expectRefusal(
			begun(start(who, { face: face({ fault: 'few particles' }) })),
			'conflict',
			/300 particles.*1000 at least.*light/
		);
	});

	it('twice on one counter, nor on one person, however close together', async () => {
		const [one, other] = [await person(), await person()];
		const slow = { face: face({ speed: 5 }), counter: 1 };
		const both = await Promise.allSettled([begun(start(one, slow)), begun(start(other, slow))]);
		expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
		const refused = both.find((r) => r.status === 'rejected');
		expect(String(refused?.reason)).toMatch(/under way on this counter/);
		const winner = both[0]?.status === 'fulfilled' ? one : other;
		await expectRefusal(
			begun(start(winner, { face: face(), counter: 2 })),
			'conflict',
			/of this wearer is under way/
		);
		expect((await fitCounters(own.test.db, counters)).map(({ test }) => test?.name)).toEqual([
			`Wearer ${winner.number}`,
			undefined
		]);
		// Nobody is erased while their test runs.
		const admin = as('admin');
		const erase = () =>
			eraseWearer(admin, {
				requestId: randomUUID(),
				id: winner.id,
				version: 1,
				reason: 'their own request'
			});
		await expectRefusal(erase(), 'conflict', /is under way/);
		const id = both.find((r) => r.status === 'fulfilled')?.value ?? '';
		await stopFit(as(), counters, { requestId: randomUUID(), id });
		await erase();
		await expectRefusal(begun(start(winner)), 'not found', /no such wearer/);
	});

	it('sent twice it is begun once', async () => {
		const who = await person();
		const input = start(who);
		await Promise.all([begun(input), begun(input)]);
		const rows = await own.test.db.select().from(fitSession).where(eq(fitSession.wearerId, who.id));
		expect(rows).toHaveLength(1);
		await ended(input.id);
	});
});

describe('a qualitative fit test', () => {
	const T0 = new Date('2026-11-24T10:00:00Z');
	const later = (s: number) => as('technician', new Date(T0.getTime() + s * 1000));
	const step = (id: string) => ({ requestId: randomUUID(), id });
	async function tasting(agent = 'sweet') {
		const who = await person();
		const input = start(who, {
			method: 'qualitative',
			protocol: null,
			agent,
			before: beforeTest(fitAgent(agent)).map(({ key }) => key)
		});
		await startFit(later(0), [], input);
		return { who, id: input.id };
	}

	it('goes from the screening through seven minutes to a signature that counts up to ten', async () => {
		const { who, id } = await tasting();
		await expectRefusal(beginTasting(later(1), step(id)), 'conflict', /whether they notice it/);
		await expectRefusal(screened(later(5), { ...step(id), squeezes: 17 }), 'invalid', /10, 20, 30/);
		await screened(later(10), { ...step(id), squeezes: 20 });
		await expectRefusal(noticedNothing(later(20), step(id)), 'conflict', /have not begun/);
		await beginTasting(later(400), step(id));
		await expectRefusal(noticedNothing(later(400 + 419), step(id)), 'conflict', /not over yet/);
		await noticedNothing(later(400 + 420), step(id));
		expect(await signSession(later(830), step(id))).toMatchObject({ passed: true });
		const { tests } = await wearerPage(later(840), who.id);
		expect(tests).toMatchObject([
			{ method: 'qualitative', agent: 'sweet', overall: null, verdict: { outcome: 'counts' } }
		]);
		expect((await certificatePdf(later(850), id, null)).pdf.length).toBeGreaterThan(1000);
		await expectRefusal(readingsCsv(later(1), id), 'not found', /without a counter/);
	});

	it('noticed through the mask is not passed, and says at which movement', async () => {
		const { id } = await tasting('bitter');
		await screened(later(1), { ...step(id), squeezes: 10 });
		await beginTasting(later(2), step(id));
		await noticed(later(2 + 5 * 60 + 10), step(id));
		const page = await sessionPage(later(400), id);
		expect([page.session.ended, page.session.noticedAt, page.passed]).toEqual([
			'noticed',
			'bend',
			false
		]);
		expect(await signSession(later(401), step(id))).toMatchObject({ passed: false });
	});

	it('not noticed at all in the screening says nothing: it is over and not signed', async () => {
		const { id } = await tasting();
		await screened(later(1), { ...step(id), squeezes: null });
		await expectRefusal(signSession(later(2), step(id)), 'conflict', /nothing to sign/);
		await expectRefusal(screened(later(3), { ...step(id), squeezes: 10 }), 'conflict', /ended/);
	});
});
