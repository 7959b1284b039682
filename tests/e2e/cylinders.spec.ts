import { appUrl, ready, scan, signInAs, typeDay } from './support/app';
import { expect, type Page, test } from './support/test';

async function open(page: Page, path: string): Promise<void> {
	await page.goto(appUrl() + path);
	await ready(page);
}

test('a cylinder nobody knows the rest of is held until its gauge is noted, in any unit', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await expect(page.getByText('What is left in it is not known').first()).toBeVisible();
	await scan(page, 'CY-0256');
	await expect(page.getByRole('complementary', { name: 'State' })).toContainText('held');
	await page.getByRole('link', { name: 'Pressure, tests, filling' }).click();
	await ready(page);
	await expect(page.getByText('Not to be filled')).toBeVisible();
	const gauge = page.getByLabel('Its gauge shows');
	await gauge.fill('4350');
	await expect(page.getByText(/write 4350 psi, which is 300 bar/)).toBeVisible();
	await page.getByRole('button', { name: 'Note', exact: true }).click();
	await expect(page.getByRole('alert')).toContainText('4350 psi');
	await gauge.fill('4200 psi');
	await expect(page.getByText('290 bar', { exact: true })).toBeVisible();
	await page.getByRole('button', { name: 'Note', exact: true }).click();
	await expect(page.getByText('May be filled')).toBeVisible();
	await expect(page.getByText('May be put on a set')).toBeVisible();
	await open(page, '/items/CY-0256/history');
	await expect(page.getByText(/289.6 bar, written as 4200 psi/)).toBeVisible();
});

test('a cylinder past its test is refused by the set and by the fill room, until it is tested', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await open(page, '/items/BA-0220');
	await page.getByPlaceholder('scan its tag').fill('CY-0259');
	await page.getByRole('button', { name: 'Put it on' }).click();
	await expect(page.getByRole('alert')).toContainText('Past its test');
	await open(page, '/air/cylinders/CY-0259');
	await expect(page.getByText('Not to be put on a set')).toBeVisible();
	await page.getByRole('button', { name: 'To the test house' }).click();
	await expect(page.getByText('At the test house', { exact: true })).toBeVisible();
	const today = await page.evaluate(() => new Date().toISOString().slice(0, 10));
	await typeDay(page, 'On', today);
	await page.getByRole('button', { name: 'Write it down' }).last().click();
	await expect(page.getByRole('alert')).toContainText('stamp of the test house');
	await typeDay(page, 'On', today);
	await page.getByLabel('Stamp of the test house').fill('HT 9');
	await page.getByRole('button', { name: 'Write it down' }).last().click();
	await expect(page.getByText(/passed, stamp HT 9/)).toBeVisible();
	await page.getByRole('button', { name: 'On the rack' }).click();
	await expect(page.getByText('May be put on a set')).toBeVisible();
	await open(page, '/items/BA-0220');
	await page.getByPlaceholder('scan its tag').fill('CY-0259');
	await page.getByRole('button', { name: 'Put it on' }).click();
	await expect(page.getByRole('button', { name: 'Take CY-0259 off' })).toBeVisible();
	// One cylinder, one set.
	await open(page, '/items/BA-0221');
	await page.getByPlaceholder('scan its tag').fill('CY-0259');
	await page.getByRole('button', { name: 'Put it on' }).click();
	await expect(page.getByRole('alert')).toContainText('It is on BA-0220; take it off there first');
});

test('what is stamped on a cylinder is corrected, and what cannot be is said in its place', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await open(page, '/air/cylinders/CY-0230');
	await page.getByText('Correct what is stamped on it').click();
	const save = page.getByRole('button', { name: 'Write it down' }).first();
	await page.getByLabel('Water, litres').fill('6800');
	await save.click();
	await expect(page.getByLabel('Water, litres')).toHaveAccessibleDescription(
		/If this was in millilitres: 6\.8 L/
	);
	await page.getByLabel('Water, litres').fill('6.8');
	await page.getByLabel('Maximum, bar at 65 °C').fill('200');
	await save.click();
	await expect(page.getByLabel('Maximum, bar at 65 °C')).toHaveAccessibleDescription(
		/at or above the rated pressure/
	);
	await page.getByLabel('Maximum, bar at 65 °C').fill('45 MPa');
	await page.getByLabel('Tested every, years').fill('3');
	await save.click();
	await expect(page.getByLabel('Maximum, bar at 65 °C')).toHaveValue('450');
	await page.getByRole('button', { name: 'Because' }).first().click();
	await expect(page.getByRole('dialog')).toContainText('Periodic test every 3 years');
});

test('an airline with a narrow hose fails, says what would help, and passes with it', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await open(page, '/air/airlines');
	await page.getByRole('link', { name: /AL-0204/ }).click();
	await ready(page);
	const verdict = page.getByRole('region', { name: 'Verdict' });
	await expect(verdict).toContainText('Not to be breathed from');
	const bore = /Hose of (\d+) mm/.exec((await verdict.textContent()) ?? '')?.[1] ?? '';
	expect(Number(bore)).toBeGreaterThan(8);
	await page.getByText('Change how it is put together').click();
	await page.getByLabel('Hose bore, mm').fill('unknown');
	await page.getByRole('button', { name: 'Write it down' }).click();
	await expect(page.getByRole('alert')).toContainText('Look at the print on it or measure it');
	await page.getByLabel('Hose bore, mm').fill(bore);
	await page.getByRole('button', { name: 'Write it down' }).click();
	await expect(verdict).toContainText('May be breathed from by 2');

	await page.getByLabel('What was done').selectOption('alarm');
	await page.getByRole('radio', { name: 'no', exact: true }).check();
	await page.getByLabel('Note').fill('silent at 20 ppm');
	await page.getByRole('button', { name: 'Sign it' }).click();
	await expect(verdict).toContainText('The alarm failed its last test');
	await page.getByLabel('What was done').selectOption('alarm');
	await page.getByRole('button', { name: 'Sign it' }).click();
	await expect(verdict).toContainText('May be breathed from by 2');
	await expect(page.getByRole('list', { name: 'Tags signed' })).toContainText('silent at 20 ppm');

	// Minutes of a bank for those on it, the way out kept back.
	const lasts = page.getByRole('region', { name: /How long a bank lasts/ });
	const minutes = async () =>
		Number(/kept back\s*(\d+)/.exec((await lasts.textContent()) ?? '')?.[1] ?? NaN);
	const before = await minutes();
	await lasts.getByLabel('Way out, min').fill('20');
	await expect.poll(minutes).toBe(before - 10);
	await lasts.getByLabel('Way out, min').fill('-5');
	await expect(lasts.getByRole('alert')).toContainText('From 0 to 240 minutes');
});
