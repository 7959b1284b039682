import { sql, type SQL } from 'drizzle-orm';
import type { CylinderMaterial } from '../../../../core/air/cylinder.ts';
import type { SourceTest } from '../../../../core/air/source.ts';
import type { TestOutcome } from '../../../../core/bench/breathing-apparatus.ts';
import type { Where } from '../../../../core/custody/custody.ts';
import type { Severity } from '../../../../core/data/reject-codes.ts';
import type { Readings } from '../../../../core/inspection/reading.ts';
import type { Day } from '../../../../core/plan/calendar.ts';
import type { EventWhat } from '../../../../core/plan/events.ts';
import type { ModelCard } from '../../../../core/register/model-card.ts';
import type { UsePattern } from '../../../../core/site/places.ts';
import type { Reason } from '../../../../core/verdict.ts';
import type { Connection } from '../client.ts';

/** Everything that the state of items follows from, as the database gives it in one statement. Moments are ISO texts. */
export interface FactRows {
	items: {
		id: string;
		tag: string;
		family: string;
		modelId: string;
		placeId: string;
		usePattern: UsePattern;
		mount: string;
		filterCount: number;
		setId: string | null;
		retiredOn: Day | null;
		holdDropBar: number | null;
		ratedBar: number | null;
		card: ModelCard;
		inUseSince: Day;
		withdrawnOn: Day | null;
		withdrawnWhy: string | null;
	}[];
	defects: { itemId: string; severity: Severity; code: string; station: string }[];
	/** Items with a repair under way. */
	jobs: { itemId: string }[];
	/** The last inspection that each passed. */
	passed: { itemId: string; signedAt: string }[];
	/** When each list was last walked to its end, an inspection passed. Only where rules ask for lists. */
	lists: { itemId: string; procedure: string; at: string }[];
	/** When each job was last done. Only where rules ask for jobs. */
	services: { itemId: string; repair: string; at: string }[];
	/** What happened to them that rules count. */
	events: { itemId: string; what: EventWhat; at: string; on: Day | null; minutes: number | null }[];
	/** Where those are that do not lie on their shelf, and with whom or in which batch. */
	custody: { itemId: string; where: Where; with: string | null }[];
	/** The last seal of each emergency item. */
	seals: {
		itemId: string;
		number: string;
		sealedAt: string;
		brokenAt: string | null;
		why: string | null;
	}[];
	pairs: PairFacts[];
	cylinders: CylinderRow[];
	readings: {
		itemId: string;
		runId: string;
		step: string;
		value: string;
		readings: Readings;
		signedAt: string;
	}[];
	tests: {
		itemId: string;
		recipe: string;
		version: number;
		startedAt: string;
		outcome: TestOutcome;
		leakPaPerMin: number | null;
		reasons: Reason[] | null;
	}[];
}

/** What the change date of a pair of filters follows from. */
export interface PairFacts {
	itemId: string;
	filters: number;
	openedOn: Day;
	exposureMin: number | null;
	changeAfterMin: number | null;
	singleUse: boolean;
	codeEn: string | null;
	codeUs: string | null;
	openedMonths: number | null;
	/** It stays sealed in its pack until this day; null: opened. */
	sealedUntil: Day | null;
	recalled: boolean;
	wears: { wornOn: Day; minutes: number; lifeMin: number | null; task: string }[];
}

/** What is known of a cylinder beside its faults. */
export interface CylinderRow {
	itemId: string;
	material: CylinderMaterial;
	manufacturedOn: Day;
	lifeEndsOn: Day | null;
	testYears: number | null;
	pressureBar: number | null;
	/** Day of the last periodic test that it passed. */
	lastTestOn: Day | null;
	testFailed: boolean;
	/** Its last fill that was ended. */
	fill: { startedAt: string; endedAt: string; sourceId: string; source: string } | null;
	/** Tests of the air of that source since the fill began. */
	airTests: { id: string; takenAt: string; outcome: SourceTest['outcome'] }[];
}

const list = (ids: readonly string[]) => sql`(select unnest(${sql.param([...ids])}::uuid[]))`;

/** Rows of a selection as one JSON list. */
const rows = (selection: SQL) =>
	sql`(select coalesce(json_agg(part), '[]'::json) from (${selection}) part)`;

/** A signed inspection that counts: no donning list, and no later one takes its place. */
const STANDING = sql`r.signed_at is not null and r.purpose = 'inspection' and not exists (
	select 1 from inspection_run later where later.supersedes = r.id and later.signed_at is not null)`;

/** What of the past rules look at. */
export interface AskedPast {
	lists: boolean;
	services: boolean;
	events: readonly EventWhat[];
}

