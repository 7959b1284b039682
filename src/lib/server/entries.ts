import { and, asc, desc, eq, inArray, isNull } from 'drizzle-orm';
import { consumptionFigures, type Consumption } from '../../core/air/consumption.ts';
import { consumptionOf, WARNING_BAR } from '../../core/air/content.ts';
import {
	alarmsOf,
	checkStart,
	EXPECTED_L_PER_MIN,
	MARGIN_MIN,
	planEntry,
	type EntryFacts
} from '../../core/air/entry.ts';
import { judgeItem } from '../../core/readiness/item-state.ts';
import { InputError } from '../../core/verdict.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import type { Connection } from './db/client.ts';
import { endedUses } from './db/queries/entries.ts';
import {
	entryAlarm,
	entryReading,
	entryTeam,
	entryWearer,
	item,
	place,
	user
} from './db/schema/index.ts';
import { cylindersOn, putPressure } from './cylinders.ts';
import { brokenConstraint, Fault } from './errors.ts';
import { itemByTag } from './items.ts';
import { loadFacts } from './readiness.ts';
import { dayAt, type Site } from './site.ts';

export type WearerRow = typeof entryWearer.$inferSelect;
export type ReadingRow = typeof entryReading.$inferSelect;

/** Uses shorter than this say nothing of a consumption, min. Common practice. */
const LEAST_USE_MIN = 5;

/** What a use came to, L/min; null for one too short to say. */
export function consumptionOfUse(wearer: WearerRow): number | null {
	if (!wearer.endedAt || wearer.endBar === null) return null;
	const minutes = (wearer.endedAt.getTime() - wearer.startedAt.getTime()) / 60_000;
	if (minutes < LEAST_USE_MIN || wearer.endBar >= wearer.startBar) return null;
	const { waterVolumeL, startBar, endBar } = wearer;
	return consumptionOf({ waterVolumeL, startBar, endBar, minutes });
}

/** What every wearer on record takes, by name. */
export async function consumptions(db: Connection): Promise<Map<string, Consumption>> {
	const byWearer = new Map<string, number[]>();
	for (const { wearer } of await endedUses(db)) {
		const lPerMin = consumptionOfUse(wearer);
		if (lPerMin !== null)
			byWearer.set(wearer.wearer, [...(byWearer.get(wearer.wearer) ?? []), lPerMin]);
	}
	return new Map(
		[...byWearer].flatMap(([name, uses]) => {
			const figures = consumptionFigures(uses);
			return figures ? [[name, figures] as const] : [];
		})
	);
}

/** A wearer with readings as the computation takes them. */
export const factsOfEntry = (
	wearer: WearerRow,
	marginMin: number,
	readings: readonly ReadingRow[]
): EntryFacts => ({
	...{ waterVolumeL: wearer.waterVolumeL, startBar: wearer.startBar },
	...{ startedAt: wearer.startedAt.getTime(), warningBar: wearer.warningBar, marginMin },
	...{ expectedLPerMin: wearer.expectedLPerMin, telemetry: wearer.channel !== null },
	readings: readings.map(({ at, bar, by, corrects }) => ({ at: at.getTime(), bar, by, corrects }))
});

export interface WearerInput {
	/** Made by the client. */
	id: string;
	wearer: string;
	/** Tag of the set; empty for one without. */
	set: string;
	/** Of all its cylinders; null: as they are on record. */
	waterVolumeL: number | null;
	startBar: number;
	/** Name of its telemetry; empty for none. */
	channel: string;
}

export interface TeamInput {
	/** Made by the client. */
	id: string;
	task: string;
	placeId: string | null;
	marginMin?: number | undefined;
	wearers: WearerInput[];
}

const MOST_IN_TEAM = 12;
const CHANNEL = /^[A-Z0-9-]{1,20}$/;

