import { asc, eq, isNull } from 'drizzle-orm';
import { changesBetween } from '../../../core/site/changes.ts';
import type { TestHouseWork } from '../../../core/site/places.ts';
import type { Connection } from '../db/client.ts';
import { testHouse } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { brokenConstraint, Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';

/** Houses that things are sent to. */
export const listTestHouses = (db: Connection) =>
	db.select().from(testHouse).where(isNull(testHouse.closedOn)).orderBy(asc(testHouse.name));

export interface TestHouseInput {
	requestId: string;
	id: string;
	/** 0 for a new one; else the version that the page was loaded with. */
	version: number;
	name: string;
	takes: TestHouseWork[];
	turnaroundDays: number;
	/** Nothing is sent there any more. */
	closed: boolean;
}

const NAMES = {
	name: 'name',
	takes: 'what it takes',
	turnaroundDays: 'days until things are back',
	closedOn: 'closed on'
} as const;

/** Adds a test house, or changes what is said of it. Recorded with old and new. */
export async function saveTestHouse(context: Context, input: TestHouseInput): Promise<void> {
	const { requestId, ...content } = input;
	const { id, name, takes, turnaroundDays } = input;
	if (takes.length === 0) throw new Refusal('invalid', 'Tick what it takes.', 'takes');
	try {
		await write(context, 'keep the site', { id: requestId, content }, async (at) => {
			const [held] = await at.tx.select().from(testHouse).where(eq(testHouse.id, id)).for('update');
			if ((held?.version ?? 0) !== input.version)
				throw new Refusal(
					'conflict',
					`${held?.name ?? 'It'} was changed meanwhile. Nothing was written over; load it again.`
				);
			const closedOn = input.closed ? at.today : null;
			const values = { name, takes, turnaroundDays, closedOn };
			if (!held) {
				await at.tx.insert(testHouse).values({ id, ...values });
				at.record('test-house.added', { of: id, payload: { name } });
				return;
			}
			const changes = changesBetween<typeof values>(held, values, NAMES);
			if (changes.length === 0) return;
			await at.tx
				.update(testHouse)
				.set({ ...values, version: held.version + 1 })
				.where(eq(testHouse.id, id));
			at.record('test-house.changed', { of: id, payload: { name: held.name, changes } });
		});
	} catch (error) {
		if (brokenConstraint(error)?.startsWith('test_house_name'))
			throw new Refusal('conflict', `There is a test house named ${name} already.`, 'name');
		throw error;
	}
}
