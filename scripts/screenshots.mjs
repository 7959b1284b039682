// Takes the pictures of docs/screenshots from the demo, at 1280 by 800, day theme; --to DIR --width N --theme night for a look.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './lib/paths.mjs';
import { runMain, say } from './lib/say.mjs';
import { withScratchApp } from './lib/scratch.mjs';
import { chromiumPath } from './lib/system.mjs';

const option = (/** @type {string} */ name, /** @type {string} */ usual) => {
	const at = process.argv.indexOf(`--${name}`);
	return at > 0 ? (process.argv[at + 1] ?? usual) : usual;
};
const to = option('to', join(root, 'docs', 'screenshots'));
const width = Number(option('width', '1280'));
const theme = option('theme', 'day');

await runMain(() =>
	withScratchApp('screenshots', {}, async ({ address }) => {
		const { chromium } = await import('@playwright/test');
		mkdirSync(to, { recursive: true });
		const browser = await chromium.launch({
			executablePath: chromiumPath(),
			args: ['--no-sandbox', '--disable-gpu']
		});
		const context = await browser.newContext({
			viewport: { width, height: width < 500 ? 844 : 800 },
			locale: 'en-GB',
			timezoneId: 'Europe/London'
		});
		await context.addCookies([{ name: 'theme', value: theme, url: address }]);
		const page = await context.newPage();
		const shoot = async (/** @type {string} */ name) => {
			await page.evaluate(() => document.fonts.ready);
			await page.waitForTimeout(250);
			await page.screenshot({ path: join(to, `${name}.png`), fullPage: width < 1000 });
			say(name);
		};
		const go = async (/** @type {string} */ path) => {
			await page.goto(address + path);
			await page.locator('html[data-ready]').waitFor();
		};
		const answered = (/** @type {number} */ n) =>
			page
				.getByRole('main')
				.getByRole('status')
				.filter({ hasText: `${n} of 18` })
				.waitFor();
		try {
			await page.goto(`${address}/sign-in`);
			await page.getByRole('button', { name: /Ilse Norrby/ }).click();
			await page.waitForURL((url) => url.pathname === '/');
			await page.locator('html[data-ready]').waitFor();
			await shoot('today');
			await go('/hazards');
			const plan = await page
				.getByRole('link', { name: /Emptying the dryer cyclone/ })
				.getAttribute('href');
			await go(plan ?? '');
			await shoot('hazard');
			await go('/hazards');
			const laminating = await page
				.getByRole('link', { name: /Laminating, bay 2/ })
				.getAttribute('href');
			await go(`/filters?plan=${laminating?.split('/').at(-1)}`);
			await page.getByRole('radio').nth(1).check();
			await page.getByLabel('On the mask').fill('HM-0103');
			await shoot('filters');
			await go(`${laminating}/life`);
			await page.waitForTimeout(500);
			await shoot('life');
			await go('/items');
			await shoot('items');
			await go('/counter');
			for (const word of ['W110', 'HM-0120', 'PLAN-2']) {
				await page.keyboard.type(word);
				await page.keyboard.press('Enter');
			}
			await page.getByText('Nearest way that works').waitFor();
			await shoot('counter');
			await go('/wash');
			await shoot('wash');
			await go('/items/HM-0115');
			await shoot('item');
			await go('/items/HM-0101');
			await page.getByRole('button', { name: /^Inspect/ }).click();
			await page.waitForURL(/runs/);
			await page.locator('html[data-ready]').waitFor();
			await page.getByRole('heading', { name: /Pre-filter/ }).waitFor();
			for (const [i, key] of ['3', '3', '1', '1', '1', '1', '1', '1', '1'].entries()) {
				await page.keyboard.press(key);
				await answered(i + 1);
			}
			await page.keyboard.press('2');
			await page.keyboard.press('6');
			await answered(10);
			for (const n of [11, 12]) {
				await page.keyboard.press('1');
				await answered(n);
			}
			await page.getByText('every answer kept').waitFor();
			await shoot('run');
			for (let n = 13; n <= 18; n++) {
				await page.keyboard.press('1');
				await answered(n);
			}
			await page.keyboard.press('Enter');
			await page.getByRole('heading', { name: /Passed/ }).waitFor();
			await go('/people?q=W110');
			await page.locator('tbody a').first().click();
			await page.getByRole('link', { name: 'Fit test', exact: true }).click();
			await page.getByLabel('Badge of whoever stands here').fill('W110');
			await page.getByLabel('Mask that is worn').fill('HM-0108');
			for (const box of await page.getByRole('checkbox').all()) await box.check();
			await page.getByText('Who stands before the simulated counter').click();
			await page.getByLabel('Face').selectOption('leaks on bending');
			await page.getByLabel('Times as fast').fill('100');
			await page.getByRole('button', { name: /^Begin/ }).click();
			await page.getByRole('button', { name: 'Sign: not passed', exact: true }).click();
			await page.getByText('put it on anew').first().waitFor({ timeout: 60_000 });
			await page.waitForTimeout(500);
			await shoot('fit-test');
			await go('/bench');
			await page.getByLabel('Item').fill('GS-0203');
			await page.getByLabel('Recipe').selectOption('suit-en');
			await page.getByLabel('Volume, litres').fill('620');
			await page.getByRole('button', { name: 'Start the hold' }).click();
			await page.getByTestId('verdict').waitFor({ timeout: 60_000 });
			await page.waitForTimeout(500);
			await shoot('bench');
			await go('/faults/learn');
			await shoot('faults');
			await go('/faults');
			await page.getByRole('link', { name: /HM-0114/ }).click();
			await page.getByRole('button', { name: 'Start the repair' }).waitFor();
			await page.getByRole('button', { name: 'Start the repair' }).click();
			await page.getByRole('button', { name: 'Repair done' }).waitFor();
			await go('/air');
			await page.waitForTimeout(500);
			await shoot('air');
			await go('/drill/gallery');
			await page.getByLabel('Find').fill('disc');
			await shoot('drill');
			await go('/air/filling');
			await page.getByText('Simulated panel').click();
			await page.getByLabel('Times as fast').fill('60');
			await page.getByRole('button', { name: 'Set', exact: true }).click();
			await page.getByText('Simulated panel').click();
			await page.getByRole('button', { name: /All good/ }).click();
			for (const bank of [1, 2, 3]) {
				await page.getByRole('button', { name: `Open bank ${bank} Enter` }).click();
				await page.getByText(`Bank ${bank} fills it.`).waitFor();
			}
			await page.waitForTimeout(1500);
			await page.evaluate(() => window.scrollTo(0, 0));
			await shoot('fill-room');
			await go('/air/board');
			const wearers = [
				['Tam Oakes', 'BA-0201', '', '290', 'T1'],
				['Runa Holt', 'BA-0203', '', '288', 'T2'],
				['Sten Arvik', '', '6.8', '128', '']
			];
			await page.getByRole('button', { name: 'Another wearer' }).click();
			await page.getByLabel('They go in for').fill('Tank 4, sludge');
			await page.getByLabel('Place').selectOption({ label: 'Tank-cleaning crew' });
			await page.getByLabel('Out before the warning').fill('8');
			for (const [
				i,
				[name = '', set = '', litres = '', bar = '', channel = '']
			] of wearers.entries()) {
				const row = page.getByRole('listitem', { name: `Wearer ${i + 1}` });
				await row.getByLabel('Wearer').fill(name);
				await row.getByLabel('Set').fill(set);
				await row.getByLabel('Litres').fill(litres);
				await row.getByLabel('Gauge, bar').fill(bar);
				await row.getByLabel('Sends as').fill(channel);
				await row.getByLabel('Seal checked').check();
			}
			await page.getByRole('button', { name: 'They go in now' }).click();
			await page.locator('[data-alarm]').first().waitFor({ timeout: 120_000 });
			await shoot('board');
			await go('/plan');
			await shoot('plan');
			await go('/plan/forecast');
			await page.getByText(/Worked out here in/).waitFor({ timeout: 120_000 });
			await shoot('forecast');
			await page.getByRole('button', { name: 'Sign out' }).click();
			await page.getByRole('button', { name: /Tove Rieveld/ }).click();
			await page.waitForURL((url) => url.pathname === '/');
			await go('/settings/rules');
			await page.getByRole('button', { name: 'New rule' }).click();
			await page.getByLabel('Every', { exact: true }).fill('14');
			await page.getByLabel('At one place').selectOption({ label: 'Fish-meal dryer' });
			await page.getByLabel('Why', { exact: true }).fill('Fish meal gets everywhere');
			await page.getByRole('button', { name: /Look at what/ }).click();
			await page.getByText(/It looks at/).scrollIntoViewIfNeeded();
			await shoot('settings');
		} finally {
			await browser.close();
		}
	})
);
