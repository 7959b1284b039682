import { eq, inArray } from 'drizzle-orm';
import { askOfHandOut } from '../../../core/custody/questions.ts';
import { dueBackAt } from '../../../core/custody/due-back.ts';
import { familiesServing, recordOf } from '../../../core/data/family-records.ts';
import { protectionKind } from '../../../core/data/protection-factors.ts';
import type { HandedOut, Judged } from '../../../core/handout/answers.ts';
import { type GateOutcome, OUTCOME_RANK } from '../../../core/handout/gate.ts';
import { type Instead, nearestWays } from '../../../core/handout/nearest.ts';
import { lockItems, moveTo, openRows } from '../custody/move.ts';
import type { Connection } from '../db/client.ts';
import { floorOf } from '../db/queries/custody.ts';
import { readyGroups } from '../db/queries/items.ts';
import { handOut, item, personalItem, wearer } from '../db/schema/index.ts';
import { type Context, type Reader, todayOf } from '../kernel/context.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';
import { readerOf, type Work, write } from '../kernel/write.ts';
import { itemByTag, tidyTag } from '../register/items.ts';
import {
	type GatePerson,
	gateTask,
	gateThings,
	type GateThing,
	judgeThing,
	personFor,
	type Tasked
} from './gate-facts.ts';

/** What is to be handed out, to whom, for what. */
export interface Asked {
	wearerId: string;
	tags: readonly string[];
	/** null: as their own, for no one task. */
	planId: string | null;
	/** Minutes that are planned; null: not said. */
	minutes: number | null;
}

const MOST_AT_ONCE = 12;
/** Why something stands as given though nobody asked the gate. */
const UNASKED = 'given without a connection, before the gate could be asked';

/** Of several the worst. */
export const worstOf = (judged: readonly Judged[]): GateOutcome =>
	judged.reduce<GateOutcome>(
		(worst, { verdict }) =>
			OUTCOME_RANK[verdict.outcome] > OUTCOME_RANK[worst] ? verdict.outcome : worst,
		'hand out'
	);

interface Opened {
	person: GatePerson;
	tasked: Tasked | null;
	things: GateThing[];
	/** Where each is, by item. */
	held: Awaited<ReturnType<typeof openRows>>;
	judged: Judged[];
}

/** Everything about a hand-out that is asked for, judged now. */
async function judgeAsked(reader: Reader, asked: Asked): Promise<Opened> {
	if (asked.tags.length === 0 || asked.tags.length > MOST_AT_ONCE)
		throw new Refusal('invalid', `One to ${MOST_AT_ONCE} things at a time.`, 'tags');
	const rows = await itemsTagged(reader.db, asked.tags);
	const person = await personFor(reader, asked.wearerId);
	const tasked = asked.planId ? await gateTask(reader, asked.planId, asked.minutes) : null;
	const things = await gateThings(
		reader,
		rows.map(({ id }) => id)
	);
	const held = await openRows(
		reader.db,
		rows.map(({ id }) => id)
	);
	const owners = await ownersOf(
		reader.db,
		rows.map(({ id }) => id)
	);
	const asOf = todayOf(reader);
	const taken = new Map<string, number>();
	const all: GateThing[] = [];
	const judged: Judged[] = [];
	for (const row of rows) {
		const thing = things.get(row.id);
		if (!thing) continue;
		all.push(thing);
		const key = `${row.placeId} ${row.family}`;
		const has = await floorOf(reader.db, row, asOf);
		const before = taken.get(key) ?? 0;
		taken.set(key, before + 1);
		const at = held.get(row.id);
		const contradictions = at
			? askOfHandOut(
					{
						where: at.where,
						wearer: at.wearerId ? { id: at.wearerId, number: at.number ?? '' } : null,
						since: at.since.getTime(),
						startBar: null
					},
					{ id: person.row.id, number: person.row.number }
				)
			: [];
		const verdict = judgeThing(reader, asOf, {
			// What is out by a mistake of the record is asked about, and is not refused for it.
			thing:
				contradictions.length && thing.gate.state === 'issued'
					? { ...thing, gate: { ...thing.gate, state: 'ready' } }
					: thing,
			person,
			tasked,
			owner: owners.get(row.id),
			floor: has && { left: has.ready - 1 - before, keeps: has.keeps }
		});
		judged.push({
			tag: row.tag,
			family: row.family,
			model: thing.gate.model,
			size: thing.gate.size,
			place: thing.place,
			verdict,
			asked: contradictions
		});
	}
	return { person, tasked, things: all, held, judged };
}

