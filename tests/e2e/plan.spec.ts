import ICAL from 'ical.js';
import type { Locator } from '@playwright/test';
import { faultsOf } from './support/axe';
import { appUrl, enter, ready, signInAs, sql } from './support/app';
import { expect, type Page, test } from './support/test';

const open = async (page: Page, path: string) => {
	await page.goto(appUrl() + path);
	await ready(page);
};
const job = (page: Page, key: string): Locator => page.locator(`[data-plan-job="${key}"]`);
const dayOf = (key: string) =>
	sql(
		async (db) =>
			(
				await db<{ day: string }[]>`select day::text as day from planned_job where job_key = ${key}`
			)[0]?.day
	);
/** A job of an item that has days on both sides of its own, and its slot is opened. */
async function openRoomy(page: Page): Promise<string> {
	const [row] = await sql(
		(db) => db<{ key: string; day: string; name: string }[]>`
			select j.job_key as key, j.day::text as day, u.name from planned_job j join "user" u on u.id = j.user_id
			where j.item_id is not null and j.job ->> 'what' = 'inspection'
				and (j.job ->> 'latest')::date - j.day >= 4 and j.day - (j.job ->> 'earliest')::date >= 0
				and j.job_key not in (select job_key from plan_pin) and (j.job ->> 'again')::int = 0
			order by j.day, j.job_key limit 1`
	);
	const date = new Date(`${row?.day}T00:00:00`).toLocaleDateString('en-GB', {
		weekday: 'short',
		day: 'numeric',
		month: 'short'
	});
	await page.getByRole('button', { name: `${row?.name}, ${date.replace(',', '')}:` }).click();
	await expect(job(page, row?.key ?? '')).toBeVisible();
	return row?.key ?? '';
}

test('the work is levelled anew, a job is moved by key, pinned and freed; the plan says why', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await open(page, '/plan');
	await enter(page.getByRole('button', { name: 'Level anew' }));
	const force = page.getByRole('button', { name: 'Put in force' });
	await expect(force).toBeVisible();
	await expect(page.getByText(/New plan: highest day/)).toBeVisible();
	await enter(force);
	await expect(page.getByText('In force.', { exact: true })).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);

	const key = await openRoomy(page);
	const before = await dayOf(key);
	await enter(job(page, key));
	await expect(page.getByRole('note', { name: 'Because' })).toContainText(/From .* to |Only /);
	await job(page, key).press('ArrowRight');
	await expect(page.getByText(/is pinned to \d/)).toBeVisible();
	const after = await dayOf(key);
	expect((after ?? '') > (before ?? '')).toBe(true);
	await expect(job(page, key)).toBeFocused();
	await job(page, key).press('p');
	await expect(page.getByText(/may move again/)).toBeVisible();

	// What another put in force meanwhile is not written over.
	await sql(
		(
			db
		) => db`insert into work_plan select gen_random_uuid(), number + 1, starts_on, ends_on, way, jobs,
			peak_min, bound_min, figures, relaxed, changes, made_by, now() from work_plan order by number desc limit 1`
	);
	await job(page, key).press('p');
	await expect(page.getByText(/The plan was changed meanwhile/)).toBeVisible();
});

test('a job is dragged to another day; a day that is barred says what it costs, and is barred nevertheless', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	// Both the list and the weeks are in sight, as on a screen at the bench.
	await page.setViewportSize({ width: 1280, height: 1700 });
	await open(page, '/plan');
	const key = await openRoomy(page);
	const before = await dayOf(key);
	const own = page.locator('[data-slot][aria-pressed="true"]');
	const slot = Number(await own.getAttribute('data-slot'));
	const target = page.locator(`[data-slot="${slot + 1}"]`);
	const words = job(page, key).locator('span').nth(1);
	const [from, to] = [await words.boundingBox(), await target.boundingBox()];
	if (!from || !to) throw new Error('Nothing to drag.');
	await page.mouse.move(from.x + 10, from.y + from.height / 2);
	await page.mouse.down();
	await page.mouse.move(from.x, from.y + 40, { steps: 8 });
	await page.mouse.move(to.x + to.width / 2, to.y + to.height / 2, { steps: 20 });
	await expect(target).toHaveClass(/bg-tint/);
	await page.mouse.up();
	await expect(page.getByText(/is pinned to \d/)).toBeVisible();
	await expect.poll(() => dayOf(key)).not.toBe(before);
	const now = await dayOf(key);

	await job(page, key).press('b');
	await expect(page.getByText(/would find no day\. What would help: /)).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	expect(await dayOf(key)).toBe(now);
	await enter(page.getByRole('button', { name: 'Do it nevertheless' }));
	await expect(page.getByText(/is barred for /)).toBeVisible();
	await expect(page.getByRole('region', { name: 'Jobs without a day' })).toBeVisible();
	expect(await dayOf(key)).toBeUndefined();
	// As it was.
	await enter(page.getByRole('button', { name: 'Open this day again' }));
	await expect(page.getByText(/is open again for /)).toBeVisible();
	expect(await dayOf(key)).toBe(now);
});

