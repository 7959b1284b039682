import ICAL from 'ical.js';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { plusDays } from '../../src/core/plan/calendar.ts';
import { planSite } from '../../src/core/plan/plan-site.ts';
import { planInForce, plannedJobs } from '../../src/lib/server/db/queries/plan.ts';
import {
	inspectionRun,
	planFeed,
	workHours,
	workPlan
} from '../../src/lib/server/db/schema/index.ts';
import { closeHeavy } from '../../src/lib/server/jobs/heavy.ts';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import { planDay } from '../../src/lib/server/plan/day.ts';
import { planFacts } from '../../src/lib/server/plan/facts.ts';
import { makeFeed, readFeed, revokeFeed } from '../../src/lib/server/plan/feeds.ts';
import { buyAndFill, forecastFacts } from '../../src/lib/server/plan/forecast.ts';
import { setHours } from '../../src/lib/server/plan/hours.ts';
import { changePlan, planPage, renewPlan, takePlan } from '../../src/lib/server/plan/plan.ts';
import { history } from '../../src/lib/server/records/history.ts';
import { today } from '../../src/lib/server/today/shift-sheet.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { addPiece, inspected } from '../support/yard.ts';

const own = openYard(undefined, 'test');
/** A Tuesday. */
const NOON = new Date('2026-11-24T12:00:00Z');
const tech = (now = NOON) => own.yard.as(own.yard.people.technician, now);
const lead = (now = NOON) => own.yard.as(own.yard.people.supervisor, now);
const viewer = () => own.yard.as(own.yard.people.viewer, NOON);
afterAll(closeHeavy);

const TAGS = ['HM-0001', 'HM-0002', 'HM-0003', 'HM-0004', 'HM-0005', 'HM-0006'];
beforeEach(async () => {
	for (const tag of TAGS.slice(2)) await addPiece(own.test, own.yard, 'half-mask', tag);
	await inspected(own.test, own.yard, TAGS, new Date('2026-11-03T09:00:00Z'));
});

/** Levels the work and puts it in force. */
async function level(context: Context = tech()) {
	const facts = await planFacts(context);
	const { placed, relaxed } = planSite(facts);
	const since = (await planInForce(own.test.db))?.plan.number ?? 0;
	const { number } = await takePlan(context, {
		requestId: randomUUID(),
		since,
		placed,
		relaxed,
		way: 'anew'
	});
	return { facts, placed, number };
}
const wish = (since: number, one: Parameters<typeof changePlan>[1]['wish'], nevertheless = false) =>
	changePlan(tech(), { requestId: randomUUID(), since, wish: one, nevertheless });
const rows = async () =>
	(await plannedJobs(own.test.db)).map(({ jobKey, day }) => [jobKey, day] as const);

