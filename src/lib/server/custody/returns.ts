import { desc, eq } from 'drizzle-orm';
import type { Returned, Went } from '../../../core/custody/answers.ts';
import { dirtOf } from '../../../core/care/contamination.ts';
import { askOfReturn } from '../../../core/custody/questions.ts';
import {
	type Fault,
	type Lead,
	leadsOf,
	leadWords,
	type Noticed,
	NOTICED
} from '../../../core/custody/noticed.ts';
import type { Where } from '../../../core/custody/custody.ts';
import { firstStage, routeOf, stageAt } from '../../../core/data/care-routes.ts';
import { recordOf } from '../../../core/data/family-records.ts';
import { LEAST_AIR_SHARE } from '../../../core/handout/gate-site.ts';
import { cylindersOn, placeCylinder, putPressure } from '../air/cylinders.ts';
import type { Connection } from '../db/client.ts';
import {
	cylinder,
	handOut,
	hazardPlan,
	item,
	itemReturn,
	personalItem,
	wearer
} from '../db/schema/index.ts';
import { lastEntryOf } from '../db/queries/entries.ts';
import { openDefect } from '../faults/faults.ts';
import { openPairOn } from '../filters/change.ts';
import { discard, pairTag } from '../filters/opening.ts';
import { wearIn } from '../filters/pairs.ts';
import { planPage, raiseFlag } from '../hazards/plans.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { readerOf, type Work, write } from '../kernel/write.ts';
import { itemByTag, refuseRetired } from '../register/items.ts';
import { lockItems, moveTo, openRow, takeOffSet } from './move.ts';

const LONGEST_MIN = 1440;
const MOST_BAR = 450;

/** Something that is brought back. */
export interface ReturnInput {
	/** Made by the client. */
	id: string;
	tag: string;
	/** Who brings it; null: whoever had it. */
	by?: string | null | undefined;
	/** It was not used: back to its shelf. */
	unused?: boolean | undefined;
	minutes?: number | null | undefined;
	/** Task; left out: the one it went out for. */
	planId?: string | null | undefined;
	/** Pressure left, bar. */
	bar?: number | null | undefined;
	noticed?: Noticed[] | undefined;
	/** What is broken and where, if that was said. */
	damage?: Fault | undefined;
	note?: string | undefined;
	/** The answer to what contradicted the record. */
	because?: string | undefined;
	offline?: boolean | undefined;
}

/** Brings something back, or says in what it differs from the record and asks once. */
export function returnItem(context: Context, input: ReturnInput): Promise<Returned> {
	const { id, ...content } = input;
	return write(context, 'move things', { id, content }, async (at): Promise<Returned> => {
		const { tx } = at;
		const { item: found } = await itemByTag(tx, input.tag);
		refuseRetired(found, 'tag');
		checkFigures(input);
		await lockItems(tx, [found.id]);
		const held = await openRow(tx, found.id);
		const issue = held.handOutId
			? (await tx.select().from(handOut).where(eq(handOut.id, held.handOutId)))[0]
			: undefined;
		const by = input.by ? await wearerNumbered(tx, input.by) : null;
		const because = input.because?.trim() ?? '';
		const asked = askOfReturn(
			{
				where: held.where,
				wearer: held.wearerId ? { id: held.wearerId, number: held.number ?? '' } : null,
				since: held.since.getTime(),
				startBar: await barOf(tx, found.id)
			},
			{ by, minutes: input.minutes ?? null, bar: input.bar ?? null, at: at.now.getTime() }
		);
		if (asked.length && !because && !input.offline) return { done: false, tag: found.tag, asked };
		const set = asked.length ? because || 'brought back without a connection' : '';
		return back(at, found, { input, held, issue, by, because: set });
	});
}

function checkFigures({ minutes, bar, noticed }: ReturnInput): void {
	if (minutes != null && !(Number.isInteger(minutes) && minutes >= 0 && minutes <= LONGEST_MIN))
		throw new Refusal('invalid', `Whole minutes, 0 to ${LONGEST_MIN}.`, 'minutes');
	if (bar != null && !(bar >= 0 && bar <= MOST_BAR))
		throw new Refusal('invalid', `From 0 to ${MOST_BAR} bar.`, 'bar');
	for (const one of noticed ?? [])
		if (!NOTICED.includes(one))
			throw new Refusal('invalid', `“${String(one)}” is nothing that is noticed here.`, 'noticed');
}

async function wearerNumbered(db: Connection, id: string) {
	const [row] = await db
		.select({ id: wearer.id, number: wearer.number })
		.from(wearer)
		.where(eq(wearer.id, id));
	if (!row) throw new Refusal('not found', 'There is no such wearer.', 'by');
	return row;
}

