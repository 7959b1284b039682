import { and, arrayContains, desc, eq, inArray, isNotNull, isNull, or } from 'drizzle-orm';
import { cylinderContent, WARNING_BAR } from '../../../core/air/content.ts';
import { EXPECTED_L_PER_MIN } from '../../../core/air/entry.ts';
import { handedOutAs, recordOf } from '../../../core/data/family-records.ts';
import { protectionKind } from '../../../core/data/protection-factors.ts';
import { shortestMin } from '../../../core/filters/plan-life.ts';
import { groupBy } from '../../../core/group-by.ts';
import {
	type GateItem,
	type GateTask,
	type GateVerdict,
	judgeHandOut,
	judgePersonalIssue,
	judgeReady
} from '../../../core/handout/gate.ts';
import type { GateWearer } from '../../../core/handout/gate-wearer.ts';
import { ofCounter, withReasons } from '../../../core/handout/gate-site.ts';
import { daysBetween } from '../../../core/plan/calendar.ts';
import { judgeItem } from '../../../core/readiness/item-state.ts';
import { consumptions } from '../air/uses.ts';
import type { Connection } from '../db/client.ts';
import {
	cylinder,
	filterLot,
	filterModel,
	filterPair,
	item,
	itemModel,
	itemReturn,
	place,
	wearer
} from '../db/schema/index.ts';
import { ledgerOf, wearsOf } from '../filters/change.ts';
import { lifeOf } from '../filters/opening.ts';
import { planPage } from '../hazards/plans.ts';
import { type Reader, todayOf } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { dayAt } from '../kernel/site.ts';
import { fittedFacts } from '../people/wearers.ts';
import { loadFacts } from '../readiness/facts.ts';
import { isApproved } from '../register/sets.ts';

/** Something that may be handed out, with all that the gate and the counter ask of it. */
export interface GateThing {
	row: typeof item.$inferSelect;
	model: string;
	place: string;
	gate: GateItem;
	/** Free litres above its warning; null: it brings no air of its own. */
	freeL: number | null;
	airShare: number | null;
	unapproved: string[];
	/** The pair on it, as the life under a plan asks for it. */
	pair: {
		row: typeof filterPair.$inferSelect;
		model: typeof filterModel.$inferSelect;
		used: number;
	} | null;
	blowerLPerMin: number | undefined;
}

/** What is known of some items for the gate, by item. Six statements, however many they are. */
export async function gateThings(
	reader: Reader,
	itemIds: readonly string[]
): Promise<Map<string, GateThing>> {
	const { db, site } = reader;
	const asOf = todayOf(reader);
	const ids = [...itemIds];
	if (ids.length === 0) return new Map();
	const [facts, rows, pairs, cylinders] = await Promise.all([
		loadFacts(db, ids, site),
		db
			.select({ row: item, model: itemModel, place: place.name })
			.from(item)
			.innerJoin(itemModel, eq(itemModel.id, item.modelId))
			.innerJoin(place, eq(place.id, item.placeId))
			.where(or(inArray(item.id, ids), inArray(item.setId, ids))),
		openPairs(db, ids),
		db
			.select({ row: cylinder, itemId: item.id, setId: item.setId })
			.from(cylinder)
			.innerJoin(item, eq(item.id, cylinder.itemId))
			.where(or(inArray(item.id, ids), inArray(item.setId, ids)))
	]);
	const partsOf = groupBy(
		rows.filter(({ row }) => row.setId !== null),
		({ row }) => row.setId
	);
	const things = new Map<string, GateThing>();
	for (const { row, model, place: at } of rows) {
		const known = facts.get(row.id);
		if (!known || !ids.includes(row.id)) continue;
		const parts = partsOf.get(row.id) ?? [];
		const kind = handedOutAs(
			row.family,
			parts.map((part) => part.row.family)
		);
		const verdict = judgeItem(known.facts, site.ruleSet, asOf);
		// What lies on the face is what the fit test was made with.
		const face =
			recordOf(row.family).fit === null
				? parts.find((part) => recordOf(part.row.family).fit !== null)
				: undefined;
		const pair = pairs.get(row.id) ?? null;
		const air = airOf(
			cylinders.filter(({ itemId, setId }) => itemId === row.id || setId === row.id)
		);
		things.set(row.id, {
			row,
			model: model.name,
			place: at,
			freeL: air?.freeL ?? null,
			airShare: recordOf(row.family).goesIn ? (air?.share ?? null) : null,
			unapproved: parts
				.filter((part) => !isApproved(model, part.model.name))
				.map((part) => part.model.name),
			pair,
			blowerLPerMin: model.card.blowerLPerMin,
			gate: {
				kind: kind ?? '',
				model: face?.model.name ?? model.name,
				size: face?.row.size ?? row.size,
				state: verdict.outcome,
				complete: (known.facts.lacks ?? []).length === 0,
				inspectedOn: known.facts.lastInspectionOn,
				minutesOfAir: null,
				filter: pair && {
					code:
						(site.ruleSet === 'us' ? pair.model.codeUs : pair.model.codeEn) ??
						pair.model.codeEn ??
						pair.model.codeUs ??
						'',
					hoursLeft: Infinity,
					// A pair is opened from one lot on one day.
					sameTypeAndClass: true,
					sameOpening: true
				}
			}
		});
	}
	return things;
}

