import { sql } from 'drizzle-orm';
import {
	BATCH_DAYS,
	type FaultSeen,
	type InFleet,
	type Membership
} from '../../../../core/teach/cluster.ts';
import { NOT_LOOKED_FOR } from '../../../../core/data/reject-codes.ts';
import type { Connection } from '../client.ts';

/** Codes of what was not found by looking at it: a life that was over, a lot that was called back. */
const FOUND = sql`d.code not in ${[...NOT_LOOKED_FOR]}
	and (d.closed_how is null or d.closed_how not in ('withdrawn', 'not-confirmed'))`;
const ms = (column: string) => sql.raw(`(extract(epoch from ${column}) * 1000)::float8`);

async function rowsOf<T>(db: Connection, query: ReturnType<typeof sql>): Promise<T[]> {
	return (await db.execute(query)).rows as T[];
}
/** What lasts still has no end. */
const lasting = <T extends { until: number | null }>(rows: T[]) =>
	rows.map((row) => ({ ...row, until: row.until ?? Infinity }));

/** Everything that a cluster is looked for in, from one day on. */
export async function clusterRows(db: Connection, since: Date) {
	const from = since.toISOString();
	const [fleet, faults, lots, batches, places] = await Promise.all([
		rowsOf<Omit<InFleet, 'until'> & { until: number | null }>(
			db,
			sql`select i.id as "itemId", i.family, ${ms('i.in_use_since::timestamptz')} as "from",
				${ms('i.retired_on::timestamptz')} as until from item i
				where i.retired_on is null or i.retired_on >= ${from}::date`
		),
		rowsOf<FaultSeen>(
			db,
			sql`select d.item_id as "itemId", i.family, d.station, ${ms('d.reported_at')} as at
				from defect d join item i on i.id = d.item_id
				where d.reported_at >= ${from}::timestamptz and ${FOUND} order by d.reported_at`
		),
		rowsOf<Omit<Membership, 'until'> & { until: number | null }>(
			db,
			sql`select 'lot:' || f.lot_id as "group", f.item_id as "itemId", i.family, f.station,
				${ms('f.fitted_at')} as "from", ${ms('f.removed_at')} as until
				from part_fitting f join item i on i.id = f.item_id
				where f.removed_at is null or f.removed_at >= ${from}::timestamptz`
		),
		rowsOf<Omit<Membership, 'until'> & { until: number | null }>(
			db,
			sql`select 'batch:' || b.id as "group", w.item_id as "itemId", i.family, null as station,
				${ms('b.ended_at')} as "from",
				${ms(`least(b.ended_at + interval '${BATCH_DAYS} days', lead(b.ended_at) over (partition by w.item_id order by b.ended_at))`)} as until
				from wash_batch_item w join wash_batch b on b.id = w.batch_id join item i on i.id = w.item_id
				where w.taken_out_at is null and b.ended_at >= ${from}::timestamptz`
		),
		rowsOf<Omit<Membership, 'until'> & { until: number | null }>(
			db,
			sql`select 'place:' || i.place_id as "group", i.id as "itemId", i.family, null as station,
				${ms('i.in_use_since::timestamptz')} as "from", ${ms('i.retired_on::timestamptz')} as until from item i
				where i.retired_on is null or i.retired_on >= ${from}::date`
		)
	]);
	return {
		fleet: lasting(fleet),
		faults,
		memberships: lasting([...lots, ...batches, ...places])
	};
}

/** What the groups of a cluster are called, and where each leads. */
export const groupNames = (db: Connection) =>
	rowsOf<{ key: string; name: string; part: string | null }>(
		db,
		sql`select 'lot:' || l.id as key, l.lot as name, l.part from part_lot l
			union all select 'batch:' || b.id, b.number::text, null from wash_batch b
			union all select 'place:' || p.id, p.name, null from place p`
	);

/** Items of a period: how often each was inspected and failed, and what it may owe that to. */
export interface ItemCounts {
	family: string;
	model: string;
	place: string;
	/** Lots of its parts as part=lot: of each part the one that sat there first in that time, as what failed is changed. */
	lots: string[];
	/** What the bath of its last wash was made with. */
	agent: string | null;
	inspections: number;
	failures: number;
}

