import { type SQL, sql } from 'drizzle-orm';
import { containing } from './contains.ts';
import type { Found } from '../../../../core/search/rank.ts';
import type { Connection } from '../client.ts';

/** Of what happened to one item again and again, the last few. */
const LAST_OF_EACH = 5;
/** Of each kind so many are given; which of them come first is not the database's to say. */
const OF_EACH = 40;

/** Tags are in capitals, so that their index of trigrams serves. */
const tagLike = (word: string) => sql`like ${containing(word).toUpperCase()}`;
const itemsTagged = (word: string) => sql`(select id from item where tag ${tagLike(word)})`;

/** A word in the tag, the model, the place or the serial number of an item. */
const itemHas = (word: string): SQL => {
	const like = containing(word);
	return sql`(i.tag ${tagLike(word)} or i.serial ilike ${like}
		or i.model_id in (select id from item_model where name ilike ${like})
		or i.place_id in (select id from place where name ilike ${like}))`;
};

/** The number of a pair as it stands on its label, with the letters before it or without. */
const PAIR_NUMBER = /^(?:fp-?)?(\d{1,9})$/i;

/** A word that is the number of a pair, or stands in the tag of its mask, its filter or its lot. */
const pairHas = (word: string): SQL => {
	const like = containing(word);
	const number = PAIR_NUMBER.exec(word)?.[1];
	return sql`(${number ? sql`f.number = ${Number(number)}` : sql`${'FP-'} ilike ${like}`}
		or f.item_id in ${itemsTagged(word)}
		or f.lot_id in (select l.id from filter_lot l join filter_model m on m.id = l.model_id
			where m.name ilike ${like} or l.lot ilike ${like}))`;
};

const testHas = (word: string): SQL => {
	const like = containing(word);
	return sql`('test' ilike ${like} or b.recipe ilike ${like} or b.outcome ilike ${like} or b.item_id in ${itemsTagged(word)})`;
};

const fillHas = (word: string): SQL => {
	const like = containing(word);
	return sql`('fill filled' ilike ${like} or s.name ilike ${like} or c.item_id in ${itemsTagged(word)})`;
};

/** Everything that carries each of some words in its name or in what is said of it. */
export async function findWords(db: Connection, words: readonly string[]): Promise<Found[]> {
	if (words.length === 0) return [];
	/** Each word stands somewhere in a text: for lists that are read whole. */
	const all = (text: SQL) => each((word) => sql`${text} ilike ${containing(word)}`);
	/** Each word by the way that finds it: for lists that are too long to be read. */
	const each = (found: (word: string) => SQL) => sql.join(words.map(found), sql` and `);
	const { rows } = await db.execute<Found & Record<string, unknown>>(sql`
		(select 'item' as kind, i.tag as name, m.name || ', ' || p.name || case when i.serial = '' then '' else ', ' || i.serial end as detail,
				'/items/' || i.tag as href
			from item i join item_model m on m.id = i.model_id join place p on p.id = i.place_id
			where ${each(itemHas)} order by i.tag limit ${OF_EACH})
		union all
		(select 'plan', h.task, 'plan ' || h.number || ', ' || p.name, '/hazards/' || h.id
			from hazard_plan h join place p on p.id = h.place_id
			where ${all(sql`(h.task || ' plan ' || h.number || ' ' || p.name)`)} order by h.number desc limit ${OF_EACH})
		union all
		(select 'lot', l.lot, m.name || ', ' || l.location, '/filters/lots/' || l.id
			from filter_lot l join filter_model m on m.id = l.model_id
			where ${all(sql`(l.lot || ' ' || m.name || ' ' || l.location)`)} order by l.lot limit ${OF_EACH})
		union all
		(select 'filter', m.name, concat_ws(', ', m.code_en, m.code_us, m.mount), '/filters/store'
			from filter_model m
			where ${all(sql`concat_ws(' ', m.name, m.code_en, m.code_us, m.mount)`)} order by m.name limit ${OF_EACH})
		union all
		(select 'model', m.name, m.maker, '/items/models/' || m.id from item_model m
			where ${all(sql`(m.name || ' ' || m.maker)`)} order by m.name limit ${OF_EACH})
		union all
		(select 'place', p.name, p.kind, '/items?place=' || p.id from place p
			where p.closed_on is null and ${all(sql`(p.name || ' ' || p.kind)`)} order by p.name limit ${OF_EACH})
		union all
		(select 'fault', i.tag || ', ' || d.code, d.note, '/faults/' || d.id
			from defect d join item i on i.id = d.item_id
			where d.closed_at is null and ${all(sql`(i.tag || ' ' || d.code || ' ' || coalesce(d.note, ''))`)} order by i.tag limit ${OF_EACH})
		union all
		(select 'part', l.lot, l.part || case when l.location = '' then '' else ', ' || l.location end, '/faults/parts'
			from part_lot l
			where ${all(sql`(l.lot || ' ' || l.part || ' ' || l.location)`)} order by l.lot limit ${OF_EACH})
		union all
		(select 'pair', 'FP-' || lpad(f.number::text, 4, '0'), i.tag || ', ' || m.name, '/filters/pairs/FP-' || lpad(f.number::text, 4, '0')
			from filter_pair f join item i on i.id = f.item_id join filter_lot l on l.id = f.lot_id join filter_model m on m.id = l.model_id
			where ${each(pairHas)}
			order by f.number desc limit ${LAST_OF_EACH})
		union all
		(select 'test', i.tag || ', test ' || b.recipe, b.outcome || ', ' || to_char(b.started_at, 'FMDD Mon YYYY'), '/bench/' || b.id
			from bench_test b join item i on i.id = b.item_id
			where b.outcome is not null and ${each(testHas)}
			order by b.started_at desc limit ${LAST_OF_EACH})
		union all
		(select 'fill', i.tag || ', filled', s.name || ', ' || to_char(c.ended_at, 'FMDD Mon YYYY'), '/air/cylinders/' || i.tag
			from cylinder_fill c join item i on i.id = c.item_id join fill_batch b on b.id = c.batch_id join air_source s on s.id = b.source_id
			where c.ended_at is not null and ${each(fillHas)}
			order by c.ended_at desc limit ${LAST_OF_EACH})
		union all
		(select 'wearer', w.name, 'number ' || w.number, '/people/' || w.id from wearer w
			where w.left_on is null and ${all(sql`(w.name || ' ' || w.number)`)} order by w.name limit ${OF_EACH})
		union all
		(select 'person', u.name, u.role::text, '/settings/accounts/' || u.id from "user" u
			where u.disabled_at is null and ${all(sql`(u.name || ' ' || u.role::text)`)} order by u.name limit ${OF_EACH})`);
	return rows.map(({ kind, name, detail, href }) => ({ kind, name, detail: detail ?? '', href }));
}
