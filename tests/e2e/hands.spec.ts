import { faultsOf } from './support/axe';
import { appUrl, beginInspection, enter, ready, scan, signInAs } from './support/app';
import { expect, test } from './support/test';

test('hands full: answered by foot, read aloud, seen from two metres, followed on a second screen', async ({
	page,
	browser
}) => {
	await page.addInitScript(() => {
		const said: string[] = [];
		Object.assign(window, { said });
		speechSynthesis.speak = (words) => said.push(words.text);
	});
	await signInAs(page, 'Ilse Norrby');
	await page.goto(`${appUrl()}/settings/device`);
	await ready(page);
	const pedal = page.getByRole('listitem').filter({ hasText: 'Good, or take the reading' });
	await enter(pedal.getByRole('button', { name: 'Set' }));
	await page.keyboard.press('a');
	await expect(page.getByRole('alert')).toContainText('people type with');
	await enter(pedal.getByRole('button', { name: 'Set' }));
	await page.keyboard.press('PageDown');
	await expect(pedal).toContainText('PageDown');

	await scan(page, 'HM-0110');
	await beginInspection(page);
	const title = page.locator('#step');
	await enter(page.getByRole('button', { name: 'Aloud' }));
	const first = (await title.textContent())?.trim() ?? '';
	await expect
		.poll(() => page.evaluate(() => (window as unknown as { said: string[] }).said.join(' ')))
		.toContain(first);
	await enter(page.getByRole('button', { name: 'From two metres' }));
	const size = () => title.evaluate((one) => parseFloat(getComputedStyle(one).fontSize));
	expect(await size()).toBeGreaterThan(56);
	expect(await faultsOf(page)).toEqual([]);

	await enter(page.getByRole('button', { name: 'Second screen' }));
	const code = await page.getByLabel('Code of the second screen').textContent();
	const other = await browser.newContext({ serviceWorkers: 'block' });
	const tablet = await other.newPage();
	await tablet.goto(`${appUrl()}/screen`);
	await ready(tablet);
	await tablet.getByLabel('Code').fill('22222222');
	await tablet.keyboard.press('Enter');
	await expect(tablet.getByText(/This code lights nothing/)).toBeVisible();
	await tablet.getByLabel('Code').fill(code ?? '');
	await tablet.keyboard.press('Enter');
	const shown = tablet.getByRole('heading', { level: 1 });
	await expect(shown).toHaveText(first);
	expect(await faultsOf(tablet)).toEqual([]);
	// It is nobody: nothing else opens for it.
	await tablet.goto(`${appUrl()}/items/HM-0110`);
	await expect(tablet).toHaveURL(/\/sign-in/);
	await tablet.goto(`${appUrl()}/screen`);

	await page.keyboard.press('PageDown');
	await expect(page.getByRole('main').getByRole('status').first()).toContainText('1 of 18');
	await expect(title).not.toHaveText(first);
	const next = (await title.textContent())?.trim() ?? '';
	await expect(shown).toHaveText(next);
	await page.goto(`${appUrl()}/`);
	await expect(tablet.getByText(/What it followed has ended/)).toBeVisible({ timeout: 30_000 });
	await other.close();
});
