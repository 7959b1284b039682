import { faultsOf } from './support/axe';
import { createHmac } from 'node:crypto';
import type { Browser, Page } from '@playwright/test';
import {
	answerSteps,
	appEnvironment,
	appUrl,
	beginInspection,
	CLEAN,
	enter,
	ready,
	scan,
	signInAs,
	sql
} from './support/app';
import { fromBase32 } from '../support/base32';
import { expect, test } from './support/test';

test.use({ serviceWorkers: 'allow' });

const PIN = '2580';
const CARDS = { odd: 'GC-H3VZP9ECNA', ilse: 'GC-QK7MTR4WXB' };
const password = () => appEnvironment().GREVAN_DEMO_PASSWORD ?? '';
const who = (page: Page) => page.getByRole('banner').locator('.who');

/** Signs in with a password, at a bench that several share or not. */
async function signIn(page: Page, email: string, secret: string, shared = false): Promise<void> {
	await page.goto(`${appUrl()}/sign-in`);
	await ready(page);
	if (shared) await page.getByLabel(/This is a bench/).check();
	await page.getByLabel('Address').fill(email);
	await page.getByLabel('Password').fill(secret);
	await enter(page.getByRole('button', { name: 'Sign in', exact: true }));
}

/** Makes an account as the admin; gives the link that lets its person in once. */
async function invite(page: Page, name: string, initials: string): Promise<string> {
	await signIn(page, 'maud@osmund.example', password());
	await expect(who(page)).toContainText('Maud Anderlin');
	await page.goto(`${appUrl()}/settings/accounts`);
	await ready(page);
	await page.getByLabel('Name', { exact: true }).fill(name);
	await page.getByLabel('Initials').fill(initials);
	await page.getByLabel('Address').fill(`${initials.toLowerCase()}@osmund.example`);
	await enter(page.getByRole('button', { name: 'Make the account' }));
	return (await page.locator('[data-invite]').textContent()) ?? '';
}

/** Comes in by a link for the first time, in a browser of their own. */
async function comeIn(
	browser: Browser,
	link: string,
	initials: string,
	secret: string
): Promise<Page> {
	const page = await (await browser.newContext({ locale: 'en-GB' })).newPage();
	await page.goto(link);
	await ready(page);
	await page.getByLabel('Password', { exact: true }).fill(secret);
	await page.getByLabel('The same again').fill(secret);
	await enter(page.getByRole('button', { name: 'Keep it' }));
	await expect(page).toHaveURL(/sign-in/);
	await signIn(page, `${initials.toLowerCase()}@osmund.example`, secret);
	await expect(page).toHaveURL(`${appUrl()}/`);
	return page;
}

test('a shared bench goes from one to the next by a card and a PIN; work in progress stays with each', async ({
	page
}) => {
	await signIn(page, 'ilse@osmund.example', password(), true);
	await expect(who(page)).toContainText('Ilse Norrby');
	await scan(page, 'HM-0128');
	const run = await beginInspection(page);
	await answerSteps(page, CLEAN.slice(0, 5));
	await expect(page.getByText('every answer kept')).toBeVisible();

	// One scan, four digits, Enter.
	await page.keyboard.press('/');
	await page.keyboard.type(`${CARDS.odd}`);
	await page.keyboard.press('Enter');
	await expect(page).toHaveURL(/hand-over/);
	await ready(page);
	await page.keyboard.type('1357');
	await page.keyboard.press('Enter');
	await expect(page.getByRole('alert')).toHaveText('This is not the PIN.');
	await expect(who(page)).toContainText('Ilse Norrby');
	await page.keyboard.type(PIN);
	await page.keyboard.press('Enter');
	await expect(who(page)).toContainText('Odd Kessmer');

	// By initials, on the keys of the screen, as with gloves on.
	await ready(page);
	await enter(page.getByRole('link', { name: 'Hand over' }));
	await expect(page).toHaveURL(/hand-over/);
	await ready(page);
	await page.getByLabel('Card, or initials').fill('in');
	for (const digit of PIN) await page.getByRole('button', { name: digit, exact: true }).click();
	await page.getByRole('button', { name: 'Enter' }).click();
	await expect(who(page)).toContainText('Ilse Norrby');

	await page.goto(run);
	await answerSteps(page, CLEAN.slice(5), 5);
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: 'Passed' })).toBeVisible();
	await expect(page.getByText(/Signed by Ilse Norrby/)).toBeVisible();
	await expect(page.getByText(/Odd Kessmer/)).toHaveCount(0);
});

