import { chromium } from '@playwright/test';
import { openDatabase } from '../src/lib/server/db/client.ts';
import { faultsByStation, openDefects } from '../src/lib/server/faults/faults.ts';
import { listLots, openPairs } from '../src/lib/server/filters/opening.ts';
import { listPlaces, listPlans } from '../src/lib/server/hazards/plans.ts';
import type { Context } from '../src/lib/server/kernel/context.ts';
import { loadSite } from '../src/lib/server/kernel/site.ts';
import { history } from '../src/lib/server/records/history.ts';
import { itemPage } from '../src/lib/server/register/item-page.ts';
import { itemByTag, register } from '../src/lib/server/register/items.ts';
import { planPage } from '../src/lib/server/plan/plan.ts';
import { today } from '../src/lib/server/today/shift-sheet.ts';
import { createAuth, sessionOf } from '../src/lib/server/web/auth.ts';
import { chromiumPath } from './lib/system.mjs';
import autocannon from 'autocannon';
import postgres from 'postgres';
import { signInDemo } from './lib/sign-in.mjs';

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
const cookie = (await signInDemo(address, 'ilse@osmund.example')).join('; ');
const headers = new Headers({ cookie });
const found = await sessionOf(auth, headers);
if (!found) throw new Error('The bench could not sign in.');
const context: Context = {
	db,
	now: () => new Date(),
	actor: found.actor,
	proof: found.session.proof,
	site: await loadSite(db)
};

/** Each page with the services that its load calls. */
const PAGES: Record<string, () => Promise<unknown>> = {
	'/': () => today(context),
	'/items': () => Promise.all([register(context, {}, 1), listPlaces(db)]),
	'/items?q=duo&page=20': () =>
		Promise.all([register(context, { text: 'duo' }, 20), listPlaces(db)]),
	'/items/HM-5000': () => itemPage(context, 'HM-5000'),
	'/items/HM-5000/history': async () =>
		history(context, { itemId: (await itemByTag(db, 'HM-5000')).item.id }),
	'/plan': () => planPage(context),
	'/hazards': () => listPlans(context),
	'/filters': () => Promise.all([listPlans(context), listLots(db)]),
	'/filters/opened': () => openPairs(context, 1),
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
	await sessionOf(auth, headers);
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
await sweep();

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
		'/filters/opened',
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

/** A sweep of 100,000 cases in the page's worker, and the longest pause of the page meanwhile. */
async function sweep(): Promise<void> {
	const browser = await chromium.launch({
		executablePath: chromiumPath(),
		args: ['--no-sandbox', '--disable-gpu']
	});
	const page = await browser.newPage();
	const [name = '', value = ''] = cookie.split('=');
	await page.context().addCookies([{ name, value, url: address }]);
	await page.goto(`${address}/hazards`);
	const plan = await page.getByRole('link', { name: /Laminating, bay 2/ }).getAttribute('href');
	await page.goto(`${address}${plan}/life`);
	await page.locator('html[data-ready]').waitFor();
	for (const [label, steps] of [
		['Concentration, ppm', '25'],
		['Humidity, %', '20'],
		['Flow, L/min', '20'],
		['Temperature, °C', '10']
	] as const)
		await page.getByRole('group', { name: label }).getByLabel('steps').fill(steps);
	// As text: what runs in the page knows none of the helpers of this file's compiler.
	await page.evaluate(`{
		const seen = (window.seen = { last: performance.now(), longest: 0 });
		setTimeout(function beat() {
			const now = performance.now();
			seen.longest = Math.max(seen.longest, now - seen.last);
			seen.last = now;
			setTimeout(beat, 0);
		}, 0);
	}`);
	const started = performance.now();
	await page.getByRole('button', { name: /^Run 100,000 cases/ }).click();
	const said = await page.getByText(/100,000 cases in/).textContent({ timeout: 60_000 });
	const took = performance.now() - started;
	const longest = await page.evaluate(
		() => (window as unknown as { seen: { longest: number } }).seen.longest
	);
	console.log('\nSweep in the page, 100,000 service lives');
	console.log(`from click to result        ${took.toFixed(0).padStart(11)} ms`);
	console.log(
		`in the worker               ${/in ([\d.]+) s/.exec(said ?? '')?.[1]?.padStart(11)} s`
	);
	console.log(`longest pause of the page   ${longest.toFixed(0).padStart(11)} ms`);
	await browser.close();
}
