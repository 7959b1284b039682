import { expect, type Locator, type Page } from '@playwright/test';
import type { Served } from './serve';
import postgres from 'postgres';

/** The app that was served for this worker. */
const served = (): Served => {
	const all = JSON.parse(process.env.APPS ?? '[]') as Served[];
	const own = all[Number(process.env.TEST_PARALLEL_INDEX ?? 0)];
	if (!own) throw new Error('No app is served for this worker.');
	return own;
};
export const appUrl = () => served().address;
export const appEnvironment = () => served().env;

/** Something done to the database of the app, such as time that has passed. */
export async function sql<T>(work: (db: postgres.Sql) => Promise<T>): Promise<T> {
	const db = postgres(appEnvironment().DATABASE_URL ?? '', { max: 1, onnotice: () => {} });
	try {
		return await work(db);
	} finally {
		await db.end();
	}
}

/** Waits until the page hears keys. */
export const ready = (page: Page) =>
	expect(page.locator('html')).toHaveAttribute('data-ready', 'true');

/** Focuses an element and presses Enter: no mouse. */
export async function enter(target: Locator): Promise<void> {
	await target.focus();
	await target.press('Enter');
}

/** Signs in as a person of the demo on the sign-in page, by keyboard. */
export async function signInByHand(page: Page, name: string, base = appUrl()): Promise<void> {
	await page.goto(`${base}/sign-in`);
	await enter(page.getByRole('button', { name: new RegExp(name) }));
	await expect(page.getByRole('heading', { level: 1 })).toContainText(/\d{4}/);
	await ready(page);
}

/** Goes in with the session that was made for a person before the tests. */
export async function signInAs(page: Page, name: string, base = appUrl()): Promise<void> {
	const [cookie = '', value = ''] = served().sessions[name]?.split('=') ?? [];
	await page
		.context()
		.addCookies([{ name: cookie, value, url: base, httpOnly: true, sameSite: 'Lax' }]);
	await page.goto(`${base}/`);
	await expect(page.getByRole('heading', { level: 1 })).toContainText(/\d{4}/);
	await ready(page);
}

/** Goes to an item through the scan field. */
export async function scan(page: Page, tag: string): Promise<void> {
	await ready(page);
	await page.keyboard.press('/');
	await page.keyboard.type(tag);
	await page.keyboard.press('Enter');
	await expect(page).toHaveURL(new RegExp(`/items/${tag}$`));
	await ready(page);
}

/** Starts an inspection from the item's page; gives its address. */
export async function beginInspection(page: Page): Promise<string> {
	await enter(page.getByRole('button', { name: /^Inspect/ }));
	await expect(page).toHaveURL(/\/runs\//);
	await ready(page);
	await expect(
		page.getByRole('heading', { level: 2, name: 'Pre-filter and retainer, left' })
	).toBeVisible();
	return page.url();
}

/** Presses keys one by one, waiting for the count of answered steps after each. */
export async function answerSteps(page: Page, keys: string[], from = 0): Promise<void> {
	await ready(page);
	for (const [i, key] of keys.entries()) {
		await page.keyboard.press(key);
		await expect(page.getByRole('main').getByRole('status').first()).toContainText(
			`${from + i + 1} of 18`
		);
	}
}

/** What a clean mask without pre-filters is answered with. */
export const CLEAN = ['3', '3', ...Array.from({ length: 16 }, () => '1')];

/** Types a day into a day field, part by part as by hand; with its time where it is 2026-11-24T08:00:00. */
export async function typeDay(scope: Page | Locator, label: string, day: string): Promise<void> {
	const [year = '', month = '', date = '', hour, minute, second] = day.split(/[-T:]/);
	const field = scope.getByRole('group', { name: label, exact: true });
	for (const [part, digits] of [
		['day', date],
		['month', month],
		['year', year],
		['hour', hour],
		['minute', minute],
		['second', second]
	] as const) {
		if (digits === undefined) continue;
		const segment = field.locator(`[data-segment="${part}"]`);
		await segment.focus();
		await segment.pressSequentially(digits);
	}
}
