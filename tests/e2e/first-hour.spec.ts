import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import postgres from 'postgres';
import { appEnv, migrateAndSeed, startWeb } from '../../scripts/lib/app.mjs';
import { faultsOf } from './support/axe';
import { answerSteps, beginInspection, CLEAN, enter, ready, scan } from './support/app';
import { expect, type Page, test } from './support/test';

const NAME = 'first-hour';
const PASSWORD = 'quiet harbour lamp 7';
const ITEMS = 200;

/** The app on an empty database without its demo, as a new site has it; and the code that its start printed. */
async function emptySite(work: (address: string, code: string) => Promise<void>): Promise<void> {
	const admin = process.env.TEST_DATABASE_URL ?? '';
	const root = postgres(admin, { max: 1, onnotice: () => {} });
	const anchors = mkdtempSync(join(tmpdir(), 'anchors-'));
	await root.unsafe(`drop database if exists "${NAME}" with (force)`);
	await root.unsafe(`create database "${NAME}"`);
	try {
		const env = {
			...appEnv(admin.replace(/\/[^/]*$/, `/${NAME}`), { demo: false, name: 'browser' }),
			GREVAN_ANCHORS: join(anchors, 'log.jsonl'),
			LOG_LEVEL: 'error'
		};
		const code = /one-time code (\S+)/.exec(await migrateAndSeed(env))?.[1] ?? '';
		const web = await startWeb(env, { port: 8580, quiet: true });
		try {
			await work(web.address, code);
		} finally {
			await web.stop();
		}
	} finally {
		await root.unsafe(`drop database if exists "${NAME}" with (force)`);
		await root.end();
		rmSync(anchors, { recursive: true, force: true });
	}
}

/** A table as a person would bring it. */
const csv = (lines: string[]) => ({
	name: 'table.csv',
	mimeType: 'text/csv',
	buffer: Buffer.from(lines.join('\r\n'))
});

/** Takes a table in, having looked at it first. */
async function takeIn(page: Page, lines: string[], count: number): Promise<void> {
	await ready(page);
	await page.getByLabel('CSV file').setInputFiles(csv(lines));
	await enter(page.getByRole('button', { name: 'Look at it first' }));
	await expect(page.getByText('0 cells at fault')).toBeVisible();
	await enter(page.getByRole('button', { name: `Take in ${count}`, exact: true }));
	await expect(page.getByText(`${count} `).and(page.getByRole('status'))).toBeVisible();
}

/** What Today says is still missing, in order. */
const missing = (page: Page) =>
	page
		.getByRole('heading', { name: 'Still missing, in this order' })
		.locator('xpath=..')
		.getByRole('listitem')
		.locator('b')
		.allTextContents();

async function firstAdmin(page: Page, code: string): Promise<void> {
	await page.getByLabel('One-time code').fill(code);
	await page.getByLabel('Your name').fill('Nora Quist');
	await page.getByLabel('Initials').fill('NQ');
	await page.getByLabel('E-mail address').fill('nora@yard.example');
	await page.getByLabel('Password', { exact: true }).fill(PASSWORD);
	await page.getByLabel('The same again').fill(PASSWORD);
	await enter(page.getByRole('button', { name: 'Begin the set-up' }));
}

