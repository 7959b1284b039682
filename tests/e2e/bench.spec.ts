import { expect, test } from '@playwright/test';
import { appUrl, enter, ready, scan, signInAs } from './support/app';

test('a BA set by the bench school: readings, a hold while another item is looked at, a late whistle holds it', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await scan(page, 'BA-0205');
	await enter(page.getByRole('button', { name: /bench school/ }));
	await expect(page).toHaveURL(/\/runs\//);
	await ready(page);
	const status = page.getByRole('main').getByRole('status').filter({ hasText: ' of 17' });
	let presses = 0;
	const press = async (key: string) => {
		await page.keyboard.press(key);
		presses++;
	};
	const title = page.locator('#step');
	/** Answers plain steps until one wants a reading. */
	const walkTo = async (wanted: RegExp) => {
		for (let i = 0; i < 20; i++) {
			const at = (await title.textContent()) ?? '';
			if (wanted.test(at)) return;
			await press(/T-piece|Second-wearer/.test(at) ? '3' : '1');
			await expect(title).not.toHaveText(at);
		}
	};
	await walkTo(/Cylinder: pressure/);
	await page.getByLabel('Gauge, bar').fill('29,4');
	await expect(page.getByText(/In MPa it would be 294 bar/)).toBeVisible();
	await page.keyboard.press('Enter');
	await expect(title).toHaveText(/Cylinder: pressure/);
	await page.getByRole('button', { name: 'take 294 bar' }).click();
	await expect(page.getByText(/Within: 294 bar of 300/)).toBeVisible();
	await page.keyboard.press('Enter');
	await walkTo(/Hold for a minute/);
	await page.getByLabel(/before the hold/).fill('293');
	await page.keyboard.press('Enter');
	await expect(page.getByText('Hold, started at 293 bar')).toBeVisible();
	const run = page.url();

	// Meanwhile another item; the clock runs on the server and is seen from every page.
	await page.goto(`${appUrl()}/items/HM-0111`);
	await ready(page);
	const strip = page.getByRole('list', { name: 'Running holds' });
	await expect(strip).toContainText('BA-0205');
	await page.goto(run);
	await ready(page);
	await expect(page.getByLabel(/after 60 s/)).toBeVisible({ timeout: 120_000 });
	await page.getByLabel(/after 60 s/).fill('291');
	await expect(page.getByText(/Within: It lost 2 bar/)).toBeVisible();
	await page.keyboard.press('Enter');
	await walkTo(/^Whistle$/);
	await page.getByLabel(/Whistle starts at/).fill('47');
	await expect(page.getByText(/Reject: It whistled at 47 bar, below 50/)).toBeVisible();
	await page.keyboard.press('Enter');
	await expect(page.getByRole('complementary', { name: 'So far' })).toContainText('WHL');
	await walkTo(/Sign/);
	await expect(status).toContainText('17 of 17');
	await press('Enter');
	await expect(page.getByRole('heading', { name: 'Failed: held' })).toBeVisible();
	expect(presses).toBeLessThan(60);
	await page.getByRole('link', { name: 'To BA-0205' }).click();
	await expect(page.getByRole('complementary', { name: 'State' })).toContainText('held');
});

test('a suit on the bench: a temperature drift is repeated, a leak holds it, a file is judged', async ({
	page
}) => {
	await signInAs(page, 'Odd Kessmer');
	const start = async (tag: string, part: Record<string, string>) => {
		await page.goto(`${appUrl()}/bench`);
		await ready(page);
		await page.getByLabel('Item').fill(tag);
		await page.getByLabel('Recipe').selectOption('suit-en');
		await page.getByText('What the simulated bench does').click();
		for (const [label, value] of Object.entries({ 'Times as fast': '120', ...part }))
			await page.getByLabel(label).fill(value);
		await page.getByRole('button', { name: 'Start the hold' }).click();
		await expect(page.getByText('Running')).toBeVisible();
	};
	await start('GS-0204', { 'Warms by, K': '-1.2', 'Leak, Pa/min': '12' });
	await expect(page.getByTestId('verdict')).toContainText('Repeat the test');
	await expect(page.getByText(/neither is trusted/).first()).toBeVisible();
	await expect(page.getByText('721 readings', { exact: false })).toBeVisible();
	await start('GS-0205', { 'Leak, Pa/min': '85' });
	await expect(page.getByTestId('verdict')).toContainText('Failed: held');
	await page.getByRole('link', { name: 'To GS-0205' }).click();
	await expect(page.getByRole('complementary', { name: 'State' })).toContainText('held');
	await page.goto(`${appUrl()}/bench`);
	await ready(page);
	await page.getByLabel('Item').fill('GS-0206');
	await page.getByLabel('Recipe').selectOption('suit-us');
	await page.getByLabel('Or a trace as CSV').setInputFiles({
		name: 't.csv',
		mimeType: 'text/csv',
		buffer: Buffer.from('s,Pa\n0,996\nsoon,990\n')
	});
	await page.getByRole('button', { name: 'Judge the file' }).click();
	await expect(page.getByText(/Row 3, s: “soon” is not a number/)).toBeVisible();
});
