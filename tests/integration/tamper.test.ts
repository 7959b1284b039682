import { sql } from 'drizzle-orm';
import { createHash } from 'node:crypto';
import { appendFileSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { anchorHead, readAnchors } from '../../src/lib/server/kernel/anchors.ts';
import { verifyChain } from '../../src/lib/server/kernel/chain.ts';
import { openYard } from '../support/database.ts';
import { inspect } from '../support/work.ts';

const folder = mkdtempSync(join(tmpdir(), 'anchors-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
let place: { key: string; file: string };
let runs: string[];
let signedTo: number;

const own = openYard(undefined, 'test');
const AT = new Date('2026-11-24T10:00:00Z');

beforeEach(async () => {
	place = { key: join(folder, 'key.pem'), file: join(folder, `${Math.random()}.jsonl`) };
	runs = [await inspect(own.tech(), 'HM-0001'), await inspect(own.tech(), 'HM-0002')];
	signedTo = (await anchorHead(own.test.db, place, 'interval', AT))?.seq ?? 0;
	// What comes after the end was signed last.
	runs.push(await inspect(own.tech(new Date('2026-11-24T11:00:00Z')), 'HM-0001'));
});

/** What only somebody does who owns the database: guards off, deed, guards on. */
async function asOwner(deed: string | ((sql: typeof own.test.raw) => Promise<unknown>)) {
	const tables = [
		'audit_entry',
		'audit_head',
		'inspection_run',
		'inspection_answer',
		'record_hash'
	];
	const guards = async (how: 'disable' | 'enable') => {
		for (const table of tables)
			await own.test.raw.unsafe(`alter table ${table} ${how} trigger user`);
	};
	await guards('disable');
	await (typeof deed === 'string' ? own.test.raw.unsafe(deed) : deed(own.test.raw));
	await guards('enable');
}
const check = async () =>
	verifyChain(own.test.db, { signed: await readAnchors(place), pageSize: 9 });
const faults = async () => (await check()).faults.map(({ where, text }) => `${where}: ${text}`);

interface Row {
	seq: string;
	at: Date;
	actor_id: string | null;
	action: string;
	item_id: string | null;
	subject: string;
	payload: string;
}

/** Makes every hash from an entry on anew, as somebody would who knows how they are made. */
async function recompute(sql: typeof own.test.raw, from = 1) {
	let [{ hash: before } = { hash: '0'.repeat(64) }] = await sql<{ hash: string }[]>`
		select hash from audit_entry where seq < ${from} order by seq desc limit 1`;
	let last = from - 1;
	for (const row of await sql<Row[]>`select * from audit_entry where seq >= ${from} order by seq`) {
		const text = [
			...[before, row.seq, row.at.toISOString(), row.actor_id ?? '', row.action],
			...[row.item_id ?? '', row.subject, row.payload]
		].join('\n');
		const hash = createHash('sha256').update(text).digest('hex');
		await sql`update audit_entry set prev_hash = ${before}, hash = ${hash} where seq = ${row.seq}`;
		before = hash;
		last = Number(row.seq);
	}
	await sql`update audit_head set seq = ${last}, hash = ${before}`;
}

describe('a record that nobody touched', () => {
	it('is whole: every entry, every record, every signed end', async () => {
		const found = await check();
		expect(found.faults).toEqual([]);
		expect(found).toMatchObject({ records: 3, unhashed: 0, anchors: 1, anchoredTo: signedTo });
	});

	it('is whole while others go on writing', async () => {
		let going = true;
		const writing = (async () => {
			while (going) await inspect(own.tech(), 'HM-0002');
		})();
		for (let i = 0; i < 5; i++) {
			await anchorHead(own.test.db, place, 'interval', AT);
			expect(await faults()).toEqual([]);
		}
		going = false;
		await writing;
	});

	it('signs an end once, and another when the log has grown', async () => {
		const next = await anchorHead(own.test.db, place, 'certificate', AT);
		expect(next?.seq).toBeGreaterThan(signedTo);
		await anchorHead(own.test.db, place, 'interval', AT);
		expect((await readAnchors(place)).anchors.map(({ seq }) => seq)).toEqual([signedTo, next?.seq]);
		expect((await check()).anchoredTo).toBe(next?.seq);
	});
});

describe('tampering by the owner of the database is found and located', () => {
	it('an edited entry', async () => {
		await asOwner(`update audit_entry set payload = '{"outcome":"pass"}' where seq = 5`);
		expect(await faults()).toEqual(['entry 5: its content was changed']);
	});

	it('a removed entry', async () => {
		await asOwner('delete from audit_entry where seq = 5');
		expect(await faults()).toEqual(['entry 6: entry 5 is missing before it']);
	});

	it('an entry put in between, the ones behind it moved on', async () => {
		await asOwner(async (sql) => {
			await sql`update audit_entry set seq = -seq where seq >= 5`;
			await sql`update audit_entry set seq = 1 - seq where seq < 0`;
			await sql`insert into audit_entry select 5, at, actor_id, action, item_id, subject, payload, prev_hash, hash from audit_entry where seq = 4`;
			await sql`update audit_head set seq = seq + 1`;
		});
		const found = await faults();
		expect(found[0]).toMatch(/^entry 5: it does not follow from the entry before it/);
		expect(found[1]).toMatch(/^entry 5: its content was changed/);
	});

	it('an entry put in behind the end', async () => {
		await asOwner(async (sql) => {
			await sql`insert into audit_entry select seq + 1, at, actor_id, action, item_id, subject, payload, hash, repeat('a', 64) from audit_entry order by seq desc limit 1`;
		});
		const { entries } = await check();
		expect(await faults()).toContain(`entry ${entries}: it was put in behind the end of the log`);
	});

	it('two entries in each other’s place', async () => {
		await asOwner(async (sql) => {
			await sql`update audit_entry set seq = -1 where seq = 4`;
			await sql`update audit_entry set seq = 4 where seq = 5`;
			await sql`update audit_entry set seq = 5 where seq = -1`;
		});
		const found = await faults();
		expect(found[0]).toMatch(/^entry 4: it does not follow/);
		expect(found.some((text) => /^entry 5: it does not follow/.test(text))).toBe(true);
	});

	it('the tail cut off', async () => {
		await asOwner(`delete from audit_entry where seq >= 30`);
		const { entries } = await check();
		expect(entries).toBe(29);
		expect((await faults())[0]).toMatch(/^entry 30: entries 30 to \d+ are cut off at the end/);
	});

	it('the tail cut off, and the end that the database keeps set back with it', async () => {
		await asOwner(async (sql) => {
			await sql`delete from audit_entry where seq >= 30`;
			await sql`update audit_head set seq = 29, hash = (select hash from audit_entry where seq = 29)`;
		});
		expect(await faults()).toContain(
			`entry 30: the log ends before it, but entry ${signedTo} was signed: entries are cut off at the end`
		);
		// Nothing within the database tells of it.
		expect((await verifyChain(own.test.db)).faults.map(({ where }) => where)).toEqual([]);
	});

	it('the whole chain made anew over a changed entry', async () => {
		await asOwner(async (sql) => {
			await sql`update audit_entry set payload = '{"note":"nothing was wrong"}' where seq = 5`;
			await recompute(sql, 5);
		});
		expect(await faults()).toEqual([
			expect.stringMatching(
				new RegExp(
					`^entry ${signedTo}: it is not the one that was signed on 2026-11-24.*after entry 0`
				)
			)
		]);
		expect((await verifyChain(own.test.db)).faults).toEqual([]);
	});

	it.each([
		[
			'its outcome',
			(id: string) => `update inspection_run set outcome = 'fail' where id = '${id}'`
		],
		[
			'who signed it',
			(id: string) => `update inspection_run set signed_by = 'user-admin' where id = '${id}'`
		],
		[
			'one of its answers',
			(id: string) =>
				`update inspection_answer set note = 'looked twice' where run_id = '${id}' and position = 3`
		],
		[
			'an answer less',
			(id: string) => `delete from inspection_answer where run_id = '${id}' and position = 3`
		]
	])('a signed inspection rewritten beside an untouched log: %s', async (_, deed) => {
		const id = runs[1] ?? '';
		await asOwner(deed(id));
		expect(await faults()).toEqual([
			expect.stringMatching(new RegExp(`^inspection ${id}: it was rewritten: entry \\d+ states`))
		]);
	});

	it('a signed inspection taken away, or its hash changed with it', async () => {
		const id = runs[0] ?? '';
		await asOwner(`update record_hash set hash = 'r1:0' where record_id = '${id}'`);
		expect(await faults()).toEqual([
			expect.stringMatching(new RegExp(`^inspection ${id}: the hash beside it is not the one`))
		]);
		await asOwner(
			`delete from inspection_answer where run_id = '${id}'; delete from inspection_run where id = '${id}'`
		);
		expect((await faults()).join()).toMatch(
			new RegExp(`inspection ${id}: entry \\d+ tells of it, and it is gone`)
		);
	});

	it('a signed inspection put in beside the log', async () => {
		const id = '6f0e0000-0000-4000-8000-000000000001';
		await asOwner(
			`insert into inspection_run select * from jsonb_populate_record(null::inspection_run, (select to_jsonb(r)
				|| '{"id": "${id}", "signed_at": "2026-11-24T12:00:00Z"}' from inspection_run r where id = '${runs[0]}'))`
		);
		expect(await faults()).toEqual([
			`inspection ${id}: no entry of the log tells that it was made whole`
		]);
	});

	it('a signed end forged, changed or taken out', async () => {
		await anchorHead(own.test.db, place, 'interval', AT);
		const [first = '', second = ''] = readFileSync(place.file, 'utf8').split('\n');
		writeFileSync(place.file, `${second}\n`);
		expect(await faults()).toEqual([
			'line 1 of the anchors: a line before it was taken out or changed'
		]);
		writeFileSync(place.file, `${first.replace(/"seq":\d+/, '"seq":7')}\n${second}\n`);
		expect((await faults())[0]).toBe('line 1 of the anchors: its signature is not of this key');
		writeFileSync(place.file, `${first}\n${second}\n`);
		appendFileSync(place.file, '{"seq":1}\n');
		expect(await faults()).toEqual(['line 3 of the anchors: it is no anchor']);
	});
});

describe('the role of the application', () => {
	it.each([
		[`delete from audit_entry`, /permission denied/],
		[`update audit_entry set payload = '{}'`, /permission denied/],
		[
			`insert into audit_entry (seq, at, action, subject, payload, prev_hash, hash) values (99, now(), 'x', 'x:1', '{}', '', '')`,
			/permission denied/
		],
		[`update audit_head set seq = 1`, /permission denied/],
		[`update audit_pending set payload = '{}'`, /permission denied/],
		[`delete from inspection_run`, /permission denied/],
		[`delete from inspection_answer`, /permission denied/],
		[`update inspection_answer set note = 'x'`, /permission denied/],
		[`update record_hash set hash = ''`, /permission denied/],
		[`delete from hazard_edition`, /permission denied/],
		[`delete from photo`, /permission denied/],
		[`truncate inspection_answer`, /permission denied/],
		[`truncate item_state`, /permission denied/],
		[`alter table audit_entry disable trigger user`, /must be owner/],
		[`drop trigger audit_entry_append_only on audit_entry`, /must be owner/],
		[`drop table photo`, /must be owner/],
		[`create table mine (id int)`, /permission denied/],
		[`create role other`, /permission denied/],
		[`alter function refuse_change() rename to other`, /must be owner/]
	])('cannot: %s', async (deed, why) => {
		const refused = own.test.db.execute(sql.raw(deed)).catch((error: Error) => error.cause);
		expect(String(await refused)).toMatch(why);
	});

	it('is nobody’s superuser and owns no table of the record', async () => {
		const [role] = (
			await own.test.db.execute(
				sql`select rolsuper, rolcreatedb, rolcreaterole, rolbypassrls,
					(select count(*)::int from pg_class where relowner = r.oid and relnamespace = 'public'::regnamespace) as owns
				from pg_roles r where rolname = current_user`
			)
		).rows;
		expect(role).toEqual({
			rolsuper: false,
			rolcreatedb: false,
			rolcreaterole: false,
			rolbypassrls: false,
			owns: 0
		});
	});
});
