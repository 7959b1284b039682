import { randomUUID } from 'node:crypto';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { DEFAULT_FACTS, type HazardFacts } from '../../src/core/hazards/facts.ts';
import {
	filterLot,
	filterModel,
	filterWear,
	hazardEdition,
	planFlag
} from '../../src/lib/server/db/schema/index.ts';
import { openPair, stockForPlan } from '../../src/lib/server/filters/opening.ts';
import { addWear, discardPair, pairPage } from '../../src/lib/server/filters/pairs.ts';
import {
	disposeLot,
	lotPage,
	recallLot,
	receiveLot,
	saveModel,
	store
} from '../../src/lib/server/filters/store.ts';
import {
	approvePlan,
	clearFlag,
	listPlans,
	planPage,
	savePlan
} from '../../src/lib/server/hazards/plans.ts';
import { verifyChain } from '../../src/lib/server/kernel/chain.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import { today } from '../../src/lib/server/today/shift-sheet.ts';
import {
	freshDatabase,
	smallSite,
	type SmallSite,
	type TestDatabase
} from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { inspect } from '../support/work.ts';

let test: TestDatabase;
let yard: SmallSite;
let planId: string;
const facts = (ppm: number): HazardFacts => ({
	...DEFAULT_FACTS,
	ruleSet: 'uk',
	exposureMin: 120,
	contaminants: [
		{
			substance: 'styrene',
			name: 'Styrene',
			form: 'vapour',
			concentration: { value: ppm, unit: 'ppm' }
		}
	]
});
const tech = () => yard.as(yard.people.technician);
const boss = (now?: Date) => yard.as(yard.people.supervisor, now);
const approve = (part = {}, context = boss()) =>
	approvePlan(context, {
		id: randomUUID(),
		planId,
		version: 1,
		reviewOn: '2027-05-01',
		expiresOn: '2027-11-01',
		note: '',
		...part
	});
const open = (part = {}) =>
	openPair(tech(), {
		id: randomUUID(),
		lotId: yard.lots.a2,
		itemTag: 'HM-0001',
		planId,
		initials: 'TT',
		discardReason: '',
		...part
	});
const wear = (minutes: number, part = {}) =>
	addWear(tech(), {
		id: randomUUID(),
		tag: 'FP-0001',
		planId,
		wornOn: '2026-11-24',
		minutes,
		...part
	});

beforeEach(async () => {
	await test?.close();
	test = await freshDatabase();
	yard = await smallSite(test.db);
	await test.raw`update item_model set filter_count = 2`;
	planId = randomUUID();
	await savePlan(tech(), {
		requestId: randomUUID(),
		id: planId,
		task: 'Laminating',
		placeId: yard.place,
		facts: facts(160),
		version: 0
	});
});
afterAll(() => test.close());

describe('a plan’s approval', () => {
	it('puts an edition in force that outlasts a newer draft', async () => {
		await approve();
		await savePlan(tech(), {
			requestId: randomUUID(),
			id: planId,
			task: 'Laminating',
			placeId: yard.place,
			facts: facts(900),
			version: 1
		});
		const page = await planPage(tech(), planId);
		expect(page.status).toMatchObject({ outcome: 'in force', draftAhead: true });
		expect(page.inForce.contaminants[0]?.concentration?.value).toBe(160);
		expect(page.plan.facts.contaminants[0]?.concentration?.value).toBe(900);
		// Filters are judged by what was approved, not by the draft.
		expect((await stockForPlan(tech(), planId)).need?.codeEn).toBe('A1');
		expect((await listPlans(tech()))[0]?.status.draftAhead).toBe(true);
		await expect(test.raw`delete from hazard_edition`).rejects.toThrow(/append-only/);
	});

	it('lapses: then the draft counts and says so', async () => {
		await approve();
		const later = yard.as(yard.people.technician, new Date('2027-11-02T10:00:00Z'));
		expect((await planPage(later, planId)).status.outcome).toBe('expired');
	});

	it('is given once for a double click, for what was seen, by a supervisor, with days that can be', async () => {
		const id = randomUUID();
		await Promise.all([approve({ id }), approve({ id })].map((p) => p.catch(() => null)));
		await approve({ id });
		expect(await test.db.select().from(hazardEdition)).toHaveLength(1);
		await expectRefusal(approve(), 'conflict', /Edition 1 holds exactly this/);
		await expectRefusal(approve({ version: 2 }), 'conflict', /changed while you looked/);
		await expectRefusal(approve({}, tech()), 'forbidden', /technician/);
		await expectRefusal(approve({ expiresOn: '2026-11-01' }), 'invalid', /in the past/);
		await expectRefusal(approve({ reviewOn: '2028-01-01' }), 'invalid', /review comes before/);
	});
});

