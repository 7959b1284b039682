import type { Browser, Page } from '@playwright/test';
import { faultsOf } from './support/axe';
import { appUrl, enter, ready, signInAs, sql } from './support/app';
import { expect, test } from './support/test';

test.use({ serviceWorkers: 'allow' });

/** A team for one task: people, each fitted to a mask of the demo, and what lies ready for them. */
interface Cast {
	plan: number;
	task: string;
	pairs: { number: string; name: string; tag: string; model: string; size: string }[];
}

/** Masks that no other journey speaks of. */
const ours = (tag: string) =>
	(tag >= 'HM-0134' && tag !== 'HM-0151') || (tag >= 'HM-0117' && tag <= 'HM-0123');

/** Finds people and masks that the gate lets through, by asking it as the counter does. */
async function cast(page: Page, most: number): Promise<Cast> {
	const asked = await page.evaluate(async () => {
		const kept = (await (await fetch('/api/counter/kept')).json()) as {
			plans: { id: string; number: number; task: string }[];
			people: {
				id: string;
				number: string;
				name: string;
				gate: { fitTests: { model: string; size: string; passed: boolean }[] };
			}[];
			items: { tag: string; family: string; model: string; size: string }[];
		};
		return kept;
	});
	const plan = asked.plans.find(({ task }) => task === 'Sanding hull boards');
	const pairs: Cast['pairs'] = [];
	const used = new Set<string>();
	const masks = asked.items.filter(({ tag, family }) => family === 'half-mask' && ours(tag));
	for (const mask of masks) {
		if (pairs.length === most) break;
		const says = await page.evaluate(
			async ({ people, tag, planId }) => {
				const actor = document.querySelector<HTMLElement>('[data-person]')?.dataset.person ?? '';
				for (const { id, number, name } of people) {
					const answer = await fetch('/api/counter/gate', {
						method: 'POST',
						headers: { 'content-type': 'application/json', 'x-grevan-person': actor },
						body: JSON.stringify({ wearerId: id, tags: [tag], planId, minutes: 30 })
					});
					const { outcome } = (await answer.json()) as { outcome?: string };
					if (outcome && outcome !== 'do not') return { number, name };
				}
				return null;
			},
			{
				people: asked.people.filter(
					({ number, gate }) =>
						!used.has(number) &&
						gate.fitTests.some(
							({ model, size, passed }) => passed && model === mask.model && size === mask.size
						)
				),
				tag: mask.tag,
				planId: plan?.id ?? ''
			}
		);
		if (!says) continue;
		used.add(says.number);
		pairs.push({ ...says, ...mask });
	}
	return { plan: plan?.number ?? 0, task: plan?.task ?? '', pairs };
}

/** How often each tag was scanned. */
const scanned = new Map<string, number>();
const count = (word: string) => scanned.set(word, (scanned.get(word) ?? 0) + 1);

const field = (page: Page) => page.getByRole('main').getByRole('textbox').first();
async function scans(page: Page, ...words: string[]): Promise<void> {
	await field(page).focus();
	for (const word of words) {
		count(word);
		await page.keyboard.type(word);
		await page.keyboard.press('Enter');
	}
}
const open = async (page: Page, path: string) => {
	await page.goto(appUrl() + path);
	await ready(page);
};

/** As on a quiet morning: the plan is not questioned, and what was left about lies on its shelf. */
const quietMorning = () =>
	sql(async (db) => {
		await db`update plan_flag set cleared_at = now(), cleared_why = 'Looked into.',
			cleared_by = (select id from "user" where name = 'Tove Rieveld')
			where cleared_at is null and plan_id = (select id from hazard_plan where task = 'Sanding hull boards')`;
		await db`with ended as (update custody set until = greatest(now(), since)
			where until is null and where_it_is in ('issued', 'returned', 'wash', 'drying') returning item_id, until)
			insert into custody (item_id, where_it_is, place_id, since)
			select e.item_id, 'shelf', i.place_id, e.until from ended e join item i on i.id = e.item_id`;
		await db`update item_state set blocked = null where blocked in ('issued', 'in wash')`;
	});
const whereIs = (tag: string) =>
	sql(
		async (db) =>
			(
				await db<{ at: string }[]>`select c.where_it_is as at from custody c
				join item i on i.id = c.item_id where i.tag = ${tag} and c.until is null`
			)[0]?.at
	);

