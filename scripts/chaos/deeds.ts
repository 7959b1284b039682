import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import type postgres from 'postgres';
import { procedureFor } from '../../src/core/data/procedures.ts';
import { type Deed, sendBatch, type Writer } from './writers.ts';

/** What a kind of writer does again and again. */
export type Round = (writer: Writer) => Promise<void>;
const STEPS = procedureFor('half-mask').steps;
const INSPECTION_BATCH = 5;

/** Inspects one mask after the other, in batches, and signs. */
export function inspecting(tags: readonly string[]): Round {
	let next = 0;
	return async (writer) => {
		const tag = tags[next++ % tags.length] ?? '';
		const started = writer.deed('inspection');
		if (!(await writer.form(started, `/items/${tag}?/inspect`, { id: started.id }))) return;
		const parcels = STEPS.map((step) => ({
			deed: writer.deed('answer'),
			url: `/api/runs/${started.id}/answers`,
			body: { step: step.key, value: step.ifFitted ? 'not fitted' : 'good', seen: 1000 }
		}));
		for (let i = 0; i < parcels.length; i += INSPECTION_BATCH)
			await sendAll(writer, parcels.slice(i, i + INSPECTION_BATCH));
		if (parcels.some(({ deed }) => deed.state !== 'taken')) return;
		await sendAll(writer, [
			{
				deed: writer.deed('signature', randomUUID(), started.id),
				url: `/api/runs/${started.id}/sign`,
				body: {}
			}
		]);
	};
}

/** Sends parcels until each is taken or refused. */
async function sendAll(
	writer: Writer,
	parcels: readonly { deed: Deed; url: string; body: object }[]
): Promise<void> {
	const open = () => parcels.filter(({ deed }) => deed.state === 'open');
	await writer.until(async () => {
		const results = await sendBatch(
			writer.client,
			open().map(({ deed, url, body }) => ({ id: deed.id, url, body: { id: deed.id, ...body } }))
		);
		for (const { id, status, body } of results) {
			const deed = parcels.find((parcel) => parcel.deed.id === id)?.deed;
			if (!deed || body.kind === 'proof') continue;
			deed.state = status < 300 ? 'taken' : 'refused';
			deed.says = body.message ?? '';
		}
		return open().length ? null : true;
	});
}

/** Reads the gauge of a cylinder, each time another figure. */
export function reading(tag: string): Round {
	let bar = 20;
	return async (writer) => {
		bar = Number((bar + 0.1).toFixed(1));
		const deed = writer.deed('pressure', randomUUID(), `${tag} ${bar}`);
		await writer.form(deed, `/air/cylinders/${tag}?/pressure`, {
			requestId: deed.id,
			pressure: `${bar} bar`
		});
	};
}

/** Fills a cylinder at the panel, or by hand where the panel is away. */
export function filling(tag: string, sourceId: string): Round {
	return async (writer) => {
		const start = writer.deed('fill');
		const began = await writer.form(start, '/air/filling?/start', {
			id: start.id,
			tag,
			sourceId,
			looked: 'yes'
		});
		if (!began) return;
		const bank = writer.deed('bank', randomUUID(), start.id);
		await writer.form(bank, '/air/filling?/bank', {
			requestId: bank.id,
			fillId: start.id,
			bank: '1'
		});
		const end = writer.deed('fill end', randomUUID(), start.id);
		await writer.form(end, '/air/filling?/finish', {
			requestId: end.id,
			id: start.id,
			byHand: 'yes',
			bar: '300 bar',
			celsius: '15'
		});
	};
}

/** Notes what a wearer felt, as each puts a mask on. */
export function sealing(tag: string, inlet: string): Round {
	return async (writer) => {
		const deed = writer.deed('seal check');
		await writer.form(deed, `/items/${tag}/seal`, {
			id: deed.id,
			wearer: `Wearer ${deed.id.slice(0, 6)}`,
			attempts: JSON.stringify([{ inlet, felt: 'pulled in and held' }])
		});
	};
}

/** A team goes in and somebody tells its gauge, bar by bar; it stays in. */
export function entering(name: string): Round {
	let wearerId = '';
	let bar = 300;
	return async (writer) => {
		if (!wearerId) {
			const [team, wearer] = [writer.deed('team in'), randomUUID()];
			const wearers = [
				{
					id: wearer,
					wearer: name,
					set: '',
					litres: '9',
					start: '300 bar',
					channel: '',
					seal: true
				}
			];
			const fields = { id: team.id, task: 'Chaos', placeId: '', marginMin: '5' };
			if (
				await writer.form(team, '/air/board?/enter', {
					...fields,
					wearers: JSON.stringify(wearers)
				})
			)
				wearerId = wearer;
			return;
		}
		bar = Number((bar - 0.1).toFixed(1));
		const deed = writer.deed('gauge');
		await writer.form(deed, '/air/board?/tell', {
			id: deed.id,
			wearerId,
			pressure: `${bar} bar`
		});
		await pause(400);
	};
}

/** Starts a hold on a bench and leaves: it ends by itself, whoever dies meanwhile. */
export function testing(tag: string, bench: number): Round {
	return async (writer) => {
		const deed = writer.deed('bench test');
		await writer.form(deed, '/bench?/start', {
			id: deed.id,
			tag,
			recipe: 'suit-en',
			bench: String(bench),
			volumeL: '',
			speed: '120'
		});
		await pause(3000);
	};
}

/** What a deed left: rows of its effect, and entries in the log. */
export interface Effect {
	rows: number;
	entries: number;
}

