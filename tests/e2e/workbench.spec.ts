import { appUrl, enter, ready, scan, signInAs } from './support/app';
import { faultsOf } from './support/axe';
import { expect, test } from './support/test';

test.use({ serviceWorkers: 'allow' });

test('a list is sorted by its heads, walked and opened by key, and says its keys', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await page.goto(`${appUrl()}/items?family=half-mask`);
	await ready(page);
	const head = page.getByRole('columnheader', { name: 'Last day' });
	await enter(head.getByRole('link'));
	await expect(page).toHaveURL(/family=half-mask&sort=due/);
	await expect(head).toHaveAttribute('aria-sort', 'ascending');
	const first = page.getByRole('row').nth(1).getByRole('link');
	const tag = (await first.textContent()) ?? '';
	await enter(head.getByRole('link'));
	await expect(head).toHaveAttribute('aria-sort', 'descending');
	await expect(first).not.toHaveText(tag);
	await enter(head.getByRole('link'));
	await expect(page).not.toHaveURL(/sort=/);

	// Keys, where nothing has the focus.
	await page.reload();
	await ready(page);
	await page.keyboard.press('?');
	const help = page.getByRole('dialog');
	await expect(help).toContainText('walk items');
	await expect(help).toContainText('scan a tag or search');
	expect(await faultsOf(page)).toEqual([]);
	await page.keyboard.press('Escape');
	await expect(help).toBeHidden();
	await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
	await page.keyboard.press('ArrowDown');
	await page.keyboard.press('ArrowDown');
	await page.keyboard.press('x');
	await expect(page.getByText('1 chosen')).toBeVisible();
	const second = await page.getByRole('row').nth(2).getByRole('link').textContent();
	await page.keyboard.press('Enter');
	await expect(page).toHaveURL(new RegExp(`/items/${second}$`));
});

test('the guide is searched, and is on the device without a connection', async ({
	page,
	context
}) => {
	await signInAs(page, 'Ilse Norrby');
	await page.evaluate(async () => void (await navigator.serviceWorker.ready));
	await page.goto(`${appUrl()}/help`);
	await ready(page);
	await page.getByLabel('Find in the guide').fill('stock-take drawers');
	await expect(page.getByRole('heading', { level: 2 }).first()).toHaveText(
		'Faults, repairs, recalls'
	);
	await expect(page.getByRole('heading', { name: 'The first hour' })).toHaveCount(0);
	// Opened once more with the worker in charge, it is kept.
	await page.reload();
	await ready(page);
	await context.setOffline(true);
	await page.reload();
	await expect(page.getByRole('heading', { level: 1, name: 'Guide' })).toBeVisible();
	await expect(page.getByRole('heading', { level: 2 }).first()).toHaveText('The first hour');
	await context.setOffline(false);
});

