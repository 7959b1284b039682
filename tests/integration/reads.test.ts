import postgres from 'postgres';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openDatabase } from '../../src/lib/server/db/client.ts';
import { analyze } from '../../src/lib/server/db/queries/seed.ts';
import { gatherEntryCounts } from '../../src/lib/server/db/queries/history.ts';
import { gatherStock } from '../../src/lib/server/db/queries/stock.ts';
import { seedDemo } from '../../src/lib/server/demo/seed.ts';
import { loadSite } from '../../src/lib/server/kernel/site.ts';
import { createAuth } from '../../src/lib/server/web/auth.ts';
import { freshDatabase, type TestDatabase } from '../support/database.ts';

/** A register in which a list that is read whole shows. */
const ITEMS = 4000;
/** Tables with more rows are big. */
const BIG = 3000;
/** Of a big table no statement reads more than this share of it: what is counted up to a limit is less. */
const MOST_READ = 0.55;

type Load = (event: unknown) => unknown;
const pages = import.meta.glob<{ load?: Load }>('/src/routes/**/+page.server.ts');

/** What stands for the parameters of a page; the database is asked for one that is there. */
const PARAMETERS: Record<string, string> = {
	'/hazards/[id]': 'select id from hazard_plan limit 1',
	'/filters/pairs/[tag]':
		"select 'FP-' || lpad(number::text, 4, '0') from filter_pair order by number limit 1",
	'/filters/lots/[id]': 'select id from filter_lot limit 1',
	'/faults/[id]': 'select id from defect limit 1',
	'/items/models/[id]': 'select id from item_model limit 1',
	'/items/[tag]': "select tag from item where family = 'half-mask' order by tag limit 1",
	'/air/cylinders/[tag]': "select tag from item where family = 'cylinder' order by tag limit 1",
	'/people/[id]': 'select id from wearer limit 1',
	'/bench/[id]': 'select id from bench_test limit 1',
	'/runs/[id]': 'select id from inspection_run limit 1'
};
/** Pages as they are asked for beside their plain address. */
const SEARCHES: Record<string, readonly string[]> = {
	'/items': ['q=HM-3', 'state=overdue', 'family=half-mask&page=3', 'sort=due', 'sort=-inspected'],
	'/filters/opened': ['page=4'],
	'/records': ['from=2026-01-01&to=2026-03-01', 'tag=HM-0101', 'group=inspections']
};
/** What is worked out over everything, and is no page that anybody waits at with a mask in the hand. */
const OVER_ALL: Record<string, string> = {
	'/faults/learn inspection_run': 'what a year of inspections teaches',
	'/faults/learn item': 'what a year of inspections teaches',
	'/items/models item': 'how many there are of each model',
	'/items?q=HM-3 item': 'in the order of tags until the page is full: every fourth has the text',
	'/plan item': 'everything that falls due in six weeks',
	'/plan item_state': 'everything that falls due in six weeks',
	'/plan/buy filter_pair': 'what a year uses up',
	'/plan/forecast inspection_run': 'what a year of inspections came to',
	'/plan/forecast item': 'the whole fleet',
	'/records entry_count': 'the demo has all its entries in the days that are shown',
	'/set-up/places item': 'only while a site is set up'
};

let test: TestDatabase;
let sql: postgres.Sql;
let event: (id: string, params: object, search: string) => unknown;
const asked: { of: string; text: string; parameters: unknown[] }[] = [];
let now = '';
let close: () => Promise<void>;

beforeAll(async () => {
	test = await freshDatabase();
	const owner = new URL(process.env.TEST_DATABASE_URL ?? '');
	owner.pathname = new URL(test.url).pathname;
	const filling = openDatabase(owner.href, { max: 2, unhurried: true });
	const auth = createAuth(filling.db, { secret: 'secret of a test', origin: 'http://localhost' });
	await seedDemo(filling.db, auth, {
		now: new Date(),
		password: 'a password of the test',
		items: ITEMS,
		rounds: 2
	});
	await gatherStock(filling.db);
	await gatherEntryCounts(filling.db, new Date(0));
	await analyze(filling.db);
	await filling.close();
	const opened = openDatabase(test.url, {
		onQuery: (text, parameters) => asked.push({ of: now, text, parameters })
	});
	close = opened.close;
	sql = postgres(owner.href, { max: 1, onnotice: () => {} });
	const site = await loadSite(opened.db);
	const [person] = await sql<{ id: string; name: string; initials: string }[]>`
		select id, name, initials from "user" where role = 'admin' limit 1`;
	event = (id, params, search) => ({
		locals: {
			db: opened.db,
			site,
			auth,
			theme: 'day',
			origin: 'http://localhost',
			session: null,
			actor: { ...person, role: 'admin' }
		},
		url: new URL(`http://localhost${id}?${search}`),
		request: new Request('http://localhost/'),
		cookies: { get: () => undefined, set: () => {} },
		params,
		route: { id },
		setHeaders: () => {},
		depends: () => {},
		parent: () => Promise.resolve({})
	});
});
afterAll(async () => {
	await close();
	await sql.end();
	await test.close();
});