test('a calendar is read by another program until it is revoked', async ({ page }) => {
	await signInAs(page, 'Ilse Norrby');
	await open(page, '/plan/hours');
	await page.getByLabel('Whose').selectOption({ label: 'Ilse Norrby' });
	await enter(page.getByRole('button', { name: 'Make a calendar' }));
	const address = await page.getByRole('status').filter({ hasText: '/calendar/' }).innerText();
	expect(await faultsOf(page)).toEqual([]);
	const path = new URL(address).pathname;
	const read = () => fetch(appUrl() + path);
	const answer = await read();
	expect(answer.headers.get('content-type')).toContain('text/calendar');
	const calendar = new ICAL.Component(ICAL.parse(await answer.text()) as unknown[]);
	const planned = await sql(
		(db) => db<
			{ n: number }[]
		>`select count(*)::int as n from planned_job j join "user" u on u.id = j.user_id
			where u.name = 'Ilse Norrby'`
	);
	expect(calendar.getAllSubcomponents('vevent')).toHaveLength(planned[0]?.n ?? -1);
	await enter(page.getByRole('button', { name: /^Revoke the calendar of Ilse Norrby/ }).last());
	await expect(page.getByText('No calendar is read by anybody.')).toBeVisible();
	const gone = await read();
	expect(gone.status).toBe(404);
	expect(gone.headers.get('retry-after')).toBe('86400');
});

test('a forecast is lived through, and a task more shows before and after', async ({ page }) => {
	await signInAs(page, 'Tove Rieveld');
	await open(page, '/plan/forecast');
	await expect(page.getByText(/Worked out here in/)).toBeVisible({ timeout: 120_000 });
	expect(await faultsOf(page)).toEqual([]);
	await page.getByLabel('Of what, where').selectOption({ label: 'half masks, Water works' });
	await page.getByLabel('More used in a day').fill('5');
	await enter(page.getByRole('button', { name: 'Before and after' }));
	await expect(page.getByText(/If a task uses more: highest day/)).toBeVisible({
		timeout: 120_000
	});
	const row = page
		.getByRole('listitem')
		.filter({ hasText: 'Water works' })
		.filter({ hasText: 'Half masks' });
	await expect(row).toContainText('→');
	// The page answers while it is worked out.
	await page.getByLabel('What changes').selectOption({ label: 'somebody is away' });
	await enter(page.getByRole('button', { name: 'Before and after' }));
	await page.getByLabel('Who', { exact: true }).selectOption({ label: 'Odd Kessmer' });
	await expect(page.getByLabel('Who', { exact: true })).toHaveValue(/odd/);
	await expect(page.getByText(/If somebody is away: highest day/)).toBeVisible({
		timeout: 120_000
	});
});

test('my day on a phone, and Today in the order of the plan', async ({ browser }) => {
	const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
	const phone = await context.newPage();
	await signInAs(phone, 'Odd Kessmer');
	await open(phone, '/plan/day');
	await expect(phone.getByRole('heading', { level: 1 })).toContainText('Odd Kessmer');
	await expect(phone.getByText(/\d+ jobs, .* to do/)).toBeVisible();
	expect(await faultsOf(phone)).toEqual([]);
	await open(phone, '/');
	// What others left held comes first, and may fill what is shown: the lines behind are in the page as well.
	const today = await (await phone.request.get(`${appUrl()}/`)).text();
	expect(today).toMatch(/Planned for /);
	await context.close();
});
