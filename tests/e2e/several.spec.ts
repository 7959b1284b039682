import { startWeb } from '../../scripts/lib/app.mjs';
import { appEnvironment, appUrl, beginInspection, ready, scan } from './support/app';
import { expect, test } from './support/test';

test('several web processes on one database: a session, an answer and the end of a session are the same in all', async ({
	page,
	browser
}) => {
	// Behind one address, as a balancer would have it: the second is told the address of the first.
	const other = await startWeb(
		{ ...appEnvironment(), ORIGIN: appUrl(), LOG_LEVEL: 'silent' },
		{ port: 8540, quiet: true }
	);
	const second = `http://127.0.0.1:${other.port}`;
	try {
		await page.goto(`${appUrl()}/sign-in`);
		await page.getByRole('button', { name: /Tove Rieveld/ }).click();
		await expect(page.getByRole('heading', { level: 1 })).toContainText(/\d{4}/);
		await scan(page, 'HM-0127');
		const run = new URL(await beginInspection(page)).pathname;
		await page.keyboard.press('1');
		await expect(page.getByRole('main').getByRole('status').first()).toContainText(
			'1 of 18 · every answer kept'
		);

		const context = await browser.newContext();
		const cookies = await page.context().cookies();
		await context.addCookies(cookies.map(({ name, value }) => ({ name, value, url: second })));
		const there = await context.newPage();
		await there.goto(`${second}${run}`);
		await ready(there);
		await expect(there.getByRole('main').getByRole('status').first()).toContainText('1 of 18');
		const here = () => there.request.get(`${second}/api/here`).then((answer) => answer.status());
		expect(await here()).toBe(200);

		await page.getByRole('button', { name: 'Sign out' }).click();
		await expect(page.getByRole('heading', { name: 'Grevan' })).toBeVisible();
		await expect.poll(here).toBe(401);
		await context.close();
	} finally {
		await other.stop();
	}
});