test('a rule that is offered is looked at and taken up; a drop asks for an inspection', async ({
	page
}) => {
	await signInAs(page, 'Tove Rieveld');
	await page.goto(`${appUrl()}/settings/rules`);
	await ready(page);
	await enter(page.getByRole('button', { name: /^Take up: Deep inspection every 12 months/ }));
	await enter(page.getByRole('button', { name: 'Look at what it would do' }));
	await expect(page.getByText(/It looks at \d+ items/)).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	await enter(page.getByRole('button', { name: 'Keep the rule' }));
	const meant = page.getByRole('checkbox', { name: 'it is meant' });
	const kept = page.getByText('Every item was worked out by it.');
	await expect(meant.or(kept)).toBeVisible();
	if (await meant.isVisible()) {
		await meant.check();
		await enter(page.getByRole('button', { name: 'Keep the rule' }));
	}
	await expect(kept).toBeVisible();
	await expect(page.getByRole('button', { name: /^Take up: Deep inspection/ })).toBeHidden();
	await scan(page, 'HM-0102');
	const due = page.getByRole('listitem').filter({ hasText: 'Deep inspection' });
	await expect(due).toBeVisible();
	await enter(due.getByRole('button', { name: 'Begin: Deep inspection' }));
	await expect(page).toHaveURL(/\/runs\//);
	await expect(page.getByRole('main')).toContainText('yearly, before the fit test');

	await scan(page, 'FF-0215');
	await page.getByText('Something happened to it').click();
	await page.getByLabel('What, where').fill('Off the ladder');
	await enter(page.getByRole('button', { name: 'Dropped or struck' }));
	await expect(page.getByText('It is looked at before it is used again.')).toBeVisible();
	await expect(page.getByRole('complementary')).toContainText('overdue');

	// Ended again, so that the next test finds the demo as it was.
	await page.goto(`${appUrl()}/settings/rules`);
	await ready(page);
	await enter(page.getByRole('button', { name: 'Change', exact: true }).first());
	await page.getByLabel('Why it is not needed any more').fill('Tried');
	await enter(page.getByRole('button', { name: 'End the rule' }));
	await expect(page.getByText('Every item was worked out without it.')).toBeVisible();
});

test('a delivery comes in, a stock-take finds less, what is short is said', async ({ page }) => {
	await signInAs(page, 'Ilse Norrby');
	await page.goto(`${appUrl()}/faults/parts`);
	await ready(page);
	await page.getByLabel('What', { exact: true }).selectOption({ label: 'Lens' });
	await page.getByLabel('Lot', { exact: true }).fill('L-900');
	await page.getByLabel('How many').fill('6');
	await enter(page.getByRole('button', { name: 'Take into the store' }));
	await expect(page.getByText('Taken in: Lens, lot L-900.')).toBeVisible();
	await enter(page.getByRole('link', { name: 'Stock-take' }));
	await ready(page);
	await page.getByLabel('Scan a lot or type a part').fill('L-900');
	await page.keyboard.press('Enter');
	const counted = page.getByLabel('Counted of Lens, lot L-900');
	await expect(counted).toBeFocused();
	await page.keyboard.type('4');
	await expect(page.getByText('−2')).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	await page.getByLabel(/Where what differs went/).fill('Two in the van');
	await enter(page.getByRole('button', { name: 'Keep the count of 1' }));
	await expect(page.getByText('1 lots counted, 1 differed')).toBeVisible();
	await page.goto(`${appUrl()}/records`);
	await expect(page.getByRole('main')).toContainText(
		'counted 4, the record said 6. Two in the van'
	);
});

test('each person chooses what is told by e-mail, and sees what it would say', async ({ page }) => {
	await signInAs(page, 'Odd Kessmer');
	await page.goto(`${appUrl()}/settings/messages`);
	await ready(page);
	await expect(page.getByText(/overdue, .* due this week/).first()).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	await page.getByRole('checkbox', { name: /A message a day/ }).uncheck();
	await enter(page.getByRole('button', { name: 'Keep', exact: true }));
	await expect(page.getByText('Kept.')).toBeVisible();
	await page.reload();
	await expect(page.getByRole('checkbox', { name: /A message a day/ })).not.toBeChecked();
	await expect(page.getByRole('checkbox', { name: /At once/ })).toBeChecked();
});

test('models stand side by side, a copy begins a new one', async ({ page }) => {
	await signInAs(page, 'Tove Rieveld');
	await page.goto(`${appUrl()}/items/models`);
	await ready(page);
	for (const name of ['Tesselow F3', 'Tesselow Harbour'])
		await page.getByRole('checkbox', { name: `Compare ${name}` }).check();
	await enter(page.getByRole('button', { name: 'Compare 2' }));
	const wash = page.getByRole('row', { name: /Wash at most/ });
	await expect(wash).toContainText('49 °C');
	await expect(wash).toContainText('43 °C');
	expect(await faultsOf(page)).toEqual([]);
	await enter(page.getByRole('link', { name: 'Tesselow F3' }));
	await enter(page.getByRole('link', { name: 'Copy as a new model' }));
	await expect(page.getByText('Filled in from Tesselow F3')).toBeVisible();
	await ready(page);
	await expect(page.getByLabel('Wash at most, °C')).toHaveValue('49');
	await page.getByLabel('Model', { exact: true }).fill('Tesselow F3 short');
	await page.getByLabel('Wash at most, °C').fill('80');
	await enter(page.getByRole('button', { name: 'Keep', exact: true }));
	await expect(page.getByText('from 20 to 65 °C')).toBeVisible();
	await page.getByLabel('Wash at most, °C').fill('40');
	await enter(page.getByRole('button', { name: 'Keep', exact: true }));
	await expect(page).toHaveURL(/\/items\/models$/);
	await expect(page.getByRole('link', { name: /Tesselow F3 short/ })).toBeVisible();
});

test('a wearer is taken in, a fit test typed from paper counts, a change on a phone ends it', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await page.goto(`${appUrl()}/people/new`);
	await ready(page);
	await page.getByLabel('Number').fill('17');
	await page.getByLabel('Name', { exact: true }).fill('Perrin Ashgrove');
	await enter(page.getByRole('button', { name: 'Keep', exact: true }));
	await expect(page.getByRole('heading', { level: 1, name: 'Perrin Ashgrove' })).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	await enter(page.getByRole('link', { name: 'From paper' }));
	await ready(page);
	await page.getByLabel('Mask', { exact: true }).selectOption({ label: 'Tesselow F3' });
	await page.getByLabel('Size').fill('M');
	for (const name of [
		'Normal breathing',
		'Deep breathing',
		'Head side to side',
		'Head up and down',
		'Talking',
		'Bending over'
	])
		await page
			.getByLabel(new RegExp(`^${name}`))
			.first()
			.fill('2600');
	await expect(page.getByText('1 still to come')).toBeVisible();
	await page
		.getByLabel(/^Normal breathing/)
		.last()
		.fill('1999');
	await expect(page.getByText('Not passed')).toBeVisible();
	await page
		.getByLabel(/^Normal breathing/)
		.last()
		.fill('2000');
	await expect(page.getByText('Passed', { exact: true })).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	await enter(page.getByRole('button', { name: 'Sign it into the record' }));
	await expect(page.getByText('1 fit test counts')).toBeVisible();

	await page.setViewportSize({ width: 390, height: 844 });
	await page.getByRole('button', { name: /dental work/ }).click();
	await expect(page.getByText('Every fit test before it ended today.')).toBeVisible();
	await expect(page.getByText('No fit test counts')).toBeVisible();
});
