import { eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { repairOf, REPAIRS } from '../../src/core/data/repairs.ts';
import { defect, item, partLot, serviceJob } from '../../src/lib/server/db/schema/index.ts';
import { defectPage } from '../../src/lib/server/faults/faults.ts';
import { bringItem } from '../../src/lib/server/custody/bring-back.ts';
import { finishJob, releaseJob, startJob } from '../../src/lib/server/faults/jobs.ts';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import {
	freshDatabase,
	smallSite,
	type SmallSite,
	type TestDatabase
} from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { inspect } from '../support/work.ts';

let test: TestDatabase;
let yard: SmallSite;
let faultId: string;
let tech: Context;
beforeEach(async () => {
	await test?.close();
	test = await freshDatabase();
	yard = await smallSite(test.db);
	tech = yard.as(yard.people.technician);
	await inspect(tech, 'HM-0001', { 'exhalation-disc': 'CURL' });
	faultId = (await test.db.select().from(defect))[0]?.id ?? '';
});
afterAll(() => test.close());

const state = async () => (await itemPage(yard.as(yard.people.viewer), 'HM-0001')).verdict.outcome;
const begin = (repair = 'replace-disc', context = tech) =>
	startJob(context, {
		id: randomUUID(),
		itemId: yard.masks[0] ?? '',
		repair,
		defectIds: [faultId]
	});
const version = async (jobId: string) =>
	(await test.db.select().from(serviceJob).where(eq(serviceJob.id, jobId)))[0]?.version ?? 0;
const finish = async (jobId: string, part = {}, context = tech) =>
	finishJob(context, {
		requestId: randomUUID(),
		jobId,
		version: await version(jobId),
		proof: [true, true, true],
		parts: [{ lotId: yard.disc, quantity: 1 }],
		note: '',
		...part
	});
const release = async (jobId: string, context: Context) =>
	releaseJob(context, { requestId: randomUUID(), jobId, version: await version(jobId) });

describe('from a fault to a ready mask', () => {
	it('goes held, in service, inspected, released, ready; the part leaves the store', async () => {
		expect(await state()).toBe('held');
		const job = await begin();
		expect(await state()).toBe('in service');
		await finish(job);
		expect((await test.db.select().from(partLot))[0]?.quantity).toBe(0);
		await inspect(tech, 'HM-0001');
		expect(await state()).toBe('in service');
		await release(job, yard.as(yard.people.supervisor));
		expect(await state()).toBe('ready');
		const page = await defectPage(tech, faultId);
		expect(page.defect.closedHow).toBe('released');
		expect(page.job?.parts).toMatchObject([{ lot: 'D1', quantity: 1 }]);
	});

	it('is not released by a technician, by the repairer, or without an inspection', async () => {
		const sup = yard.as(yard.people.supervisor);
		const job = await begin('replace-disc', sup);
		await expectRefusal(release(job, yard.as(yard.people.second)), 'conflict', /not done yet/);
		await finish(job, {}, sup);
		await expectRefusal(
			release(job, yard.as(yard.people.second)),
			'conflict',
			/No inspection has followed/
		);
		await inspect(tech, 'HM-0001');
		await expectRefusal(release(job, tech), 'forbidden', /Ask a supervisor/);
		await expectRefusal(release(job, sup), 'forbidden', /someone else than the repairer/);
		await release(job, yard.as(yard.people.second));
		expect(await state()).toBe('ready');
	});

	it('is not released after a failed inspection; the next repair takes its faults over', async () => {
		const job = await begin();
		await finish(job);
		await inspect(tech, 'HM-0001', { 'harness-straps': 'ELAS' });
		await expectRefusal(release(job, yard.as(yard.people.supervisor)), 'conflict', /failed/);
		const found = (await test.db.select().from(defect)).find((d) => d.code === 'ELAS');
		const next = await startJob(tech, {
			id: randomUUID(),
			itemId: yard.masks[0] ?? '',
			repair: 'replace-harness',
			defectIds: [found?.id ?? '']
		});
		await finish(next, { proof: [true, true], parts: [] });
		await inspect(tech, 'HM-0001');
		await release(next, yard.as(yard.people.supervisor));
		expect(await state()).toBe('ready');
		expect((await test.db.select().from(defect)).every((d) => d.closedHow === 'released')).toBe(
			true
		);
	});

	it('brought to repair lies on its shelf again with its release', async () => {
		const brought = { requestId: randomUUID(), tag: 'HM-0001', to: 'service' as const };
		expect(await bringItem(tech, brought)).toMatchObject({ done: true });
		const job = await begin();
		await finish(job);
		await inspect(tech, 'HM-0001');
		expect(await state()).toBe('in service');
		await release(job, yard.as(yard.people.supervisor));
		expect(await state()).toBe('ready');
	});

	it('needs every line of the proving check, and changes nothing without', async () => {
		const job = await begin();
		await expectRefusal(
			finish(job, { proof: [true, false, true] }),
			'invalid',
			/The cover clicks home/
		);
		expect((await test.db.select().from(partLot))[0]?.quantity).toBe(1);
		expect((await test.db.select().from(serviceJob))[0]?.doneAt).toBeNull();
	});

	it('takes no part that is not there, and is then not done', async () => {
		const job = await begin();
		const two = { parts: [{ lotId: yard.disc, quantity: 2 }] };
		await expectRefusal(finish(job, two), 'invalid', /1 left, 2 wanted/);
		await test.raw`update part_lot set use_by = '2020-01-01'`;
		await expectRefusal(finish(job), 'invalid', /past its shelf life/);
		expect((await test.db.select().from(serviceJob))[0]?.doneAt).toBeNull();
	});

	it('a small job closes with its own check, by one person; one that mends what stops does not', async () => {
		await test.raw`update defect set code = 'CHAN', severity = 'repair', station = 'harness'`;
		const small = await begin('refit');
		await finish(small, { proof: [true], parts: [] });
		expect((await defectPage(tech, faultId)).defect.closedHow).toBe('released');
		expect(await state()).not.toBe('in service');
		const [job] = await test.db.select().from(serviceJob);
		expect([job?.doneBy, job?.releasedBy]).toEqual([tech.actor.id, tech.actor.id]);

		await inspect(tech, 'HM-0002', { 'exhalation-disc': 'CURL' });
		const stop = (await test.db.select().from(defect)).find((d) => !d.closedAt);
		const kept = await startJob(tech, {
			id: randomUUID(),
			itemId: yard.masks[1] ?? '',
			repair: 'refit',
			defectIds: [stop?.id ?? '']
		});
		await finish(kept, { proof: [true], parts: [] });
		expect((await defectPage(tech, stop?.id ?? '')).defect.closedAt).toBeNull();
	});

	it('offers no job that its family cannot have', async () => {
		await expectRefusal(begin('refill'), 'invalid', /half mask cannot have it/);
		await expectRefusal(begin('replace-zip'), 'invalid', /no repair of HM-0001/);
		expect(await test.db.select().from(serviceJob)).toHaveLength(0);
	});

	it('starts one repair for two people, once for a retry, none for a viewer', async () => {
		const id = randomUUID();
		const start = { id, itemId: yard.masks[0] ?? '', repair: 'clean', defectIds: [faultId] };
		await Promise.all([startJob(tech, start), startJob(tech, start)]);
		await startJob(tech, start);
		await expectRefusal(begin(), 'conflict', /already under way/);
		await expectRefusal(begin('clean', yard.as(yard.people.viewer)), 'forbidden', /viewer/);
		expect(await test.db.select().from(serviceJob)).toHaveLength(1);
	});

	it('does not save a stale page over a newer one', async () => {
		const job = await begin();
		await test.raw`update service_job set version = 7`;
		const stale = finishJob(tech, {
			requestId: randomUUID(),
			jobId: job,
			version: 1,
			proof: [true, true, true],
			parts: [],
			note: ''
		});
		await expectRefusal(stale, 'conflict', /changed meanwhile/);
	});

	it('takes a mask out of use for good without an inspection, by a supervisor', async () => {
		const job = await begin('retire');
		await finish(job, { proof: [true], parts: [] });
		await release(job, yard.as(yard.people.supervisor));
		expect(await state()).toBe('retired');
		expect((await test.db.select().from(item).where(eq(item.tag, 'HM-0001')))[0]?.retiredOn).toBe(
			'2026-11-24'
		);
		await expectRefusal(inspect(tech, 'HM-0001'), 'conflict', /taken out of use/);
	});

	it('knows a proving check for every repair', () => {
		for (const repair of REPAIRS) expect(repairOf(repair.key).proof.length).toBeGreaterThan(0);
	});
});
