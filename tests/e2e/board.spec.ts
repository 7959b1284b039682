import { faultsOf } from './support/axe';
import { appUrl, ready, signInAs, sql } from './support/app';
import { expect, type Page, test } from './support/test';

/** Lets minutes pass for everybody who is in: the start and every reading lie further back. */
async function pass(minutes: number): Promise<void> {
	await sql(
		(db) => db`update entry_wearer set started_at = started_at - ${minutes} * interval '1 minute'
			where ended_at is null`
	);
}

const wearer = (page: Page, name: string) => page.getByRole('listitem', { name, exact: true });

async function openBoard(page: Page): Promise<void> {
	await signInAs(page, 'Ilse Norrby');
	await page.goto(`${appUrl()}/air/board`);
	await ready(page);
}

/** Minutes of a countdown such as 12:40; what is past counts as none. */
async function minutes(page: Page, name: string, what: string): Promise<number> {
	const row = wearer(page, name).getByText(what, { exact: true }).locator('xpath=following::dd[1]');
	const text = (await row.textContent()) ?? '';
	return text.includes('past') ? 0 : Number(text.split(':')[0]);
}

async function enter(page: Page, wearers: [name: string, litres: string, bar: string][]) {
	const form = page.getByRole('button', { name: 'They go in now' });
	if (!(await form.isVisible())) await page.getByText('Send a team in', { exact: true }).click();
	await page.getByLabel('They go in for').fill('Tank 4, sludge');
	for (const [i, [name, litres, bar]] of wearers.entries()) {
		const row = page.getByRole('listitem', { name: `Wearer ${i + 1}` });
		await row.getByLabel('Wearer').fill(name);
		await row.getByLabel('Litres').fill(litres);
		await row.getByLabel('Gauge, bar').fill(bar);
		await row.getByLabel('Seal checked').check();
	}
	await form.click();
}

const tell = async (page: Page, name: string, bar: string) => {
	await wearer(page, name).getByLabel('Gauge, bar').fill(bar);
	await wearer(page, name).getByRole('button', { name: 'Told' }).click();
};

