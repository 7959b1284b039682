import { inArray } from 'drizzle-orm';
import { airwayOf } from '../../../core/data/families.ts';
import { familiesServing } from '../../../core/data/family-records.ts';
import { protectionKind } from '../../../core/data/protection-factors.ts';
import type { GateReason } from '../../../core/handout/gate-reason.ts';
import { kitOutByGate, type TeamSet } from '../../../core/handout/team.ts';
import type { Reason } from '../../../core/verdict.ts';
import { floorOf } from '../db/queries/custody.ts';
import { readyItemsOf } from '../db/queries/items.ts';
import { personalItem } from '../db/schema/index.ts';
import { type Context, todayOf } from '../kernel/context.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';
import {
	type GatePerson,
	gatePeople,
	gateTask,
	type GateThing,
	gateThings,
	judgeThing
} from './gate-facts.ts';

const MOST_WEARERS = 40;
const MOST_SETS = 400;
/** Of what is no breathing protection by itself. */
const MOST_BURDEN = 8;

export interface TeamAsked {
	wearerIds: readonly string[];
	planId: string;
	minutes: number | null;
	/** Where it is taken from; null: from everywhere. */
	placeId: string | null;
}

export interface TeamRow {
	wearerId: string;
	number: string;
	name: string;
	/** What they get; null: nothing. */
	tag: string | null;
	model: string;
	size: string;
	place: string;
	minutesOfAir: number | null;
	conditions: string[];
	/** Why nothing. */
	reason: string;
}

/**
 * Who of a team gets what: everything that is ready there is put before everybody by the gate, then as many are served
 * as can be, and no place goes below its floor while another way serves as many.
 */
export async function kitOutTeam(
	context: Context,
	asked: TeamAsked
): Promise<{ rows: TeamRow[]; reasons: Reason[] }> {
	requirePermission(context.actor.role, 'hand out');
	const ids = [...new Set(asked.wearerIds)];
	if (ids.length === 0 || ids.length > MOST_WEARERS)
		throw new Refusal('invalid', `A team of one to ${MOST_WEARERS}.`, 'wearers');
	const [people, tasked] = await Promise.all([
		gatePeople(context, ids),
		gateTask(context, asked.planId, asked.minutes)
	]);
	const families = familiesServing(new Set(tasked.task.kinds.map(({ kind }) => kind)));
	const asOf = todayOf(context);
	const ready = await readyItemsOf(
		context.db,
		asOf,
		{ families, placeId: asked.placeId },
		MOST_SETS
	);
	const [things, own] = await Promise.all([
		gateThings(
			context,
			ready.map(({ id }) => id)
		),
		ready.length
			? context.db
					.select()
					.from(personalItem)
					.where(
						inArray(
							personalItem.itemId,
							ready.map(({ id }) => id)
						)
					)
			: []
	]);
	const owner = new Map(own.map((row) => [row.itemId, row.wearerId]));
	const conditions = new Map<string, string[]>();
	const spare = await sparesOf(context, [...things.values()], asOf);
	const sets = [...things.values()].map((thing): TeamSet => {
		const ownOf = owner.get(thing.row.id) ?? null;
		const stops = new Map<string, GateReason[]>();
		for (const [id, person] of people) {
			const { reasons } = judgeThing(context, asOf, {
				thing,
				person,
				tasked,
				owner: ownOf ? { id: ownOf, number: people.get(ownOf)?.row.number ?? 'else' } : undefined,
				floor: null
			});
			stops.set(
				id,
				reasons.filter(({ weight }) => weight === 'stop')
			);
			conditions.set(
				`${id} ${thing.row.tag}`,
				reasons
					.filter(({ rule, weight }) => weight === 'condition' && rule !== 'gate.clear')
					.map(({ fix }) => fix)
			);
		}
		const least = Math.min(
			...[...people.values()].map(({ lPerMin }) => (thing.freeL ?? 0) / lPerMin)
		);
		return {
			tag: thing.row.tag,
			burden: protectionKind(thing.gate.kind)?.burden ?? MOST_BURDEN,
			surplusMin: thing.freeL === null ? 0 : least - (asked.minutes ?? 0),
			stock: spare.has(stockOf(thing)) ? stockOf(thing) : null,
			stops,
			ownOf
		};
	});
	const { assignment, unserved, reasons } = kitOutByGate(
		ids.filter((id) => people.has(id)),
		sets,
		spare
	);
	const byTag = new Map([...things.values()].map((thing) => [thing.row.tag, thing]));
	return {
		reasons: reasons.map((reason) => ({ ...reason, text: withNumbers(reason.text, people) })),
		rows: ids.flatMap((id): TeamRow[] => {
			const person = people.get(id);
			if (!person) return [];
			const thing = byTag.get(assignment.get(id) ?? '');
			return [
				{
					wearerId: id,
					number: person.row.number,
					name: person.row.name,
					tag: thing?.row.tag ?? null,
					model: thing?.gate.model ?? '',
					size: thing?.gate.size ?? '',
					place: thing?.place ?? '',
					minutesOfAir: thing?.freeL == null ? null : Math.floor(thing.freeL / person.lPerMin),
					conditions: thing ? (conditions.get(`${id} ${thing.row.tag}`) ?? []) : [],
					reason: unserved.find(({ wearer }) => wearer === id)?.reason ?? ''
				}
			];
		})
	};
}

/** The stock that something comes from, as it is said. */
const stockOf = ({ row, place }: GateThing) =>
	`${place}, ${airwayOf(row.family).plural.toLowerCase()},`;

/** How many of each stock may go before its place falls below its floor; stocks without a floor are left out. */
async function sparesOf(
	context: Context,
	things: readonly GateThing[],
	asOf: string
): Promise<Map<string, number>> {
	const spare = new Map<string, number>();
	for (const thing of things) {
		const stock = stockOf(thing);
		if (spare.has(stock)) continue;
		const floor = await floorOf(context.db, thing.row, asOf);
		if (floor) spare.set(stock, floor.ready - floor.keeps);
	}
	return spare;
}

/** Numbers in place of ids. */
const withNumbers = (text: string, people: ReadonlyMap<string, GatePerson>): string =>
	[...people.values()].reduce((said, { row }) => said.replaceAll(row.id, row.number), text);
