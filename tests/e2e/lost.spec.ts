import { startWeb } from '../../scripts/lib/app.mjs';
import { TcpCut } from '../../scripts/chaos/tcp-cut';
import {
	answerSteps,
	appEnvironment,
	appUrl,
	beginInspection,
	CLEAN,
	ready,
	scan,
	signInAs
} from './support/app';
import { expect, type Page, test } from './support/test';

test.use({ serviceWorkers: 'allow' });

const header = (page: Page) => page.getByRole('banner').getByRole('status');

test('the web process is killed in the middle of an inspection; every answer is found again', async ({
	page
}) => {
	let web = await startWeb(appEnvironment(), { port: 8480, quiet: true });
	try {
		await signInAs(page, 'Ilse Norrby', web.address);
		await scan(page, 'HM-0104');
		const run = await beginInspection(page);
		await answerSteps(page, CLEAN.slice(0, 6));
		await expect(page.getByRole('main').getByRole('status')).toContainText('every answer kept');

		web.child.kill('SIGKILL');
		await new Promise((resolve) => web.child.once('exit', resolve));
		await answerSteps(page, ['1', '1'], 6);
		await expect(header(page)).toContainText(/reconnecting, [12] unsent/);
		await expect(page.getByRole('main').getByRole('status')).toContainText('kept on this device');

		web = await startWeb(appEnvironment(), { port: web.port, quiet: true });
		await expect(header(page)).toContainText('live');
		await expect(page.getByRole('main').getByRole('status')).toContainText(
			'8 of 18 · every answer kept'
		);

		await page.goto(run);
		await expect(page.getByRole('main').getByRole('status')).toContainText('8 of 18');
		await answerSteps(page, CLEAN.slice(8), 8);
		await page.keyboard.press('Enter');
		await expect(page.getByRole('heading', { name: 'Passed' })).toBeVisible();
	} finally {
		await web.stop();
	}
});

test('the database is away for ten seconds: said plainly, nothing lost, nothing doubled', async ({
	page
}) => {
	const cut = await TcpCut.before(appEnvironment().DATABASE_URL ?? '');
	const web = await startWeb(
		{ ...appEnvironment(), DATABASE_URL: cut.url, LOG_LEVEL: 'silent' },
		{ port: 8490, quiet: true }
	);
	try {
		await signInAs(page, 'Odd Kessmer', web.address);
		await scan(page, 'HM-0105');
		await beginInspection(page);
		await answerSteps(page, CLEAN.slice(0, 3));

		cut.sever();
		await answerSteps(page, ['1', '1'], 3);
		await expect(header(page)).toContainText(/unsent/);
		const other = await page.context().newPage();
		await other.goto(`${web.address}/items`);
		await expect(
			other.getByText(/The database does not answer just now\. Try again in a moment/)
		).toBeVisible();
		await expect(other.locator('body')).not.toContainText(/at .*\.js:\d|ECONN|postgres/);
		expect((await other.request.get(`${web.address}/healthz`)).status()).toBe(200);
		expect((await other.request.get(`${web.address}/readyz`)).status()).toBe(503);
		await page.waitForTimeout(10_000);
		await cut.mend();

		await expect(header(page)).toContainText('live');
		await expect(page.getByRole('main').getByRole('status')).toContainText(
			'5 of 18 · every answer kept'
		);
		await page.reload();
		await expect(page.getByRole('main').getByRole('status')).toContainText('5 of 18');
		await other.reload();
		await expect(other.getByRole('heading', { level: 1, name: 'Items' })).toBeVisible();
	} finally {
		await web.stop();
		await cut.close();
	}
});

