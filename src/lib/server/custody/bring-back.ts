import { eq } from 'drizzle-orm';
import type { Brought, BroughtTo } from '../../../core/custody/answers.ts';
import type { Where } from '../../../core/custody/custody.ts';
import { routeOf } from '../../../core/data/care-routes.ts';
import { carryingOf, unsuited } from '../../../core/site/storage-fit.ts';
import { MOST_WIPES } from '../../../core/care/batch.ts';
import { recordOf } from '../../../core/data/family-records.ts';
import { placeCylinder } from '../air/cylinders.ts';
import type { Connection } from '../db/client.ts';
import { careOf } from '../db/queries/care.ts';
import { item, itemWipe, personalItem, place } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Work, write } from '../kernel/write.ts';
import { requireAuthorised } from '../people/authorisations.ts';
import { itemByTag, refuseRetired } from '../register/items.ts';
import { bring, lockItems, offItsSet, openRow } from './move.ts';

export interface BringInput {
	requestId: string;
	tag: string;
	to: BroughtTo;
	/** The shelf that it is put on; left out: its own. */
	placeId?: string | undefined;
	testHouseId?: string | undefined;
	/** The answer to what was asked. */
	because?: string | undefined;
}

/** Puts something where it is scanned to, or says what speaks against it and asks once. */
export function bringItem(context: Context, input: BringInput): Promise<Brought> {
	const { requestId: id, ...content } = input;
	return write(context, 'move things', { id, content }, async (at): Promise<Brought> => {
		const { tx } = at;
		const { item: found } = await itemByTag(tx, input.tag);
		refuseRetired(found, 'tag');
		await lockItems(tx, [found.id]);
		const held = await openRow(tx, found.id);
		const to = await placeFor(tx, input, found.placeId);
		const carrying = carryingOf(found.family);
		if (held.where === input.to && found.placeId === (to?.id ?? found.placeId))
			return { done: true, tag: found.tag, to: input.to, place: to?.name ?? null, carrying };
		const because = input.because?.trim() ?? '';
		const asked = await against(at, found, held.where, input, to);
		if (asked.length && !because) return { done: false, tag: found.tag, asked };
		await offItsSet(at, found);
		if (to && to.id !== found.placeId) await keptElsewhere(at, found, to);
		const cylinderTo = CYLINDER_TO[input.to];
		if (recordOf(found.family).air === 'cylinder' && cylinderTo)
			await placeCylinder(at, found.id, cylinderTo);
		if ((await openRow(tx, found.id)).where !== input.to || to?.id !== found.placeId)
			await bring(
				at,
				{ ...found, placeId: to?.id ?? found.placeId, setId: null },
				{ where: input.to, placeId: to?.id ?? null, testHouseId: input.testHouseId ?? null },
				asked.length ? because : ''
			);
		return { done: true, tag: found.tag, to: input.to, place: to?.name ?? null, carrying };
	});
}

const CYLINDER_TO: Partial<Record<BroughtTo, 'rack' | 'filling' | 'test house'>> = {
	shelf: 'rack',
	filling: 'filling',
	'test house': 'test house'
};

async function placeFor(db: Connection, { to, placeId }: BringInput, home: string) {
	if (to !== 'shelf') return null;
	const [row] = await db
		.select()
		.from(place)
		.where(eq(place.id, placeId ?? home));
	if (!row || row.closedOn)
		throw new Refusal('not found', 'There is no such place any more.', 'place');
	return row;
}

/** What speaks against putting something there, as it is asked. */
async function against(
	{ tx }: Work,
	found: typeof item.$inferSelect,
	from: Where,
	{ to }: BringInput,
	shelf: typeof place.$inferSelect | null
): Promise<string[]> {
	const asked: string[] = [];
	if (from === 'issued')
		asked.push('It is out with somebody on record. Scan it back under Return, or say why not.');
	if (to === 'quarantine') asked.push('Why is it held?');
	if (to !== 'shelf' || !shelf) return asked;
	if (from === 'returned' && routeOf(found.family).cleaned !== 'wiped') {
		const { wipes } = await careOf(tx, found.id);
		if (found.usePattern !== 'personal' || wipes === 0)
			asked.push('It was worn and not washed since.');
	}
	if (from === 'wash') asked.push('It is in the bath on record.');
	if (from === 'quarantine') asked.push('It was held. What was found?');
	if (shelf.id !== found.placeId) asked.push(`It is kept elsewhere: at ${shelf.name} from now on?`);
	asked.push(...unsuited(found.family, shelf).map(({ text }) => text));
	return asked;
}

async function keptElsewhere(
	at: Work,
	found: typeof item.$inferSelect,
	to: { id: string; name: string }
): Promise<void> {
	const [from] = await at.tx
		.select({ name: place.name })
		.from(place)
		.where(eq(place.id, found.placeId));
	await at.tx.update(item).set({ placeId: to.id }).where(eq(item.id, found.id));
	at.record('item.moved', {
		of: found.id,
		itemId: found.id,
		payload: { from: from?.name ?? '', to: to.name }
	});
}

/** Counts a wipe between two full washes: for somebody's own mask alone, and not for ever. */
export function wipeItem(
	context: Context,
	input: { id: string; tag: string }
): Promise<{ wipes: number; most: number }> {
	return write(context, 'wash', { id: input.id, content: input }, async (at) => {
		const { item: found } = await itemByTag(at.tx, input.tag);
		refuseRetired(found, 'tag');
		await lockItems(at.tx, [found.id]);
		await requireAuthorised(at, { job: 'wash', family: found.family, modelId: found.modelId });
		if (!recordOf(found.family).washed)
			throw new Refusal(
				'invalid',
				`${found.tag} is wiped after every use; that is not counted.`,
				'tag'
			);
		const [owner] = await at.tx
			.select({ id: personalItem.itemId })
			.from(personalItem)
			.where(eq(personalItem.itemId, found.id));
		if (!owner)
			throw new Refusal(
				'conflict',
				`${found.tag} is nobody’s own: it is washed before another wears it.`,
				'tag'
			);
		const { wipes } = await careOf(at.tx, found.id);
		if (wipes >= MOST_WIPES)
			throw new Refusal(
				'conflict',
				`${found.tag} was wiped ${wipes} times since its last full wash: wash it now. Outside of the filters only, never into them.`,
				'tag'
			);
		await at.tx
			.insert(itemWipe)
			.values({ id: input.id, itemId: found.id, wipedBy: at.actor.id, wipedAt: at.now });
		at.record('item.wiped', { of: found.id, itemId: found.id, payload: { wipes: wipes + 1 } });
		const { where } = await openRow(at.tx, found.id);
		if (where === 'returned')
			await bring(at, found, { where: 'shelf', note: 'wiped, its owner’s own' });
		return { wipes: wipes + 1, most: MOST_WIPES };
	});
}
