import { faultsOf } from './support/axe';
import { appUrl, beginInspection, enter, ready, scan, signInAs } from './support/app';
import { expect, test } from './support/test';

test('a supervisor changes a procedure; the next inspection runs under the new version', async ({
	page
}) => {
	await signInAs(page, 'Tove Rieveld');
	await page.goto(`${appUrl()}/items/procedures`);
	await enter(page.getByRole('link', { name: /Canister mask, before and after use/ }));
	await enter(page.getByRole('link', { name: 'Make a new version' }));
	await ready(page);
	await enter(page.getByRole('button', { name: 'Up: Tag' }));
	await expect(page.getByRole('complementary')).toContainText(/moved (Tag|Carrier)/);
	await page
		.getByRole('listitem', { name: 'Hose and ends' })
		.getByRole('button', { name: 'Change' })
		.click();
	await page.getByLabel('What to do').fill('');
	await page.getByLabel('Why it is changed').fill('Notice of the maker');
	await page.getByRole('button', { name: 'Put it in force' }).click();
	await expect(
		page.getByRole('alert').filter({ hasText: 'Hose and ends: “what to do” is empty' })
	).toBeVisible();
	await page.getByLabel('What to do').fill('Stretch it under water; look for bubbles.');
	// The pointer lies on the button: it is read there as well.
	await page.getByRole('button', { name: 'Put it in force' }).hover();
	expect(await faultsOf(page)).toEqual([]);
	await page.getByRole('button', { name: 'Put it in force' }).click();
	await expect(page.getByText('Notice of the maker').first()).toBeVisible();
	await expect(page.getByText('site 1').first()).toBeVisible();
	await scan(page, 'CM-0201');
	await enter(page.getByRole('button', { name: /^Inspect/ }));
	await expect(page).toHaveURL(/\/runs\//);
	await ready(page);
	for (const step of [
		'Plug and tape',
		'Canister: wet',
		'Thread',
		'Canister clip',
		'Hose and ends'
	]) {
		await page.keyboard.press('1');
		await expect(page.getByRole('heading', { name: step })).toBeVisible();
	}
	await expect(page.getByText('Stretch it under water; look for bubbles.')).toBeVisible();
});

test('a muster: scan after scan, one exception that holds, what was not presented', async ({
	page
}) => {
	await signInAs(page, 'Odd Kessmer');
	await page.goto(`${appUrl()}/items/musters`);
	await ready(page);
	await page.getByLabel('Kind').selectOption({ label: 'Ventilated suits' });
	await page.getByRole('button', { name: 'Begin' }).click();
	await expect(page).toHaveURL(/\/items\/musters\/[0-9a-f-]{36}/);
	await ready(page);
	const field = page.getByLabel('Scan, one after the other');
	// A scanner does not wait for the answer.
	await field.focus();
	for (const tag of ['VS-0201', 'VS-9998', 'VS-0202']) {
		await page.keyboard.type(tag);
		await page.keyboard.press('Enter');
	}
	await expect(field).toBeFocused();
	await expect(page.getByRole('alert')).toContainText('No item carries the tag VS-9998');
	await page.getByRole('button', { name: 'Seen: VS-9998' }).click();
	for (const tag of ['VS-0201', 'VS-0202'])
		await expect(page.getByRole('list').getByRole('link', { name: tag })).toBeVisible();
	await expect(page.getByRole('status').filter({ hasText: 'presented' })).toContainText('2 of 6');
	await field.fill('VS-9999');
	await page.keyboard.press('Enter');
	await expect(page.getByRole('alert')).toContainText('No item carries the tag VS-9999');
	await page.getByLabel(/Wrong with VS-0202/).selectOption('zip ZIPV');
	await page.getByRole('button', { name: 'Note it' }).click();
	await expect(page.getByText(/ZIPV, .*: zip/)).toBeVisible();
	await page.getByRole('button', { name: 'Close the sheet' }).click();
	await expect(page.getByRole('heading', { name: 'Not presented: 4' })).toBeVisible();
	await scan(page, 'VS-0202');
	await expect(page.getByRole('complementary', { name: 'State' })).toContainText('held');
});

test('a set: a part is put on and taken off, and its state follows', async ({ page }) => {
	await signInAs(page, 'Odd Kessmer');
	await scan(page, 'BA-0225');
	for (const tag of ['cy-0260', 'BA-0225']) {
		await page.getByLabel('Put on').fill(tag);
		await page.getByRole('button', { name: 'Put it on' }).click();
	}
	await expect(page.getByRole('button', { name: 'Take CY-0260 off' })).toBeVisible();
	await expect(page.getByRole('alert')).toContainText('cannot be a part of itself');
	await page.getByRole('button', { name: 'Take CY-0260 off' }).click();
	await expect(page.getByRole('button', { name: 'Take CY-0260 off' })).toHaveCount(0);
});

test('a seal check leads on by what the wearer felt, and stops after two leaks', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await page.goto(`${appUrl()}/items/FF-0230/seal`);
	await ready(page);
	await page.keyboard.press('2');
	await expect(page.getByRole('status').filter({ hasText: 'Try again' })).toContainText(
		'not blocked fully'
	);
	await page.keyboard.press('3');
	await page.keyboard.press('3');
	await expect(page.getByText('Stop: no entry with this mask')).toBeVisible();
	// Another size or model that is ready, or what needs no seal.
	const instead = page.getByRole('region', { name: /Ready instead/ });
	await expect(instead.getByRole('link').first()).toBeVisible();
	await page.getByLabel('Wearer').fill('Wearer 7');
	await page.getByRole('button', { name: 'Keep the check' }).click();
	await expect(page.getByText('Kept.')).toBeVisible();
	await expect(page.getByText(/no entry, Wearer 7/)).toBeVisible();
});

