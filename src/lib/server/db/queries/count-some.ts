import type { SQLWrapper } from 'drizzle-orm';
import type { Connection } from '../client.ts';

/** Of what is found no more are counted: whoever finds more goes on typing, and a register of any size answers. */
export const MOST_COUNTED = 2000;

/** How many there are; where there are more than are counted, that many and more. */
export interface Counted {
	total: number;
	more: boolean;
}

/** Counts what a query gives that ends one behind the most that are counted. */
export async function countSome(db: Connection, some: SQLWrapper): Promise<Counted> {
	const n = await db.$count(some);
	return { total: Math.min(n, MOST_COUNTED), more: n > MOST_COUNTED };
}
