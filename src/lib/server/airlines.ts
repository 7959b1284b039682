import { and, asc, desc, eq, inArray, isNull } from 'drizzle-orm';
import { LEAST_FLOW_L_PER_MIN, type HoseInput } from '../../core/airline/hose.ts';
import { hoseFixes } from '../../core/airline/fixes.ts';
import { judgeRig, RIG_ALARMS, type RigFacts } from '../../core/airline/rig.ts';
import { checkDay, type Day } from '../../core/plan/calendar.ts';
import { InputError } from '../../core/verdict.ts';
import { listSources, sourceWithState } from './air-sources.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import type { Connection } from './db/client.ts';
import { airlineRig, item, itemModel, place, rigEvent, user } from './db/schema/index.ts';
import { Fault } from './errors.ts';
import { groupBy } from './group.ts';
import { itemByTag } from './items.ts';
import { dayAt, type Site } from './site.ts';

export type RigRow = typeof airlineRig.$inferSelect;
const MOST_OUTLETS = 12;

/** The run of hose of a rig with so many breathing at its end. */
export const hoseOf = (rig: RigRow, wearers: number): HoseInput => ({
	...{ supplyBar: rig.regulatorBar, boreMm: rig.boreMm, lengthM: rig.lengthM },
	...{ fittingsEquivalentM: rig.fittingsM, leastOutletBar: rig.leastBar, wearing: rig.wearing },
	flowLPerMin: wearers * LEAST_FLOW_L_PER_MIN[rig.wearing]
});

/** Every airline rig with whether it may be breathed from today, by as many as it has outlets. */
export async function listRigs(context: Pick<Context, 'db' | 'now'>, site: Site) {
	const { db } = context;
	const asOf = dayAt(context.now(), site.timeZone);
	const rows = await db
		.select({
			id: item.id,
			tag: item.tag,
			model: itemModel.name,
			place: place.name,
			rig: airlineRig
		})
		.from(item)
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(place, eq(place.id, item.placeId))
		.leftJoin(airlineRig, eq(airlineRig.itemId, item.id))
		.where(and(eq(item.family, 'airline'), isNull(item.retiredOn)))
		.orderBy(asc(item.tag));
	const sources = await listSources(context, site);
	const events = await eventsOf(
		db,
		rows.map((row) => row.id)
	);
	return rows.map((row) => {
		const { rig } = row;
		const source = sources.find((s) => s.source.id === rig?.sourceId);
		if (!rig || !source) return { ...row, rig: null, source: null, verdict: null, events: [] };
		const own = events.get(row.id) ?? [];
		const facts = factsOf(rig, source, own);
		return { ...row, rig, source, verdict: judgeRig(facts, asOf), events: own };
	});
}

type WithState = Awaited<ReturnType<typeof sourceWithState>>;
type EventRow = typeof rigEvent.$inferSelect & { by: string };

function factsOf(
	rig: RigRow,
	{ source, state }: WithState,
	events: readonly EventRow[],
	wearers = rig.outlets
): RigFacts {
	const last = (kind: EventRow['kind']) => events.find((event) => event.kind === kind);
	const tested = last('alarm');
	return {
		source: {
			...state,
			...{ name: source.name, oilLubricated: source.oilLubricated },
			compressor: source.kind === 'compressor'
		},
		sorbent:
			rig.sorbentMonths === null
				? null
				: { everyMonths: rig.sorbentMonths, changedOn: last('sorbent')?.doneOn ?? null },
		alarm: {
			...{ kind: rig.alarm, atPpm: rig.alarmPpm, everyDays: rig.alarmDays },
			...{ testedOn: tested?.doneOn ?? null, passed: tested?.passed ?? true }
		},
		...{ hose: hoseOf(rig, wearers), outlets: rig.outlets, wearers }
	};
}

/** What was changed on and tested of rigs, newest first, by rig. */
async function eventsOf(db: Connection, ids: string[]): Promise<Map<string, EventRow[]>> {
	if (ids.length === 0) return new Map();
	const rows = await db
		.select({ event: rigEvent, by: user.name })
		.from(rigEvent)
		.innerJoin(user, eq(user.id, rigEvent.doneBy))
		.where(inArray(rigEvent.itemId, ids))
		.orderBy(desc(rigEvent.doneOn), desc(rigEvent.notedAt));
	return groupBy(
		rows.map(({ event, by }) => ({ ...event, by })),
		(event) => event.itemId
	);
}

