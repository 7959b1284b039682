import { and, asc, eq, isNull } from 'drizzle-orm';
import { type Consumption } from '../../../core/air/consumption.ts';
import { WARNING_BAR } from '../../../core/air/content.ts';
import {
	alarmsOf,
	checkStart,
	EXPECTED_L_PER_MIN,
	MARGIN_MIN,
	planEntry
} from '../../../core/air/entry.ts';
import { recordOf } from '../../../core/data/family-records.ts';
import { judgeItem } from '../../../core/readiness/item-state.ts';
import { InputError } from '../../../core/verdict.ts';
import type { Connection } from '../db/client.ts';
import { entryAlarm, entryReading, entryTeam, entryWearer } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { brokenConstraint, Refusal } from '../kernel/refusal.ts';
import type { Site } from '../kernel/site.ts';
import { type Work, write } from '../kernel/write.ts';
import { loadFacts } from '../readiness/facts.ts';
import { steadyAt } from '../kernel/steady.ts';
import { itemByTag } from '../register/items.ts';
import { partIds } from '../register/sets.ts';
import { cylindersOn, putPressure } from './cylinders.ts';
import { consumptionOfUse, consumptions, factsOfEntry } from './uses.ts';

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
	/** The wearer's seal check passed, asked before going in. */
	seal: boolean;
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

/** What the database says where two go in with the same thing at once. */
const TAKEN: [constraint: string, says: string][] = [
	['set_once', 'One of these sets is worn by somebody who is in.'],
	['channel_once', 'One of these channels is used by somebody who is in.'],
	['entry_wearer_once', 'One of these wearers is in already.']
];

/** Sends a team in: each wearer with a name, a set or a volume, and the pressure at the start. */
export async function enterTeam(context: Context, input: TeamInput): Promise<void> {
	try {
		await write(context, 'control entries', { id: input.id, content: input }, async (at) => {
			const { id, wearers, placeId, marginMin = MARGIN_MIN } = input;
			const task = input.task.trim();
			if (task === '') throw new Refusal('invalid', 'Say what they go in for.', 'task');
			if (wearers.length === 0 || wearers.length > MOST_IN_TEAM)
				throw new Refusal('invalid', `A team of one to ${MOST_IN_TEAM}.`, 'wearers');
			const known = await consumptions(at.tx);
			const now = await steadyAt(at);
			const rows: NewWearer[] = [];
			for (const [i, one] of wearers.entries())
				rows.push(await wearerRow(at, { teamId: id, marginMin, known, now }, one, i));
			await at.tx
				.insert(entryTeam)
				.values({ id, task, placeId, marginMin, openedBy: at.actor.id, openedAt: now });
			await at.tx.insert(entryWearer).values(rows);
			at.record('entry.team-in', {
				of: id,
				payload: {
					task,
					marginMin,
					wearers: rows.map(({ wearer, startBar, waterVolumeL }) => ({
						wearer,
						startBar,
						waterVolumeL,
						sealChecked: true
					}))
				}
			});
			for (const row of rows)
				if (row.setId)
					at.record('entry.worn', {
						of: id,
						itemId: row.setId,
						payload: { wearer: row.wearer, task }
					});
		});
	} catch (error) {
		const constraint = brokenConstraint(error);
		const taken = TAKEN.find(([name]) => constraint?.includes(name));
		if (taken) throw new Refusal('conflict', taken[1], 'wearers');
		throw error;
	}
}

type NewWearer = typeof entryWearer.$inferInsert;

