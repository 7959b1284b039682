import { randomUUID } from 'node:crypto';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { plusDays } from '../../src/core/plan/calendar.ts';
import { itemDue, itemState } from '../../src/lib/server/db/schema/index.ts';
import { duesOfItem } from '../../src/lib/server/db/queries/dues.ts';
import { loadSite } from '../../src/lib/server/kernel/site.ts';
import { history } from '../../src/lib/server/records/history.ts';
import { itemByTag } from '../../src/lib/server/register/items.ts';
import { moveItems, setUse } from '../../src/lib/server/register/register.ts';
import { savePlace } from '../../src/lib/server/site/places.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import {
	endRule,
	previewRule,
	type RuleInput,
	rulesPage,
	saveRule
} from '../../src/lib/server/site/rules.ts';
import {
	freshDatabase,
	smallSite,
	type SmallSite,
	type TestDatabase
} from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { inspect } from '../support/work.ts';
import { addPiece, inspected } from '../support/yard.ts';

let test: TestDatabase;
let yard: SmallSite;
const boss = async () => ({
	...yard.as(yard.people.supervisor),
	site: await loadSite(test.db)
});
const input = (
	rule: Partial<RuleInput['rule']> = {},
	part: Partial<RuleInput> = {}
): RuleInput => ({
	requestId: randomUUID(),
	id: randomUUID(),
	version: 0,
	reason: '',
	meant: false,
	rule: {
		what: 'inspection',
		detail: '',
		every: { days: 7 },
		window: 2,
		families: [],
		modelId: null,
		usePattern: null,
		placeId: null,
		replaces: null,
		...rule
	},
	...part
});
const dueOn = async (tag: string) => {
	const { item } = await itemByTag(test.db, tag);
	return (await duesOfItem(test.db, item.id)).map(({ what, on }) => `${what} ${on}`);
};
const says = async () => (await history({ db: test.db }, { limit: 1 }))[0]?.says;

beforeEach(async () => {
	await test?.close();
	test = await freshDatabase();
	yard = await smallSite(test.db);
	for (const tag of ['HM-0001', 'HM-0002']) await inspect(yard.as(yard.people.technician), tag);
	await addPiece(test, yard, 'full-face', 'FF-0001');
	await inspected(test, yard, ['FF-0001'], new Date('2026-11-10T09:00:00Z'));
});
afterAll(() => test.close());

