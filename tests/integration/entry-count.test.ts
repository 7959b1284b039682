import fc from 'fast-check';
import { sql } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import { gatherEntryCounts, historyDays } from '../../src/lib/server/db/queries/history.ts';
import { openYard } from '../support/database.ts';

const own = openYard(async () => {}, 'test');
const ACTIONS = ['item.moved', 'inspection.signed', 'inspection.answered'];
const FROM = Date.UTC(2026, 2, 27);
const MINUTES = 5 * 24 * 60;

/** Entries that one transaction leaves, as writes do. */
const batch = fc.array(
	fc.record({ minute: fc.nat(MINUTES - 1), action: fc.constantFrom(...ACTIONS) }),
	{ minLength: 1, maxLength: 12 }
);
const enter = async (entries: readonly { minute: number; action: string }[]) => {
	const rows = entries.map(
		({ minute, action }) =>
			sql`(${new Date(FROM + minute * 60_000).toISOString()}::timestamptz, ${action})`
	);
	await own.test.db.execute(sql`
		insert into audit_pending (at, action, subject, payload)
		select v.at, v.action, 'test', '{}' from (values ${sql.join(rows, sql`, `)}) v (at, action)`);
};

const counted = (filter: object, timeZone: string) =>
	historyDays(own.test.db, { ...filter }, timeZone);
/** The same, one by one: no count is kept of a subject. */
const oneByOne = async (filter: object, timeZone: string) => {
	const { rows } = await own.test.db.execute<{ at: Date; action: string }>(
		sql`select at, action from audit_entry`
	);
	const { from, to, actions, without } = filter as {
		from?: Date;
		to?: Date;
		actions?: string[];
		without?: string[];
	};
	const days = new Map<string, number>();
	for (const { at, action } of rows) {
		const moment = new Date(at);
		if ((from && moment < from) || (to && moment >= to)) continue;
		if ((actions && !actions.includes(action)) || without?.includes(action)) continue;
		const day = new Intl.DateTimeFormat('sv-SE', { timeZone }).format(moment);
		days.set(day, (days.get(day) ?? 0) + 1);
	}
	return [...days].sort(([a], [b]) => (a < b ? -1 : 1)).map(([day, entries]) => ({ day, entries }));
};

describe('the counts of the log', () => {
	it('come to what its entries come to, in every time zone, drawn together or not, over a change of the clocks', async () => {
		const midnight = (day: number) => new Date(FROM + day * 86_400_000);
		await fc.assert(
			fc.asyncProperty(batch, fc.option(fc.nat(4)), async (entries, gatherFrom) => {
				await enter(entries);
				if (gatherFrom !== null) await gatherEntryCounts(own.test.db, midnight(gatherFrom));
				for (const zone of ['UTC', 'Europe/London', 'Asia/Kathmandu', 'America/St_Johns'])
					for (const filter of [
						{},
						{ actions: ACTIONS.slice(0, 1) },
						{ without: ACTIONS.slice(2) }
					])
						expect(await counted(filter, zone)).toEqual(await oneByOne(filter, zone));
				const between = { from: midnight(1), to: midnight(3) };
				expect(await counted(between, 'UTC')).toEqual(await oneByOne(between, 'UTC'));
			}),
			{ numRuns: 25 }
		);
		const before = await counted({}, 'UTC');
		await own.test.db.execute(sql`select recount_entries()`);
		expect(await counted({}, 'UTC')).toEqual(before);
	});

	it('are of everything; what one item or person did is counted in the log itself', async () => {
		await enter([
			{ minute: 3, action: 'item.moved' },
			{ minute: 4, action: 'inspection.signed' }
		]);
		expect(await counted({ subject: 'test' }, 'UTC')).toEqual([{ day: '2026-03-27', entries: 2 }]);
		expect(await counted({ subject: 'nothing' }, 'UTC')).toEqual([]);
	});
});
