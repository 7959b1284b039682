import { eq } from 'drizzle-orm';
import type { Connection } from '../db/client.ts';
import { item } from '../db/schema/index.ts';

/** The tag and the family of an item by its id. */
export async function itemById(db: Connection, id: string) {
	const [found] = await db
		.select({ tag: item.tag, family: item.family })
		.from(item)
		.where(eq(item.id, id));
	return found ?? { tag: '', family: '' };
}
