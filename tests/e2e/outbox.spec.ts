import { Chance } from '../../src/core/stats/chance';
import { procedureFor } from '../../src/core/data/procedures';
import { startWeb } from '../../scripts/lib/app.mjs';
import { HttpFaults, type HttpFault } from '../../scripts/chaos/http-faults';
import { appEnvironment, appUrl, beginInspection, ready, scan, signInAs, sql } from './support/app';
import type { Browser } from '@playwright/test';
import { expect, type Page, test } from './support/test';

test.use({ serviceWorkers: 'allow' });

const header = (page: Page) => page.getByRole('banner').getByRole('status');
const progress = (page: Page) => page.getByRole('main').getByRole('status').first();
const STEP = '#step';

/** An app of its own behind a network that can be made worse. */
async function behindFaults() {
	const faults = await HttpFaults.open();
	const web = await startWeb(
		{ ...appEnvironment(), ORIGIN: faults.address, LOG_LEVEL: 'silent' },
		{ port: 8520, quiet: true }
	);
	faults.target = web.port;
	return {
		faults,
		close: async () => {
			await faults.close();
			await web.stop();
		}
	};
}

/** What the server has of a run, in its order. */
const STEPS = procedureFor('half-mask').steps;
const keptOf = (run: string) =>
	sql(
		(db) => db<{ step: string; value: string; code: string | null }[]>`
			select step, value, code from inspection_answer where run_id = ${run} order by position`
	);

test.describe('random cuts, pages, reloads, evictions and updates', () => {
	for (const seed of (process.env.SEEDS ?? '12,13').split(',').map(Number))
		test(`every answer arrives once, and of each step in the order in which it was given, seed ${seed}`, async ({
			browser
		}) => {
			const { faults, close } = await behindFaults();
			const context = await browser.newContext();
			const chance = new Chance(seed);
			try {
				const first = await context.newPage();
				await signInAs(first, 'Ilse Norrby', faults.address);
				await scan(first, `HM-0${117 + (seed % 6)}`);
				const address = await beginInspection(first);
				const run = address.split('/').at(-1) ?? '';
				await first.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
				await first.reload();
				await ready(first);
				const pages = [first];
				const given: string[] = [];

				/** Answers the step at which a page stands. */
				const answer = async (page: Page) => {
					const title = (await page.locator(STEP).textContent())?.trim() ?? '';
					const step = STEPS.find((s) => s.title === title)?.key;
					if (!step) {
						await page.keyboard.press('ArrowRight');
						return;
					}
					if (chance.next() < 0.15) {
						await page.keyboard.press('2');
						await page.keyboard.press('1');
						given.push(`${step} reject`);
					} else {
						await page.keyboard.press('1');
						given.push(`${step} good`);
					}
					await expect(page.locator(STEP)).not.toHaveText(title);
				};
				const reloadable = () => faults.fault !== 'portal' && faults.fault !== 'maintenance';
				const open = async (page: Page) => {
					// Without the network the page comes from the device.
					await page.goto(`${faults.address}/runs/${run}`);
					await ready(page);
					await expect(progress(page)).toContainText(/\d+ of 18/);
				};
				const FAULTS: HttpFault[] = ['none', 'cut', 'answer lost', 'portal', 'maintenance', 'none'];
				const deeds: (() => Promise<void>)[] = [
					...Array.from({ length: 6 }, () => () => answer(chance.pick(pages))),
					() => Promise.resolve(faults.set(chance.pick(FAULTS))),
					() => Promise.resolve(faults.set(chance.pick(FAULTS))),
					async () => {
						if (!reloadable()) return;
						const page = chance.pick(pages);
						await page.reload();
						await ready(page);
						await expect(progress(page)).toContainText(/\d+ of 18/);
					},
					async () => {
						if (!reloadable() || pages.length > 1) return;
						const page = await context.newPage();
						pages.push(page);
						await open(page);
					},
					async () => {
						if (pages.length < 2) return;
						await pages.splice(chance.int(0, 1), 1)[0]?.close();
					},
					async () => {
						// The browser clears what waits, with its page open.
						await chance.pick(pages).evaluate(
							() =>
								new Promise<void>((resolve, reject) => {
									const asked = indexedDB.open('grevan');
									asked.onerror = () => reject(new Error('no storage'));
									asked.onsuccess = () => {
										const cleared = asked.result.transaction('parcels', 'readwrite');
										cleared.objectStore('parcels').clear();
										cleared.oncomplete = () => (asked.result.close(), resolve());
									};
								})
						);
						// Until it is kept anew, or sent, a reload would lose it: it takes one try.
						await expect
							.poll(async () => {
								const [page] = pages;
								if (!page) return false;
								const waits = Number(
									/(\d+) unsent/.exec((await header(page).textContent()) ?? '')?.[1] ?? 0
								);
								return (await onDevice(page)) >= waits;
							})
							.toBe(true);
					},
					async () => {
						if (faults.fault !== 'none') return;
						faults.version += 1;
						await chance.pick(pages).evaluate(async () => {
							await (await navigator.serviceWorker.ready).update();
						});
					}
				];
				for (let i = 0; i < 45; i++) await chance.pick(deeds)();

				faults.set('none');
				for (const page of pages) {
					await expect(header(page)).toHaveText(/live\s*$/);
					await expect(progress(page)).toContainText('every answer kept');
					expect(await onDevice(page)).toBe(0);
				}
				// Two pages may send in either order; what was given last at a step is its last.
				const byStep = (answers: readonly string[]) =>
					STEPS.map(({ key }) => answers.filter((one) => one.startsWith(`${key} `)));
				const kept = (await keptOf(run)).map(({ step, value }) => `${step} ${value}`);
				expect(given.length).toBeGreaterThan(8);
				expect(byStep(kept)).toEqual(byStep(given));
				expect(kept).toHaveLength(given.length);
			} finally {
				await context.close();
				await close();
			}
		});
});

