import { appUrl, ready, signInAs, typeDay } from './support/app';
import { expect, type Page, test } from './support/test';

/** A new plan with its task and place, as a newcomer fills it in. */
async function newPlan(page: Page, task: string, place: string) {
	await page.goto(`${appUrl()}/hazards/new`);
	await ready(page);
	await page.getByLabel('Task', { exact: true }).fill(task);
	await page.getByLabel('Place').selectOption({ label: place });
}
async function add(page: Page, substance: string, value: string) {
	const before = await page.getByLabel('Measured').count();
	await page.getByLabel('Add a contaminant').fill(substance);
	await page.keyboard.press('Enter');
	await expect(page.getByLabel('Measured')).toHaveCount(before + 1);
	await page.getByLabel('Measured').nth(before).fill(value);
}
const decided = (page: Page) => page.locator('[data-answer="decides"]');
const status = (page: Page) => page.getByRole('main').getByRole('status').first();

test('five tasks give five different answers for reasons that the screen states', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	const outcome = page.getByTestId('outcome');

	await newPlan(page, 'Two-pack spray', 'Boat shed');
	await add(page, 'hexamethylene diisocyanate', '0.05');
	await add(page, 'n-butyl acetate', '80');
	await expect(outcome).toHaveText('Supplied air, no filter');
	await expect(decided(page)).toContainText('Isocyanates sensitise');

	await newPlan(page, 'Ammonia leak', 'Ice plant and cold store');
	await add(page, 'ammonia', '420');
	await expect(outcome).toContainText('Own air supply');
	await expect(decided(page)).toContainText('140 % of the level immediately dangerous');

	await newPlan(page, 'Venting after fumigation', 'Grain quay');
	await add(page, 'phosphine', '1.5');
	await expect(outcome).toHaveText('Full-face mask with filters');
	await expect(
		page.getByText('Against a fumigant the eyes are covered too').first()
	).toBeAttached();

	await newPlan(page, 'Tank 4', 'Tank-cleaning crew');
	await add(page, 'hydrogen sulphide', '2');
	await page.getByLabel('Oxygen, %').fill('17,5');
	await expect(decided(page)).toContainText('A filter adds no oxygen');

	await newPlan(page, 'Board sanding', 'Boat shed');
	await add(page, 'board sanding', '46');
	await expect(outcome).toHaveText(/Filtering facepiece|Half mask with filters/);
	await expect(page.getByTestId('changes')).toContainText('above 50 mg/m³');
	await expect(status(page)).toContainText('kept, version');
});

test('measurements, peak and both rule sets; a supervisor approves; a later draft is told apart', async ({
	browser
}) => {
	const [maker, boss] = [await browser.newPage(), await browser.newPage()];
	await signInAs(maker, 'Ilse Norrby');
	await signInAs(boss, 'Tove Rieveld');
	await newPlan(maker, 'Gelcoat, bay 3', 'Boat shed');
	await add(maker, 'styrene', '120');
	await maker.getByRole('button', { name: 'More about Styrene' }).click();
	await maker.getByLabel(/^Several measurements/).fill('120 150 98 171 133 144 110');
	await expect(maker.getByText(/7 measurements, geometric mean 130/)).toBeVisible();
	await maker.getByLabel(/^Highest 15 min/).fill('600');
	await expect(maker.getByText('2.4 × the short-term limit').first()).toBeVisible();
	await expect(maker.getByTestId('both')).toContainText('The two rule sets differ');
	await expect(maker.getByTestId('standing')).toContainText('draft');
	await expect(status(maker)).toContainText('kept, version');
	await expect(maker.getByRole('button', { name: 'Approve' })).toHaveCount(0);
	const address = maker.url();

	await boss.goto(address);
	await ready(boss);
	await boss.getByRole('button', { name: 'Approve' }).click();
	await typeDay(boss, 'It lapses after', '2020-01-01');
	await boss.getByRole('dialog').getByRole('button', { name: 'Approve' }).click();
	await expect(boss.getByText('The day on which it lapses lies in the past.')).toBeVisible();
	await typeDay(boss, 'It lapses after', '2099-01-01');
	await boss.getByLabel('Conditions, if any').fill('Doors open.');
	await boss.getByRole('dialog').getByRole('button', { name: 'Approve' }).click();
	await expect(boss.getByTestId('standing')).toContainText('in force');

	await maker.reload();
	await ready(maker);
	await maker.getByLabel('Humidity, %').fill('80');
	await expect(maker.getByTestId('standing')).toContainText('what you see is a newer draft');
	await expect(status(maker)).toContainText('kept, version');
	await maker.getByRole('link', { name: 'Editions' }).click();
	const row = maker.getByRole('row', { name: /Humidity/ });
	await expect(row).toContainText('50 %');
	await expect(row).toContainText('80 %');
	await expect(maker.getByText('“Doors open.”')).toBeVisible();
	await maker.close();
	await boss.close();
});

