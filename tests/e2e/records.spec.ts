import { faultsOf } from './support/axe';
import { unpackFile } from '../../scripts/backup/file';
import { siteFrom } from './support/read-in';
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

test('the bundle of a month is taken with its progress; the registers come as tables, and by key', async ({
	page
}) => {
	await signInAs(page, 'Maud Anderlin');
	await open(page, '/records/bundle');
	expect(await faultsOf(page)).toEqual([]);
	const coming = page.waitForEvent('download', { timeout: 240_000 });
	await page.getByRole('button', { name: 'Write and take it' }).click();
	await expect(page.getByRole('progressbar')).toBeVisible();
	const bundle = await coming;
	expect(bundle.suggestedFilename()).toMatch(/^grevan-\d{4}-\d\d-01-to-\d{4}-\d\d-\d\d\.zip$/);
	await expect(page.getByRole('status').filter({ hasText: 'Taken' })).toBeVisible();
	const texts = await unpackFile(await bundle.path(), () => 'text');
	const manifest = JSON.parse(texts.get('manifest.json') ?? '{}') as {
		papers: number;
		leftOut: unknown[];
		files: Record<string, string>;
	};
	expect([manifest.papers > 10, manifest.leftOut]).toEqual([true, []]);
	expect(Object.keys(manifest.files).every((file) => texts.has(file))).toBe(true);
	await open(page, '/records');
	await expect(page.getByText(/Bundle of the record handed out/).first()).toBeVisible();

	await page.getByRole('link', { name: 'Registers as tables' }).click();
	await ready(page);
	expect(await faultsOf(page)).toEqual([]);
	const csv = page.waitForEvent('download');
	await page.getByRole('link', { name: 'Cylinders as CSV' }).click();
	expect((await csv).suggestedFilename()).toBe('cylinders.csv');
	const first = await page.request.get(`${appUrl()}/api/v1/registers/items?limit=2`);
	const { rows, next } = (await first.json()) as { rows: { tag: string }[]; next: string };
	expect([rows.length, next]).toEqual([2, rows[1]?.tag]);
	const refused = await page.request.get(`${appUrl()}/api/v1/registers/kites`);
	expect(refused.status()).toBe(404);
});

test('a table whose days read two ways is asked about, then taken in row by row', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await open(page, '/records/registers');
	await page
		.getByRole('listitem')
		.filter({ hasText: 'Tests of air' })
		.getByRole('link', { name: 'Take a table in' })
		.click();
	await ready(page);
	expect(await faultsOf(page)).toEqual([]);
	const head =
		'source;taken at;laboratory;sampled at;pressure bar;oxygen percent;CO ppm;CO2 ppm;oil mg per m3;water mg per m3;odour';
	await page.getByLabel('CSV file').setInputFiles({
		name: 'air.csv',
		mimeType: 'text/csv',
		buffer: Buffer.from(
			[
				head,
				'Fill room compressor;03/04/2024 09:00;Old lab;filling outlet;300;20,9;1;380;0,1;20;no',
				'Kite;03/04/2024 09:00;Old lab;filling outlet;300;20,9;1;380;0,1;20;no'
			].join('\n')
		)
	});
	await page.getByRole('button', { name: 'Look at it first' }).click();
	await page.getByLabel(/what stands first/).selectOption('day first');
	await expect(page.getByRole('button', { name: /^Take in/ })).toBeHidden();
	expect(await faultsOf(page)).toEqual([]);
	await page.getByRole('button', { name: 'Look at it first' }).click();
	await expect(page.getByText('“Kite” is no source of air here.')).toBeVisible();
	await page.getByLabel('leave out the rows at fault').check();
	await page.getByRole('button', { name: 'Take in 1', exact: true }).click();
	await expect(page.getByRole('status').filter({ hasText: '1 rows taken in' })).toBeVisible();
	await open(page, '/records?group=air');
	await expect(page.getByText(/Old lab|Air of Fill room compressor/).first()).toBeVisible();
});

test('a whole site goes out as an archive and is read into an empty one, where the same people find the same', async ({
	page,
	browser
}) => {
	await signInAs(page, 'Maud Anderlin');
	await open(page, '/records/archive');
	expect(await faultsOf(page)).toEqual([]);
	const coming = page.waitForEvent('download', { timeout: 120_000 });
	await page.getByRole('button', { name: 'Write and take it' }).click();
	const file = await (await coming).path();
	await expect(page.getByRole('status').filter({ hasText: 'Taken' })).toBeVisible();
	await open(page, '/items/HM-0112');
	const before = await page.getByRole('main').getByRole('heading').allTextContents();

	await siteFrom(file, async (base, email, password) => {
		const context = await browser.newContext();
		const there = await context.newPage();
		await there.goto(`${base}/sign-in`);
		await ready(there);
		await there.getByLabel('Address').fill(email);
		await there.getByLabel('Password').fill(password);
		await there.getByRole('button', { name: 'Sign in', exact: true }).click();
		await expect(there.getByRole('link', { name: 'Records' })).toBeVisible();
		await there.goto(`${base}/items/HM-0112`);
		await ready(there);
		expect(await there.getByRole('main').getByRole('heading').allTextContents()).toEqual(before);
		await there.goto(`${base}/records?check`);
		await expect(there.getByText(/entries follow from one another/)).toBeVisible();
		await context.close();
	});
});
