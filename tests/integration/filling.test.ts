import { eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type OpenDatabase, openDatabase } from '../../src/lib/server/db/client.ts';
import { insertMany } from '../../src/lib/server/db/insert-many.ts';
import { withoutGuards } from '../../src/lib/server/db/queries/seed.ts';
import { inspectionAnswer, item, itemEvent } from '../../src/lib/server/db/schema/index.ts';
import { openYard } from '../support/database.ts';
import { inspect } from '../support/work.ts';

const own = openYard();
let owner: OpenDatabase;
let signed: string;

beforeAll(async () => {
	const url = new URL(process.env.TEST_DATABASE_URL ?? '');
	url.pathname = new URL(own.test.url).pathname;
	owner = openDatabase(url.href, { max: 1 });
	signed = await inspect(own.tech(), 'HM-0001');
});
afterAll(() => owner.close());

const answer = (runId: string) => ({
	id: randomUUID(),
	runId,
	position: 90,
	step: 'label-read',
	value: 'good' as const,
	answeredBy: own.yard.people.technician.id,
	answeredAt: new Date('2026-11-24T10:00:00.123Z')
});
const kept = (runId: string) =>
	own.test.db.select().from(inspectionAnswer).where(eq(inspectionAnswer.runId, runId));

/** Keys and guards of the table of answers, as they stand. */
const standing = () => own.test.raw`
	select conname as name, pg_get_constraintdef(oid) as says from pg_constraint
	where conrelid = 'inspection_answer'::regclass
	union all select tgname, tgenabled::text || pg_get_triggerdef(oid) from pg_trigger
	where tgrelid = 'inspection_answer'::regclass and not tgisinternal order by 1`;

describe('rows by the thousand', () => {
	it('come in as they would one by one, with the defaults of what is not named', async () => {
		const [mask] = await own.test.db.select().from(item).where(eq(item.tag, 'HM-0002'));
		const rows = Array.from({ length: 12_000 }, (_, i) => ({
			id: randomUUID(),
			itemId: mask?.id ?? '',
			what: 'drop' as const,
			happenedAt: new Date(Date.UTC(2026, 10, 1, 0, 0, i, i % 1000)),
			note: `a "quoted" note, ½ ${i}\n`,
			notedBy: own.yard.people.technician.id
		}));
		const { note: _, ...plain } = { ...rows[0], id: randomUUID(), happenedAt: new Date(0) };
		await owner.db.transaction(async (tx) => {
			await insertMany(tx, itemEvent, rows);
			await insertMany(tx, itemEvent, [plain as (typeof rows)[number]]);
		});
		const found = await own.test.db.select().from(itemEvent).orderBy(itemEvent.happenedAt);
		expect(found).toHaveLength(rows.length + 1);
		expect(found[0]).toMatchObject({ id: plain.id, note: '' });
		expect(found[778]).toEqual(rows[777]);
	});

	it('are refused where one has other fields than the first, before anything is sent', async () => {
		const first = answer(signed);
		const { value: _, ...lacking } = answer(signed);
		const other = { ...answer(signed), note: 'more' };
		for (const odd of [lacking, other])
			await expect(
				(async () => insertMany(owner.db, inspectionAnswer, [first, odd as typeof first]))()
			).rejects.toThrow(RangeError);
	});
});

describe('guards that rest', () => {
	it('stand again as they stood, and what was written is held against its keys', async () => {
		const before = await standing();
		await owner.db.transaction((tx) =>
			withoutGuards(tx, () => insertMany(tx, inspectionAnswer, [answer(signed)]))
		);
		expect(await standing()).toEqual(before);
		const { length } = await kept(signed);
		await expect(
			own.test.db.insert(inspectionAnswer).values({ ...answer(signed), position: 91 })
		).rejects.toMatchObject({ cause: { code: '23001' } });
		expect(await kept(signed)).toHaveLength(length);
	});

	it('take nothing back of a filling that points to what is not there', async () => {
		const before = await standing();
		await expect(
			owner.db.transaction((tx) =>
				withoutGuards(tx, () => insertMany(tx, inspectionAnswer, [answer(randomUUID())]))
			)
		).rejects.toMatchObject({ cause: { code: '23503' } });
		expect(await standing()).toEqual(before);
	});
});