describe('the wear ledger', () => {
	it('draws the pair down, and takes the mask out when it is used up', async () => {
		await inspect(tech(), 'HM-0001');
		await open();
		const first = await wear(200);
		expect(first.used).toBeGreaterThan(0.2);
		expect((await itemPage(tech(), 'HM-0001')).verdict.outcome).toBe('due');
		const second = await wear(400);
		expect(second.used).toBeGreaterThan(1);
		expect((await itemPage(tech(), 'HM-0001')).verdict.outcome).toBe('overdue');
		const page = await pairPage(tech(), 'fp-1');
		expect(page.ledger.lines).toHaveLength(2);
		expect(page.change.reasons[0]?.rule).toBe('change.used-up');
	});

	it('takes an entry once, and only what can be', async () => {
		await open();
		const id = randomUUID();
		await Promise.all([wear(30, { id }), wear(30, { id })]);
		expect(await test.db.select().from(filterWear)).toHaveLength(1);
		await expectRefusal(wear(0), 'invalid', /above zero/);
		await expectRefusal(wear(5000), 'invalid', /Were these hours/);
		await expectRefusal(wear(10, { wornOn: '2026-11-25' }), 'invalid', /not come yet/);
		await expectRefusal(wear(10, { wornOn: '2026-11-23' }), 'invalid', /was opened on 24 Nov 2026/);
		await expectRefusal(wear(10, { tag: 'FP-9' }), 'not found', /FP-0009/);
		await expectRefusal(wear(10, { tag: 'HM-1' }), 'not found', /no label of a pair/);
	});

	it('a smell before the time puts the plan in question until a supervisor looked', async () => {
		await approve();
		await open();
		await wear(60);
		await discardPair(tech(), { requestId: randomUUID(), tag: 'FP-0001', reason: 'smell' });
		expect((await planPage(tech(), planId)).status.outcome).toBe('in question');
		const sheet = await today(tech());
		expect(sheet.lines[0]).toMatchObject({ kind: 'flag', title: 'In question: Laminating' });
		const [flag] = await test.db.select().from(planFlag);
		expect(flag?.text).toMatch(/FP-0001: smell or taste at \d+ % of its predicted life/);
		const id = flag?.id ?? '';
		await expectRefusal(
			clearFlag(tech(), { requestId: randomUUID(), id, why: 'x' }),
			'forbidden',
			/technician/
		);
		await expectRefusal(
			clearFlag(boss(), { requestId: randomUUID(), id, why: ' ' }),
			'invalid',
			/Say what was found/
		);
		await clearFlag(boss(), { requestId: randomUUID(), id, why: 'measured again: 300 ppm' });
		expect((await planPage(tech(), planId)).status.outcome).toBe('in force');
		await expectRefusal(wear(10), 'conflict', /out of use meanwhile/);
		expect((await verifyChain(test.db)).broken).toBeUndefined();
	});

	it('a damaged pair speaks against nothing', async () => {
		await open();
		await discardPair(tech(), { requestId: randomUUID(), tag: 'FP-0001', reason: 'damage' });
		expect(await test.db.select().from(planFlag)).toHaveLength(0);
	});
});