describe('a rule of the site', () => {
	it('moves what it looks at and nothing else, and is said in the log', async () => {
		await saveRule(await boss(), input({ families: ['half-mask'] }, { reason: 'Fish meal' }));
		expect(await dueOn('HM-0001')).toEqual(['inspection 2026-12-01']);
		expect(await dueOn('FF-0001')).toEqual(['inspection 2026-12-10']);
		expect(await says()).toBe(
			'Rule of intervals made: Inspection every 7 days, half masks; due from 2 days before. Fish meal'
		);
		const { verdict } = await itemPage(await boss(), 'HM-0001');
		expect(verdict.reasons.map(({ origin }) => origin.kind)).toEqual(['published', 'site']);
	});

	it('says beforehand what becomes due and overdue, where, and what it costs; writing nothing', async () => {
		const before = [await test.db.select().from(itemState), await test.db.select().from(itemDue)];
		const preview = await previewRule(await boss(), input({ every: { days: 15 }, window: 2 }));
		// 10 November and 15 days is the 25th: within its window on the 24th.
		expect(preview).toEqual({
			items: 3,
			due: 1,
			overdue: 0,
			places: [{ place: 'Shed', due: 1, overdue: 0 }],
			benchMinutes: 5
		});
		expect([await test.db.select().from(itemState), await test.db.select().from(itemDue)]).toEqual(
			before
		);
	});

	it('does what its preview said', async () => {
		for (const days of [3, 10, 14, 40]) {
			const asked = input({ every: { days }, window: 1 }, { meant: true });
			const { due, overdue } = await previewRule(await boss(), asked);
			const was = await states();
			await saveRule(await boss(), asked);
			const now = await states();
			const moved = (state: string) =>
				Object.keys(now).filter((id) => now[id] === state && was[id] !== state).length;
			expect([days, moved('due'), moved('overdue')]).toEqual([days, due, overdue]);
			await endRule(await boss(), {
				requestId: randomUUID(),
				id: asked.id,
				version: 1,
				reason: 'tried'
			});
			expect(await states()).toEqual(was);
		}
	});
	const states = async (asOf = '2026-11-24'): Promise<Record<string, string>> => {
		const rows = await test.db.select().from(itemState);
		return Object.fromEntries(
			rows.map((row) => [
				row.itemId,
				asOf > row.dueOn ? 'overdue' : asOf >= row.dueFrom ? 'due' : 'ready'
			])
		);
	};

	it('that would make most of the site overdue has to be meant', async () => {
		for (const tag of ['FF-0002', 'FF-0003', 'FF-0004'])
			await addPiece(test, yard, 'full-face', tag);
		await inspected(
			test,
			yard,
			['FF-0002', 'FF-0003', 'FF-0004'],
			new Date('2026-11-10T09:00:00Z')
		);
		const asked = input({ every: { days: 3 }, window: 1 });
		await expectRefusal(saveRule(await boss(), asked), 'invalid', /4 of 6 items would be overdue/);
		expect((await rulesPage(await boss())).own).toEqual([]);
		await saveRule(await boss(), { ...asked, requestId: randomUUID(), meant: true });
		expect((await rulesPage(await boss())).own).toHaveLength(1);
	});

	it('in place of a shipped one may be looser with a reason, and a second one may be for other things', async () => {
		const looser = { every: { months: 3 }, replaces: 'uk-monthly' };
		await expectRefusal(saveRule(await boss(), input(looser)), 'invalid', /say why/);
		await saveRule(await boss(), input(looser, { reason: 'Used twice a year' }));
		expect(await dueOn('HM-0001')).toEqual(['inspection 2027-02-24']);
		await saveRule(
			await boss(),
			input(
				{ every: { months: 2 }, replaces: 'uk-monthly', families: ['full-face'] },
				{ reason: 'Little used' }
			)
		);
		expect(await dueOn('FF-0001')).toEqual(['inspection 2027-01-10']);
		expect(await dueOn('HM-0001')).toEqual(['inspection 2027-02-24']);
		expect((await rulesPage(await boss())).shipped[0]).toMatchObject({ replaced: true });
	});

	it('is changed with old and new, not over somebody else’s change, and ended with a reason', async () => {
		const asked = input({ placeId: yard.place });
		await saveRule(await boss(), asked);
		const next = { ...asked, rule: { ...asked.rule, every: { days: 14 } } };
		await expectRefusal(
			saveRule(await boss(), { ...next, requestId: randomUUID() }),
			'conflict',
			/meanwhile/
		);
		await saveRule(await boss(), { ...next, requestId: randomUUID(), version: 1 });
		expect(await says()).toBe(
			'Rule of intervals changed from: Inspection every 7 days, all equipment at Shed; due from 2 days before; to: Inspection every 14 days, all equipment at Shed; due from 2 days before'
		);
		const end = { requestId: randomUUID(), id: asked.id, version: 2, reason: '' };
		await expectRefusal(endRule(await boss(), end), 'invalid', /Say why/);
		await endRule(await boss(), { ...end, reason: 'Dust is gone' });
		expect(await dueOn('HM-0001')).toEqual(['inspection 2026-12-24']);
		expect((await loadSite(test.db)).rules).toEqual([]);
	});

	it('holds for whoever works with choices that were read before it', async () => {
		const old = yard.as(yard.people.technician, new Date('2026-11-24T11:00:00Z'));
		await saveRule(await boss(), input());
		await inspect(old, 'HM-0001');
		expect(await dueOn('HM-0001')).toEqual([`inspection ${plusDays('2026-11-24', 7)}`]);
	});

	it('follows an item to another place, and to another use', async () => {
		const hut = randomUUID();
		await savePlace(await boss(), {
			requestId: randomUUID(),
			id: hut,
			version: 0,
			name: 'Quay hut',
			kind: 'room',
			storage: [],
			responsible: null,
			floors: {},
			above: false
		});
		await saveRule(await boss(), input({ placeId: hut }));
		await saveRule(await boss(), input({ usePattern: 'emergency', every: { days: 3 }, window: 1 }));
		expect(await dueOn('HM-0001')).toEqual(['inspection 2026-12-24']);
		const tags = ['HM-0001'];
		await moveItems(await boss(), { requestId: randomUUID(), tags, placeId: hut });
		expect(await dueOn('HM-0001')).toEqual(['inspection 2026-12-01']);
		await setUse(await boss(), { requestId: randomUUID(), tags, usePattern: 'emergency' });
		expect(await dueOn('HM-0001')).toEqual(['inspection 2026-11-27']);
		expect(await says()).toBe('Use changed from shared to emergency');
	});

	it('of bench tests asks for one of what has a bench, and of nothing else', async () => {
		await saveRule(
			await boss(),
			input({ what: 'bench test', every: { months: 6 } }, { meant: true })
		);
		expect(await dueOn('FF-0001')).toEqual(['bench test 1970-01-01', 'inspection 2026-12-10']);
		expect(await dueOn('HM-0001')).toEqual(['inspection 2026-12-24']);
		await expectRefusal(
			saveRule(await boss(), input({ what: 'bench test', families: ['half-mask'] })),
			'invalid',
			/Half masks have no such thing: bench test/
		);
	});

	it('is refused of what there is not, and to a technician', async () => {
		await expectRefusal(
			previewRule(await boss(), input({ families: ['kite'] })),
			'invalid',
			/no kind of equipment/
		);
		await expectRefusal(
			previewRule(await boss(), input({ modelId: randomUUID() })),
			'invalid',
			/no such model/
		);
		await expectRefusal(
			previewRule(await boss(), input({ placeId: randomUUID() })),
			'invalid',
			/place in use/
		);
		const tech = { ...(await boss()), actor: yard.people.technician };
		await expectRefusal(previewRule(tech, input()), 'forbidden', /technician/);
		await expectRefusal(saveRule(tech, input()), 'forbidden', /technician/);
	});
});