async function wearerRow(
	{ tx, site, today }: Work,
	team: { teamId: string; marginMin: number; known: Map<string, Consumption>; now: Date },
	one: WearerInput,
	i: number
): Promise<NewWearer> {
	const at = (path: string) => `wearers.${i}.${path}`;
	const name = one.wearer.trim();
	if (name === '') throw new Refusal('invalid', 'Who is it?', at('wearer'));
	if (!one.seal)
		throw new Refusal(
			'invalid',
			`${name}: seal check first, by blocking and breathing in or covering and breathing out; then tick it.`,
			at('seal')
		);
	const channel = one.channel.trim().toUpperCase();
	if (channel && !CHANNEL.test(channel))
		throw new Refusal('invalid', 'A channel is letters, figures and dashes.', at('channel'));
	const set = one.set.trim() ? await setWorn(tx, site, today, one.set, at('set')) : null;
	const waterVolumeL = one.waterVolumeL ?? set?.waterVolumeL ?? null;
	if (waterVolumeL === null)
		throw new Refusal(
			'invalid',
			set
				? `The cylinder of ${set.tag} is not on record; write its litres of water.`
				: 'Write the litres of water of the cylinder.',
			at('waterVolumeL')
		);
	const row = {
		id: one.id,
		teamId: team.teamId,
		wearer: name,
		setId: set?.id ?? null,
		waterVolumeL,
		startBar: one.startBar,
		warningBar: WARNING_BAR,
		startedAt: team.now,
		expectedLPerMin: team.known.get(name)?.pessimisticLPerMin ?? EXPECTED_L_PER_MIN,
		channel: channel || null
	};
	try {
		checkStart({
			...row,
			startedAt: team.now.getTime(),
			marginMin: team.marginMin,
			telemetry: channel !== '',
			readings: []
		});
	} catch (error) {
		if (error instanceof InputError) throw new InputError(at(error.path), error.message);
		throw error;
	}
	return row;
}

/** A set by its tag with the litres of the cylinders that are on it. */
async function setWorn(db: Connection, site: Site, asOf: string, tag: string, path: string) {
	const { item: set } = await itemByTag(db, tag);
	if (!recordOf(set.family).goesIn)
		throw new Refusal('invalid', `${set.tag} is no breathing apparatus.`, path);
	const known = (await loadFacts(db, [set.id], site)).get(set.id);
	// What is out over the counter is what goes in; everything else about it counts as ever.
	const out = known?.facts.custody?.where === 'issued';
	const facts = known && (out ? { ...known.facts, custody: null } : known.facts);
	const state = facts && judgeItem(facts, site.ruleSet, asOf);
	if (state && !['ready', 'due'].includes(state.outcome))
		throw new Refusal(
			'conflict',
			`${set.tag} is ${state.outcome}: ${state.reasons[0]?.text ?? ''} Take another set.`,
			path
		);
	const on = await cylindersOn(db, set.id);
	const waterVolumeL = on.reduce((sum, one) => sum + one.waterVolumeL, 0);
	return { id: set.id, tag: set.tag, waterVolumeL: waterVolumeL || null };
}

/** Somebody who is in, locked until the write is done. @throws Refusal for one who is not */
async function inside(tx: Connection, id: string) {
	const [row] = await tx
		.select({ wearer: entryWearer, team: entryTeam })
		.from(entryWearer)
		.innerJoin(entryTeam, eq(entryTeam.id, entryWearer.teamId))
		.where(eq(entryWearer.id, id))
		.for('update', { of: entryWearer });
	if (!row) throw new Refusal('not found', 'There is no such wearer on the board.');
	if (row.wearer.endedAt) throw new Refusal('conflict', `${row.wearer.wearer} is out already.`);
	return row;
}

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
export function tellPressure(context: Context, input: ToldPressure): Promise<void> {
	return write(context, 'control entries', { id: input.id, content: input }, async (at) => {
		const { wearer, team } = await inside(at.tx, input.wearerId);
		const { bar } = input;
		if (!(bar >= 0 && bar <= wearer.startBar + 5))
			throw new Refusal(
				'invalid',
				`${wearer.wearer} went in with ${wearer.startBar} bar; ${bar} bar cannot be.`,
				'bar'
			);
		const readings = await readingsOf(at.tx, wearer.id);
		const moment = after(await steadyAt(at), readings.at(-1)?.at);
		const row = {
			id: input.id,
			wearerId: wearer.id,
			at: moment,
			bar,
			by: 'hand' as const,
			corrects: input.corrects
		};
		const facts = factsOfEntry(wearer, team.marginMin, [...readings, { ...row, seq: 0 }]);
		const { doubt } = planEntry(facts);
		if (doubt?.at === moment.getTime() && doubt.bar === bar) {
			const last = planEntry(factsOfEntry(wearer, team.marginMin, readings));
			throw new Refusal(
				'invalid',
				`${Math.round(last.bar)} bar was the last reading; ${bar} bar does not follow from it. Ask again, or say that the one before was wrong.`,
				'bar'
			);
		}
		await at.tx.insert(entryReading).values(row);
		at.record('entry.pressure', {
			of: team.id,
			itemId: wearer.setId,
			payload: { wearer: wearer.wearer, bar, entered: input.entered, corrects: input.corrects }
		});
	});
}

