import { and, asc, desc, eq, isNull } from 'drizzle-orm';
import { stationOf } from '../../../core/data/families.ts';
import { rejectCode } from '../../../core/data/reject-codes.ts';
import { carryingOf, unsuited } from '../../../core/site/storage-fit.ts';
import type { Connection } from '../db/client.ts';
import { item, itemModel, muster, musterEntry, place, user } from '../db/schema/index.ts';
import { openDefect } from '../faults/faults.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';
import { itemByTag, refuseRetired } from '../register/items.ts';
import { proceduresFor, stepRejected, whatCanBeWrong } from './procedures.ts';

/** Begins a muster of a place or of all, of a family or of all. */
export function startMuster(
	context: Context,
	input: { id: string; placeId: string | null; family: string | null }
): Promise<void> {
	return write(context, 'inspect', { id: input.id, content: input }, async (at) => {
		await at.tx.insert(muster).values({ ...input, startedBy: at.actor.id, startedAt: at.now });
		at.record('muster.started', {
			of: input.id,
			payload: { place: input.placeId, family: input.family }
		});
	});
}

const wanted = (sheet: { placeId: string | null; family: string | null }) =>
	and(
		isNull(item.retiredOn),
		sheet.placeId ? eq(item.placeId, sheet.placeId) : undefined,
		sheet.family ? eq(item.family, sheet.family) : undefined
	);

async function openSheet(tx: Connection, id: string) {
	const [sheet] = await tx.select().from(muster).where(eq(muster.id, id)).for('update');
	if (!sheet) throw new Refusal('not found', 'There is no such muster.');
	if (sheet.closedAt) throw new Refusal('conflict', 'This muster is closed; begin a new one.');
	return sheet;
}

export interface Presented {
	/** Made by the client. */
	id: string;
	musterId: string;
	tag: string;
}

/** Puts an item on the sheet. The same one twice is once; one that was not expected is taken and said so. */
export function present(
	context: Context,
	input: Presented
): Promise<{ tag: string; again: boolean; expected: boolean }> {
	return write(context, 'inspect', { id: input.id, content: input }, async (at) => {
		const { tx } = at;
		const sheet = await openSheet(tx, input.musterId);
		const { item: found } = await itemByTag(tx, input.tag);
		refuseRetired(found, 'tag');
		const expected =
			(!sheet.placeId || sheet.placeId === found.placeId) &&
			(!sheet.family || sheet.family === found.family);
		const taken = await tx
			.insert(musterEntry)
			.values({
				id: input.id,
				musterId: sheet.id,
				itemId: found.id,
				seenBy: at.actor.id,
				seenAt: at.now
			})
			.onConflictDoNothing()
			.returning({ id: musterEntry.id });
		if (taken.length)
			at.record('muster.presented', {
				of: sheet.id,
				itemId: found.id,
				payload: { expected }
			});
		return { tag: found.tag, again: taken.length === 0, expected };
	});
}

/** Notes what is wrong with an item that was presented: its fault is opened and holds it as any other does. */
export function exception(
	context: Context,
	input: { requestId: string; musterId: string; tag: string; step: string; code: string }
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'inspect', { id, content }, async (at) => {
		const { tx } = at;
		const sheet = await openSheet(tx, input.musterId);
		const { item: found } = await itemByTag(tx, input.tag);
		const [entry] = await tx
			.select()
			.from(musterEntry)
			.where(and(eq(musterEntry.musterId, sheet.id), eq(musterEntry.itemId, found.id)));
		if (!entry)
			throw new Refusal('conflict', `${found.tag} was not presented yet. Scan it first.`, 'tag');
		const [procedure] = await proceduresFor(tx, found.family);
		const step = stepRejected(procedure, input);
		if (entry.code === input.code && entry.station === step.station) return;
		if (entry.code)
			throw new Refusal(
				'conflict',
				`${found.tag} has ${entry.code} on this sheet already. Inspect it to note more.`,
				'code'
			);
		await tx
			.update(musterEntry)
			.set({ code: input.code, station: step.station })
			.where(eq(musterEntry.id, entry.id));
		at.record('muster.exception', {
			of: sheet.id,
			itemId: found.id,
			payload: { station: step.station, code: input.code }
		});
		await openDefect(at, {
			id: crypto.randomUUID(),
			itemId: found.id,
			station: step.station,
			code: input.code,
			step: step.key,
			note: 'found at the muster'
		});
	});
}

