import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import {
	entryTeam,
	entryWearer,
	personalItem,
	wearer,
	wearerName,
	wearerPlace
} from '../../src/lib/server/db/schema/index.ts';
import { verifyChain } from '../../src/lib/server/kernel/chain.ts';
import { peopleDues } from '../../src/lib/server/people/dues.ts';
import {
	eraseWearer,
	exportOf,
	keepOwnItem,
	matchNames,
	namesPage,
	ownThings
} from '../../src/lib/server/people/own-data.ts';
import { importWearers, previewWearers, wearersCsv } from '../../src/lib/server/people/tables.ts';
import { saveFitTest } from '../../src/lib/server/people/fit-tests.ts';
import { listWearers, saveWearer, wearerPage } from '../../src/lib/server/people/wearers.ts';
import { takeBack } from '../../src/lib/server/register/tables.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';

const own = openYard();
const NOW = new Date('2026-11-24T10:00:00Z');
const as = (role: 'technician' | 'supervisor' | 'admin') => own.yard.as(own.yard.people[role], NOW);
const bytes = (...lines: string[]) => new TextEncoder().encode(lines.join('\n'));
const HEAD = 'number,name,glasses,cleared until,places';

async function added(number: string, name: string): Promise<string> {
	const id = randomUUID();
	await saveWearer(as('technician'), {
		requestId: randomUUID(),
		id,
		version: 0,
		number,
		name,
		userId: null,
		eyewear: true,
		beard: false,
		clearedUntil: '2027-06-30',
		trainedUntil: null,
		placeIds: [own.yard.place]
	});
	return id;
}
/** A use of air that is over, under a name as it was typed. */
async function entered(name: string): Promise<void> {
	const team = randomUUID();
	const by = own.yard.people.technician.id;
	const [from, to] = [new Date('2026-11-20T08:00:00Z'), new Date('2026-11-20T08:30:00Z')];
	await own.test.db.insert(entryTeam).values({
		id: team,
		task: 'Tank 4',
		placeId: own.yard.place,
		marginMin: 10,
		openedBy: by,
		openedAt: from,
		closedAt: to
	});
	await own.test.db.insert(entryWearer).values({
		id: randomUUID(),
		teamId: team,
		wearer: name,
		waterVolumeL: 6.8,
		startBar: 300,
		warningBar: 55,
		expectedLPerMin: 50,
		startedAt: from,
		endedAt: to,
		endBar: 100
	});
}

describe('a table of wearers', () => {
	it('comes in whole or not at all, goes out as it came, and is taken back', async () => {
		const table = bytes(HEAD, 'T1,Ada Brook,yes,2027-01-31,Shed', 'T2,Ole Vang,no,,');
		const seen = await previewWearers(as('technician'), table);
		expect([seen.newCount, seen.faults]).toEqual([2, []]);
		const id = randomUUID();
		const give = () => importWearers(as('technician'), { id, file: table, leaveOutBad: false });
		expect(await give()).toEqual({ imported: 2 });
		// The same table sent twice is taken in once.
		expect(await give()).toEqual({ imported: 2 });
		expect((await listWearers(as('technician'))).map(({ number }) => number)).toEqual(['T1', 'T2']);
		const out = await wearersCsv(own.test.db);
		expect(out).toContain('T1,Ada Brook,yes,no,2027-01-31,,Shed');
		const bad = bytes(HEAD, 'T3,Una Sand,yes,2027-01-31,Moon', 'T4,Per Lund,no,,', 't1,Twice,no,,');
		const refused = importWearers(as('technician'), {
			id: randomUUID(),
			file: bad,
			leaveOutBad: false
		});
		await expectRefusal(refused, 'invalid', /2 cells are at fault; nothing was written/);
		const part = await importWearers(as('technician'), {
			id: randomUUID(),
			file: bad,
			leaveOutBad: true
		});
		expect(part).toEqual({ imported: 1 });
		expect(await takeBack(as('technician'), { requestId: randomUUID(), id })).toEqual({ rows: 2 });
		expect((await listWearers(as('technician'))).map(({ number }) => number)).toEqual(['T4']);
	});

	it('is not taken back once somebody of it was worked with', async () => {
		const id = randomUUID();
		await importWearers(as('technician'), {
			id,
			file: bytes(HEAD, 'B1,Bo Brink,no,,'),
			leaveOutBad: false
		});
		const [row] = await own.test.db.select().from(wearer).where(eq(wearer.number, 'B1'));
		await keepOwnItem(as('technician'), {
			requestId: randomUUID(),
			wearerId: row?.id ?? '',
			tag: 'HM-0001',
			own: true
		});
		await expectRefusal(
			takeBack(as('technician'), { requestId: randomUUID(), id }),
			'conflict',
			/B1 was worked with/
		);
		await keepOwnItem(as('technician'), {
			requestId: randomUUID(),
			wearerId: row?.id ?? '',
			tag: 'HM-0001',
			own: false
		});
	});
});

