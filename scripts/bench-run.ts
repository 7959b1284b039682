import { chromium } from '@playwright/test';
import autocannon from 'autocannon';
import postgres from 'postgres';
import { findSubstance } from '../src/core/data/substances.ts';
import { adsorbateOf, serviceLife } from '../src/core/filters/service-life.ts';
import { DEFAULT_BED } from '../src/core/filters/wheeler-jonas.ts';
import { DEFAULT_FACTS } from '../src/core/hazards/facts.ts';
import { decide } from '../src/core/hazards/ladder.ts';
import { plan, today } from '../src/lib/server/agenda.ts';
import { history } from '../src/lib/server/audit.ts';
import { actorOf, createAuth } from '../src/lib/server/auth.ts';
import type { Context } from '../src/lib/server/context.ts';
import { openDatabase } from '../src/lib/server/db/client.ts';
import { faultsByStation, openDefects } from '../src/lib/server/faults.ts';
import { listLots, openPairs } from '../src/lib/server/filters.ts';
import { listPlaces, listPlans } from '../src/lib/server/hazards.ts';
import { itemByTag, itemPage, register } from '../src/lib/server/items.ts';
import { loadSite } from '../src/lib/server/site.ts';
import { chromiumPath } from './lib/system.mjs';

const USERS = 50;
const SECONDS = Number(process.env.BENCH_SECONDS ?? 5);
/** What the web process itself holds open. */
const POOL = 10;
const address = process.env.BENCH_ADDRESS ?? '';
const url = process.env.DATABASE_URL ?? '';

type Query = { text: string; parameters: unknown[] };
const seen: Query[] = [];
const { db, close } = openDatabase(url, {
	max: 2,
	onQuery: (text, parameters) => seen.push({ text, parameters })
});
const auth = createAuth(db, { secret: process.env.GREVAN_SECRET ?? '', origin: address });
const cookie = await signIn();
const headers = new Headers({ cookie });
const actor = await actorOf(auth, headers);
if (!actor) throw new Error('The bench could not sign in.');
const context: Context = { db, now: () => new Date(), actor };
const site = await loadSite(db);

/** Each page with the services that its load calls. */
const PAGES: Record<string, () => Promise<unknown>> = {
	'/': () => today(context, site),
	'/items': () => Promise.all([register(context, site, {}, 1), listPlaces(db)]),
	'/items?q=duo&page=20': () =>
		Promise.all([register(context, site, { text: 'duo' }, 20), listPlaces(db)]),
	'/items/HM-5000': () => itemPage(context, site, 'HM-5000'),
	'/items/HM-5000/history': async () =>
		history(context, { itemId: (await itemByTag(db, 'HM-5000')).item.id }),
	'/plan?days=30': () => plan(context, site, 30),
	'/hazards': () => listPlans(db),
	'/filters': () => Promise.all([listPlans(db), openPairs(context, site), listLots(db)]),
	'/faults': () => Promise.all([openDefects(db), faultsByStation(db)])
};

console.log(
	`\nPages at ${USERS} concurrent users, ${SECONDS} s each; beside them the SQL of the same page alone, in the`
);
console.log(`same way: ${USERS} at once over ${POOL} connections.\n`);
console.log(
	'page                          requests/s   mean ms    p97.5   SQL mean   ratio  queries'
);
for (const [path, work] of Object.entries(PAGES)) {
	seen.length = 0;
	await actorOf(auth, headers);
	await loadSite(db);
	await work();
	const queries = [...seen];
	const page = await autocannon({
		url: address + path,
		connections: USERS,
		duration: SECONDS,
		headers: { cookie }
	});
	if (page.non2xx || page.errors)
		console.log(`  ${page.non2xx} answers were not 2xx, ${page.errors} errors`);
	const sql = await bareSql(queries);
	console.log(
		path.padEnd(28),
		page.requests.average.toFixed(0).padStart(11),
		page.latency.mean.toFixed(1).padStart(9),
		page.latency.p97_5.toFixed(0).padStart(8),
		sql.toFixed(1).padStart(10),
		(page.latency.mean / sql).toFixed(1).padStart(7),
		String(queries.length).padStart(8)
	);
}
await close();
await firstLoad();
core();

