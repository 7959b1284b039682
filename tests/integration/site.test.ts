import { randomUUID } from 'node:crypto';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { SCHOOL_QUESTIONS } from '../../src/core/site/schools.ts';
import { user } from '../../src/lib/server/db/schema/index.ts';
import { tieSecret } from '../../src/lib/server/access/installation.ts';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import { loadSite, UNNAMED } from '../../src/lib/server/kernel/site.ts';
import { history } from '../../src/lib/server/records/history.ts';
import { addItem, moveItems } from '../../src/lib/server/register/register.ts';
import { takeTemplates } from '../../src/lib/server/register/templates.ts';
import { closePlace, listPlaces, savePlace } from '../../src/lib/server/site/places.ts';
import { saveSite } from '../../src/lib/server/site/settings.ts';
import { drawSetUpCode, endSetUp, makeFirstAdmin } from '../../src/lib/server/site/set-up.ts';
import { missingHere } from '../../src/lib/server/site/so-far.ts';
import { listTestHouses, saveTestHouse } from '../../src/lib/server/site/test-houses.ts';
import { problemOfSite } from '../../src/core/plan/site-problem.ts';
import { planFacts } from '../../src/lib/server/plan/facts.ts';
import { today } from '../../src/lib/server/today/shift-sheet.ts';
import { createAuth } from '../../src/lib/server/web/auth.ts';
import {
	freshDatabase,
	smallSite,
	type SmallSite,
	type TestDatabase
} from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { inspect } from '../support/work.ts';
import { addPiece } from '../support/yard.ts';

let test: TestDatabase;
const NOW = new Date('2026-11-24T10:00:00Z');
const SECRET = 'a secret that is long enough for tests';

beforeEach(async () => {
	await test?.close();
	test = await freshDatabase();
});
afterAll(() => test.close());

describe('the first set-up', () => {
	const door = () => ({ db: test.db, now: () => NOW, site: UNNAMED });
	const auth = () => createAuth(test.db, { secret: SECRET, origin: 'http://localhost' });
	const given = (code: string, part = {}) => ({
		code,
		name: 'Nora Quist',
		initials: 'NQ',
		email: 'nora@yard.example',
		password: 'quiet harbour lamp 7',
		...part
	});
	const first = (code: string, part = {}) =>
		makeFirstAdmin(auth(), door(), '127.0.0.1', given(code, part));

	beforeEach(async () => {
		await tieSecret(door(), SECRET, false);
	});

	it('opens with the printed code, in any spelling of it, once', async () => {
		const code = (await drawSetUpCode(test.db)) ?? '';
		expect(code).toMatch(/^[A-Z2-9]{4}-[A-Z2-9]{4}-[A-Z2-9]{4}$/);
		await expectRefusal(first('AAAA-BBBB-CCCC'), 'forbidden', /not the code/);
		await first(` ${code.toLowerCase().replaceAll('-', ' ')} `);
		const people = await test.db.select().from(user);
		expect(people.map(({ email, role }) => [email, role])).toEqual([
			['nora@yard.example', 'admin']
		]);
		await expectRefusal(first(code, { email: 'b@yard.example' }), 'conflict', /begun already/);
		expect(await drawSetUpCode(test.db)).toBeNull();
		expect((await loadSite(test.db)).setUpAt).toBeNull();
	});

	it('makes one admin of two who send the code at once', async () => {
		const code = (await drawSetUpCode(test.db)) ?? '';
		const both = await Promise.allSettled([
			first(code),
			first(code, { email: 'other@yard.example' })
		]);
		expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
		expect(await test.db.$count(user)).toBe(1);
	});

	it('takes the code that was printed last, and no weak password', async () => {
		const old = (await drawSetUpCode(test.db)) ?? '';
		const code = (await drawSetUpCode(test.db)) ?? '';
		await expectRefusal(first(old), 'forbidden', /printed last/);
		await expectRefusal(first(code, { password: 'password1234' }), 'invalid', /./);
		expect(await test.db.$count(user)).toBe(0);
		await first(code);
	});

	it('is ended once the site has its name, and is no gate any more', async () => {
		await first((await drawSetUpCode(test.db)) ?? '');
		const [row] = await test.db.select().from(user);
		const actor = { id: row?.id ?? '', name: 'Nora Quist', initials: 'NQ', role: 'admin' as const };
		const context = async (): Promise<Context> => ({
			db: test.db,
			now: () => NOW,
			site: await loadSite(test.db),
			actor,
			proof: { at: NOW, by: 'password' }
		});
		await expectRefusal(endSetUp(await context(), randomUUID(), true), 'invalid', /Name the site/);
		await saveSite(await context(), {
			requestId: randomUUID(),
			version: 1,
			choices: { name: 'North yard', timeZone: 'Europe/Oslo' }
		});
		await endSetUp(await context(), randomUUID(), true);
		const site = await loadSite(test.db);
		expect([site.name, site.timeZone, site.setUpAt]).toEqual(['North yard', 'Europe/Oslo', NOW]);
		expect((await missingHere(test.db, site)).map(({ key }) => key)).toEqual([
			'places',
			'people',
			'models',
			'items'
		]);
	});
});

