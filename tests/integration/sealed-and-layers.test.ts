import { eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import type { FilterRole } from '../../src/core/filters/stock.ts';
import { DEFAULT_FACTS } from '../../src/core/hazards/facts.ts';
import { filterLot, filterModel } from '../../src/lib/server/db/schema/index.ts';
import { fitLayer, layersFor, layersOn, removeLayer } from '../../src/lib/server/filters/layers.ts';
import { lotsFitting, openPair } from '../../src/lib/server/filters/opening.ts';
import { addWear, discardPair } from '../../src/lib/server/filters/pairs.ts';
import { recallLot } from '../../src/lib/server/filters/store.ts';
import { savePlan } from '../../src/lib/server/hazards/plans.ts';
import { runPage, startRun } from '../../src/lib/server/inspection/runs.ts';
import { itemPage } from '../../src/lib/server/register/item-page.ts';
import {
	freshDatabase,
	smallSite,
	type SmallSite,
	type TestDatabase
} from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { addPiece } from '../support/yard.ts';

let test: TestDatabase;
let yard: SmallSite;
let planId: string;
const tech = () => yard.as(yard.people.technician);
const open = (itemTag: string, lotId: string, part = {}) =>
	openPair(tech(), {
		id: randomUUID(),
		lotId,
		itemTag,
		planId: null,
		initials: 'TT',
		discardReason: '',
		...part
	});

/** A lot of something in the filter store. */
async function inStore(
	name: string,
	role: FilterRole,
	part: { mount?: string; code?: string | null; sealed?: number; useBy?: string } = {}
): Promise<string> {
	const [modelId, id] = [randomUUID(), randomUUID()];
	await test.db.insert(filterModel).values({
		id: modelId,
		maker: 'T',
		name,
		role,
		mount: part.mount ?? 'quarter turn',
		codeEn: part.code ?? null,
		massG: 20
	});
	await test.db.insert(filterLot).values({
		id,
		modelId,
		lot: `LOT ${name}`,
		useBy: part.useBy ?? '2029-05-31',
		sealedQuantity: part.sealed ?? 6
	});
	return id;
}
const sealedLeft = async (id: string) =>
	(await test.db.select().from(filterLot).where(eq(filterLot.id, id)))[0]?.sealedQuantity;

beforeEach(async () => {
	await test?.close();
	test = await freshDatabase();
	yard = await smallSite(test.db);
	await test.raw`update item_model set filter_count = 2`;
	planId = randomUUID();
	const styrene = { substance: 'styrene', name: 'Styrene', form: 'vapour' as const };
	await savePlan(tech(), {
		requestId: randomUUID(),
		id: planId,
		version: 0,
		task: 'Laminating',
		placeId: yard.place,
		facts: {
			...DEFAULT_FACTS,
			ruleSet: 'uk',
			exposureMin: 120,
			contaminants: [{ ...styrene, concentration: { value: 160, unit: 'ppm' } }]
		}
	});
});
afterAll(() => test.close());

describe('the filter of an escape set', () => {
	const hood = (part = {}) =>
		addPiece(test, yard, 'escape-set', 'ES-0001', { mount: 'hood', filterCount: 1, ...part });

	it('is lacking until it is on record, and stays sealed until its use-by date', async () => {
		await hood();
		expect((await itemPage(tech(), 'ES-0001')).facts.lacks?.[0]).toMatch(/No filter in it/);
		const lot = await inStore('Flee', 'filter', { mount: 'hood', code: 'A1B1E1K1' });
		const opened = await open('ES-0001', lot);
		expect(opened.changeOn).toBe('2029-05-31');
		expect(await sealedLeft(lot)).toBe(5);
		const page = await itemPage(tech(), 'ES-0001');
		expect([page.facts.lacks, page.facts.filterChangeOn]).toEqual([[], '2029-05-31']);
		const { id } = await startRun(tech(), { id: randomUUID(), tag: 'ES-0001' });
		expect((await runPage(tech(), id)).onRecord?.filters).toMatchObject({ sealed: true, count: 1 });
	});

	it('is chosen by its mount, date and approval, and never worn in part', async () => {
		const { modelId } = await hood({ approved: ['Flee'] });
		const lot = await inStore('Flee', 'filter', { mount: 'hood', code: 'A1B1E1K1' });
		await inStore('Flee 2', 'filter', { mount: 'hood', code: 'A1B1E1K1' });
		const late = await inStore('Flee 3', 'filter', {
			mount: 'hood',
			code: 'P3',
			useBy: '2026-01-31'
		});
		const { model } = await itemPage(tech(), 'ES-0001');
		expect(model.id).toBe(modelId);
		expect((await lotsFitting(tech(), model)).map((row) => row.lot.id)).toEqual([lot]);
		await expectRefusal(open('ES-0001', late), 'conflict', /not approved/);
		await expectRefusal(open('ES-0001', yard.lots.a2), 'conflict', /not approved/);
		const { tag } = await open('ES-0001', lot);
		const worn = { id: randomUUID(), tag, planId, wornOn: '2026-11-24', minutes: 5 };
		await expectRefusal(addWear(tech(), worn), 'conflict', /stays sealed/);
	});

	it('is refused to a set that brings its air, and a mask has none without a plan', async () => {
		await addPiece(test, yard, 'escape-set', 'ES-0002', { mount: 'none' });
		const lot = await inStore('Flee', 'filter', { mount: 'hood', code: 'A1B1E1K1' });
		await expectRefusal(open('ES-0002', lot), 'invalid', /takes no filter/);
		await expectRefusal(open('HM-0001', yard.lots.a2), 'invalid', /from a hazard plan/);
	});
});

describe('what sits over the filters', () => {
	it('is no filter: a pair of it is refused', async () => {
		const pad = await inStore('Coarse pad', 'pre-filter', { code: 'P1' });
		await expectRefusal(
			open('HM-0001', pad, { planId }),
			'conflict',
			/a pre-filter: alone it is no filter/
		);
	});

	it('comes off the store when fitted, alike on both sides, and an adapter is used up with its first fitting', async () => {
		const { tag } = await open('HM-0001', yard.lots.a2, { planId });
		const adapter = await inStore('Snap ring', 'adapter', { sealed: 4 });
		await inStore('Other ring', 'adapter', { mount: 'press ring' });
		expect((await layersFor(tech(), 'quarter turn', 2)).map((row) => row.lot.id)).toEqual([
			adapter
		]);
		await fitLayer(tech(), { id: randomUUID(), tag, lotId: adapter });
		expect(await sealedLeft(adapter)).toBe(2);
		await expectRefusal(
			fitLayer(tech(), { id: randomUUID(), tag, lotId: adapter }),
			'conflict',
			/carries one already/
		);
		const { pair } = await itemPage(tech(), 'HM-0001');
		const pairId = pair?.pair.id ?? '';
		const [layer] = await layersOn(test.db, pairId);
		const off = { requestId: randomUUID(), tag, layerId: layer?.id ?? '' };
		await removeLayer(tech(), off);
		expect([await layersOn(test.db, pairId), await sealedLeft(adapter)]).toEqual([[], 2]);
		await fitLayer(tech(), { id: randomUUID(), tag, lotId: adapter });
		expect(await sealedLeft(adapter)).toBe(0);
		// One is left for two filters: unlike sides are not fitted.
		await test.raw`update filter_lot set sealed_quantity = 1 where id = ${adapter}`;
		const [again] = await layersOn(test.db, pairId);
		await removeLayer(tech(), { requestId: randomUUID(), tag, layerId: again?.id ?? '' });
		await expectRefusal(
			fitLayer(tech(), { id: randomUUID(), tag, lotId: adapter }),
			'conflict',
			/1 sealed left, 2 are needed/
		);
	});

	it('holds its mask when its own lot is recalled, and goes with the pair', async () => {
		const { tag } = await open('HM-0001', yard.lots.a2, { planId });
		const pad = await inStore('Dust pad', 'pre-filter', { code: 'P2' });
		await fitLayer(tech(), { id: randomUUID(), tag, lotId: pad });
		const recalled = await recallLot(yard.as(yard.people.supervisor), {
			requestId: randomUUID(),
			id: pad,
			reason: 'Notice'
		});
		expect(recalled.held).toEqual(['HM-0001']);
		expect((await itemPage(tech(), 'HM-0001')).facts.filtersRecalled).toBe(true);
		await discardPair(tech(), { requestId: randomUUID(), tag, reason: 'damage' });
		const { rows } = await test.db.execute(
			`select count(*)::int as n from filter_layer where removed_at is null`
		);
		expect(rows).toEqual([{ n: 0 }]);
	});
});