/** How many parcels the storage of the device holds. */
const onDevice = (page: Page) =>
	page.evaluate(
		() =>
			new Promise<number>((resolve, reject) => {
				const asked = indexedDB.open('grevan');
				asked.onerror = () => reject(new Error('no storage'));
				asked.onsuccess = () => {
					const count = asked.result.transaction('parcels').objectStore('parcels').count();
					count.onsuccess = () => (asked.result.close(), resolve(count.result));
				};
			})
	);

for (const [what, refuse] of [
	[
		'full',
		() => {
			IDBObjectStore.prototype.put = () => {
				throw new DOMException('There is no room.', 'QuotaExceededError');
			};
		}
	],
	[
		'denied',
		() => {
			IDBFactory.prototype.open = () => {
				throw new DOMException('It is not allowed.', 'SecurityError');
			};
		}
	]
] as const)
	test(`storage of the device ${what}: answers go straight to the server; without it that is said`, async ({
		page
	}) => {
		const { faults, close } = await behindFaults();
		try {
			await page.addInitScript(refuse);
			await signInAs(page, 'Odd Kessmer', faults.address);
			await scan(page, what === 'full' ? 'HM-0113' : 'HM-0114');
			const run = (await beginInspection(page)).split('/').at(-1) ?? '';
			await page.keyboard.press('1');
			await expect(progress(page)).toContainText('1 of 18 · every answer kept');
			await expect(header(page)).toContainText('this device keeps nothing');
			expect(await keptOf(run)).toHaveLength(1);

			faults.set('cut');
			await page.keyboard.press('1');
			const said = page.getByRole('alert').first();
			await expect(said).toContainText('Do not close or reload this page');
			await said.getByRole('button', { name: 'As a sheet to copy' }).click();
			await expect(page.getByRole('textbox', { name: 'What was given' })).toHaveValue(/: good/);
			await page.keyboard.press('Escape');

			faults.set('none');
			await expect(progress(page)).toContainText('2 of 18 · every answer kept');
			await expect(page.getByText('Do not close or reload this page')).toHaveCount(0);
			expect(await keptOf(run)).toHaveLength(2);
		} finally {
			await close();
		}
	});

test('a session that ended: signed in again on the same page, and what waited goes out', async ({
	page
}) => {
	await signInAs(page, 'Odd Kessmer');
	// A session of this test's own: the others go on in theirs.
	await page.context().clearCookies();
	await page.goto(`${appUrl()}/sign-in`);
	await page.getByRole('button', { name: /Odd Kessmer/ }).click();
	await expect(page.getByRole('heading', { level: 1 })).toContainText(/\d{4}/);
	await scan(page, 'HM-0115');
	const run = (await beginInspection(page)).split('/').at(-1) ?? '';
	await sql(
		(db) => db`delete from session where id = (
			select id from session where user_id = 'demo-odd' order by created_at desc limit 1)`
	);
	await sql((db) => db`select pg_notify('grevan_access', 'demo-odd')`);
	await page.keyboard.press('1');
	const dialog = page.getByRole('dialog', { name: /Sign in again, Odd Kessmer/ });
	await expect(dialog).toBeVisible();
	await dialog.getByRole('button', { name: 'Not now' }).click();
	await expect(header(page)).toContainText('signed out');
	await expect(header(page)).toContainText('1 unsent');
	await header(page).getByRole('button', { name: 'sign in here' }).click();
	await dialog.getByLabel('Password').fill('not this one');
	await dialog.getByRole('button', { name: 'Go on' }).click();
	await expect(dialog.getByRole('alert')).toBeVisible();
	await dialog.getByLabel('Password').fill(appEnvironment().GREVAN_DEMO_PASSWORD ?? '');
	await dialog.getByRole('button', { name: 'Go on' }).click();
	await expect(dialog).toHaveCount(0);
	await expect(header(page)).toContainText('live');
	await expect(progress(page)).toContainText('1 of 18 · every answer kept');
	expect(await keptOf(run)).toHaveLength(1);
});

