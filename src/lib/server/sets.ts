import { asc, eq } from 'drizzle-orm';
import { record } from './audit.ts';
import { checkFitting } from './cylinders.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import type { Connection } from './db/client.ts';
import { item, itemModel } from './db/schema/index.ts';
import { Fault } from './errors.ts';
import { itemByTag } from './items.ts';
import { rebuildState } from './readiness.ts';
import { dayAt, type Site } from './site.ts';

/** Families that others are put together on. */
const SETS = new Set(['ba-set', 'airline', 'gas-tight-suit', 'ventilated-suit', 'powered-blower']);

/** Whether parts can be put on an item of this family. */
export const takesParts = (family: string): boolean => SETS.has(family);

/** What a set is put together from. */
export const partsIn = (db: Connection, setId: string) =>
	db
		.select({ tag: item.tag, family: item.family, model: itemModel.name })
		.from(item)
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.where(eq(item.setId, setId))
		.orderBy(asc(item.tag));

/** The tag of the set that an item is in. */
export async function setOf(db: Connection, setId: string | null): Promise<string | null> {
	if (!setId) return null;
	const [row] = await db.select({ tag: item.tag }).from(item).where(eq(item.id, setId));
	return row?.tag ?? null;
}

/** Puts an item on a set, from wherever it was, or takes it off where no set is named. */
export async function movePart(
	context: Context,
	site: Site,
	input: { tag: string; set: string | null }
): Promise<void> {
	requireRole(context.actor, 'keep the register');
	await inTransaction(context, async (tx) => {
		const { item: part } = await itemByTag(tx, input.tag);
		const to = input.set ? (await itemByTag(tx, input.set)).item : null;
		if (part.setId === (to?.id ?? null)) return;
		if (to) await checkFits(tx, part, to);
		if (to && part.family === 'cylinder')
			await checkFitting(tx, site, part.tag, dayAt(context.now(), site.timeZone));
		const from = await setOf(tx, part.setId);
		await tx
			.update(item)
			.set({ setId: to?.id ?? null, version: part.version + 1 })
			.where(eq(item.id, part.id));
		const old = part.setId;
		await rebuildState(tx, [part.id, ...(old ? [old] : [])], site);
		for (const [itemId, text] of [
			[part.id, to ? `onto ${to.tag}` : `off ${from}`],
			...(to ? [[to.id, `${part.tag} put on`]] : []),
			...(old ? [[old, `${part.tag} taken off`]] : [])
		] as [string, string][])
			await record(tx, context.actor.id, {
				action: 'set.moved',
				subject: `item:${part.id}`,
				itemId,
				payload: { what: text, from, to: to?.tag ?? null }
			});
	});
}

type Item = typeof item.$inferSelect;

async function checkFits(tx: Connection, part: Item, to: Item): Promise<void> {
	if (part.id === to.id)
		throw new Fault('invalid', `${part.tag} cannot be a part of itself.`, 'tag');
	for (const one of [part, to])
		if (one.retiredOn)
			throw new Fault('conflict', `${one.tag} was taken out of use on ${one.retiredOn}.`, 'tag');
	if (!takesParts(to.family))
		throw new Fault('invalid', `${to.tag} is no set that takes parts.`, 'tag');
	if (to.setId) throw new Fault('invalid', `${to.tag} is itself a part of a set.`, 'tag');
	if ((await partsIn(tx, part.id)).length)
		throw new Fault('invalid', `${part.tag} has parts of its own; take them off first.`, 'tag');
}