/** The open pairs on some items, each with what of its life is used. */
async function openPairs(db: Connection, ids: string[]) {
	const rows = await db
		.select({ row: filterPair, model: filterModel })
		.from(filterPair)
		.innerJoin(filterLot, eq(filterLot.id, filterPair.lotId))
		.innerJoin(filterModel, eq(filterModel.id, filterLot.modelId))
		.where(and(inArray(filterPair.itemId, ids), isNull(filterPair.discardedAt)));
	const wears = await wearsOf(
		db,
		rows.map(({ row }) => row.id)
	);
	return new Map(
		rows.map(({ row, model }) => {
			const { used } = ledgerOf(wears.get(row.id) ?? []);
			return [row.itemId, { row, model, used }] as const;
		})
	);
}

/** Free litres above the warning of all cylinders together, and how full the emptiest is. */
function airOf(rows: { row: typeof cylinder.$inferSelect }[]) {
	if (rows.length === 0) return null;
	const known = rows.flatMap(({ row }) =>
		row.pressureBar === null ? [] : [{ ...row, bar: row.pressureBar }]
	);
	if (known.length < rows.length) return { freeL: null, share: 0 };
	return {
		freeL: known.reduce(
			(sum, { waterVolumeL, bar }) =>
				sum +
				(bar <= WARNING_BAR
					? 0
					: cylinderContent({ waterVolumeL, fromBar: bar, toBar: WARNING_BAR }).freeLitres),
			0
		),
		share: Math.min(...known.map(({ bar, ratedBar }) => bar / ratedBar))
	};
}

/** A task by its plan as the gate asks of it. */
export async function gateTask(reader: Reader, planId: string, minutes: number | null) {
	const plan = await planPage(reader, planId);
	const { decision, status, editions } = plan;
	const uk = reader.site.ruleSet === 'uk';
	const task: GateTask = {
		kinds: decision.permitted.map(({ kind, filters }) => ({
			kind,
			filter: (uk ? filters?.en : filters?.us) ?? filters?.en ?? filters?.us ?? undefined
		})),
		requiredFactor: decision.requiredFactor ?? 0,
		hours: (minutes ?? 0) / 60,
		minutesOfAir: minutes,
		approved: status.outcome !== 'draft',
		expiresOn: editions[0]?.edition.expiresOn ?? todayOf(reader),
		inQuestion: status.outcome === 'in question'
	};
	return { plan, task };
}
export type Tasked = Awaited<ReturnType<typeof gateTask>>;

/** A wearer as the gate asks of them, with what they breathe. */
export interface GatePerson {
	row: typeof wearer.$inferSelect;
	gate: GateWearer;
	/** Free litres a minute at the pessimistic end of their own uses, or what is expected of anybody. */
	lPerMin: number;
	/** Day on which something hurt or slipped, by model and size. */
	discomfort: Map<string, string>;
}

