import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from 'vitest';
import { byConsequence } from '../../src/core/plan/agenda.ts';
import { plusDays } from '../../src/core/plan/calendar.ts';
import { problemOfSite } from '../../src/core/plan/site-problem.ts';
import { defect, serviceJob } from '../../src/lib/server/db/schema/index.ts';
import { finishJob, releaseJob, startJob } from '../../src/lib/server/faults/jobs.ts';
import { answer } from '../../src/lib/server/inspection/answers.ts';
import { signRun, startRun } from '../../src/lib/server/inspection/runs.ts';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import { planFacts } from '../../src/lib/server/plan/facts.ts';
import { today } from '../../src/lib/server/today/shift-sheet.ts';
import { openYard } from '../support/database.ts';
import { answerAll, given, inspect } from '../support/work.ts';
import { addPiece, inspected } from '../support/yard.ts';

const NOON = new Date('2026-11-24T12:30:00Z');
const own = openYard(undefined, 'test');
let tech: Context;
let lead: Context;
beforeEach(() => {
	tech = own.yard.as(own.yard.people.technician, NOON);
	lead = own.yard.as(own.yard.people.supervisor, NOON);
});

const lines = async (context = tech) => (await today(context)).lines;
const about = async (tag: string, context = tech) =>
	(await lines(context)).filter((line) => line.tag === tag);
const jobs = async (context: Context, days: number) => (await planFacts(context, days)).jobs;
const faultId = async () => (await own.test.db.select().from(defect))[0]?.id ?? '';
const job = async () => (await own.test.db.select().from(serviceJob))[0];

