import { enter, ready, scan } from './app';
import { expect, type Page } from './test';

/** Walks the inspection of a set by one school; counts the keys that are pressed beside its readings. */
export function walker(page: Page) {
	const title = page.locator('#step');
	const walk = {
		presses: 0,
		title,
		async press(key: string) {
			await page.keyboard.press(key);
			walk.presses++;
		},
		/** Begins an inspection; gives its address. */
		async begin(tag: string, school: RegExp) {
			await scan(page, tag);
			await enter(page.getByRole('button', { name: school }));
			await expect(page).toHaveURL(/\/runs\//);
			await ready(page);
			return page.url();
		},
		/** Answers plain steps until one wants a reading. */
		async to(wanted: RegExp) {
			for (let i = 0; i < 20; i++) {
				const at = (await title.textContent()) ?? '';
				if (wanted.test(at)) return;
				await walk.press(/T-piece|Second-wearer/.test(at) ? '3' : '1');
				await expect(title).not.toHaveText(at);
			}
		},
		/** Types a reading, sees what it comes to, takes it. */
		async read(label: RegExp | string, value: string, judged: RegExp) {
			await page.getByLabel(label).fill(value);
			await expect(page.getByText(judged)).toBeVisible();
			await page.keyboard.press('Enter');
		},
		async startHold(bar: string) {
			await walk.to(/Hold for a minute/);
			await page.getByLabel(/before the hold/).fill(bar);
			await page.keyboard.press('Enter');
			await expect(page.getByText(`Hold, started at ${bar} bar`)).toBeVisible();
		},
		/** Goes back to an inspection whose hold runs, and reads the end when the server lets it. */
		async endHold(run: string, bar: string, judged: RegExp) {
			await page.goto(run);
			await ready(page);
			await expect(page.getByLabel(/after 60 s/)).toBeVisible({ timeout: 120_000 });
			await walk.read(/after 60 s/, bar, judged);
		}
	};
	return walk;
}