// What other journeys find is as it was.
test.afterEach(quietMorning);

test('a shift at the counter by scanner alone: out, refused and solved, back, washed, ready again', async ({
	page
}) => {
	test.setTimeout(600_000);
	await signInAs(page, 'Ilse Norrby');
	await quietMorning();
	const { plan, pairs } = await cast(page, 8);
	expect(pairs.length).toBe(8);
	await open(page, '/counter');
	for (const { number, name, tag } of pairs) {
		// Three scans, and Enter only where something is to be met first.
		await scans(page, number, tag, `PLAN-${plan}`, '30m');
		const given = page.getByRole('status').filter({ hasText: 'Handed out' });
		const asks = page.getByRole('button', { name: /hand out Enter/i });
		await expect(given.or(asks)).toBeVisible();
		if (await asks.isVisible()) await scans(page, '');
		await expect(given).toContainText(name);
		expect(await whereIs(tag)).toBe('issued');
	}
	expect(await faultsOf(page)).toEqual([]);
	// A lapsed fit test: every reason at once, and another that works by one press.
	const lapsed = await sql(
		(db) => db<{ tag: string }[]>`select i.tag from fit_test f join wearer w on w.id = f.wearer_id
			join item i on i.model_id = f.model_id and i.size = f.size join item_state s on s.item_id = i.id
			where w.number = 'W128' and f.passed and i.family = 'half-mask' and s.blocked is null
			and i.set_id is null and s.due_on >= current_date order by i.tag desc limit 1`
	);
	await scans(page, 'W128', lapsed[0]?.tag ?? '', `PLAN-${plan}`);
	await expect(page.getByText('Do not hand out')).toBeVisible();
	await expect(
		page
			.getByRole('listitem')
			.filter({ hasText: /fit test/i })
			.first()
	).toBeVisible();
	await expect(page.getByText('Nearest way that works')).toBeVisible();
	await scans(page, 'GV-YES');
	await expect(page.getByText('Do not hand out')).toHaveCount(0);
	const put = page.getByRole('status').filter({ hasText: 'Handed out' });
	const asks = page.getByRole('button', { name: /hand out Enter/i });
	await expect(put.or(asks)).toBeVisible();
	if (await asks.isVisible()) await scans(page, '');
	await expect(put).toBeVisible();
	// All of it comes back, one smelt something, one is torn: no mouse.
	scanned.clear();
	await open(page, '/counter/return');
	const [first, second, ...rest] = pairs.map(({ tag }) => tag);
	await scans(page, first ?? '', '1m', '1', second ?? '', 'GV-TORN', ...rest, '');
	await expect(
		page.getByText('The plan is in question until a supervisor has looked.')
	).toBeVisible();
	await expect(page.getByText(/Fault written down: torn/)).toBeVisible();
	for (const tag of rest) await expect.poll(() => whereIs(tag)).toBe('returned');
	expect(await faultsOf(page)).toEqual([]);
	// Into a bath that is too hot, and what is done about it.
	await open(page, '/wash');
	expect(await faultsOf(page)).toEqual([]);
	await enter(page.getByRole('button', { name: 'Begin a batch' }));
	await expect(page).toHaveURL(/\/wash\/[0-9a-f-]{36}$/);
	await ready(page);
	const clean = rest.slice(0, 2);
	await page.getByLabel(/Scan into the bath/).focus();
	for (const tag of [...clean, 'BA-0201']) {
		count(tag);
		await page.keyboard.type(tag);
		await page.keyboard.press('Enter');
	}
	await expect(page.getByText(/BA-0201 is never immersed: it is wiped/)).toBeVisible();
	await expect(page.getByRole('heading', { name: 'In it, 2' })).toBeVisible();
	await enter(page.getByRole('button', { name: /All in: the bath is filled/ }));
	await page.getByText('Simulated bath').click();
	await page.getByLabel('Fill it anew, °C').fill('47');
	const filled = page.waitForResponse(
		(answer) => answer.request().method() === 'POST' && answer.url().includes('/wash/')
	);
	await enter(page.getByRole('button', { name: 'Fill', exact: true }));
	expect((await filled).ok()).toBe(true);
	await enter(page.getByRole('button', { name: 'Read the thermometer' }));
	await expect(page.getByText(/Too hot: discs may have warped/)).toBeVisible();
	await enter(page.getByRole('button', { name: /It is in: 2 min from now/ }));
	await expect(page.getByRole('timer')).toBeVisible();
	await expect(page.getByRole('list', { name: 'Running timers' })).toContainText('batch');
	// Also as it comes, before the page counts by itself.
	const html = await (await page.request.get(`${appUrl()}/items`)).text();
	const [, left = ''] =
		/batch \d+<\/span>[\s\S]{0,60}?<span class="font-mono">(\d+):\d\d</.exec(html) ?? [];
	expect(Number(left || NaN)).toBeLessThan(60);
	const told = Number(/serverNow:(\d+)/.exec(html)?.[1]);
	expect(Math.abs(told - Date.now())).toBeLessThan(120_000);
	expect(await faultsOf(page)).toEqual([]);
	// Two minutes that have passed.
	await sql(
		(db) => db`update wash_batch set dosed_at = dosed_at - interval '3 minutes',
		washed_at = washed_at - interval '3 minutes' where ended_at is null`
	);
	await page.reload();
	await ready(page);
	await enter(page.getByRole('button', { name: 'Out of it: rinse' }));
	await enter(page.getByRole('button', { name: 'Laid out to dry' }));
	await enter(page.getByRole('button', { name: 'Dry: end the batch' }));
	await expect(page.getByText('A limit was broken')).toBeVisible();
	await enter(page.getByRole('button', { name: 'Each goes on to the look, its discs first.' }));
	await enter(page.getByRole('link', { name: 'Look them over' }));
	await expect(page).toHaveURL(/\/wash\/look$/);
	await ready(page);
	expect(await faultsOf(page)).toEqual([]);
	for (const tag of clean) {
		await scans(page, tag);
		await expect(page.getByText('Edge whole, soft and clean')).toBeVisible();
		await scans(page, tag);
		await expect(page.getByText('Edge whole, soft and clean')).toHaveCount(0);
		expect(await whereIs(tag)).toBe('shelf');
	}
	// From its return to its shelf: back, into the bath, and twice at the look.
	for (const tag of clean) expect(scanned.get(tag)).toBeLessThanOrEqual(6);
	await page.goto(`${appUrl()}/items/${clean[0]}`);
	await expect(page.getByText(/Last full wash/)).toBeVisible();
});

