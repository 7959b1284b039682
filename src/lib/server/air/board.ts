import { asc, eq, inArray } from 'drizzle-orm';
import { type EntryPlan, planEntry, type RaisedAlarm } from '../../../core/air/entry.ts';
import type { Connection } from '../db/client.ts';
import { boardVersion, openWearers, readingsAfter } from '../db/queries/entries.ts';
import { entryAlarm, user } from '../db/schema/index.ts';
import type { Reader } from '../kernel/context.ts';
import { steadyTime } from '../kernel/steady.ts';
import { consumptionOfUse, factsOfEntry, type ReadingRow } from './uses.ts';

export interface BoardWearer {
	id: string;
	wearer: string;
	set: string | null;
	channel: string | null;
	startBar: number;
	/** Pressure at which the whistle of the set is expected. */
	warningBar: number;
	startedAt: number;
	endedAt: number | null;
	endBar: number | null;
	/** What the use came to, once out; null: too short to say. */
	usedLPerMin: number | null;
	plan: EntryPlan;
	/** Alarms that were written down. */
	raised: RaisedAlarm[];
}

export interface BoardTeam {
	id: string;
	number: number;
	task: string;
	place: string | null;
	marginMin: number;
	turnedAt: number | null;
	wearers: BoardWearer[];
}

export interface Board {
	version: string;
	teams: BoardTeam[];
}

/** Readings that are written at once may become visible out of their order; so many are asked for anew. */
const OVERLAP = 200;

/**
 * The board, worked out once for all screens of a process and again when something was written. Readings never
 * change, so those that were read stay; nothing here is a truth of its own.
 */
export class BoardFeed {
	private readonly readings = new Map<string, ReadingRow[]>();
	private seq = 0;
	private kept: Promise<Board> | null = null;
	private keptVersion = '';
	private working: Promise<unknown> = Promise.resolve();

	constructor(private readonly db: Connection) {}

	/** The board as it stands. */
	async load(): Promise<Board> {
		const version = await boardVersion(this.db);
		if (this.kept && this.keptVersion === version) return this.kept;
		this.keptVersion = version;
		const next = this.working.then(() => this.work(version));
		this.working = next.catch(() => (this.keptVersion = ''));
		return (this.kept = next);
	}

	private async work(version: string): Promise<Board> {
		const rows = await openWearers(this.db);
		const ids = rows.map((row) => row.wearer.id);
		await this.read(ids);
		const raised = ids.length
			? await this.db
					.select({ alarm: entryAlarm, by: user.initials })
					.from(entryAlarm)
					.leftJoin(user, eq(user.id, entryAlarm.seenBy))
					.where(inArray(entryAlarm.wearerId, ids))
					.orderBy(asc(entryAlarm.dueAt))
			: [];
		const teams = new Map<string, BoardTeam>();
		for (const { wearer, team, place, set } of rows) {
			const own = teams.get(team.id) ?? {
				id: team.id,
				number: team.number,
				task: team.task,
				place,
				marginMin: team.marginMin,
				turnedAt: team.turnedAt?.getTime() ?? null,
				wearers: []
			};
			own.wearers.push({
				id: wearer.id,
				wearer: wearer.wearer,
				set,
				channel: wearer.channel,
				startBar: wearer.startBar,
				warningBar: wearer.warningBar,
				startedAt: wearer.startedAt.getTime(),
				endedAt: wearer.endedAt?.getTime() ?? null,
				endBar: wearer.endBar,
				usedLPerMin: consumptionOfUse(wearer),
				plan: planEntry(factsOfEntry(wearer, team.marginMin, this.readings.get(wearer.id) ?? [])),
				raised: raised
					.filter((r) => r.alarm.wearerId === wearer.id)
					.map(({ alarm, by }) => ({
						kind: alarm.kind,
						key: alarm.key,
						at: alarm.dueAt.getTime(),
						seenBy: alarm.seenAt ? (by ?? '') : null
					}))
			});
			teams.set(team.id, own);
		}
		return { version, teams: [...teams.values()] };
	}

	/** Takes in the readings that are new, and all of those who are new. */
	private async read(ids: string[]): Promise<void> {
		for (const known of [...this.readings.keys()])
			if (!ids.includes(known)) this.readings.delete(known);
		if (ids.length === 0) return;
		const fresh = ids.filter((id) => !this.readings.has(id));
		const old = ids.filter((id) => this.readings.has(id));
		const rows = [
			...(fresh.length ? await readingsAfter(this.db, fresh, 0) : []),
			...(old.length ? await readingsAfter(this.db, old, this.seq - OVERLAP) : [])
		];
		for (const id of fresh) this.readings.set(id, []);
		for (const row of rows) {
			const own = this.readings.get(row.wearerId);
			if (!own || own.some((r) => r.seq === row.seq)) continue;
			own.push(row);
			own.sort((a, b) => a.seq - b.seq);
			this.seq = Math.max(this.seq, row.seq);
		}
	}
}

const feeds = new WeakMap<Connection, BoardFeed>();

/** The feed of this process for a database. */
export function boardFeed(db: Connection): BoardFeed {
	const feed = feeds.get(db) ?? new BoardFeed(db);
	feeds.set(db, feed);
	return feed;
}

/** The time that the board counts on, and how far the clock of the server was set ahead of it meanwhile, ms. */
export async function boardTime(context: Reader): Promise<{ now: number; aheadMs: number }> {
	const { now, aheadMs } = await steadyTime(context);
	return { now: now.getTime(), aheadMs };
}