/** A rig for so many wearers: verdict, and the changes that would make its hose pass. */
export async function rigPage(
	context: Pick<Context, 'db' | 'now'>,
	site: Site,
	tag: string,
	wearers: number | null
) {
	const { db } = context;
	const { item: found, model, place: where } = await itemByTag(db, tag);
	if (found.family !== 'airline') throw new Fault('not found', `${found.tag} is no airline rig.`);
	const asOf = dayAt(context.now(), site.timeZone);
	const [rig] = await db.select().from(airlineRig).where(eq(airlineRig.itemId, found.id));
	const sources = (await listSources(context, site)).map(({ source }) => source);
	const about = { item: found, model, place: where, sources };
	if (!rig) return { ...about, rig: null, judged: null };
	const source = await sourceWithState(db, site, rig.sourceId, asOf);
	const events = (await eventsOf(db, [found.id])).get(found.id) ?? [];
	const count = wearers ?? rig.outlets;
	const verdict = judgeRig(factsOf(rig, source, events, count), asOf);
	let fixes: ReturnType<typeof hoseFixes> = [];
	try {
		fixes = hoseFixes(hoseOf(rig, count), count);
	} catch (error) {
		// What cannot be computed is among the reasons of the verdict.
		if (!(error instanceof InputError)) throw error;
	}
	return {
		...about,
		rig,
		judged: { ...source, events, verdict, fixes, wearers: count, hose: hoseOf(rig, count) }
	};
}

export interface RigInput extends Omit<RigRow, 'itemId' | 'version'> {
	tag: string;
	/** Version that was edited; null: it is put together for the first time. */
	version: number | null;
}

/** Writes down how a rig is put together. */
export async function saveRig(context: Context, site: Site, input: RigInput): Promise<void> {
	requireRole(context.actor, 'keep the register');
	const { tag, version, ...rig } = input;
	const within = (
		path: keyof typeof rig,
		value: number,
		from: number,
		to: number,
		unit: string
	) => {
		if (!(value >= from && value <= to))
			throw new Fault('invalid', `From ${from} to ${to} ${unit}.`, path);
	};
	within('regulatorBar', rig.regulatorBar, 0.1, 20, 'bar');
	within('boreMm', rig.boreMm, 2, 100, 'mm');
	within('lengthM', rig.lengthM, 0, 2000, 'm');
	within('fittingsM', rig.fittingsM, 0, 1000, 'm');
	within('leastBar', rig.leastBar, 0, 20, 'bar');
	within('outlets', rig.outlets, 1, MOST_OUTLETS, 'outlets');
	within('alarmDays', rig.alarmDays, 1, 366, 'days');
	if (rig.sorbentMonths !== null) within('sorbentMonths', rig.sorbentMonths, 1, 60, 'months');
	if (!RIG_ALARMS.includes(rig.alarm)) throw new Fault('invalid', 'Choose the alarm.', 'alarm');
	await inTransaction(context, async (tx) => {
		const { item: found } = await itemByTag(tx, tag);
		if (found.family !== 'airline')
			throw new Fault('invalid', `${found.tag} is no airline rig.`, 'tag');
		await sourceWithState(tx, site, rig.sourceId, dayAt(context.now(), site.timeZone));
		const [before] = await tx
			.select()
			.from(airlineRig)
			.where(eq(airlineRig.itemId, found.id))
			.for('update');
		if ((before?.version ?? null) !== version)
			throw new Fault('conflict', 'Someone else changed it meanwhile. Look at it again.', 'tag');
		if (before)
			await tx
				.update(airlineRig)
				.set({ ...rig, version: before.version + 1 })
				.where(eq(airlineRig.itemId, found.id));
		else await tx.insert(airlineRig).values({ itemId: found.id, ...rig });
		await record(tx, context.actor.id, {
			action: 'rig.changed',
			subject: `item:${found.id}`,
			itemId: found.id,
			payload: { ...rig, before: before ?? null }
		});
	});
}

export interface RigEventInput {
	/** Made by the client. */
	id: string;
	tag: string;
	kind: 'sorbent' | 'alarm';
	doneOn: Day;
	passed: boolean;
	note: string;
}

/** Signs the tag of a rig: its sorbent was changed, or its alarm tested. */
export async function noteRigEvent(
	context: Context,
	site: Site,
	input: RigEventInput
): Promise<void> {
	requireRole(context.actor, 'test air');
	const { tag, ...event } = input;
	checkDay(event.doneOn, 'doneOn');
	if (event.doneOn > dayAt(context.now(), site.timeZone))
		throw new Fault('invalid', 'That cannot have been later than today.', 'doneOn');
	await inTransaction(context, async (tx) => {
		const { item: found } = await itemByTag(tx, tag);
		const [rig] = await tx.select().from(airlineRig).where(eq(airlineRig.itemId, found.id));
		if (!rig)
			throw new Fault('conflict', `Write down first how ${found.tag} is put together.`, 'tag');
		if (event.kind === 'sorbent' && rig.sorbentMonths === null)
			throw new Fault('invalid', `${found.tag} has no sorbent.`, 'kind');
		if (event.kind === 'alarm' && rig.alarm === 'none')
			throw new Fault('invalid', `${found.tag} has no alarm.`, 'kind');
		const taken = await tx
			.insert(rigEvent)
			.values({
				...event,
				...{ itemId: found.id, doneBy: context.actor.id, notedAt: context.now() }
			})
			.onConflictDoNothing({ target: rigEvent.id });
		if (!taken.rowCount) return;
		await record(tx, context.actor.id, {
			action: event.kind === 'sorbent' ? 'rig.sorbent-changed' : 'rig.alarm-tested',
			subject: `item:${found.id}`,
			itemId: found.id,
			payload: { on: event.doneOn, passed: event.passed, note: event.note }
		});
	});
}
