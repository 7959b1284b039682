import { expect, test, type Page } from '@playwright/test';
import { startWeb } from '../../scripts/lib/app.mjs';
import { TcpCut } from '../support/tcp-cut';
import { answerSteps, appEnvironment, beginInspection, CLEAN, scan, signInAs } from './support/app';

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
			'8 of 15 · every answer kept'
		);

		await page.goto(run);
		await expect(page.getByRole('main').getByRole('status')).toContainText('8 of 15');
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
		await expect(other.getByText(/Nothing was changed; try again in a moment/)).toBeVisible();
		await expect(other.locator('body')).not.toContainText(/at .*\.js:\d|ECONN|postgres/);
		expect((await other.request.get(`${web.address}/healthz`)).status()).toBe(200);
		expect((await other.request.get(`${web.address}/readyz`)).status()).toBe(503);
		await page.waitForTimeout(10_000);
		await cut.mend();

		await expect(header(page)).toContainText('live');
		await expect(page.getByRole('main').getByRole('status')).toContainText(
			'5 of 15 · every answer kept'
		);
		await page.reload();
		await expect(page.getByRole('main').getByRole('status')).toContainText('5 of 15');
		await other.reload();
		await expect(other.getByRole('heading', { level: 1, name: 'Items' })).toBeVisible();
	} finally {
		await web.stop();
		await cut.close();
	}
});
