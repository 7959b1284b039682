import fc from 'fast-check';
import { eq } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import { plusDays } from '../../src/core/plan/calendar.ts';
import type { ItemFacts } from '../../src/core/readiness/facts.ts';
import { stateOn } from '../../src/core/readiness/findings.ts';
import { stateCache } from '../../src/core/readiness/item-state.ts';
import { openDatabase } from '../../src/lib/server/db/client.ts';
import { listItems } from '../../src/lib/server/db/queries/items.ts';
import { item, itemState } from '../../src/lib/server/db/schema/index.ts';
import { seedDemo } from '../../src/lib/server/demo/seed.ts';
import { appendEntries } from '../../src/lib/server/kernel/audit.ts';
import { canonicalJson } from '../../src/lib/server/kernel/canonical-json.ts';
import { verifyChain } from '../../src/lib/server/kernel/chain.ts';
import { dayAt, loadSite } from '../../src/lib/server/kernel/site.ts';
import { loadFacts } from '../../src/lib/server/readiness/facts.ts';
import { rebuildState } from '../../src/lib/server/readiness/rebuild.ts';
import { history } from '../../src/lib/server/records/history.ts';
import { createAuth } from '../../src/lib/server/web/auth.ts';
import { freshDatabase, openYard, SITE, smallSite } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { TcpCut } from '../../scripts/chaos/tcp-cut.ts';
import { inspect, steps } from '../support/work.ts';

const own = openYard();

describe('the audit log', () => {
	it('is one whole chain, also when many write at once', async () => {
		await Promise.all(
			Array.from({ length: 20 }, (_, i) =>
				own.test.db.transaction((tx) =>
					appendEntries(tx, [
						{
							actorId: 'user-technician',
							action: 'test',
							subject: `x:${i}`,
							payload: { b: i, a: 'ü\n"' }
						}
					])
				)
			)
		);
		await inspect(own.yard.as(own.yard.people.technician), 'HM-0001');
		const check = await verifyChain(own.test.db, { pageSize: 7 });
		expect(check.broken).toBeUndefined();
		// Twenty, and one inspection: begun, each of its steps answered, signed.
		expect(check.entries).toBe(22 + steps.length);
		const lines = await history({ db: own.test.db }, { itemId: own.yard.masks[0] ?? '' });
		expect(lines.map((l) => l.says)).toEqual(['Inspection signed: pass', 'Inspection started']);
	});

	it('leaves no entry behind a write that failed', async () => {
		const before = (await verifyChain(own.test.db)).entries;
		await expect(
			own.test.db.transaction(async (tx) => {
				await appendEntries(tx, [{ actorId: null, action: 'lost', subject: 'x' }]);
				throw new Error('rolled back');
			})
		).rejects.toThrow('rolled back');
		expect(await verifyChain(own.test.db)).toMatchObject({ entries: before });
	});

	it.each([
		`update audit_entry set payload = '{}' where seq = 3`,
		`delete from audit_entry where seq = 3`,
		`truncate audit_entry`
	])('refuses: %s', (attack) => expect(own.test.raw.unsafe(attack)).rejects.toThrow(/append-only/));

	it.each([
		[
			'a changed entry',
			`update audit_entry set payload = '{"outcome":"pass"}' where seq = 3`,
			3,
			/changed/
		],
		['a removed entry', `delete from audit_entry where seq = 3`, 4, /missing/],
		['entries cut off at the end', `delete from audit_entry where seq > 20`, 21, /cut off/]
	])(
		'is found broken after %s by someone who turned the guards off',
		async (_, attack, seq, text) => {
			await own.test.raw.begin(async (sql) => {
				await sql.unsafe('alter table audit_entry disable trigger user');
				await sql.unsafe(attack);
				await sql.unsafe('alter table audit_entry enable trigger user');
			});
			const check = await verifyChain(own.test.db);
			expect(check.broken?.seq).toBe(seq);
			expect(check.broken?.text).toMatch(text);
			await own.test.close();
			own.test = await freshDatabase();
			own.yard = await smallSite(own.test.db);
			for (let i = 0; i < 22; i++)
				await appendEntries(own.test.db, [{ actorId: null, action: 'test', subject: `x:${i}` }]);
		}
	);

	it('writes the same content as the same text', () => {
		expect(canonicalJson({ b: 1, a: { d: [2, { f: 1, e: null }], c: 'x' } })).toBe(
			'{"a":{"c":"x","d":[2,{"e":null,"f":1}]},"b":1}'
		);
	});
});

