// Mixed use at a steady rate: pages, what pages fetch on the way, gauges, inspections with their answers,
// streams that come and go. Each minute what every process holds.
import { setTimeout as pause } from 'node:timers/promises';
import postgres from 'postgres';
import { Chance } from '../src/core/stats/chance.ts';
import { inspecting, reading, worldOf } from './chaos/deeds.ts';
import { type Client, type Deed, Writer } from './chaos/writers.ts';
import { heldBy, type Held } from './lib/held-by.ts';
import { shareOf } from './lib/share.ts';
import { signInDemo } from './lib/sign-in.mjs';
import { tableHead, tableRow } from './lib/table.ts';

const MINUTES = Number(process.env.SOAK_MINUTES ?? 60);
const PER_SECOND = Number(process.env.SOAK_RATE ?? 20);
const PRINT_EVERY = Math.max(1, Math.round(MINUTES / 12));
const MINUTE_MS = 60_000;
const address = process.env.BENCH_ADDRESS ?? '';
const pid = Number(process.env.SOAK_PID);

const dice = new Chance(1);
const sql = postgres(process.env.GREVAN_OWNER_URL ?? '', { max: 1, onnotice: () => {} });
await sql`update site set proof_minutes = 120, idle_minutes = 720`;
const clients: Client[] = [];
for (const name of ['ilse', 'odd', 'tove', 'bram'])
	clients.push({
		address,
		cookie: (await signInDemo(address, `${name}@osmund.example`)).join('; '),
		person: `demo-${name}`
	});
const things = await worldOf(sql);
const tags = (
	await sql<{ tag: string }[]>`select tag from item where retired_on is null order by tag limit 500`
).map(({ tag }) => tag);
const PAGES = [
	...['/', '/items', '/items?q=duo', '/items?state=due', '/plan', '/hazards', '/filters'],
	...['/filters/opened', '/faults', '/people', '/counter', '/wash', '/records', '/bench', '/air']
];
const DATA = ['/items/__data.json', '/hazards/__data.json', '/api/here'];

const times: number[] = [];
let [asked, failed] = [0, 0];
let over = false;

async function get(path: string): Promise<void> {
	const { cookie } = dice.pick(clients);
	const began = performance.now();
	asked++;
	try {
		const response = await fetch(address + path, { headers: { cookie }, redirect: 'manual' });
		await response.arrayBuffer();
		if (response.status >= 500) failed++;
		times.push(performance.now() - began);
	} catch {
		failed++;
	}
}

/** Listens to a stream for a while and goes. */
async function listen(path: string): Promise<void> {
	const { cookie } = dice.pick(clients);
	const gone = new AbortController();
	asked++;
	try {
		const response = await fetch(address + path, { headers: { cookie }, signal: gone.signal });
		const reader = response.body?.getReader();
		await reader?.read();
		await pause(dice.int(1000, 20_000));
		gone.abort();
	} catch {
		// It is gone.
	}
}

/** Writers who go on by themselves; each rests so long that together they come to a tenth of the rate. */
const rounds = [inspecting(things.masks), reading(things.cylinders[0] ?? '')];
const writers = rounds.map((round, i) => {
	const writer = new Writer(clients[i % 2] ?? clients[0]!, new Chance(i + 2), () => over);
	const work = writer.run(async (one) => {
		const before = one.deeds.length;
		await round(one);
		const sent = one.deeds.length - before;
		await pause((sent * 1000 * rounds.length) / (PER_SECOND / 10));
	});
	return { writer, work };
});

const deedsThat = (state: Deed['state']) =>
	writers.flatMap(({ writer }) => writer.deeds).filter((deed) => deed.state === state);

async function held(): Promise<Held> {
	const [database] = await sql<{ connections: number; mb: number }[]>`
		select (select count(*)::int from pg_stat_activity where datname = current_database()) as connections,
			(pg_database_size(current_database()) / 1e6)::float8 as mb`;
	return {
		...heldBy(pid),
		connections: database?.connections ?? 0,
		databaseMb: database?.mb ?? 0
	};
}

const HEADS = [
	'minute',
	'web MB',
	'keeper MB',
	'descriptors',
	'connections',
	'database MB',
	'asked',
	'written',
	'failed',
	'median ms',
	'p97.5 ms'
];
console.log(`\n${PER_SECOND} requests a second for ${MINUTES} minutes`);
console.log(tableHead(HEADS));
const kept: (Held & { minute: number })[] = [];
const began = Date.now();
const say = (minute: number, now: Held) => {
	const written = deedsThat('taken').length;
	console.log(
		tableRow([
			minute,
			now.webMb.toFixed(0),
			now.keeperMb.toFixed(0),
			now.descriptors,
			now.connections,
			now.databaseMb.toFixed(0),
			asked + written,
			written,
			failed,
			shareOf(times, 0.5, 1),
			shareOf(times, 0.975, 1)
		])
	);
	times.length = 0;
};
const first = await held();
say(0, first);
const ticking = (async () => {
	const perTick = 1000 / (PER_SECOND * 0.9);
	for (let n = 0; !over; n++) {
		const due = began + n * perTick;
		if (due > Date.now()) await pause(due - Date.now());
		const chance = dice.next();
		if (chance < 0.01) void listen('/api/board/events');
		else if (chance < 0.1) void get(dice.pick(DATA));
		else if (chance < 0.4) void get(`/items/${dice.pick(tags)}`);
		else void get(dice.pick(PAGES));
	}
})();
for (let minute = 1; minute <= MINUTES; minute++) {
	await pause(began + minute * MINUTE_MS - Date.now());
	const now = await held();
	kept.push({ ...now, minute });
	if (minute % PRINT_EVERY === 0 || minute === MINUTES) say(minute, now);
}
over = true;
await Promise.all([ticking, ...writers.map(({ work }) => work)]);
await pause(25_000);
const last = await held();
console.log(
	`\nat rest after it: ${last.descriptors} descriptors (${first.descriptors} before), ${last.connections} connections (${first.connections} before)`
);
// What is filled once, such as pages that are kept, belongs to the first third.
const later = kept.slice(Math.floor(kept.length / 3));
console.log(`web: ${slope(later, 'webMb')} MB an hour, keeper: ${slope(later, 'keeperMb')}`);
const refused = deedsThat('refused');
if (refused.length) console.log(`refused: ${refused.length}, such as ${refused[0]?.says}`);
await sql.end();

/** By how much a figure grows, per hour, as a line through its minutes. */
function slope(rows: readonly (Held & { minute: number })[], of: 'webMb' | 'keeperMb'): string {
	const mean = (list: number[]) => list.reduce((a, b) => a + b, 0) / list.length;
	const [x, y] = [mean(rows.map((row) => row.minute)), mean(rows.map((row) => row[of]))];
	const up = rows.reduce((sum, row) => sum + (row.minute - x) * (row[of] - y), 0);
	const along = rows.reduce((sum, row) => sum + (row.minute - x) ** 2, 0);
	return ((up / along) * 60).toFixed(1);
}
