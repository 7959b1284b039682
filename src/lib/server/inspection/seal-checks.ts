import { desc, eq } from 'drizzle-orm';
import { familiesWhere, recordOf } from '../../../core/data/family-records.ts';
import { donningCard } from '../../../core/fit/donning.ts';
import { insteadOf, type ReadyGroup } from '../../../core/fit/instead.ts';
import { judgeSealCheck, type SealAttempt, waysAsked } from '../../../core/fit/seal-check.ts';
import type { Connection } from '../db/client.ts';
import { readyGroups } from '../db/queries/items.ts';
import { shownNames } from '../db/queries/names.ts';
import { sealCheck, user } from '../db/schema/index.ts';
import { openPairOn } from '../filters/change.ts';
import { planPage } from '../hazards/plans.ts';
import { type Context, todayOf } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';
import { itemByTag } from '../register/items.ts';

const MOST_ATTEMPTS = 12;
const LONGEST_NAME = 80;

/** Keeps a seal check with every attempt of it. */
export function saveSealCheck(
	context: Context,
	input: { id: string; tag: string; wearer: string; attempts: SealAttempt[] }
): Promise<void> {
	return write(context, 'check a seal', { id: input.id, content: input }, async (at) => {
		const { tx } = at;
		const wearer = input.wearer.trim();
		if (!wearer) throw new Refusal('invalid', 'Say who wears it.', 'wearer');
		if (wearer.length > LONGEST_NAME)
			throw new Refusal('invalid', `At most ${LONGEST_NAME} characters.`, 'wearer');
		if (input.attempts.length === 0 || input.attempts.length > MOST_ATTEMPTS)
			throw new Refusal('invalid', `One to ${MOST_ATTEMPTS} attempts.`, 'attempts');
		const { item, model } = await itemByTag(tx, input.tag);
		if (recordOf(item.family).inlets.length === 0)
			throw new Refusal('invalid', `${item.tag} takes no seal check.`, 'tag');
		const { ways } = donningCard(item.family, model.donning);
		const verdict = judgeSealCheck(item.family, input.attempts, waysAsked(ways, at.site.sealWays));
		if (verdict.outcome === 'try again')
			throw new Refusal(
				'invalid',
				`It is not ended. ${verdict.reasons[0]?.text ?? ''}`,
				'attempts'
			);
		await tx.insert(sealCheck).values({
			id: input.id,
			itemId: item.id,
			wearer,
			attempts: input.attempts,
			outcome: verdict.outcome,
			doneBy: at.actor.id,
			doneAt: at.now
		});
		at.record('seal.checked', {
			of: input.id,
			itemId: item.id,
			payload: { outcome: verdict.outcome, attempts: input.attempts.length, leaks: verdict.leaks }
		});
	});
}

/**
 * What is ready to be worn in place of a mask that did not seal, under the plan that its filters were opened for; and
 * that plan's task, where there is one.
 */
export async function readyInstead(
	context: Context,
	mask: { id: string; family: string; model: string; size: string; place: string }
): Promise<{ task: string | null; instead: ReadyGroup[] }> {
	const { db } = context;
	const pair = await openPairOn(db, mask.id);
	const plan = pair?.pair.planId ? await planPage(context, pair.pair.planId) : null;
	const permitted = plan?.decision.permitted.map(({ kind }) => kind) ?? null;
	const families = familiesWhere(({ carries }) => carries !== null);
	const ready = await readyGroups(db, todayOf(context), families);
	return { task: plan?.plan.task ?? null, instead: insteadOf(mask, ready, permitted) };
}

/** Seal checks of an item, newest first. */
export async function sealChecksOf(db: Connection, itemId: string) {
	const shown = await shownNames(db);
	const rows = await db
		.select({ check: sealCheck, by: user.name })
		.from(sealCheck)
		.innerJoin(user, eq(user.id, sealCheck.doneBy))
		.where(eq(sealCheck.itemId, itemId))
		.orderBy(desc(sealCheck.doneAt))
		.limit(20);
	return rows.map((row) => ({
		...row,
		check: { ...row.check, wearer: shown(row.check.wearer) }
	}));
}
