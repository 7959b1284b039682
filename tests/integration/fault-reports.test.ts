import { and, eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { beforeEach, describe, expect, it } from 'vitest';
import {
	defect,
	defectReport,
	partFitting,
	partLot,
	serviceJob
} from '../../src/lib/server/db/schema/index.ts';
import { defectPage } from '../../src/lib/server/faults/faults.ts';
import { partsOf } from '../../src/lib/server/faults/fittings.ts';
import { finishJob, releaseJob, startJob } from '../../src/lib/server/faults/jobs.ts';
import { faultList } from '../../src/lib/server/faults/list.ts';
import { notConfirmed, reportByHand, takeReportBack } from '../../src/lib/server/faults/reports.ts';
import {
	lookInto,
	recallList,
	recallPage,
	recallParts
} from '../../src/lib/server/faults/recalls.ts';
import { addFaultPhoto, faultPhotos } from '../../src/lib/server/faults/photos.ts';
import { history } from '../../src/lib/server/records/history.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import { photoJpeg } from '../../src/lib/server/inspection/photos.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { inspect } from '../support/work.ts';

const own = openYard(undefined, 'test');
const as = (who: 'technician' | 'supervisor' | 'viewer' | 'admin') =>
	own.yard.as(own.yard.people[who]);
const report = (tag = 'HM-0001', part: object = {}, who = as('viewer')) => {
	const id = randomUUID();
	return reportByHand(who, { id, tag, station: 'exhalation', code: 'CURL', ...part }).then(
		(told) => ({
			...told,
			id
		})
	);
};
const state = async (tag = 'HM-0001') => (await itemPage(as('viewer'), tag)).verdict.outcome;
const mend = async (
	tag: string,
	defectId: string,
	part: { lotId?: string; repair?: string; release?: boolean } = {}
) => {
	const jobId = randomUUID();
	const { item } = await itemPage(as('viewer'), tag);
	const lotId = part.lotId ?? own.yard.disc;
	await startJob(as('technician'), {
		id: jobId,
		itemId: item.id,
		repair: part.repair ?? 'replace-disc',
		defectIds: [defectId]
	});
	await finishJob(as('technician'), {
		requestId: randomUUID(),
		jobId,
		version: 1,
		proof: [true, true, true],
		parts: [{ lotId, quantity: 1 }],
		note: '',
		minutes: 12
	});
	if (part.release === false) return jobId;
	await inspect(as('technician'), tag);
	const [job] = await own.test.db.select().from(serviceJob).where(eq(serviceJob.id, jobId));
	await releaseJob(as('supervisor'), {
		requestId: randomUUID(),
		jobId,
		version: job?.version ?? 0
	});
	return jobId;
};

beforeEach(async () => {
	await own.test.db.update(partLot).set({ quantity: 40 });
	for (const tag of ['HM-0001', 'HM-0002']) await inspect(as('technician'), tag);
});

describe('a fault written down by hand', () => {
	it('holds the item, by whoever saw it, and is what can be found there', async () => {
		const told = await report('hm-0001', { note: 'Seen in use.' });
		expect(told).toMatchObject({ again: false, severity: 'stop' });
		expect(await state()).toBe('held');
		await expectRefusal(report('HM-0001', { code: 'ZIPV' }), 'invalid', /not found at/);
		await expectRefusal(report('HM-0001', { station: 'zip' }), 'invalid', /no such place/);
		await expectRefusal(report('HM-9999'), 'not found', /HM-9999/);
	});

	it('is one more report of its own where it is open already', async () => {
		const first = await report();
		const second = await report('HM-0001', { note: 'Worse now.' }, as('technician'));
		expect(second).toMatchObject({ again: true, defectId: first.defectId });
		const { reports } = await defectPage(as('viewer'), first.defectId);
		expect(reports.map(({ report: r }) => r.note ?? '').sort()).toEqual(['', 'Worse now.']);
		expect(new Set(reports.map(({ by }) => by)).size).toBe(2);
		expect((await faultList(own.test.db, { of: 'open' })).rows[0]?.reports).toBe(2);
	});

	it('is taken back by who wrote it, with a reason; another report keeps it open', async () => {
		const first = await report();
		const second = await report('HM-0001', {}, as('technician'));
		const back = (reportId: string, who: 'viewer' | 'technician', why = 'Wrong mask.') =>
			takeReportBack(as(who), { requestId: randomUUID(), reportId, why });
		await expectRefusal(back(second.id, 'viewer'), 'forbidden', /Only who reported it/);
		await expectRefusal(back(first.id, 'viewer', ' '), 'invalid', /Say why/);
		await back(first.id, 'viewer');
		expect(await state()).toBe('held');
		await back(second.id, 'technician');
		expect(await state()).toBe('ready');
		const { defect: ended } = await defectPage(as('viewer'), first.defectId);
		expect(ended).toMatchObject({ closedHow: 'withdrawn', closedWhy: 'Wrong mask.' });
		await expect(
			own.test.raw`update defect_report set note = 'other' where id = ${first.id}`
		).rejects.toThrow(/taken back once/);
	});

	it('that is not there ends as not confirmed: by who may release, after an inspection that passed', async () => {
		const told = await report();
		const deny = (who: 'technician' | 'supervisor', why = 'Disc lies flat.') =>
			notConfirmed(as(who), { requestId: randomUUID(), defectId: told.defectId, why });
		await expectRefusal(deny('technician'), 'forbidden', /supervisor/);
		await expectRefusal(deny('supervisor'), 'conflict', /Inspect it first/);
		await expectRefusal(deny('supervisor', ''), 'invalid', /Say why/);
		await inspect(
			own.yard.as(own.yard.people.technician, new Date(Date.now() + 60_000)),
			'HM-0001'
		);
		await deny('supervisor');
		expect(await state()).toBe('ready');
		expect((await history(as('viewer'), { limit: 1 }))[0]?.says).toBe(
			'Fault looked for and not found: CURL, valve disc curled or creased. Disc lies flat.'
		);
	});

	it('keeps pictures of it while it is open, drawn anew, never changed', async () => {
		const { defectId } = await report();
		const bytes = await sharp({
			create: { width: 40, height: 30, channels: 3, background: 'red' }
		})
			.png()
			.toBuffer();
		const picture = (id: string, given: Uint8Array = bytes) =>
			addFaultPhoto(as('viewer'), { id: randomUUID(), defectId: id, bytes: given });
		await picture(defectId);
		await expectRefusal(picture(defectId, Buffer.from('no picture')), 'invalid', /no picture/);
		await expectRefusal(picture(randomUUID()), 'not found', /no such fault/);
		const [kept] = await faultPhotos(own.test.db, defectId);
		expect([...(await photoJpeg(own.test.db, kept?.id ?? '')).subarray(0, 3)]).toEqual([
			0xff, 0xd8, 0xff
		]);
		await expect(own.test.raw`delete from defect_photo`).rejects.toThrow(/append-only/);
		await mend('HM-0001', defectId);
		await expectRefusal(picture(defectId), 'conflict', /has ended/);
	});

	it('is found again among the ended ones', async () => {
		const told = await report();
		await takeReportBack(as('viewer'), {
			requestId: randomUUID(),
			reportId: told.id,
			why: 'Wrong mask.'
		});
		await report('HM-0002', { station: 'harness', code: 'ELAS' });
		const list = async (filter: object) =>
			(await faultList(own.test.db, { of: 'ended', ...filter })).rows.map(({ tag }) => tag);
		expect(await list({})).toEqual(['HM-0001']);
		expect(await list({ q: 'curled' })).toEqual(['HM-0001']);
		expect(await list({ q: 'harness' })).toEqual([]);
		expect(await list({ how: 'released' })).toEqual([]);
		expect(await list({ of: 'open', q: 'harness' })).toEqual(['HM-0002']);
		expect(await list({ of: 'open', q: '%' })).toEqual([]);
		expect(await list({ of: 'open', family: 'ba-set' })).toEqual([]);
	});
});

describe('parts', () => {
	it('sit at their station with their lot, from the repair that put them in to the one that takes them out', async () => {
		const first = await report();
		await mend('HM-0001', first.defectId);
		const { item } = await itemPage(as('viewer'), 'HM-0001');
		expect(await partsOf(own.test.db, item.id)).toMatchObject([
			{ station: 'exhalation', lot: 'D1', quantity: 1 }
		]);
		const second = await report();
		await mend('HM-0001', second.defectId);
		const rows = await own.test.db.select().from(partFitting);
		expect(rows.map(({ removedHow }) => removedHow ?? 'sits').sort()).toEqual(['failed', 'sits']);
		await expect(own.test.raw`update part_fitting set station = 'other'`).rejects.toThrow(
			/ended once/
		);
	});
});

describe('a lot that is called back', () => {
	it('holds what has one, names what had one, empties the store, and is followed to its end', async () => {
		const [other] = await own.test.db
			.insert(partLot)
			.values({ id: randomUUID(), part: 'disc-exhalation', lot: 'D2', quantity: 9 })
			.returning();
		// One has it, one had it.
		await mend('HM-0001', (await report('HM-0001')).defectId);
		await mend('HM-0002', (await report('HM-0002')).defectId);
		await mend('HM-0002', (await report('HM-0002')).defectId, { lotId: other?.id ?? '' });
		const call = () =>
			recallParts(as('technician'), { id: randomUUID(), lotId: own.yard.disc, why: 'Too soft.' });
		await expectRefusal(
			recallParts(as('technician'), { id: randomUUID(), lotId: own.yard.disc, why: ' ' }),
			'invalid',
			/what is wrong/
		);
		const { recallId, held } = await call();
		expect(held).toBe(1);
		expect([await state('HM-0001'), await state('HM-0002')]).toEqual(['held', 'ready']);
		await expectRefusal(call(), 'conflict', /already/);
		const page = await recallPage(own.test.db, recallId);
		expect(page.items.map(({ tag, defectId }) => [tag, defectId !== null])).toEqual([
			['HM-0001', true],
			['HM-0002', false]
		]);
		expect(page.fromStore).toBeGreaterThan(0);
		// Looking does not end it; a part of another lot does.
		const [fault] = await own.test.db.select().from(defect).where(eq(defect.code, 'RECALL'));
		await expectRefusal(
			notConfirmed(as('supervisor'), {
				requestId: randomUUID(),
				defectId: fault?.id ?? '',
				why: 'Looks good.'
			}),
			'conflict',
			/recalled part is changed/
		);
		const [told] = await own.test.db
			.select()
			.from(defectReport)
			.where(eq(defectReport.defectId, fault?.id ?? ''));
		await expectRefusal(
			takeReportBack(as('technician'), {
				requestId: randomUUID(),
				reportId: told?.id ?? '',
				why: 'No.'
			}),
			'conflict',
			/recalled part is changed/
		);
		await mend('HM-0001', fault?.id ?? '', { lotId: other?.id ?? '' });
		expect(await state('HM-0001')).toBe('ready');
		const look = (tag: string) =>
			lookInto(as('technician'), {
				requestId: randomUUID(),
				recallId,
				tag,
				found: 'Worn once, nothing.'
			});
		await look('HM-0002');
		await expectRefusal(look('HM-0002'), 'conflict', /not waiting/);
		await expectRefusal(look('HM-0001'), 'conflict', /not waiting/);
		expect((await recallList(as('viewer'))).parts).toMatchObject([
			{ held: 1, changed: 1, had: 1, looked: 1 }
		]);
		// A part that was recalled did not fail.
		const { item: first } = await itemPage(as('viewer'), 'HM-0001');
		const [gone] = await own.test.db
			.select()
			.from(partFitting)
			.where(and(eq(partFitting.lotId, own.yard.disc), eq(partFitting.itemId, first.id)));
		expect(gone?.removedHow).toBe('changed');
	});

	it('leaves nothing half done where it cannot be', async () => {
		await mend('HM-0001', (await report('HM-0001')).defectId);
		await own.test
			.raw`create or replace function fail_now() returns trigger language plpgsql as $$ begin raise exception 'no'; end $$`;
		await own.test
			.raw`create trigger fail_recall before insert on recall_item for each row execute function fail_now()`;
		await expect(
			recallParts(as('technician'), { id: randomUUID(), lotId: own.yard.disc, why: 'x' })
		).rejects.toThrow();
		expect(await state('HM-0001')).toBe('ready');
		expect((await own.test.db.select().from(partLot))[0]?.quantity).toBeGreaterThan(0);
		const reports = await own.test.db.select().from(defectReport);
		expect(reports.every(({ note }) => !note?.includes('called back'))).toBe(true);
	});
});