async function signIn(): Promise<string> {
	const response = await fetch(`${address}/sign-in?/demo`, {
		method: 'POST',
		redirect: 'manual',
		headers: { origin: address, 'content-type': 'application/x-www-form-urlencoded' },
		body: new URLSearchParams({ email: 'ilse@osmund.example' })
	});
	return response.headers
		.getSetCookie()
		.map((c) => c.split(';')[0])
		.join('; ');
}

/** Mean time of all queries of a page, run as often and as many at once as the page itself. */
async function bareSql(queries: Query[]): Promise<number> {
	const client = postgres(url, { max: POOL });
	const until = performance.now() + SECONDS * 1000;
	let [sum, n] = [0, 0];
	await Promise.all(
		Array.from({ length: USERS }, async () => {
			while (performance.now() < until) {
				const started = performance.now();
				await Promise.all(
					queries.map((q) => client.unsafe(q.text, q.parameters as never[], { prepare: true }))
				);
				sum += performance.now() - started;
				n++;
			}
		})
	);
	await client.end();
	return sum / n;
}

/** JavaScript that a first visit to each page loads, as it goes over the wire. */
async function firstLoad(): Promise<void> {
	console.log('\nFirst-load JavaScript per page, compressed');
	const browser = await chromium.launch({
		executablePath: chromiumPath(),
		args: ['--no-sandbox', '--disable-gpu']
	});
	for (const path of [
		'/sign-in',
		'/',
		'/hazards',
		'/hazards/new',
		'/filters',
		'/items',
		'/items/HM-0101',
		'/plan',
		'/faults',
		'/records'
	]) {
		const page = await browser.newPage();
		const [name = '', value = ''] = cookie.split('=');
		if (path !== '/sign-in') await page.context().addCookies([{ name, value, url: address }]);
		let bytes = 0;
		page.on('response', async (response) => {
			if (!response.url().endsWith('.js')) return;
			const sizes = await response
				.request()
				.sizes()
				.catch(() => undefined);
			bytes += sizes?.responseBodySize ?? 0;
		});
		await page.goto(address + path, { waitUntil: 'networkidle' });
		console.log(path.padEnd(28), `${(bytes / 1024).toFixed(0)} kB`.padStart(11));
		await page
			.context()
			.close()
			.catch(() => undefined);
	}
	await browser.close();
}

function core(): void {
	const toluene = findSubstance('toluene');
	if (!toluene) return;
	const input = {
		adsorbate: adsorbateOf(toluene, 20),
		flowLPerMin: 40,
		filters: 2,
		temperatureC: 20,
		relativeHumidityPercent: 50,
		breakthroughFraction: 0.1,
		bed: DEFAULT_BED
	};
	const facts = {
		...DEFAULT_FACTS,
		ruleSet: 'uk' as const,
		contaminants: ['styrene', 'toluene', 'ammonia'].map((substance) => ({
			substance,
			name: substance,
			form: 'vapour' as const,
			concentration: { value: 40, unit: 'ppm' as const }
		}))
	};
	console.log('\nCore');
	const time = (name: string, n: number, work: (i: number) => unknown) => {
		for (let i = 0; i < 200; i++) work(i);
		const started = performance.now();
		for (let i = 0; i < n; i++) work(i);
		console.log(
			name.padEnd(28),
			`${(((performance.now() - started) / n) * 1000).toFixed(1)} µs`.padStart(11)
		);
	};
	time('one service life', 20_000, (i) =>
		serviceLife({ ...input, concentrationPpm: 10 + (i % 900) })
	);
	time('one hazard decision', 5000, () => decide(facts));
}