describe('a plan of the site', () => {
	it('has every due with its window, and is kept as it was made', async () => {
		const { facts, placed, number } = await level();
		const [first] = facts.jobs;
		expect(first).toMatchObject({
			tag: 'HM-0001',
			what: 'inspection',
			latest: '2026-12-03',
			place: 'Shed',
			kind: 'half masks',
			job: 'inspect'
		});
		expect(number).toBe(1);
		expect(new Map(await rows())).toEqual(new Map(placed.map(({ key, day }) => [key, day])));
		for (const { key, day } of placed) {
			const job = facts.jobs.find((one) => one.key === key);
			expect(day >= (job?.earliest ?? '') && day <= (job?.latest ?? '')).toBe(true);
		}
		const page = await planPage(tech());
		expect(page.inForce).toMatchObject({ number: 1, way: 'anew', stale: false });
		expect(page.inForce?.figures.levelled.daysUnderFloor).toBe(0);
		const [told] = await history(lead(), { limit: 1 });
		expect(told?.says).toMatch(/^Plan 1 made anew: \d+ jobs/);
	});

	it('falls due again inside the plan, and then counts from the earliest day of the time before', async () => {
		const { jobs } = await planFacts(tech());
		const chain = jobs.filter(({ tag, what }) => tag === 'HM-0001' && what === 'inspection');
		expect(chain.length).toBeGreaterThan(1);
		const [first, second] = chain;
		expect(second?.latest).toBe(plusDays(first?.earliest ?? '', 30));
	});

	it('is refused where it does not hold, with what does not', async () => {
		const facts = await planFacts(tech());
		const [job] = facts.jobs;
		const take = (day: string, userId = facts.workers[0]?.id ?? '') =>
			takePlan(tech(), {
				requestId: randomUUID(),
				since: 0,
				placed: [{ key: job?.key ?? '', day, userId }],
				relaxed: [],
				way: 'anew'
			});
		await expectRefusal(
			take('2026-12-18'),
			'conflict',
			/HM-0001 on 2026-12-18 lies outside its window/
		);
		// All on one day: more than it has, and fewer ready than the floor.
		const all = facts.jobs
			.filter(({ again }) => again === 0)
			.map(({ key }) => ({ key, day: '2026-12-02', userId: facts.workers[0]?.id ?? '' }));
		await expectRefusal(
			takePlan(tech(), {
				requestId: randomUUID(),
				since: 0,
				placed: all,
				relaxed: [],
				way: 'anew'
			}),
			'conflict',
			/would be ready at Shed on 2026-12-02/
		);
		expect(await planInForce(own.test.db)).toBeNull();
	});

	it('goes in force once: of two at the same time the second is told', async () => {
		const facts = await planFacts(tech());
		const { placed } = planSite(facts);
		const take = () =>
			takePlan(tech(), { requestId: randomUUID(), since: 0, placed, relaxed: [], way: 'anew' });
		const both = await Promise.allSettled([take(), take()]);
		expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
		expect(await own.test.db.select().from(workPlan)).toHaveLength(1);
	});

	it('names a floor that no plan keeps, and keeps it lower', async () => {
		await own.test.raw`update place_floor set floor = 6 where family = 'half-mask'`;
		const facts = await planFacts(tech());
		const plan = planSite(facts);
		// All six fall due again within five working days: two are away on one of them.
		expect(plan.relaxed).toEqual([{ place: 'Shed', kind: 'half masks', from: 6, to: 4 }]);
		expect(plan.lost).toEqual([]);
		await level();
		const [told] = await history(lead(), { limit: 1 });
		expect(told?.says).toContain('Floors kept lower: half masks at Shed, 4 for 6');
		// From where it stands the same floor holds; made anew it is asked for again.
		expect(planSite(await planFacts(tech()), { warm: true }).relaxed).toHaveLength(1);
		await own.test.raw`update place_floor set floor = 1 where family = 'half-mask'`;
		expect(planSite(await planFacts(tech())).relaxed).toEqual([]);
	});
});

describe('wishes', () => {
	it('pin a job: it stays, and nothing else moves that need not', async () => {
		const { placed, facts, number } = await level();
		const [job] = placed;
		const one = facts.jobs.find(({ key }) => key === job?.key);
		const day = one?.latest === job?.day ? one?.earliest : one?.latest;
		await wish(number, {
			kind: 'pin',
			key: job?.key ?? '',
			day: day ?? '',
			userId: job?.userId ?? ''
		});
		const now = new Map(await rows());
		expect(now.get(job?.key ?? '')).toBe(day);
		const moved = placed.filter(
			({ key, day: before }) => key !== job?.key && now.get(key) !== before
		);
		expect(moved).toEqual([]);
		const page = await planPage(tech());
		expect(page.inForce).toMatchObject({ number: 2, way: 'moved' });
		expect(page.inForce?.changes).toHaveLength(1);
		expect(page.facts.pins).toHaveLength(1);
		await wish(2, { kind: 'unpin', key: job?.key ?? '' });
		expect((await planPage(tech())).facts.pins).toEqual([]);
	});

	it('bar a day: what stood there goes elsewhere; what is pinned there says so first', async () => {
		const { placed, number } = await level();
		const { day = '' } = placed[0] ?? {};
		await wish(number, { kind: 'bar', day, userId: null, why: 'Stock-take' });
		expect((await rows()).filter(([, on]) => on === day)).toEqual([]);
		const key = placed[0]?.key ?? '';
		const other = new Map(await rows()).get(key) ?? '';
		await wish(2, { kind: 'pin', key, day: other, userId: placed[0]?.userId ?? '' });
		await expectRefusal(
			wish(3, { kind: 'bar', day: other, userId: null, why: '' }),
			'conflict',
			/HM-000\d would find no day\. What would help: /
		);
		await wish(3, { kind: 'bar', day: other, userId: null, why: '' }, true);
		expect(new Map(await rows()).get(key)).toBeUndefined();
		await wish(4, { kind: 'open', day: other, userId: null });
		expect(new Map(await rows()).get(key)).toBe(other);
	});

	it('are refused where they name what is not there, and from an older plan', async () => {
		const { placed, number } = await level();
		const { key = '', userId = '' } = placed[0] ?? {};
		await expectRefusal(
			wish(number, { kind: 'pin', key: 'nothing', day: '2026-12-01', userId }),
			'not found',
			/done or gone meanwhile/
		);
		await expectRefusal(
			wish(number, { kind: 'pin', key, day: '2026-11-28', userId }),
			'invalid',
			/Nobody works on 28 Nov 2026/
		);
		await expectRefusal(
			wish(number, { kind: 'pin', key, day: '2026-12-01', userId: 'nobody' }),
			'invalid',
			/Choose somebody who works/
		);
		await expectRefusal(wish(0, { kind: 'again' }), 'conflict', /changed meanwhile/);
	});
});

