import { asc, eq } from 'drizzle-orm';
import type { EraseReason } from '../../../core/people/erase.ts';
import { readable } from '../../../core/plan/calendar.ts';
import { consumptionFigures } from '../../../core/air/consumption.ts';
import type { Connection } from '../db/client.ts';
import { consumptionOfUse } from '../air/uses.ts';
import { openFit } from '../db/queries/fit.ts';
import { outWith } from '../db/queries/custody.ts';
import { nameKey, sealChecksOf, typedNames, usesOf } from '../db/queries/names.ts';
import {
	fitTest,
	item,
	itemModel,
	personalItem,
	place,
	wearer,
	wearerChange,
	wearerName,
	wearerPlace
} from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { dayAt } from '../kernel/site.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Work, write } from '../kernel/write.ts';
import { itemByTag, refuseRetired } from '../register/items.ts';

/** Names under which a wearer stands on boards and seal checks: the own one, and those that were matched. */
async function keysOf(db: Connection, { id, name }: { id: string; name: string }) {
	const matched = await db
		.select({ name: wearerName.name })
		.from(wearerName)
		.where(eq(wearerName.wearerId, id));
	return [...new Set([nameKey(name), ...matched.map((one) => one.name)])];
}

/** What a wearer's page shows of their own equipment, of their breathing and of their checks. */
export async function ownThings(db: Connection, who: { id: string; name: string }) {
	const keys = await keysOf(db, who);
	const [out, items, uses, checks] = await Promise.all([
		outWith(db, who.id),
		db
			.select({ tag: item.tag, model: itemModel.name, size: item.size, since: personalItem.since })
			.from(personalItem)
			.innerJoin(item, eq(item.id, personalItem.itemId))
			.innerJoin(itemModel, eq(itemModel.id, item.modelId))
			.where(eq(personalItem.wearerId, who.id))
			.orderBy(asc(item.tag)),
		usesOf(db, keys),
		sealChecksOf(db, keys)
	]);
	const rated = uses.map((use) => ({ ...use, lPerMin: consumptionOfUse(use) }));
	return {
		/** What is out with them now. */
		out,
		items,
		uses: rated,
		sealChecks: checks,
		consumption: consumptionFigures(rated.flatMap(({ lPerMin }) => lPerMin ?? []))
	};
}

/** Names that were typed, and the wearers whom they may mean. */
export async function namesPage(db: Connection) {
	const [names, wearers] = await Promise.all([
		typedNames(db),
		db
			.select({
				id: wearer.id,
				name: wearer.name,
				number: wearer.number,
				erasedOn: wearer.erasedOn
			})
			.from(wearer)
			.orderBy(asc(wearer.name))
	]);
	const own = new Map(
		wearers.filter(({ erasedOn }) => !erasedOn).map(({ id, name }) => [nameKey(name), id] as const)
	);
	return {
		wearers: wearers.filter(({ erasedOn }) => !erasedOn),
		names: names.map((one) => ({
			...one,
			/** Who is called so. */
			same: one.wearerId ? null : (own.get(one.key) ?? null),
			erased: wearers.some(({ id, erasedOn }) => id === one.wearerId && erasedOn !== null)
		}))
	};
}

/** Says whom typed names mean; null takes a match back. The rows that carry them stay as they are. */
export function matchNames(
	context: Context,
	input: { requestId: string; matches: { name: string; wearerId: string | null }[] }
): Promise<{ matched: number }> {
	const { requestId, ...content } = input;
	return write(context, 'match names', { id: requestId, content }, async (at) => {
		const counts = new Map<string, number>();
		for (const { name, wearerId } of input.matches) {
			const key = nameKey(name);
			if (!key) continue;
			const [held] = await at.tx.select().from(wearerName).where(eq(wearerName.name, key));
			if ((held?.wearerId ?? null) === wearerId) continue;
			if (wearerId === null) await at.tx.delete(wearerName).where(eq(wearerName.name, key));
			else if (held)
				await at.tx.update(wearerName).set({ wearerId }).where(eq(wearerName.name, key));
			else await at.tx.insert(wearerName).values({ name: key, wearerId });
			const about = wearerId ?? held?.wearerId;
			if (about) counts.set(about, (counts.get(about) ?? 0) + 1);
		}
		let matched = 0;
		for (const [id, names] of counts) {
			const [row] = await at.tx.select().from(wearer).where(eq(wearer.id, id));
			if (!row) throw new Refusal('invalid', 'Choose a wearer of the register.', 'wearerId');
			at.record('wearer.names-matched', { of: id, payload: { number: row.number, names } });
			matched += names;
		}
		return { matched };
	});
}

/** Makes a piece of equipment somebody's own, or takes that back. */
export function keepOwnItem(
	context: Context,
	input: { requestId: string; wearerId: string; tag: string; own: boolean }
): Promise<void> {
	const { requestId, ...content } = input;
	return write(context, 'keep wearers', { id: requestId, content }, async (at) => {
		const [row] = await at.tx.select().from(wearer).where(eq(wearer.id, input.wearerId));
		if (!row || row.erasedOn) throw new Refusal('not found', 'There is no such wearer.');
		const { item: found } = await itemByTag(at.tx, input.tag);
		const [held] = await at.tx
			.select({ wearerId: personalItem.wearerId, name: wearer.name })
			.from(personalItem)
			.innerJoin(wearer, eq(wearer.id, personalItem.wearerId))
			.where(eq(personalItem.itemId, found.id));
		if (input.own) {
			refuseRetired(found, 'tag');
			if (held)
				throw new Refusal(
					'conflict',
					held.wearerId === row.id
						? `${found.tag} is theirs already.`
						: `${found.tag} is ${held.name}’s own.`,
					'tag'
				);
			await at.tx
				.insert(personalItem)
				.values({ itemId: found.id, wearerId: row.id, since: at.today });
			if (found.usePattern !== 'personal')
				await at.tx.update(item).set({ usePattern: 'personal' }).where(eq(item.id, found.id));
		} else {
			if (held?.wearerId !== row.id)
				throw new Refusal('conflict', `${found.tag} is not theirs.`, 'tag');
			await at.tx.delete(personalItem).where(eq(personalItem.itemId, found.id));
		}
		at.changed(found.id);
		at.record('wearer.own-item', {
			of: row.id,
			itemId: found.id,
			payload: { number: row.number, tag: found.tag, own: input.own }
		});
	});
}