/** Uses of items: what went in and came out again, what filters on it were worn, and closing lists of other days. */
const USES = (ids: SQL) => sql`
	select e.set_id as item_id, 'use' as what, e.ended_at as at, null::date as on_day,
		extract(epoch from e.ended_at - e.started_at) / 60 as minutes
	from entry_wearer e where e.set_id in ${ids} and e.ended_at is not null
	union all
	select p.id, 'use', e.ended_at, null, extract(epoch from e.ended_at - e.started_at) / 60
	from item p join entry_wearer e on e.set_id = p.set_id
	where p.id in ${ids} and e.ended_at is not null and (p.set_since is null or e.started_at >= p.set_since)
	union all
	select f.item_id, 'use', least(w.entered_at, w.worn_on + interval '1 day'), w.worn_on, w.minutes
	from filter_pair f join filter_wear w on w.pair_id = f.id where f.item_id in ${ids}
	union all
	select b.item_id, 'use', b.returned_at, null, b.minutes from item_return b
	where b.item_id in ${ids} and b.used and not b.counted_elsewhere
	union all
	select r.item_id, 'use', r.signed_at, null, null from inspection_run r
	where r.item_id in ${ids} and r.signed_at is not null and r.purpose = 'closing'
		and not exists (select 1 from entry_wearer e where e.set_id = r.item_id
			and e.ended_at between r.signed_at - interval '1 day' and r.signed_at)
		and not exists (select 1 from filter_pair f join filter_wear w on w.pair_id = f.id
			where f.item_id = r.item_id and w.worn_on between r.signed_at::date - 1 and r.signed_at::date)
		and not exists (select 1 from item_return b where b.item_id = r.item_id and b.used
			and b.returned_at between r.signed_at - interval '1 day' and r.signed_at)`;

/** Where each kind of event stands in the record. */
const EVENTS: Record<EventWhat, (ids: SQL) => SQL> = {
	use: USES,
	repair: (
		ids
	) => sql`select j.item_id, 'repair', j.done_at, null::date, null::float8 from service_job j
		where j.item_id in ${ids} and j.done_at is not null and j.superseded_at is null`,
	fill: (
		ids
	) => sql`select c.item_id, 'fill', c.ended_at, null::date, null::float8 from cylinder_fill c
		where c.item_id in ${ids} and c.ended_at is not null`,
	drop: (ids) => noted(ids, 'drop'),
	splash: (ids) => noted(ids, 'splash')
};

const noted = (ids: SQL, what: EventWhat) =>
	sql`select v.item_id, v.what, v.happened_at, null::date, null::float8 from item_event v
		where v.item_id in ${ids} and v.what = ${what}`;

/** Everything that happened of the kinds that are asked for, the earliest first. */
const happened = (ids: SQL, kinds: readonly EventWhat[]) =>
	kinds.length === 0
		? NOTHING
		: sql`select x.item_id as "itemId", x.what, x.at, x.on_day as "on", x.minutes
			from (${sql.join(
				kinds.map((kind) => EVENTS[kind](ids)),
				sql` union all `
			)}) x(item_id, what, at, on_day, minutes) order by x.at`;

const NOTHING = sql`select null where false`;

/** Cylinders among some items. */
const cylinders = (ids: SQL) => sql`
	select c.item_id as "itemId", c.material, c.manufactured_on as "manufacturedOn",
		c.life_ends_on as "lifeEndsOn", c.test_years as "testYears", c.pressure_bar as "pressureBar",
		(select max(t.tested_on) from cylinder_test t where t.item_id = c.item_id and t.passed) as "lastTestOn",
		coalesce((select not t.passed from cylinder_test t where t.item_id = c.item_id
			order by t.tested_on desc, t.noted_at desc limit 1), false) as "testFailed",
		case when f.source_id is null then null else json_build_object('startedAt', f.started_at,
			'endedAt', f.ended_at, 'sourceId', f.source_id, 'source', f.source) end as fill,
		coalesce((select json_agg(json_build_object('id', a.id, 'takenAt', a.taken_at, 'outcome', a.outcome))
			from air_test a where a.source_id = f.source_id and a.taken_at >= f.started_at), '[]'::json) as "airTests"
	from cylinder c
	left join lateral (
		select x.started_at, x.ended_at, b.source_id, s.name as source
		from cylinder_fill x join fill_batch b on b.id = x.batch_id join air_source s on s.id = b.source_id
		where x.item_id = c.item_id and x.ended_at is not null
		order by x.ended_at desc limit 1
	) f on true
	where c.item_id in ${ids}`;

