import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import type { TableWays } from '../../src/core/csv/ways.ts';
import { PAST_KINDS, type PastKind } from '../../src/core/records/past-tables.ts';
import { addSource } from '../../src/lib/server/air/sources.ts';
import {
	airTest,
	cylinder,
	cylinderFill,
	cylinderTest,
	defect,
	dueRule,
	entryWearer,
	fitTest
} from '../../src/lib/server/db/schema/index.ts';
import { history } from '../../src/lib/server/records/history.ts';
import { registerCsv } from '../../src/lib/server/records/registers.ts';
import {
	PAST_NEEDS,
	pastTemplate,
	previewPast,
	takePast
} from '../../src/lib/server/records/take-in.ts';
import { saveWearer } from '../../src/lib/server/people/wearers.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { addPiece } from '../support/yard.ts';

const own = openYard(undefined, 'test');
const boss = () => own.yard.as(own.yard.people.supervisor);
const file = (lines: string[], ways: TableWays = {}) => ({
	bytes: new TextEncoder().encode(lines.join('\n')),
	ways
});
const take = (kind: PastKind, lines: string[], { ways = {}, leaveOutBad = false } = {}) =>
	takePast(boss(), kind, { id: randomUUID(), file: file(lines, ways), leaveOutBad });
const look = (kind: PastKind, lines: string[], ways: TableWays = {}) =>
	previewPast(boss(), kind, file(lines, ways));
const AIR =
	'source;taken at;laboratory;sampled at;pressure bar;oxygen percent;CO ppm;CO2 ppm;oil mg per m3;water mg per m3;odour';
const GOOD_AIR = 'Compressor;2026-03-01 09:00;Lab;filling outlet;300;20.9;1;380;0.1;20;no';
const compressor = () =>
	addSource(boss(), {
		id: randomUUID(),
		name: 'Compressor',
		kind: 'compressor',
		oilLubricated: true,
		banks: [],
		fills: true
	});
const cylinderItem = (tag: string) => addPiece(own.test, own.yard, 'cylinder', tag);
const CYLINDER =
	'tag;water volume L;rated bar;maximum bar;material;manufactured on;tested on;stamp';