describe('a site', () => {
	let yard: SmallSite;
	const boss = () => yard.as(yard.people.supervisor);
	const save = async (choices: Parameters<typeof saveSite>[1]['choices'], part = {}) =>
		saveSite(boss(), {
			requestId: randomUUID(),
			version: (await loadSite(test.db)).version,
			choices,
			...part
		});
	const place = (part = {}) =>
		savePlace(boss(), {
			requestId: randomUUID(),
			id: randomUUID(),
			version: 0,
			name: 'Quay hut',
			kind: 'room',
			storage: [],
			responsible: null,
			floors: {},
			above: false,
			...part
		});
	const lines = async () => (await history({ db: test.db }, { limit: 3 })).map(({ says }) => says);

	beforeEach(async () => {
		yard = await smallSite(test.db);
	});

	it('keeps each choice with old and new in the log, and nothing of a stale page', async () => {
		await save({ name: 'South yard', benchMinutes: 300 });
		expect((await lines())[0]).toBe(
			'Settings changed: name from Test yard to South yard; bench minutes a day from 240 to 300'
		);
		await expectRefusal(save({ name: 'East yard' }, { version: 1 }), 'conflict', /meanwhile/);
		expect((await loadSite(test.db)).name).toBe('South yard');
	});

	it('refuses to a technician, a zone that does not exist and a week without a working day', async () => {
		await expectRefusal(
			saveSite(yard.as(yard.people.technician), {
				requestId: randomUUID(),
				version: 1,
				choices: { name: 'Mine' }
			}),
			'forbidden',
			/technician/
		);
		await expectRefusal(save({ timeZone: 'Europe/Nowhere' }), 'invalid', /no time zone/);
		await expectRefusal(save({ workDays: [] }), 'invalid', /without a working day/);
		expect(await loadSite(test.db)).toMatchObject({ version: 1, timeZone: 'Europe/London' });
	});

	it('that changes its zone has the days of the new one, and its dues follow its rules', async () => {
		// Published: 49 CFR 180.209, carbon composite every 5 years; from memory. In Kiritimati it is the next day.
		await inspect(yard.as(yard.people.technician), 'HM-0001');
		await save({ timeZone: 'Pacific/Kiritimati', ruleSet: 'us' });
		const site = await loadSite(test.db);
		const sheet = await today({ ...boss(), site });
		expect(sheet.asOf).toBe('2026-11-25');
		const { rows } = await test.db.execute(
			`select last_inspection_on::text as on from item_state s join item i on i.id = s.item_id where tag = 'HM-0001'`
		);
		expect(rows).toEqual([{ on: '2026-11-25' }]);
	});

	it.each(SCHOOL_QUESTIONS.flatMap(({ key, schools }) => schools.map((one) => [key, one.key])))(
		'keeps the school %s: %s',
		async (key, school) => {
			await save({ [key ?? '']: school });
			expect(await loadSite(test.db)).toMatchObject({ [key ?? '']: school });
		}
	);

	it('plans what falls due on a day off for the last working day before it, and says when a day is too full', async () => {
		await inspect(yard.as(yard.people.technician), 'HM-0001');
		// A month after 24 November is Christmas Eve, a Thursday.
		await save({
			workDays: [1, 2, 3, 5],
			benchMinutes: 1,
			holidays: [{ on: '2026-12-23', name: 'Long night' }]
		});
		const site = await loadSite(test.db);
		const facts = await planFacts({ ...boss(), site }, 40);
		const { days, jobs, workers } = problemOfSite(facts);
		expect(days).not.toContain('2026-12-23');
		expect(days).not.toContain('2026-12-24');
		// What falls due on a day on which nobody works is done on the working day before.
		const due = facts.jobs.findIndex(({ latest }) => latest === '2026-12-24');
		expect(days[jobs[due]?.to ?? -1]).toBe('2026-12-22');
		expect(workers[0]?.minutes[0]).toBe(1);
	});

	it('adds places, changes them with old and new, and keeps two of one name apart', async () => {
		const id = randomUUID();
		await place({ id, storage: ['dry'] });
		await place({
			id,
			version: 1,
			kind: 'vehicle',
			storage: ['dry', 'shut'],
			responsible: yard.people.technician.id
		});
		expect((await lines())[0]).toBe(
			'Quay hut changed: kind from room to vehicle; storage from dry to dry, shut; who answers for it from none to The technician'
		);
		await expectRefusal(place(), 'conflict', /a place named Quay hut already/);
		await expectRefusal(place({ id, version: 1, name: 'Late' }), 'conflict', /meanwhile/);
	});

	it('keeps floors per kind, says what is short, and takes one above the shelf only when it is meant', async () => {
		await addPiece(test, yard, 'full-face', 'FF-0001');
		const [shed] = await listPlaces(test.db);
		const floors = { 'half-mask': 2, 'full-face': 3 };
		const change = (part = {}) =>
			place({ id: shed?.id, version: shed?.version, name: 'Shed', floors, ...part });
		await expectRefusal(change(), 'invalid', /3 full-face masks wanted, 1 there/);
		await change({ above: true });
		await expectRefusal(place({ floors: { kite: 1 } }), 'invalid', /no kind of equipment/);
		const { shelves } = await today(boss());
		expect(shelves.map(({ family, floor, short }) => [family, floor, short])).toEqual([
			['half-mask', 2, 1],
			['full-face', 3, 1]
		]);
		for (const tag of ['HM-0001', 'HM-0002']) await inspect(yard.as(yard.people.technician), tag);
		const after = await today(boss());
		// What runs short comes first.
		expect(after.shelves.map(({ family, short }) => [family, short])).toEqual([
			['full-face', 1],
			['half-mask', 0]
		]);
	});

	it('closes a place at which nothing stands, and takes nothing to it from then on', async () => {
		const hut = randomUUID();
		await place({ id: hut });
		await expectRefusal(
			closePlace(boss(), { requestId: randomUUID(), id: yard.place }),
			'conflict',
			/2 items stand at Shed: HM-0001, HM-0002/
		);
		await closePlace(boss(), { requestId: randomUUID(), id: hut });
		expect((await listPlaces(test.db)).map(({ name }) => name)).toEqual(['Shed']);
		const tech = yard.as(yard.people.technician);
		await expectRefusal(
			moveItems(tech, { requestId: randomUUID(), tags: ['HM-0001'], placeId: hut }),
			'conflict',
			/was closed/
		);
		const [item] = await test.db.query.item.findMany();
		await expectRefusal(
			addItem(tech, {
				id: randomUUID(),
				tag: 'HM-0009',
				modelId: item?.modelId ?? '',
				size: 'M',
				serial: '',
				placeId: hut
			}),
			'conflict',
			/was closed/
		);
	});

	it('is not closed while something is moved to it: one of the two is refused', async () => {
		const hut = randomUUID();
		await place({ id: hut });
		const tech = yard.as(yard.people.technician);
		const both = await Promise.allSettled([
			closePlace(boss(), { requestId: randomUUID(), id: hut }),
			moveItems(tech, { requestId: randomUUID(), tags: ['HM-0001'], placeId: hut })
		]);
		expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
	});

	it('keeps test houses with their days, and one that is closed is listed no more', async () => {
		const id = randomUUID();
		const house = (part = {}) =>
			saveTestHouse(boss(), {
				requestId: randomUUID(),
				id,
				version: 0,
				name: 'Corrie Test',
				takes: ['cylinders'],
				turnaroundDays: 14,
				closed: false,
				...part
			});
		await expectRefusal(house({ takes: [] }), 'invalid', /Tick what it takes/);
		await house();
		await house({ version: 1, turnaroundDays: 21 });
		expect((await lines())[0]).toBe(
			'Corrie Test changed: days until things are back from 14 to 21'
		);
		await house({ version: 2, turnaroundDays: 21, closed: true });
		expect(await listTestHouses(test.db)).toEqual([]);
	});

	it('takes models by their construction under its own names, all or none', async () => {
		const take = (...taken: [string, string][]) =>
			takeTemplates(boss(), {
				requestId: randomUUID(),
				taken: taken.map(([template, name]) => ({ template, name, maker: '' }))
			});
		await expectRefusal(take(['half-bayonet', 'A'], ['kite', 'B']), 'invalid', /no such kind/);
		await expectRefusal(take(['half-bayonet', 'A'], ['half-press', 'a']), 'invalid', /twice/);
		await expectRefusal(take(['half-bayonet', 'T1']), 'conflict', /among the models already/);
		expect(await test.db.query.itemModel.findMany()).toHaveLength(1);
		expect(await take(['half-bayonet', 'A'], ['ba-300', 'Set 300'])).toEqual({ added: 2 });
		const models = await test.db.query.itemModel.findMany();
		expect(models.find(({ name }) => name === 'Set 300')).toMatchObject({
			family: 'ba-set',
			ratedBar: 300,
			filterCount: 0,
			maker: 'not stated'
		});
	});
});
