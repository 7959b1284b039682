import { appUrl, enter, ready, signInAs } from './support/app';
import { expect, test } from './support/test';
import { walker } from './support/walker';

test('BA sets by both schools, two holds at a time: one passes, a late whistle holds the other', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	const tellSet = async (whistleBar: string) => {
		await page.goto(`${appUrl()}/bench`);
		await ready(page);
		await page.getByText('What the simulated set does').click();
		for (const [label, value] of Object.entries({
			'Filled to, bar': '294',
			'Leak, bar/min': '0',
			'Whistle at, bar': whistleBar,
			'Let down, bar/s': '60'
		}))
			await page.getByLabel(label).fill(value);
		await page.getByRole('button', { name: 'Tell the bench' }).click();
		await expect(page.getByText(/from the next reading on/)).toBeVisible();
	};
	await tellSet('55');
	const worn = walker(page);
	const wornRun = await worn.begin('BA-0206', /worn school/);
	await worn.to(/Cylinder: pressure/);
	await enter(page.getByRole('button', { name: 'Read the bench' }));
	await expect(page.getByText(/Within: 294 bar of 300/)).toBeVisible();
	await page.keyboard.press('Enter');
	await worn.startHold('294');

	const bench = walker(page);
	const benchRun = await bench.begin('BA-0205', /bench school/);
	await bench.to(/Cylinder: pressure/);
	await page.getByLabel('Gauge, bar').fill('29,4');
	await expect(page.getByText(/In MPa it would be 294 bar/)).toBeVisible();
	await page.keyboard.press('Enter');
	await expect(bench.title).toHaveText(/Cylinder: pressure/);
	await page.getByRole('button', { name: 'take 294 bar' }).click();
	await expect(page.getByText(/Within: 294 bar of 300/)).toBeVisible();
	await page.keyboard.press('Enter');
	await bench.startHold('293');

	// Meanwhile another item; the clocks run on the server and are seen from every page.
	await page.goto(`${appUrl()}/items/HM-0111`);
	await ready(page);
	const strip = page.getByRole('list', { name: 'Running timers' });
	await expect(strip).toContainText('BA-0205');
	await expect(strip).toContainText('BA-0206');

	await worn.endHold(wornRun, '293', /Within: It lost 1 bar/);
	await worn.to(/whistle$/);
	await enter(page.getByRole('button', { name: /Let it down/ }));
	await expect(page.getByText(/Within: It whistled at 55 bar/)).toBeVisible();
	await expect(page.getByLabel(/Whistle starts at/)).toBeFocused();
	await page.keyboard.press('Enter');
	await worn.to(/Sign/);
	await worn.press('Enter');
	await expect(page.getByRole('heading', { name: /^Passed/ })).toBeVisible();
	expect(worn.presses).toBeLessThan(60);

	await bench.endHold(benchRun, '291', /Within: It lost 2 bar/);
	await bench.to(/^Whistle$/);
	await tellSet('47');
	await page.goto(benchRun);
	await ready(page);
	await enter(page.getByRole('button', { name: /Let it down/ }));
	await expect(page.getByRole('alert')).toContainText('BA-0206 is on the bench');
	await enter(page.getByRole('button', { name: 'Put BA-0205 on it' }));
	await expect(page.getByText(/Reject: It whistled at 47 bar, below 50/)).toBeVisible();
	await page.keyboard.press('Enter');
	await expect(page.getByRole('complementary', { name: 'So far' })).toContainText('WHL');
	await bench.to(/Sign/);
	const status = page.getByRole('main').getByRole('status').filter({ hasText: ' of 20' });
	await expect(status).toContainText('20 of 20');
	await bench.press('Enter');
	await expect(page.getByRole('heading', { name: 'Failed: held' })).toBeVisible();
	expect(bench.presses).toBeLessThan(60);
	await page.getByRole('link', { name: 'To BA-0205' }).click();
	await expect(page.getByRole('complementary', { name: 'State' })).toContainText('held');
});

test('a suit on the bench: a temperature drift is repeated, a leak holds it, a file is judged', async ({
	page
}) => {
	await signInAs(page, 'Odd Kessmer');
	const start = async (tag: string, part: Record<string, string>) => {
		await page.goto(`${appUrl()}/bench`);
		await ready(page);
		await page.getByLabel('Item').fill(tag);
		await page.getByLabel('Recipe').selectOption('suit-en');
		await page.getByText('What the simulated bench does').click();
		for (const [label, value] of Object.entries({ 'Times as fast': '120', ...part }))
			await page.getByLabel(label).fill(value);
		await page.getByRole('button', { name: 'Start the hold' }).click();
		await expect(page.getByText('Running')).toBeVisible();
	};
	await start('GS-0204', { 'Warms by, K': '-1.2', 'Leak, Pa/min': '12' });
	await expect(page.getByTestId('verdict')).toContainText('Repeat the test');
	await expect(page.getByText(/neither is trusted/).first()).toBeVisible();
	await expect(page.getByText('721 readings', { exact: false })).toBeVisible();
	await start('GS-0205', { 'Leak, Pa/min': '85' });
	await expect(page.getByTestId('verdict')).toContainText('Failed: held');
	await page.getByRole('link', { name: 'To GS-0205' }).click();
	await expect(page.getByRole('complementary', { name: 'State' })).toContainText('held');
	await page.goto(`${appUrl()}/bench`);
	await ready(page);
	await page.getByLabel('Item').fill('GS-0206');
	await page.getByLabel('Recipe').selectOption('suit-us');
	await page.getByLabel('Or a trace as CSV').setInputFiles({
		name: 't.csv',
		mimeType: 'text/csv',
		buffer: Buffer.from('s,Pa\n0,996\nsoon,990\n')
	});
	await page.getByRole('button', { name: 'Judge the file' }).click();
	await expect(page.getByText(/Row 3, s: “soon” is not a number/)).toBeVisible();
});