test('from an empty database to a site that works: places, people, models, register, filters, parts, floor, an inspection', async ({
	page
}) => {
	await emptySite(async (base, code) => {
		// Whatever address is opened, there is only the set-up.
		await page.goto(`${base}/items`);
		await expect(page).toHaveURL(/\/set-up$/);
		await ready(page);
		expect(await faultsOf(page)).toEqual([]);
		await firstAdmin(page, 'WRNG-WRNG-WRNG');
		await expect(page.getByText(/not the code/)).toBeVisible();
		await firstAdmin(page, code);
		await expect(page).toHaveURL(/\/set-up\/site$/);
		await ready(page);
		expect(await faultsOf(page)).toEqual([]);
		await page.getByLabel('Name of the site').fill('North Yard');
		await page.getByLabel('Time zone').selectOption('Europe/Oslo');
		await enter(page.getByRole('button', { name: /go on to the places/ }));

		await expect(page).toHaveURL(/\/set-up\/places$/);
		await ready(page);
		for (const name of ['Workshop', 'Quay hut']) {
			await page.getByLabel('Name', { exact: true }).fill(name);
			await enter(page.getByRole('button', { name: 'Add the place' }));
			await expect(page.getByRole('listitem').filter({ hasText: name })).toBeVisible();
		}
		expect(await faultsOf(page)).toEqual([]);
		// Left and opened again, it goes on where it was.
		await page.goto(`${base}/`);
		await expect(page).toHaveURL(/\/set-up\/equipment$/);
		await ready(page);
		const kinds = [
			[/Half mask, two filters, quarter turn/, 'Tern H1'],
			[/Full-face mask, two filters/, 'Tern F1'],
			[/Breathing apparatus, one cylinder, 300/, 'Skua Set'],
			[/Composite cylinder/, 'Skua 6.8'],
			[/Escape hood with a filter/, 'Skua Out']
		] as const;
		for (const [kind, name] of kinds) {
			const tick = page.getByRole('checkbox', { name: kind });
			await tick.check();
			await tick.locator('xpath=../..').getByLabel('Its name here').fill(name);
		}
		expect(await faultsOf(page)).toEqual([]);
		await enter(page.getByRole('button', { name: 'Add 5' }));
		await expect(page.getByText('5 models added.')).toBeVisible();
		await enter(page.getByRole('link', { name: 'Go on to the register' }));
		await ready(page);
		expect(await faultsOf(page)).toEqual([]);
		await page.getByRole('checkbox', { name: /authenticator/ }).uncheck();
		await enter(page.getByRole('button', { name: /End the set-up/ }));

		await expect(page.getByRole('heading', { level: 1 })).toContainText(/\d{4}/);
		expect(await missing(page)).toEqual(['Make accounts for the others', 'Bring the register in']);
		for (const [name, initials] of [
			['Ivar Holm', 'IH'],
			['Runa Berg', 'RB']
		] as const) {
			await page.goto(`${base}/settings/accounts`);
			await ready(page);
			await page.getByLabel('Name', { exact: true }).fill(name);
			await page.getByLabel('Initials').fill(initials);
			await page.getByLabel('Address').fill(`${initials.toLowerCase()}@yard.example`);
			await enter(page.getByRole('button', { name: 'Make the account' }));
			await expect(page.locator('[data-invite]')).toContainText('/invite/');
		}

		const models = kinds.map(([, name]) => name);
		const rows = Array.from({ length: ITEMS }, (_, i) =>
			[
				`T-${String(1001 + i)}`,
				models[i % models.length],
				i % 2 ? 'Workshop' : 'Quay hut',
				'M',
				i % 3 ? 'shared' : 'emergency'
			].join(',')
		);
		await page.goto(`${base}/items/import`);
		await takeIn(page, ['tag,model,place,size,use', ...rows], ITEMS);
		await page.goto(`${base}/filters/import`);
		await takeIn(
			page,
			[
				'filter,mount,EN marking,"mass of one, g",lot,use by,sealed',
				'Tern A2-P3,quarter turn,A2-P3,110,L-1,2031-05-31,40',
				'Skua escape,hood,A1B1E1K1,150,E-1,2031-05-31,40'
			],
			2
		);
		await page.goto(`${base}/faults/parts`);
		await takeIn(page, ['part,lot,quantity', 'Exhalation disc,D-1,50'], 1);

		await page.goto(`${base}/`);
		await ready(page);
		expect(await missing(page)).toEqual([
			'Say how many each place keeps ready',
			'Write the first hazard plan',
			'Inspect the first items'
		]);
		await page.goto(`${base}/settings/places`);
		await ready(page);
		await enter(page.getByRole('button', { name: 'Change' }).last());
		await page.getByLabel(/^Half masks/).fill('3');
		expect(await faultsOf(page)).toEqual([]);
		await enter(page.getByRole('button', { name: 'Keep', exact: true }));
		await expect(page.getByText('Workshop is kept.')).toBeVisible();
		await page.goto(`${base}/settings/rules`);
		await ready(page);
		await enter(page.getByRole('button', { name: 'New rule' }));
		await page.getByLabel('Every', { exact: true }).fill('7');
		await page.getByLabel('At one place').selectOption({ label: 'Quay hut' });
		await page.getByLabel('Why', { exact: true }).fill('Spray from the sea');
		await enter(page.getByRole('button', { name: 'Look at what it would do' }));
		await expect(page.getByText(/It looks at 100 items/)).toBeVisible();
		expect(await faultsOf(page)).toEqual([]);
		await enter(page.getByRole('button', { name: 'Keep the rule' }));
		// Nothing there was ever inspected: all of it is overdue by any rule.
		await expect(page.getByText('Kept. Every item was worked out by it.')).toBeVisible();
		await page.goto(`${base}/settings/schools`);
		await ready(page);
		await page.getByRole('radio', { name: /^on the bench/i }).check();
		expect(await faultsOf(page)).toEqual([]);
		await enter(page.getByRole('button', { name: 'Keep these' }));
		await expect(page.getByText('Kept.')).toBeVisible();
		await page.goto(`${base}/settings/calendar`);
		await ready(page);
		for (const day of ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday'])
			await page.getByLabel(day).uncheck();
		await enter(page.getByRole('button', { name: 'Keep these' }));
		await expect(page.getByText(/without a working day/)).toBeVisible();
		expect(await faultsOf(page)).toEqual([]);

		// Of the site's own school there is one list.
		await scan(page, 'T-1003');
		await expect(page.getByRole('button', { name: /^Inspect/ })).toHaveCount(1);
		await scan(page, 'T-1001');
		await beginInspection(page);
		await answerSteps(page, CLEAN);
		await page.keyboard.press('Enter');
		await expect(page.getByRole('heading', { name: 'Passed' })).toBeVisible();

		await page.goto(`${base}/`);
		await ready(page);
		expect(await missing(page)).toEqual(['Write the first hazard plan']);
		const shelf = page.getByRole('group').filter({ hasText: 'Half masks' });
		await expect(shelf).toContainText('one place is short');
		await expect(shelf).toContainText('0 / 3');
		await page.goto(`${base}/settings/site`);
		await expect(page.getByText(/list of a set from either to bench/)).toBeVisible();
	});
});

test('a table is taken back whole, until something of it was worked with', async ({ page }) => {
	await emptySite(async (base, code) => {
		await page.goto(`${base}/`);
		await ready(page);
		await firstAdmin(page, code);
		await expect(page).toHaveURL(/\/set-up\/site$/);
		await page.goto(`${base}/faults/parts`);
		await takeIn(page, ['part;lot;quantity', 'gasket;G-1;12', 'lens;N-7;3'], 2);
		await expect(page.getByText('G-1')).toBeVisible();
		await enter(page.getByRole('button', { name: 'Take all of it back' }));
		await expect(page.getByText(/Taken back: 2 rows are gone/)).toBeVisible();
		await expect(page.getByText('G-1')).toHaveCount(0);
		// A large one says how far it is, and is stopped.
		await page.goto(`${base}/set-up/places`);
		await ready(page);
		await page.getByLabel('Name', { exact: true }).fill('Store');
		await enter(page.getByRole('button', { name: 'Add the place' }));
		await expect(page.getByRole('listitem').filter({ hasText: 'Store' })).toBeVisible();
		await page.goto(`${base}/set-up/equipment`);
		await ready(page);
		await page.getByRole('checkbox', { name: /press ring/ }).check();
		await page.getByLabel('Its name here').fill('Tern P');
		await enter(page.getByRole('button', { name: 'Add 1' }));
		await expect(page.getByText('1 models added.')).toBeVisible();
		await page.goto(`${base}/items/import`);
		await ready(page);
		const rows = Array.from({ length: 30_000 }, (_, i) => `B-${10_000 + i},Tern P,Store`);
		await page.getByLabel('CSV file').setInputFiles(csv(['tag,model,place', ...rows]));
		await enter(page.getByRole('button', { name: 'Look at it first' }));
		await enter(page.getByRole('button', { name: 'Take in 30000', exact: true }));
		await expect(page.getByRole('progressbar')).toBeVisible();
		await enter(page.getByRole('button', { name: /^Stop/ }));
		await expect(page.getByText('Nothing of it was taken in.')).toBeVisible();
		await page.goto(`${base}/items`);
		await expect(page.getByText('0 found')).toBeVisible();
		// The code opened once.
		await page.context().clearCookies();
		await page.goto(`${base}/set-up`);
		await expect(page).toHaveURL(/\/sign-in$/);
	});
});
