import { and, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import type { Connection } from '../client.ts';
import { wearer, wearerName } from '../schema/index.ts';

/** A name that was typed where nobody was chosen from the register. */
export interface TypedName {
	/** As it was typed last. */
	name: string;
	/** How it is compared: in small letters, blanks set right. */
	key: string;
	entries: number;
	sealChecks: number;
	/** Whom it means; null: nobody said yet. */
	wearerId: string | null;
}

/** A typed name as it is compared. */
export const nameKey = (name: string): string => name.trim().replaceAll(/\s+/g, ' ').toLowerCase();

const KEYED = sql`lower(regexp_replace(btrim(wearer), '\\s+', ' ', 'g'))`;

/** Every name that was typed on the entry board or at a seal check, with whom it means. */
export async function typedNames(db: Connection): Promise<TypedName[]> {
	const { rows } = await db.execute<TypedName & Record<string, unknown>>(sql`
		select max(t.wearer) as name, t.key, count(*) filter (where t.what = 'entry')::int as entries,
			count(*) filter (where t.what = 'seal')::int as "sealChecks", n.wearer_id as "wearerId"
		from (
			select wearer, ${KEYED} as key, 'entry' as what from entry_wearer
			union all
			select wearer, ${KEYED} as key, 'seal' as what from seal_check
		) t
		left join wearer_name n on n.name = t.key
		group by t.key, n.wearer_id
		order by n.wearer_id is not null, t.key
		limit 2000`);
	return rows;
}

/** A use of air under one of the names of a wearer, the newest first. */
export interface OwnUse {
	task: string;
	startedAt: Date;
	endedAt: Date;
	startBar: number;
	endBar: number;
	waterVolumeL: number;
}

/** Uses that have ended under some names. */
export async function usesOf(db: Connection, keys: readonly string[]): Promise<OwnUse[]> {
	if (keys.length === 0) return [];
	const { rows } = await db.execute<OwnUse & Record<string, unknown>>(sql`
		select e.task, w.started_at as "startedAt", w.ended_at as "endedAt", w.start_bar as "startBar",
			w.end_bar as "endBar", w.water_volume_l as "waterVolumeL"
		from entry_wearer w join entry_team e on e.id = w.team_id
		where w.ended_at is not null and ${KEYED} in ${[...keys]}
		order by w.started_at desc limit 200`);
	return rows.map((row) => ({
		...row,
		startedAt: new Date(row.startedAt),
		endedAt: new Date(row.endedAt)
	}));
}

/** Seal checks under some names. */
export async function sealChecksOf(db: Connection, keys: readonly string[]) {
	if (keys.length === 0) return [];
	const { rows } = await db.execute<{ tag: string; doneAt: Date; outcome: string }>(sql`
		select i.tag, s.done_at as "doneAt", s.outcome from seal_check s join item i on i.id = s.item_id
		where ${KEYED} in ${[...keys]} order by s.done_at desc limit 200`);
	return rows.map((row) => ({ ...row, doneAt: new Date(row.doneAt) }));
}

/** The wearer whose badge carries a number; undefined where nobody does. */
export async function wearerByNumber(db: Connection, number: string): Promise<string | undefined> {
	const [row] = await db
		.select({ id: wearer.id })
		.from(wearer)
		.where(
			and(sql`lower(${wearer.number}) = ${number.trim().toLowerCase()}`, isNull(wearer.leftOn))
		);
	return row?.id;
}

/** How a typed name is shown: that of somebody whose name was erased as the number; any other as it was typed. */
export async function shownNames(db: Connection): Promise<(typed: string) => string> {
	const erased = await db
		.select({ key: wearerName.name, name: wearer.name })
		.from(wearerName)
		.innerJoin(wearer, eq(wearer.id, wearerName.wearerId))
		.where(isNotNull(wearer.erasedOn));
	const shown = new Map(erased.map(({ key, name }) => [key, name]));
	return (typed) => shown.get(nameKey(typed)) ?? typed;
}