test('a second person says once who they are, by card and PIN, and their lines are theirs', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await scan(page, 'GS-0208');
	await page.getByText('Other lists').click();
	await enter(page.getByRole('button', { name: /BA outside/ }));
	await expect(page).toHaveURL(/\/runs\//);
	await ready(page);
	const title = page.locator('#step');
	const status = page.getByRole('main').getByRole('status').first();
	for (let done = 1; done <= 5; done++) {
		await page.keyboard.press('1');
		await expect(status).toContainText(`${done} of`);
	}
	await expect(title).toHaveText('Zip, straight and shut');
	await expect(page.getByText(/A second person looks and answers this/)).toBeVisible();
	await page.keyboard.press('1');
	await enter(page.getByRole('button', { name: 'The second person is here' }));
	await expect(page.getByLabel('Card, or initials')).toBeFocused();
	await page.keyboard.type(CARDS.odd);
	await page.keyboard.press('Enter');
	await page.keyboard.type('1357');
	await page.keyboard.press('Enter');
	await expect(page.getByRole('alert')).toHaveText('This is not the PIN.');
	await page.keyboard.type(PIN);
	await page.keyboard.press('Enter');
	await expect(page.getByText(/Answered by Odd Kessmer/)).toBeVisible();
	await expect(status).toContainText('5 of');
	await page.getByRole('button', { name: '1 Good' }).click();
	await expect(status).toContainText(/6 of \d+ · every answer kept/);
	await expect(who(page)).toContainText('Ilse Norrby');
	const run = page.url().split('/').at(-1) ?? '';
	const [row] = await sql(
		(db) => db`select u.name from inspection_answer a join "user" u on u.id = a.answered_by
			where a.step = 'zip' and a.run_id = ${run}`
	);
	expect(row).toEqual({ name: 'Odd Kessmer' });
});

test('a bench that nobody uses signs out, and takes the next card at the door', async ({
	page
}) => {
	await signIn(page, 'tove@osmund.example', password(), true);
	await expect(who(page)).toContainText('Tove Rieveld');
	const device = (await page.context().cookies()).find((c) => c.name === 'grevan-device');
	expect(device).toMatchObject({ httpOnly: true, sameSite: 'Lax' });
	await sql(
		(db) =>
			db`update session set seen_at = now() - interval '13 hours', created_at = now() - interval '13 hours'
				where user_id = 'demo-tove' and shared`
	);
	// What the server knows of a session is asked anew within seconds.
	await expect
		.poll(async () => (await page.goto(`${appUrl()}/faults`))?.url(), { timeout: 30_000 })
		.toContain('/sign-in');
	await ready(page);
	await page.getByLabel('Card, or initials').fill(CARDS.odd);
	await page.keyboard.press('Enter');
	await page.keyboard.type(PIN);
	await page.keyboard.press('Enter');
	await expect(page).toHaveURL(/\/faults$/);
	await expect(who(page)).toContainText('Odd Kessmer');
});

