import { readFileSync } from 'node:fs';
import { QUALITATIVE_EXERCISES, QUALITATIVE_S } from '../../src/core/fit/agents';
import { appUrl, enter, ready, signInAs, sql } from './support/app';
import { faultsOf } from './support/axe';
import { expect, type Page, test } from './support/test';

/** Goes to a wearer by scanning their badge. */
async function badge(page: Page, number: string): Promise<void> {
	await ready(page);
	await page.keyboard.press('/');
	await page.keyboard.type(number);
	await page.keyboard.press('Enter');
	await expect(page).toHaveURL(/\/people\/[0-9a-f-]{36}$/);
	await ready(page);
}

/** Fills in who stands there and in what, by scanner, and ticks the list. */
async function prepare(page: Page, number: string, tag: string | null): Promise<void> {
	await page.getByLabel('Badge of whoever stands here').focus();
	await page.keyboard.type(number);
	// What a scanner ends with leads on, and sends nothing.
	await page.keyboard.press('Enter');
	await expect(page.getByLabel('Mask that is worn')).toBeFocused();
	if (tag) await page.keyboard.type(tag);
	for (const box of await page.getByRole('checkbox').all()) await box.check();
}

async function simulate(page: Page, face: string): Promise<void> {
	await page.getByText('Who stands before the simulated counter').click();
	await page.getByLabel('Face').selectOption(face);
	await page.getByLabel('Times as fast').fill('150');
}

test('a fit test with a counter: from the badge over a leak and the mask put on anew to the certificate', async ({
	page,
	context
}) => {
	await signInAs(page, 'Ilse Norrby');
	await badge(page, 'w110');
	await enter(page.getByRole('link', { name: 'Fit test', exact: true }));
	await ready(page);
	const begin = page.getByRole('button', { name: /^Begin/ });
	await expect(page.getByRole('button', { name: '6 still to look at' })).toBeDisabled();
	// The field that is scanned into first has the focus.
	await expect(page.getByLabel('Badge of whoever stands here')).toBeFocused();
	// The wrong badge is told before anything begins.
	await prepare(page, 'W111', 'HM-0108');
	await simulate(page, 'leaks on bending');
	expect(await faultsOf(page)).toEqual([]);
	await begin.click();
	await expect(
		page.getByText(/This page is of .*, number W110; the badge says W111/)
	).toBeVisible();
	await page.getByLabel('Badge of whoever stands here').fill('W110');
	await begin.click();
	await expect(page).toHaveURL(/\/people\/fit-tests\/[0-9a-f-]{36}$/);
	const first = page.url();

	// A second screen for the wearer, without ways to anywhere.
	const screen = await context.newPage();
	await screen.goto(`${first}/wearer`);
	await expect(screen.getByRole('navigation')).toHaveCount(0);
	await expect(screen.getByText(/Not passed\.|Then: |Breathe as always/).first()).toBeVisible();
	await screen.close();

	await expect(page.getByRole('button', { name: 'Sign: not passed, and once more' })).toBeVisible({
		timeout: 60_000
	});
	await expect(page.getByText(/Leaked most at bending over/)).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	await enter(page.getByRole('button', { name: 'Sign: not passed, and once more' }));

	// The same mask, put on anew; it is filled in already.
	await expect(page).toHaveURL(/\/fit\?/);
	await ready(page);
	await expect(page.getByLabel('Mask that is worn')).toHaveValue('HM-0108');
	await prepare(page, 'W110', null);
	await simulate(page, 'fits well');
	await begin.click();
	await expect(page).toHaveURL(/\/people\/fit-tests\/[0-9a-f-]{36}$/);
	expect(page.url()).not.toBe(first);
	const sign = page.getByRole('button', { name: 'Sign: passed' });
	await expect(sign).toBeVisible({ timeout: 60_000 });
	await enter(sign);
	await expect(page.getByText(/Counts until \d+ \w+ 20\d\d/)).toBeVisible();
	await expect(page.getByText('US, eight exercises')).toBeVisible();

	const certificate = await (await page.request.get(`${page.url()}/certificate.pdf`)).body();
	expect(certificate.subarray(0, 5).toString()).toBe('%PDF-');
	await page.getByRole('link', { name: 'Kaj Lindow' }).click();
	await expect(page.getByText(/counts until/).first()).toBeVisible();
});

