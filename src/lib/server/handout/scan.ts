import { and, eq, isNull } from 'drizzle-orm';
import type { Scanned } from '../../../core/handout/answers.ts';
import type { Connection } from '../db/client.ts';
import { stateOnDay } from '../db/queries/items.ts';
import { wearerByNumber } from '../db/queries/names.ts';
import {
	custody,
	filterPair,
	hazardPlan,
	item,
	itemModel,
	itemState,
	place,
	wearer
} from '../db/schema/index.ts';
import { pairNumber } from '../filters/pairs.ts';
import { type Context, todayOf } from '../kernel/context.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';
import { tidyTag } from '../register/items.ts';

/** What carries a word that was scanned: an item, a pair of filters by what it is on, a person, a plan. @throws Refusal */
export async function resolveScan(context: Context, word: string): Promise<Scanned> {
	requirePermission(context.actor.role, 'hand out');
	const { db } = context;
	const tag = tidyTag(word);
	const plan = /^PLAN-?(\d{1,9})$/.exec(tag)?.[1];
	if (plan) {
		const [row] = await db
			.select()
			.from(hazardPlan)
			.where(eq(hazardPlan.number, Number(plan)));
		if (row) return asPlan(row);
	}
	const found = await itemScanned(context, (await tagOfPair(db, tag)) ?? tag);
	if (found) return found;
	const who = await wearerByNumber(db, word);
	if (who) return wearerScanned(db, who);
	throw new Refusal(
		'not found',
		`“${word.trim().slice(0, 40)}” is no tag, no wearer’s number and no plan such as PLAN-4. Scan it again.`,
		'word'
	);
}

const asPlan = (row: typeof hazardPlan.$inferSelect): Scanned => ({
	kind: 'plan',
	id: row.id,
	number: row.number,
	task: row.task,
	minutes: row.facts.exposureMin
});

async function tagOfPair(db: Connection, tag: string): Promise<string | undefined> {
	const number = pairNumber(tag);
	if (number === undefined) return undefined;
	const [row] = await db
		.select({ tag: item.tag })
		.from(filterPair)
		.innerJoin(item, eq(item.id, filterPair.itemId))
		.where(and(eq(filterPair.number, number), isNull(filterPair.discardedAt)));
	return row?.tag;
}

async function itemScanned(context: Context, tag: string): Promise<Scanned | undefined> {
	const [row] = await context.db
		.select({
			tag: item.tag,
			family: item.family,
			model: itemModel.name,
			size: item.size,
			place: place.name,
			state: stateOnDay(todayOf(context)),
			where: custody.where,
			number: wearer.number
		})
		.from(item)
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(place, eq(place.id, item.placeId))
		.innerJoin(itemState, eq(itemState.itemId, item.id))
		.innerJoin(custody, and(eq(custody.itemId, item.id), isNull(custody.until)))
		.leftJoin(wearer, eq(wearer.id, custody.wearerId))
		.where(eq(item.tag, tag));
	return row && { kind: 'item', ...row };
}

async function wearerScanned(db: Connection, id: string): Promise<Scanned> {
	const [row] = await db
		.select({ id: wearer.id, number: wearer.number, name: wearer.name })
		.from(wearer)
		.where(eq(wearer.id, id));
	if (!row) throw new Refusal('not found', 'There is no such wearer.', 'word');
	return { kind: 'wearer', ...row };
}

/** Plans and people that may be chosen by hand where a scan is not at hand. */
export async function chooseFrom(db: Connection) {
	const [plans, people] = await Promise.all([
		db
			.select({
				id: hazardPlan.id,
				number: hazardPlan.number,
				task: hazardPlan.task,
				facts: hazardPlan.facts
			})
			.from(hazardPlan)
			.orderBy(hazardPlan.number)
			.limit(200),
		db
			.select({ id: wearer.id, number: wearer.number, name: wearer.name })
			.from(wearer)
			.where(isNull(wearer.leftOn))
			.orderBy(wearer.name)
			.limit(2000)
	]);
	return {
		plans: plans.map(({ facts, ...plan }) => ({ ...plan, minutes: facts.exposureMin })),
		people
	};
}