/** Closes the sheet and keeps the tags that were not presented. */
export function closeMuster(
	context: Context,
	{ requestId, musterId: id }: { requestId: string; musterId: string }
): Promise<void> {
	return write(context, 'inspect', { id: requestId, content: { close: id } }, async (at) => {
		const { tx } = at;
		const [done] = await tx.select().from(muster).where(eq(muster.id, id));
		if (done?.closedAt && done.closedBy === at.actor.id) return;
		const sheet = await openSheet(tx, id);
		const { seen, missing } = await stand(tx, sheet);
		await tx
			.update(muster)
			.set({
				closedBy: at.actor.id,
				closedAt: at.now,
				missing: missing.map((row) => row.tag)
			})
			.where(eq(muster.id, id));
		at.record('muster.closed', {
			of: id,
			payload: { presented: seen.length, missing: missing.map((row) => row.tag) }
		});
	});
}

type Sheet = typeof muster.$inferSelect;

async function stand(db: Connection, sheet: Sheet) {
	const seen = await db
		.select({
			entry: musterEntry,
			tag: item.tag,
			family: item.family,
			model: itemModel.name,
			by: user.name
		})
		.from(musterEntry)
		.innerJoin(item, eq(item.id, musterEntry.itemId))
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(user, eq(user.id, musterEntry.seenBy))
		.where(eq(musterEntry.musterId, sheet.id))
		.orderBy(desc(musterEntry.seenAt));
	const expected = await db
		.select({ id: item.id, tag: item.tag, place: place.name })
		.from(item)
		.innerJoin(place, eq(place.id, item.placeId))
		.where(wanted(sheet))
		.orderBy(asc(item.tag));
	const there = new Set(seen.map((row) => row.entry.itemId));
	return { seen, expected, missing: expected.filter((row) => !there.has(row.id)) };
}

/** The sheet of a muster. */
export async function musterPage(db: Connection, id: string) {
	const [row] = await db
		.select({ sheet: muster, by: user.name, kept: place })
		.from(muster)
		.innerJoin(user, eq(user.id, muster.startedBy))
		.leftJoin(place, eq(place.id, muster.placeId))
		.where(eq(muster.id, id));
	if (!row) throw new Refusal('not found', 'There is no such muster.');
	const { seen, expected, missing } = await stand(db, row.sheet);
	const [latest] = seen;
	const [procedure] = latest ? await proceduresFor(db, latest.family) : [];
	const { kept, ...rest } = row;
	const family = row.sheet.family ?? latest?.family ?? null;
	return {
		...rest,
		place: kept?.name ?? null,
		/** How it lies or hangs, and what of the shelf does not suit it: looked at with the muster. */
		keeping: family && {
			carrying: carryingOf(family),
			unsuited: kept ? unsuited(family, kept).map(({ text }) => text) : []
		},
		seen: seen.map(({ entry, ...about }) => ({
			...about,
			seenAt: entry.seenAt,
			code: entry.code,
			where: entry.station ? stationOf(about.family, entry.station).name : null,
			what: entry.code ? rejectCode(entry.code).name : null
		})),
		expected: expected.length,
		missing: row.sheet.missing ?? missing.map((one) => one.tag),
		/** What can be wrong with the item that was scanned last. */
		steps: whatCanBeWrong(procedure)
	};
}

/** Musters, newest first. */
export const recentMusters = (db: Connection) =>
	db
		.select({ sheet: muster, by: user.name, place: place.name })
		.from(muster)
		.innerJoin(user, eq(user.id, muster.startedBy))
		.leftJoin(place, eq(place.id, muster.placeId))
		.orderBy(desc(muster.startedAt))
		.limit(30);
