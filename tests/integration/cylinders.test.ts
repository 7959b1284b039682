import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { listCylinders } from '../../src/lib/server/air/cylinder-lists.ts';
import {
	bringCylinder,
	cylinderByTag,
	noteCylinderTest,
	noteInside,
	notePressure,
	saveCylinder
} from '../../src/lib/server/air/cylinders.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import { movePart } from '../../src/lib/server/register/sets.ts';
import { addCylinder, STAMP } from '../support/air.ts';
import { openYard, SITE } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { addPiece } from '../support/yard.ts';

const own = openYard(async () => {
	await addPiece(own.test, own.yard, 'ba-set', 'BA-0001');
	await addPiece(own.test, own.yard, 'ba-set', 'BA-0002');
});

const { tech } = own;
const fit = (tag: string, set: string | null) =>
	movePart(tech(), { requestId: randomUUID(), tag, set });
const stateOf = async (tag: string) => (await itemPage(tech(), tag)).verdict;

describe('the data of a cylinder', () => {
	it('are entered once and corrected by whoever saw the last version', async () => {
		await addPiece(own.test, own.yard, 'cylinder', 'CY-0001');
		const save = (part: object, version: number | null) =>
			saveCylinder(tech(), { requestId: randomUUID(), tag: 'CY-0001', version, ...STAMP, ...part });
		await expectRefusal(save({ waterVolumeL: 6800 }, null), 'invalid', /6.8 L/);
		await expectRefusal(
			save({ manufacturedOn: '2027-01-01' }, null),
			'invalid',
			/later than today/
		);
		await save({}, null);
		await expectRefusal(save({ emptyKg: 4 }, null), 'conflict', /was changed meanwhile/);
		await save({ emptyKg: 4 }, 1);
		expect((await cylinderByTag(own.test.db, SITE, 'CY-0001')).row).toMatchObject({
			emptyKg: 4,
			version: 2,
			pressureBar: null,
			location: 'rack'
		});
		await expectRefusal(
			saveCylinder(tech(), { requestId: randomUUID(), tag: 'HM-0001', version: null, ...STAMP }),
			'invalid',
			/no cylinder/
		);
	});

	it('hold it until its rest is known, and make it overdue the day after its test', async () => {
		expect((await stateOf('CY-0001')).outcome).toBe('held');
		await addCylinder(own.test, own.yard, 'CY-0002', {
			testedOn: '2021-11-23',
			manufacturedOn: '2016-01-01'
		});
		const late = await stateOf('CY-0002');
		expect(late.outcome).toBe('overdue');
		expect(late.reasons.map((r) => r.text).join(' ')).toMatch(/by 23 Nov 2026/);
		await noteCylinderTest(tech(), {
			id: randomUUID(),
			tag: 'CY-0002',
			testedOn: '2026-11-20',
			passed: false,
			stamp: ''
		});
		expect((await stateOf('CY-0002')).outcome).toBe('held');
		await expectRefusal(fit('CY-0002', 'BA-0001'), 'conflict', /failed its periodic test/);
		await noteCylinderTest(tech(), {
			id: randomUUID(),
			tag: 'CY-0002',
			testedOn: '2026-11-24',
			passed: true,
			stamp: 'TH 3'
		});
		await fit('CY-0002', 'BA-0001');
		await fit('CY-0002', null);
	});

	it('of its pressure are what a gauge can show and it may hold', async () => {
		const note = (bar: number | null) =>
			notePressure(tech(), { requestId: randomUUID(), tag: 'CY-0001', pressureBar: bar });
		await expectRefusal(note(-3), 'invalid', /From 0 to 450/);
		await expectRefusal(note(4350), 'invalid', /From 0 to 450/);
		await note(0);
		const empty = async () =>
			(await cylinderByTag(own.test.db, SITE, 'CY-0001')).facts.lookedInside;
		expect(await empty()).toBe(false);
		await noteInside(tech(), { requestId: randomUUID(), tag: 'CY-0001' });
		expect(await empty()).toBe(true);
	});

	it('are needed before it is fitted', async () => {
		await addPiece(own.test, own.yard, 'cylinder', 'CY-0003');
		await expectRefusal(fit('CY-0003', 'BA-0001'), 'conflict', /not on record/);
	});
});

describe('where a cylinder is', () => {
	it('is one place: a set, the rack, the queue or the test house', async () => {
		await addCylinder(own.test, own.yard, 'CY-0010', { bar: 290 });
		await fit('CY-0010', 'BA-0001');
		await expectRefusal(fit('CY-0010', 'BA-0002'), 'conflict', /on BA-0001; take it off there/);
		const at = async (location: 'set' | 'filling' | 'rack') =>
			(await listCylinders(tech(), { location })).rows.map((row) => row.tag);
		expect(await at('set')).toEqual(['CY-0010']);
		await bringCylinder(tech(), { requestId: randomUUID(), tag: 'CY-0010', to: 'filling' });
		expect(await at('set')).toEqual([]);
		expect(await at('filling')).toEqual(['CY-0010']);
		await expectRefusal(fit('CY-0010', 'BA-0001'), 'conflict', /waits to be filled/);
		await expect(
			own.test
				.raw`update item set set_id = (select id from item where tag = 'BA-0002') where tag = 'CY-0010'`
		).rejects.toThrow(/being filled/);
		await bringCylinder(tech(), { requestId: randomUUID(), tag: 'CY-0010', to: 'test house' });
		await expectRefusal(fit('CY-0010', 'BA-0001'), 'conflict', /book it in/);
		await bringCylinder(tech(), { requestId: randomUUID(), tag: 'CY-0010', to: 'rack' });
		await fit('CY-0010', 'BA-0001');
	});

	it('is found by tag, and filtered', async () => {
		const { rows, total } = await listCylinders(tech(), { text: '0010' });
		expect(total).toBe(1);
		expect(rows[0]).toMatchObject({ tag: 'CY-0010', facts: { inSet: 'BA-0001' } });
		expect(rows[0]?.mayFill?.outcome).toBe('refused');
	});
});