test('a return on a phone, by touch', async ({ browser }) => {
	const phone = await pageOf(browser, { width: 390, height: 844 });
	await signInAs(phone, 'Ilse Norrby');
	await quietMorning();
	const { plan, pairs } = await cast(phone, 1);
	expect(pairs).toHaveLength(1);
	const [one] = pairs;
	await open(phone, '/counter');
	for (const word of [one?.number, one?.tag, `PLAN-${plan}`]) {
		await field(phone).fill(word ?? '');
		await phone.keyboard.press('Enter');
	}
	const asks = phone.getByRole('button', { name: /hand out Enter/i });
	const given = phone.getByRole('status').filter({ hasText: 'Handed out' });
	await expect(given.or(asks)).toBeVisible();
	if (await asks.isVisible()) await asks.tap();
	await expect(given).toBeVisible();
	await open(phone, '/counter/return');
	await field(phone).fill(one?.tag ?? '');
	await phone.keyboard.press('Enter');
	await phone.getByRole('button', { name: /Hard to breathe/ }).tap();
	await phone.getByRole('button', { name: /Put it down/ }).tap();
	await expect(phone.getByText('Its filters go now: taken out of use.')).toBeVisible();
	expect(await faultsOf(phone)).toEqual([]);
	// What was never handed out is asked about, and set right.
	await field(phone).fill('HM-0126');
	await phone.keyboard.press('Enter');
	await phone.keyboard.press('Enter');
	await expect(phone.getByText(/never handed out on record/)).toBeVisible();
	await phone.getByRole('button', { name: 'went out without a scan' }).tap();
	await expect(phone.getByRole('link', { name: 'HM-0126' }).first()).toBeVisible();
	await phone.close();
});

const pageOf = async (browser: Browser, viewport: { width: number; height: number }) =>
	(await browser.newContext({ viewport, hasTouch: true })).newPage();

