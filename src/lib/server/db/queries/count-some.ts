import type { SQLWrapper } from 'drizzle-orm';
import { atMost, type Connection } from '../client.ts';

/** Of what is found no more are counted: whoever finds more goes on typing, and a register of any size answers. */
const MOST_COUNTED = 2000;

/** How many there are; where there are more than are counted, that many and more. */
export interface Counted {
	total: number;
	more: boolean;
}

/** A query that can be told to end. */
interface Endable {
	limit: (rows: number) => { as: (name: string) => SQLWrapper };
}

/** Counts what a query gives, which ends one behind the most that are counted. */
export async function countSome(db: Connection, found: Endable): Promise<Counted> {
	const n = await db.$count(found.limit(atMost(MOST_COUNTED + 1)).as('some'));
	return { total: Math.min(n, MOST_COUNTED), more: n > MOST_COUNTED };
}
