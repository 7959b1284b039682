import { allItemIds } from '../db/queries/items.ts';
import type { Unattended } from '../kernel/context.ts';
import { writeUnattended } from '../kernel/write.ts';

/** Items that one write works out. */
const CHUNK = 500;

/** Works the kept state of every item out anew, some at a time so that nobody waits for it. */
export async function rebuildAll(context: Unattended): Promise<void> {
	const ids = await allItemIds(context.db);
	for (let i = 0; i < ids.length; i += CHUNK)
		await writeUnattended(context, null, ({ changed }) => {
			changed(...ids.slice(i, i + CHUNK));
			return Promise.resolve();
		});
}