/** Sends a team in: each wearer with a name, a set or a volume, and the pressure at the start. */
export async function enterTeam(context: Context, site: Site, input: TeamInput): Promise<void> {
	requireRole(context.actor, 'control entries');
	const { id, wearers, placeId, marginMin = MARGIN_MIN } = input;
	const task = input.task.trim();
	if (task === '') throw new Fault('invalid', 'Say what they go in for.', 'task');
	if (wearers.length === 0 || wearers.length > MOST_IN_TEAM)
		throw new Fault('invalid', `A team of one to ${MOST_IN_TEAM}.`, 'wearers');
	const { db } = context;
	const [again] = await db.select().from(entryTeam).where(eq(entryTeam.id, id));
	if (again) return;
	const known = await consumptions(db);
	const now = context.now();
	const asOf = dayAt(now, site.timeZone);
	const rows: (typeof entryWearer.$inferInsert)[] = [];
	for (const [i, one] of wearers.entries()) rows.push(await wearerRow(db, one, i));
	try {
		await inTransaction(context, async (tx) => {
			await tx.insert(entryTeam).values({
				...{ id, task, placeId, marginMin, openedBy: context.actor.id, openedAt: now }
			});
			await tx.insert(entryWearer).values(rows);
			await record(tx, context.actor.id, {
				action: 'entry.team-in',
				subject: `entry:${id}`,
				payload: {
					...{ task, marginMin },
					wearers: rows.map(({ wearer, startBar, waterVolumeL }) => ({
						...{ wearer, startBar, waterVolumeL }
					}))
				}
			});
			for (const row of rows)
				if (row.setId)
					await record(tx, context.actor.id, {
						action: 'entry.worn',
						subject: `entry:${id}`,
						itemId: row.setId,
						payload: { wearer: row.wearer, task }
					});
		});
	} catch (error) {
		const constraint = brokenConstraint(error);
		if (constraint?.includes('set_once'))
			throw new Fault('conflict', 'One of these sets is worn by somebody who is in.', 'wearers');
		if (constraint?.includes('channel_once'))
			throw new Fault(
				'conflict',
				'One of these channels is used by somebody who is in.',
				'wearers'
			);
		if (constraint?.includes('wearer_once'))
			throw new Fault('conflict', 'One of these wearers is in already.', 'wearers');
		throw error;
	}

	async function wearerRow(tx: Connection, one: WearerInput, i: number) {
		const at = (path: string) => `wearers.${i}.${path}`;
		const name = one.wearer.trim();
		if (name === '') throw new Fault('invalid', 'Who is it?', at('wearer'));
		const channel = one.channel.trim().toUpperCase();
		if (channel && !CHANNEL.test(channel))
			throw new Fault('invalid', 'A channel is letters, figures and dashes.', at('channel'));
		const set = one.set.trim() ? await setWorn(tx, site, asOf, one.set, at('set')) : null;
		const waterVolumeL = one.waterVolumeL ?? set?.waterVolumeL ?? null;
		if (waterVolumeL === null)
			throw new Fault(
				'invalid',
				set
					? `The cylinder of ${set.tag} is not on record; write its litres of water.`
					: 'Write the litres of water of the cylinder.',
				at('waterVolumeL')
			);
		const row = {
			...{ id: one.id, teamId: id, wearer: name, setId: set?.id ?? null, waterVolumeL },
			...{ startBar: one.startBar, warningBar: WARNING_BAR, startedAt: now },
			expectedLPerMin: known.get(name)?.pessimisticLPerMin ?? EXPECTED_L_PER_MIN,
			channel: channel || null
		};
		try {
			checkStart({
				...{ ...row, startedAt: now.getTime(), marginMin },
				...{ telemetry: channel !== '', readings: [] }
			});
		} catch (error) {
			if (error instanceof InputError) throw new InputError(at(error.path), error.message);
			throw error;
		}
		return row;
	}
}

/** A set by its tag with the litres of the cylinders that are on it. */
async function setWorn(db: Connection, site: Site, asOf: string, tag: string, path: string) {
	const { item: set } = await itemByTag(db, tag);
	if (set.family !== 'ba-set' && set.family !== 'cylinder')
		throw new Fault('invalid', `${set.tag} is no breathing apparatus.`, path);
	const facts = (await loadFacts(db, [set.id], site.timeZone)).get(set.id);
	const state = facts && judgeItem(facts, site.ruleSet, asOf);
	if (state && !['ready', 'due'].includes(state.outcome))
		throw new Fault(
			'conflict',
			`${set.tag} is ${state.outcome}: ${state.reasons[0]?.text ?? ''} Take another set.`,
			path
		);
	const on = await cylindersOn(db, set.id);
	const waterVolumeL = on.reduce((sum, one) => sum + one.waterVolumeL, 0);
	return { id: set.id, tag: set.tag, waterVolumeL: waterVolumeL || null };
}

/** Somebody who is in, locked until the deed is done. @throws Fault for one who is not */
async function inside(tx: Connection, id: string) {
	const [row] = await tx
		.select({ wearer: entryWearer, team: entryTeam })
		.from(entryWearer)
		.innerJoin(entryTeam, eq(entryTeam.id, entryWearer.teamId))
		.where(eq(entryWearer.id, id))
		.for('update', { of: entryWearer });
	if (!row) throw new Fault('not found', 'There is no such wearer on the board.');
	if (row.wearer.endedAt) throw new Fault('conflict', `${row.wearer.wearer} is out already.`);
	return row;
}

