import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from 'vitest';
import { defect, partFitting, partLot } from '../../src/lib/server/db/schema/index.ts';
import { today } from '../../src/lib/server/today/shift-sheet.ts';
import { lookForClusters, lookIntoAlarm, openAlarms } from '../../src/lib/server/teach/clusters.ts';
import { learn } from '../../src/lib/server/teach/learn.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { addPiece } from '../support/yard.ts';

const own = openYard(undefined, 'test');
const NOW = new Date('2026-11-24T12:00:00Z');
const DAY = 86_400_000;
const ago = (days: number) => new Date(NOW.getTime() - days * DAY);
const unattended = () => as('technician');
const as = (who: 'technician' | 'supervisor') => own.yard.as(own.yard.people[who], NOW);
const ids = new Map<string, string>();

/** Forty masks; eight of them have a disc of lot B, which fails one after the other. */
beforeEach(async () => {
	ids.clear();
	for (let i = 0; i < 40; i++)
		await addPiece(own.test, own.yard, 'half-mask', `HM-2${String(i).padStart(3, '0')}`);
	for (const { id, tag } of await own.test.raw<
		{ id: string; tag: string }[]
	>`select id, tag from item where tag like 'HM-2%'`)
		ids.set(tag, id);
	const [bad, good] = [randomUUID(), randomUUID()];
	await own.test.db.insert(partLot).values(
		[bad, good].map((id, i) => ({
			id,
			part: 'disc-exhalation',
			lot: i ? 'G-1' : 'B-1',
			quantity: 3
		}))
	);
	await own.test.raw`update item set in_use_since = '2025-01-01'`;
	const all = [...ids.values()];
	await own.test.db.insert(partFitting).values(
		all.map((itemId, i) => ({
			id: randomUUID(),
			itemId,
			station: 'exhalation',
			part: 'disc-exhalation',
			lotId: i < 8 ? bad : good,
			quantity: 1,
			fittedAt: ago(200)
		}))
	);
	const fault = (i: number, days: number, part = {}) => ({
		id: randomUUID(),
		itemId: all[i] ?? '',
		station: 'exhalation',
		code: 'CURL',
		severity: 'stop' as const,
		reportedBy: own.yard.people.technician.id,
		reportedAt: ago(days),
		closedAt: ago(days - 1),
		closedHow: 'released' as const,
		...part
	});
	await own.test.db.insert(defect).values([
		...[0, 1, 2, 3, 4, 5, 6, 7].map((i) => fault(i, 150 - i * 9)),
		fault(20, 140),
		fault(25, 90),
		fault(30, 70),
		// Neither counts: not there, and a recall.
		fault(21, 60, {
			closedHow: 'not-confirmed',
			closedBy: own.yard.people.supervisor.id,
			closedWhy: 'x'
		}),
		fault(22, 50, { code: 'RECALL' })
	]);
});

describe('what the record teaches', () => {
	it('cries once of the lot that fails more than chance allows, on Today, until somebody looked into it', async () => {
		expect(await lookForClusters(unattended())).toBe(1);
		expect(await lookForClusters(unattended())).toBe(0);
		const [alarm] = await openAlarms(own.test.db);
		expect(alarm).toMatchObject({ name: 'Exhalation disc, lot B-1', faults: 8 });
		const line = (await today(as('technician'))).lines.find(({ kind }) => kind === 'cluster');
		expect(line).toMatchObject({ href: '/faults/learn' });
		const look = (found: string) =>
			lookIntoAlarm(as('technician'), { requestId: randomUUID(), alarmId: alarm?.id ?? '', found });
		await expectRefusal(look(' '), 'invalid', /what was found/);
		await look('Too soft, called back.');
		await expectRefusal(look('Again.'), 'conflict', /still open/);
		expect((await today(as('technician'))).lines.some(({ kind }) => kind === 'cluster')).toBe(
			false
		);
	});

	it('counts along the airway, leaves out what was not there, and says what goes with it', async () => {
		const page = await learn(as('supervisor'), { family: null, days: 365, cost: 5 });
		expect(page.family).toBe('half-mask');
		expect(page.stations.find(({ key }) => key === 'exhalation')?.failures).toBe(11);
		const [first] = page.signs;
		expect(first).toMatchObject({ name: 'Exhalation disc, lot B-1', faults: 8 });
		expect(first?.alarmAt).not.toBeNull();
		// Nothing was inspected in this time: no rate, and no cause from nothing.
		expect(page.factors).toEqual([]);
		expect(page.months).toEqual([]);
		expect(page.drift).toEqual([]);
		expect(page.parts).toMatchObject([{ part: 'disc-exhalation', sits: 40, failures: 0 }]);
		expect(page.service).toMatchObject({ repaired: 12, notConfirmed: 1, ended: 13 });
		expect(page.service.medianHours).toBeCloseTo(24, 6);
	});

	it('shows who finds what to supervisors alone', async () => {
		const asked = { family: null, days: 365, cost: 5 };
		expect((await learn(as('technician'), asked)).inspectors).toBeNull();
		expect((await learn(as('supervisor'), asked)).inspectors).not.toBeNull();
	});
});
