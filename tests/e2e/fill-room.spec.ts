import type { Page } from '@playwright/test';
import { appUrl, ready, signInAs, typeDay } from './support/app';
import { expect, test } from './support/test';

test.describe.configure({ mode: 'serial' });
const WAIT = { timeout: 60_000 };

async function fillRoom(page: Page): Promise<void> {
	await signInAs(page, 'Ilse Norrby');
	await page.goto(`${appUrl()}/air/filling`);
	await ready(page);
}

async function simulate(page: Page, speed: string): Promise<void> {
	await page.getByText('Simulated panel').click();
	await page.getByLabel('Times as fast').fill(speed);
	await page.getByRole('button', { name: 'Set', exact: true }).click();
}

/** Fills what is looked at, bank after bank, by the Enter key. @returns what is said at its end */
async function fillNext(page: Page): Promise<string> {
	const said = page.getByText(/is (full|short): \d+ bar when cool/);
	const before = (await said.count()) ? await said.textContent() : null;
	await page.getByRole('button', { name: /All good, onto the panel/ }).click();
	const panel = page.getByRole('region', { name: /on the panel/ });
	await expect(panel).toBeVisible(WAIT);
	const next = panel.getByRole('button', { name: /Enter$/ });
	for (let press = 0; press < 8; press++) {
		// While a bank fills it, there is no key to press.
		await expect(next).toBeEnabled(WAIT);
		const words = (await next.textContent()) ?? '';
		await page.keyboard.press('Enter');
		await expect(next.filter({ hasText: words })).toHaveCount(0, WAIT);
		if (words.includes('take the reading')) break;
	}
	await expect(panel).toBeHidden(WAIT);
	await expect(said).not.toHaveText(before ?? '', WAIT);
	return (await said.textContent()) ?? '';
}

test('a rack is filled by cascade until a bank has to be pumped up', async ({ page }) => {
	test.setTimeout(240_000);
	await fillRoom(page);
	await simulate(page, '600');
	const more = page.getByText(/\d more to nine tenths|No more to nine tenths/);
	await expect(more).toHaveText(/\d more/);
	let full = 0;
	for (let fill = 0; fill < 8; fill++) {
		if ((await fillNext(page)).includes('is full')) full++;
		else break;
	}
	// As many as the cascade of the banks gives; then it says which to pump up.
	expect(full).toBeGreaterThanOrEqual(2);
	expect(full).toBeLessThan(8);
	await expect(more).toHaveText(/No more/, WAIT);
	const pump = page.getByRole('button', { name: /^Pump up bank \d/ });
	const bank = /\d/.exec((await pump.textContent()) ?? '')?.[0] ?? '';
	await pump.click();
	await expect(page.getByRole('listitem', { name: `Bank ${bank}: 300 bar` })).toBeVisible(WAIT);
	await expect(more).toHaveText(/\d more/, WAIT);
	expect(await fillNext(page)).toContain('is full');
	await expect(page.getByRole('region', { name: 'Fill log' }).getByRole('row')).toHaveCount(13);
});

test('a cylinder that is found bad at the look is held and leaves the panel free', async ({
	page
}) => {
	await fillRoom(page);
	const look = page.getByRole('region', { name: /^Look at/ });
	const tag = (await look.locator('.tag').first().textContent()) ?? '';
	await page.keyboard.press('2');
	await look.getByLabel('Where').selectOption({ label: 'Gauge' });
	await look.getByLabel('What').selectOption({ index: 1 });
	await look.getByRole('button', { name: 'Reject and hold' }).click();
	const row = page.getByRole('button', { name: new RegExp(tag) });
	await expect(row).toContainText('Open fault: GAUGE');
	await row.click();
	await expect(look).toContainText('Open fault: GAUGE');
	await expect(look.getByRole('button', { name: /All good/ })).toHaveCount(0);
});

test('an air test fails: what was filled since the last good one is held, and where it is', async ({
	page
}) => {
	test.setTimeout(180_000);
	await signInAs(page, 'Ilse Norrby');
	await page.goto(`${appUrl()}/air/tests`);
	await ready(page);
	await page.getByLabel('Name').fill('Spare compressor');
	await page.getByLabel('fills cylinders at the panel').check();
	await page.getByLabel('Banks, litres of water each').fill('50 50 50');
	await page.getByRole('button', { name: 'Add', exact: true }).click();
	await expect(page.getByText('No air test on record.')).toBeVisible();
	const source = page.url();
	await ready(page);

	const enterTest = async (co: string) => {
		await page.getByLabel('Tested by').fill('Harbour laboratory');
		await typeDay(page, 'Taken', await clock(page));
		for (const [label, value] of [
			['Oxygen, %', '20.8'],
			['CO, ppm', co],
			['CO2, ppm', '380'],
			['Oil, mg/m³', '0.1'],
			['Water, mg/m³', '14']
		] as const)
			await page.getByLabel(label).fill(value);
		await page.getByRole('button', { name: 'Enter the test' }).click();
	};
	await enterTest('1');
	await expect(page.getByText('The air passed. It may be given out.')).toBeVisible();

	await page.goto(`${appUrl()}/air/filling`);
	await ready(page);
	await simulate(page, '600');
	await page.getByLabel('Air from').selectOption({ label: 'Spare compressor' });
	// A bank may have been left low by the test before; full or short, its air is of this source.
	await fillNext(page);
	const row = page.getByRole('region', { name: 'Fill log' }).getByRole('row').nth(1);
	const tag = (await row.getByRole('link').first().textContent()) ?? '';

	await page.goto(source);
	await ready(page);
	await enterTest('14');
	await expect(page.getByText(/The air failed. 1 filled since/)).toContainText(tag);
	await expect(page.getByText(/The air failed. 1 filled since/)).toBeInViewport();
	await expect(page.getByRole('list', { name: 'Held by this test' })).toContainText(tag);
	await page.goto(`${appUrl()}/air/cylinders/${tag}`);
	await expect(page.getByText('Not to be put on a set')).toBeVisible();
	await expect(
		page.getByText(/The air in it, from Spare compressor, failed/).first()
	).toBeVisible();
	await page.goto(`${appUrl()}/items/${tag}`);
	await expect(page.getByText(/let it down and fill it anew/).first()).toBeVisible();
	await page.goto(`${appUrl()}/air/filling`);
	await ready(page);
	await page.getByLabel('Air from').selectOption({ label: 'Spare compressor' });
	await expect(page.getByText(/Its air failed the test of/)).toBeVisible();
	await page.getByRole('button', { name: /All good, onto the panel/ }).click();
	await expect(page.getByText(/Spare compressor gives no air out/)).toBeVisible();
});

/** The time of the page, as its date fields take it. */
const clock = (page: Page) =>
	page.evaluate(() => {
		const at = new Date();
		return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 19);
	});
