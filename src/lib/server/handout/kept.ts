import { isNull } from 'drizzle-orm';
import type { KeptCounter } from '../../../core/handout/kept.ts';
import type { Connection } from '../db/client.ts';
import { countedOut } from '../db/queries/custody.ts';
import { hazardPlan, personalItem, wearer } from '../db/schema/index.ts';
import { type Context, todayOf } from '../kernel/context.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { gatePeople, gateTask, gateThings } from './gate-facts.ts';

/** What fits a device and is brought in one go: nearest to going out first. */
const MOST_ITEMS = 600;
const MOST_PEOPLE = 500;
const MOST_PLANS = 40;

/** What a device keeps of the counter: people, what is ready or out, and the plans in force. */
export async function keptCounter(context: Context): Promise<KeptCounter> {
	requirePermission(context.actor.role, 'hand out');
	const { db } = context;
	const asOf = todayOf(context);
	const [ids, planIds, wearerIds, owners] = await Promise.all([
		countedOut(db, asOf, MOST_ITEMS),
		planIdsOf(db),
		wearerIdsOf(db),
		db.select().from(personalItem)
	]);
	const [things, people, tasks] = await Promise.all([
		gateThings(context, ids),
		gatePeople(context, wearerIds),
		Promise.all(planIds.map((id) => gateTask(context, id, null)))
	]);
	const ownOf = new Map(owners.map(({ itemId, wearerId }) => [itemId, wearerId]));
	return {
		at: context.now().getTime(),
		asOf,
		ruleSet: context.site.ruleSet,
		people: [...people].map(([id, { row, gate, lPerMin }]) => ({
			id,
			number: row.number,
			name: row.name,
			lPerMin,
			gate
		})),
		items: [...things.values()].map((thing) => ({
			tag: thing.row.tag,
			family: thing.row.family,
			model: thing.gate.model,
			size: thing.gate.size,
			place: thing.place,
			freeL: thing.freeL,
			ownOf: ownOf.get(thing.row.id) ?? null,
			// Infinity is no JSON: the device knows no hours.
			gate: {
				...thing.gate,
				filter: thing.gate.filter && { ...thing.gate.filter, hoursLeft: 0 }
			}
		})),
		plans: tasks
			.filter(({ task }) => task.approved)
			.map(({ plan, task }) => ({
				id: plan.plan.id,
				number: plan.plan.number,
				task: plan.plan.task,
				minutes: plan.inForce.exposureMin,
				gate: { ...task, minutesOfAir: plan.inForce.exposureMin }
			}))
	};
}

const planIdsOf = async (db: Connection) =>
	(
		await db
			.select({ id: hazardPlan.id })
			.from(hazardPlan)
			.orderBy(hazardPlan.number)
			.limit(MOST_PLANS)
	).map(({ id }) => id);

const wearerIdsOf = async (db: Connection) =>
	(
		await db
			.select({ id: wearer.id })
			.from(wearer)
			.where(isNull(wearer.leftOn))
			.orderBy(wearer.number)
			.limit(MOST_PEOPLE)
	).map(({ id }) => id);
