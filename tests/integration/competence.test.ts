import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import type { Job } from '../../src/core/people/competence.ts';
import { plusDays } from '../../src/core/plan/calendar.ts';
import { authorisation, serviceJob } from '../../src/lib/server/db/schema/index.ts';
import { startJob } from '../../src/lib/server/faults/jobs.ts';
import { startPlannedJob } from '../../src/lib/server/faults/planned.ts';
import { openDefects } from '../../src/lib/server/faults/faults.ts';
import { signRun } from '../../src/lib/server/inspection/runs.ts';
import {
	authorisationsLapsing,
	endAuthorisation,
	giveAuthorisation,
	listAuthorisations
} from '../../src/lib/server/people/authorisations.ts';
import { peopleDues } from '../../src/lib/server/people/dues.ts';
import { saveFitTest } from '../../src/lib/server/people/fit-tests.ts';
import { planPage } from '../../src/lib/server/plan/plan.ts';
import { today } from '../../src/lib/server/today/shift-sheet.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { inspect } from '../support/work.ts';

const own = openYard();
const TODAY = '2026-11-24';
const at = (day = TODAY) => new Date(`${day}T10:00:00Z`);
const as = (role: 'technician' | 'supervisor', day = TODAY) =>
	own.yard.as(own.yard.people[role], at(day));

async function give(
	userId: string,
	job: Job,
	part: Partial<Parameters<typeof giveAuthorisation>[1]> = {}
): Promise<string> {
	const id = randomUUID();
	await giveAuthorisation(as('supervisor'), {
		id,
		userId,
		job,
		families: [],
		modelIds: [],
		from: '2026-01-01',
		until: null,
		evidence: 'Course',
		...part
	});
	return id;
}
const forget = () => own.test.raw`delete from authorisation`;

describe('a job that nobody was authorised for', () => {
	it('goes by the role alone; the first authorisation makes it asked for', async () => {
		await forget();
		const { technician, supervisor } = own.yard.people;
		const start = (day?: string) =>
			startPlannedJob(as('technician', day), {
				id: randomUUID(),
				tag: 'HM-0001',
				repair: 'clean'
			});
		await give(supervisor.id, 'repair');
		await expectRefusal(
			start(),
			'forbidden',
			/Not authorised for this job: repair\. Who could do it now: The supervisor\./
		);
		// Nothing of it was written.
		expect(await own.test.db.select().from(serviceJob)).toEqual([]);
		expect(await openDefects(own.test.db)).toEqual([]);
		await give(technician.id, 'repair', { until: '2026-11-30' });
		await expectRefusal(start('2026-12-01'), 'forbidden', /lapsed on 30 Nov 2026/);
		await start('2026-11-30');
		await forget();
	});
});

