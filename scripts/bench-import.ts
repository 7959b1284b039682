// Fifty thousand items from a table: how long they take to come in, how far one is told while they do, and back out.
import { randomUUID } from 'node:crypto';
import postgres from 'postgres';
import { openDatabase } from '../src/lib/server/db/client.ts';
import { closeHeavy } from '../src/lib/server/jobs/heavy.ts';
import type { Context } from '../src/lib/server/kernel/context.ts';
import { loadSite } from '../src/lib/server/kernel/site.ts';
import { progressOf } from '../src/lib/server/register/progress.ts';
import { importItems, previewItems } from '../src/lib/server/register/register.ts';
import { takeBack } from '../src/lib/server/register/tables.ts';

const ROWS = 50_000;
const ASK_MS = 500;
const url = process.env.DATABASE_URL ?? '';
const sql = postgres(process.env.GREVAN_OWNER_URL ?? url, { max: 1, onnotice: () => {} });
const { db, close } = openDatabase(url);
const [person] = await sql<{ id: string; name: string; initials: string }[]>`
	select id, name, initials from "user" where role = 'technician' limit 1`;
const [names] = await sql<{ model: string; place: string }[]>`
	select (select name from item_model where family = 'half-mask' limit 1) as model,
		(select name from place limit 1) as place`;
if (!person || !names) throw new Error('The demo is not there.');
const context: Context = {
	db,
	site: await loadSite(db),
	now: () => new Date(),
	actor: { ...person, role: 'technician' },
	proof: { at: new Date(), by: 'password' }
};
const lines = Array.from(
	{ length: ROWS },
	(_, i) => `Z-${100_000 + i},${names.model},${names.place}`
);
const bytes = new TextEncoder().encode(['tag,model,place', ...lines].join('\n'));
const seconds = (from: number) => ((performance.now() - from) / 1000).toFixed(1);

let at = performance.now();
await previewItems(context, bytes);
console.log(`looked at ${ROWS.toLocaleString('en-GB')} rows            ${seconds(at)} s`);
const id = randomUUID();
let told = 0;
const timer = setInterval(() => {
	void progressOf(context, id).then((row) => {
		if (row) told++;
	});
}, ASK_MS);
at = performance.now();
await importItems(context, { id, file: bytes, leaveOutBad: false });
clearInterval(timer);
console.log(`taken in with their states          ${seconds(at)} s, told how far ${told} times`);
at = performance.now();
const { rows } = await takeBack(context, { requestId: randomUUID(), id });
console.log(`taken back ${rows.toLocaleString('en-GB')}                   ${seconds(at)} s`);
await closeHeavy();
await close();
await sql.end();
