import { desc, eq } from 'drizzle-orm';
import { INLETS } from '../../core/data/blocking.ts';
import { judgeSealCheck, type SealAttempt } from '../../core/fit/seal-check.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import type { Connection } from './db/client.ts';
import { sealCheck, user } from './db/schema/index.ts';
import { Fault } from './errors.ts';
import { itemByTag } from './items.ts';

const MOST_ATTEMPTS = 12;
const LONGEST_NAME = 80;

/** Keeps a seal check with every attempt of it. */
export async function saveSealCheck(
	context: Context,
	input: { id: string; tag: string; wearer: string; attempts: SealAttempt[] }
): Promise<void> {
	requireRole(context.actor, 'inspect');
	const wearer = input.wearer.trim();
	if (!wearer) throw new Fault('invalid', 'Say who wears it.', 'wearer');
	if (wearer.length > LONGEST_NAME)
		throw new Fault('invalid', `At most ${LONGEST_NAME} characters.`, 'wearer');
	if (input.attempts.length === 0 || input.attempts.length > MOST_ATTEMPTS)
		throw new Fault('invalid', `One to ${MOST_ATTEMPTS} attempts.`, 'attempts');
	await inTransaction(context, async (tx) => {
		const [again] = await tx.select().from(sealCheck).where(eq(sealCheck.id, input.id));
		if (again) return;
		const { item } = await itemByTag(tx, input.tag);
		if (!INLETS[item.family]) throw new Fault('invalid', `${item.tag} takes no seal check.`, 'tag');
		const verdict = judgeSealCheck(item.family, input.attempts);
		if (verdict.outcome === 'try again')
			throw new Fault(
				'invalid',
				'It is not ended: try again, or stop after two leaks.',
				'attempts'
			);
		await tx.insert(sealCheck).values({
			id: input.id,
			itemId: item.id,
			wearer,
			attempts: input.attempts,
			outcome: verdict.outcome,
			doneBy: context.actor.id,
			doneAt: context.now()
		});
		await record(tx, context.actor.id, {
			action: 'seal.checked',
			subject: `seal:${input.id}`,
			itemId: item.id,
			payload: { outcome: verdict.outcome, attempts: input.attempts.length, leaks: verdict.leaks }
		});
	});
}

/** Seal checks of an item, newest first. */
export const sealChecksOf = (db: Connection, itemId: string) =>
	db
		.select({ check: sealCheck, by: user.name })
		.from(sealCheck)
		.innerJoin(user, eq(user.id, sealCheck.doneBy))
		.where(eq(sealCheck.itemId, itemId))
		.orderBy(desc(sealCheck.doneAt))
		.limit(20);
