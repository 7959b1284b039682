// Mutated requests, bounded and seeded. Fails where the server itself fails or takes too long.
import postgres from 'postgres';
import { Chance } from '../src/core/stats/chance.ts';
import { HOSTILE, strangeJson } from './fuzz/mutate.ts';
import { targets, type Target } from './fuzz/targets.ts';
import { signInDemo } from './lib/sign-in.mjs';

const REQUESTS = Number(process.env.FUZZ_REQUESTS ?? 20_000);
const SEED = Number(process.env.FUZZ_SEED ?? 1);
const AT_ONCE = 8;
/** An answer that takes longer is a fault: the page hangs. Beside other work nothing is told by the clock. */
const MOST_MS = Number(process.env.FUZZ_MOST_MS ?? 2000);
/** So many faults are printed. */
const SHOWN = 25;
const address = process.env.FUZZ_ADDRESS ?? '';
const dice = new Chance(SEED);
const chance = (share: number) => dice.next() < share;

const sql = postgres(process.env.DATABASE_URL ?? '', { max: 2, onnotice: () => {} });
const tables = await sql<{ name: string }[]>`
	select table_name as name from information_schema.columns
	where table_schema = 'public' and column_name = 'id' and data_type = 'uuid' order by 1`;
const ids: string[] = [];
for (const { name } of tables)
	ids.push(
		...(await sql`select id::text as id from ${sql(name)} limit 4`).map((r) => String(r.id))
	);
const tags = (await sql`select tag from item order by tag`).map((row) => String(row.tag));
const people = await sql<{ email: string; role: string }[]>`
	select distinct on (role) email, role::text as role from "user" order by role, email`;
await sql.end();

const all = targets();
const cookies = new Map<string, string>([['nobody', '']]);
for (const { email, role } of people)
	cookies.set(role, (await signInDemo(address, email)).join('; '));
const roles = [...cookies.keys()];

interface Asked {
	role: string;
	target: Target;
	url: string;
	init: RequestInit;
}

/** A value that may fit. */
function likely(target: Target): string {
	const kinds = [ids, tags, target.words, ['1', '12.5', '2026-11-26', 'good', crypto.randomUUID()]];
	const kind = dice.pick(kinds.filter((list) => list.length > 0));
	return dice.pick(kind);
}

const value = (target: Target) => (chance(0.55) ? likely(target) : dice.pick(HOSTILE));

function pathOf(target: Target): string {
	const filled = target.route.replace(/\[(\w+)\]/g, (_, name: string) => {
		const fits = name === 'tag' ? tags : ids;
		const word = chance(0.75) ? dice.pick(fits) : dice.pick(HOSTILE);
		// An address carries no half of a character, and no path that leads elsewhere.
		return encodeURIComponent(word.toWellFormed().slice(0, 200) || 'x');
	});
	const query = new URLSearchParams();
	if (target.kind !== 'action')
		for (let n = dice.int(0, 2); n > 0; n--)
			query.set(dice.pick(target.names), value(target).slice(0, 3000));
	const asked = query.size ? `?${query.toString()}` : '';
	return filled + (target.action && target.action !== 'default' ? `?/${target.action}` : asked);
}

function bodyOf(target: Target): { body: BodyInit; type?: string } {
	const fields = target.names.filter(() => chance(0.7));
	switch (dice.int(0, target.kind === 'action' ? 6 : 11)) {
		case 0:
			return {
				body: dice.pick(HOSTILE),
				type: dice.pick(['text/plain', 'application/json', 'a/b'])
			};
		case 1:
			return {
				body: '--x\r\nContent-Disposition: form-data; name="id"\r\n\r\n',
				type: 'multipart/form-data; boundary=x'
			};
		case 2: {
			const form = new FormData();
			for (const name of fields) form.append(name, value(target));
			form.set('file', new File([dice.pick(HOSTILE)], `${dice.pick(['a.csv', 'b.png', '..\\c'])}`));
			return { body: form };
		}
		case 3:
		case 4:
		case 5:
		case 6: {
			const form = new URLSearchParams();
			for (const name of fields) form.append(chance(0.1) ? `${name}[]` : name, value(target));
			return { body: form };
		}
		case 7:
			return {
				body: '['.repeat(dice.pick([10, 5000, 100_000])),
				type: 'application/json'
			};
		case 8:
			return {
				body: JSON.stringify(strangeJson(dice, () => dice.pick(target.names))),
				type: 'application/json'
			};
		default:
			return {
				body: JSON.stringify(
					Object.fromEntries(
						fields.map((name) => [
							name,
							chance(0.6)
								? value(target)
								: strangeJson(dice, () => dice.pick([...target.names, ...ids]))
						])
					)
				),
				type: 'application/json'
			};
	}
}

