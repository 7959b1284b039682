import { and, eq, getTableColumns, isNull } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { defect, inspectionAnswer, inspectionRun } from '../../src/lib/server/db/schema/index.ts';
import { standingReports } from '../../src/lib/server/db/queries/faults.ts';
import { reportFound, runAgain } from '../../src/lib/server/inspection/again.ts';
import { answer } from '../../src/lib/server/inspection/answers.ts';
import { runPage, signRun, startRun } from '../../src/lib/server/inspection/runs.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import {
	freshDatabase,
	smallSite,
	type SmallSite,
	type TestDatabase
} from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { answerAll, given, inspect, steps } from '../support/work.ts';

let test: TestDatabase;
let yard: SmallSite;
beforeEach(async () => {
	await test?.close();
	test = await freshDatabase();
	yard = await smallSite(test.db);
});
afterAll(() => test.close());

const start = (tag = 'HM-0001') =>
	startRun(yard.as(yard.people.technician), { id: randomUUID(), tag });
const state = async (tag = 'HM-0001') =>
	(await itemPage(yard.as(yard.people.viewer), tag)).verdict.outcome;
const openFaults = () =>
	test.db
		.select({ ...getTableColumns(defect), reports: standingReports })
		.from(defect)
		.where(isNull(defect.closedAt));

describe('an inspection', () => {
	it('makes a mask ready when all is good, and says who signed', async () => {
		expect(await state()).toBe('overdue');
		const id = await inspect(yard.as(yard.people.technician), 'hm-0001');
		expect(await state()).toBe('ready');
		const page = await runPage(yard.as(yard.people.viewer), id);
		expect(page).toMatchObject({ signedByName: 'The technician', run: { outcome: 'pass' } });
	});

	it('refuses an unknown tag by name', () =>
		expectRefusal(start('HM-9999'), 'not found', /No item carries the tag HM-9999/));

	it('starts once for two people in the same moment', async () => {
		const started = await Promise.all([start(), start(), start()]);
		expect(new Set(started.map((s) => s.id)).size).toBe(1);
		expect(started.filter((s) => !s.resumed)).toHaveLength(1);
	});

	it('keeps a retried answer once, also when the retries race', async () => {
		const { id } = await start();
		const one = given(id, 'label-read');
		const as = yard.as(yard.people.technician);
		await Promise.all([answer(as, one), answer(as, one), answer(as, one)]);
		await answer(as, one);
		expect(await test.db.select().from(inspectionAnswer)).toHaveLength(1);
	});

	it('holds the mask at the moment of the reject, before signing', async () => {
		const tech = yard.as(yard.people.technician);
		await inspect(tech, 'HM-0001');
		const { id } = await start();
		await answer(tech, given(id, 'exhalation-disc', { value: 'reject', code: 'CURL' }));
		expect(await state()).toBe('held');
		expect(await openFaults()).toMatchObject([
			{ station: 'exhalation', code: 'CURL', severity: 'stop' }
		]);
	});

	it('takes the fault back on undo before signing, and lets the mask go', async () => {
		const tech = yard.as(yard.people.technician);
		await inspect(tech, 'HM-0001');
		const { id } = await start();
		await answer(tech, given(id, 'exhalation-disc', { value: 'reject', code: 'CURL' }));
		await answer(tech, given(id, 'exhalation-disc', { value: 'cleared' }));
		expect(await state()).toBe('ready');
		expect(await test.db.select().from(defect)).toMatchObject([{ closedHow: 'withdrawn' }]);
	});

	it('replaces one code by another without leaving the first open', async () => {
		const tech = yard.as(yard.people.technician);
		const { id } = await start();
		await answer(tech, given(id, 'exhalation-disc', { value: 'reject', code: 'CURL' }));
		await answer(tech, given(id, 'exhalation-disc', { value: 'reject', code: 'DIRTY' }));
		expect((await openFaults()).map((d) => d.code)).toEqual(['DIRTY']);
	});

	it('counts the same open fault as one more report, and an undo does not close the first', async () => {
		const tech = yard.as(yard.people.technician);
		await inspect(tech, 'HM-0001', { 'exhalation-disc': 'CURL' });
		const { id } = await start();
		await answer(tech, given(id, 'exhalation-disc', { value: 'reject', code: 'CURL' }));
		expect(await openFaults()).toMatchObject([{ reports: 2 }]);
		await answer(tech, given(id, 'exhalation-disc', { value: 'good' }));
		expect(await openFaults()).toMatchObject([{ reports: 1, closedAt: null }]);
	});

	it('does not sign while steps are open and says which', async () => {
		const { id } = await start();
		await expectRefusal(
			signRun(yard.as(yard.people.technician), { requestId: randomUUID(), runId: id }),
			'invalid',
			/18 of 18 steps/
		);
	});

	it('signs once for a double click and tells a second person who was first', async () => {
		const tech = yard.as(yard.people.technician);
		const { id } = await start();
		await answerAll(tech, id);
		await Promise.all([
			signRun(tech, { requestId: randomUUID(), runId: id }),
			signRun(tech, { requestId: randomUUID(), runId: id })
		]);
		await expectRefusal(
			signRun(yard.as(yard.people.supervisor), { requestId: randomUUID(), runId: id }),
			'conflict',
			/The technician has already signed/
		);
		await expectRefusal(answer(tech, given(id, 'label-read')), 'conflict', /already signed/);
	});

	it('lets exactly one of two people sign in the same moment', async () => {
		const { id } = await start();
		await answerAll(yard.as(yard.people.technician), id);
		const results = await Promise.allSettled([
			signRun(yard.as(yard.people.technician), { requestId: randomUUID(), runId: id }),
			signRun(yard.as(yard.people.supervisor), { requestId: randomUUID(), runId: id })
		]);
		expect(results.map((r) => r.status).sort()).toEqual(['fulfilled', 'rejected']);
	});

	it('does not write over what someone else answered meanwhile', async () => {
		const { id } = await start();
		await answer(yard.as(yard.people.supervisor), given(id, 'label-read', { seen: 0 }));
		await expectRefusal(
			answer(
				yard.as(yard.people.technician),
				given(id, 'label-read', { value: 'reject', code: 'WET', seen: 0 })
			),
			'conflict',
			/answered "good" meanwhile by someone else/
		);
		expect(await openFaults()).toHaveLength(0);
	});

	it('is refused to a viewer at every step', async () => {
		const viewer = yard.as(yard.people.viewer);
		const { id } = await start();
		await expectRefusal(
			startRun(viewer, { id: randomUUID(), tag: 'HM-0002' }),
			'forbidden',
			/viewer/
		);
		await expectRefusal(answer(viewer, given(id, 'label-read')), 'forbidden', /technician/);
		await answerAll(yard.as(yard.people.technician), id);
		await expectRefusal(
			signRun(viewer, { requestId: randomUUID(), runId: id }),
			'forbidden',
			/viewer/
		);
	});

	it('is guarded by the database itself once signed', async () => {
		const id = await inspect(yard.as(yard.people.technician), 'HM-0001');
		const rows = await test.db
			.select()
			.from(inspectionRun)
			.where(and(eq(inspectionRun.id, id)));
		expect(rows).toHaveLength(1);
		for (const attack of [
			`update inspection_run set outcome = 'fail'`,
			`delete from inspection_run`,
			`update inspection_answer set value = 'good'`,
			`delete from inspection_answer`,
			`truncate inspection_answer`,
			`insert into inspection_answer values (gen_random_uuid(), '${id}', 99, 'label-read', 'good', null, null, 'user-technician', now())`
		])
			await expect(test.raw.unsafe(attack)).rejects.toThrow(/never changed|append-only|is signed/);
		expect(steps.length).toBe((await test.db.select().from(inspectionAnswer)).length);
	});
});