test('a signature asks who it is when that was not shown lately, waits, and goes out by PIN', async ({
	page
}) => {
	await signIn(page, 'odd@osmund.example', password());
	await expect(who(page)).toContainText('Odd Kessmer');
	await scan(page, 'HM-0129');
	await beginInspection(page);
	await answerSteps(page, CLEAN);
	await expect(page.getByText('every answer kept')).toBeVisible();
	await sql(
		(db) => db`update session set proven_at = now() - interval '3 hours'
				where id = (select id from session where user_id = 'demo-odd' order by created_at desc limit 1)`
	);
	// What the server knows of a session is asked anew within seconds.
	const asked = async () =>
		(
			await page.request.post(`${appUrl()}/settings?/endTwoStep`, {
				headers: { origin: appUrl(), accept: 'application/json', 'x-sveltekit-action': 'true' },
				form: { requestId: crypto.randomUUID() }
			})
		).text();
	await expect.poll(asked, { timeout: 30_000 }).toContain('Type your password');
	await page.keyboard.press('Enter');
	const dialog = page.getByRole('dialog');
	await expect(dialog).toContainText('Is it you, Odd Kessmer?');
	await page.keyboard.type('0007');
	await page.keyboard.press('Enter');
	await expect(dialog.getByRole('alert')).toHaveText('This is not the PIN.');
	await page.keyboard.press('Escape');
	await expect(dialog).toHaveCount(0);
	await expect(page.getByText(/Signed on this device, not yet on the server/)).toBeVisible();
	await enter(page.getByRole('button', { name: 'type your PIN' }));
	await expect(dialog).toBeVisible();
	await page.keyboard.type(PIN);
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: 'Passed' })).toBeVisible();
	await expect(page.getByText(/Signed by Odd Kessmer/)).toBeVisible();
});

test('an account is made by link, given a role, and closed: each ends its sessions at once', async ({
	page,
	browser
}) => {
	const link = await invite(page, 'Vera Lund', 'VL');
	const theirs = await comeIn(browser, link, 'VL', 'seven grey herons');
	await expect(who(theirs)).toContainText('Vera Lund, technician');
	await theirs.goto(`${appUrl()}/air/board`);
	await ready(theirs);
	// The link opens nothing any more.
	expect((await theirs.request.get(link)).status()).toBe(404);

	await page.getByRole('link', { name: 'Vera Lund' }).click();
	await expect(page.getByRole('heading', { name: 'Vera Lund, technician' })).toBeVisible();
	await page.getByLabel('Role').selectOption('supervisor');
	await enter(page.getByRole('button', { name: 'Change the role' }));
	await expect(page.getByRole('status').filter({ hasText: 'Done.' })).toBeVisible();
	// Heard from the database: no moment of grace.
	expect((await theirs.goto(`${appUrl()}/items`))?.url()).toContain('/sign-in');
	await signIn(theirs, 'vl@osmund.example', 'seven grey herons');
	await expect(who(theirs)).toContainText('Vera Lund, supervisor');

	const account = new URL(page.url()).pathname;
	for (const path of ['/settings/accounts', '/settings/access', account]) {
		await page.goto(appUrl() + path);
		await ready(page);
		expect(await faultsOf(page)).toEqual([]);
		const over = () =>
			page.evaluate(
				() => document.documentElement.scrollWidth - document.documentElement.clientWidth
			);
		for (const width of [390, 820, 1280]) {
			await page.setViewportSize({ width, height: 844 });
			expect(await over()).toBeLessThanOrEqual(0);
		}
	}

	await page.getByLabel('Why it is closed').fill('Left the works.');
	await enter(page.getByRole('button', { name: 'Close the account' }));
	await expect(page.getByRole('heading', { name: /Vera Lund, supervisor, closed/ })).toBeVisible();
	expect((await theirs.goto(`${appUrl()}/items`))?.url()).toContain('/sign-in');
	await signIn(theirs, 'vl@osmund.example', 'seven grey herons');
	await expect(theirs.getByRole('alert')).toContainText(/closed|No account/);
	await expect(page.getByText('Account closed. Left the works.')).toBeVisible();
	await theirs.context().close();
});

/** Published: RFC 6238 with its 30 seconds, SHA-1 and six digits, from memory. */
function totp(key: string, at = Date.now()): string {
	const bytes = fromBase32(key);
	const counter = Buffer.alloc(8);
	counter.writeBigUInt64BE(BigInt(Math.floor(at / 30_000)));
	const hmac = createHmac('sha1', bytes).update(counter).digest();
	const from = (hmac.at(-1) ?? 0) & 15;
	return String((hmac.readUInt32BE(from) & 0x7fffffff) % 1_000_000).padStart(6, '0');
}

