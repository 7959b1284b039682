import type { Page } from '@playwright/test';
import { appUrl, ready, signInAs } from './support/app';
import { expect, test } from './support/test';

const at = async (page: Page, path: string) => {
	await page.goto(`${appUrl()}${path}`);
	await ready(page);
};
/** What is said at a field, as assistive technology reads it. */
const saidAt = (page: Page, label: string, words: RegExp) =>
	expect(page.getByLabel(label, { exact: true })).toHaveAccessibleDescription(words);

test('a substance says all its faults at once, each at its field, and keeps what was typed', async ({
	page
}) => {
	await signInAs(page, 'Tove Rieveld');
	await at(page, '/hazards/substances/styrene');
	await page.getByRole('button', { name: 'Correct a value' }).click();
	await page.getByLabel('Molar mass, g/mol').fill('heavy');
	await page.getByLabel('Boils at, °C').fill('hot');
	await page.getByLabel('Odour threshold, ppm').fill('0,4');
	await page.getByRole('button', { name: 'Keep' }).click();
	await saidAt(page, 'Molar mass, g/mol', /“heavy” is not a number/);
	await saidAt(page, 'Boils at, °C', /“hot” is not a number/);
	await saidAt(page, 'Why, and where the value comes from', /Say why/);
	// The first that is refused has the focus: the next key goes there.
	await expect(page.getByLabel('Molar mass, g/mol')).toBeFocused();
	await expect(page.getByLabel('Odour threshold, ppm')).toHaveValue('0,4');
	await page.getByLabel('Molar mass, g/mol').fill('104.15');
	await page.getByLabel('Boils at, °C').fill('145');
	await page.getByLabel('UK limit').fill('many');
	await page.getByLabel('Why, and where the value comes from').fill('sheet of the supplier');
	await page.getByRole('button', { name: 'Keep' }).click();
	await saidAt(page, 'UK limit', /“many” is no limit/);
	await page.getByLabel('UK limit').fill('100/250');
	await page.getByRole('button', { name: 'Keep' }).click();
	await expect(page.getByText('Kept. The old values stand in the history below.')).toBeVisible();
	await expect(page.getByText('sheet of the supplier').first()).toBeVisible();
});

test('a form that got no answer keeps what was typed, and is done once when it is sent again', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await at(page, '/filters/store');
	await page.getByRole('button', { name: 'New filter' }).click();
	await page.getByRole('button', { name: 'Keep' }).click();
	await saidAt(page, 'Maker', /Name the maker/);
	await saidAt(page, 'Name', /Name the filter/);
	await saidAt(page, 'Mass of one, g', /above zero/);
	for (const [label, text] of [
		['Maker', 'Ostrel'],
		['Name', 'OS 41 combined'],
		['Mount', 'thread 40'],
		['EN marking', 'A2P3'],
		['Mass of one, g', '260']
	] as const)
		await page.getByLabel(label, { exact: true }).fill(text);
	// The server does it; its answer is lost on the way.
	await page.route('**/filters/store?/model', async (route) => {
		await route.fetch();
		await route.abort();
	});
	await page.getByRole('button', { name: 'Keep' }).click();
	await expect(page.getByRole('alert')).toContainText('What you typed is still here');
	await expect(page.getByLabel('Name', { exact: true })).toHaveValue('OS 41 combined');
	await page.unroute('**/filters/store?/model');
	await page.getByRole('button', { name: 'Keep' }).click();
	await expect(page.getByText('OS 41 combined is kept.')).toBeVisible();
	await page.reload();
	await expect(page.getByRole('main').locator('li b', { hasText: 'OS 41 combined' })).toHaveCount(
		1
	);
});

test('a model and an item are taken in, each fault at its field', async ({ page }) => {
	await signInAs(page, 'Tove Rieveld');
	await at(page, '/items/models/new');
	await page.getByLabel('Family').selectOption({ label: 'BA set' });
	await page.getByLabel('Rated pressure, bar').fill('4000');
	await page.getByLabel('Lost in the hold, bar').fill('none');
	await page.getByRole('button', { name: 'Keep' }).click();
	await saidAt(page, 'Model', /Name the model/);
	await saidAt(page, 'Maker', /Name the maker/);
	await saidAt(page, 'Rated pressure, bar', /from 1 to 400 bar/);
	await saidAt(page, 'Lost in the hold, bar', /from 0\.1 to 10 bar/);
	await page.getByLabel('Model', { exact: true }).fill('OS 300');
	await page.getByLabel('Maker', { exact: true }).fill('Ostrel');
	await page.getByLabel('Rated pressure, bar').fill('300');
	await page.getByLabel('Lost in the hold, bar').fill('');
	await page.getByRole('button', { name: 'Keep' }).click();
	await expect(page).toHaveURL(/\/items\/models$/);
	await expect(page.getByText('OS 300')).toBeVisible();
	await at(page, '/items/new');
	await page.getByRole('button', { name: 'Take it into the register' }).click();
	await saidAt(page, 'Tag', /Type or scan the tag/);
	await saidAt(page, 'Model', /Choose the model/);
	await saidAt(page, 'Place', /Choose the place/);
	await page.getByLabel('Tag', { exact: true }).fill('BA-0990');
	await page.getByLabel('Model').selectOption({ label: 'OS 300, ba set' });
	await page.getByLabel('Place').selectOption({ index: 1 });
	await page.getByRole('button', { name: 'Take it into the register' }).click();
	await expect(page).toHaveURL(/\/items\/BA-0990$/);
});
