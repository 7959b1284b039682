import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DEFAULT_FACTS } from '../../src/core/hazards/facts.ts';
import { savePlan } from '../../src/lib/server/hazards/plans.ts';
import { benchTest, filterLot, filterPair } from '../../src/lib/server/db/schema/index.ts';
import { search } from '../../src/lib/server/search/search.ts';
import {
	freshDatabase,
	smallSite,
	type SmallSite,
	type TestDatabase
} from '../support/database.ts';
import { inspect } from '../support/work.ts';
import { addPiece } from '../support/yard.ts';

let test: TestDatabase;
let yard: SmallSite;
const as = (role: 'viewer' | 'technician' | 'supervisor' | 'admin') => yard.as(yard.people[role]);
const kinds = async (text: string, role: Parameters<typeof as>[0] = 'technician') =>
	(await search(as(role), text)).found.map(({ kind, name }) => `${kind} ${name}`);

beforeAll(async () => {
	test = await freshDatabase();
	yard = await smallSite(test.db);
	await addPiece(test, yard, 'cylinder', 'CY-0042');
	const { id: itemId } = await addPiece(test, yard, 'full-face', 'FF-0042');
	const by = yard.people.technician.id;
	const at = new Date('2026-11-20T09:00:00Z');
	await test.db.insert(benchTest).values({
		id: randomUUID(),
		itemId,
		recipe: 'mask-full-face',
		recipeVersion: 1,
		instrument: 'bench',
		startedBy: by,
		startedAt: at,
		endedAt: at,
		outcome: 'pass',
		reasons: []
	});
	const [lot] = await test.db.select().from(filterLot);
	await test.db.insert(filterPair).values({
		id: randomUUID(),
		lotId: lot?.id ?? '',
		itemId,
		filters: 2,
		openedOn: '2026-11-20',
		initials: 'T',
		openedBy: by
	});
	await savePlan(as('technician'), {
		requestId: randomUUID(),
		id: randomUUID(),
		version: 0,
		task: 'Emptying the shed',
		placeId: yard.place,
		facts: { ...DEFAULT_FACTS, ruleSet: 'uk', contaminants: [] }
	});
	await inspect(as('technician'), 'HM-0001', { 'exhalation-disc': 'CURL' });
});
afterAll(() => test.close());

describe('what words find anywhere', () => {
	it.each([
		['hm-0001', 'item HM-0001'],
		['cy-00', 'item CY-0042'],
		['T1 shed', 'item HM-0001'],
		['emptying', 'plan Emptying the shed'],
		['plan 1', 'plan Emptying the shed'],
		['L2', 'lot L2'],
		['K2', 'filter T K2'],
		['Shed', 'place Shed'],
		['curl', 'fault HM-0001, CURL'],
		['D1', 'part D1'],
		['FF-0042 test', 'test FF-0042, test mask-full-face'],
		['fp-0001', 'pair FP-0001'],
		['FF-0042', 'pair FP-0001'],
		['intervals', 'guide Guide: Intervals'],
		['new plan', 'action New hazard plan'],
		['fill room', 'action Fill room'],
		['settings places', 'action Settings: places and floors']
	])('“%s” finds %s', async (text, first) =>
		expect(await kinds(text, 'supervisor')).toContain(first)
	);

	it('comes with the thing itself before what only stands beside it', async () => {
		expect((await kinds('shed'))[0]).toBe('place Shed');
		expect((await kinds('HM-0001'))[0]).toBe('item HM-0001');
	});

	it('shows nobody what they may not reach', async () => {
		expect(await kinds('settings', 'technician')).toEqual([
			'action Settings: you',
			'guide Guide: Settings and people'
		]);
		expect(await kinds('the supervisor', 'supervisor')).toEqual([]);
		expect((await kinds('the supervisor', 'admin'))[0]).toBe('person The supervisor');
		expect(await kinds('new', 'viewer')).not.toContain('action New item');
	});

	it('of a tag that nothing carries offers to add it, to whoever may', async () => {
		expect((await search(as('technician'), 'hm-0999')).addTag).toBe('HM-0999');
		expect((await search(as('viewer'), 'hm-0999')).addTag).toBeNull();
		expect((await search(as('technician'), 'hm-0001')).addTag).toBeNull();
		expect((await search(as('technician'), 'kettle')).addTag).toBeNull();
	});

	it.each([
		'',
		'   ',
		'%',
		'_',
		"'; drop table item; --",
		'\\',
		'x'.repeat(5000),
		'a '.repeat(500)
	])('takes “%s” for words and nothing else', async (text) => {
		const { found, addTag } = await search(as('supervisor'), text);
		expect(addTag).toBeNull();
		for (const one of found) expect(one.href.startsWith('/')).toBe(true);
		expect(await test.db.query.item.findMany()).toHaveLength(4);
	});
});