function next(): Asked {
	const target = dice.pick(all);
	// Who signs out is gone for the rest of it.
	const role = target.route === '/sign-out' ? 'nobody' : dice.pick(roles);
	const method = chance(0.95) ? target.method : dice.pick(['PUT', 'DELETE', 'PATCH', 'OPTIONS']);
	const headers: Record<string, string> = { origin: address };
	const cookie = cookies.get(role);
	if (cookie) headers.cookie = cookie;
	if (chance(0.5)) headers.accept = 'text/html';
	if (target.kind === 'action' && chance(0.5)) {
		headers.accept = 'application/json';
		headers['x-sveltekit-action'] = 'true';
	}
	const init: RequestInit = { method, headers, redirect: 'manual' };
	if (!['GET', 'OPTIONS'].includes(method)) {
		const { body, type } = bodyOf(target);
		init.body = body;
		if (type) headers['content-type'] = type;
	}
	return { role, target, url: pathOf(target), init };
}

const counts = new Map<string, Record<string, number>>();
const faults: string[] = [];
let [slowest, bad] = [0, 0];

async function send({ role, target, url, init }: Asked): Promise<void> {
	const began = performance.now();
	const what = `${role} ${init.method} ${url.slice(0, 160)}`;
	let status: number;
	try {
		const response = await fetch(address + url, { ...init, signal: AbortSignal.timeout(20_000) });
		({ status } = response);
		const endless = response.headers.get('content-type')?.includes('event-stream');
		if (endless) await response.body?.cancel();
		else {
			const text = await response.text();
			// A form answers 200 and says inside what became of it.
			if (status === 200 && /^\{"type":"error"/.test(text))
				status = Number((JSON.parse(text) as { status?: number }).status ?? 500);
		}
	} catch (error) {
		status = 599;
		faults.push(`no answer: ${what}: ${String((error as Error).cause ?? error)}`);
	}
	const ms = performance.now() - began;
	slowest = Math.max(slowest, ms);
	const row = counts.get(role) ?? {};
	row[`${Math.floor(status / 100)}xx`] = (row[`${Math.floor(status / 100)}xx`] ?? 0) + 1;
	counts.set(role, row);
	if (status >= 500 || ms > MOST_MS) {
		bad++;
		const body = typeof init.body === 'string' || init.body instanceof URLSearchParams;
		faults.push(
			`${status} in ${ms.toFixed(0)} ms: ${what} [${target.kind}] ${body ? String(init.body).slice(0, 300) : ''}`
		);
	}
}

const began = performance.now();
let left = REQUESTS;
await Promise.all(
	Array.from({ length: AT_ONCE }, async () => {
		while (left-- > 0) await send(next());
	})
);
const seconds = (performance.now() - began) / 1000;

console.log(
	`${REQUESTS} mutated requests to ${all.length} pages, actions and endpoints, seed ${SEED}, ${seconds.toFixed(0)} s`
);
console.log(['role      ', '2xx', '3xx', '4xx', '5xx'].map((word) => word.padStart(8)).join(''));
for (const [role, row] of counts)
	console.log(
		[role.padEnd(10), ...['2xx', '3xx', '4xx', '5xx'].map((key) => String(row[key] ?? 0))]
			.map((word) => word.padStart(8))
			.join('')
	);
console.log(`slowest answer ${slowest.toFixed(0)} ms; failures of the server or slow: ${bad}`);
for (const fault of faults.slice(0, SHOWN)) console.log(fault);
process.exitCode = bad ? 1 : 0;
