import type { Page } from '@playwright/test';
import {
	answerSteps,
	appUrl,
	beginInspection,
	CLEAN,
	ready,
	scan,
	signInAs,
	signInByHand
} from './support/app';
import { expect, test } from './support/test';

test.use({ serviceWorkers: 'allow' });

const header = (page: Page) => page.getByRole('banner').getByRole('status');
const workerKnows = (page: Page) =>
	page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));

test('what one person signed without a connection is never anothers: it waits, and is theirs', async ({
	page,
	context
}) => {
	await signInByHand(page, 'Ilse Norrby');
	await scan(page, 'HM-0131');
	const run = await beginInspection(page);
	await workerKnows(page);
	await page.goto(run);
	await ready(page);
	await context.setOffline(true);
	await answerSteps(page, CLEAN);
	// Every answer and the signature.
	const waiting = CLEAN.length + 1;
	await page.keyboard.press('Enter');
	await expect(page.getByText(/Signed on this device, not yet on the server/)).toBeVisible();
	await expect(header(page)).toContainText('19 unsent');

	// She signs out, still without a connection: nothing of hers is to be seen any more.
	await page.getByRole('button', { name: 'Sign out' }).click();
	await expect(page.getByRole('heading', { name: 'Signed out' })).toBeVisible();
	await page.goto(run);
	await expect(page.getByText('Nobody is signed in here.')).toBeVisible();
	await expect(page.getByRole('link', { name: /^Inspection \d/ })).toHaveCount(0);

	// With the connection her session ends before anything else; the next one signs in.
	await context.setOffline(false);
	await page.goto(`${appUrl()}/`);
	await expect(
		page.getByText(`Waits on this device until they sign in: ${waiting} of Ilse Norrby`)
	).toBeVisible();
	await signInByHand(page, 'Odd Kessmer');
	await expect(header(page)).toContainText(`${waiting} of Ilse Norrby, sent when they sign in`);
	await page.goto(run);
	await ready(page);
	await expect(page.getByRole('main').getByRole('status').first()).toContainText(
		/[01] of 18 · every answer kept/
	);
	await context.setOffline(true);
	await page.goto(`${appUrl()}/items`).catch(() => undefined);
	await expect(page.getByRole('link', { name: /^Inspection \d/ })).toHaveCount(1);
	await context.setOffline(false);
	await page.goto(`${appUrl()}/`);
	await page.getByRole('button', { name: 'Sign out' }).click();

	await signInByHand(page, 'Ilse Norrby');
	await expect(header(page)).toContainText('live');
	await page.goto(run);
	await expect(page.getByRole('heading', { name: 'Passed' })).toBeVisible();
	await expect(page.getByText(/Signed by Ilse Norrby/)).toBeVisible();
	await expect(page.getByText(/Odd Kessmer/)).toHaveCount(0);
	await page.goto(`${appUrl()}/items/HM-0131/history`);
	const newest = page.getByRole('main').getByRole('listitem').first();
	await expect(newest).toContainText('Inspection signed: pass');
	await expect(newest).toContainText('Ilse Norrby');
});

test('a page of one person never speaks for the one who took the device in another window', async ({
	page,
	context
}) => {
	await signInAs(page, 'Ilse Norrby');
	await scan(page, 'HM-0132');
	const run = await beginInspection(page);
	await workerKnows(page);
	await page.goto(run);
	await answerSteps(page, CLEAN.slice(0, 2));
	await expect(page.getByRole('main').getByRole('status').first()).toContainText(
		'every answer kept'
	);
	const ilse = await page.evaluate(
		() => document.querySelector<HTMLElement>('[data-person]')?.dataset.person ?? ''
	);
	const other = await context.newPage();
	await context.clearCookies();
	await signInAs(other, 'Odd Kessmer');
	// What a page of hers sends is refused under his session, whatever it is, and nothing is written.
	const send = (path: string, options: object) =>
		other.request.post(`${appUrl()}${path}`, { headers: { origin: appUrl() }, ...options });
	const answered = await send(
		`${new URL(run, appUrl()).pathname.replace('/runs', '/api/runs')}/answers`,
		{
			headers: { origin: appUrl(), 'x-grevan-person': ilse },
			data: { id: crypto.randomUUID(), step: CLEAN[2], value: 'good', seen: 0 }
		}
	);
	expect(answered.status()).toBe(409);
	expect(await answered.json()).toMatchObject({ kind: 'other person' });
	const begun = await send('/items/HM-0133?/inspect', {
		form: { asPerson: ilse, id: crypto.randomUUID() }
	});
	expect(await begun.json()).toMatchObject({ type: 'failure', status: 409 });
	await other.goto(`${appUrl()}/items/HM-0133`);
	await expect(other.getByRole('button', { name: /^Inspect/ })).toBeVisible();
	// Her window becomes his; what she sees is what he may do.
	await expect(page.getByRole('banner')).toContainText('Odd Kessmer');
	await ready(page);
	await expect(page.getByRole('main').getByRole('status').first()).toContainText('2 of 18');
	await other.close();
});
