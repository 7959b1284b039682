import { chromium, type Page } from '@playwright/test';
import { procedureFor } from '../../src/core/data/procedures.ts';
import { chromiumPath } from '../lib/system.mjs';
import type { Client } from './writers.ts';

const STEPS = procedureFor('half-mask').steps;
const PATIENCE_MS = 60_000;

/** Loaded before a page: its storage refuses what is put while it is told to. */
function refuseWhenTold(): void {
	const put = IDBObjectStore.prototype.put;
	const told = globalThis as { storageRefuses?: boolean };
	IDBObjectStore.prototype.put = function (...given) {
		if (told.storageRefuses) throw new DOMException('There is no room.', 'QuotaExceededError');
		return put.apply(this, given);
	};
}

/** A tablet at the bench: an inspection in a real browser, whose storage fails too. */
export async function openDevice({ address, cookie }: Client, tag: string) {
	const browser = await chromium.launch({
		executablePath: chromiumPath(),
		args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--no-first-run']
	});
	const context = await browser.newContext();
	await context.addInitScript(refuseWhenTold);
	await context.addCookies(
		cookie.split('; ').map((pair) => {
			const [name = '', value = ''] = pair.split('=');
			return { name, value, url: address };
		})
	);
	const page = await context.newPage();
	page.setDefaultTimeout(PATIENCE_MS);
	await page.goto(`${address}/items/${tag}`);
	await page.locator('html[data-ready]').waitFor();
	await page
		.getByRole('button', { name: /^Inspect/ })
		.first()
		.click();
	await page.waitForURL(/\/runs\//);
	await page.locator('html[data-ready]').waitFor();
	const run = page.url().split('/').at(-1) ?? '';
	/** Steps as they were answered, in order. */
	const given: string[] = [];
	return {
		run,
		given,
		storage: (refuses: boolean) =>
			page.evaluate((told) => {
				(globalThis as { storageRefuses?: boolean }).storageRefuses = told;
			}, refuses),
		/** @throws with what the page shows, where it shows no step */
		async answer(): Promise<void> {
			try {
				await answerStep(page, given);
			} catch (error) {
				const shown = await page
					.locator('body')
					.innerText()
					.catch(() => 'nothing');
				throw new Error(`${page.url()} shows: ${shown.slice(0, 600)}`, { cause: error });
			}
		},
		/** Waits until nothing is unsent. @returns whether that came */
		async settled(): Promise<boolean> {
			try {
				await page
					.locator('main [role=status]', { hasText: 'every answer kept' })
					.first()
					.waitFor({ timeout: PATIENCE_MS });
				return true;
			} catch {
				return false;
			}
		},
		close: () => browser.close()
	};
}

/** Answers the step where the page stands, or goes to the next. */
async function answerStep(page: Page, given: string[]): Promise<void> {
	const title = (await page.locator('#step').textContent())?.trim();
	const step = STEPS.find((one) => one.title === title)?.key;
	if (step) given.push(step);
	await page.keyboard.press(step ? '1' : 'ArrowRight');
	await page.waitForFunction(
		(before) => document.querySelector('#step')?.textContent?.trim() !== before,
		title
	);
}