test('two-step sign-in, sessions and keys are their person’s to keep', async ({
	page,
	browser
}) => {
	const link = await invite(page, 'Kai Brandt', 'KB');
	const theirs = await comeIn(browser, link, 'KB', 'nine brown otters');
	await theirs.goto(`${appUrl()}/settings`);
	await ready(theirs);
	await theirs.getByLabel('Your password').fill('nine brown otters');
	await enter(theirs.getByRole('button', { name: 'Set it up' }));
	const setUp = theirs.getByRole('region', { name: 'Two-step sign-in' });
	const key = (await setUp.getByText(/^[A-Z2-7]{32,}$/).textContent()) ?? '';
	const recovery = (await setUp.getByRole('listitem').nth(2).textContent())?.trim() ?? '';
	await theirs.getByLabel('Code that the app shows now').fill('000000');
	await enter(theirs.getByRole('button', { name: 'Turn it on' }));
	await expect(setUp).toContainText('This is not the code shown now.');
	await theirs.getByLabel('Code that the app shows now').fill(totp(key));
	await enter(theirs.getByRole('button', { name: 'Turn it on' }));
	await expect(theirs.getByText('Two-step sign-in is on.')).toBeVisible();

	// Elsewhere the password alone opens nothing; a code does, and a recovery code once.
	const other = await (await browser.newContext({ locale: 'en-GB' })).newPage();
	for (const code of [() => totp(key), () => recovery]) {
		await signIn(other, 'kb@osmund.example', 'nine brown otters');
		await expect(other.getByLabel('Code of your authenticator')).toBeFocused();
		expect((await other.request.get(`${appUrl()}/items`)).url()).toContain('/sign-in');
		await other.getByLabel('Code of your authenticator').fill(code());
		await other.keyboard.press('Enter');
		await expect(who(other)).toContainText('Kai Brandt');
		if (code() !== recovery) await other.context().clearCookies();
	}

	// Both are in the list; one ends the other, which is out at once.
	await theirs.reload();
	await ready(theirs);
	const sessions = theirs.getByRole('region', { name: 'Where you are signed in' });
	await expect(sessions.getByRole('listitem')).toHaveCount(3);
	await enter(sessions.getByRole('button', { name: 'End all the others' }));
	await expect(sessions.getByRole('listitem')).toHaveCount(1);
	expect((await other.goto(`${appUrl()}/items`))?.url()).toContain('/sign-in');
	await other.context().close();

	await theirs.goto(`${appUrl()}/settings/keys`);
	await ready(theirs);
	await theirs.getByLabel('What it is for').fill('Laboratory');
	await enter(theirs.getByRole('button', { name: 'Make it' }));
	const made = (await theirs.getByText(/^grv_/).first().textContent()) ?? '';
	const ask = () =>
		page.request.fetch(`${appUrl()}/api/v1/calc/due`, {
			method: 'POST',
			headers: { 'x-api-key': made, 'content-type': 'application/json', cookie: '' },
			data: { rules: [{ every: { months: 1 } }], last: '2026-01-01', asOf: '2026-11-01' }
		});
	expect((await ask()).status()).not.toBe(401);
	await enter(theirs.getByRole('button', { name: 'Revoke' }));
	await expect(theirs.getByText(/None\. A laboratory/)).toBeVisible();
	await theirs.context().close();
});

test('what this browser keeps is shown and wiped by its person', async ({ page }) => {
	await signIn(page, 'odd@osmund.example', password());
	await expect(who(page)).toContainText('Odd Kessmer');
	await scan(page, 'HM-0130');
	const run = await beginInspection(page);
	await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
	await page.goto(run);
	await answerSteps(page, ['3', '3']);
	await page.goto(`${appUrl()}/settings/device`);
	await ready(page);
	const row = (name: RegExp) => page.getByRole('row', { name }).getByRole('cell');
	await expect(row(/Pages of inspections/)).not.toHaveText('0');
	await enter(page.getByRole('button', { name: 'Wipe it' }));
	await expect(page.getByText(/^Wiped\./)).toBeVisible();
	await expect(row(/Pages of inspections/)).toHaveText('0');
	await expect(row(/Answers and holds/)).toHaveText('0');
	// The server has the answers: nothing of the work is lost.
	await page.goto(run);
	await ready(page);
	await expect(page.getByRole('main').getByRole('status').first()).toContainText('2 of 18');
});