describe('an authorisation', () => {
	it('is for the families and models that it names', async () => {
		await forget();
		const { technician } = own.yard.people;
		await give(technician.id, 'repair', { families: ['ba-set'] });
		const start = () =>
			startPlannedJob(as('technician'), { id: randomUUID(), tag: 'HM-0002', repair: 'clean' });
		await expectRefusal(start(), 'forbidden', /Nobody here could do it now/);
		await give(technician.id, 'repair', { modelIds: [own.yard.model] });
		await start();
		await forget();
	});

	it('is asked for at the signature of an inspection and of a fit test', async () => {
		await forget();
		await give(own.yard.people.supervisor.id, 'inspect');
		await expectRefusal(
			inspect(as('technician'), 'HM-0002'),
			'forbidden',
			/Not authorised for this job: inspect/
		);
		await inspect(as('supervisor'), 'HM-0002');
		await give(own.yard.people.supervisor.id, 'fit-test');
		const [who] = await own.test.raw<{ id: string }[]>`
			insert into wearer (id, number, name) values (${randomUUID()}, 'C1', 'Cara') returning id`;
		const sheet = (role: 'technician' | 'supervisor') =>
			saveFitTest(as(role), {
				id: randomUUID(),
				wearerId: who?.id ?? '',
				modelId: own.yard.model,
				size: 'M',
				method: 'qualitative',
				protocol: null,
				agent: 'bitter',
				factors: {},
				noticedNothing: true,
				worn: '',
				testedOn: '2026-11-20',
				tester: ''
			});
		await expectRefusal(sheet('technician'), 'forbidden', /fit-test/);
		expect(await sheet('supervisor')).toEqual({ passed: true });
		await forget();
	});

	it('is taken back from its day on, with a reason, and stays in the list', async () => {
		await forget();
		const { technician } = own.yard.people;
		const id = await give(technician.id, 'repair');
		const end = (why: string) =>
			endAuthorisation(as('supervisor'), { requestId: randomUUID(), id, why });
		await expectRefusal(end(' '), 'invalid', /Say why/);
		await end('Left the bench.');
		await expectRefusal(end('Again.'), 'conflict', /taken back already/);
		expect(await listAuthorisations(as('supervisor'))).toMatchObject([
			{ person: 'The technician', standing: 'taken back', lastDay: plusDays(TODAY, -1) }
		]);
		await expectRefusal(
			startPlannedJob(as('technician'), { id: randomUUID(), tag: 'HM-0002', repair: 'clean' }),
			'forbidden',
			/lapsed on 23 Nov 2026/
		);
		await forget();
	});

	it.each([
		[{ until: '2025-12-31' }, /ends before it begins/],
		[{ from: '2025-01-01', until: '2026-01-31' }, /has passed/],
		[{ userId: 'nobody' }, /whose account/],
		[{ modelIds: [randomUUID()] }, /not in the register/]
	])('of %j is refused', async (part, says) => {
		await expectRefusal(give(own.yard.people.technician.id, 'repair', part), 'invalid', says);
	});

	it('that lapses stands on Today and in what falls due, unless a longer one takes its place', async () => {
		await forget();
		const { technician } = own.yard.people;
		await give(technician.id, 'fill cylinders', { until: '2026-11-30' });
		expect(await authorisationsLapsing(own.test.db, '2026-09-01', '2026-12-08')).toMatchObject([
			{ person: 'The technician', job: 'fill cylinders', on: '2026-11-30' }
		]);
		expect(await peopleDues(own.test.db, TODAY, '2026-12-08')).toMatchObject([
			{ says: 'Authorisation: fill cylinders, last day 30 Nov 2026' }
		]);
		const lines = (await today(as('technician'))).lines.filter(({ kind }) =>
			kind.startsWith('person')
		);
		expect(lines).toMatchObject([{ title: /fill cylinders/, href: '/people/competence' }]);
		// Nobody who only looks is told of people.
		const viewer = own.yard.as(own.yard.people.viewer, at());
		expect((await today(viewer)).lines.filter(({ kind }) => kind.startsWith('person'))).toEqual([]);
		const ofPeople = async (context: typeof viewer) =>
			(await planPage(context)).facts.jobs.filter(({ key }) => key.startsWith('person:'));
		expect(await ofPeople(viewer)).toEqual([]);
		expect(await ofPeople(as('technician'))).toMatchObject([{ what: 'authorisation' }]);
		await give(technician.id, 'fill cylinders', { until: '2027-11-30' });
		expect(await authorisationsLapsing(own.test.db, '2026-09-01', '2026-12-08')).toEqual([]);
		await forget();
	});

	it('is never deleted by the application', async () => {
		await give(own.yard.people.technician.id, 'wash');
		await expect(
			own.test.db.delete(authorisation).where(eq(authorisation.job, 'wash'))
		).rejects.toThrow();
		await forget();
	});
});

describe('what is signed already', () => {
	it('is not asked about again', async () => {
		await forget();
		const runId = await inspect(as('technician'), 'HM-0002');
		await give(own.yard.people.supervisor.id, 'inspect');
		await signRun(as('technician'), { requestId: randomUUID(), runId });
		await expectRefusal(
			startJob(as('technician'), {
				id: randomUUID(),
				itemId: randomUUID(),
				repair: 'clean',
				defectIds: [randomUUID()]
			}),
			'conflict',
			/not open/
		);
		await forget();
	});
});