const asTyped = ({ entered }: { entered?: string | undefined }) => (entered ? { entered } : {});

export const readingsOf = (db: Connection, wearerId: string) =>
	db
		.select()
		.from(entryReading)
		.where(eq(entryReading.wearerId, wearerId))
		.orderBy(asc(entryReading.seq));

export interface ToldPressure {
	/** Made by the client. */
	id: string;
	wearerId: string;
	bar: number;
	/** The one before it was wrong. */
	corrects: boolean;
	/** As it was typed, with its unit. */
	entered?: string | undefined;
}

/** Takes a pressure that was told by hand; one that rises only where it corrects. */
export async function tellPressure(context: Context, input: ToldPressure): Promise<void> {
	requireRole(context.actor, 'control entries');
	await inTransaction(context, async (tx) => {
		const [again] = await tx.select().from(entryReading).where(eq(entryReading.id, input.id));
		if (again) return;
		const { wearer, team } = await inside(tx, input.wearerId);
		const { bar } = input;
		if (!(bar >= 0 && bar <= wearer.startBar + 5))
			throw new Fault(
				'invalid',
				`${wearer.wearer} went in with ${wearer.startBar} bar; ${bar} bar cannot be.`,
				'bar'
			);
		const readings = await readingsOf(tx, wearer.id);
		const at = after(context.now(), readings.at(-1)?.at);
		const row = {
			...{ id: input.id, wearerId: wearer.id, at, bar, by: 'hand' as const },
			corrects: input.corrects
		};
		const facts = factsOfEntry(wearer, team.marginMin, [...readings, { ...row, seq: 0 }]);
		const { doubt } = planEntry(facts);
		if (doubt?.at === at.getTime() && doubt.bar === bar) {
			const last = planEntry(factsOfEntry(wearer, team.marginMin, readings));
			throw new Fault(
				'invalid',
				`${Math.round(last.bar)} bar was the last reading; ${bar} bar does not follow from it. Ask again, or say that the one before was wrong.`,
				'bar'
			);
		}
		await tx.insert(entryReading).values(row);
		await record(tx, context.actor.id, {
			action: 'entry.pressure',
			subject: `entry:${team.id}`,
			itemId: wearer.setId,
			payload: { wearer: wearer.wearer, bar, ...asTyped(input), corrects: input.corrects }
		});
	});
}

/** The moment of a new reading: never before the one ahead of it, though a clock be set back. */
export const after = (now: Date, last: Date | undefined): Date => (last && last > now ? last : now);

/** Notes that a team has turned back. */
export async function turnTeam(context: Context, teamId: string): Promise<void> {
	requireRole(context.actor, 'control entries');
	await inTransaction(context, async (tx) => {
		const [team] = await tx.select().from(entryTeam).where(eq(entryTeam.id, teamId)).for('update');
		if (!team) throw new Fault('not found', 'There is no such team.');
		if (team.turnedAt || team.closedAt) return;
		await tx.update(entryTeam).set({ turnedAt: context.now() }).where(eq(entryTeam.id, teamId));
		await record(tx, context.actor.id, {
			action: 'entry.turned',
			subject: `entry:${teamId}`,
			payload: { task: team.task }
		});
	});
}

/**
 * Takes somebody out with what the gauge shows. Consumption follows from the entry; the pressure goes to the
 * cylinder on the set; with the last one out the team is closed.
 */