/** What its fullest cylinder shows on record; null: nothing known, or it has none. */
async function barOf(db: Connection, itemId: string): Promise<number | null> {
	const known = (await cylindersOn(db, itemId)).flatMap(({ pressureBar }) => pressureBar ?? []);
	return known.length ? Math.max(...known) : null;
}

interface Brought {
	input: ReturnInput;
	held: Awaited<ReturnType<typeof openRow>>;
	issue: typeof handOut.$inferSelect | undefined;
	by: { id: string; number: string } | null;
	because: string;
}

async function back(
	at: Work,
	found: typeof item.$inferSelect,
	{ input, held, issue, by, because }: Brought
): Promise<Returned> {
	const { tx } = at;
	const planId = input.planId ?? issue?.planId ?? null;
	const plan = planId ? await planPage(readerOf(at), planId) : null;
	const used = !input.unused;
	// Handed out and brought back without a word: as long as was planned, and no longer than it was out.
	const out = Math.floor((at.now.getTime() - held.since.getTime()) / 60_000);
	// What the board kept of it is not asked for again, and is not counted twice.
	const entry = used ? await lastEntryOf(tx, found.id, held.since) : undefined;
	const bar = input.bar ?? entry?.endBar ?? null;
	const minutes = used
		? (input.minutes ??
			minutesOf(entry) ??
			(issue?.minutes != null && held.where === 'issued'
				? Math.min(issue.minutes, Math.max(1, out))
				: null))
		: null;
	const pair = await openPairOn(tx, found.id);
	const noticed = used ? [...new Set(input.noticed ?? [])] : [];
	const leads = noticed.flatMap((one) =>
		leadsOf(
			one,
			{ family: found.family, fitted: pair !== undefined, planned: plan !== null },
			input.damage
		)
	);
	const dirt = dirtOf(used && plan ? plan.decision.contaminants : []);
	const counted =
		used && minutes && plan && pair ? await countWear(at, pair, plan, minutes) : false;
	await tx.insert(itemReturn).values({
		id: input.id,
		itemId: found.id,
		handOutId: issue?.id ?? null,
		wearerId: held.wearerId ?? by?.id ?? null,
		planId,
		used,
		minutes,
		bar,
		noticed,
		contaminatedWith: dirt.names,
		ownBath: dirt.ownBath,
		note: input.note?.trim() ?? '',
		because,
		countedElsewhere: counted || entry !== undefined,
		offline: input.offline ?? false,
		returnedBy: at.actor.id,
		returnedAt: at.now
	});
	const own = await isOwn(tx, found.id);
	const first = leads.some(({ to }) => to === 'fault') && routeOf(found.family).cleaned === 'wiped';
	const where: Where = !used
		? 'shelf'
		: routeOf(found.family).once
			? 'quarantine'
			: firstStage(found.family);
	await moveTo(at, found, { where }, because);
	at.record('item.returned', {
		of: found.id,
		itemId: found.id,
		payload: {
			wearer: held.number ?? by?.number ?? null,
			used,
			minutes,
			bar,
			noticed,
			contaminatedWith: dirt.names,
			next: where,
			...(input.note?.trim() ? { note: input.note.trim() } : {}),
			...(because ? { because } : {})
		}
	});
	for (const lead of leads) await follow(at, found, lead, { pair, planId, note: input.note ?? '' });
	const went: Went[] = [
		{
			tag: found.tag,
			family: found.family,
			where,
			does: doesNext(found.family, where, own, first)
		},
		...(used ? await takeApart(at, found, bar) : [])
	];
	return {
		done: true,
		tag: found.tag,
		family: found.family,
		number: held.number ?? by?.number ?? null,
		task: plan?.plan.task ?? null,
		went,
		leads: leads.map(leadWords),
		contaminatedWith: dirt.names,
		bareHands: dirt.bareHands,
		minutes
	};
}

const minutesOf = (entry: { startedAt: Date; endedAt: Date | null } | undefined) =>
	entry?.endedAt
		? Math.round((entry.endedAt.getTime() - entry.startedAt.getTime()) / 60_000)
		: null;

const doesNext = (family: string, where: Where, own: boolean, faulty: boolean): string => {
	const does = stageAt(family, where)?.does ?? (where === 'shelf' ? 'Back on its shelf.' : '');
	return [
		does,
		...(faulty ? ['Then to the bench: something was noticed.'] : []),
		...(own && where !== 'shelf' ? ['Then back to its owner.'] : [])
	]
		.filter(Boolean)
		.join(' ');
};

