import { boolean, date, integer, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import type { Block } from '../../../../core/readiness/block.ts';

/**
 * How many items are alike in what shelves and registers are counted by. Each row says how many came (above zero) or
 * went (below); their sum is what there is. Written by triggers on item and item_state as rows beside each other, so
 * that no writer waits for another, and drawn together now and then.
 */
export const stockCount = pgTable('stock_count', {
	placeId: uuid('place_id').notNull(),
	family: text('family').notNull(),
	/** On a set, and so no stock of its shelf. */
	inSet: boolean('in_set').notNull(),
	blocked: text('blocked').$type<Block>(),
	dueFrom: date('due_from').notNull(),
	dueOn: date('due_on').notNull(),
	items: integer('items').notNull()
});
