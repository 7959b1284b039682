// The pages at many users: answers a second while nothing is recorded, and with a record each second; what a page costs
// that is made anew, as the database itself counts it.
import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import autocannon from 'autocannon';
import postgres from 'postgres';
import { worldOf } from './chaos/deeds.ts';
import { sendForm } from './chaos/writers.ts';
import { signInDemo } from './lib/sign-in.mjs';
import { tableHead, tableRow } from './lib/table.ts';

const USERS = 50;
const SECONDS = Number(process.env.BENCH_SECONDS ?? 5);
const TIMES = 5;
const address = process.env.BENCH_ADDRESS ?? '';
const sql = postgres(process.env.GREVAN_OWNER_URL ?? '', { max: 1, onnotice: () => {} });
const cookie = (await signInDemo(address, 'ilse@osmund.example')).join('; ');
const ilse = { address, cookie, person: 'demo-ilse' };
const cylinder = (await worldOf(sql)).cylinders[0] ?? '';
const [item] = await sql<{ tag: string }[]>`
	select tag from item where family = 'half-mask' order by tag offset 100 limit 1`;

const PAGES = [
	'/',
	'/items',
	'/items?q=duo&page=20',
	'/items?sort=due',
	`/items/${item?.tag}`,
	`/items/${item?.tag}/history`,
	'/plan',
	'/hazards',
	'/filters',
	'/filters/opened',
	'/faults',
	'/people',
	'/counter',
	'/counter/where',
	'/wash',
	'/records',
	'/bench',
	'/air',
	'/search?q=duo'
];

let bar = 20;
/** Writes a record, so that whatever is kept of pages is made anew. */
async function record(): Promise<void> {
	bar = Number((bar + 0.1).toFixed(1));
	const fields = { requestId: randomUUID(), pressure: `${bar} bar` };
	const path = `/air/cylinders/${cylinder}?/pressure`;
	// Under load an answer may come too late: sent again, it is the same record.
	let answer = await sendForm(ilse, path, fields);
	while (!answer) answer = await sendForm(ilse, path, fields);
	if (!answer.taken) throw new Error(`No record was made: ${answer.says}`);
}

async function load(path: string) {
	const { requests, latency, errors, non2xx } = await autocannon({
		url: address + path,
		connections: USERS,
		duration: SECONDS,
		headers: { cookie }
	});
	return { perSecond: requests.average, p975: latency.p97_5, wrong: errors + non2xx };
}

/** A page made anew some times: how long it takes, and what of that are its statements. */
async function anew(path: string) {
	const all: { ms: number; sqlMs: number; statements: number; longest: number }[] = [];
	for (let i = 0; i < TIMES; i++) {
		await record();
		await pause(100);
		await sql`select pg_stat_statements_reset()`;
		const began = performance.now();
		const response = await fetch(address + path, { headers: { cookie }, redirect: 'manual' });
		await response.arrayBuffer();
		const ms = performance.now() - began;
		// What the keeper and the messages ask meanwhile is not the page's.
		const rows = await sql<{ calls: number; ms: number; longest: number }[]>`
			select calls::int, total_exec_time as ms, max_exec_time as longest from pg_stat_statements
			where query ilike 'select%' or query ilike 'with%' or query ilike '(select%'`;
		const sum = (of: (row: (typeof rows)[number]) => number) =>
			rows.reduce((total, row) => total + of(row), 0);
		all.push({
			ms,
			sqlMs: sum((row) => row.ms),
			statements: sum((row) => row.calls),
			longest: Math.max(0, ...rows.map((row) => row.longest))
		});
	}
	return all.sort((a, b) => a.ms - b.ms)[Math.floor(TIMES / 2)];
}

await sql`create extension if not exists pg_stat_statements`;
const [size] = await sql<{ items: number; answers: number; entries: number; mb: number }[]>`
	select (select count(*)::int from item) as items, (select count(*)::int from inspection_answer) as answers,
		(select seq::int from audit_head) as entries, (pg_database_size(current_database()) / 1e6)::int as mb`;
console.log(
	`\n${size?.items} items, ${size?.answers} answers, ${size?.entries} entries of the log, ${size?.mb} MB; ${USERS} users, ${SECONDS} s each`
);
const HEADS = [
	'page',
	'answers/s',
	'p97.5 ms',
	'with a record a second',
	'p97.5 ms',
	'made anew, ms',
	'its SQL, ms',
	'longest',
	'statements',
	'page : SQL'
];
console.log(tableHead(HEADS, 1));
for (const path of PAGES) {
	const fresh = await anew(path);
	const quiet = await load(path);
	let busy = true;
	const writing = (async () => {
		while (busy) await Promise.all([record(), pause(1000)]);
	})();
	const written = await load(path);
	busy = false;
	await writing;
	const figures = [
		quiet.perSecond.toFixed(0),
		quiet.p975.toFixed(0),
		written.perSecond.toFixed(0),
		written.p975.toFixed(0),
		fresh?.ms.toFixed(0),
		fresh?.sqlMs.toFixed(1),
		fresh?.longest.toFixed(1),
		fresh?.statements,
		((fresh?.ms ?? 0) / (fresh?.sqlMs ?? 1)).toFixed(1)
	];
	const wrong = quiet.wrong + written.wrong;
	console.log(`${tableRow([path, ...figures])}${wrong ? ` ${wrong} not 2xx` : ''}`);
}
await sql.end();
