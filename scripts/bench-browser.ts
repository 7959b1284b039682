// What a browser has of the pages: what a first and a second visit load, how soon a key is answered, and a sweep that
// runs beside the page.
import { chromium, type Page, type Response } from '@playwright/test';
import { shareOf } from './lib/share.ts';
import { signInDemo } from './lib/sign-in.mjs';
import { chromiumPath } from './lib/system.mjs';

const VISITED = [
	'/sign-in',
	'/',
	'/hazards',
	'/hazards/new',
	'/filters',
	'/filters/opened',
	'/items',
	'/items/HM-0101',
	'/plan',
	'/plan/forecast',
	'/faults',
	'/faults/learn',
	'/people',
	'/counter',
	'/counter/return',
	'/wash',
	'/bench',
	'/air',
	'/air/board',
	'/records',
	'/drill',
	'/settings'
];
/** Steps of the half mask that are answered. */
const KEYS = 18;
const address = process.env.BENCH_ADDRESS ?? '';
const cookie = (await signInDemo(address, 'ilse@osmund.example')).join('; ');
const [cookieName = '', cookieValue = ''] = cookie.split('=');
const browser = await chromium.launch({
	executablePath: chromiumPath(),
	args: ['--no-sandbox', '--disable-gpu']
});

await firstLoad();
await keys();
await sweep();
await browser.close();

/** A page of somebody who is in. */
async function open(path: string, signedIn = true): Promise<Page> {
	const page = await browser.newPage();
	if (signedIn)
		await page.context().addCookies([{ name: cookieName, value: cookieValue, url: address }]);
	if (path) await page.goto(address + path);
	return page;
}

/** JavaScript that a first visit to each page loads, and a second one, as it goes over the wire. */
async function firstLoad(): Promise<void> {
	console.log('\nJavaScript per page, compressed, kB: at the first visit, at the second');
	for (const path of VISITED) {
		const page = await open('', path !== '/sign-in');
		const visit = async () => {
			let bytes = 0;
			const counted: Promise<void>[] = [];
			const count = (response: Response) => {
				if (!response.url().endsWith('.js') || response.fromServiceWorker()) return;
				const sizes = response.request().sizes();
				// What came from the cache of the browser was not sent.
				counted.push(
					sizes.then(
						({ responseBodySize, responseHeadersSize }) => {
							if (responseHeadersSize > 0) bytes += responseBodySize;
						},
						() => undefined
					)
				);
			};
			page.on('response', count);
			await page.goto(address + path, { waitUntil: 'networkidle' });
			await Promise.all(counted);
			page.off('response', count);
			return (bytes / 1024).toFixed(0).padStart(8);
		};
		console.log(path.padEnd(28), await visit(), await visit());
		await page.context().close();
	}
}

/** From a key to the frame that shows what it did, at the steps of an inspection. */
async function keys(): Promise<void> {
	const page = await open('/items/HM-0150');
	await page.locator('html[data-ready]').waitFor();
	await page.getByRole('button', { name: /^Inspect/ }).click();
	await page.waitForURL(/\/runs\//);
	await page.locator('html[data-ready=true]').waitFor();
	// As text: what runs in the page knows none of the helpers of this file's compiler.
	await page.evaluate(`{
		window.shown = [];
		addEventListener('keydown', (event) => {
			const began = event.timeStamp;
			requestAnimationFrame(() => setTimeout(() => window.shown.push(performance.now() - began)));
		}, true);
	}`);
	for (let i = 0; i < KEYS; i++) {
		await page.keyboard.press(i < 2 ? '3' : '1');
		await page.waitForFunction(`window.shown.length > ${i}`);
	}
	const shown = await page.evaluate<number[]>('window.shown');
	console.log(`\nFrom a key to what it shows, ${shown.length} keys of an inspection`);
	console.log(`median                      ${shareOf(shown, 0.5, 1).padStart(11)} ms`);
	console.log(`longest                     ${shareOf(shown, 1, 1).padStart(11)} ms`);
	await page.context().close();
}

/** A sweep of 100,000 cases in the page's worker, and the longest pause of the page meanwhile. */
async function sweep(): Promise<void> {
	const page = await open('/hazards');
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
	const longest = await page.evaluate<number>('window.seen.longest');
	console.log('\nSweep in the page, 100,000 service lives');
	console.log(`from click to result        ${took.toFixed(0).padStart(11)} ms`);
	console.log(
		`in the worker               ${/in ([\d.]+) s/.exec(said ?? '')?.[1]?.padStart(11)} s`
	);
	console.log(`longest pause of the page   ${longest.toFixed(0).padStart(11)} ms`);
}
