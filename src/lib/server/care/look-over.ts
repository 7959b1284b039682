import { eq } from 'drizzle-orm';
import type { LookedOver } from '../../../core/custody/answers.ts';
import type { Fault } from '../../../core/custody/noticed.ts';
import { nextAfter, routeOf } from '../../../core/data/care-routes.ts';
import type { Where } from '../../../core/custody/custody.ts';
import { findingsOf, duesOf } from '../../../core/readiness/findings.ts';
import { judgeItem } from '../../../core/readiness/item-state.ts';
import { bring, lockItems, openRow } from '../custody/move.ts';
import { careLook, washBatch } from '../db/schema/index.ts';
import { openDefect } from '../faults/faults.ts';
import { openPairOn } from '../filters/change.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Work, write } from '../kernel/write.ts';
import { requireAuthorised } from '../people/authorisations.ts';
import { loadFacts } from '../readiness/facts.ts';
import { itemByTag, refuseRetired } from '../register/items.ts';

/** Where something is looked over before it goes back to its shelf. */
const LOOKED_AT: readonly Where[] = ['drying', 'returned', 'bench', 'service'];

export interface LookInput {
	id: string;
	tag: string;
	/** Everything of the list was good; else what was not. */
	faults: Fault[];
	note?: string | undefined;
}

/** Keeps that something was looked over after cleaning and put together; good, it goes on to its shelf or the bench. */
export function lookOver(context: Context, input: LookInput): Promise<LookedOver> {
	return write(context, 'wash', { id: input.id, content: input }, async (at) => {
		const { tx } = at;
		const { item: found } = await itemByTag(tx, input.tag);
		refuseRetired(found, 'tag');
		await lockItems(tx, [found.id]);
		await requireAuthorised(at, { job: 'wash', family: found.family, modelId: found.modelId });
		const held = await openRow(tx, found.id);
		const route = routeOf(found.family);
		refuseTooSoon(found.tag, held.where, route.cleaned);
		if (held.where === 'drying') await refuseUnderWay(at, held.batchId);
		const good = input.faults.length === 0;
		const looked = route.looks.map(({ text }) => text);
		await tx.insert(careLook).values({
			id: input.id,
			itemId: found.id,
			batchId: held.batchId,
			looked,
			good,
			lookedBy: at.actor.id,
			lookedAt: at.now
		});
		at.record('item.looked-over', { of: found.id, itemId: found.id, payload: { good, looked } });
		for (const fault of input.faults)
			await openDefect(at, {
				id: crypto.randomUUID(),
				itemId: found.id,
				...fault,
				note: input.note?.trim() || 'Found on looking over after cleaning.'
			});
		const next: Where = good
			? nextAfter(found.family, held.where, await benchDue(at, found.id))
			: 'service';
		if (next !== held.where) await bring(at, found, { where: next });
		const known = (await loadFacts(tx, [found.id], at.site)).get(found.id);
		const verdict = known && judgeItem(known.facts, at.site.ruleSet, at.today);
		const pair = await openPairOn(tx, found.id);
		return {
			tag: found.tag,
			next,
			state: verdict?.outcome ?? 'ready',
			why: verdict?.reasons[0]?.text ?? '',
			filters: pair ? `${pair.model.name}, opened ${pair.pair.openedOn}` : 'none on record'
		};
	});
}

function refuseTooSoon(tag: string, where: Where, cleaned: string): void {
	if (where === 'returned' && cleaned !== 'wiped')
		throw new Refusal('conflict', `${tag} waits for the wash: scan it into a batch first.`, 'tag');
	if (where === 'wash') throw new Refusal('conflict', `${tag} is in the bath.`, 'tag');
	if (!LOOKED_AT.includes(where))
		throw new Refusal('conflict', `${tag} is not on the wash line.`, 'tag');
}

/** What lies in a batch that goes on is not dry yet, and what was held is not looked over. */
async function refuseUnderWay({ tx }: Work, batchId: string | null): Promise<void> {
	if (!batchId) return;
	const [batch] = await tx.select().from(washBatch).where(eq(washBatch.id, batchId));
	if (batch && !batch.endedAt)
		throw new Refusal(
			'conflict',
			`Batch ${batch.number} is not ended: end it first, so that it is judged.`,
			'tag'
		);
}

/** Whether its test on the bench is due or over. */
async function benchDue(at: Work, itemId: string): Promise<boolean> {
	const known = (await loadFacts(at.tx, [itemId], at.site)).get(itemId);
	if (!known) return false;
	return duesOf(findingsOf(known.facts, at.site.ruleSet, at.today)).some(
		({ what, from }) => what === 'bench test' && from <= at.today
	);
}
