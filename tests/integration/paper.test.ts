import { eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from 'vitest';
import { daysBetween, plusDays } from '../../src/core/plan/calendar.ts';
import {
	auditEntry,
	defect,
	inspectionAnswer,
	inspectionRun
} from '../../src/lib/server/db/schema/index.ts';
import { keepPaper, paperPage, sheets } from '../../src/lib/server/inspection/paper.ts';
import { runPage, startRun } from '../../src/lib/server/inspection/runs.ts';
import { verifyChain } from '../../src/lib/server/kernel/chain.ts';
import { todayOf } from '../../src/lib/server/kernel/context.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import { findByScan } from '../../src/lib/server/register/scan.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { inspect } from '../support/work.ts';
import { addPiece } from '../support/yard.ts';

const own = openYard(async () => {}, 'test');
let today: string;
let good: Record<string, string>;
let version: number;

const tech = () => own.yard.as(own.yard.people.technician);
const state = async (tag = 'HM-0001') => (await itemPage(tech(), tag)).verdict;
const paper = (change: Partial<Parameters<typeof keepPaper>[1]> = {}) =>
	keepPaper(tech(), {
		id: randomUUID(),
		tag: 'HM-0001',
		procedure: 'half-mask-pre-use',
		version,
		day: plusDays(today, -3),
		doneBy: own.yard.people.supervisor.id,
		typed: good,
		...change
	});

beforeEach(async () => {
	today = todayOf(tech());
	const { procedure } = await paperPage(tech(), 'HM-0001', null, null);
	version = procedure.version;
	good = Object.fromEntries(procedure.steps.map(({ key }) => [key, 'g']));
});

describe('a sheet that is typed in', () => {
	it('stands as an inspection of its day and its person, and says that it is from paper', async () => {
		expect((await state()).outcome).toBe('overdue');
		const id = randomUUID();
		expect(await paper({ id })).toEqual({ outcome: 'pass' });
		expect((await state()).outcome).toBe('ready');
		const page = await runPage(tech(), id);
		expect(page).toMatchObject({
			doneByName: own.yard.people.supervisor.name,
			signedByName: own.yard.people.technician.name
		});
		const answers = await own.test.db
			.select()
			.from(inspectionAnswer)
			.where(eq(inspectionAnswer.runId, id));
		expect(new Set(answers.map(({ answeredBy }) => answeredBy))).toEqual(
			new Set([own.yard.people.supervisor.id])
		);
		const [signed] = await own.test.db
			.select()
			.from(auditEntry)
			.where(eq(auditEntry.action, 'inspection.signed'));
		expect(JSON.parse(String(signed?.payload))).toMatchObject({
			paper: { day: plusDays(today, -3), by: own.yard.people.supervisor.name }
		});
		expect((await verifyChain(own.test.db)).broken).toBeUndefined();
	});

	it('is due again from its own day, not from the day on which it was typed', async () => {
		const dues = async (tag: string) =>
			(await itemPage(tech(), tag)).dues.filter(({ what }) => what === 'inspection');
		await paper({ day: plusDays(today, -20) });
		await inspect(tech(), 'HM-0002');
		const [sheet, live] = [await dues('HM-0001'), await dues('HM-0002')];
		expect([sheet.length, live.length]).toEqual([1, 1]);
		expect(daysBetween(sheet[0]?.on ?? '', live[0]?.on ?? '')).toBeGreaterThan(15);
	});

	it('holds the item for what it rejects', async () => {
		const step = 'exhalation-disc';
		expect(await paper({ typed: { ...good, [step]: 'curl at the rim' } })).toEqual({
			outcome: 'fail'
		});
		expect((await state()).outcome).toBe('held');
		expect(await own.test.db.select().from(defect)).toMatchObject([
			{ code: 'CURL', reportedBy: own.yard.people.technician.id }
		]);
	});

	it('is kept once, however often it is sent', async () => {
		const id = randomUUID();
		await Promise.all([paper({ id }), paper({ id }), paper({ id })]);
		expect(await own.test.db.select().from(inspectionRun)).toHaveLength(1);
	});

	it('leaves nothing behind where it is refused', async () => {
		await expectRefusal(paper({ typed: { ...good, 'exhalation-disc': '' } }), 'invalid', /nothing/);
		await expectRefusal(paper({ day: plusDays(today, 1) }), 'invalid', /not come yet/);
		await expectRefusal(paper({ day: plusDays(today, -40) }), 'invalid', /days old/);
		await expectRefusal(paper({ doneBy: 'nobody' }), 'invalid', /who did it/);
		await addPiece(own.test, own.yard, 'ba-set', 'BA-0001');
		await expectRefusal(paper({ tag: 'BA-0001' }), 'invalid', /another kind/);
		expect(await own.test.db.select().from(inspectionRun)).toEqual([]);
		expect(await own.test.db.select().from(defect)).toEqual([]);
	});

	it('comes too late where a newer inspection stands, and waits where one is open', async () => {
		await inspect(tech(), 'HM-0001');
		await expectRefusal(paper(), 'conflict', /comes too late/);
		await startRun(tech(), { id: randomUUID(), tag: 'HM-0002' });
		await expectRefusal(paper({ tag: 'HM-0002' }), 'conflict', /another list open/);
	});
});

it('the code of a printed sheet leads to where it is typed in', async () => {
	const printed = await sheets(tech(), null, ['HM-0001', 'HM-0002', 'XX-1']);
	expect(printed).toMatchObject({
		missing: ['XX-1'],
		sheets: [{ tag: 'HM-0001' }, { tag: 'HM-0002' }]
	});
	expect(printed.sheets[0]?.qr).toContain('<svg');
	expect(await findByScan(own.test.db, `SHEET/HALF-MASK-PRE-USE/${version}/HM-0001`)).toBe(
		`/items/HM-0001/paper?procedure=half-mask-pre-use&version=${version}`
	);
});
