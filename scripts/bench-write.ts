// Fifty people answer the steps of fifty inspections at once: answers a second, and for how long each held the end
// of the chain of the log, by the clock of the database.
import { randomUUID } from 'node:crypto';
import { shareOf } from './lib/share.ts';
import postgres from 'postgres';
import { procedureFor } from '../src/core/data/procedures.ts';
import { openDatabase } from '../src/lib/server/db/client.ts';
import { answer } from '../src/lib/server/inspection/answers.ts';
import { startRun } from '../src/lib/server/inspection/runs.ts';
import type { Context } from '../src/lib/server/kernel/context.ts';
import { loadSite } from '../src/lib/server/kernel/site.ts';

const WRITERS = 50;
const url = process.env.DATABASE_URL ?? '';
// What is looked at beside the application, with a table of the measurement's own, is the owner's to do.
const sql = postgres(process.env.GREVAN_OWNER_URL ?? url, { max: 1, onnotice: () => {} });
const { db, close } = openDatabase(url);
const site = await loadSite(db);
const [person] = await sql<{ id: string; name: string; initials: string }[]>`
	select id, name, initials from "user" where role = 'technician' limit 1`;
if (!person) throw new Error('The demo has no technician.');
const context: Context = {
	db,
	site,
	now: () => new Date(),
	actor: { ...person, role: 'technician' },
	proof: { at: new Date(), by: 'password' }
};
const steps = procedureFor('half-mask').steps;
const masks = await sql<{ tag: string }[]>`
	select tag from item where family = 'half-mask' and retired_on is null
		and id not in (select item_id from inspection_run where signed_at is null) order by tag limit ${WRITERS}`;
const runs = await Promise.all(
	masks.map(({ tag }) => startRun(context, { id: randomUUID(), tag }))
);

// Written beside each entry as soon as it has its place in the chain; the commit has a time of its own.
await sql`create table chain_taken (seq bigint, at timestamptz)`;
await sql.unsafe(`create function note_chain_taken() returns trigger language plpgsql as $$
begin insert into chain_taken values (new.seq, clock_timestamp()); return new; end $$`);
await sql`create trigger note_chain_taken after insert on audit_entry for each row execute function note_chain_taken()`;

const taken: number[] = [];
const began = performance.now();
await Promise.all(
	runs.map(async ({ id: runId }) => {
		for (const step of steps) {
			const at = performance.now();
			await answer(context, {
				id: randomUUID(),
				runId,
				step: step.key,
				value: step.ifFitted ? 'not fitted' : 'good',
				seen: 1000
			});
			taken.push(performance.now() - at);
		}
	})
);
const seconds = (performance.now() - began) / 1000;
const held = await sql<{ ms: number }[]>`
	select extract(epoch from pg_xact_commit_timestamp(xmin) - at) * 1000 as ms from chain_taken order by ms`;
const ms = held.map((row) => Number(row.ms));
console.log(`\n${runs.length} writers, ${taken.length} answered steps in ${seconds.toFixed(1)} s`);
console.log(`answers a second             ${(taken.length / seconds).toFixed(0).padStart(8)}`);
console.log(`one answer, median           ${shareOf(taken, 0.5, 2).padStart(8)} ms`);
console.log(`one answer, p97.5            ${shareOf(taken, 0.975, 2).padStart(8)} ms`);
console.log(`chain held, median           ${shareOf(ms, 0.5, 2).padStart(8)} ms`);
console.log(`chain held, p97.5            ${shareOf(ms, 0.975, 2).padStart(8)} ms`);
console.log(`chain held, longest          ${shareOf(ms, 0.9999, 2).padStart(8)} ms`);

// The commit's own time is taken before it is on the disk. Writers that do nothing else than add an entry stand in
// line for the chain, so that a second over their number is the most that one of them held it, the disk included.
const LINE = 10;
const LASTS_MS = 3000;
const line = postgres(url, { max: LINE, onnotice: () => {} });
const until = performance.now() + LASTS_MS;
let chained = 0;
await Promise.all(
	Array.from({ length: LINE }, async () => {
		for (; performance.now() < until; chained++)
			await line`insert into audit_pending (action, subject, payload) values ('bench', 'bench:0', '{}')`;
	})
);
console.log(`${LINE} writers of nothing but entries: ${chained} in ${LASTS_MS / 1000} s`);
console.log(
	`chain held, disk included    ${(LASTS_MS / chained).toFixed(2).padStart(8)} ms at most`
);
await line.end();
await close();
await sql.end();