/** The facts of items and of what is on them; where asked, of the sets that they are in as well. */
export async function factRows(
	db: Connection,
	itemIds: readonly string[],
	asked: AskedPast,
	{ withSets = false } = {}
): Promise<FactRows> {
	const given = list(itemIds);
	const wanted = withSets
		? sql`select unnest as id from ${given} g union
			select i.set_id from item i where i.id in ${given} and i.set_id is not null`
		: sql`select unnest as id from ${given} g`;
	const all = sql`(select id from everything)`;
	const { rows: found } = await db.execute<{ facts: FactRows }>(sql`
		with wanted as materialized (${wanted}),
		everything as materialized (
			select id from wanted union select p.id from item p where p.set_id in (select id from wanted))
		select json_build_object(
			'items', ${rows(sql`
				select i.id, i.tag, i.family, i.model_id as "modelId", i.place_id as "placeId", i.use_pattern as "usePattern", m.mount, m.filter_count as "filterCount", i.set_id as "setId", i.retired_on as "retiredOn",
					m.hold_drop_bar as "holdDropBar", m.rated_bar as "ratedBar", m.card, i.in_use_since as "inUseSince", m.withdrawn_on as "withdrawnOn",
					m.withdrawn_why as "withdrawnWhy"
				from item i join item_model m on m.id = i.model_id where i.id in ${all} order by i.tag`)},
			'defects', ${rows(sql`
				select d.item_id as "itemId", d.severity, d.code, d.station from defect d
				where d.item_id in ${all} and d.closed_at is null order by d.reported_at, d.id`)},
			'jobs', ${rows(sql`
				select j.item_id as "itemId" from service_job j
				where j.item_id in ${all} and j.released_at is null and j.superseded_at is null`)},
			'custody', ${rows(sql`
				select c.item_id as "itemId", c.where_it_is as "where",
					coalesce(w.number, 'batch ' || b.number) as "with"
				from custody c left join wearer w on w.id = c.wearer_id
				left join wash_batch b on b.id = c.batch_id
				where c.item_id in ${all} and c.until is null and c.where_it_is <> 'shelf'`)},
			'seals', ${rows(sql`
				select distinct on (s.item_id) s.item_id as "itemId", s.number, s.sealed_at as "sealedAt",
					s.broken_at as "brokenAt", s.broken_why as why
				from item_seal s where s.item_id in ${all} order by s.item_id, s.sealed_at desc`)},
			'passed', ${rows(sql`
				select r.item_id as "itemId", max(coalesce(r.done_at, r.signed_at)) as "signedAt" from inspection_run r
				where r.item_id in ${all} and r.outcome in ('pass', 'pass, watch') and ${STANDING}
				group by r.item_id`)},
			'lists', ${rows(
				asked.lists
					? sql`
				select r.item_id as "itemId", r.procedure, max(coalesce(r.done_at, r.signed_at)) as at from inspection_run r
				where r.item_id in ${all} and r.signed_at is not null
					and (r.purpose <> 'inspection' or r.outcome in ('pass', 'pass, watch'))
					and not exists (select 1 from inspection_run later
						where later.supersedes = r.id and later.signed_at is not null)
				group by r.item_id, r.procedure`
					: NOTHING
			)},
			'services', ${rows(
				asked.services
					? sql`
				select j.item_id as "itemId", j.repair, max(j.done_at) as at from service_job j
				where j.item_id in ${all} and j.done_at is not null and j.superseded_at is null
				group by j.item_id, j.repair`
					: NOTHING
			)},
			'events', ${rows(happened(all, asked.events))},
			'pairs', ${rows(sql`
				select p.item_id as "itemId", p.filters, p.opened_on as "openedOn", p.exposure_min as "exposureMin",
					p.change_after_min as "changeAfterMin", p.single_use as "singleUse", p.sealed_until as "sealedUntil",
					m.code_en as "codeEn", m.code_us as "codeUs", m.opened_months as "openedMonths",
					l.recalled_at is not null or exists (select 1 from filter_layer y join filter_lot o on o.id = y.lot_id
						where y.pair_id = p.id and y.removed_at is null and o.recalled_at is not null) as recalled,
					coalesce((select json_agg(json_build_object('wornOn', w.worn_on, 'minutes', w.minutes,
						'lifeMin', w.life_min, 'task', w.task) order by w.worn_on, w.entered_at)
						from filter_wear w where w.pair_id = p.id), '[]'::json) as wears
				from filter_pair p join filter_lot l on l.id = p.lot_id join filter_model m on m.id = l.model_id
				where p.item_id in ${all} and p.discarded_at is null`)},
			'cylinders', ${rows(cylinders(all))},
			'readings', ${rows(sql`
				select r.item_id as "itemId", r.id as "runId", a.step, a.value, a.readings,
					r.signed_at as "signedAt"
				from inspection_run r join inspection_answer a on a.run_id = r.id
				where r.item_id in ${all} and a.readings is not null and ${STANDING}
				order by r.signed_at, a.position`)},
			'tests', ${rows(sql`
				select b.item_id as "itemId", b.recipe, b.recipe_version as version,
					b.started_at as "startedAt", b.outcome, b.leak_pa_per_min as "leakPaPerMin", b.reasons
				from bench_test b
				where b.item_id in ${all} and b.outcome in ('pass', 'pass, marginal', 'fail')
				order by b.started_at`)}
		) as facts`);
	const [row] = found;
	if (!row) throw new RangeError('The facts were not given.');
	return row.facts;
}

/** Cylinders among some items; those without data are left out. */
export async function cylinderRows(
	db: Connection,
	itemIds: readonly string[]
): Promise<CylinderRow[]> {
	const { rows: found } = await db.execute<{ found: CylinderRow[] }>(
		sql`select ${rows(cylinders(list(itemIds)))} as found`
	);
	return found[0]?.found ?? [];
}
