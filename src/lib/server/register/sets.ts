import { asc, eq, inArray, or } from 'drizzle-orm';
import { setWeight } from '../../../core/air/set-weight.ts';
import { recordOf, servedBy } from '../../../core/data/family-records.ts';
import { hasHold } from '../../../core/register/model-card.ts';
import { checkFitting } from '../air/cylinders.ts';
import type { Connection } from '../db/client.ts';
import { cylinder, item, itemModel } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';
import { itemByTag, refuseRetired } from './items.ts';

/** What a set is put together from. */
export const partsIn = (db: Connection, setId: string) =>
	db
		.select({ tag: item.tag, family: item.family, model: itemModel.name })
		.from(item)
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.where(eq(item.setId, setId))
		.orderBy(asc(item.tag));

/** The ids of what is on a set. */
export const partIds = async (db: Connection, setId: string): Promise<string[]> =>
	(await db.select({ id: item.id }).from(item).where(eq(item.setId, setId))).map(({ id }) => id);

/** The kind of protection that an item is, with filters and what is put onto it, and what its own blower moves. */
export async function servedKind(
	db: Connection,
	itemId: string
): Promise<{ kind: string | null; blowerLPerMin?: number | undefined }> {
	const [row] = await db
		.select({ family: item.family, card: itemModel.card })
		.from(item)
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.where(eq(item.id, itemId));
	if (!row) return { kind: null };
	const parts = await partsIn(db, itemId);
	const kind = servedBy(
		row.family,
		parts.map((part) => part.family)
	);
	return { kind, blowerLPerMin: row.card.blowerLPerMin };
}

/** The tag of the set that an item is in. */
export async function setOf(db: Connection, setId: string | null): Promise<string | null> {
	if (!setId) return null;
	const [row] = await db.select({ tag: item.tag }).from(item).where(eq(item.id, setId));
	return row?.tag ?? null;
}

/** Puts an item on a set, from wherever it was, or takes it off where no set is named. */
export function movePart(
	context: Context,
	input: { requestId: string; tag: string; set: string | null }
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'keep the register', { id, content }, async (at) => {
		const { tx } = at;
		const { item: part } = await itemByTag(tx, input.tag);
		const to = input.set ? (await itemByTag(tx, input.set)).item : null;
		if (part.setId === (to?.id ?? null)) return;
		if (to) await checkFits(tx, part, to);
		if (to && recordOf(part.family).air === 'cylinder') await checkFitting(at, part.tag);
		const from = await setOf(tx, part.setId);
		await tx
			.update(item)
			.set({
				setId: to?.id ?? null,
				setSince: to ? at.now : null,
				version: part.version + 1
			})
			.where(eq(item.id, part.id));
		const old = part.setId;
		at.changed(part.id, ...(old ? [old] : []));
		for (const [itemId, text] of [
			[part.id, to ? `onto ${to.tag}` : `off ${from}`],
			...(to ? [[to.id, `${part.tag} put on`]] : []),
			...(old ? [[old, `${part.tag} taken off`]] : [])
		] as [string, string][])
			at.record('set.moved', {
				of: part.id,
				itemId,
				payload: { what: text, from, to: to?.tag ?? null }
			});
	});
}

type Item = typeof item.$inferSelect;

async function checkFits(tx: Connection, part: Item, to: Item): Promise<void> {
	if (part.id === to.id)
		throw new Refusal('invalid', `${part.tag} cannot be a part of itself.`, 'tag');
	for (const one of [part, to]) refuseRetired(one, 'tag');
	if (!recordOf(to.family).takesParts)
		throw new Refusal('invalid', `${to.tag} is no set that takes parts.`, 'tag');
	await requireApproved(tx, to, part);
	if (to.setId) throw new Refusal('invalid', `${to.tag} is itself a part of a set.`, 'tag');
	if ((await partsIn(tx, part.id)).length)
		throw new Refusal('invalid', `${part.tag} has parts of its own; take them off first.`, 'tag');
	const weight = await weightWith(tx, to, part.id);
	if (weight?.outcome === 'fail')
		throw new Refusal(
			'conflict',
			`With ${part.tag} the set would weigh too much: ${weight.reasons[0]?.text ?? ''}`,
			'tag'
		);
}

/** What a set weighs full with one more part on it; null where a weight is not on record, or it is no set. */
async function weightWith(tx: Connection, set: Item, partId: string) {
	if (!hasHold(set.family)) return null;
	const { restKg, cylinders } = await weightsOf(tx, set.id, partId);
	const full = cylinders.flatMap(({ emptyKg, waterVolumeL, ratedBar }) =>
		emptyKg === null ? [] : [{ emptyKg, waterVolumeL, pressureBar: ratedBar }]
	);
	return restKg === null || full.length < cylinders.length ? null : setWeight([restKg], full);
}

/**
 * What is on record of the weights on a set.
 * @param partId one more that would be on it
 */
export async function weightsOf(tx: Connection, setId: string, partId: string | null = null) {
	const rows = await tx
		.select({ card: itemModel.card, family: item.family, cylinder })
		.from(item)
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.leftJoin(cylinder, eq(cylinder.itemId, item.id))
		.where(or(eq(item.id, setId), eq(item.setId, setId), partId ? eq(item.id, partId) : undefined));
	const rest = rows.filter(({ family }) => recordOf(family).air !== 'cylinder');
	const weights = rest.flatMap(({ card }) => card.weightKg ?? []);
	const cylinders = rows.filter(({ family }) => recordOf(family).air === 'cylinder');
	return {
		/** Frame, mask and what else is on it without its cylinders; null where one of them is not known. */
		restKg: weights.length < rest.length ? null : weights.reduce((sum, kg) => sum + kg, 0),
		cylinders: cylinders.map(({ cylinder: known }) => ({
			emptyKg: known?.emptyKg ?? null,
			waterVolumeL: known?.waterVolumeL ?? 0,
			ratedBar: known?.ratedBar ?? 0
		}))
	};
}

/** @throws Refusal where the model of a set names what is approved with it, and this is not among it */
async function requireApproved(tx: Connection, to: Item, part: Item): Promise<void> {
	const models = await tx
		.select({ id: itemModel.id, name: itemModel.name, approved: itemModel.approved })
		.from(itemModel)
		.where(inArray(itemModel.id, [to.modelId, part.modelId]));
	const [set, own] = [to.modelId, part.modelId].map((id) => models.find((m) => m.id === id));
	if (set && own) refuseUnapproved(set, own.name, 'tag');
}

/** Whether a model is approved with another; one that names nothing refuses nothing. */
export const isApproved = (carrier: { approved: readonly string[] }, name: string): boolean =>
	carrier.approved.length === 0 || carrier.approved.includes(name);

/** @throws Refusal naming what would be allowed */
export function refuseUnapproved(
	carrier: { name: string; approved: readonly string[] },
	name: string,
	path: string
): void {
	if (isApproved(carrier, name)) return;
	throw new Refusal(
		'conflict',
		`${name} is not approved with ${carrier.name}. Approved: ${carrier.approved.join(', ')}.`,
		path
	);
}