/** The moment of a new reading: never before the one ahead of it, though a clock be set back. */
export const after = (now: Date, last: Date | undefined): Date => (last && last > now ? last : now);

/** Notes that a team has turned back. */
export function turnTeam(
	context: Context,
	{ requestId, teamId }: { requestId: string; teamId: string }
): Promise<void> {
	const asked = { id: requestId, content: { turn: teamId } };
	return write(context, 'control entries', asked, async (at) => {
		const { tx, record } = at;
		const [team] = await tx.select().from(entryTeam).where(eq(entryTeam.id, teamId)).for('update');
		if (!team) throw new Refusal('not found', 'There is no such team.');
		if (team.turnedAt || team.closedAt) return;
		await tx
			.update(entryTeam)
			.set({ turnedAt: await steadyAt(at) })
			.where(eq(entryTeam.id, teamId));
		record('entry.turned', { of: teamId, payload: { task: team.task } });
	});
}

/**
 * Takes somebody out with what the gauge shows. Consumption follows from the entry; the pressure goes to the
 * cylinder on the set; with the last one out the team is closed.
 */
export function leave(
	context: Context,
	input: { requestId: string; wearerId: string; endBar: number; entered?: string | undefined }
): Promise<{ lPerMin: number | null }> {
	const { requestId: id, ...content } = input;
	return write(context, 'control entries', { id, content }, async (at) => {
		const { tx } = at;
		const [done] = await tx.select().from(entryWearer).where(eq(entryWearer.id, input.wearerId));
		if (done?.endedAt && done.endBar === input.endBar) return { lPerMin: consumptionOfUse(done) };
		const { wearer, team } = await inside(tx, input.wearerId);
		if (!(input.endBar >= 0 && input.endBar <= wearer.startBar))
			throw new Refusal(
				'invalid',
				`${wearer.wearer} went in with ${wearer.startBar} bar; write what the gauge shows now.`,
				'endBar'
			);
		const endedAt = after(await steadyAt(at), (await readingsOf(tx, wearer.id)).at(-1)?.at);
		const { endBar } = input;
		await tx.update(entryWearer).set({ endedAt, endBar }).where(eq(entryWearer.id, wearer.id));
		const lPerMin = consumptionOfUse({ ...wearer, endedAt, endBar });
		at.record('entry.out', {
			of: team.id,
			itemId: wearer.setId,
			payload: {
				wearer: wearer.wearer,
				startBar: wearer.startBar,
				endBar,
				entered: input.entered,
				minutes: Math.round((endedAt.getTime() - wearer.startedAt.getTime()) / 60_000),
				lPerMin: lPerMin === null ? null : Math.round(lPerMin)
			}
		});
		if (wearer.setId) {
			// It was used, and all that is on it: rules may count that.
			at.changed(wearer.setId, ...(await partIds(tx, wearer.setId)));
			for (const one of await cylindersOn(tx, wearer.setId))
				await putPressure(at, one, { bar: endBar, why: `left by ${wearer.wearer}` });
		}
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
export function seeAlarm(
	context: Context,
	input: { requestId: string; wearerId: string; key: string }
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'control entries', { id, content }, async (at) => {
		const { tx } = at;
		const now = await steadyAt(at);
		const { wearer, team } = await inside(tx, input.wearerId);
		const plan = planEntry(factsOfEntry(wearer, team.marginMin, await readingsOf(tx, wearer.id)));
		const due = alarmsOf(plan, team.turnedAt?.getTime() ?? null).filter(
			(alarm) => alarm.at <= now.getTime()
		);
		await raise(tx, wearer.id, due, now);
		const [seen] = await tx
			.update(entryAlarm)
			.set({ seenBy: at.actor.id, seenAt: now })
			.where(
				and(
					eq(entryAlarm.wearerId, wearer.id),
					eq(entryAlarm.key, input.key),
					isNull(entryAlarm.seenAt)
				)
			)
			.returning();
		if (!seen) return;
		at.record('entry.alarm-seen', {
			of: team.id,
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
				id: crypto.randomUUID(),
				wearerId,
				kind,
				key,
				dueAt: new Date(at),
				raisedAt: now
			}))
		)
		.onConflictDoNothing()
		.returning();
}
