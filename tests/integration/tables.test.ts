import { randomUUID } from 'node:crypto';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { IMPORT_KINDS } from '../../src/core/csv/kinds.ts';
import { readTable } from '../../src/core/csv/table.ts';
import { emptyStoreRow, STORE_COLUMNS } from '../../src/core/filters/store-table.ts';
import { emptyItemRow, ITEM_COLUMNS } from '../../src/core/register/csv.ts';
import { emptyWearerRow, WEARER_COLUMNS } from '../../src/core/people/wearer-table.ts';
import { emptyPartRow, PART_COLUMNS } from '../../src/core/service/parts-table.ts';
import {
	filterLot,
	filterModel,
	item,
	partLot,
	tableImport
} from '../../src/lib/server/db/schema/index.ts';
import { disposeLot } from '../../src/lib/server/filters/store.ts';
import { closeHeavy } from '../../src/lib/server/jobs/heavy.ts';
import { verifyChain } from '../../src/lib/server/kernel/chain.ts';
import { progressOf, stopImport } from '../../src/lib/server/register/progress.ts';
import { importItems, moveItems } from '../../src/lib/server/register/register.ts';
import {
	importFilters,
	importParts,
	lastImports,
	previewStore,
	takeBack,
	templateOf
} from '../../src/lib/server/register/tables.ts';
import { savePlace } from '../../src/lib/server/site/places.ts';
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
const tech = () => yard.as(yard.people.technician);
const bytes = (...lines: string[]) => new TextEncoder().encode(lines.join('\n'));
const given = (table: Uint8Array, part = {}) => ({
	id: randomUUID(),
	file: table,
	leaveOutBad: false,
	...part
});
const back = (id: string, context = tech()) => takeBack(context, { requestId: randomUUID(), id });

beforeEach(async () => {
	await test?.close();
	test = await freshDatabase();
	yard = await smallSite(test.db);
});
afterAll(async () => {
	await test.close();
	await closeHeavy();
});

/** Asks until there is an answer. */
async function waitFor<T>(ask: () => Promise<T | null>): Promise<T> {
	for (;;) {
		const found = await ask();
		if (found !== null) return found;
	}
}

const FILTERS = bytes(
	'filter,mount,EN marking,"mass of one, g",lot,use by,sealed',
	'T A2,,,,L7,2029-01-31,10',
	'T P3,thread,P3,60,P-1,2029-01-31,12'
);
const ITEMS = bytes('tag,model,place', 'HM-0501,T1,Shed', 'HM-0502,T1,Shed', 'HM-0503,T1,Shed');

describe('a table of filters', () => {
	it('is looked at without a trace, taken in whole with what was not known, and taken back whole', async () => {
		const [models, lots] = [await test.db.$count(filterModel), await test.db.$count(filterLot)];
		expect(await previewStore(tech(), 'filters', FILTERS)).toMatchObject({ newCount: 2, rows: 2 });
		expect(await test.db.$count(filterLot)).toBe(lots);
		const table = given(FILTERS);
		expect(await importFilters(tech(), table)).toEqual({ imported: 2 });
		// Sent again it is the same table.
		expect(await importFilters(tech(), table)).toEqual({ imported: 2 });
		expect([await test.db.$count(filterModel), await test.db.$count(filterLot)]).toEqual([
			models + 1,
			lots + 2
		]);
		expect(await back(table.id)).toEqual({ rows: 3 });
		expect([await test.db.$count(filterModel), await test.db.$count(filterLot)]).toEqual([
			models,
			lots
		]);
		expect((await lastImports(test.db, 'filters'))[0]?.table.undoneAt).not.toBeNull();
		await expectRefusal(back(table.id), 'conflict', /already/);
		expect((await verifyChain(test.db)).broken).toBeUndefined();
	});

	it('with a fault is taken not at all, or without the rows at fault when that is asked', async () => {
		const bad = bytes(
			'filter,mount,EN marking,"mass of one, g",lot,use by,sealed',
			'T A2,,,,L7,2029-01-31,10',
			'T A2,,,,L8,2019-01-31,10'
		);
		await expectRefusal(importFilters(tech(), given(bad)), 'invalid', /1 cell is at fault/);
		expect(await importFilters(tech(), given(bad, { leaveOutBad: true }))).toEqual({ imported: 1 });
	});

	it('is not taken back once a lot of it was worked with, which is named', async () => {
		const table = given(FILTERS);
		await importFilters(tech(), table);
		const [lot] = (await test.db.select().from(filterLot)).filter(({ lot }) => lot === 'L7');
		await disposeLot(tech(), { requestId: randomUUID(), id: lot?.id ?? '', seen: 10, why: 'wet' });
		await expectRefusal(back(table.id), 'conflict', /lot L7 was worked with since/);
	});
});

