import { faultsOf } from './support/axe';
import { appUrl, ready, signInAs } from './support/app';
import { expect, type Page, test } from './support/test';

const open = async (page: Page, path: string) => {
	await page.goto(appUrl() + path);
	await ready(page);
};

test('a sheet is printed, typed in by keys, and stands as from paper; its paper is true', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await open(page, '/items/sheets?tags=HM-0104');
	const sheet = page.getByRole('article', { name: 'Sheet of HM-0104' });
	await expect(sheet.getByRole('listitem').first()).toContainText('1');
	await expect(sheet.locator('svg').first()).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	// The code of the sheet, as a scanner types it.
	await page
		.getByRole('searchbox')
		.or(page.getByPlaceholder(/Scan a tag/))
		.first()
		.fill('SHEET/HALF-MASK-PRE-USE/2/HM-0104');
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: /from paper/ })).toBeVisible();
	await ready(page);
	const steps = page.locator('ol input');
	const n = await steps.count();
	expect(n).toBeGreaterThan(10);
	await steps.first().focus();
	for (let i = 0; i < n - 1; i++) await page.keyboard.press('Enter');
	await page.keyboard.type('zz');
	await page.keyboard.press('Enter');
	await expect(page.getByText(/“zz” is none of/)).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	await steps.nth(n - 1).fill('');
	await page.keyboard.press('Enter');
	await expect(page.getByText('The day is missing.')).toBeVisible();
	// The day by keys: today, part by part.
	const today = new Intl.DateTimeFormat('en-GB').format(new Date()).split('/');
	const day = page.getByRole('group', { name: 'Day on the sheet' }).getByRole('spinbutton');
	for (const [i, part] of today.entries()) {
		await day.nth(i).focus();
		await page.keyboard.type(part);
	}
	await page.getByRole('button', { name: 'Sign what the sheet says' }).click();
	await expect(page.getByText(/Kept: pass/)).toBeVisible();
	await page.getByRole('link', { name: 'The inspection' }).click();
	await expect(page.getByText(/From paper: done by Ilse Norrby/)).toBeVisible();

	const href = await page.getByRole('link', { name: 'Paper (PDF)' }).getAttribute('href');
	const paper = await page.request.get(appUrl() + (href ?? ''));
	expect([paper.status(), paper.headers()['content-type']]).toEqual([200, 'application/pdf']);
	expect((await paper.body()).subarray(0, 5).toString()).toBe('%PDF-');

	await open(page, '/records?tag=HM-0104&group=inspections');
	const line = page.getByRole('listitem').filter({ hasText: 'typed in from paper' });
	await expect(line).toHaveCount(1);
	const entry = (await line.getByTitle(/^Entry/).getAttribute('title')) ?? '';
	const [, seq, hash] = /^Entry (\d+), hash ([0-9a-f]+)/.exec(entry) ?? [];
	await open(page, '/records/verify');
	await page.getByLabel('Entry and hash').fill(`${seq}, ${hash?.slice(0, 16)}`);
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: 'It stands in the record' })).toBeVisible();
	await expect(page.getByRole('region', { name: `Entry ${seq}` })).toContainText(
		'typed in from paper'
	);
	await page.getByLabel('Entry and hash').fill(`${seq}, 0000000`);
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: 'It does not stand' })).toBeVisible();
	await page.getByLabel('Entry and hash').fill('hello');
	await page.keyboard.press('Enter');
	await expect(page.getByRole('alert')).toContainText('number of the entry');
});

test('the record is searched by person and kind, gone back through, and handed over', async ({
	page
}) => {
	await signInAs(page, 'Tove Rieveld');
	await open(page, '/records');
	await page.getByLabel('Who').selectOption({ label: 'Odd Kessmer' });
	await page.getByLabel('What').selectOption('faults and repairs');
	await page.getByRole('button', { name: 'Show' }).click();
	await expect(page).toHaveURL(/who=/);
	await ready(page);
	const rows = page.locator('main ol > li');
	await expect(rows.first()).toBeVisible();
	for (const text of await rows.allTextContents()) expect(text).toContain('Odd Kessmer');
	const file = await page.request.get(
		appUrl() + ((await page.getByRole('link', { name: /as CSV/ }).getAttribute('href')) ?? '')
	);
	expect(file.headers()['content-type']).toContain('text/csv');
	const lines = (await file.text()).trim().split('\r\n');
	expect(lines[0]).toContain('entry,at,who,item,what,reasons,hash');
	expect(lines.length).toBeGreaterThan(await rows.count());
	await page.getByRole('link', { name: 'Everything', exact: true }).click();
	await page.getByRole('link', { name: 'Older ones' }).click();
	await expect(page).toHaveURL(/before=/);
	await expect(rows.first()).toBeVisible();
});