test('a team enters, one breathes hard, the turn-back moves, they leave, consumption is kept', async ({
	page,
	context
}) => {
	test.setTimeout(120_000);
	await openBoard(page);
	await enter(page, [
		['Ada Bren', '6.8', '80'],
		['Bo Lind', '6.8', '4200 psi']
	]);
	await expect(page.getByRole('listitem', { name: 'Wearer 1' }).getByRole('alert')).toContainText(
		'leaves nothing above the warning'
	);
	await page.getByRole('listitem', { name: 'Wearer 1' }).getByLabel('Gauge, bar').fill('296');
	await page.getByRole('button', { name: 'They go in now' }).click();
	await expect(wearer(page, 'Ada Bren')).toBeVisible();
	await expect(wearer(page, 'Bo Lind')).toContainText('290 as it went in');

	const second = await context.newPage();
	await second.goto(`${appUrl()}/air/board`);
	await ready(second);
	await expect(wearer(second, 'Bo Lind')).toBeVisible();

	// Whoever watches is at work: with a team in, a board that nobody touches does not sign out.
	const [watching] = await sql(
		(db) => db<{ id: string }[]>`update session set seen_at = now() - interval '2 hours'
			where user_id = 'demo-ilse' and seen_at = (select max(seen_at) from session where user_id = 'demo-ilse')
			returning id`
	);
	const late = async () => {
		const [row] = await sql(
			(db) => db<{ late: boolean }[]>`select seen_at < now() - interval '1 hour' as late
				from session where id = ${watching?.id ?? ''}`
		);
		return row?.late;
	};
	await expect.poll(late, { timeout: 60_000 }).toBe(false);

	await pass(5);
	await tell(page, 'Ada Bren', '272');
	await expect(wearer(page, 'Ada Bren')).toContainText('measured');
	const before = await minutes(page, 'Bo Lind', 'Be out in');
	await tell(page, 'Bo Lind', '205');
	await expect(wearer(page, 'Bo Lind')).toContainText('measured');
	expect(await minutes(page, 'Bo Lind', 'Be out in')).toBeLessThan(before - 4);
	expect(await minutes(page, 'Ada Bren', 'Turn in')).toBeGreaterThan(
		await minutes(page, 'Bo Lind', 'Turn in')
	);
	// The one who breathes hard governs the team, on every screen, with a shape and a word.
	for (const screen of [page, second]) {
		await expect(screen.getByText(/Bo Lind first/)).toBeVisible();
		await expect(screen.locator('[data-alarm="turn back"]')).toContainText('Bo Lind: Turn back');
	}
	expect(await faultsOf(page)).toEqual([]);
	await page.locator('[data-alarm="turn back"]').getByRole('button', { name: 'Seen' }).click();
	await expect(second.locator('[data-alarm="turn back"]')).toHaveCount(0);
	await page.getByRole('button', { name: 'The team has turned' }).click();
	await expect(second.getByText(/^turned \d\d:/)).toBeVisible();

	// It survives a reload; a pressure that rises is asked for again.
	await page.reload();
	await ready(page);
	await tell(page, 'Bo Lind', '280');
	await expect(wearer(page, 'Bo Lind').getByRole('alert')).toContainText('205 bar was the last');
	await tell(page, 'Bo Lind', '198');
	await expect(wearer(page, 'Bo Lind')).toContainText('198 told');

	await pass(7);
	for (const [name, bar] of [
		['Ada Bren', '220'],
		['Bo Lind', '96']
	] as const) {
		await wearer(page, name).getByLabel('Gauge, bar').fill(bar);
		await wearer(page, name).getByRole('button', { name: 'Out' }).click();
		if (name === 'Ada Bren')
			await expect(wearer(second, name)).toContainText(/Out \d\d:\d\d with 220 bar/);
	}
	await expect(second.getByText('Nobody is in.')).toBeVisible();
	await page.getByRole('link', { name: 'Entries kept' }).click();
	const kept = page.getByRole('row', { name: /Bo Lind/ });
	await expect(kept).toContainText('Bo Lind');
	// 290 → 96 bar of 6.8 L in 12 minutes; the litres are those of the core's own check values.
	expect(Number(await kept.getByRole('cell').nth(2).textContent())).toBeGreaterThan(85);
	await page.goto(`${appUrl()}/air/board`);
	await ready(page);
	await page.getByRole('listitem', { name: 'Wearer 1' }).getByLabel('Wearer').fill('Bo Lind');
	await expect(page.getByRole('listitem', { name: 'Wearer 1' })).toContainText(
		'in 1 use, planned with'
	);
});

test('telemetry is shown as it comes, and said to be lost when it is', async ({ page }) => {
	test.setTimeout(120_000);
	await openBoard(page);
	await page.getByRole('listitem', { name: 'Wearer 1' }).getByLabel('Sends as').fill('T7');
	await enter(page, [['Cleo Dahl', '6.8', '300']]);
	await expect(wearer(page, 'Cleo Dahl')).toContainText(/\d+ sent \d\d:/, { timeout: 30_000 });
	await page.getByText('Simulated wearers').click();
	await page.getByRole('combobox', { name: 'Telemetry' }).selectOption('lost');
	await page.getByRole('button', { name: 'Set', exact: true }).click();
	await expect(page.locator('[data-alarm="telemetry lost"]')).toContainText('ask for the gauge', {
		timeout: 60_000
	});
	await wearer(page, 'Cleo Dahl').getByLabel('Gauge, bar').fill('285');
	await wearer(page, 'Cleo Dahl').getByRole('button', { name: 'Out' }).click();
	await expect(page.getByText('Nobody is in.')).toBeVisible();
});