describe('a table of parts', () => {
	it('is taken in and back', async () => {
		const before = await test.db.$count(partLot);
		const table = given(bytes('part,lot,quantity', 'Lens,N-1,4', 'gasket,G-1,40'));
		expect(await importParts(tech(), table)).toEqual({ imported: 2 });
		expect(await test.db.$count(partLot)).toBe(before + 2);
		await back(table.id);
		expect(await test.db.$count(partLot)).toBe(before);
	});

	it('is refused to a viewer, both ways', async () => {
		const viewer = yard.as(yard.people.viewer);
		const table = bytes('part,lot,quantity', 'Lens,N-1,4');
		await expectRefusal(importParts(viewer, given(table)), 'forbidden', /viewer/);
		await expectRefusal(previewStore(viewer, 'parts', table), 'forbidden', /viewer/);
		const kept = given(table);
		await importParts(tech(), kept);
		await expectRefusal(back(kept.id, viewer), 'forbidden', /viewer/);
	});
});

describe('a table of items', () => {
	it('is taken back as if it had never come in, and its tags are free again', async () => {
		const table = given(ITEMS);
		await importItems(tech(), table);
		expect(await test.db.$count(item)).toBe(5);
		expect(await back(table.id)).toEqual({ rows: 3 });
		expect(await test.db.$count(item)).toBe(2);
		const { rows } = await test.db.execute(`select count(*)::int as n from item_due d
			where not exists (select 1 from item i where i.id = d.item_id)`);
		expect(rows).toEqual([{ n: 0 }]);
		expect(await importItems(tech(), given(ITEMS))).toEqual({ imported: 3 });
	});

	it.each([
		['inspected', () => inspect(tech(), 'HM-0502')],
		[
			'moved',
			async () => {
				const id = randomUUID();
				await savePlace(yard.as(yard.people.supervisor), {
					requestId: randomUUID(),
					id,
					version: 0,
					name: 'Quay',
					kind: 'room',
					storage: [],
					responsible: null,
					floors: {},
					above: false
				});
				await moveItems(tech(), { requestId: randomUUID(), tags: ['HM-0502'], placeId: id });
			}
		]
	])('of which one was %s stays, and the one is named', async (_, work) => {
		const table = given(ITEMS);
		await importItems(tech(), table);
		await work();
		await expectRefusal(back(table.id), 'conflict', /HM-0502 was worked with since/);
		expect(await test.db.$count(item)).toBe(5);
	});

	it('says how far it is, and is stopped with nothing of it taken in', async () => {
		const rows = Array.from({ length: 6000 }, (_, i) => `L-${10_000 + i},T1,Shed`);
		const table = given(bytes('tag,model,place', ...rows));
		const running = importItems(tech(), table);
		const seen = await waitFor(() => progressOf(tech(), table.id));
		expect(seen).toMatchObject({ total: 6000, cancelled: false });
		expect(seen.done).toBeGreaterThan(0);
		await expectRefusal(stopImport(yard.as(yard.people.viewer), table.id), 'forbidden', /viewer/);
		expect(await stopImport(tech(), table.id)).toBe(true);
		await expectRefusal(running, 'conflict', /Nothing of it was taken in/);
		expect([await test.db.$count(item), await test.db.$count(tableImport)]).toEqual([2, 0]);
		expect(await progressOf(tech(), table.id)).toBeNull();
		expect(await stopImport(tech(), table.id)).toBe(false);
	});

	it('cannot be taken back by reaching past the log', async () => {
		const table = given(ITEMS);
		await importItems(tech(), table);
		await expect(test.db.execute(`delete from item where tag = 'HM-0501'`)).rejects.toThrow();
	});
});

describe('an empty table', () => {
	it.each(IMPORT_KINDS)('of %s is one that is read again without a fault', (kind) => {
		const text = templateOf(kind);
		const read =
			kind === 'items'
				? readTable(text, ITEM_COLUMNS, emptyItemRow)
				: kind === 'filters'
					? readTable(text, STORE_COLUMNS, emptyStoreRow)
					: kind === 'parts'
						? readTable(text, PART_COLUMNS, emptyPartRow)
						: readTable(text, WEARER_COLUMNS, emptyWearerRow);
		expect([read.faults, read.unknown, read.good.length]).toEqual([[], [], 1]);
	});
});