/** Minutes go to the ledger of the filters. */
async function countWear(
	at: Work,
	pair: NonNullable<Awaited<ReturnType<typeof openPairOn>>>,
	plan: Awaited<ReturnType<typeof planPage>>,
	minutes: number
): Promise<boolean> {
	if (pair.pair.sealedUntil) return false;
	await wearIn(at, pair, plan, { id: crypto.randomUUID(), minutes, wornOn: at.today });
	return true;
}

/** Follows where something that was noticed leads. */
async function follow(
	at: Work,
	found: typeof item.$inferSelect,
	lead: Lead,
	with_: { pair: Awaited<ReturnType<typeof openPairOn>>; planId: string | null; note: string }
): Promise<void> {
	if (lead.to === 'fault')
		await openDefect(at, {
			id: crypto.randomUUID(),
			itemId: found.id,
			station: lead.fault.station,
			code: lead.fault.code,
			note: with_.note.trim() || 'Noticed in use, said on return.'
		});
	if (lead.to === 'early change' && with_.pair && !with_.pair.pair.discardedAt) {
		await discard(at, with_.pair.pair, lead.reason);
		at.record('filters.discarded', {
			of: with_.pair.pair.id,
			itemId: found.id,
			payload: { pair: pairTag(with_.pair.pair.number), why: lead.reason }
		});
	}
	if (lead.to === 'plan' && with_.planId && with_.pair && with_.pair.pair.planId !== with_.planId)
		// Its own plan is questioned by the early change; another that it was worn for is questioned here.
		await raiseFlag(at, {
			id: crypto.randomUUID(),
			planId: with_.planId,
			pairId: with_.pair.pair.id,
			text: `${found.tag}: smell or taste noticed in use. ${with_.note}`.trim()
		});
	at.changed(found.id);
}

/** Whether it is somebody's own. */
async function isOwn(db: Connection, itemId: string): Promise<boolean> {
	const rows = await db
		.select({ id: personalItem.itemId })
		.from(personalItem)
		.where(eq(personalItem.itemId, itemId));
	return rows.length > 0;
}

/** What is on a set that comes back goes its own way: masks to the wash, cylinders that are not full to filling. */
async function takeApart(
	at: Work,
	set: typeof item.$inferSelect,
	bar: number | null
): Promise<Went[]> {
	const { tx } = at;
	const went: Went[] = [];
	if (recordOf(set.family).air === 'cylinder') await spent(at, set.id, bar);
	const parts = await tx.select().from(item).where(eq(item.setId, set.id)).orderBy(item.tag);
	for (const part of parts) {
		const record = recordOf(part.family);
		if (record.air === 'cylinder') {
			const full = await spent(at, part.id, bar);
			if (full) continue;
			await takeOffSet(at, part, set);
			await placeCylinder(at, part.id, 'filling');
			went.push(goes(part, 'filling'));
		} else if (record.washed) {
			await takeOffSet(at, part, set);
			await moveTo(at, { ...part, setId: null }, { where: 'returned' }, `came back on ${set.tag}`);
			at.record('item.brought', {
				of: part.id,
				itemId: part.id,
				payload: { from: 'shelf', to: 'returned', note: `came back on ${set.tag}` }
			});
			went.push(goes(part, 'returned'));
		}
	}
	return went;
}

const goes = ({ tag, family }: { tag: string; family: string }, where: Where): Went => ({
	tag,
	family,
	where,
	does: stageAt(family, where)?.does ?? ''
});

/** Notes what is left in a cylinder. @returns whether it is still full enough to go out */
async function spent(at: Work, itemId: string, bar: number | null): Promise<boolean> {
	const [row] = await at.tx.select().from(cylinder).where(eq(cylinder.itemId, itemId));
	if (!row) return true;
	await putPressure(at, row, {
		bar,
		why: bar === null ? 'used, nobody read it' : 'read on return'
	});
	return bar !== null && bar >= LEAST_AIR_SHARE * row.ratedBar;
}

/** The last returns, for whoever stands at the counter. */
export const lastReturns = (db: Connection, most: number) =>
	db
		.select({
			id: itemReturn.id,
			tag: item.tag,
			number: wearer.number,
			task: hazardPlan.task,
			minutes: itemReturn.minutes,
			noticed: itemReturn.noticed,
			at: itemReturn.returnedAt
		})
		.from(itemReturn)
		.innerJoin(item, eq(item.id, itemReturn.itemId))
		.leftJoin(wearer, eq(wearer.id, itemReturn.wearerId))
		.leftJoin(hazardPlan, eq(hazardPlan.id, itemReturn.planId))
		.orderBy(desc(itemReturn.returnedAt))
		.limit(most);