describe('names that were typed', () => {
	it('are matched to wearers by a table; the rows that carry them stay as they are', async () => {
		const nora = await added('N1', 'Nora Quist');
		await entered('Nora  Quist');
		await entered('N. Quist');
		// Under the own name they are found without a word.
		expect((await ownThings(own.test.db, { id: nora, name: 'Nora Quist' })).uses).toHaveLength(1);
		const { names } = await namesPage(own.test.db);
		expect(names.find(({ key }) => key === 'nora quist')).toMatchObject({ same: nora, entries: 1 });
		expect(names.find(({ key }) => key === 'n. quist')).toMatchObject({
			same: null,
			wearerId: null
		});
		const match = (name: string, wearerId: string | null) =>
			matchNames(as('supervisor'), { requestId: randomUUID(), matches: [{ name, wearerId }] });
		expect(await match('N. Quist', nora)).toEqual({ matched: 1 });
		expect(await match('N. Quist', nora)).toEqual({ matched: 0 });
		const { uses, consumption } = await ownThings(own.test.db, { id: nora, name: 'Nora Quist' });
		expect(uses).toHaveLength(2);
		// 200 bar out of 6.8 L in half an hour: by the air's own behaviour a little less than 1360 L.
		expect(consumption?.meanLPerMin).toBeGreaterThan(38);
		expect(consumption?.meanLPerMin).toBeLessThan(45.4);
		const rows = await own.test.db.select({ wearer: entryWearer.wearer }).from(entryWearer);
		expect(rows.map((row) => row.wearer).sort()).toEqual(['N. Quist', 'Nora  Quist']);
		expect(await match('N. Quist', null)).toEqual({ matched: 1 });
		expect((await ownThings(own.test.db, { id: nora, name: 'Nora Quist' })).uses).toHaveLength(1);
		await expectRefusal(match('X', randomUUID()), 'invalid', /Choose a wearer/).catch(
			async (error: unknown) => {
				// The foreign key says the same.
				expect(String(error)).toMatch(/wearer/);
			}
		);
	});
});

describe('somebody’s own', () => {
	it('is one person’s at a time, and said on their page', async () => {
		const [one, other] = [await added('O1', 'Olga One'), await added('O2', 'Otto Two')];
		const give = (wearerId: string, mine = true) =>
			keepOwnItem(as('technician'), {
				requestId: randomUUID(),
				wearerId,
				tag: 'hm-0002',
				own: mine
			});
		await give(one);
		await expectRefusal(give(other), 'conflict', /HM-0002 is Olga One’s own/);
		await expectRefusal(give(one), 'conflict', /theirs already/);
		expect((await wearerPage(as('technician'), one)).own.items).toMatchObject([
			{ tag: 'HM-0002', size: 'M', since: '2026-11-24' }
		]);
		await expectRefusal(give(other, false), 'conflict', /is not theirs/);
		await give(one, false);
		expect((await wearerPage(as('technician'), one)).own.items).toEqual([]);
	});
});

describe('the data of a person', () => {
	it('is written out whole, erased on request, and the log still proves', async () => {
		const id = await added('E1', 'Erna Solt');
		await entered('erna solt');
		await keepOwnItem(as('technician'), {
			requestId: randomUUID(),
			wearerId: id,
			tag: 'HM-0001',
			own: true
		});
		await saveFitTest(as('technician'), {
			id: randomUUID(),
			wearerId: id,
			modelId: own.yard.model,
			size: 'M',
			method: 'qualitative',
			protocol: null,
			agent: 'sweet',
			factors: {},
			noticedNothing: true,
			worn: 'glasses',
			testedOn: '2026-11-20',
			tester: ''
		});
		const kept = await exportOf(as('technician'), id);
		expect(kept).toMatchObject({
			wearer: { number: 'E1', name: 'Erna Solt', glasses: true, places: ['Shed'] },
			fitTests: [{ model: 'T1', size: 'M', passed: true, protocol: 'sweet' }],
			ownItems: [{ tag: 'HM-0001' }],
			entries: [{ task: 'Tank 4' }]
		});
		const erase = (version = 1) =>
			eraseWearer(as('admin'), {
				requestId: randomUUID(),
				id,
				version,
				reason: 'their own request'
			});
		await expectRefusal(erase(7), 'conflict', /changed meanwhile/);
		await erase();
		await expectRefusal(erase(2), 'conflict', /erased already/);
		const [row] = await own.test.db.select().from(wearer).where(eq(wearer.id, id));
		expect(row).toMatchObject({
			number: 'E1',
			name: 'Wearer E1',
			userId: null,
			eyewear: false,
			clearedUntil: null,
			erasedOn: '2026-11-24'
		});
		for (const table of [wearerPlace, personalItem])
			expect(await own.test.db.select().from(table).where(eq(table.wearerId, id))).toEqual([]);
		// The record of the tests stays, under the number.
		expect((await wearerPage(as('technician'), id)).tests).toHaveLength(1);
		// Whom the typed name meant is known, so that it is not shown any more.
		const names = await own.test.db.select().from(wearerName).where(eq(wearerName.wearerId, id));
		expect(names).toEqual([{ name: 'erna solt', wearerId: id }]);
		const { names: shown } = await namesPage(own.test.db);
		expect(shown.find(({ wearerId }) => wearerId === id)?.erased).toBe(true);
		// Nowhere in the log does the name stand, and the log proves.
		const log = await own.test.raw`select payload::text as text from audit_entry`;
		expect(log.filter(({ text }) => /erna|solt/i.test(String(text)))).toEqual([]);
		expect((await verifyChain(own.test.db)).broken).toBeUndefined();
		await expectRefusal(exportOf(as('technician'), id), 'not found', /no such wearer/);
		await expectRefusal(
			saveWearer(as('technician'), {
				requestId: randomUUID(),
				id,
				version: 2,
				number: 'E1',
				name: 'Erna Solt',
				userId: null,
				eyewear: false,
				beard: false,
				clearedUntil: null,
				trainedUntil: null,
				placeIds: []
			}),
			'conflict',
			/erased/
		);
		expect((await listWearers(as('technician'))).map(({ number }) => number)).not.toContain('E1');
		expect(
			(await peopleDues(own.test.db, '2026-11-24', '2028-01-01')).map((d) => d.number)
		).not.toContain('E1');
	});
});