/** Everything that is kept of one person, for them to have. */
export async function exportOf(context: Context, id: string) {
	requirePermission(context.actor.role, 'keep wearers');
	const { db } = context;
	const [row] = await db.select().from(wearer).where(eq(wearer.id, id));
	if (!row || row.erasedOn) throw new Refusal('not found', 'There is no such wearer.');
	const [places, tests, changes, own, names] = await Promise.all([
		db
			.select({ name: place.name })
			.from(wearerPlace)
			.innerJoin(place, eq(place.id, wearerPlace.placeId))
			.where(eq(wearerPlace.wearerId, id)),
		db
			.select({ test: fitTest, model: itemModel.name })
			.from(fitTest)
			.innerJoin(itemModel, eq(itemModel.id, fitTest.modelId))
			.where(eq(fitTest.wearerId, id))
			.orderBy(asc(fitTest.testedOn)),
		db.select().from(wearerChange).where(eq(wearerChange.wearerId, id)),
		ownThings(db, row),
		db.select({ name: wearerName.name }).from(wearerName).where(eq(wearerName.wearerId, id))
	]);
	await write(
		context,
		'keep wearers',
		{ id: crypto.randomUUID(), content: { exported: id } },
		async (at) => {
			at.record('wearer.exported', { of: id, payload: { number: row.number } });
		}
	);
	return {
		written: context.now().toISOString(),
		wearer: {
			number: row.number,
			name: row.name,
			glasses: row.eyewear,
			beard: row.beard,
			clearedUntil: row.clearedUntil,
			trainedUntil: row.trainedUntil,
			places: places.map(({ name }) => name)
		},
		namesTyped: names.map(({ name }) => name),
		changesReported: changes.map(({ what, reportedOn }) => ({ what, reportedOn })),
		fitTests: tests.map(({ test, model }) => ({
			model,
			size: test.size,
			method: test.method,
			protocol: test.protocol ?? test.agent,
			ruleSet: test.ruleSet,
			testedOn: test.testedOn,
			passed: test.passed,
			overall: test.overall,
			factors: test.factors,
			wornWithIt: test.worn
		})),
		ownItems: own.items,
		entries: own.uses.map(({ task, startedAt, endedAt, lPerMin }) => ({
			task,
			startedAt,
			endedAt,
			lPerMin
		})),
		sealChecks: own.sealChecks
	};
}

/**
 * Erases who somebody is on their request: name, account, clearance, training, face, places and own items go; the number
 * stays with what the record says of the equipment and of the tests, and the log still proves.
 */
export function eraseWearer(
	context: Context,
	input: { requestId: string; id: string; version: number; reason: EraseReason }
): Promise<void> {
	const { requestId, ...content } = input;
	return write(context, 'erase a wearer', { id: requestId, content }, async (at) => {
		const [row] = await at.tx.select().from(wearer).where(eq(wearer.id, input.id)).for('update');
		if (!row) throw new Refusal('not found', 'There is no such wearer.');
		if (row.erasedOn) throw new Refusal('conflict', 'Who this is was erased already.');
		if (row.version !== input.version)
			throw new Refusal('conflict', 'What is kept of them was changed meanwhile. Look again.');
		await putErased(at, row, input.reason);
	});
}

/** Erases who a wearer is, within a write that holds the row. @throws Refusal where a fit test of theirs is under way */
export async function putErased(
	at: Work,
	row: typeof wearer.$inferSelect,
	reason: EraseReason
): Promise<void> {
	const open = await openFit(at.tx, row.id);
	if (open)
		throw new Refusal(
			'conflict',
			`A fit test of theirs is under way, begun on ${readable(dayAt(open.startedAt, at.site.timeZone))}: end it first.`
		);
	// What was typed under the name stays typed; whom it means is known, so that it is shown as the number.
	const key = nameKey(row.name);
	const [held] = await at.tx.select().from(wearerName).where(eq(wearerName.name, key));
	if (!held && (await typedNames(at.tx)).some((one) => one.key === key))
		await at.tx.insert(wearerName).values({ name: key, wearerId: row.id });
	await at.tx.delete(wearerPlace).where(eq(wearerPlace.wearerId, row.id));
	await at.tx.delete(personalItem).where(eq(personalItem.wearerId, row.id));
	await at.tx
		.update(wearer)
		.set({
			name: `Wearer ${row.number}`,
			userId: null,
			eyewear: false,
			beard: false,
			clearedUntil: null,
			trainedUntil: null,
			erasedOn: at.today,
			leftOn: row.leftOn ?? at.today,
			version: row.version + 1
		})
		.where(eq(wearer.id, row.id));
	at.record('wearer.erased', {
		of: row.id,
		payload: { number: row.number, reason }
	});
}