async function itemsTagged(db: Connection, tags: readonly string[]) {
	const rows: (typeof item.$inferSelect)[] = [];
	for (const tag of new Set(tags.map(tidyTag))) {
		const { item: row } = await itemByTag(db, tag);
		if (row.setId) {
			const [set] = await db.select({ tag: item.tag }).from(item).where(eq(item.id, row.setId));
			throw new Refusal(
				'conflict',
				`${row.tag} is a part of ${set?.tag ?? 'a set'}: scan the set.`,
				'tags'
			);
		}
		rows.push(row);
	}
	return rows;
}

async function ownersOf(db: Connection, ids: string[]) {
	if (ids.length === 0) return new Map<string, { id: string; number: string }>();
	const rows = await db
		.select({ itemId: personalItem.itemId, id: wearer.id, number: wearer.number })
		.from(personalItem)
		.innerJoin(wearer, eq(wearer.id, personalItem.wearerId))
		.where(inArray(personalItem.itemId, ids));
	return new Map(rows.map(({ itemId, id, number }) => [itemId, { id, number }]));
}

/** What the gate says of a hand-out that is being put together, with the nearest way that works where it says no. */
export async function gate(context: Context, asked: Asked) {
	requirePermission(context.actor.role, 'hand out');
	const opened = await judgeAsked(context, asked);
	const outcome = worstOf(opened.judged);
	const refused = opened.judged.find(({ verdict }) => verdict.outcome === 'do not');
	return {
		outcome,
		judged: opened.judged,
		instead: refused ? await insteadFor(context, asked, refused, opened) : []
	};
}

/** Others that are ready and that the gate would let through: one of each model, size and place is looked at. */
async function insteadFor(
	context: Context,
	asked: Asked,
	refused: Judged,
	{ person, tasked }: Opened
): Promise<Instead[]> {
	const families = tasked
		? familiesServing(new Set(tasked.task.kinds.map(({ kind }) => kind)))
		: [refused.family];
	if (families.length === 0) return [];
	const asOf = todayOf(context);
	const groups = await readyGroups(context.db, asOf, families);
	const rows = groups.length
		? await context.db
				.select()
				.from(item)
				.where(
					inArray(
						item.tag,
						groups.map(({ tag }) => tag).filter((tag) => !asked.tags.includes(tag))
					)
				)
		: [];
	const things = await gateThings(
		context,
		rows.map(({ id }) => id)
	);
	const owners = await ownersOf(
		context.db,
		rows.map(({ id }) => id)
	);
	const candidates = [...things.values()].flatMap((thing): Instead[] => {
		const owner = owners.get(thing.row.id);
		if (owner && owner.id !== person.row.id) return [];
		return [
			{
				tag: thing.row.tag,
				family: thing.row.family,
				model: thing.gate.model,
				size: thing.gate.size,
				place: thing.place,
				tightFitting: protectionKind(thing.gate.kind)?.tightFitting ?? false,
				verdict: judgeThing(context, asOf, { thing, person, tasked, owner, floor: null })
			}
		];
	});
	return nearestWays(refused, candidates);
}

export interface HandOutInput extends Asked {
	/** Made by the client. */
	id: string;
	/** What the person was asked to do first was done. */
	accepted?: boolean | undefined;
	/** Why it goes out against the gate: a supervisor alone. */
	override?: string | undefined;
	/** The answer to what contradicted the record. */
	because?: string | undefined;
	/** Given by what the device knew, without a connection. */
	offline?: boolean | undefined;
}