test('a fit test by taste: screening, seven movements by the clock of the server, signed', async ({
	page
}) => {
	await signInAs(page, 'Odd Kessmer');
	await badge(page, 'W120');
	await enter(page.getByRole('link', { name: 'Fit test', exact: true }));
	await ready(page);
	await page.getByText('By taste or smell').click();
	await prepare(page, 'W120', 'HM-0109');
	await page.getByRole('button', { name: 'Begin with the screening' }).click();
	await expect(page.getByRole('heading', { name: 'First: is it noticed at all?' })).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	await page.getByRole('button', { name: /within 20 squeezes/ }).click();
	await expect(page.getByText(/Give 20 squeezes/)).toBeVisible();
	await page.getByRole('button', { name: /begin the movements/ }).click();
	await expect(page.getByText('1 of 7')).toBeVisible();
	await expect(page.getByRole('button', { name: /Nothing noticed/ })).toBeDisabled();
	const id = page.url().split('/').at(-1) ?? '';
	// Five and a half movements later.
	const back = (seconds: number) =>
		sql(
			(db) =>
				db`update fit_session set begun_at = now() - make_interval(secs => ${seconds}) where id = ${id}`
		);
	await back(5 * QUALITATIVE_S + 30);
	await page.reload();
	await expect(page.getByText('6 of 7')).toBeVisible();
	await expect(page.getByText('Bending over').first()).toBeVisible();
	await expect(page.getByText(/Dose 12: 10 squeezes/)).toBeVisible();
	await back(QUALITATIVE_EXERCISES.length * QUALITATIVE_S + 1);
	await page.reload();
	await expect(page.getByText('Was anything noticed?')).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	await page.getByRole('button', { name: 'Nothing noticed', exact: true }).click();
	await page.getByRole('button', { name: 'Sign: passed' }).click();
	await expect(page.getByText(/Counts until/)).toBeVisible();
});

test('a change that the wearer reports on a phone ends their tests that day', async ({
	browser
}) => {
	const phone = await browser.newPage({
		viewport: { width: 390, height: 844 },
		locale: 'en-GB',
		timezoneId: 'Europe/London'
	});
	await signInAs(phone, 'Perrin Vale');
	await phone.goto(`${appUrl()}/people`);
	// Somebody who only wears sees themselves and nobody else.
	await expect(phone.getByRole('heading', { level: 1, name: 'Perrin Vale' })).toBeVisible();
	await ready(phone);
	await expect(phone.getByText(/\d fit tests? counts?/)).toBeVisible();
	expect(await faultsOf(phone)).toEqual([]);
	await phone.getByRole('button', { name: 'Dental work' }).click();
	await expect(phone.getByText('No fit test counts')).toBeVisible();
	await expect(phone.getByText(/Reported on .*: dental work/).first()).toBeVisible();
	const others = await phone.request.get(`${appUrl()}/people/fit-tests`);
	expect(others.status()).toBe(403);
	await phone.close();
});

