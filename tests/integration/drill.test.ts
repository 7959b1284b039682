import { eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from 'vitest';
import { procedureFor } from '../../src/core/data/procedures.ts';
import { type Handed, handOver, rightAnswer } from '../../src/core/drill/hand-over.ts';
import { canBeMet } from '../../src/core/drill/kinds.ts';
import { questionsOf } from '../../src/core/drill/short-tests.ts';
import type { DrillAnswer } from '../../src/core/drill/score.ts';
import {
	auditEntry,
	defect,
	drillExam,
	drillMemory,
	drillPerson,
	inspectionRun
} from '../../src/lib/server/db/schema/index.ts';
import { examPdf } from '../../src/lib/server/drill/exam-paper.ts';
import {
	beginExam,
	endExam,
	examPage,
	keepDrill,
	sessionOf
} from '../../src/lib/server/drill/sessions.ts';
import { keepTest } from '../../src/lib/server/drill/tests.ts';
import {
	drillHome,
	drillRun,
	drillSessionPage,
	proposedBy,
	trainerPage
} from '../../src/lib/server/drill/trainer.ts';
import { verifyChain } from '../../src/lib/server/kernel/chain.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';

const own = openYard(undefined, 'test');
const as = (who: 'technician' | 'supervisor' | 'viewer' | 'admin') =>
	own.yard.as(own.yard.people[who]);
const procedure = procedureFor('half-mask');
const answersOf = (handed: Handed, blind = false) =>
	procedure.steps.filter(canBeMet).map((step): DrillAnswer => {
		const code = blind ? null : rightAnswer(procedure, handed, step);
		return { step: step.key, value: code ? 'reject' : 'good', code, readings: null };
	});
const CURLED: Handed = {
	...handOver({ procedure, seed: 4, level: 1 }),
	faults: [{ step: 'exhalation-disc', code: 'CURL' }],
	near: []
};
const walk = (who = as('viewer'), blind = false, id = randomUUID(), handed = CURLED) =>
	keepDrill(who, {
		id,
		mode: 'learn',
		procedure: procedure.key,
		version: procedure.version,
		handed,
		answers: answersOf(handed, blind),
		seconds: 200
	});

beforeEach(async () => {
	await own.test.raw`truncate drill_memory, drill_person, drill_kind`;
});

describe('a drill', () => {
	it('is kept once, scored here, and leaves nothing in the record of any item or in the log', async () => {
		const before = {
			entries: (await own.test.db.select().from(auditEntry)).length,
			faults: (await own.test.db.select().from(defect)).length,
			runs: (await own.test.db.select().from(inspectionRun)).length
		};
		const id = randomUUID();
		await walk(as('viewer'), false, id);
		await walk(as('viewer'), false, id);
		const { session } = await sessionOf(as('viewer'), id);
		expect(session).toMatchObject({ points: 100, mode: 'learn', passed: null });
		const [person] = await own.test.db.select().from(drillPerson);
		expect(person).toMatchObject({ sessions: 1, hits: 1, misses: 0, falseAlarms: 0 });
		expect({
			entries: (await own.test.db.select().from(auditEntry)).length,
			faults: (await own.test.db.select().from(defect)).length,
			runs: (await own.test.db.select().from(inspectionRun)).length
		}).toEqual(before);
		await expect(own.test.raw`delete from drill_session`).rejects.toThrow(/append-only/);
	});

	it('brings back what was missed sooner than what was found, and makes its rating harder', async () => {
		await walk(as('viewer'));
		await walk(as('technician'), true);
		const memories = await own.test.db.select().from(drillMemory);
		const due = (role: 'viewer' | 'technician') =>
			memories.find(({ userId }) => userId === own.yard.people[role].id)?.dueAt.getTime() ?? 0;
		expect(due('technician')).toBeLessThan(due('viewer'));
		expect((await sessionOf(as('technician'), await lastId('technician'))).others).toMatchObject([
			{ kind: 'half-mask/exhalation/CURL', met: 2, found: 1 }
		]);
	});

	const lastId = async (role: 'viewer' | 'technician') =>
		(await drillHome(as(role))).last[0]?.id ?? '';

	it('of a newcomer begins with the curled disc', async () => {
		const { favour } = await drillRun(as('viewer'), 'half-mask');
		expect(favour[0]).toBe('half-mask/exhalation/CURL');
		await expectRefusal(drillRun(as('viewer'), 'no-such'), 'not found', /no list/);
	});

	it('is nobody else’s to see but who trains', async () => {
		const { id } = await walk(as('viewer'));
		await expectRefusal(sessionOf(as('technician'), id), 'not found', /of yours/);
		expect((await drillSessionPage(as('supervisor'), id)).session.id).toBe(id);
	});

	it('that no list can hand over is refused', async () => {
		const odd = { ...CURLED, faults: [{ step: 'exhalation-disc', code: 'FIBRE' }] };
		await expectRefusal(
			walk(as('viewer'), false, randomUUID(), odd),
			'invalid',
			/none that this list/
		);
	});
});

describe('a short test', () => {
	it('is judged here by the questions of its number, and shown as the last of its kind', async () => {
		const questions = questionsOf('mistakes', 7, own.yard.as(own.yard.people.viewer).site.ruleSet);
		const chosen = questions.map(({ right }, i) => (i === 0 ? (right + 1) % 3 : right));
		const kept = await keepTest(as('viewer'), {
			id: randomUUID(),
			test: 'mistakes',
			seed: 7,
			chosen
		});
		expect(kept).toEqual({ right: questions.length - 1, asked: questions.length });
		const { tests } = await drillHome(as('viewer'));
		expect(tests.find(({ key }) => key === 'mistakes')?.last).toMatchObject(kept);
		const half = { id: randomUUID(), test: 'mistakes', seed: 7, chosen: [0] };
		await expectRefusal(keepTest(as('viewer'), half), 'invalid', /every question/);
		await expectRefusal(
			keepTest(as('viewer'), { ...half, id: randomUUID(), test: 'none' }),
			'not found',
			/no such test/
		);
	});
});

describe('an exam', () => {
	const begin = (id = randomUUID(), who = as('technician')) =>
		beginExam(who, {
			id,
			family: 'half-mask',
			level: 2,
			supervisor: { ...own.yard.people.supervisor }
		});

	it('is fixed when it begins, judged by what was fixed, once, and stands in the log', async () => {
		const { id } = await begin();
		const { handed } = await examPage(as('technician'), id);
		expect((await examPage(as('technician'), id)).handed).toEqual(handed);
		await expectRefusal(examPage(as('viewer'), id), 'not found', /of yours/);
		const end = (requestId = randomUUID()) =>
			endExam(as('technician'), { id: requestId, examId: id, answers: answersOf(handed) });
		expect(await end()).toEqual({ id, passed: true });
		await expectRefusal(end(), 'conflict', /ended already/);
		const { pdf, name } = await examPdf(as('technician'), id, null);
		expect([String.fromCharCode(...pdf.subarray(0, 5)), name.endsWith('.pdf')]).toEqual([
			'%PDF-',
			true
		]);
		const entries = await own.test.db
			.select({ action: auditEntry.action })
			.from(auditEntry)
			.where(eq(auditEntry.subject, `drill:${id}`));
		expect(entries.map(({ action }) => action)).toEqual(['drill.exam-begun', 'drill.exam-ended']);
		expect((await verifyChain(own.test.db)).broken).toBeUndefined();
		const page = await trainerPage(as('supervisor'));
		expect(page.exams).toMatchObject([{ points: 100, passed: true }]);
		// What it is evidence for is filled in for who gives authorisations, and for nobody else.
		const proposed = await proposedBy(as('supervisor'), id);
		expect(proposed).toMatchObject({ job: 'inspect', family: procedure.family });
		expect(proposed?.evidence).toMatch(/^Exam of the trainer, .* beside .* paper [0-9a-f]{8}$/);
		expect(await proposedBy(as('technician'), id)).toBeNull();
		expect(await proposedBy(as('supervisor'), null)).toBeNull();
	});

	it('is not passed by who lets everything through, nor by who rejects everything', async () => {
		for (const all of ['good', 'reject'] as const) {
			const id = randomUUID();
			await begin(id);
			const { handed } = await examPage(as('technician'), id);
			const answers = procedure.steps.filter(canBeMet).map((step): DrillAnswer => ({
				step: step.key,
				value: all,
				code: all === 'reject' ? (step.rejects[0] ?? null) : null
			}));
			const { passed } = await endExam(as('technician'), { id: randomUUID(), examId: id, answers });
			if (!passed) expect(await proposedBy(as('supervisor'), id)).toBeNull();
			expect([all, passed]).toEqual([
				all,
				// With nothing seeded, letting everything through is right.
				all === 'good' && handed.faults.length === 0
			]);
		}
	});

	it('is begun beside a supervisor, who is somebody else', async () => {
		await expectRefusal(begin(randomUUID(), as('supervisor')), 'forbidden', /Nobody examines/);
		await expectRefusal(
			beginExam(as('viewer'), {
				id: randomUUID(),
				family: 'half-mask',
				level: 2,
				supervisor: { ...own.yard.people.technician }
			}),
			'forbidden',
			/no supervisor/
		);
		expect(
			await own.test.db
				.select()
				.from(drillExam)
				.where(eq(drillExam.userId, own.yard.people.viewer.id))
		).toEqual([]);
	});
});
