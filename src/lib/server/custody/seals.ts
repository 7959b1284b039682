import { and, desc, eq, isNull } from 'drizzle-orm';
import type { Connection } from '../db/client.ts';
import { custody, itemSeal, user } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Work, write } from '../kernel/write.ts';
import { itemByTag, refuseRetired } from '../register/items.ts';

/** The last seal of an item with who put it on; null: it never had one. */
export async function sealOf(db: Connection, itemId: string) {
	const [found] = await db
		.select({ seal: itemSeal, by: user.name })
		.from(itemSeal)
		.innerJoin(user, eq(user.id, itemSeal.sealedBy))
		.where(eq(itemSeal.itemId, itemId))
		.orderBy(desc(itemSeal.sealedAt))
		.limit(1);
	return found ?? null;
}

export interface SealInput {
	requestId: string;
	tag: string;
	/** As it stands on the seal. */
	number: string;
}

/**
 * Seals an emergency item in its place.
 * @throws Refusal where it is none, is not there, or is sealed already
 */
export function sealItem(context: Context, { requestId, tag, number }: SealInput): Promise<void> {
	return write(context, 'move things', { id: requestId, content: { tag, number } }, async (at) => {
		const { item } = await itemByTag(at.tx, tag);
		refuseRetired(item, 'number');
		if (item.usePattern !== 'emergency')
			throw new Refusal(
				'invalid',
				`${item.tag} is not kept for emergencies: only those are sealed.`,
				'number'
			);
		const [now] = await at.tx
			.select({ where: custody.where })
			.from(custody)
			.where(and(eq(custody.itemId, item.id), isNull(custody.until)));
		if (now?.where !== 'shelf')
			throw new Refusal(
				'conflict',
				`${item.tag} is not in its place. Put it away first.`,
				'number'
			);
		const held = await sealOf(at.tx, item.id);
		if (held && !held.seal.brokenAt)
			throw new Refusal(
				'conflict',
				`It is sealed already, ${held.seal.number}. Break that seal first.`,
				'number'
			);
		await at.tx.insert(itemSeal).values({
			id: requestId,
			itemId: item.id,
			number,
			sealedBy: at.actor.id,
			sealedAt: at.now
		});
		at.changed(item.id);
		at.record('item.sealed', { of: item.id, itemId: item.id, payload: { number } });
	});
}

/** Notes that the seal of an item was broken, by whom and why: it is looked over before it counts again. */
export function breakSeal(
	context: Context,
	{ requestId, tag, why }: { requestId: string; tag: string; why: string }
): Promise<void> {
	return write(
		context,
		'note what happened',
		{ id: requestId, content: { tag, why } },
		async (at) => {
			const { item } = await itemByTag(at.tx, tag);
			if (!(await breakSealOf(at, item.id, why)))
				throw new Refusal('conflict', `${item.tag} is not sealed.`, 'why');
			at.changed(item.id);
		}
	);
}

/** Breaks the seal of an item, where it has a whole one. @returns whether it had */
export async function breakSealOf(at: Work, itemId: string, why: string): Promise<boolean> {
	const [broken] = await at.tx
		.update(itemSeal)
		.set({ brokenBy: at.actor.id, brokenAt: at.now, brokenWhy: why })
		.where(and(eq(itemSeal.itemId, itemId), isNull(itemSeal.brokenAt)))
		.returning({ number: itemSeal.number });
	if (!broken) return false;
	at.record('item.seal-broken', { of: itemId, itemId, payload: { number: broken.number, why } });
	return true;
}