/** Per item of the fleet, from one day on. */
export const itemCounts = (db: Connection, since: Date) =>
	rowsOf<ItemCounts>(
		db,
		sql`select i.family, m.name as model, p.name as place,
				coalesce(l.lots, '{}') as lots, w.agent, coalesce(r.n, 0)::int as inspections, coalesce(d.n, 0)::int as failures
			from item i join item_model m on m.id = i.model_id join place p on p.id = i.place_id
			left join (select r.item_id, count(*) as n from inspection_run r
				where r.purpose = 'inspection' and r.signed_at >= ${since.toISOString()}::timestamptz group by r.item_id) r on r.item_id = i.id
			left join (select d.item_id, count(*) as n from defect d
				where d.reported_at >= ${since.toISOString()}::timestamptz and ${FOUND} group by d.item_id) d on d.item_id = i.id
			left join (select o.item_id, array_agg(o.said order by o.said) as lots from (
				select distinct on (f.item_id, x.part) f.item_id, x.part || '=' || x.lot as said
				from part_fitting f join part_lot x on x.id = f.lot_id
				where f.removed_at is null or f.removed_at >= ${since.toISOString()}::timestamptz
				order by f.item_id, x.part, f.fitted_at) o group by o.item_id) l on l.item_id = i.id
			left join lateral (select b.agent from wash_batch_item wi join wash_batch b on b.id = wi.batch_id
				where wi.item_id = i.id and wi.taken_out_at is null and b.ended_at is not null order by b.ended_at desc limit 1) w on true
			where r.n > 0 or d.n > 0`
	);

/** Faults of a period by family and station, with how often the family was inspected. */
export const stationCounts = (db: Connection, since: Date) =>
	rowsOf<{ family: string; station: string; failures: number; inspections: number }>(
		db,
		sql`select i.family, d.station, count(*)::int as failures, max(t.n)::int as inspections
			from defect d join item i on i.id = d.item_id
			join (select i.family, count(r.id) as n from item i left join inspection_run r
				on r.item_id = i.id and r.purpose = 'inspection' and r.signed_at >= ${since.toISOString()}::timestamptz
				group by i.family) t on t.family = i.family
			where d.reported_at >= ${since.toISOString()}::timestamptz and ${FOUND}
			group by i.family, d.station`
	);

/** Lives of parts, in days; those that sit still or went for another reason than failing are cut short. */
export const partLives = (db: Connection) =>
	rowsOf<{ part: string; family: string; lot: string; days: number; failed: boolean }>(
		db,
		sql`select f.part, i.family, l.lot, greatest(0, extract(epoch from (coalesce(f.removed_at, now()) - f.fitted_at)) / 86400)::float8 as days,
				(f.removed_how is not distinct from 'failed') as failed
			from part_fitting f join item i on i.id = f.item_id join part_lot l on l.id = f.lot_id`
	);

export interface ServiceCounts {
	/** Hours from report to end, of those that held their item and were mended. */
	hours: number[];
	first: number;
	firstPassed: number;
	repaired: number;
	/** Mended at the same place again within thirty days. */
	again: number;
	ended: number;
	notConfirmed: number;
	/** Where faults were found. */
	foundBy: { by: string; n: number }[];
	minutes: number | null;
}

/** How the service did, from one day on. */
export async function serviceCounts(db: Connection, since: Date): Promise<ServiceCounts> {
	const from = sql`${since.toISOString()}::timestamptz`;
	const [[figures], hours, foundBy] = await Promise.all([
		rowsOf<Omit<ServiceCounts, 'hours' | 'foundBy'>>(
			db,
			sql`select
				(select count(*)::int from service_job j where j.done_at >= ${from}
					and exists (select 1 from inspection_run r where r.service_job_id = j.id and r.signed_at is not null)) as first,
				(select count(*)::int from service_job j where j.done_at >= ${from} and (select r.outcome from inspection_run r
					where r.service_job_id = j.id and r.signed_at is not null order by r.signed_at limit 1) in ('pass', 'pass, watch')) as "firstPassed",
				(select count(*)::int from defect d where d.closed_how = 'released' and d.closed_at >= ${from}) as repaired,
				(select count(*)::int from defect d where d.closed_how = 'released' and d.closed_at >= ${from} and exists (
					select 1 from defect b where b.item_id = d.item_id and b.station = d.station and b.id <> d.id
						and b.closed_how = 'released' and b.closed_at between d.reported_at - interval '30 days' and d.reported_at)) as again,
				(select count(*)::int from defect d where d.closed_at >= ${from} and d.closed_how <> 'withdrawn') as ended,
				(select count(*)::int from defect d where d.closed_at >= ${from} and d.closed_how = 'not-confirmed') as "notConfirmed",
				(select avg(j.minutes)::float8 from service_job j where j.done_at >= ${from}) as minutes`
		),
		rowsOf<{ hours: number }>(
			db,
			sql`select (extract(epoch from (d.closed_at - d.reported_at)) / 3600)::float8 as hours from defect d
				where d.closed_how = 'released' and d.closed_at >= ${from} and d.severity in ('stop', 'repair') order by 1`
		),
		rowsOf<{ by: string; n: number }>(
			db,
			sql`select case when r.purpose is not null then r.purpose || ':' || r.procedure else 'by hand' end as by, count(*)::int as n
				from defect d left join inspection_run r on r.id = d.run_id
				where d.reported_at >= ${from} and ${FOUND} group by 1 order by 2 desc`
		)
	]);
	return {
		...(figures ?? {
			first: 0,
			firstPassed: 0,
			repaired: 0,
			again: 0,
			ended: 0,
			notConfirmed: 0,
			minutes: null
		}),
		hours: hours.map((row) => row.hours),
		foundBy
	};
}