test('a repair by somebody who is not authorised is refused, with who could do it', async ({
	page
}) => {
	await signInAs(page, 'Odd Kessmer');
	const id = crypto.randomUUID();
	const [set] = await sql(
		(db) => db<{ id: string; tag: string }[]>`
			select i.id, i.tag from item i join item_state s on s.item_id = i.id
			where i.family = 'ba-set' and s.blocked is null order by i.tag desc limit 1`
	);
	await sql(
		(db) => db`insert into defect (id, item_id, station, code, severity, reported_by, reported_at)
			values (${id}, ${set?.id ?? ''}, 'demand', 'LEAK', 'stop', 'demo-ilse', now())`
	);
	await page.goto(`${appUrl()}/faults/${id}`);
	await ready(page);
	await page.getByLabel('Repair').selectOption('ba-service');
	await page.getByRole('button', { name: 'Start the repair' }).click();
	await expect(
		page.getByText(
			/authorisation for this job, repair of demand valves and reducers, lapsed on .*Who could do it now: Ilse Norrby/
		)
	).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	// The lapse stands where it is seen.
	await page.goto(`${appUrl()}/people/competence`);
	await ready(page);
	await page.getByPlaceholder(/lapsed/).fill('lapsed');
	await expect(page.getByRole('main').getByText('Odd Kessmer')).toBeVisible();
	await sql(
		(db) => db`update defect set closed_at = now(), closed_how = 'withdrawn' where id = ${id}`
	);
});

test('who somebody is can be erased; the tests stay under the number', async ({ page }) => {
	await signInAs(page, 'Maud Anderlin');
	await badge(page, 'W150');
	const name = (await page.getByRole('heading', { level: 1 }).textContent()) ?? '';
	await page.getByText('Their data: write out, or erase').click();
	const [file] = await Promise.all([
		page.waitForEvent('download'),
		page.getByRole('link', { name: 'Everything kept of them, as a file' }).click()
	]);
	expect(JSON.parse(readFileSync(await file.path(), 'utf8'))).toMatchObject({
		wearer: { number: 'W150', name }
	});
	await page.getByLabel('Their number, W150, typed').fill('W151');
	await page.getByRole('button', { name: 'Erase who they are' }).click();
	await expect(page.getByText('Type their number, W150.')).toBeVisible();
	await page.getByLabel('Their number, W150, typed').fill('W150');
	await page.getByRole('button', { name: 'Erase who they are' }).click();
	await expect(page.getByRole('heading', { level: 1, name: 'Wearer W150' })).toBeVisible();
	await expect(page.getByText(/Who this is was erased on/)).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	await page.goto(`${appUrl()}/people?q=${encodeURIComponent(name)}`);
	await expect(page.getByText(/Nobody carries/)).toBeVisible();
});

test('a long table of wearers comes in, draws only what is in sight, and is taken back', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await page.goto(`${appUrl()}/people/import`);
	await ready(page);
	const rows = Array.from({ length: 400 }, (_, i) => `X${1000 + i},Zz Person ${1000 + i}`);
	await page.getByLabel('CSV file').setInputFiles({
		name: 'wearers.csv',
		mimeType: 'text/csv',
		buffer: Buffer.from(`number,name\n${rows.join('\n')}\n`)
	});
	await page.getByRole('button', { name: 'Look at it first' }).click();
	await page.getByRole('button', { name: 'Take in 400' }).click();
	await expect(page.getByText('400 wearers taken in.')).toBeVisible();
	await page.goto(`${appUrl()}/people?q=Zz`);
	await ready(page);
	await expect(page.getByText('400 who wear equipment')).toBeVisible();
	const body = page.getByRole('table').locator('tbody');
	await expect.poll(() => body.getByRole('link').count()).toBeLessThan(120);
	await expect(body.getByText('Zz Person 1000')).toBeVisible();
	await page.keyboard.press('End');
	// Rows are measured as they come into sight: the end moves down until it is reached.
	await expect(async () => {
		await page.evaluate(() => window.scrollTo(0, document.body.scrollHeight));
		await expect(body.getByText('Zz Person 1399')).toBeVisible({ timeout: 500 });
	}).toPass({ timeout: 40_000 });
	// The other way round the last comes first.
	await page.goto(`${appUrl()}/people?q=Zz&sort=-name`);
	await ready(page);
	await expect(body.getByText('Zz Person 1399')).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	await page.goto(`${appUrl()}/people/import`);
	await ready(page);
	await page.getByRole('button', { name: 'Take all of it back' }).first().click();
	await expect(page.getByText('Taken back: 400 rows are gone')).toBeVisible();
});
