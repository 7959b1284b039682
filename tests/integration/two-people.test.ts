import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import { DEFAULT_FACTS } from '../../src/core/hazards/facts.ts';
import { PROCEDURES } from '../../src/core/data/procedures.ts';
import {
	defect,
	hazardEdition,
	inspectionAnswer,
	item,
	serviceJob
} from '../../src/lib/server/db/schema/index.ts';
import { finishJob, releaseJob, startJob } from '../../src/lib/server/faults/jobs.ts';
import { approvePlan, savePlan } from '../../src/lib/server/hazards/plans.ts';
import { answer } from '../../src/lib/server/inspection/answers.ts';
import { nameAssistant } from '../../src/lib/server/inspection/assistant.ts';
import { runPage, signRun, startRun } from '../../src/lib/server/inspection/runs.ts';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { given, inspect } from '../support/work.ts';
import { addPiece } from '../support/yard.ts';

const own = openYard(undefined, 'test');
const lead = () => own.yard.as(own.yard.people.supervisor);
const other = () => own.yard.as(own.yard.people.second);
const tech = () => own.yard.as(own.yard.people.technician);
/** The same at a site that asks for one person only. */
const alone = (context: Context): Context => ({
	...context,
	site: { ...context.site, twoPeople: false }
});

describe('a hazard plan', () => {
	const planId = randomUUID();
	const save = (context: Context, version: number) =>
		savePlan(context, {
			requestId: randomUUID(),
			id: planId,
			version,
			task: 'Spraying',
			placeId: own.yard.place,
			facts: {
				...DEFAULT_FACTS,
				ruleSet: 'uk',
				contaminants: [
					{
						substance: 'styrene',
						name: 'Styrene',
						form: 'vapour',
						concentration: { value: 160, unit: 'ppm' }
					}
				]
			}
		});
	const approve = (context: Context, version: number) =>
		approvePlan(context, {
			id: randomUUID(),
			planId,
			version,
			reviewOn: '2027-02-01',
			expiresOn: '2027-06-01',
			note: ''
		});
	const editions = () => own.test.db.select().from(hazardEdition);

	it('is approved by another than who made it or changed it last', async () => {
		const first = await save(lead(), 0);
		await expectRefusal(approve(lead(), first), 'forbidden', /wrote this plan yourself/);
		expect(await editions()).toEqual([]);
		const second = await save(other(), first);
		// Made by the one, changed by the other: neither stands back far enough.
		await expectRefusal(approve(lead(), second), 'forbidden', /wrote this plan yourself/);
		await expectRefusal(approve(other(), second), 'forbidden', /wrote this plan yourself/);
		await approve(own.yard.as(own.yard.people.admin), second);
		expect(await editions()).toMatchObject([{ approvedBy: own.yard.people.admin.id }]);
	});

	it('may be approved by its author at a site that has waived it', async () => {
		const version = await save(lead(), 0);
		await approve(alone(lead()), version);
		expect(await editions()).toHaveLength(1);
	});
});

describe('a repair', () => {
	/** A mask that was repaired by a supervisor and has passed since. */
	async function repaired(code: string, station: string, repair: string): Promise<string> {
		await inspect(tech(), 'HM-0001', { [station]: code });
		const [fault] = await own.test.db.select().from(defect);
		await startJob(lead(), {
			id: randomUUID(),
			itemId: own.yard.masks[0] ?? '',
			repair,
			defectIds: [fault?.id ?? '']
		});
		const [job] = await own.test.db.select().from(serviceJob);
		await finishJob(lead(), {
			requestId: randomUUID(),
			jobId: job?.id ?? '',
			version: job?.version ?? 0,
			proof: [true, true, true],
			parts: repair === 'replace-disc' ? [{ lotId: own.yard.disc, quantity: 1 }] : [],
			note: ''
		});
		await inspect(tech(), 'HM-0001');
		return job?.id ?? '';
	}
	const release = async (context: Context, jobId: string) => {
		const [job] = await own.test.db.select().from(serviceJob).where(eq(serviceJob.id, jobId));
		return releaseJob(context, { requestId: randomUUID(), jobId, version: job?.version ?? 0 });
	};

	it('is released by another than the repairer, whatever the fault was', async () => {
		const job = await repaired('CURL', 'exhalation-disc', 'replace-disc');
		await expectRefusal(release(lead(), job), 'forbidden', /someone else than the repairer/);
		await release(other(), job);
		expect((await own.test.db.select().from(serviceJob))[0]?.releasedBy).toBe(
			own.yard.people.second.id
		);
	});

	it('waives that for a site, but never for a stop fault', async () => {
		const job = await repaired('CURL', 'exhalation-disc', 'replace-disc');
		const [fault] = await own.test.db.select().from(defect);
		await own.test.raw`update defect set severity = 'stop' where id = ${fault?.id ?? ''}`;
		await expectRefusal(release(alone(lead()), job), 'forbidden', /A stop fault is released by/);
		await own.test.raw`update defect set severity = 'watch' where id = ${fault?.id ?? ''}`;
		await release(alone(lead()), job);
		expect((await own.test.db.select().from(item))[0]?.retiredOn ?? null).toBeNull();
	});
});