/** How often each person inspected, and in how many runs anything was found. */
export const inspectorCounts = (db: Connection, since: Date) =>
	rowsOf<{ userId: string; name: string; runs: number; found: number; medianSeconds: number }>(
		db,
		sql`select u.id as "userId", u.name, count(*)::int as runs,
				count(*) filter (where exists (select 1 from defect_report d where d.run_id = r.id and d.withdrawn_at is null))::int as found,
				percentile_cont(0.5) within group (order by extract(epoch from (r.signed_at - r.started_at))) filter (where r.done_at is null)::float8 as "medianSeconds"
			from inspection_run r join "user" u on u.id = coalesce(r.done_by, r.signed_by)
			where r.purpose = 'inspection' and r.signed_at >= ${since.toISOString()}::timestamptz
			group by u.id, u.name order by runs desc`
	);

/** Inspections and faults of a family month by month. */
export const monthCounts = (db: Connection, family: string, since: Date) =>
	rowsOf<{ month: string; inspections: number; failures: number }>(
		db,
		sql`select to_char(m.month, 'YYYY-MM') as month, coalesce(r.n, 0)::int as inspections, coalesce(d.n, 0)::int as failures
			from generate_series(date_trunc('month', ${since.toISOString()}::timestamptz), date_trunc('month', now()), interval '1 month') as m(month)
			left join (select date_trunc('month', r.signed_at) as month, count(*) as n from inspection_run r join item i on i.id = r.item_id
				where r.purpose = 'inspection' and r.signed_at >= ${since.toISOString()}::timestamptz and i.family = ${family} group by 1) r on r.month = m.month
			left join (select date_trunc('month', d.reported_at) as month, count(*) as n from defect d join item i on i.id = d.item_id
				where d.reported_at >= ${since.toISOString()}::timestamptz and i.family = ${family} and ${FOUND} group by 1) d on d.month = m.month
			order by 1`
	);

/** Items with so many readings or bench tests that a direction can be told, at most so many of them. */
export const measuredItems = async (db: Connection, least: number, most: number) =>
	(
		await rowsOf<{ id: string }>(
			db,
			sql`select x.item_id as id from (
					select r.item_id from inspection_answer a join inspection_run r on r.id = a.run_id
						where a.readings is not null and r.signed_at is not null
					union all select b.item_id from bench_test b where b.outcome is not null) x
				join item i on i.id = x.item_id and i.retired_on is null
				group by x.item_id having count(*) >= ${least} order by count(*) desc limit ${most}`
		)
	).map(({ id }) => id);

/** How long inspections of a family take that were passed, in the middle, seconds; null where there are none. */
export async function medianSecondsOf(db: Connection, family: string): Promise<number | null> {
	const [row] = await rowsOf<{ seconds: number | null }>(
		db,
		sql`select percentile_cont(0.5) within group (order by extract(epoch from (r.signed_at - r.started_at)))::float8 as seconds
			from (select r.signed_at, r.started_at from inspection_run r join item i on i.id = r.item_id
				where i.family = ${family} and r.purpose = 'inspection' and r.outcome <> 'fail' and r.signed_at is not null and r.done_at is null
				order by r.signed_at desc limit 200) r`
	);
	return row?.seconds ?? null;
}