test('an opened inspection is finished with the network away, reloaded, and sent once when it is back', async ({
	page,
	context
}) => {
	await signInAs(page, 'Ilse Norrby');
	await scan(page, 'HM-0106');
	const run = await beginInspection(page);
	await answerSteps(page, CLEAN.slice(0, 2));
	await expect(page.getByRole('main').getByRole('status').first()).toContainText(
		'every answer kept'
	);
	// The worker of the page has to have seen it once.
	await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
	await page.goto(run);
	await ready(page);
	// The page that is kept on the device knows of two; the device itself of what was sent since.
	await answerSteps(page, CLEAN.slice(2, 4), 2);
	await expect(page.getByRole('main').getByRole('status').first()).toContainText(
		'every answer kept'
	);

	await context.setOffline(true);
	await answerSteps(page, CLEAN.slice(4, 6), 4);
	await expect(header(page)).toContainText(/2 unsent/);
	await page.reload();
	await ready(page);
	await expect(page.getByRole('main').getByRole('status').first()).toContainText('6 of 18');
	await answerSteps(page, CLEAN.slice(6), 6);
	await page.keyboard.press('Enter');
	await expect(page.getByText(/Signed on this device, not yet on the server/)).toBeVisible();
	await page.goto(`${appUrl()}/items/HM-0106`).catch(() => undefined);
	await expect(page.getByRole('heading', { name: 'No connection' })).toBeVisible();
	await expect(page.getByRole('link', { name: /^Inspection \d/ }).first()).toBeVisible();

	await context.setOffline(false);
	await page.goto(`${appUrl()}/items/HM-0106`);
	await ready(page);
	await expect(header(page)).toContainText('live');
	await page.goto(run);
	await expect(page.getByRole('heading', { name: 'Passed' })).toBeVisible();
	await page.goto(`${appUrl()}/items/HM-0106/history`);
	await expect(page.getByText(/Inspection signed: pass/).first()).toContainText('pass');
});

test('finished without a connection and meanwhile elsewhere: said plainly, signed by one', async ({
	browser
}) => {
	const contexts = [await browser.newContext(), await browser.newContext()] as const;
	const [mine, theirs] = [await contexts[0].newPage(), await contexts[1].newPage()];
	await signInAs(mine, 'Ilse Norrby');
	await signInAs(theirs, 'Odd Kessmer');
	await scan(mine, 'HM-0116');
	const run = await beginInspection(mine);
	await mine.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
	await contexts[0].setOffline(true);
	await answerSteps(mine, CLEAN);
	await mine.keyboard.press('Enter');
	await expect(mine.getByText(/Signed on this device/)).toBeVisible();

	await theirs.goto(run);
	await answerSteps(theirs, CLEAN);
	await theirs.keyboard.press('Enter');
	await expect(theirs.getByRole('heading', { name: 'Passed' })).toBeVisible();

	await contexts[0].setOffline(false);
	const said = mine.getByRole('alert').first();
	await expect(said).toContainText('HM-0116');
	await expect(said).toContainText(/Odd Kessmer has already signed/);
	await expect(mine.getByRole('heading', { name: 'Passed' })).toBeVisible();
	await expect(mine.getByText(/Signed by Odd Kessmer/)).toBeVisible();
	await expect(header(mine)).toContainText('live');
	for (const context of contexts) await context.close();
});

test('the web process is killed in the middle of a live trace; nothing that was acknowledged is missing', async ({
	page
}) => {
	let web = await startWeb(appEnvironment(), { port: 8500, quiet: true });
	try {
		await signInAs(page, 'Odd Kessmer', web.address);
		await page.goto(`${web.address}/bench`);
		await ready(page);
		await page.getByLabel('Item').fill('GS-0202');
		await page.getByLabel('Recipe').selectOption('suit-en');
		await page.getByLabel('Bench', { exact: true }).selectOption('2');
		await page.getByText('What the simulated bench does').click();
		await page.getByLabel('Times as fast').fill('30');
		await page.getByRole('button', { name: 'Start the hold' }).click();
		await expect(page.getByText('Running')).toBeVisible();
		const id = page.url().split('/').at(-1) ?? '';
		const acknowledged = () =>
			page.request
				.get(`${web.address}/bench/${id}/trace.csv`)
				.then((response) => response.text())
				.then((text) => text.trim().split('\r\n').slice(1));
		await expect.poll(async () => (await acknowledged()).length).toBeGreaterThan(40);
		const before = await acknowledged();

		web.child.kill('SIGKILL');
		await new Promise((resolve) => web.child.once('exit', resolve));
		await expect(page.getByText(/Reconnecting; the readings go on being kept/)).toBeVisible();
		web = await startWeb(appEnvironment(), { port: web.port, quiet: true });
		await page.goto(`${web.address}/bench/${id}`);
		await expect(page.getByTestId('verdict')).toContainText('Passed');
		const after = await acknowledged();
		expect(after.slice(0, before.length)).toEqual(before);
		expect(after).toHaveLength(721);
	} finally {
		await web.stop();
	}
});