export async function leave(
	context: Context,
	site: Site,
	input: { wearerId: string; endBar: number; entered?: string | undefined }
): Promise<{ lPerMin: number | null }> {
	requireRole(context.actor, 'control entries');
	return inTransaction(context, async (tx) => {
		const [done] = await tx.select().from(entryWearer).where(eq(entryWearer.id, input.wearerId));
		if (done?.endedAt && done.endBar === input.endBar) return { lPerMin: consumptionOfUse(done) };
		const { wearer, team } = await inside(tx, input.wearerId);
		if (!(input.endBar >= 0 && input.endBar <= wearer.startBar))
			throw new Fault(
				'invalid',
				`${wearer.wearer} went in with ${wearer.startBar} bar; write what the gauge shows now.`,
				'endBar'
			);
		const endedAt = after(context.now(), (await readingsOf(tx, wearer.id)).at(-1)?.at);
		const ended = { ...wearer, endedAt, endBar: input.endBar };
		await tx
			.update(entryWearer)
			.set({ endedAt, endBar: input.endBar })
			.where(eq(entryWearer.id, wearer.id));
		const lPerMin = consumptionOfUse(ended);
		await record(tx, context.actor.id, {
			action: 'entry.out',
			subject: `entry:${team.id}`,
			itemId: wearer.setId,
			payload: {
				...{ wearer: wearer.wearer, startBar: wearer.startBar, endBar: input.endBar },
				...asTyped(input),
				...{
					minutes: Math.round((endedAt.getTime() - wearer.startedAt.getTime()) / 60_000),
					lPerMin: lPerMin === null ? null : Math.round(lPerMin)
				}
			}
		});
		if (wearer.setId)
			for (const one of await cylindersOn(tx, wearer.setId))
				await putPressure(tx, context, site, one, input.endBar, `left by ${wearer.wearer}`);
		const left = await tx
			.select({ id: entryWearer.id })
			.from(entryWearer)
			.where(and(eq(entryWearer.teamId, team.id), isNull(entryWearer.endedAt)));
		if (left.length === 0)
			await tx.update(entryTeam).set({ closedAt: endedAt }).where(eq(entryTeam.id, team.id));
		return { lPerMin };
	});
}

/** Notes who has seen an alarm; it is raised at once where the keeper has not come to it. */
export async function seeAlarm(
	context: Context,
	input: { wearerId: string; key: string }
): Promise<void> {
	requireRole(context.actor, 'control entries');
	await inTransaction(context, async (tx) => {
		const { wearer, team } = await inside(tx, input.wearerId);
		const plan = planEntry(factsOfEntry(wearer, team.marginMin, await readingsOf(tx, wearer.id)));
		const now = context.now();
		const due = alarmsOf(plan, team.turnedAt?.getTime() ?? null).filter(
			(alarm) => alarm.at <= now.getTime()
		);
		await raise(tx, wearer.id, due, now);
		const [seen] = await tx
			.update(entryAlarm)
			.set({ seenBy: context.actor.id, seenAt: now })
			.where(
				and(
					eq(entryAlarm.wearerId, wearer.id),
					eq(entryAlarm.key, input.key),
					isNull(entryAlarm.seenAt)
				)
			)
			.returning();
		if (!seen) return;
		await record(tx, context.actor.id, {
			action: 'entry.alarm-seen',
			subject: `entry:${team.id}`,
			itemId: wearer.setId,
			payload: { wearer: wearer.wearer, alarm: seen.kind }
		});
	});
}

/** Writes alarms down as raised, each once. @returns those that are new */
export async function raise(
	tx: Connection,
	wearerId: string,
	alarms: readonly { kind: (typeof entryAlarm.$inferInsert)['kind']; key: string; at: number }[],
	now: Date
) {
	if (alarms.length === 0) return [];
	return tx
		.insert(entryAlarm)
		.values(
			alarms.map(({ kind, key, at }) => ({
				...{ id: crypto.randomUUID(), wearerId, kind, key, dueAt: new Date(at), raisedAt: now }
			}))
		)
		.onConflictDoNothing()
		.returning();
}

/** Entries that are over, newest first, each with its wearers, and alarms. */
export async function entryLog(db: Connection, limit = 20) {
	const teams = await db
		.select({ team: entryTeam, place: place.name, by: user.name })
		.from(entryTeam)
		.innerJoin(user, eq(user.id, entryTeam.openedBy))
		.leftJoin(place, eq(place.id, entryTeam.placeId))
		.orderBy(desc(entryTeam.number))
		.limit(limit);
	const ids = teams.map((row) => row.team.id);
	if (ids.length === 0) return [];
	const wearers = await db
		.select({ wearer: entryWearer, set: item.tag })
		.from(entryWearer)
		.leftJoin(item, eq(item.id, entryWearer.setId))
		.where(inArray(entryWearer.teamId, ids))
		.orderBy(asc(entryWearer.wearer));
	const alarms = await db
		.select({ alarm: entryAlarm, seenBy: user.initials })
		.from(entryAlarm)
		.leftJoin(user, eq(user.id, entryAlarm.seenBy))
		.where(
			inArray(
				entryAlarm.wearerId,
				wearers.map((row) => row.wearer.id)
			)
		)
		.orderBy(asc(entryAlarm.dueAt));
	return teams.map((row) => ({
		...row,
		wearers: wearers
			.filter((w) => w.wearer.teamId === row.team.id)
			.map((w) => ({
				...w,
				lPerMin: consumptionOfUse(w.wearer),
				alarms: alarms.filter((a) => a.alarm.wearerId === w.wearer.id)
			}))
	}));
}
