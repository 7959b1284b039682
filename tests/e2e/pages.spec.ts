import { faultsBy, faultsOf } from './support/axe';
import { appUrl, beginInspection, enter, ready, scan, signInAs } from './support/app';
import { expect, type Page, test } from './support/test';

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
		.getByRole('row', { name: /elastic does not return/ })
		.getByRole('link')
		.getAttribute('href');
	await page.goto(`${appUrl()}/people?q=W107`);
	const wearer = await page.locator('tbody a').first().getAttribute('href');
	await page.goto(`${appUrl()}/people/fit-tests`);
	const fit = await page.locator('a[href^="/people/fit-tests/"]').first().getAttribute('href');
	await page.goto(`${appUrl()}/wash`);
	const batch = await page
		.getByRole('link', { name: /^Batch/ })
		.first()
		.getAttribute('href');
	await page.goto(`${appUrl()}/bench`);
	const tested = await page
		.getByRole('link', { name: /GS-0207/ })
		.first()
		.getAttribute('href');
	await page.goto(`${appUrl()}/air/tests`);
	const source = await page
		.getByRole('link', { name: /Fill room compressor/ })
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
		'/filters/import',
		pair ?? '',
		`${pair}/label`,
		lot ?? '',
		'/records/model-check',
		'/filters',
		`/filters?plan=${plan?.split('/').at(-1)}`,
		'/items',
		'/items?q=nothing',
		'/search?q=dryer',
		'/search?q=nothing',
		'/items/new',
		'/items/import',
		'/items/labels?tags=HM-0101,BA-0201',
		'/items/models',
		'/items/models/new',
		'/items/procedures',
		'/items/procedures/ba-set-bench',
		'/items/musters',
		'/items/FF-0203/seal',
		'/items/sheets?tags=BA-0201,BA-0202',
		'/items/BA-0201/paper',
		'/items/BA-0207',
		'/items/GS-0207',
		'/bench',
		tested ?? '',
		'/items/HM-0108',
		'/items/HM-0108/history',
		run,
		'/air?set=BA-0201',
		'/air/board',
		'/air/board/log',
		'/air/filling',
		'/air/cylinders',
		'/air/cylinders/CY-0213',
		'/air/tests',
		source ?? '',
		'/air/airlines',
		'/air/airlines/AL-0204',
		'/air/banks',
		'/air/hoses',
		'/plan',
		'/plan/day',
		'/plan/forecast',
		'/plan/buy',
		'/plan/hours',
		'/faults',
		'/faults?of=ended',
		`${fault}/card`,
		'/faults/report?tag=HM-0110',
		'/faults/learn',
		'/faults/recalls',
		'/faults/parts',
		'/faults/parts/count',
		'/drill',
		'/drill/run/ba-set?mode=drill&level=2',
		'/drill/tests/equipment',
		'/drill/gallery',
		'/drill/exam',
		'/help',
		'/counter',
		'/counter/return',
		'/counter/team',
		'/counter/where',
		'/counter/where?at=issued',
		'/counter/put',
		'/counter/cards',
		'/wash',
		batch ?? '',
		'/wash/look',
		'/wash/stock',
		'/people',
		'/people/new',
		'/people/fit-tests',
		'/people/competence',
		'/people/names',
		'/people/import',
		wearer ?? '',
		`${wearer}/fit`,
		`${wearer}/fit/paper`,
		fit ?? '',
		`${fit}/wearer`,
		'/settings/messages',
		'/settings/messages/mailbox',
		fault ?? '',
		'/records?check',
		'/records?tag=HM-0108&group=inspections',
		'/records/verify?paper=5',
		'/records/interface',
		'/records/bundle',
		'/records/registers',
		'/records/registers/fills',
		'/records/archive',
		'/records/retention',
		'/settings',
		'/settings/device',
		'/settings/keys',
		'/hand-over',
		'/screen',
		'/items/HM-9999'
	];
}

const HEIGHT = 844;

/** What a page shows wrong: all rules by day, then by night on a phone only what these two change. */
async function faultsOfViews(page: Page): Promise<string[]> {
	const faults: string[] = [];
	const fits = async (width: number) => {
		await page.setViewportSize({ width, height: HEIGHT });
		const over = await page.evaluate(async () => {
			// Pictures follow a change of width in the frame after it.
			for (let i = 0; i < 3; i++) await new Promise(requestAnimationFrame);
			return document.documentElement.scrollWidth - document.documentElement.clientWidth;
		});
		if (over > 0) faults.push(`${page.url()}: ${over} px too wide at ${width}`);
	};
	await fits(1280);
	faults.push(...(await faultsOf(page)));
	await fits(820);
	await page.evaluate(() => (document.documentElement.dataset.theme = 'night'));
	await fits(390);
	faults.push(...(await faultsBy(page, ['target-size', 'color-contrast'])));
	return faults;
}

test.describe.configure({ mode: 'parallel' });
const PARTS = 3;

for (let part = 0; part < PARTS; part++)
	test(`every page is accessible and fits, day and night, three widths (${part + 1} of ${PARTS})`, async ({
		page
	}) => {
		// Each part looks at some thirty pages, each of them three times.
		test.setTimeout(900_000);
		const errors: string[] = [];
		page.on('pageerror', (error) => errors.push(error.message));
		page.on('console', (line) => {
			if (line.type() === 'error' && !line.text().includes('404')) errors.push(line.text());
		});
		const faults: string[] = [];
		if (part === 0) {
			await page.goto(`${appUrl()}/sign-in`);
			faults.push(...(await faultsOfViews(page)));
		}
		await page.setViewportSize({ width: 1280, height: HEIGHT });
		await signInAs(page, 'Ilse Norrby');
		const paths = await everyPage(page);
		for (const path of paths.filter((_, i) => i % PARTS === part)) {
			await page.setViewportSize({ width: 1280, height: HEIGHT });
			await page.goto(appUrl() + path);
			await ready(page);
			faults.push(...(await faultsOfViews(page)));
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