describe('an evening', () => {
	it('takes out what was done, puts in what is new, and leaves the rest', async () => {
		const { placed } = await level();
		await inspected(own.test, own.yard, ['HM-0001'], new Date('2026-11-24T14:00:00Z'));
		await addPiece(own.test, own.yard, 'half-mask', 'HM-0007');
		const evening = new Date('2026-11-24T18:00:00Z');
		await renewPlan({ ...tech(evening) });
		const page = await planPage(tech(evening));
		expect(page.inForce).toMatchObject({ number: 2, way: 'evening', by: null });
		expect(page.inForce?.changes.some(({ tag, from }) => tag === 'HM-0007' && !from)).toBe(true);
		const now = new Map(await rows());
		for (const { key, day } of placed)
			if (now.has(key) && !page.inForce?.changes.some((one) => one.key === key))
				expect(now.get(key)).toBe(day);
	});

	it('makes no plan where there is none', async () => {
		expect(await renewPlan(tech())).toBeNull();
	});

	it('says of a plan that is over two weeks old that it is', async () => {
		await level();
		const late = new Date(NOON.getTime() + 20 * 86_400_000);
		expect((await planPage(tech(late))).inForce?.stale).toBe(true);
	});
});

describe('who works', () => {
	it('has the minutes of the site without own hours, and own ones where they are set', async () => {
		const userId = own.yard.people.technician.id;
		expect((await planFacts(tech())).workers).toMatchObject([{ id: userId }]);
		const minutes = [60, 60, 60, 0, 60, 0, 0];
		await setHours(lead(), { requestId: randomUUID(), userId, minutes });
		expect((await planFacts(tech())).workers[0]?.minutes).toEqual(minutes);
		await setHours(lead(), { requestId: randomUUID(), userId, minutes: [0, 0, 0, 0, 0, 0, 0] });
		const facts = await planFacts(tech());
		expect(facts.workers).toEqual([]);
		const plan = planSite(facts);
		expect(plan.outcome).toBe('infeasible');
		expect(plan.placed).toEqual([]);
		expect(await own.test.db.select().from(workHours)).toHaveLength(1);
	});

	it('does only what they are authorised for, once anybody is', async () => {
		await own.test
			.raw`insert into authorisation (id, user_id, job, families, model_ids, from_day, given_by, given_at, evidence)
			values (${randomUUID()}, ${own.yard.people.supervisor.id}, 'inspect', '{}', '{}', '2026-01-01', ${own.yard.people.supervisor.id}, now(), 'x')`;
		const plan = planSite(await planFacts(tech()));
		expect(plan.outcome).toBe('infeasible');
		expect(plan.relax.map(({ change }) => change).join(' ')).toContain('Authorise');
	});
});

describe('what takes its order from the plan', () => {
	it('is Today, and the day of whoever works', async () => {
		const { placed } = await level();
		const day = placed.map((one) => one.day).sort()[0] ?? '';
		const at = new Date(`${day}T09:00:00Z`);
		const sheet = await today(tech(at));
		const planned = sheet.lines.filter((line) => line.planned === day);
		expect(planned.length).toBeGreaterThan(0);
		expect(planned[0]?.detail).toContain('Planned for today');
		const mine = await planDay(tech(at), {});
		expect(mine.day).toBe(day);
		expect(mine.jobs.length).toBe(placed.filter((one) => one.day === day).length);
		expect(mine.jobs.every(({ done }) => !done)).toBe(true);
		await inspected(own.test, own.yard, [mine.jobs[0]?.tag ?? ''], at);
		const after = await planDay(tech(at), { day });
		expect(after.jobs.find(({ tag }) => tag === mine.jobs[0]?.tag)?.done).toBe(true);
	});
});

