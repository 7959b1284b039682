import {
	answerSteps,
	appUrl,
	beginInspection,
	CLEAN,
	enter,
	ready,
	scan,
	signInAs
} from './support/app';
import { expect, test } from './support/test';

test('a hazard plan says what is wrong where it is wrong, and keeps what was typed', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await page.goto(`${appUrl()}/hazards/new`);
	await ready(page);
	await page.getByLabel('Add a contaminant').fill('grain dust');
	await page.keyboard.press('Enter');
	await page.getByLabel('Measured').fill('12');
	await page.getByLabel('Unit of Grain dust').selectOption('ppm');
	await expect(page.getByText(/entered in ppm, its limit is in mg\/m³/).first()).toBeVisible();
	await page.getByLabel('Unit of Grain dust').selectOption('mg/m3');
	await page.getByLabel('Measured').fill('-3');
	await expect(page.getByText(/cannot be below zero/).first()).toBeVisible();
	await page.getByLabel('Measured').fill('12');
	await page.getByLabel('Oxygen, %').fill('209');
	await expect(page.getByText(/Did you mean 20\.9 %/).first()).toBeVisible();
	await expect(page.getByLabel('Measured')).toHaveValue('12');
	await page.getByLabel('Oxygen, %').fill('20,9');
	await expect(page.getByTestId('outcome')).toBeVisible();
	await page.getByLabel('Limit, mg/m³').fill('0');
	await expect(page.getByText(/limit must be above zero/).first()).toBeVisible();
	await page.getByLabel('Limit, mg/m³').fill('');
	await page.getByLabel('Add a contaminant').fill('diesel exhaust');
	await page.keyboard.press('Enter');
	await page.getByLabel('Measured').nth(1).fill('4');
	await expect(page.getByText(/No limit is known under UK rules/)).toBeVisible();
	await expect(page.getByTestId('outcome')).toContainText('Own air supply');
	await page.getByLabel('Add a contaminant').fill('toluene');
	await page.keyboard.press('Enter');
	await page.getByLabel('Measured').nth(2).fill('3000000');
	await expect(page.getByText(/more than all of the air/).first()).toBeVisible();
});

test('a stale page is not saved over a newer one', async ({ browser }) => {
	const [mine, theirs] = [await browser.newPage(), await browser.newPage()];
	await signInAs(mine, 'Ilse Norrby');
	await signInAs(theirs, 'Tove Rieveld');
	for (const page of [mine, theirs]) {
		await page.goto(`${appUrl()}/hazards`);
		await page.getByRole('link', { name: /Chlorine drum change/ }).click();
		await expect(page.getByLabel('Measured')).toHaveValue('2');
		await ready(page);
	}
	await theirs.getByLabel('Measured').fill('2.5');
	await expect(theirs.getByRole('main').getByRole('status').first()).toContainText(
		'kept, version 2'
	);
	await mine.getByLabel('Measured').fill('1.5');
	await expect(mine.getByRole('alert')).toContainText('Tove Rieveld changed this plan meanwhile');
	await expect(mine.getByLabel('Measured')).toHaveValue('1.5');
	await mine.reload();
	await expect(mine.getByLabel('Measured')).toHaveValue('2.5');
	await mine.close();
	await theirs.close();
});

test('an inspection goes on at another device, and is signed once by two people', async ({
	browser
}) => {
	const [one, two] = [await browser.newPage(), await browser.newPage()];
	await signInAs(one, 'Ilse Norrby');
	await signInAs(two, 'Odd Kessmer');
	await scan(one, 'HM-0106');
	const run = await beginInspection(one);
	await answerSteps(one, CLEAN.slice(0, 9));
	await expect(one.getByRole('main').getByRole('status')).toContainText('every answer kept');
	await two.goto(run);
	await expect(two.getByRole('main').getByRole('status')).toContainText('9 of 18');
	await answerSteps(two, CLEAN.slice(9), 9);
	await expect(two.getByRole('main').getByRole('status')).toContainText('every answer kept');
	await one.reload();
	await ready(one);
	await one.getByRole('button', { name: 'Enter Sign' }).dblclick();
	await expect(one.getByRole('heading', { name: 'Passed' })).toBeVisible();
	await two.keyboard.press('Enter');
	await expect(two.getByText(/Ilse Norrby has already signed this inspection/)).toBeVisible();
	await expect(two.getByText(/Signed by Ilse Norrby/)).toBeVisible();
	await one.goto(`${appUrl()}/items/HM-0106/history`);
	await expect(one.getByText(/Inspection signed: pass/)).toHaveCount(3);
	await one.close();
	await two.close();
});

test('undo takes a reject back; a note is kept with it; the codes can be left again', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await scan(page, 'HM-0107');
	await beginInspection(page);
	await page.keyboard.press('n');
	await page.getByLabel('Note for this step').fill('pad torn at the rim');
	await page.keyboard.press('Escape');
	await page.getByRole('heading', { level: 1 }).click();
	await page.keyboard.press('2');
	await page.keyboard.press('Escape');
	await expect(page.getByRole('main').getByRole('status')).toContainText('0 of 18');
	await page.keyboard.press('2');
	await page.keyboard.press('1');
	await expect(page.getByRole('complementary', { name: 'So far' }).getByText('CLOG')).toBeVisible();
	await page.keyboard.press('u');
	await expect(page.getByText('Nothing that holds it.')).toBeVisible();
	await expect(page.getByRole('main').getByRole('status')).toContainText(
		'0 of 18 · every answer kept'
	);
	await scan(page, 'HM-0107');
	await expect(page.getByRole('complementary', { name: 'State' })).not.toContainText('held');
});

test('an unknown tag is said, and a search finds by model', async ({ page }) => {
	await signInAs(page, 'Ilse Norrby');
	await page.keyboard.press('/');
	await page.keyboard.type('HM-9999');
	await page.keyboard.press('Enter');
	await expect(page.getByText(/Nothing here carries it/)).toBeVisible();
	await enter(page.getByRole('link', { name: 'Add HM-9999 to the register' }));
	await expect(page.getByLabel('Tag', { exact: true })).toHaveValue('HM-9999');
	const response = await page.goto(`${appUrl()}/items/HM-9999`);
	expect(response?.status()).toBe(404);
	await expect(page.getByText(/No item carries the tag HM-9999/)).toBeVisible();
	await page.goto(`${appUrl()}/items?q=Duo`);
	await expect(page.getByRole('table')).toContainText('Brannick Duo');
	await expect(page.getByRole('table')).not.toContainText('Tesselow');
});
