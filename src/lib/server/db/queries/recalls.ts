import { sql } from 'drizzle-orm';
import type { Connection } from '../client.ts';
import type { Where } from '../../../../core/custody/custody.ts';

/**
 * Holds every item that has a part of a lot now, and notes those that had one.
 * @returns the items that are held, with the fault of each
 */
export async function holdHolders(
	tx: Connection,
	of: { recallId: string; lotId: string; code: string; note: string; by: string; at: Date }
): Promise<{ itemId: string; defectId: string; station: string }[]> {
	const at = of.at.toISOString();
	const { rows } = await tx.execute<{ itemId: string; defectId: string; station: string }>(sql`
		with has as (
			select f.item_id, min(f.station) as station from part_fitting f join item i on i.id = f.item_id
			where f.lot_id = ${of.lotId} and f.removed_at is null and i.retired_on is null group by f.item_id
		), opened as (
			insert into defect (id, item_id, station, code, severity, note, reported_by, reported_at)
			select gen_random_uuid(), item_id, station, ${of.code}, 'stop', ${of.note}, ${of.by}, ${at}::timestamptz from has
			on conflict (item_id, station, code) where closed_at is null do update set code = excluded.code
			returning id, item_id, station
		), told as (
			insert into defect_report (id, defect_id, reported_by, reported_at, note)
			select gen_random_uuid(), id, ${of.by}, ${at}::timestamptz, ${of.note} from opened
		), listed as (
			insert into recall_item (recall_id, item_id, defect_id)
			select ${of.recallId}::uuid, item_id, id from opened
		)
		select item_id as "itemId", id as "defectId", station from opened order by item_id`);
	await tx.execute(sql`
		insert into recall_item (recall_id, item_id)
		select distinct ${of.recallId}::uuid, f.item_id from part_fitting f join item i on i.id = f.item_id
		where f.lot_id = ${of.lotId} and f.removed_at is not null and i.retired_on is null
		on conflict do nothing`);
	return rows;
}

/** How far a recall is. */
export interface RecallProgress {
	id: string;
	part: string;
	lot: string;
	why: string;
	at: Date;
	fromStore: number;
	held: number;
	changed: number;
	had: number;
	looked: number;
}

/** Recalls, the newest first, each with how many of its items are dealt with. */
export const recallsWithProgress = async (
	db: Connection,
	only: string | null = null
): Promise<RecallProgress[]> =>
	(
		await db.execute<RecallProgress & Record<string, unknown>>(sql`
			select r.id, l.part, l.lot, r.why, r.called_at as at, r.from_store as "fromStore",
				count(c.item_id) filter (where c.defect_id is not null)::int as held,
				count(c.item_id) filter (where d.closed_at is not null)::int as changed,
				count(c.item_id) filter (where c.defect_id is null)::int as had,
				count(c.item_id) filter (where c.looked_at is not null)::int as looked
			from recall r join part_lot l on l.id = r.lot_id
			left join recall_item c on c.recall_id = r.id
			left join defect d on d.id = c.defect_id
			${only === null ? sql`` : sql`where r.id = ${only}`}
			group by r.id, l.part, l.lot order by r.called_at desc`)
	).rows.map((row) => ({ ...row, at: new Date(row.at) }));

/** Lots of filters that were called back, the newest first: pairs and layers that were opened from each, and how many of them are off. */
export const recalledFilters = async (db: Connection) =>
	(
		await db.execute<{
			id: string;
			filter: string;
			lot: string;
			why: string;
			at: Date;
			all: number;
			off: number;
		}>(sql`
			select l.id, m.name as filter, l.lot, l.recall_reason as why, l.recalled_at as at,
				count(p.off)::int as all, count(*) filter (where p.off)::int as off
			from filter_lot l join filter_model m on m.id = l.model_id
			left join (
				select lot_id, discarded_at is not null as off from filter_pair
				union all select lot_id, removed_at is not null from filter_layer
			) p on p.lot_id = l.id
			where l.recalled_at is not null
			group by l.id, m.name order by l.recalled_at desc`)
	).rows.map((row) => ({ ...row, at: new Date(row.at) }));

/** An item of a recall: where it is, since when it had the part, and who wore it in that time. */
export interface RecallRow {
	itemId: string;
	tag: string;
	place: string;
	where: Where | null;
	with: string | null;
	station: string;
	family: string;
	fittedAt: Date;
	removedAt: Date | null;
	defectId: string | null;
	closedAt: Date | null;
	closedHow: string | null;
	looked: string | null;
	/** Numbers of the wearers who had it while the part was in it. */
	wornBy: string[];
}

/** Items of a recall, those that are not dealt with first. */
export const recallRows = async (db: Connection, recallId: string): Promise<RecallRow[]> =>
	(
		await db.execute<RecallRow & Record<string, unknown>>(sql`
		select i.id as "itemId", i.tag, i.family, p.name as place, c.where_it_is as "where", w.number as "with",
			f.station, f.fitted_at as "fittedAt", f.removed_at as "removedAt", ri.defect_id as "defectId",
			d.closed_at as "closedAt", d.closed_how as "closedHow", ri.looked,
			coalesce(worn.numbers, '{}') as "wornBy"
		from recall_item ri
		join recall r on r.id = ri.recall_id
		join item i on i.id = ri.item_id
		join place p on p.id = i.place_id
		join lateral (
			select min(x.station) as station, min(x.fitted_at) as fitted_at,
				case when bool_and(x.removed_at is not null) then max(x.removed_at) end as removed_at
			from part_fitting x where x.item_id = i.id and x.lot_id = r.lot_id
		) f on true
		left join defect d on d.id = ri.defect_id
		left join custody c on c.item_id = i.id and c.until is null
		left join wearer w on w.id = c.wearer_id
		left join lateral (
			select array_agg(distinct o.number order by o.number) as numbers
			from custody h join wearer o on o.id = h.wearer_id
			where h.item_id = i.id and (h.until is null or h.until >= f.fitted_at)
				and (f.removed_at is null or h.since <= f.removed_at)
		) worn on true
		where ri.recall_id = ${recallId}
		order by (d.closed_at is not null or ri.looked_at is not null), ri.defect_id is null, i.tag`)
	).rows.map((row) => ({
		...row,
		fittedAt: new Date(row.fittedAt),
		removedAt: row.removedAt === null ? null : new Date(row.removedAt),
		closedAt: row.closedAt === null ? null : new Date(row.closedAt)
	}));