interface Node {
	'Node Type': string;
	'Relation Name'?: string;
	'Actual Rows': number;
	'Actual Loops': number;
	'Rows Removed by Filter'?: number;
	'Rows Removed by Index Recheck'?: number;
	Plans?: Node[];
}

/** Rows that each table gave to a plan, also those that it threw away. */
function rowsRead(node: Node, read = new Map<string, number>()): Map<string, number> {
	const table = node['Relation Name'];
	if (table) {
		const thrown =
			(node['Rows Removed by Filter'] ?? 0) + (node['Rows Removed by Index Recheck'] ?? 0);
		const rows = (node['Actual Rows'] + thrown) * node['Actual Loops'];
		read.set(table, (read.get(table) ?? 0) + rows);
	}
	for (const one of node.Plans ?? []) rowsRead(one, read);
	return read;
}

/**
 * What a statement reads where the database reads no table from end to end, and puts none beside another as a whole, as
 * long as there is another way: as it goes about it where a table is large.
 */
async function explain(text: string, parameters: unknown[]): Promise<Map<string, number>> {
	const [row] = await sql.begin('read only', async (tx) => {
		await tx.unsafe(
			'set local enable_seqscan = off; set local enable_hashjoin = off; set local enable_mergejoin = off'
		);
		return tx.unsafe<{ 'QUERY PLAN': { Plan: Node }[] }[]>(
			`explain (analyze, timing off, format json) ${text}`,
			parameters as never[]
		);
	});
	return rowsRead((row?.['QUERY PLAN'][0] ?? { Plan: {} as Node }).Plan);
}

describe('what the pages read of a large register', () => {
	it('is what they show: no statement of any page reads a big table as a whole', async () => {
		const counts = await sql<{ name: string; rows: number }[]>`
			select relname as name, n_live_tup::int as rows from pg_stat_user_tables where n_live_tup > ${BIG}`;
		const big = new Map(counts.map(({ name, rows }) => [name, rows]));
		expect([...big.keys()].sort()).toEqual(
			expect.arrayContaining(['audit_entry', 'inspection_answer', 'item', 'item_due', 'item_state'])
		);
		let loaded = 0;
		for (const [file, page] of Object.entries(pages)) {
			const { load } = await page();
			const id = file.slice('/src/routes'.length, -'/+page.server.ts'.length) || '/';
			if (!load) continue;
			const [name] = /(?<=\[)\w+(?=\])/.exec(id) ?? [];
			const base = Object.keys(PARAMETERS).find((known) => id.startsWith(known));
			if (name && !base) continue;
			const [value] = base
				? await sql.unsafe<Record<string, string>[]>(PARAMETERS[base] ?? '')
				: [];
			const params = name ? { [name]: Object.values(value ?? {})[0] } : {};
			for (const search of ['', ...(SEARCHES[id] ?? [])]) {
				now = `${id}?${search}`;
				// A redirect or a refusal is an answer as well: what was asked before it counts.
				await Promise.resolve(load(event(id, params, search))).catch(() => {});
				loaded++;
			}
		}
		expect(loaded).toBeGreaterThan(80);
		const seen = new Set<string>();
		const wrong: string[] = [];
		for (const { of, text, parameters } of asked) {
			if (!/^\s*(select|with|\()/i.test(text) || seen.has(text)) continue;
			seen.add(text);
			const [page = ''] = of.split('?');
			for (const [table, rows] of await explain(text, parameters)) {
				const all = big.get(table);
				const known = OVER_ALL[`${page} ${table}`] ?? OVER_ALL[`${of} ${table}`];
				if (all !== undefined && rows > all * MOST_READ && !known)
					wrong.push(`${of} reads ${rows} of ${all} ${table}: ${text.slice(0, 300)}`);
			}
		}
		expect(seen.size).toBeGreaterThan(150);
		expect(wrong).toEqual([]);
	});
});