test('a picture is taken at a reject; a script with the name of one is refused; the signed run is replaced', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await scan(page, 'HM-0112');
	await beginInspection(page);
	const png = Buffer.from(
		'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==',
		'base64'
	);
	const file = page.getByLabel('Picture of this step');
	await file.setInputFiles({ name: 'seat.png', mimeType: 'image/png', buffer: png });
	await expect(page.getByRole('img', { name: /Taken by Ilse Norrby/ })).toBeVisible();
	await file.setInputFiles({
		name: 'seat.jpg',
		mimeType: 'image/jpeg',
		buffer: Buffer.from('#!/bin/sh\necho no\n')
	});
	const said = page.getByRole('alert').first();
	await expect(said).toContainText('no picture, whatever its name says');
	await said.getByRole('button', { name: 'Seen' }).click();
	for (let i = 0; i < 18; i++) {
		await page.keyboard.press(i < 2 ? '3' : '1');
		await expect(page.getByRole('main').getByRole('status').first()).toContainText(
			`${i + 1} of 18`
		);
	}
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: 'Passed' })).toBeVisible();
	await page.getByText('It does not stand: make another in its place').click();
	await page.getByLabel('Why it does not stand').fill('Wrong mask on the bench');
	await page.getByRole('button', { name: 'Begin the one in its place' }).click();
	await expect(page.getByText(/Takes the place of/)).toContainText('Wrong mask on the bench');
});

test('chosen items are moved and get labels', async ({ page }) => {
	await signInAs(page, 'Odd Kessmer');
	await page.goto(`${appUrl()}/items?family=escape-set`);
	await ready(page);
	await page.getByLabel('Choose ES-0201').check();
	await page.getByLabel('Choose ES-0202').check();
	const bar = page.getByRole('form', { name: 'With what is chosen' });
	await bar.getByLabel('Move to').selectOption({ label: 'Grain quay' });
	await bar.getByRole('button', { name: 'Move' }).click();
	await expect(page.getByText(/moved\./)).toBeVisible();
	await expect(page.getByRole('row', { name: /ES-0202/ })).toContainText('Grain quay');
	await page.getByLabel('Choose ES-0201').check();
	await bar.getByRole('link', { name: 'Labels' }).click();
	await expect(page.getByRole('article', { name: 'Label of ES-0201' })).toBeVisible();
});
