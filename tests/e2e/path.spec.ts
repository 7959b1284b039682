import {
	answerSteps,
	appUrl,
	beginInspection,
	CLEAN,
	enter,
	scan,
	signInAs,
	signInByHand
} from './support/app';
import { expect, test } from './support/test';

test('the whole path, from hazard to ready shelf, by keyboard', async ({ page }) => {
	await signInByHand(page, 'Ilse Norrby');

	// Hazards: a plan that ends in a half mask with A1.
	await enter(page.getByRole('link', { name: 'Hazards' }));
	await enter(page.getByRole('link', { name: 'New plan' }));
	await page.getByLabel('Task').focus();
	await page.keyboard.type('Rolling resin, bay 3');
	await page.getByLabel('Place').focus();
	await page.keyboard.type('Boat');
	await page.getByLabel('Add a contaminant').focus();
	await page.keyboard.type('styrene');
	await page.keyboard.press('Enter');
	await expect(page.getByTestId('outcome')).toHaveText(/Own air supply/);
	await page.getByLabel('Measured').focus();
	await page.keyboard.type('160');
	await expect(page.getByTestId('outcome')).toHaveText('Half mask with filters');
	await expect(page.locator('[data-rung=factor]')).toHaveAttribute('data-answer', 'decides');
	await expect(page.getByText('EN 14387, EN 143 · other scheme: OV')).toBeVisible();
	await enter(page.getByRole('button', { name: 'Because', exact: true }));
	await expect(page.getByRole('dialog')).toContainText('EN 529 annex C');
	await expect(page.getByRole('dialog')).toContainText('from memory, verify');
	await expect(page.getByRole('dialog')).toContainText('Above 700 ppm of Styrene');
	await page.keyboard.press('Escape');
	await expect(page.getByRole('main').getByRole('status').first()).toContainText('kept, version');
	await page.reload();
	await expect(page.getByLabel('Task')).toHaveValue('Rolling resin, bay 3');
	await expect(page.getByLabel('Measured')).toHaveValue('160');

	// Filters: what serves, why the others do not, a pair opened onto a mask.
	await enter(page.getByRole('link', { name: 'Filters for this task' }));
	await expect(page.getByRole('heading', { name: /Do not serve, and why/ })).toBeVisible();
	await expect(page.getByText('Past its use-by date of')).toBeVisible();
	await page.getByRole('radio', { name: /Tesselow A2, lot/ }).focus();
	await page.keyboard.press('Space');
	await page.getByLabel('On the mask').focus();
	await page.keyboard.type('hm-0103');
	await page.getByLabel('Why the old pair goes').focus();
	await page.keyboard.type('change');
	await page.keyboard.press('Tab');
	await page.keyboard.press('Enter');
	await expect(page.getByText(/Write on each filter: FP-\d{4}/)).toBeVisible();

	// Check: one reject on the way, held at once.
	await scan(page, 'HM-0103');
	await expect(
		page.getByRole('list', { name: /Airway of HM-0103/ }).getByRole('listitem')
	).toHaveCount(14);
	await beginInspection(page);
	await answerSteps(page, CLEAN.slice(0, 12));
	await expect(page.getByRole('heading', { name: 'Exhalation disc and seat' })).toBeVisible();
	await page.keyboard.press('2');
	await page.keyboard.press('1');
	await expect(page.getByText('Held from now on.')).toBeVisible();
	await answerSteps(page, CLEAN.slice(13), 13);
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: 'Failed: held' })).toBeVisible();

	// Defect and service.
	await enter(page.getByRole('link', { name: /CURL/ }));
	await enter(page.getByRole('button', { name: 'Start the repair' }));
	// A day is said as people here say it, in a list to choose from too.
	await expect(page.getByLabel(/, 1 needed/)).toContainText(/until \d{1,2} [A-Z][a-z]{2} \d{4}/);
	await expect(page.getByRole('heading', { name: 'New valve disc' })).toBeVisible();
	for (const line of await page.getByRole('checkbox').all()) {
		await line.focus();
		await page.keyboard.press('Space');
	}
	await enter(page.getByRole('button', { name: 'Repair done' }));
	await enter(page.getByRole('button', { name: 'Inspect it now' }));
	await expect(page).toHaveURL(/\/runs\//);
	let presses = 0;
	await answerSteps(page, CLEAN);
	presses += CLEAN.length;
	await page.keyboard.press('Enter');
	presses += 1;
	await expect(page.getByRole('heading', { name: 'Passed' })).toBeVisible();
	expect(presses).toBeLessThan(30);
	await expect(page.getByText('in service', { exact: true })).toBeVisible();

	// A technician sees no way to release; a supervisor releases.
	await enter(page.getByRole('link', { name: /^CURL/ }));
	await expect(page.getByText(/A supervisor releases it/)).toBeVisible();
	await expect(page.getByRole('button', { name: /Release/ })).toHaveCount(0);
	const fault = page.url();
	await enter(page.getByRole('button', { name: 'Sign out' }));
	await signInByHand(page, 'Tove Rieveld');
	await page.goto(fault);
	await enter(page.getByRole('button', { name: 'Release HM-0103' }));
	await expect(page.getByText(/Released by Tove Rieveld/)).toBeVisible();

	// Ready again, and everything on record.
	await scan(page, 'HM-0103');
	await expect(page.getByRole('complementary', { name: 'State' })).toContainText(/ready|due/);
	await enter(page.getByRole('link', { name: 'History', exact: true }));
	for (const line of [
		'Released after new valve disc',
		'Inspection signed: pass',
		'Repair done and proved',
		'Repair started',
		'Inspection signed: fail',
		'Fault found: CURL',
		'Filters opened: Tesselow A2'
	])
		await expect(page.getByRole('main')).toContainText(line);
	await page.goto(`${appUrl()}/records?check`);
	await expect(page.getByText(/entries follow from one another/)).toBeVisible();
	await enter(page.getByRole('link', { name: 'Plan', exact: true }));
	await expect(page.getByRole('heading', { level: 1, name: 'Plan' })).toBeVisible();
});

test('three tasks get three answers, for the reason that stands there', async ({ page }) => {
	await signInAs(page, 'Perrin Vale');
	for (const [task, outcome, rung, word] of [
		['Two-pack spray, booth', 'Supplied air, no filter', 'filter-exists', 'Isocyanates sensitise'],
		['Washing out tank 4', 'Own air supply', 'oxygen', 'below 19.5 %'],
		['Sanding hull boards', 'Half mask with filters', 'factor', '9.2 × the limit → 10']
	] as const) {
		await page.goto(`${appUrl()}/hazards`);
		await enter(page.getByRole('link', { name: new RegExp(task) }));
		await expect(page.getByTestId('outcome')).toContainText(outcome);
		await expect(page.locator(`[data-rung=${rung}]`)).toHaveAttribute('data-answer', 'decides');
		await expect(page.locator(`[data-rung=${rung}]`)).toContainText(word);
	}
});
