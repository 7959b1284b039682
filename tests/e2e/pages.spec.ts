import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { appUrl, beginInspection, enter, ready, scan, signInAs } from './support/app';

/** Every page that there is. */
async function everyPage(page: Page): Promise<string[]> {
	await page.goto(`${appUrl()}/hazards`);
	const plan = await page.getByRole('link', { name: /Laminating, bay 2/ }).getAttribute('href');
	await page.goto(`${appUrl()}/filters/opened`);
	const pair = await page.getByRole('link', { name: /FP-/ }).first().getAttribute('href');
	await page.goto(`${appUrl()}/filters/store`);
	const lot = await page.getByRole('link', { name: /until/ }).first().getAttribute('href');
	await page.goto(`${appUrl()}/faults`);
	const fault = await page
		.getByRole('link', { name: /elastic does not return/ })
		.getAttribute('href');
	await scan(page, 'HM-0108');
	const go = page.getByRole('link', { name: 'Go on with the inspection' });
	const run = (await go.count())
		? ((await go.getAttribute('href')) ?? '')
		: new URL(await beginInspection(page)).pathname;
	return [
		'/',
		'/hazards',
		plan ?? '',
		'/hazards/new',
		`${plan}/life`,
		`${plan}/card`,
		`${plan}/editions`,
		'/hazards/substances?q=tri',
		'/hazards/substances/styrene',
		'/hazards/substances/import',
		'/filters/opened',
		'/filters/store',
		pair ?? '',
		`${pair}/label`,
		lot ?? '',
		'/records/model-check',
		'/filters',
		`/filters?plan=${plan?.split('/').at(-1)}`,
		'/items',
		'/items?q=nothing',
		'/items/BA-0208',
		'/items/GS-0207',
		'/bench',
		'/items/HM-0108',
		'/items/HM-0108/history',
		run,
		'/plan',
		'/faults',
		fault ?? '',
		'/records?check',
		'/records/interface',
		'/items/HM-9999'
	];
}

const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** What axe finds; only some rules where the rest was seen in another theme or width. */
async function faultsOf(page: Page, only?: string[]): Promise<string[]> {
	const axe = new AxeBuilder({ page });
	const { violations } = await (only ? axe.withRules(only) : axe.withTags(TAGS)).analyze();
	return violations.map(
		(v) =>
			`${new URL(page.url()).pathname}: ${v.id}: ${v.nodes[0]?.html.slice(0, 200)} (${v.nodes.length})`
	);
}

for (const [theme, width, rules] of [
	['day', 1280, undefined],
	['night', 1280, ['color-contrast']],
	['day', 820, []],
	['day', 390, ['target-size', 'color-contrast']]
] as const)
	test(`every page is accessible and fits, ${theme} theme, ${width} wide`, async ({ page }) => {
		test.setTimeout(150_000);
		await page.setViewportSize({ width, height: 844 });
		const errors: string[] = [];
		page.on('pageerror', (error) => errors.push(error.message));
		page.on('console', (line) => {
			if (line.type() === 'error' && !line.text().includes('404')) errors.push(line.text());
		});
		await page.context().addCookies([{ name: 'theme', value: theme, url: appUrl() }]);
		await page.goto(`${appUrl()}/sign-in`);
		const faults = await faultsOf(page);
		await signInAs(page, 'Ilse Norrby');
		for (const path of await everyPage(page)) {
			await page.goto(appUrl() + path);
			await ready(page);
			if (rules?.length !== 0) faults.push(...(await faultsOf(page, rules && [...rules])));
			const over = await page.evaluate(
				() => document.documentElement.scrollWidth - document.documentElement.clientWidth
			);
			if (over > 0) faults.push(`${path}: ${over} px too wide`);
		}
		expect(faults).toEqual([]);
		expect(errors).toEqual([]);
	});

test('the Because panel is accessible and gives the focus back', async ({ page }) => {
	await signInAs(page, 'Ilse Norrby');
	await scan(page, 'HM-0110');
	const trigger = page.getByRole('button', { name: 'Because' }).first();
	await enter(trigger);
	await expect(page.getByRole('dialog')).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	await page.keyboard.press('Escape');
	await expect(trigger).toBeFocused();
});

test('arrows walk the airway and a screen reader hears each station', async ({ page }) => {
	await signInAs(page, 'Ilse Norrby');
	await scan(page, 'HM-0110');
	await page.getByRole('button', { name: /^Pre-filter and retainer, left, room air/ }).focus();
	for (let i = 0; i < 9; i++) await page.keyboard.press('ArrowRight');
	await expect(
		page.getByRole('heading', { level: 2, name: 'Exhalation valve and seat' })
	).toBeVisible();
	await expect(
		page.getByRole('button', { name: /^Exhalation valve and seat, inside the mask.*good/ })
	).toBeFocused();
});
