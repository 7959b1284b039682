import { procedureFor } from '../../src/core/data/procedures';
import { canBeMet } from '../../src/core/drill/kinds';
import { faultsOf } from './support/axe';
import { appUrl, enter, ready, signInAs } from './support/app';
import { expect, type Page, test } from './support/test';

test.use({ serviceWorkers: 'allow' });

const STEPS = procedureFor('half-mask').steps.filter(canBeMet);
const open = async (page: Page, path: string) => {
	await page.goto(appUrl() + path);
	await ready(page);
};
const found = (page: Page) => page.getByRole('region', { name: 'What you find' });

/** Walks the half mask: what is seen to be curled is rejected as such, everything else is good. @returns how often that was */
async function walk(page: Page): Promise<number> {
	let curled = 0;
	for (const step of STEPS) {
		await expect(page.getByRole('heading', { name: step.title, exact: true })).toBeVisible();
		await expect(found(page)).toBeVisible();
		const bad = await found(page)
			.getByRole('img', { name: /Valve disc: Its edge is curled up/ })
			.count();
		await page.keyboard.press(bad ? '2' : '1');
		if (!bad) continue;
		curled++;
		await page.keyboard.press(String(step.rejects.indexOf('CURL') + 1));
	}
	await expect(page.getByRole('heading', { name: 'Done: see how it went' })).toBeVisible();
	await page.keyboard.press('Enter');
	return curled;
}

test('a newcomer finds the curled disc in their first walk, which says why at once', async ({
	page
}) => {
	test.setTimeout(240_000);
	await signInAs(page, 'Maud Anderlin');
	await open(page, '/drill');
	await expect(page.getByText('DRILL', { exact: true })).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	await enter(page.getByRole('link', { name: 'Half masks' }));
	await ready(page);
	await expect(found(page).getByRole('img')).not.toHaveCount(0);
	expect(await faultsOf(page)).toEqual([]);
	// It says at once that a good place was rejected, and an answer is taken back.
	await page.keyboard.press('2');
	await page.keyboard.press('1');
	const before = page.getByRole('region', { name: 'The step before' });
	await expect(before).toContainText('rejected, although');
	await page.keyboard.press('u');
	expect(await walk(page)).toBe(1);
	await expect(page.getByText('100 of 100.')).toBeVisible();
	await expect(page.getByText(/1 of 1 fault found/)).toBeVisible();
	await expect(page.getByText('Exhalation disc and seat: found')).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	await expect(page.getByText('Kept.', { exact: true })).toBeVisible();
	await open(page, '/drill');
	await expect(page.getByRole('link', { name: /half masks/ }).first()).toBeVisible();
});

test('goes on without a connection, and is sent when it is back', async ({ page, context }) => {
	test.setTimeout(240_000);
	await signInAs(page, 'Perrin Vale');
	await open(page, '/drill/run/half-mask?mode=drill&level=1');
	await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
	await page.reload();
	await ready(page);
	await expect(found(page)).toBeVisible();
	await context.setOffline(true);
	await page.reload();
	await ready(page);
	await walk(page);
	await expect(page.getByRole('heading', { name: 'How it went' })).toBeVisible();
	await expect(page.getByText(/Kept on this device/)).toBeVisible();
	await page.keyboard.press('Enter');
	await expect(
		page.getByRole('heading', { name: STEPS[0]?.title ?? '', exact: true })
	).toBeVisible();
	await walk(page);
	await context.setOffline(false);
	await expect(page.getByText('Kept.', { exact: true })).toBeVisible({ timeout: 60_000 });
});

test('an exam begins beside a supervisor, is judged, and has its paper', async ({
	browser,
	page
}) => {
	test.setTimeout(240_000);
	await signInAs(page, 'Odd Kessmer');
	await open(page, '/drill/exam');
	expect(await faultsOf(page)).toEqual([]);
	await page.getByLabel('Card, or initials').fill('tr');
	await page.getByLabel('PIN', { exact: true }).fill('1111');
	await page.keyboard.press('Enter');
	await expect(page.getByRole('alert').first()).toBeVisible();
	await page.getByLabel('PIN', { exact: true }).fill('2580');
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: /^Exam: / })).toBeVisible();
	await ready(page);
	await expect(page.getByRole('region', { name: 'The step before' })).toHaveCount(0);
	await walk(page);
	await expect(page.getByText(/Beside Tove Rieveld/)).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	const paper = await page.request.get(
		appUrl() +
			((await page.getByRole('link', { name: /Paper of the exam/ }).getAttribute('href')) ?? '')
	);
	expect([paper.status(), paper.headers()['content-type']]).toEqual([200, 'application/pdf']);
	const trainer = await (await browser.newContext()).newPage();
	await signInAs(trainer, 'Tove Rieveld');
	await open(trainer, '/drill/trainer');
	await expect(trainer.getByRole('link', { name: 'Odd Kessmer' })).toBeVisible();
	await expect(trainer.getByRole('heading', { name: /What the team misses/ })).toBeVisible();
	expect(await faultsOf(trainer)).toEqual([]);
	await trainer.context().close();
});

test('a short test is answered by its keys, and says why after each', async ({ page }) => {
	await signInAs(page, 'Ilse Norrby');
	await open(page, '/drill');
	await enter(page.getByRole('link', { name: 'Turning back' }));
	await ready(page);
	for (let i = 1; i <= 6; i++) {
		await expect(page.getByText(`Question ${i} of 6`)).toBeVisible();
		await page.keyboard.press('1');
		await expect(page.getByText(/^(Right|Not so)\./)).toBeVisible();
		if (i === 1) expect(await faultsOf(page)).toEqual([]);
		await page.keyboard.press('Enter');
	}
	await expect(page.getByText(/^\d of 6 right\.$/)).toBeVisible();
	await expect(page.getByText('Kept.', { exact: true })).toBeVisible();
	await open(page, '/drill');
	await expect(page.getByRole('listitem').filter({ hasText: 'Turning back' })).toContainText(
		/\d of 6 right/
	);
});

test('the gallery shows what one looks for, as far gone as one chooses', async ({ page }) => {
	await signInAs(page, 'Ilse Norrby');
	await open(page, '/drill/gallery');
	await page.getByLabel('Find').fill('curl');
	await expect(page.getByRole('heading', { name: 'Valve disc' })).toBeVisible();
	await expect(page.getByRole('heading', { name: 'Cartridge' })).toHaveCount(0);
	const curled = page.getByRole('figure').filter({ hasText: 'CURL' }).first().locator('svg');
	const before = await curled.innerHTML();
	await page.getByLabel('How far gone').fill('20');
	await expect.poll(() => curled.innerHTML()).not.toBe(before);
	expect(await faultsOf(page)).toEqual([]);
});
