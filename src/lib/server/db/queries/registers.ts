import { type SQL, sql } from 'drizzle-orm';
import {
	REGISTERS,
	type RegisterKey,
	type RegisterRow
} from '../../../../core/records/registers.ts';
import type { Connection } from '../client.ts';

type ColumnsOf<K extends RegisterKey> = keyof (typeof REGISTERS)[K]['columns'];

interface Source<Column extends PropertyKey> {
	from: SQL;
	/** Only rows for which this holds; what did not come to its end is no record yet. */
	where?: SQL;
	/** Places a row in time, where it has one. */
	at?: SQL;
	/** Tells the rows apart and sets their order; an index serves it. */
	key: { column: string; type: 'uuid' | 'bigint' | 'text' };
	cells: Record<Column, SQL>;
}

const moment = (of: SQL) => sql`to_char(${of} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;
const day = (of: SQL) => sql`to_char(${of}, 'YYYY-MM-DD')`;
const who = (of: SQL) => sql`(select name from "user" where id = ${of})`;
const tagOf = (of: SQL) => sql`(select tag from item where id = ${of})`;
const placeOf = (of: SQL) => sql`(select name from place where id = ${of})`;
const modelOf = (of: SQL) => sql`(select name from item_model where id = ${of})`;
const numberOf = (of: SQL) => sql`(select number from wearer where id = ${of})`;
const texts = (of: SQL) =>
	sql`(select string_agg(one ->> 'text', ' ') from jsonb_array_elements(${of}) one)`;

const SOURCES: { [K in RegisterKey]: Source<ColumnsOf<K>> } = {
	items: {
		from: sql`item t left join item_state s on s.item_id = t.id`,
		key: { column: 't.tag', type: 'text' },
		cells: {
			tag: sql`t.tag`,
			family: sql`t.family`,
			model: modelOf(sql`t.model_id`),
			size: sql`t.size`,
			serial: sql`t.serial`,
			place: placeOf(sql`t.place_id`),
			'in use since': day(sql`t.in_use_since`),
			use: sql`t.use_pattern`,
			held: sql`s.blocked`,
			'due on': day(sql`s.due_on`),
			'due what': sql`s.due_what`,
			'last inspected on': day(sql`s.last_inspection_on`),
			'retired on': day(sql`t.retired_on`)
		}
	},
	models: {
		from: sql`item_model t`,
		key: { column: 't.name', type: 'text' },
		cells: {
			name: sql`t.name`,
			maker: sql`t.maker`,
			family: sql`t.family`,
			mount: sql`t.mount`,
			'rated bar': sql`t.rated_bar`,
			'withdrawn on': day(sql`t.withdrawn_on`),
			'withdrawn why': sql`t.withdrawn_why`
		}
	},
	places: {
		from: sql`place t`,
		key: { column: 't.name', type: 'text' },
		cells: { name: sql`t.name`, kind: sql`t.kind`, 'closed on': day(sql`t.closed_on`) }
	},
	inspections: {
		at: sql`t.signed_at`,
		from: sql`inspection_run t`,
		where: sql`t.signed_at is not null`,
		key: { column: 't.id', type: 'uuid' },
		cells: {
			id: sql`t.id`,
			tag: tagOf(sql`t.item_id`),
			list: sql`t.procedure`,
			version: sql`t.procedure_version`,
			'started at': moment(sql`t.started_at`),
			'signed at': moment(sql`t.signed_at`),
			'signed by': who(sql`t.signed_by`),
			'done on paper at': moment(sql`t.done_at`),
			outcome: sql`t.outcome`,
			reasons: texts(sql`t.reasons`)
		}
	},
	answers: {
		at: sql`t.answered_at`,
		from: sql`inspection_answer t`,
		key: { column: 't.id', type: 'uuid' },
		cells: {
			id: sql`t.id`,
			inspection: sql`t.run_id`,
			position: sql`t.position`,
			step: sql`t.step`,
			value: sql`t.value`,
			code: sql`t.code`,
			note: sql`t.note`,
			readings: sql`t.readings::text`,
			'answered at': moment(sql`t.answered_at`),
			'answered by': who(sql`t.answered_by`)
		}
	},
	'bench-tests': {
		at: sql`t.ended_at`,
		from: sql`bench_test t`,
		where: sql`t.ended_at is not null`,
		key: { column: 't.id', type: 'uuid' },
		cells: {
			id: sql`t.id`,
			tag: tagOf(sql`t.item_id`),
			recipe: sql`t.recipe`,
			version: sql`t.recipe_version`,
			instrument: sql`t.instrument`,
			'started at': moment(sql`t.started_at`),
			'ended at': moment(sql`t.ended_at`),
			by: who(sql`t.started_by`),
			outcome: sql`t.outcome`,
			'start Pa': sql`t.start_pa`,
			'end corrected Pa': sql`t.corrected_end_pa`,
			'leak Pa per min': sql`t.leak_pa_per_min`
		}
	},
	faults: {
		at: sql`t.reported_at`,
		from: sql`defect t`,
		key: { column: 't.id', type: 'uuid' },
		cells: {
			id: sql`t.id`,
			tag: tagOf(sql`t.item_id`),
			station: sql`t.station`,
			code: sql`t.code`,
			severity: sql`t.severity`,
			note: sql`t.note`,
			'reported at': moment(sql`t.reported_at`),
			'reported by': who(sql`t.reported_by`),
			'closed at': moment(sql`t.closed_at`),
			'closed how': sql`t.closed_how`,
			'closed by': who(sql`t.closed_by`),
			'closed why': sql`t.closed_why`
		}
	},
	repairs: {
		at: sql`t.started_at`,
		from: sql`service_job t`,
		key: { column: 't.id', type: 'uuid' },
		cells: {
			id: sql`t.id`,
			tag: tagOf(sql`t.item_id`),
			repair: sql`t.repair`,
			'started at': moment(sql`t.started_at`),
			'started by': who(sql`t.started_by`),
			'done at': moment(sql`t.done_at`),
			'done by': who(sql`t.done_by`),
			'released at': moment(sql`t.released_at`),
			'released by': who(sql`t.released_by`),
			minutes: sql`t.minutes`,
			note: sql`t.note`
		}
	},
	cylinders: {
		from: sql`cylinder t left join lateral (
			select tested_on, stamp from cylinder_test where item_id = t.item_id and passed order by tested_on desc limit 1
		) last on true`,
		key: { column: 't.item_id', type: 'uuid' },
		cells: {
			tag: tagOf(sql`t.item_id`),
			'water volume L': sql`t.water_volume_l`,
			'rated bar': sql`t.rated_bar`,
			'maximum bar': sql`t.maximum_bar`,
			material: sql`t.material`,
			'empty kg': sql`t.empty_kg`,
			thread: sql`t.thread`,
			'manufactured on': day(sql`t.manufactured_on`),
			'life ends on': day(sql`t.life_ends_on`),
			'test years': sql`t.test_years`,
			where: sql`t.location`,
			'pressure bar': sql`t.pressure_bar`,
			'pressure at': moment(sql`t.pressure_at`),
			'tested on': day(sql`last.tested_on`),
			stamp: sql`last.stamp`
		}
	},
	fills: {
		at: sql`t.ended_at`,
		from: sql`cylinder_fill t join fill_batch b on b.id = t.batch_id`,
		where: sql`t.ended_at is not null`,
		key: { column: 't.id', type: 'uuid' },
		cells: {
			id: sql`t.id`,
			tag: tagOf(sql`t.item_id`),
			batch: sql`b.number`,
			source: sql`(select name from air_source where id = b.source_id)`,
			'air test': sql`b.air_test_id`,
			instrument: sql`t.instrument`,
			'started at': moment(sql`t.started_at`),
			'ended at': moment(sql`t.ended_at`),
			by: who(sql`t.started_by`),
			'start bar': sql`t.start_bar`,
			'end bar': sql`t.end_bar`,
			'end °C': sql`t.end_c`,
			'settled bar at 15 °C': sql`t.settled_bar`,
			outcome: sql`t.outcome`
		}
	},
	'air-tests': {
		at: sql`t.taken_at`,
		from: sql`air_test t`,
		key: { column: 't.id', type: 'uuid' },
		cells: {
			id: sql`t.id`,
			source: sql`(select name from air_source where id = t.source_id)`,
			'taken at': moment(sql`t.taken_at`),
			laboratory: sql`t.laboratory`,
			'sampled at': sql`t.sample ->> 'sampledAt'`,
			'pressure bar': sql`(t.sample ->> 'pressureBar')::float8`,
			'oxygen percent': sql`(t.sample ->> 'oxygenPercent')::float8`,
			'CO ppm': sql`(t.sample ->> 'coPpm')::float8`,
			'CO2 ppm': sql`(t.sample ->> 'co2Ppm')::float8`,
			'oil mg per m3': sql`(t.sample ->> 'oilMgPerM3')::float8`,
			'water mg per m3': sql`(t.sample ->> 'waterMgPerM3')::float8`,
			odour: sql`(t.sample ->> 'odour')::boolean`,
			outcome: sql`t.outcome`,
			'entered by': who(sql`t.entered_by`),
			'entered at': moment(sql`t.entered_at`)
		}
	},
	entries: {
		at: sql`t.started_at`,
		from: sql`entry_wearer t join entry_team g on g.id = t.team_id`,
		key: { column: 't.id', type: 'uuid' },
		cells: {
			id: sql`t.id`,
			team: sql`g.number`,
			task: sql`g.task`,
			place: placeOf(sql`g.place_id`),
			wearer: sql`t.wearer`,
			set: tagOf(sql`t.set_id`),
			'started at': moment(sql`t.started_at`),
			'ended at': moment(sql`t.ended_at`),
			'start bar': sql`t.start_bar`,
			'end bar': sql`t.end_bar`,
			'water volume L': sql`t.water_volume_l`
		}
	},
	wearers: {
		from: sql`wearer t`,
		where: sql`t.erased_on is null`,
		key: { column: 't.id', type: 'uuid' },
		cells: {
			number: sql`t.number`,
			name: sql`t.name`,
			glasses: sql`t.eyewear`,
			beard: sql`t.beard`,
			'cleared until': day(sql`t.cleared_until`),
			'trained until': day(sql`t.trained_until`),
			'left on': day(sql`t.left_on`)
		}
	},
	'fit-tests': {
		at: sql`t.signed_at`,
		from: sql`fit_test t`,
		key: { column: 't.id', type: 'uuid' },
		cells: {
			id: sql`t.id`,
			session: sql`t.session_id`,
			number: numberOf(sql`t.wearer_id`),
			model: modelOf(sql`t.model_id`),
			size: sql`t.size`,
			mask: sql`t.mask`,
			method: sql`t.method`,
			way: sql`coalesce(t.protocol, t.agent)`,
			overall: sql`t.overall`,
			passed: sql`t.passed`,
			'tested on': day(sql`t.tested_on`),
			'from paper': sql`t.from_paper`,
			tester: sql`t.tester`,
			'signed by': who(sql`t.signed_by`),
			'signed at': moment(sql`t.signed_at`)
		}
	},
	exams: {
		at: sql`t.ended_at`,
		from: sql`drill_session t`,
		where: sql`t.mode = 'exam'`,
		key: { column: 't.id', type: 'uuid' },
		cells: {
			id: sql`t.id`,
			who: who(sql`t.user_id`),
			family: sql`t.family`,
			list: sql`t.procedure`,
			passed: sql`t.passed`,
			'ended at': moment(sql`t.ended_at`)
		}
	},
	'hand-outs': {
		at: sql`h.handed_at`,
		from: sql`custody t join hand_out h on h.id = t.hand_out_id`,
		key: { column: 't.id', type: 'uuid' },
		cells: {
			id: sql`h.id`,
			number: numberOf(sql`h.wearer_id`),
			tag: tagOf(sql`t.item_id`),
			task: sql`(select task from hazard_plan where id = h.plan_id)`,
			gate: sql`h.outcome`,
			'against the gate because': sql`h.override_reason`,
			'handed at': moment(sql`h.handed_at`),
			'handed by': who(sql`h.handed_by`),
			'back at': moment(sql`t.until`)
		}
	},
	'wash-batches': {
		at: sql`t.ended_at`,
		from: sql`wash_batch t`,
		where: sql`t.ended_at is not null`,
		key: { column: 't.id', type: 'uuid' },
		cells: {
			id: sql`t.id`,
			number: sql`t.number`,
			'started at': moment(sql`t.started_at`),
			'ended at': moment(sql`t.ended_at`),
			agent: sql`t.agent`,
			'dose ppm': sql`t.dose_ppm`,
			'contact min': sql`t.contact_min`,
			outcome: sql`t.outcome`,
			decision: sql`t.decision`,
			items: sql`(select count(*)::int from wash_batch_item w where w.batch_id = t.id and w.taken_out_at is null)`
		}
	},
	filters: {
		from: sql`filter_lot t join filter_model m on m.id = t.model_id`,
		key: { column: 't.id', type: 'uuid' },
		cells: {
			filter: sql`m.name`,
			lot: sql`t.lot`,
			'use by': day(sql`t.use_by`),
			sealed: sql`t.sealed_quantity`,
			location: sql`t.location`,
			'recalled at': moment(sql`t.recalled_at`)
		}
	},
	parts: {
		from: sql`part_lot t`,
		key: { column: 't.id', type: 'uuid' },
		cells: {
			part: sql`t.part`,
			lot: sql`t.lot`,
			quantity: sql`t.quantity`,
			'use by': day(sql`t.use_by`),
			location: sql`t.location`
		}
	},
	rules: {
		from: sql`due_rule t`,
		key: { column: 't.id', type: 'uuid' },
		cells: {
			id: sql`t.id`,
			what: sql`t.what`,
			detail: sql`t.detail`,
			'every months': sql`t.every_months`,
			'every days': sql`t.every_days`,
			'every uses': sql`t.every_uses`,
			'every hours': sql`t.every_hours`,
			'every cycles': sql`t.every_cycles`,
			after: sql`t.after_event`,
			window: sql`t.window_days`,
			families: sql`array_to_string(t.families, ' ')`,
			model: modelOf(sql`t.model_id`),
			use: sql`t.use_pattern`,
			place: placeOf(sql`t.place_id`),
			replaces: sql`t.replaces`,
			reason: sql`t.reason`,
			'ended on': day(sql`t.ended_on`)
		}
	},
	log: {
		at: sql`t.at`,
		from: sql`audit_entry t`,
		key: { column: 't.seq', type: 'bigint' },
		cells: {
			entry: sql`t.seq::int`,
			at: moment(sql`t.at`),
			who: who(sql`t.actor_id`),
			action: sql`t.action`,
			subject: sql`t.subject`,
			tag: tagOf(sql`t.item_id`),
			payload: sql`t.payload`,
			'previous hash': sql`t.prev_hash`,
			hash: sql`t.hash`
		}
	}
};

/** Where a page ends: what the next one begins after. */
const KEY = 'page key';

/** Whether a text is a key of a register, as a page names the one that it ended with. */
export const isKeyOf = (register: RegisterKey, text: string): boolean =>
	({
		uuid: /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/,
		bigint: /^\d{1,15}$/,
		text: /^[^\0]{1,200}$/
	})[SOURCES[register].key.type].test(text);

/** Rows of a register in the order of their keys, after one, of a period where it has one. @returns also the key of the last row */
export async function registerRows(
	db: Connection,
	register: RegisterKey,
	asked: { after: string | null; from?: Date | undefined; to?: Date | undefined; limit: number }
): Promise<{ rows: RegisterRow[]; last: string | null }> {
	const { at, from, where, key, cells } = SOURCES[register] as Source<string>;
	const column = sql.raw(key.column);
	const conditions = [
		where,
		asked.after === null ? undefined : sql`${column} > ${asked.after}::${sql.raw(key.type)}`,
		at && asked.from ? sql`${at} >= ${asked.from.toISOString()}::timestamptz` : undefined,
		at && asked.to ? sql`${at} < ${asked.to.toISOString()}::timestamptz` : undefined
	].filter((one) => one !== undefined);
	const columns = Object.entries(cells).map(([name, of]) => sql`${of} as ${sql.identifier(name)}`);
	const { rows } = await db.execute<RegisterRow>(sql`
		select ${sql.join(columns, sql`, `)}, ${column}::text as ${sql.identifier(KEY)}
		from ${from}
		${conditions.length ? sql`where ${sql.join(conditions, sql` and `)}` : sql``}
		order by ${column} limit ${asked.limit}`);
	return {
		last: (rows.at(-1)?.[KEY] as string | undefined) ?? null,
		rows: rows.map(({ [KEY]: _, ...row }) => row)
	};
}