describe('a calendar', () => {
	it('is read with its token by a parser of another package, until it is revoked', async () => {
		const { placed, facts } = await level();
		const userId = own.yard.people.technician.id;
		const id = randomUUID();
		const token = await makeFeed(tech(), { id, userId, placeId: null });
		const text = await readFeed(tech(), token, 'https://grevan.example');
		const calendar = new ICAL.Component(ICAL.parse(text ?? '') as unknown[]);
		const events = calendar.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));
		expect(events).toHaveLength(placed.length);
		const days = events.map(({ startDate }) => startDate.toString()).sort();
		expect(days).toEqual(placed.map(({ day }) => day).sort());
		expect(events[0]?.startDate.isDate).toBe(true);
		expect(events.map(({ summary }) => summary).join()).toContain(facts.jobs[0]?.tag);
		// The token itself is kept nowhere.
		expect(JSON.stringify(await own.test.db.select().from(planFeed))).not.toContain(token);
		await revokeFeed(tech(), randomUUID(), id);
		// As often as a client asks.
		for (let i = 0; i < 5; i++) expect(await readFeed(tech(), token, '')).toBeNull();
		expect(await readFeed(tech(), 'never-was', '')).toBeNull();
	});

	it('of a place holds what is done there', async () => {
		await level();
		const [shed] = await own.test.raw<{ id: string }[]>`select id from place where name = 'Shed'`;
		const token = await makeFeed(tech(), {
			id: randomUUID(),
			userId: null,
			placeId: shed?.id ?? ''
		});
		expect(await readFeed(tech(), token, '')).toContain('HM-0001');
		await expectRefusal(
			makeFeed(tech(), { id: randomUUID(), userId: 'nobody', placeId: null }),
			'invalid',
			/whose calendar/
		);
	});
});

describe('what it is made from', () => {
	it('is seen by a viewer without what lapses of people', async () => {
		await own.test
			.raw`insert into wearer (id, number, name, trained_until) values (${randomUUID()}, 'W900', 'Runa', '2026-12-05')`;
		expect((await planPage(tech())).facts.jobs.some(({ what }) => what === 'training')).toBe(true);
		expect((await planPage(viewer())).facts.jobs.some(({ what }) => what === 'training')).toBe(
			false
		);
		expect((await forecastFacts(viewer())).plan.jobs.some(({ tag }) => tag === 'W900')).toBe(false);
	});

	it('has minutes of its own once there are enough, by the middle one', async () => {
		const minutesOf = async () =>
			(await planFacts(tech())).jobs.find(({ what }) => what === 'inspection')?.minutes;
		const took = async (minutes: number, runs: number) => {
			const [mask] = own.yard.masks;
			for (let i = 0; i < runs; i++) {
				const at = new Date(Date.parse('2026-10-01T09:00:00Z') + i * 3_600_000);
				await own.test.db.insert(inspectionRun).values({
					id: randomUUID(),
					itemId: mask ?? '',
					procedure: 'none',
					procedureVersion: 1,
					startedBy: own.yard.people.technician.id,
					startedAt: new Date(at.getTime() - minutes * 60_000),
					signedBy: own.yard.people.technician.id,
					signedAt: at,
					outcome: 'pass',
					reasons: []
				});
			}
		};
		expect(await minutesOf()).toBe(5);
		// Six that took no time stand there already; the middle of all counts from ten on.
		await took(9, 3);
		expect(await minutesOf()).toBe(5);
		await took(9, 5);
		expect(await minutesOf()).toBe(9);
	});

	it('counts what fails, what is used and what runs out', async () => {
		const facts = await forecastFacts(tech());
		const shed = facts.rates.find(({ place }) => place === 'Shed');
		expect(shed?.failures.of).toBe(TAGS.length);
		expect(shed?.models.reduce((sum, { count }) => sum + count, 0)).toBe(TAGS.length);
		const bought = await buyAndFill(tech());
		expect(bought.lines.length).toBeGreaterThan(0);
		for (const line of bought.lines) expect(line.order > 0).toBe(line.orderBy !== null);
	});
});