describe('the filter store', () => {
	const model = (part = {}) => ({
		id: randomUUID(),
		version: 0,
		maker: 'T',
		name: 'T AX',
		mount: 'quarter turn',
		codeEn: 'AX',
		codeUs: null,
		massG: 90,
		bed: null,
		openedMonths: null,
		reorderLevel: 6,
		...part
	});
	const delivery = (part = {}) => ({
		id: randomUUID(),
		modelId: '',
		lot: 'L9',
		useBy: '2029-01-01',
		quantity: 4,
		location: 'A1',
		...part
	});

	it('takes in a filter and its deliveries, and says when to buy', async () => {
		const made = { requestId: randomUUID(), ...model() };
		await saveModel(tech(), made);
		await saveModel(tech(), made);
		const row = async () => (await store(tech())).models.find((m) => m.model.id === made.id);
		expect(await row()).toMatchObject({ usable: 0, buy: true });
		const first = delivery({ modelId: made.id });
		await receiveLot(tech(), first);
		await receiveLot(tech(), first);
		expect(await row()).toMatchObject({ usable: 4, buy: true });
		await receiveLot(tech(), delivery({ modelId: made.id, quantity: 3 }));
		expect(await row()).toMatchObject({ usable: 7, buy: false });
		await expectRefusal(
			receiveLot(tech(), delivery({ modelId: made.id, useBy: '2029-02-01' })),
			'invalid',
			/in the store with the use-by date 1 Jan 2029/
		);
		await expectRefusal(
			receiveLot(tech(), delivery({ modelId: made.id, lot: 'X', useBy: '2026-11-23' })),
			'invalid',
			/has passed/
		);
	});

	it('refuses a marking that is none, a name twice, and a stale page', async () => {
		await expectRefusal(
			saveModel(tech(), { requestId: randomUUID(), ...model({ codeEn: 'A9' }) }),
			'invalid',
			/no EN marking/
		);
		await expectRefusal(
			saveModel(tech(), { requestId: randomUUID(), ...model({ codeUs: 'OVX' }) }),
			'invalid',
			/no US marking/
		);
		await expectRefusal(
			saveModel(tech(), { requestId: randomUUID(), ...model({ codeEn: null }) }),
			'invalid',
			/at least one scheme/
		);
		await expectRefusal(
			saveModel(tech(), { requestId: randomUUID(), ...model({ name: 'T A2' }) }),
			'conflict',
			/named T A2 already/
		);
		const [held] = await test.db.select().from(filterModel);
		if (!held) throw new Error('no model');
		await saveModel(tech(), { requestId: randomUUID(), ...held, version: 1, massG: 81 });
		await expectRefusal(
			saveModel(tech(), { requestId: randomUUID(), ...held, version: 1 }),
			'conflict',
			/changed meanwhile/
		);
		await expectRefusal(
			saveModel(yard.as(yard.people.viewer), { requestId: randomUUID(), ...model() }),
			'forbidden',
			/viewer/
		);
	});

	it('a recall holds every mask that wears the lot, at once, and nothing more is opened from it', async () => {
		await inspect(tech(), 'HM-0001');
		await open();
		expect((await itemPage(tech(), 'HM-0001')).verdict.outcome).not.toBe('held');
		const recalled = await recallLot(tech(), {
			requestId: randomUUID(),
			id: yard.lots.a2,
			reason: 'maker’s notice 12'
		});
		expect(recalled.held).toEqual(['HM-0001']);
		const page = await itemPage(tech(), 'HM-0001');
		expect(page.verdict.outcome).toBe('held');
		expect(page.verdict.reasons.map((r) => r.rule)).toContain('item.filters-recalled');
		await expectRefusal(
			open({ itemTag: 'HM-0002' }),
			'conflict',
			/Its lot was recalled: maker’s notice 12/
		);
		await discardPair(tech(), { requestId: randomUUID(), tag: 'FP-0001', reason: 'recall' });
		// Whole again it is when another pair is on it.
		const bare = await itemPage(tech(), 'HM-0001');
		expect(bare.verdict.reasons.map((r) => r.rule)).not.toContain('item.filters-recalled');
		expect(bare.verdict.reasons[0]?.rule).toBe('item.incomplete');
		expect((await lotPage(test.db, yard.lots.a2)).pairs).toHaveLength(1);
	});

	it('disposes of what was seen, and not of what came meanwhile', async () => {
		await expectRefusal(
			disposeLot(tech(), { requestId: randomUUID(), id: yard.lots.old, seen: 9, why: 'past' }),
			'conflict',
			/4 are in the store now/
		);
		await disposeLot(tech(), {
			requestId: randomUUID(),
			id: yard.lots.old,
			seen: 4,
			why: 'past its date'
		});
		const lots = await test.db.select().from(filterLot);
		expect(lots.find((lot) => lot.id === yard.lots.old)?.sealedQuantity).toBe(0);
	});
});