test('a batch is taken one by one, and no signature over what was refused in it', async ({
	page
}) => {
	await signInAs(page, 'Odd Kessmer');
	await scan(page, 'HM-0125');
	const run = (await beginInspection(page)).split('/').at(-1) ?? '';
	const answer = (step: string) => {
		const id = crypto.randomUUID();
		return { id, url: `/api/runs/${run}/answers`, body: { id, step, value: 'good', seen: 0 } };
	};
	const [first, second] = STEPS.map(({ key }) => answer(key));
	const sign = { id: crypto.randomUUID(), url: `/api/runs/${run}/sign`, body: {} };
	const send = async (parcels: unknown[]) => {
		const response = await page.request.post(`${appUrl()}/api/outbox`, {
			headers: { origin: appUrl() },
			data: { parcels }
		});
		return { status: response.status(), said: (await response.json()) as unknown };
	};
	const parcels = [first, answer('no such step'), second, sign];
	const taken = { status: 200 };
	const expected = [taken, { status: 422 }, taken];
	expect(await send(parcels)).toMatchObject({ status: 200, said: { results: expected } });
	// Sent again, as where the answer was lost: the same, and nothing twice.
	expect(await send(parcels)).toMatchObject({ status: 200, said: { results: expected } });
	expect(await keptOf(run)).toHaveLength(2);
	expect(await send([{ ...sign, url: '/api/substances' }])).toMatchObject({ status: 422 });
	expect(await send([])).toMatchObject({ status: 422 });
});

/** Somebody else answers a list to its end and signs it, on another device. */
async function signElsewhere(browser: Browser, run: string): Promise<void> {
	const context = await browser.newContext();
	const page = await context.newPage();
	await signInAs(page, 'Odd Kessmer');
	const parcels = STEPS.map(({ key: step, ifFitted }) => {
		const id = crypto.randomUUID();
		const value = ifFitted ? 'not fitted' : 'good';
		return { id, url: `/api/runs/${run}/answers`, body: { id, step, value, seen: 1000 } };
	});
	const id = crypto.randomUUID();
	const sent = await page.request.post(`${appUrl()}/api/outbox`, {
		headers: { origin: appUrl() },
		data: { parcels: [...parcels, { id, url: `/api/runs/${run}/sign`, body: { id } }] }
	});
	const { results } = (await sent.json()) as { results: { status: number }[] };
	expect(results.map(({ status }) => status)).toEqual(Array(STEPS.length + 1).fill(200));
	await context.close();
}

test('signed by another meanwhile: each answer by name, the fault entered, the rest into a new inspection', async ({
	page,
	browser
}) => {
	const { faults, close } = await behindFaults();
	try {
		await signInAs(page, 'Ilse Norrby', faults.address);
		await scan(page, 'HM-0124');
		const run = (await beginInspection(page)).split('/').at(-1) ?? '';
		faults.set('cut');
		await page.keyboard.press('2');
		await page.keyboard.press('1');
		await page.keyboard.press('n');
		await page.getByLabel('Note for this step').fill('seen by the lamp');
		await page.keyboard.press('Escape');
		await page.getByRole('heading', { level: 1 }).click();
		await page.keyboard.press('1');
		await expect(header(page)).toContainText('2 unsent');
		await signElsewhere(browser, run);
		faults.set('none');
		const said = page.getByRole('alert').first();
		await expect(said).toContainText('HM-0124');
		await expect(said).toContainText('Odd Kessmer has already signed');
		await expect(said).toContainText(/: reject [A-Z]+/);
		await expect(said).toContainText('note: seen by the lamp');
		await page.reload();
		await expect(said).toContainText('note: seen by the lamp');

		await said.getByRole('button', { name: 'Enter it as a fault' }).click();
		await expect(said).not.toContainText(': reject');
		await expect
			.poll(() =>
				sql(
					(db) => db`select d.id from defect d join item i on i.id = d.item_id
						where i.tag = 'HM-0124' and d.closed_at is null and d.run_id is null`
				)
			)
			.toHaveLength(1);
		await said.getByRole('button', { name: 'Into an inspection of HM-0124' }).click();
		await expect(page).not.toHaveURL(new RegExp(run));
		await expect(progress(page)).toContainText('1 of 18 · every answer kept');
		await expect(page.getByRole('alert')).toHaveCount(0);
		const [kept] = await keptOf(page.url().split('/').at(-1) ?? '');
		expect(kept?.value).toBe('good');
	} finally {
		await close();
	}
});