test('a monitor’s log is read, shown and taken into the plan', async ({ page }) => {
	await signInAs(page, 'Ilse Norrby');
	await newPlan(page, 'Tank 5, first look', 'Tank-cleaning crew');
	await page.getByText('Read a gas monitor’s log').click();
	await page.getByLabel('CSV file of the monitor').setInputFiles({
		name: 'x.csv',
		mimeType: 'text/csv',
		buffer: Buffer.from('time,H2S\nnoon,3\n')
	});
	await expect(page.getByRole('alert')).toContainText('Row 2, time: “noon” is no time');
	await page.getByRole('button', { name: 'tank', exact: true }).click();
	await expect(page.getByText(/481 readings/)).toBeVisible();
	await expect(page.getByRole('img', { name: /Hydrogen sulphide over the log/ })).toBeVisible();
	await page.getByRole('button', { name: 'Take these into the plan' }).click();
	await expect(page.getByText(/^Taken: oxygen 17/)).toBeVisible();
	await expect(page.getByLabel('Oxygen, %')).toHaveValue(/^17\.\d$/);
	await expect(decided(page)).toContainText('A filter adds no oxygen');
});

test('filter life: curve, comparison, a sweep that can be stopped and one that runs through', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await page.goto(`${appUrl()}/hazards`);
	await page.getByRole('link', { name: /Laminating, bay 2/ }).click();
	await page.getByRole('link', { name: 'Filter life' }).click();
	await expect(page.getByRole('img', { name: /Breakthrough of Styrene/ })).toBeVisible();
	await ready(page);
	await page.getByText('The numbers').first().click();
	await expect(page.getByRole('columnheader', { name: 'model, min' })).toBeVisible();
	const steps = page.getByRole('group', { name: 'Temperature, °C' }).getByLabel('steps');
	await steps.fill('900');
	await page.getByRole('button', { name: /^Run 1,555,200 cases/ }).click();
	await expect(page.getByText(/of 1,555,200/)).toBeVisible();
	await page.getByRole('button', { name: 'Stop' }).click();
	await steps.fill('3');
	await page.getByRole('button', { name: /^Run 5,184 cases/ }).click();
	await expect(page.getByText(/5,184 cases in/)).toBeVisible();
	await expect(page.getByText(/Shortest:/)).toBeVisible();
	await page.goto(page.url().replace('/life', '/card'));
	await expect(page.getByText(/Change after .* of wear/)).toBeVisible();
	const pdf = await page.request.get(`${page.url()}.pdf`);
	expect(pdf.headers()['content-type']).toBe('application/pdf');
	expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
});

test('wear is entered, a smell before the time puts the plan in question, a supervisor looks into it', async ({
	browser
}) => {
	const [tech, boss] = [await browser.newPage(), await browser.newPage()];
	await signInAs(tech, 'Odd Kessmer');
	await signInAs(boss, 'Tove Rieveld');
	await tech.goto(`${appUrl()}/filters/opened`);
	await ready(tech);
	await tech.getByRole('link', { name: /K2/ }).filter({ hasNotText: 'B2' }).first().click();
	await ready(tech);
	await tech.getByLabel('Minutes').fill('0');
	await tech.getByRole('button', { name: 'Enter' }).click();
	await expect(tech.getByText('Type the minutes of wear, above zero.')).toBeVisible();
	await tech.getByLabel('Minutes').fill('45');
	await tech.getByRole('button', { name: 'Enter' }).click();
	await expect(tech.getByRole('row', { name: /Compressor room round 45 min/ })).toBeVisible();
	await tech.getByLabel('Take it out of use because').selectOption('smell');
	await tech.getByRole('button', { name: 'Discard the pair' }).click();
	await expect(tech.getByText(/Out of use since .*: smell or taste/)).toBeVisible();
	await boss.goto(appUrl());
	await boss.getByRole('link', { name: /In question: Compressor room round/ }).click();
	await ready(boss);
	await expect(boss.getByTestId('standing')).toContainText('in question');
	await boss
		.getByLabel('What was found, what was changed')
		.fill('Valve packing leaked; 90 ppm. Mended.');
	await boss.getByRole('button', { name: 'Looked into' }).click();
	await expect(boss.getByTestId('standing')).not.toContainText('in question');
	await tech.close();
	await boss.close();
});

test('a table of substances is looked at before it is imported', async ({ page }) => {
	await signInAs(page, 'Tove Rieveld');
	await page.goto(`${appUrl()}/hazards/substances/import`);
	await ready(page);
	const file = (text: string) => ({
		name: 's.csv',
		mimeType: 'text/csv',
		buffer: Buffer.from(text)
	});
	await page
		.getByLabel('CSV file')
		.setInputFiles(file('name;form;UK limit 8 h\nQuay cleaner;vapour;12,5\nOdd one;steam;3\n'));
	await page.getByRole('button', { name: 'Look at it first' }).click();
	await expect(page.getByRole('row', { name: /3 form “steam” is none of/ })).toBeVisible();
	await expect(page.getByText('decimal comma', { exact: false }).last()).toBeVisible();
	await page.getByLabel('Where the values come from').fill('supplier');
	await page.getByRole('button', { name: 'Import 1' }).click();
	await expect(page.getByText(/1 cells are at fault; nothing was imported/)).toBeVisible();
	await page.getByRole('button', { name: 'Look at it first' }).click();
	await page.getByLabel('Where the values come from').fill('supplier');
	await page.getByLabel('leave out the rows at fault').check();
	await page.getByRole('button', { name: 'Import 1' }).click();
	await expect(page.getByText('1 substances are in the library.')).toBeVisible();
	await newPlan(page, 'Washing the quay', 'Grain quay');
	await add(page, 'quay cleaner', '25');
	await expect(page.getByText('2 × the limit').first()).toBeVisible();
});
