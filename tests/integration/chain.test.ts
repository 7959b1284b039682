import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { atMost, openDatabase } from '../../src/lib/server/db/client.ts';
import { item } from '../../src/lib/server/db/schema/index.ts';
import { verifyChain } from '../../src/lib/server/kernel/chain.ts';
import { moveItems } from '../../src/lib/server/register/register.ts';
import { listItems } from '../../src/lib/server/db/queries/items.ts';
import { statesByPlace } from '../../src/lib/server/db/queries/stock.ts';
import { openYard } from '../support/database.ts';
import { addPiece } from '../support/yard.ts';

const PIECES = 12;
const tagOf = (n: number) => `HM-08${String(n).padStart(2, '0')}`;
let store: string;
const own = openYard(async ({ test, yard }) => {
	for (let n = 0; n < PIECES; n++) await addPiece(test, yard, 'half-mask', tagOf(n));
});
beforeAll(async () => {
	store = randomUUID();
	await own.test.raw`insert into place (id, name) values (${store}, 'Far store')`;
	await own.test
		.raw`insert into place_floor (place_id, family, floor) values (${store}, 'half-mask', 1)`;
});
const move = (tags: string[], placeId = store) =>
	moveItems(own.tech(), { requestId: randomUUID(), tags, placeId });
/** Ids in the order of the tags. */
const idsOf = async (tags: string[]) => {
	const rows = await own.test.raw<{ id: string; tag: string }[]>`select id, tag from item`;
	return tags.map((tag) => rows.find((row) => row.tag === tag)?.id ?? '');
};
const entries = () =>
	own.test.raw<{ seq: string; action: string; subject: string }[]>`
		select seq, action, subject from audit_entry order by seq`;

describe('the chain of the log', () => {
	it('holds entries of writers at once without a gap, those of one write side by side', async () => {
		const before = (await entries()).length;
		const pairs = Array.from({ length: PIECES / 2 }, (_, n) => [tagOf(2 * n), tagOf(2 * n + 1)]);
		await Promise.all(pairs.map((tags) => move(tags)));
		const all = await entries();
		expect(all.map((one) => Number(one.seq))).toEqual(all.map((_, n) => n + 1));
		const moved = all.slice(before).filter((one) => one.action === 'item.moved');
		expect(moved).toHaveLength(PIECES);
		const ids = await idsOf(pairs.flat());
		const pairOf = (subject: string) => Math.floor(ids.indexOf(subject.replace('item:', '')) / 2);
		for (let n = 0; n < PIECES; n += 2)
			expect(pairOf(moved[n]?.subject ?? '')).toBe(pairOf(moved[n + 1]?.subject ?? ''));
		expect((await verifyChain(own.test.db)).broken).toBeUndefined();
	});

	it('keeps nothing that waits once a write is over, nor anything of one that failed', async () => {
		const before = await entries();
		await expect(move([tagOf(0), 'HM-0899'])).rejects.toThrow(/HM-0899/);
		expect(await entries()).toEqual(before);
		const [left] = await own.test.raw`select count(*)::int as n from audit_pending`;
		expect(left?.n).toBe(0);
		await move([tagOf(0)], own.yard.place);
		const [after] = await own.test.raw`select count(*)::int as n from audit_pending`;
		expect(after?.n).toBe(0);
		expect((await verifyChain(own.test.db)).broken).toBeUndefined();
	});
});

describe('what lists are read by', () => {
	it('counts at each place what the register lists there', async () => {
		const today = '2026-11-24';
		const rows = await statesByPlace(own.test.db, today);
		expect(rows.map((row) => row.place)).toEqual([...rows.map((row) => row.place)].sort());
		for (const { placeId, counts } of rows) {
			const page = { limit: 100, offset: 0 };
			const listed = await listItems(own.test.db, { placeId, family: 'half-mask' }, today, page);
			for (const [state, n] of Object.entries(counts))
				expect([state, listed.filter((one) => one.state === state).length]).toEqual([state, n]);
		}
		expect(
			rows.reduce((sum, row) => sum + Object.values(row.counts).reduce((a, b) => a + b), 0)
		).toBe(PIECES + 2);
	});

	it('keeps one plan for one text, and goes on where there are more texts than it keeps', async () => {
		const { db, close } = openDatabase(own.test.url, { max: 1 });
		try {
			for (let n = 0; n < 3; n++) await db.select({ tag: item.tag }).from(item).limit(atMost(2));
			const kept = async () =>
				(await db.execute<{ statement: string }>('select statement from pg_prepared_statements'))
					.rows;
			const mine = (await kept()).filter((row) => row.statement.includes('from "item" limit 2'));
			expect(mine).toHaveLength(1);
			for (let n = 1; n <= 600; n++) {
				const rows = await db.select({ tag: item.tag }).from(item).limit(atMost(n));
				expect(rows).toHaveLength(Math.min(n, PIECES + 2));
			}
			expect((await kept()).length).toBeLessThanOrEqual(500);
		} finally {
			await close();
		}
	});
});