describe('the shift sheet', () => {
	it('asks for what was never inspected, and counts nothing of it as usable', async () => {
		const sheet = await today(tech);
		expect(sheet.asOf).toBe('2026-11-24');
		expect(sheet.lines.map((line) => [line.tag, line.kind, line.title])).toEqual([
			['HM-0001', 'overdue', 'Never inspected here'],
			['HM-0002', 'overdue', 'Never inspected here']
		]);
		expect(sheet.lines.every((line) => line.belowFloor && line.state === 'overdue')).toBe(true);
		expect(sheet.shelves).toMatchObject([
			{ family: 'half-mask', short: 1, rows: [{ place: 'Shed', floor: 1, usable: 0 }] }
		]);
		expect(sheet.minutes).toBe(sheet.lines.reduce((sum, line) => sum + line.minutes, 0));
		expect(sheet.minutes).toBeGreaterThan(0);
	});

	it('is empty once all is inspected, and the shelf is full', async () => {
		for (const tag of ['HM-0001', 'HM-0002']) await inspect(tech, tag);
		const sheet = await today(tech);
		expect(sheet.lines).toEqual([]);
		expect(sheet.minutes).toBe(0);
		expect(sheet.shelves[0]).toMatchObject({
			short: 0,
			usable: 2,
			rows: [{ usable: 2, counts: { ready: 2 } }]
		});
	});

	it('shows an inspection that was begun, whose it is, and where it goes on', async () => {
		const { id } = await startRun(tech, { id: randomUUID(), tag: 'HM-0001' });
		await answer(tech, given(id, 'exhalation-disc'));
		expect(await about('HM-0001', lead)).toContainEqual(
			expect.objectContaining({
				kind: 'running',
				href: `/runs/${id}`,
				detail: `Started by ${own.yard.people.technician.name}`,
				on: '2026-11-24'
			})
		);
		await answerAll(tech, id);
		await signRun(tech, { requestId: randomUUID(), runId: id });
		expect(await about('HM-0001')).toEqual([]);
	});

	it('follows a fault from the reject to the release, one line at a time', async () => {
		await inspect(tech, 'HM-0002');
		await inspect(tech, 'HM-0001', { 'exhalation-disc': 'CURL' });
		expect(await about('HM-0001')).toMatchObject([
			{
				kind: 'held',
				state: 'held',
				href: `/faults/${await faultId()}`,
				title: expect.stringMatching(/^Exhalation valve and seat: /) as string,
				detail: expect.stringMatching(/^Held since 24 Nov 2026, Shed\. Usual repair: /) as string
			}
		]);
		await startJob(tech, {
			id: randomUUID(),
			itemId: own.yard.masks[0] ?? '',
			repair: 'replace-disc',
			defectIds: [await faultId()]
		});
		expect(await about('HM-0001')).toMatchObject([
			{ kind: 'held', state: 'in service', title: expect.stringMatching(/^Repair under way: /) }
		]);
		const started = await job();
		await finishJob(tech, {
			requestId: randomUUID(),
			jobId: started?.id ?? '',
			version: started?.version ?? 0,
			proof: [true, true, true],
			parts: [{ lotId: own.yard.disc, quantity: 1 }],
			note: ''
		});
		expect(await about('HM-0001')).toMatchObject([
			{ kind: 'release', title: 'Repaired: inspect, then release' }
		]);
		await inspect(tech, 'HM-0001');
		const done = await job();
		await releaseJob(lead, {
			requestId: randomUUID(),
			jobId: done?.id ?? '',
			version: done?.version ?? 0
		});
		expect(await lines()).toEqual([]);
	});

	it('puts what someone might breathe through first, and each line only once', async () => {
		const tags = ['HM-0001', 'HM-0002'];
		await inspected(own.test, own.yard, tags, new Date('2026-10-27T09:00:00Z'));
		await inspect(tech, 'HM-0002', { 'exhalation-disc': 'CURL' });
		await addPiece(own.test, own.yard, 'full-face', 'FF-0001');
		const { id } = await startRun(tech, { id: randomUUID(), tag: 'FF-0001' });
		const sheet = await lines();
		expect(sheet.map((line) => line.kind)).toEqual(['held', 'overdue', 'running', 'due']);
		expect(sheet).toEqual([...sheet].sort(byConsequence));
		expect(new Set(sheet.map((line) => line.key)).size).toBe(sheet.length);
		expect(sheet[2]?.href).toBe(`/runs/${id}`);
	});

	it('names a day by the clock of the site, not by that of the server', async () => {
		await inspected(own.test, own.yard, ['HM-0001', 'HM-0002'], new Date('2026-11-01T09:00:00Z'));
		const lastDay = (await jobs(tech, 60))[0]?.latest ?? '';
		// Half past noon in London is half past one of the next day in Auckland.
		const at = (zone: string, day: string): Context => ({
			...own.yard.as(own.yard.people.technician, new Date(`${day}T12:30:00Z`)),
			site: { ...tech.site, timeZone: zone }
		});
		expect((await today(at('Europe/London', lastDay))).asOf).toBe(lastDay);
		expect((await lines(at('Europe/London', lastDay))).map((line) => line.kind)).toEqual([
			'due',
			'due'
		]);
		const there = at('Pacific/Auckland', lastDay);
		expect(await planFacts(there, 1)).toMatchObject({ from: plusDays(lastDay, 1) });
		const [late] = problemOfSite(await planFacts(there, 1)).jobs;
		expect(late?.late).toBe(true);
	});

	it('shows thirty of a kind at most, and the plan all', async () => {
		for (let i = 0; i < 34; i++)
			await addPiece(own.test, own.yard, 'half-mask', `HM-1${String(i).padStart(3, '0')}`);
		expect((await lines()).filter((line) => line.kind === 'overdue')).toHaveLength(30);
		expect((await jobs(tech, 30)).filter(({ again }) => again === 0)).toHaveLength(36);
	});

	it('of a retired item says nothing more', async () => {
		await own.test
			.raw`update item_state set blocked = 'retired' where item_id = ${own.yard.masks[0] ?? ''}`;
		expect(await about('HM-0001')).toEqual([]);
		expect(new Set((await jobs(tech, 30)).map(({ tag }) => tag))).toEqual(new Set(['HM-0002']));
	});
});

describe('the plan', () => {
	it('has each due of each item once, with its last day', async () => {
		await inspected(own.test, own.yard, ['HM-0001'], new Date('2026-11-10T09:00:00Z'));
		await inspected(own.test, own.yard, ['HM-0002'], new Date('2026-11-20T09:00:00Z'));
		const facts = await planFacts(tech, 60);
		expect([facts.from, facts.until]).toEqual(['2026-11-24', plusDays('2026-11-24', 60)]);
		const first = facts.jobs.filter(({ again }) => again === 0);
		expect(first.map(({ tag, latest }) => [tag, latest])).toEqual([
			['HM-0001', '2026-12-10'],
			['HM-0002', '2026-12-20']
		]);
		expect(new Set(facts.jobs.map(({ key }) => key)).size).toBe(facts.jobs.length);
		expect(await jobs(tech, 0)).toEqual([]);
	});
});