describe('the kept state', () => {
	it('is the same in SQL as in the core, on every day', async () => {
		const [id = ''] = own.yard.masks;
		await fc.assert(
			fc.asyncProperty(
				fc.constantFrom('stop', 'watch', 'note') as fc.Arbitrary<'stop'>,
				fc.boolean(),
				fc.option(fc.integer({ min: 0, max: 50 })),
				fc.integer({ min: 0, max: 50 }),
				async (severity, broken, change, after) => {
					const facts: ItemFacts = {
						retiredOn: null,
						inService: false,
						openDefects: broken ? [{ severity, code: 'CURL', station: 'x' }] : [],
						lastInspectionOn: '2026-11-10',
						filterChangeOn: change === null ? null : plusDays('2026-11-10', change)
					};
					const cache = stateCache(facts, 'uk');
					await own.test.db.update(itemState).set(cache).where(eq(itemState.itemId, id));
					const asOf = plusDays('2026-11-10', after);
					const rows = await listItems(own.test.db, { text: 'HM-0001' }, asOf, {
						limit: 1,
						offset: 0
					});
					expect(rows[0]?.state).toBe(stateOn(cache, asOf));
				}
			),
			{ numRuns: 40 }
		);
		await rebuildState(own.test.db, own.yard.masks, SITE);
	});
});

describe('the demo', () => {
	it('fills an empty database with the same content every time, as one whole chain, its state as its facts', async () => {
		const now = new Date('2026-11-24T09:00:00Z');
		const seeded = await Promise.all(
			[1, 2].map(async () => {
				const own = await freshDatabase();
				const auth = createAuth(own.db, { secret: 's'.repeat(40), origin: 'http://localhost' });
				await seedDemo(own.db, auth, { now, password: 'a-long-password', items: 24, rounds: 2 });
				return own;
			})
		);
		const [one, two] = seeded;
		if (!one || !two) throw new Error('no databases');
		expect(await one.db.select().from(item)).toEqual(await two.db.select().from(item));
		expect(await one.db.select().from(itemState)).toEqual(await two.db.select().from(itemState));
		expect((await verifyChain(one.db)).broken).toBeUndefined();
		const site = await loadSite(one.db);
		const kept = await one.db.select().from(itemState);
		const facts = await loadFacts(
			one.db,
			kept.map((k) => k.itemId),
			site
		);
		for (const row of kept) {
			const f = facts.get(row.itemId);
			if (!f) throw new Error('no facts');
			expect(row).toMatchObject(stateCache(f.facts, site.ruleSet));
		}
		await Promise.all(seeded.map((s) => s.close()));
	});
});

describe('a database that goes away', () => {
	it('is said plainly and comes back by itself', async () => {
		const cut = await TcpCut.before(own.test.url);
		const { db, close } = openDatabase(cut.url, { max: 2 });
		expect((await loadSite(db)).name).toBe('Test yard');
		cut.sever();
		await expectRefusal(loadSite(db), 'unavailable', /database does not answer/);
		await cut.mend();
		expect((await loadSite(db)).name).toBe('Test yard');
		await close();
		await cut.close();
	});
});

describe('days', () => {
	// The calendar itself: British summer time ended on 25 October 2026 at 01:00 UTC.
	it.each([
		['2026-06-30T23:30:00Z', '2026-07-01'],
		['2026-11-24T23:30:00Z', '2026-11-24'],
		['2026-10-24T23:30:00Z', '2026-10-25']
	])('%s is %s in London', (moment, day) =>
		expect(dayAt(new Date(moment), 'Europe/London')).toBe(day)
	);
});