describe('a list with a step for a second person', () => {
	const procedure = PROCEDURES.find((one) => one.key === 'gas-tight-suit-donning');
	const steps = procedure?.steps ?? [];
	const witnessed = steps.find((step) => step.secondPerson)?.key ?? '';
	const [ordinary = '', another = ''] = steps
		.filter((step) => !step.secondPerson && !step.reading)
		.map((step) => step.key);

	it('takes that step from somebody who has answered nothing, and nothing more from them', async () => {
		expect(witnessed).not.toBe('');
		await addPiece(own.test, own.yard, 'gas-tight-suit', 'GS-0001');
		const { id } = await startRun(tech(), {
			id: randomUUID(),
			tag: 'GS-0001',
			procedure: procedure?.key ?? ''
		});
		const give = (context: Context, step: string) => answer(context, given(id, step));
		await expectRefusal(give(tech(), witnessed), 'forbidden', /second person/);
		await give(lead(), ordinary);
		await expectRefusal(give(lead(), witnessed), 'forbidden', /second person/);
		expect((await runPage(lead(), id)).worked).toBe(true);
		expect((await runPage(other(), id)).worked).toBe(false);
		await give(other(), witnessed);
		await expectRefusal(give(other(), another), 'forbidden', /You were the second person/);
		await give(lead(), another);
		expect((await runPage(tech(), id)).answers.map((one) => one.step)).toEqual([
			ordinary,
			witnessed,
			another
		]);
	});
});

describe('the second person of a list, on the device of the first', () => {
	const begin = async (tag: string) => {
		await addPiece(own.test, own.yard, 'gas-tight-suit', tag);
		const procedure = 'gas-tight-suit-donning';
		const { id } = await startRun(tech(), { id: randomUUID(), tag, procedure });
		return { id, page: await runPage(tech(), id) };
	};
	const name = (runId: string, assistant = own.yard.people.second, context = tech()) =>
		nameAssistant(context, { id: randomUUID(), runId, assistant });

	it('says once who they are; their lines are theirs from then on, the others are not', async () => {
		const { id, page } = await begin('GS-0901');
		await name(id);
		for (const step of page.procedure.steps) await answer(tech(), given(id, step.key));
		const rows = await own.test.db
			.select()
			.from(inspectionAnswer)
			.where(eq(inspectionAnswer.runId, id));
		const { technician, second } = own.yard.people;
		for (const step of page.procedure.steps)
			expect(rows.find((row) => row.step === step.key)?.answeredBy, step.key).toBe(
				step.secondPerson ? second.id : technician.id
			);
		expect((await runPage(tech(), id)).assistant).toBe(second.name);
		// Whoever was the second person does not do the work as well, from a device of their own either.
		const ordinary = page.procedure.steps.find((step) => !step.secondPerson)?.key ?? '';
		await expectRefusal(answer(other(), given(id, ordinary)), 'forbidden', /second person/);
		await signRun(tech(), { requestId: randomUUID(), runId: id });
		await expectRefusal(name(id), 'conflict', /already signed/);
	});

	it('is another than the first, may answer a list, and is asked for only where there are two', async () => {
		const { id } = await begin('GS-0902');
		const { technician, viewer } = own.yard.people;
		await expectRefusal(name(id, technician), 'forbidden', /works at this list already/);
		await expectRefusal(name(id, viewer), 'forbidden', /may not answer/);
		await addPiece(own.test, own.yard, 'half-mask', 'HM-0903');
		const plain = await startRun(tech(), { id: randomUUID(), tag: 'HM-0903' });
		await expectRefusal(name(plain.id), 'invalid', /for one person/);
		expect((await runPage(tech(), id)).assistant).toBeNull();
	});
});