test('two counters race for one mask: one has it, the other is told and asked', async ({
	browser,
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await quietMorning();
	const { plan, pairs } = await cast(page, 2);
	expect(pairs).toHaveLength(2);
	const [one, two] = pairs;
	const other = await pageOf(browser, { width: 1280, height: 800 });
	await signInAs(other, 'Odd Kessmer');
	for (const at of [page, other]) await open(at, '/counter');
	// The same mask to two people: both have everything but the last scan.
	await scans(page, one?.number ?? '', one?.tag ?? '');
	await scans(other, two?.number ?? '', one?.tag ?? '');
	await Promise.all([scans(page, `PLAN-${plan}`), scans(other, `PLAN-${plan}`)]);
	for (const at of [page, other]) {
		const asks = at.getByRole('button', { name: /hand out Enter/i });
		const end = at
			.getByRole('status')
			.filter({ hasText: /Handed out|Do not hand out/ })
			.or(at.getByText('How is it?'));
		await expect(end.or(asks).first()).toBeVisible();
		if (await asks.isVisible()) await scans(at, '');
		await expect(end.first()).toBeVisible();
	}
	const rows = await sql(
		(db) => db<
			{ n: number }[]
		>`select count(*)::int as n from custody c join item i on i.id = c.item_id
			where i.tag = ${one?.tag ?? ''} and c.until is null`
	);
	expect(rows[0]?.n).toBe(1);
	expect(await whereIs(one?.tag ?? '')).toBe('issued');
	await other.close();
});

test('a team is kitted out at once, and goes to the entry board with its sets', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await quietMorning();
	const { plan, pairs } = await cast(page, 3);
	expect(pairs).toHaveLength(3);
	await open(page, '/counter/team');
	await scans(page, ...pairs.map(({ number }) => number), `PLAN-${plan}`);
	await expect(page.getByText('All 3 are served.')).toBeVisible();
	expect(await faultsOf(page)).toEqual([]);
	await enter(page.getByRole('button', { name: 'Hand out all 3' }));
	await expect(page.getByText('Handed out:')).toBeVisible();
	const handed = page.locator('p', { hasText: 'Handed out:' });
	for (const { name } of pairs) await expect(handed).toContainText(name);
});

test('without a connection forty returns go on and are settled when it is back', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await quietMorning();
	await open(page, '/counter/return');
	const tags = (
		await sql(
			(db) => db<{ tag: string }[]>`select i.tag from item i join custody c on c.item_id = i.id
			where i.family = 'half-mask' and c.until is null and c.where_it_is = 'shelf' and i.retired_on is null
			and i.tag > 'HM-0133' and i.tag <> 'HM-0151' order by i.tag limit 12`
		)
	).map(({ tag }) => tag);
	await scans(page, ...tags.slice(0, 4));
	await page.context().setOffline(true);
	await scans(page, ...tags.slice(4), '');
	await expect(page.getByText('waits on this device for the connection').first()).toBeVisible();
	await page.context().setOffline(false);
	for (const tag of tags.slice(4)) await expect.poll(() => whereIs(tag)).toBe('returned');
});

test('without a connection a reloaded counter answers by what the device knew, and the record asks again', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	await quietMorning();
	const { plan, pairs } = await cast(page, 1);
	expect(pairs).toHaveLength(1);
	const [one] = pairs;
	// The worker of the page has to have seen it once.
	await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
	await open(page, '/counter');
	await page.evaluate(() => fetch('/api/counter/kept').then((answer) => answer.text()));
	await open(page, '/counter');
	await page.context().setOffline(true);
	await page.reload();
	await ready(page);
	await scans(page, one?.number ?? '', one?.tag ?? '', `PLAN-${plan}`);
	await expect(page.getByText('By what this device knew.', { exact: false })).toBeVisible();
	expect(await whereIs(one?.tag ?? '')).toBe('shelf');
	await scans(page, '');
	await expect(page.getByText('Given out, kept on this device')).toBeVisible();
	await page.context().setOffline(false);
	await expect.poll(() => whereIs(one?.tag ?? '')).toBe('issued');
	const [kept] = await sql(
		(db) => db<{ offline: boolean }[]>`select h.offline from hand_out h
			join custody c on c.hand_out_id = h.id join item i on i.id = c.item_id
			where i.tag = ${one?.tag ?? ''} and c.until is null`
	);
	expect(kept?.offline).toBe(true);
});