/**
 * Hands things out to one person, where the gate lets them through, its conditions were accepted, and nothing in the
 * record is contradicted. Given without a connection it is written down as it was given, and what the gate says now is
 * kept with it.
 * @throws Refusal for an override by anybody but a supervisor
 */
export function handOutItems(context: Context, input: HandOutInput): Promise<HandedOut> {
	const { id, ...content } = input;
	return write(context, 'hand out', { id, content }, async (at): Promise<HandedOut> => {
		const asked = input.override?.trim() ?? '';
		if (asked) requirePermission(at.actor.role, 'hand out against the gate');
		const rows = await itemsTagged(at.tx, input.tags);
		await lockItems(
			at.tx,
			rows.map((row) => row.id)
		);
		const opened = await judgeAsked(readerOf(at), input);
		const { judged } = opened;
		const outcome = worstOf(judged);
		// What went out while nobody could be asked is written down as it was; the record says so ever after.
		const override = asked || (input.offline && outcome === 'do not' ? UNASKED : '');
		const because = input.because?.trim() || (input.offline ? UNASKED : '');
		if (alreadyTheirs(opened)) return { done: true, outcome, dueBackAt: null, judged };
		if (judged.some((one) => one.asked.length) && !because)
			return { done: false, why: 'asked', outcome, judged };
		if (outcome === 'do not' && !override) return { done: false, why: 'refused', outcome, judged };
		if (outcome === 'with conditions' && !input.accepted && !override && !input.offline)
			return { done: false, why: 'conditions', outcome, judged };
		return give(at, input, opened, {
			outcome,
			override,
			because: judged.some((one) => one.asked.length) ? because : ''
		});
	});
}

/** Whether all of it is out with this person already: scanned twice is once. */
const alreadyTheirs = ({ person, things, held }: Opened): boolean =>
	things.every(({ row }) => {
		const at = held.get(row.id);
		return at?.where === 'issued' && at.wearerId === person.row.id;
	});

async function give(
	at: Work,
	input: HandOutInput,
	{ person, tasked, things, judged }: Opened,
	said: { outcome: GateOutcome; override: string; because: string }
): Promise<HandedOut> {
	const back = dueBackAt(at.now.getTime(), tasked && { minutes: input.minutes });
	await at.tx.insert(handOut).values({
		id: input.id,
		wearerId: person.row.id,
		planId: input.planId,
		minutes: input.minutes,
		outcome: said.outcome,
		reasons: judged.flatMap(({ verdict }) => verdict.reasons),
		overrideReason: said.override || null,
		offline: input.offline ?? false,
		dueBackAt: back === null ? null : new Date(back),
		handedBy: at.actor.id,
		handedAt: at.now
	});
	for (const [i, { row }] of things.entries()) {
		const verdict = judged[i]?.verdict;
		await moveTo(
			at,
			row,
			{ where: 'issued', wearerId: person.row.id, handOutId: input.id },
			said.because || said.override
		);
		at.record('item.handed-out', {
			of: row.id,
			itemId: row.id,
			payload: {
				wearer: person.row.number,
				task: tasked?.plan.plan.task ?? null,
				outcome: verdict?.outcome ?? said.outcome,
				reasons: (verdict?.reasons ?? [])
					.filter(({ rule }) => rule !== 'gate.clear')
					.map(({ text }) => text),
				...(said.override ? { override: said.override } : {}),
				...(said.because ? { because: said.because } : {}),
				...(input.offline ? { offline: true } : {})
			}
		});
		if (!tasked && recordOf(row.family).fit !== null) await ownFromNowOn(at, row.id, person.row.id);
	}
	return {
		done: true,
		outcome: said.outcome,
		dueBackAt: back === null ? null : new Date(back).toISOString(),
		judged
	};
}

/** Handed out for no one task it is their own from now on. */
async function ownFromNowOn(at: Work, itemId: string, wearerId: string): Promise<void> {
	await at.tx
		.insert(personalItem)
		.values({ itemId, wearerId, since: at.today })
		.onConflictDoNothing();
	await at.tx.update(item).set({ usePattern: 'personal' }).where(eq(item.id, itemId));
}