/** Wearers for the gate, by id. */
export async function gatePeople(
	{ db, site }: Reader,
	wearerIds: readonly string[]
): Promise<Map<string, GatePerson>> {
	const ids = [...wearerIds];
	if (ids.length === 0) return new Map();
	const [rows, facts, breathing, hurts] = await Promise.all([
		db.select().from(wearer).where(inArray(wearer.id, ids)),
		fittedFacts(db, ids),
		consumptions(db),
		db
			.select({
				wearerId: itemReturn.wearerId,
				model: itemModel.name,
				size: item.size,
				at: itemReturn.returnedAt
			})
			.from(itemReturn)
			.innerJoin(item, eq(item.id, itemReturn.itemId))
			.innerJoin(itemModel, eq(itemModel.id, item.modelId))
			.where(
				and(
					inArray(itemReturn.wearerId, ids),
					isNotNull(itemReturn.wearerId),
					arrayContains(itemReturn.noticed, ['discomfort'])
				)
			)
			.orderBy(desc(itemReturn.returnedAt))
	]);
	return new Map(
		rows.map((row) => {
			const discomfort = new Map<string, string>();
			for (const hurt of hurts)
				if (hurt.wearerId === row.id && !discomfort.has(fitKey(hurt)))
					discomfort.set(fitKey(hurt), dayAt(hurt.at, site.timeZone));
			return [
				row.id,
				{
					row,
					gate: {
						fitTests: facts.get(row.id)?.fitTests ?? [],
						changes: facts.get(row.id)?.changes ?? [],
						facialHair: row.beard,
						clearedUntil: row.clearedUntil,
						trainedUntil: row.trainedUntil
					},
					lPerMin: breathing.get(row.name)?.pessimisticLPerMin ?? EXPECTED_L_PER_MIN,
					discomfort
				}
			] as const;
		})
	);
}

const fitKey = ({ model, size }: { model: string; size: string }) => `${model}\n${size}`;

/** @throws Refusal where there is no such wearer, or they have left */
export async function personFor(reader: Reader, wearerId: string): Promise<GatePerson> {
	const person = (await gatePeople(reader, [wearerId])).get(wearerId);
	if (!person) throw new Refusal('not found', 'There is no such wearer.', 'wearer');
	if (person.row.leftOn)
		throw new Refusal(
			'conflict',
			`Wearer ${person.row.number} has left: nothing is handed out.`,
			'wearer'
		);
	return person;
}

/** What the filters on something have left under a plan, h; by resistance alone: no end by the clock. */
function hoursLeft(thing: GateThing, { plan }: Tasked): number {
	if (!thing.pair) return 0;
	const { row, model, used } = thing.pair;
	const life = lifeOf(model, plan.decision, plan.inForce, row.filters, {
		kind: thing.gate.kind || null,
		blowerLPerMin: thing.blowerLPerMin
	});
	const lifeMin = shortestMin(life.parts);
	return lifeMin === null ? Infinity : (lifeMin * Math.max(0, 1 - used)) / 60;
}

/** The verdict of the counter: the gate, and what is known here beside it. */
export function judgeThing(
	{ site }: Pick<Reader, 'site'>,
	asOf: string,
	{
		thing,
		person,
		tasked,
		floor,
		owner
	}: {
		thing: GateThing;
		person: GatePerson;
		/** Whose own it is. */
		owner: { id: string; number: string } | undefined;
		/** null: as their own, for no one task. */
		tasked: Tasked | null;
		floor: { left: number; keeps: number } | null;
	}
): GateVerdict {
	const { gate } = thing;
	const kind = gate.kind ? protectionKind(gate.kind) : undefined;
	const asked: GateItem = {
		...gate,
		minutesOfAir: thing.freeL === null ? null : thing.freeL / person.lPerMin,
		filter: gate.filter && {
			...gate.filter,
			hoursLeft: tasked ? hoursLeft(thing, tasked) : Infinity
		}
	};
	const permitted = tasked?.plan.decision.permitted.find((one) => one.kind === gate.kind);
	const hurt = kind?.tightFitting ? person.discomfort.get(fitKey(gate)) : undefined;
	return withReasons(
		!kind
			? judgeReady(asked, asOf)
			: tasked
				? judgeHandOut(asked, person.gate, tasked.task, site.ruleSet, asOf)
				: judgePersonalIssue(asked, person.gate, site.ruleSet, asOf),
		ofCounter({
			wantsInsert: person.row.eyewear && kind?.coversEyes === true && kind.tightFitting,
			airShare: thing.airShare,
			unapproved: thing.unapproved,
			ownedBy: owner && owner.id !== person.row.id ? owner.number : null,
			floor: floor && { ...floor, place: thing.place },
			discomfortDays: hurt ? daysBetween(hurt, asOf) : null,
			suit: kind ? (tasked?.plan.decision.suit ?? 'none') : 'none',
			needsGoggles: permitted?.needsGoggles ?? false
		})
	);
}