describe('what an inspection did not take any more', () => {
	it('is given again in a new one where it is signed, with the same list, once for one press', async () => {
		const tech = yard.as(yard.people.technician);
		const signed = await inspect(tech, 'HM-0001');
		const asked = { id: randomUUID(), runId: signed };
		const again = await runAgain(tech, asked);
		expect(again).toEqual({ run: asked.id, seen: 0 });
		expect(await runAgain(tech, asked)).toEqual(again);
		const page = await runPage(tech, again.run);
		expect(page.run).toMatchObject({ signedAt: null, procedure: 'half-mask-pre-use' });
	});

	it('is given again in the same one while it is open, over what was answered there', async () => {
		const { id } = await start();
		const tech = yard.as(yard.people.technician);
		await answer(tech, given(id, 'label-read'));
		expect(await runAgain(tech, { id: randomUUID(), runId: id })).toEqual({ run: id, seen: 1 });
	});

	it('is reported as a fault, which holds the mask', async () => {
		const tech = yard.as(yard.people.technician);
		const signed = await inspect(tech, 'HM-0001');
		const found = {
			id: randomUUID(),
			runId: signed,
			step: 'exhalation-disc',
			code: 'CURL',
			note: 'seen by the lamp'
		};
		await reportFound(tech, found);
		await reportFound(tech, found);
		expect(await openFaults()).toMatchObject([
			{ station: 'exhalation', code: 'CURL', runId: null, reports: 1, note: 'seen by the lamp' }
		]);
		expect(await state()).toBe('held');
	});

	it('refuses a fault that the step does not know, and a run that is not there', async () => {
		const tech = yard.as(yard.people.technician);
		const signed = await inspect(tech, 'HM-0001');
		const found = { id: randomUUID(), runId: signed, step: 'exhalation-disc', note: null };
		await expectRefusal(reportFound(tech, { ...found, code: 'NONE' }), 'invalid', /no such fault/);
		await expectRefusal(
			runAgain(tech, { id: randomUUID(), runId: randomUUID() }),
			'not found',
			/no such inspection/
		);
	});
});