describe('a table of what was done before', () => {
	it.each(PAST_KINDS)('of %s: the empty one is read without a fault of a cell', async (kind) => {
		const { rows, unknown, asks, faults } = await previewPast(boss(), kind, {
			bytes: new TextEncoder().encode(pastTemplate(kind)),
			ways: {}
		});
		expect([rows, unknown, asks]).toEqual([1, [], {}]);
		// What it names is not here: that is said by row and column, and it is no fault of the form.
		for (const fault of faults) expect(fault).toMatchObject({ row: 2, column: expect.any(String) });
	});

	it('is tried whole before anything is written, and then taken in with its entries', async () => {
		await compressor();
		const lines = [
			AIR,
			GOOD_AIR,
			'Compressor;2026-04-01 09:00;Lab;filling outlet;300;20.9;30;380;0.1;20;no',
			'Nowhere;2026-03-01 09:00;Lab;filling outlet;300;20.9;1;380;0.1;20;no',
			GOOD_AIR,
			'Compressor;2199-03-01 09:00;Lab;filling outlet;300;20.9;1;380;0.1;20;no'
		];
		const seen = await look('air-tests', lines);
		expect(seen.newCount).toBe(2);
		expect(seen.faults.map(({ row, column }) => [row, column])).toEqual([
			[4, 'source'],
			[5, 'taken at'],
			[6, 'taken at']
		]);
		expect(await own.test.db.select().from(airTest)).toEqual([]);
		await expectRefusal(take('air-tests', lines), 'invalid', /3 cells are at fault/);
		expect(await own.test.db.select().from(airTest)).toEqual([]);
		expect(await take('air-tests', lines, { leaveOutBad: true })).toEqual({ imported: 2 });
		const tests = await own.test.db.select().from(airTest).orderBy(airTest.takenAt);
		// Judged anew: 30 ppm of carbon monoxide is over both limits. Published: EN 12021, CGA G-7.1; from memory.
		expect(tests.map(({ outcome }) => outcome)).toEqual(['pass', 'fail']);
		const said = (await history({ db: own.test.db }, { limit: 6 })).map(({ says }) => says);
		expect(said[0]).toBe('A table of air tests taken in: 2 rows');
	});

	it('that the register wrote is taken in by another site as it is', async () => {
		await compressor();
		await take('air-tests', [AIR, GOOD_AIR]);
		const csv = await registerCsv(boss(), 'air-tests', { from: null, to: null });
		await own.test.raw`alter table air_test disable trigger user`;
		await own.test.raw`delete from air_test`;
		await own.test.raw`alter table air_test enable trigger user`;
		expect(await take('air-tests', [csv.trim()])).toEqual({ imported: 1 });
		const again = await registerCsv(boss(), 'air-tests', { from: null, to: null });
		const told = (text: string) =>
			text.split('\r\n').map((line) => line.split(',').slice(1, 11).join());
		expect(told(again)).toEqual(told(csv));
	});

	it('of cylinders and fills: a fill stands under the test of air that held then', async () => {
		await compressor();
		await cylinderItem('CY-0001');
		await take(
			'cylinders',
			[CYLINDER, 'CY-0001;6,8;300;379;composite;01.03.2022;01.03.2025;TH 12'],
			{ ways: { days: 'day first' } }
		);
		expect(await own.test.db.select().from(cylinder)).toMatchObject([
			{ waterVolumeL: 6.8, manufacturedOn: '2022-03-01' }
		]);
		expect(await own.test.db.select().from(cylinderTest)).toMatchObject([
			{ testedOn: '2025-03-01', passed: true, stamp: 'TH 12' }
		]);
		const fills = [
			'tag;source;ended at;start bar;end bar;settled bar at 15 °C',
			'CY-0001;Compressor;2026-03-10 10:00;60;310;298',
			'CY-0001;Compressor;2026-02-10 10:00;60;310;298',
			'CY-0001;Compressor;2026-03-11 10:00;310;60;50'
		];
		await take('air-tests', [AIR, GOOD_AIR]);
		expect((await look('fills', fills)).faults.map(({ row, column }) => [row, column])).toEqual([
			[3, 'ended at'],
			[4, 'end bar']
		]);
		await take('fills', fills, { leaveOutBad: true });
		const [tested] = await own.test.db.select().from(airTest);
		const [fill] = await own.test
			.raw`select f.outcome, b.air_test_id from cylinder_fill f join fill_batch b on b.id = f.batch_id`;
		expect(fill).toEqual({ outcome: 'full', air_test_id: tested?.id });
		await expectRefusal(take('fills', fills.slice(0, 2)), 'invalid', /1 cell is/);
		expect(await own.test.db.select().from(cylinderFill)).toHaveLength(1);
	});

	it('of entries, fit tests, faults and rules: each row is judged as if it were typed in', async () => {
		await saveWearer(boss(), {
			requestId: randomUUID(),
			id: randomUUID(),
			version: 0,
			number: '101',
			name: 'Lio Brandt',
			userId: null,
			eyewear: false,
			beard: false,
			clearedUntil: null,
			trainedUntil: null,
			placeIds: []
		});
		await take('fit-tests', [
			'number;model;size;method;way;factors;passed;tested on',
			'101;T1;M;quantitative;uk-seven;120 130 140 150 160 170 180;;2026-03-01'
		]);
		const [fit] = await own.test.db.select().from(fitTest);
		// The harmonic mean of the seven, worked out here: 7 / (1/120 + 1/130 + … + 1/180).
		const given = [120, 130, 140, 150, 160, 170, 180];
		expect(fit?.overall).toBeCloseTo(7 / given.reduce((sum, n) => sum + 1 / n, 0), 9);
		expect(fit).toMatchObject({ passed: true, fromPaper: true });
		const short = await look('fit-tests', [
			'number;model;size;method;way;factors;passed;tested on',
			'101;T1;M;quantitative;uk-seven;120 130;;2026-03-01',
			'999;T1;M;qualitative;saccharin;;yes;2026-03-01'
		]);
		expect(short.faults.map(({ row, column }) => [row, column])).toEqual([
			[2, 'factors'],
			[3, 'number']
		]);

		await take('entries', [
			'task;wearer;started at;ended at;start bar;end bar;water volume L',
			'Tank 4;Lio Brandt;2026-03-01 09:00;2026-03-01 09:20;290;90;6.8'
		]);
		expect(await own.test.db.select().from(entryWearer)).toMatchObject([
			{ wearer: 'Lio Brandt', endBar: 90 }
		]);
		const back = await look('entries', [
			'task;wearer;started at;ended at;start bar;end bar;water volume L',
			'Tank 4;Lio Brandt;2026-03-02 09:20;2026-03-02 09:00;290;90;6.8',
			'Tank 4;Lio Brandt;2026-03-01 09:00;2026-03-01 09:20;290;90;6.8'
		]);
		expect(back.faults.map(({ column }) => column)).toEqual(['ended at', 'started at']);

		await take('faults', ['tag,station,code,note', 'HM-0001,exhalation,CURL,found dry'], {});
		expect(await own.test.db.select().from(defect).where(eq(defect.code, 'CURL'))).toMatchObject([
			{ station: 'exhalation', note: 'found dry', closedAt: null }
		]);

		await take('rules', [
			'what,every months,window,families,reason',
			'inspection,1,7,half-mask,shared ones each month'
		]);
		expect(await own.test.db.select().from(dueRule)).toMatchObject([
			{ what: 'inspection', everyMonths: 1, families: ['half-mask'] }
		]);
		expect(
			(await look('rules', ['what,window,every months,every days', 'inspection,7,1,2'])).faults
		).toMatchObject([{ row: 2, column: 'every months' }]);
	});

	it('is taken in by whoever writes it down otherwise', async () => {
		const viewer = own.yard.as(own.yard.people.viewer);
		for (const kind of PAST_KINDS) {
			expect(PAST_NEEDS[kind]).toBeTruthy();
			await expectRefusal(previewPast(viewer, kind, file(['x', 'y'])), 'forbidden', /may not/);
			await expectRefusal(
				takePast(viewer, kind, { id: randomUUID(), file: file(['x', 'y']), leaveOutBad: false }),
				'forbidden',
				/may not/
			);
		}
	});

	it('whose days can be read two ways is not taken in before somebody says how', async () => {
		await cylinderItem('CY-0002');
		const lines = [CYLINDER, 'CY-0002;6.8;300;379;steel;03/04/2022;;'];
		expect((await look('cylinders', lines)).asks).toEqual({ days: ['03/04/2022'] });
		await expectRefusal(
			take('cylinders', lines, { leaveOutBad: true }),
			'invalid',
			/how the table is written/
		);
		await take('cylinders', lines, { ways: { days: 'month first' } });
		expect(await own.test.db.select().from(cylinder)).toMatchObject([
			{ manufacturedOn: '2022-03-04' }
		]);
	});
});
