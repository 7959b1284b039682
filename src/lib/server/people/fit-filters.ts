import { and, eq, isNull } from 'drizzle-orm';
import { filterPair, fitSession, item } from '../db/schema/index.ts';
import { openPair, pairTag, stockForPlan } from '../filters/opening.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';

/** The pair that is on a mask, with the plan that it was opened for. */
async function pairOn({ db }: Pick<Context, 'db'>, itemId: string) {
	const [row] = await db
		.select({ planId: filterPair.planId, tag: item.tag, number: filterPair.number })
		.from(filterPair)
		.innerJoin(item, eq(item.id, filterPair.itemId))
		.where(and(eq(filterPair.itemId, itemId), isNull(filterPair.discardedAt)));
	return row ?? null;
}

/**
 * New filters at the yearly test: what serves the plan of the pair that is on the mask now; null where there is no such
 * pair, and so nothing to choose by.
 */
export async function offerFilters(context: Context, itemId: string | null) {
	const pair = itemId ? await pairOn(context, itemId) : null;
	if (!pair?.planId) return null;
	const { judged, page } = await stockForPlan(context, pair.planId);
	return {
		pair: pairTag(pair.number),
		tag: pair.tag,
		task: page.plan.task,
		lots: judged
			.filter(({ verdict }) => verdict?.outcome === 'serves')
			.slice(0, 6)
			.map(({ lot, model }) => ({
				id: lot.id,
				name: model.name,
				lot: lot.lot,
				useBy: lot.useBy,
				sealed: lot.sealedQuantity
			}))
	};
}

/** Opens a new pair onto the mask of a test that was passed, dated and initialled in the same step. */
export async function newFilters(
	context: Context,
	input: { id: string; sessionId: string; lotId: string; initials: string }
) {
	const [session] = await context.db
		.select({ itemId: fitSession.itemId })
		.from(fitSession)
		.where(eq(fitSession.id, input.sessionId));
	const pair = session?.itemId ? await pairOn(context, session.itemId) : null;
	if (!pair?.planId)
		throw new Refusal('conflict', 'No pair is on this mask: open one under Filters, for its task.');
	const opened = await openPair(context, {
		id: input.id,
		lotId: input.lotId,
		itemTag: pair.tag,
		planId: pair.planId,
		initials: input.initials,
		discardReason: 'date'
	});
	return { ...opened, item: pair.tag };
}
