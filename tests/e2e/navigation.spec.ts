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

test('from a signed inspection to the one in its place and back, each shows its own answers', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await scan(page, 'HM-0109');
	const first = await beginInspection(page);
	await answerSteps(page, CLEAN);
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: 'Passed' })).toBeVisible();

	await page.getByText('It does not stand: make another').click();
	await page.getByLabel('Why it does not stand').fill('The wrong mask was on the bench.');
	await enter(page.getByRole('button', { name: 'Begin the one in its place' }));
	await expect(page).not.toHaveURL(first);
	await ready(page);
	const count = page.getByRole('main').getByRole('status').first();
	await expect(count).toContainText('0 of 18');
	await answerSteps(page, ['3']);

	// Within the app, from the one to the other: nothing of the one before stays.
	await enter(page.getByRole('link', { name: 'a signed one' }));
	await expect(page.getByRole('heading', { name: 'Passed' })).toBeVisible();
	await expect(count).toContainText('18 of 18');
	await enter(page.getByRole('link', { name: 'The one in its place' }));
	await expect(count).toContainText('1 of 18');
	await expect(
		page.getByRole('heading', { level: 2, name: 'Pre-filter and retainer, right' })
	).toBeVisible();
});

test('records name the item and open what they speak of', async ({ page }) => {
	await signInAs(page, 'Ilse Norrby');
	// Something that is among the last, whatever other tests have done.
	await scan(page, 'HM-0151');
	await beginInspection(page);
	await ready(page);
	await page.keyboard.press('2');
	await page.keyboard.press('1');
	await expect(page.getByRole('main').getByRole('status').first()).toContainText('1 of 18');
	await expect(page.getByText('every answer kept')).toBeVisible();
	await page.goto(`${appUrl()}/records`);
	await ready(page);
	const line = page.getByRole('listitem').filter({ hasText: 'Fault found' }).first();
	const tag = (await line.getByRole('link').first().textContent()) ?? '';
	await line.getByRole('link', { name: /Fault found/ }).click();
	await expect(page).toHaveURL(/\/faults\//);
	await expect(page.getByRole('link', { name: tag }).first()).toBeVisible();
	await page.goto(`${appUrl()}/items/${tag}/history`);
	await expect(page.getByRole('main')).not.toContainText(/\d{4}-\d{2}-\d{2}/);
});

test('a month to choose a day from is the present one where nothing is chosen', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await page.goto(`${appUrl()}/filters/store`);
	await ready(page);
	const trigger = page.getByRole('button', { name: 'Choose from a month: Use by' });
	await enter(trigger);
	const month = new Date().toLocaleDateString('en-GB', { month: 'long', year: 'numeric' });
	await expect(page.getByRole('application').or(page.getByRole('dialog'))).toContainText(month);
	await page.keyboard.press('Escape');
	await expect(trigger).toBeFocused();
});