/** How the effects of each kind are found. */
const EFFECTS: Record<string, (sql: postgres.Sql, deed: Deed) => Promise<Effect[]>> = {
	inspection: (sql, { id }) => sql`select
		(select count(*)::int from inspection_run where id = ${id}) as rows,
		(select count(*)::int from audit_entry where action = 'inspection.started' and subject = ${`run:${id}`}) as entries`,
	answer: (sql, { id }) => sql`select
		(select count(*)::int from inspection_answer where id = ${id}) as rows,
		(select count(*)::int from audit_entry e join inspection_answer a on e.subject = 'run:' || a.run_id
			where a.id = ${id} and e.action = 'inspection.answered'
				and e.payload::jsonb ->> 'step' = a.step) as entries`,
	signature: (sql, { mark }) => sql`select
		(select count(*)::int from inspection_run where id = ${mark} and signed_at is not null) as rows,
		(select count(*)::int from audit_entry where action = 'inspection.signed' and subject = ${`run:${mark}`}) as entries`,
	pressure: (sql, { mark }) => {
		const [tag = '', bar = ''] = mark.split(' ');
		// The figure itself is gone with the next one; what stays of each is its entry.
		return sql`select count(*)::int as rows, count(*)::int as entries from audit_entry e
			join item i on i.id = e.item_id and i.tag = ${tag}
			where e.action = 'cylinder.pressure' and (e.payload::jsonb ->> 'bar')::float8 = ${Number(bar)}
				and e.payload::jsonb ->> 'why' = 'read by hand'`;
	},
	fill: (sql, { id }) => sql`select
		(select count(*)::int from cylinder_fill where id = ${id}) as rows,
		(select count(*)::int from audit_entry where action = 'fill.started' and subject = ${`fill:${id}`}) as entries`,
	bank: (sql, { mark }) => sql`select count(*)::int as rows, count(*)::int as entries
		from audit_entry where action = 'fill.bank' and subject = ${`fill:${mark}`}`,
	'fill end': (sql, { mark }) => sql`select
		(select count(*)::int from cylinder_fill where id = ${mark} and ended_at is not null) as rows,
		(select count(*)::int from audit_entry where action = 'fill.ended' and subject = ${`fill:${mark}`}) as entries`,
	'seal check': (sql, { id }) => sql`select
		(select count(*)::int from seal_check where id = ${id}) as rows,
		(select count(*)::int from audit_entry where action = 'seal.checked' and subject = ${`seal:${id}`}) as entries`,
	'team in': (sql, { id }) => sql`select
		(select count(*)::int from entry_team where id = ${id}) as rows,
		(select count(*)::int from audit_entry where action = 'entry.team-in' and subject = ${`entry:${id}`}) as entries`,
	gauge: (sql, { id }) => sql`select
		(select count(*)::int from entry_reading where id = ${id}) as rows,
		(select count(*)::int from audit_entry e join entry_reading r on r.id = ${id}
			join entry_wearer w on w.id = r.wearer_id
			where e.action = 'entry.pressure' and e.subject = 'entry:' || w.team_id
				and (e.payload::jsonb ->> 'bar')::float8 = r.bar) as entries`,
	'bench test': (sql, { id }) => sql`select
		(select count(*)::int from bench_test where id = ${id}) as rows,
		(select count(*)::int from audit_entry where action = 'bench.started' and subject = ${`bench:${id}`}) as entries`
};

/** What came of all deeds. */
export interface Count {
	acknowledged: number;
	refused: number;
	open: number;
	lost: Deed[];
	doubled: Deed[];
	half: Deed[];
}

/** Compares what was acknowledged with what is there. */
export async function countDeeds(sql: postgres.Sql, deeds: readonly Deed[]): Promise<Count> {
	const of = (state: Deed['state']) => deeds.filter((deed) => deed.state === state).length;
	const count: Count = {
		acknowledged: of('taken'),
		refused: of('refused'),
		open: of('open'),
		lost: [],
		doubled: [],
		half: []
	};
	for (const deed of deeds) {
		const [found] = (await EFFECTS[deed.kind]?.(sql, deed)) ?? [];
		if (!found) throw new Error(`Nothing says how a ${deed.kind} is found.`);
		if (found.rows !== found.entries) count.half.push(deed);
		else if (found.rows > 1) count.doubled.push(deed);
		else if (deed.state === 'taken' && found.rows === 0) count.lost.push(deed);
	}
	return count;
}

/** Numbers of the demo's things that each writer has for itself. */
export async function worldOf(sql: postgres.Sql) {
	const tags = async (family: string, most: number) =>
		(
			await sql<{ tag: string }[]>`
				select i.tag from item i join item_state s on s.item_id = i.id
				where i.family = ${family} and i.retired_on is null
					and not exists (select 1 from inspection_run r where r.item_id = i.id and r.signed_at is null)
				order by i.tag limit ${most}`
		).map(({ tag }) => tag);
	const masks = await tags('half-mask', 40);
	const cylinders = (
		await sql<{ tag: string }[]>`
			select i.tag from item i join cylinder c on c.item_id = i.id
			where i.retired_on is null and i.set_id is null and c.rated_bar = 300 order by i.tag`
	).map(({ tag }) => tag);
	const suits = await tags('gas-tight-suit', 4);
	const [source] = await sql<
		{ id: string }[]
	>`select id from air_source where fills order by name limit 1`;
	return { masks, cylinders, suits, source: source?.id ?? '' };
}
