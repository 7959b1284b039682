import { faultsOf } from './support/axe';
import { appUrl, enter, ready, signInAs } from './support/app';
import { expect, type Page, test } from './support/test';

const open = async (page: Page, path: string) => {
	await page.goto(appUrl() + path);
	await ready(page);
};
const TAG = 'HM-0131';

test('a fault from anywhere in three keys, looked for in vain, taken back; the next is mended and released', async ({
	browser,
	page
}) => {
	test.setTimeout(300_000);
	await signInAs(page, 'Ilse Norrby');
	await open(page, '/faults/report');
	const field = page.getByRole('main').getByRole('textbox').first();
	await field.focus();
	// One: its tag. Two: where. Three: what.
	await page.keyboard.type(TAG);
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: /Where is it wrong/ })).toBeVisible();
	await page.keyboard.press('c');
	await expect(page.getByRole('heading', { name: /what is wrong/ })).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	await page.keyboard.press('1');
	const done = page.getByRole('status').getByRole('listitem').filter({ hasText: TAG });
	await expect(done).toContainText('held');
	await enter(done.getByRole('button', { name: /take it back/ }));
	await expect(done).toContainText('taken back');
	// A scanner that types another tag while places are shown chooses none of them.
	await field.focus();
	await page.keyboard.type(TAG);
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: /Where is it wrong/ })).toBeVisible();
	await page.keyboard.type('HM-0132');
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: /HM-0132.*Where is it wrong/ })).toBeVisible();
	// Again, and this time it is so.
	await open(page, `/faults/report?tag=${TAG}`);
	await page.keyboard.press('c');
	await expect(page.getByRole('heading', { name: /what is wrong/ })).toBeVisible();
	await page.keyboard.press('1');
	await enter(done.getByRole('link', { name: 'Open it' }));
	await expect(page).toHaveURL(/\/faults\/[0-9a-f-]{36}$/);
	await ready(page);
	await enter(page.getByRole('button', { name: 'Start the repair' }));
	const proof = page.getByRole('group', { name: /proving check/ }).getByRole('checkbox');
	await expect(proof.first()).toBeVisible();
	for (const box of await proof.all()) await box.check();
	await page.getByLabel('Minutes at the bench').fill('8');
	await enter(page.getByRole('button', { name: 'Repair done' }));
	const fault = new URL(page.url()).pathname;
	await enter(page.getByRole('button', { name: 'Inspect it now' }));
	await expect(page).toHaveURL(/\/runs\//);
	await ready(page);
	const main = page.getByRole('main');
	await expect(page.getByRole('heading', { name: /Pre-filter/ })).toBeVisible();
	for (let n = 1; n <= 18; n++) {
		await page.keyboard.press(n <= 2 ? '3' : '1');
		await expect(main.getByRole('status').filter({ hasText: `${n} of 18` })).toBeVisible();
	}
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: /Passed/ })).toBeVisible();
	// Somebody else lets it go.
	const theirs = await (await browser.newContext()).newPage();
	await signInAs(theirs, 'Tove Rieveld');
	await open(theirs, fault);
	await enter(theirs.getByRole('button', { name: `Release ${TAG}` }));
	await expect(theirs.getByText('Released', { exact: true })).toBeVisible();
	await theirs.context().close();
	// What was taken back stands among the ended ones, and so does what was mended.
	await open(page, '/faults?of=ended&how=withdrawn');
	await expect(page.getByRole('row').filter({ hasText: TAG }).first()).toContainText('taken back');
	await open(page, '/faults?of=ended&how=released&days=7');
	await expect(page.getByRole('row').filter({ hasText: TAG }).first()).toContainText('repaired');
	expect(await faultsOf(page)).toEqual([]);
});

test('the picture leads to the lot that fails, which is called back and followed', async ({
	page
}) => {
	test.setTimeout(300_000);
	await signInAs(page, 'Tove Rieveld');
	await open(page, '/faults/learn');
	await expect(page.getByRole('heading', { name: 'More faults than chance allows' })).toBeVisible();
	const alarm = page.getByRole('region', { name: 'More faults than chance allows' });
	await expect(alarm.getByText('Exhalation disc, lot X-2153')).toBeVisible();
	await expect(alarm.getByText(/^Wash batch \d+$/)).toBeVisible();
	expect(await alarm.getByRole('listitem').count()).toBe(2);
	expect(await faultsOf(page)).toEqual([]);
	// Each picture has its numbers, each number its records.
	await enter(page.getByRole('link', { name: 'Exhalation valve and seat' }).first());
	await expect(page).toHaveURL(/station=exhalation/);
	await expect(
		page.getByRole('row').filter({ hasText: 'valve disc curled' }).first()
	).toBeVisible();
	await open(page, '/faults/learn');
	await enter(page.getByRole('link', { name: 'Call the lot back' }).first());
	await expect(page).toHaveURL(/\/faults\/recalls\?lot=/);
	await ready(page);
	await page.getByLabel('What is wrong with them').fill('Softer than they should be.');
	await enter(page.getByRole('button', { name: 'Call it back' }));
	await expect(page).toHaveURL(/\/faults\/recalls\/[0-9a-f-]{36}$/);
	await ready(page);
	await expect(page.getByText(/0 of \d+ dealt with/)).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	// One that had it once is looked into.
	await enter(page.getByRole('button', { name: 'Look into it' }).first());
	await page.getByLabel('What was found').fill('Disc was changed before.');
	await enter(page.getByRole('button', { name: 'Keep' }));
	await expect(page.getByText(/1 of \d+ dealt with/)).toBeVisible();
	await open(page, '/faults/recalls');
	await expect(page.getByText(/lot X-2153/).first()).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
});
