import { and, asc, desc, eq, inArray, isNull } from 'drizzle-orm';
import { hoseFixes } from '../../../core/airline/fixes.ts';
import { type HoseInput, LEAST_FLOW_L_PER_MIN } from '../../../core/airline/hose.ts';
import { judgeRig, RIG_ALARMS, type RigFacts } from '../../../core/airline/rig.ts';
import { familiesWhere, recordOf } from '../../../core/data/family-records.ts';
import { groupBy } from '../../../core/group-by.ts';
import { checkDay, type Day } from '../../../core/plan/calendar.ts';
import { InputError } from '../../../core/verdict.ts';
import type { Connection } from '../db/client.ts';
import { airlineRig, item, itemModel, place, rigEvent, user } from '../db/schema/index.ts';
import { type Context, type Reader, todayOf } from '../kernel/context.ts';
import { Refusal, stale } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';
import { itemByTag } from '../register/items.ts';
import { listSources, sourceWithState } from './sources.ts';

export type RigRow = typeof airlineRig.$inferSelect;
/** Families that are put together as rigs. */
const RIGS = familiesWhere((f) => f.air === 'rig');
const MOST_OUTLETS = 12;

/** The run of hose of a rig with so many breathing at its end. */
export const hoseOf = (rig: RigRow, wearers: number): HoseInput => ({
	supplyBar: rig.regulatorBar,
	boreMm: rig.boreMm,
	lengthM: rig.lengthM,
	fittingsEquivalentM: rig.fittingsM,
	leastOutletBar: rig.leastBar,
	wearing: rig.wearing,
	wearers,
	flowLPerMin: wearers * LEAST_FLOW_L_PER_MIN[rig.wearing]
});

/** Every airline rig with whether it may be breathed from today, by as many as it has outlets. */
export async function listRigs(context: Reader) {
	const { db } = context;
	const asOf = todayOf(context);
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
		.where(and(inArray(item.family, RIGS), isNull(item.retiredOn)))
		.orderBy(asc(item.tag));
	const sources = await listSources(context);
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
			name: source.name,
			oilLubricated: source.oilLubricated,
			compressor: source.kind === 'compressor'
		},
		sorbent:
			rig.sorbentMonths === null
				? null
				: { everyMonths: rig.sorbentMonths, changedOn: last('sorbent')?.doneOn ?? null },
		alarm: {
			kind: rig.alarm,
			atPpm: rig.alarmPpm,
			everyDays: rig.alarmDays,
			testedOn: tested?.doneOn ?? null,
			passed: tested?.passed ?? true
		},
		hose: hoseOf(rig, wearers),
		outlets: rig.outlets,
		wearers
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
export async function rigPage(context: Reader, tag: string, wearers: number | null) {
	const { db } = context;
	const { item: found, model, place: where } = await itemByTag(db, tag);
	if (recordOf(found.family).air !== 'rig')
		throw new Refusal('not found', `${found.tag} is no airline rig.`);
	const asOf = todayOf(context);
	const [rig] = await db.select().from(airlineRig).where(eq(airlineRig.itemId, found.id));
	const sources = (await listSources(context)).map(({ source }) => source);
	const about = { item: found, model, place: where, sources };
	if (!rig) return { ...about, rig: null, judged: null };
	const source = await sourceWithState(db, context.site, rig.sourceId, asOf);
	const events = (await eventsOf(db, [found.id])).get(found.id) ?? [];
	const count = wearers ?? rig.outlets;
	const verdict = judgeRig(factsOf(rig, source, events, count), asOf);
	let fixes: ReturnType<typeof hoseFixes> = [];
	try {
		fixes = hoseFixes(hoseOf(rig, count));
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
	requestId: string;
	tag: string;
	/** Version that was edited; null: it is put together for the first time. */
	version: number | null;
}

/** Writes down how a rig is put together. */
export function saveRig(context: Context, input: RigInput): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'keep the register', { id, content }, async (at) => {
		const { tx } = at;
		const { tag, version, ...rig } = content;
		checkRig(rig);
		const { item: found } = await itemByTag(tx, tag);
		if (recordOf(found.family).air !== 'rig')
			throw new Refusal('invalid', `${found.tag} is no airline rig.`, 'tag');
		await sourceWithState(tx, at.site, rig.sourceId, at.today);
		const [before] = await tx
			.select()
			.from(airlineRig)
			.where(eq(airlineRig.itemId, found.id))
			.for('update');
		if ((before?.version ?? null) !== version) throw stale('rig');
		if (before)
			await tx
				.update(airlineRig)
				.set({ ...rig, version: before.version + 1 })
				.where(eq(airlineRig.itemId, found.id));
		else await tx.insert(airlineRig).values({ itemId: found.id, ...rig });
		at.record('rig.changed', {
			of: found.id,
			itemId: found.id,
			payload: { ...rig, before: before ?? null }
		});
	});
}

/** Widest range of each measure of a rig. Common practice. */
const RIG_RANGES = [
	['regulatorBar', 0.1, 20, 'bar'],
	['boreMm', 2, 100, 'mm'],
	['lengthM', 0, 2000, 'm'],
	['fittingsM', 0, 1000, 'm'],
	['leastBar', 0, 20, 'bar'],
	['outlets', 1, MOST_OUTLETS, 'outlets'],
	['alarmDays', 1, 366, 'days'],
	['sorbentMonths', 1, 60, 'months']
] as const;

function checkRig(rig: Omit<RigRow, 'itemId' | 'version'>): void {
	for (const [path, from, to, unit] of RIG_RANGES) {
		const value = rig[path];
		if (value !== null && !(value >= from && value <= to))
			throw new Refusal('invalid', `From ${from} to ${to} ${unit}.`, path);
	}
	if (!RIG_ALARMS.includes(rig.alarm)) throw new Refusal('invalid', 'Choose the alarm.', 'alarm');
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
export function noteRigEvent(context: Context, input: RigEventInput): Promise<void> {
	return write(context, 'test air', { id: input.id, content: input }, async (at) => {
		const { tx } = at;
		const { tag, ...event } = input;
		checkDay(event.doneOn, 'doneOn');
		if (event.doneOn > at.today)
			throw new Refusal('invalid', 'That cannot have been later than today.', 'doneOn');
		const { item: found } = await itemByTag(tx, tag);
		const [rig] = await tx.select().from(airlineRig).where(eq(airlineRig.itemId, found.id));
		if (!rig)
			throw new Refusal('conflict', `Write down first how ${found.tag} is put together.`, 'tag');
		if (event.kind === 'sorbent' && rig.sorbentMonths === null)
			throw new Refusal('invalid', `${found.tag} has no sorbent.`, 'kind');
		if (event.kind === 'alarm' && rig.alarm === 'none')
			throw new Refusal('invalid', `${found.tag} has no alarm.`, 'kind');
		await tx
			.insert(rigEvent)
			.values({ ...event, itemId: found.id, doneBy: at.actor.id, notedAt: at.now });
		at.record(event.kind === 'sorbent' ? 'rig.sorbent-changed' : 'rig.alarm-tested', {
			of: found.id,
			itemId: found.id,
			payload: { on: event.doneOn, passed: event.passed, note: event.note }
		});
	});
}
