import type { NotedEvent } from '../../../core/plan/events.ts';
import { itemEvent } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { write } from '../kernel/write.ts';
import { itemByTag, refuseRetired } from './items.ts';

/** Notes what happened to an item; rules that follow such an event hold from then on. */
export function noteEvent(
	context: Context,
	input: { id: string; tag: string; what: NotedEvent; note: string }
): Promise<void> {
	const { id, ...content } = input;
	return write(context, 'note what happened', { id, content }, async (at) => {
		const { item } = await itemByTag(at.tx, input.tag);
		refuseRetired(item, 'what');
		await at.tx.insert(itemEvent).values({
			id,
			itemId: item.id,
			what: input.what,
			note: input.note.trim(),
			happenedAt: at.now,
			notedBy: at.actor.id
		});
		at.changed(item.id);
		at.record('item.event-noted', {
			of: item.id,
			itemId: item.id,
			payload: { what: input.what, note: input.note.trim() }
		});
	});
}
