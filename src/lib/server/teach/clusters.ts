import { and, desc, eq, isNull } from 'drizzle-orm';
import { type ClusterFacts, type ClusterSigns } from '../../../core/teach/cluster.ts';
import { partName } from '../../../core/service/parts-store.ts';
import type { Connection } from '../db/client.ts';
import { clusterRows, groupNames } from '../db/queries/teach.ts';
import { clusterAlarm, user } from '../db/schema/index.ts';
import { heavy } from '../jobs/heavy.ts';
import type { Context, Unattended } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Work, write, writeUnattended } from '../kernel/write.ts';

/** Faults so long back are looked at. Site default. */
const BACK_DAYS = 730;
const DAY_MS = 86_400_000;

export const clusterFacts = (db: Connection, now: Date): Promise<ClusterFacts> =>
	clusterRows(db, new Date(now.getTime() - BACK_DAYS * DAY_MS));

/** What groups are called. */
export async function namesOfGroups(db: Connection): Promise<Map<string, string>> {
	return new Map(
		(await groupNames(db)).map(({ key, name, part }) => [
			key,
			part
				? `${partName(part)}, lot ${name}`
				: key.startsWith('batch:')
					? `Wash batch ${name}`
					: name
		])
	);
}

/** The page of a group. */
export function hrefOfGroup(key: string): string {
	const [kind, id] = key.split(':');
	if (kind === 'lot') return `/faults/recalls?lot=${id}`;
	return kind === 'batch' ? `/wash/${id}` : `/faults?place=${id}&of=ended`;
}

/** Looks whether any lot, batch or place has more faults than chance allows; each is told once. @returns how many are new */
export async function lookForClusters(context: Unattended): Promise<number> {
	const facts = await clusterFacts(context.db, context.now());
	const alarms = (await heavy('clusters', facts)).filter(({ alarmAt }) => alarmAt !== null);
	if (alarms.length === 0) return 0;
	return writeUnattended(context, null, (at) => raiseAlarms(at, alarms));
}

/** Keeps alarms that were not told yet. */
export async function raiseAlarms(
	at: Pick<Work, 'tx' | 'now' | 'record'>,
	alarms: readonly ClusterSigns[]
): Promise<number> {
	const names = await namesOfGroups(at.tx);
	let told = 0;
	for (const { group, faults, expected } of alarms) {
		const name = names.get(group) ?? group;
		const [row] = await at.tx
			.insert(clusterAlarm)
			.values({ id: crypto.randomUUID(), group, name, faults, expected, raisedAt: at.now })
			.onConflictDoNothing()
			.returning({ id: clusterAlarm.id });
		if (!row) continue;
		told++;
		at.record('cluster.alarm', { of: row.id, payload: { name, faults, expected } });
	}
	return told;
}

/** Alarms that nobody has looked into, the oldest first. */
export const openAlarms = (db: Connection) =>
	db
		.select()
		.from(clusterAlarm)
		.where(isNull(clusterAlarm.lookedAt))
		.orderBy(clusterAlarm.raisedAt);

/** Every alarm, the newest first, with who looked into it. */
export const alarmList = (db: Connection) =>
	db
		.select({ alarm: clusterAlarm, by: user.name })
		.from(clusterAlarm)
		.leftJoin(user, eq(user.id, clusterAlarm.lookedBy))
		.orderBy(desc(clusterAlarm.raisedAt))
		.limit(50);

/** Says what was found behind an alarm. */
export function lookIntoAlarm(
	context: Context,
	input: { requestId: string; alarmId: string; found: string }
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'repair', { id, content }, async (at) => {
		const found = input.found.trim();
		if (!found) throw new Refusal('invalid', 'Say what was found.', 'found');
		const [row] = await at.tx
			.update(clusterAlarm)
			.set({ looked: found, lookedAt: at.now, lookedBy: at.actor.id })
			.where(and(eq(clusterAlarm.id, input.alarmId), isNull(clusterAlarm.lookedAt)))
			.returning();
		if (!row) throw new Refusal('conflict', 'There is no such alarm that is still open.', 'found');
		at.record('cluster.looked', { of: row.id, payload: { name: row.name, found } });
	});
}
