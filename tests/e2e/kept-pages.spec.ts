import type { Browser, Page } from '@playwright/test';
import { appUrl, ready, signInAs, sql } from './support/app';
import { expect, test } from './support/test';

const ID = /[\da-f]{8}-[\da-f]{4}-4[\da-f]{3}-[89ab][\da-f]{3}-[\da-f]{12}/g;
/** The ids that the forms of a page would send. */
const idsOf = (html: string) =>
	[...html.matchAll(/<input[^>]*type="hidden"[^>]*>/g)].flatMap(([field]) => field.match(ID) ?? []);

/** A page of the app as it comes, before any of its own script has run. */
async function fetched(page: Page, path: string) {
	const answer = await page.request.get(`${appUrl()}${path}`, { maxRedirects: 0 });
	return { status: answer.status(), headers: answer.headers(), html: await answer.text() };
}

async function inAs(browser: Browser, name: string): Promise<Page> {
	const context = await browser.newContext();
	const page = await context.newPage();
	await signInAs(page, name);
	return page;
}

test('what two of a role see alike is made once, and each gets it under their own name, with ids and a nonce of its own', async ({
	browser
}) => {
	const [ilse, odd] = await Promise.all([
		inAs(browser, 'Ilse Norrby'),
		inAs(browser, 'Odd Kessmer')
	]);
	const paths = ['/', '/items', '/items/HM-0140', '/items/HM-0140/history', '/counter'];
	for (const path of [...paths, '/hazards', '/filters', '/filters/opened', '/faults', '/people']) {
		const answers = [
			await fetched(ilse, path),
			await fetched(odd, path),
			await fetched(ilse, path)
		];
		const [first, , again] = answers.map(({ html }) => html);
		for (const { status, headers, html } of answers) {
			expect(status, path).toBe(200);
			expect(headers['cache-control']).toBe('private, no-store');
			const nonces = [...html.matchAll(/<script[^>]*nonce="([^"]+)"/g)].map(([, nonce]) => nonce);
			expect(nonces.length, path).toBeGreaterThan(0);
			for (const nonce of nonces)
				expect(headers['content-security-policy'], path).toContain(`'nonce-${nonce}'`);
		}
		const policies = answers.map(({ headers }) => headers['content-security-policy']);
		expect(new Set(policies).size, path).toBe(3);

		expect(answers.map(({ headers }) => headers['x-grevan-person'])).toEqual([
			...['demo-ilse', 'demo-odd'],
			'demo-ilse'
		]);
		const whose = answers.map(({ html }) => [
			/data-person="([^"]*)"/.exec(html)?.[1],
			/<a class="who[^>]*><b[^>]*>([^<]*)</.exec(html)?.[1],
			/actor:\{id:"([^"]*)"/.exec(html)?.[1]
		]);
		const [mine, others] = [
			['demo-ilse', 'Ilse Norrby', 'demo-ilse'],
			['demo-odd', 'Odd Kessmer', 'demo-odd']
		];
		expect(whose, path).toEqual([mine, others, mine]);

		const ids = answers.map(({ html }) => idsOf(html));
		expect(ids[1], path).toHaveLength(ids[0]?.length ?? -1);
		const all = ids.flat();
		expect(new Set(all).size, path).toBe(new Set(ids[0]).size * 3);
		// Nothing else is of one answer alone.
		const common = (html = '') =>
			html
				.replace(/nonce="[^"]+"/g, '')
				.replace(/serverNow:\d+/g, '')
				.replace(ID, '');
		expect(common(first), path).toBe(common(again));
	}
	for (const page of [ilse, odd]) await page.context().close();
});

test('a name of any signs is told as it is, and is no part of the page', async ({ browser }) => {
	const name = `O"Dd <i>\u2028</script>'&$&`;
	const page = await inAs(browser, 'Odd Kessmer');
	const troubles: string[] = [];
	page.on('pageerror', (error) => troubles.push(String(error)));
	page.on('console', (message) => {
		if (/hydration|Refused|Content Security/i.test(message.text())) troubles.push(message.text());
	});
	const [was] = await sql(
		(db) => db<{ name: string }[]>`select name from "user" where id = 'demo-odd'`
	);
	const call = (as: string) =>
		sql((db) => db`update "user" set name = ${as} where id = 'demo-odd'`);
	try {
		await call(name);
		await expect(async () => {
			await page.goto(`${appUrl()}/items`);
			expect(await page.locator('.who b').textContent()).toBe(name);
		}).toPass();
		await ready(page);
		expect(await page.locator('.who b').textContent()).toBe(name);
		expect(troubles).toEqual([]);
	} finally {
		await call(was?.name ?? '');
	}
	await page.context().close();
});

test('what is not there, leads elsewhere or may not be seen is said to each, and the theme is each one’s own', async ({
	browser
}) => {
	const [ilse, perrin] = await Promise.all([
		inAs(browser, 'Ilse Norrby'),
		inAs(browser, 'Perrin Vale')
	]);
	for (const page of [ilse, perrin, ilse]) {
		const missing = await fetched(page, '/items/XX-9999');
		expect(missing.status).toBe(404);
		expect(missing.html).toContain(page === ilse ? 'Ilse Norrby' : 'Perrin Vale');
	}
	const away = await fetched(perrin, '/people');
	expect([away.status, away.headers.location]).toEqual([303, '/people/me']);
	expect((await fetched(ilse, '/people')).status).toBe(200);
	expect((await fetched(perrin, '/counter')).status).toBe(403);

	const theme = async (page: Page) =>
		/<html[^>]*data-theme="(\w+)"/.exec((await fetched(page, '/items')).html)?.[1];
	await ilse.context().addCookies([{ name: 'theme', value: 'night', url: appUrl() }]);
	expect([await theme(ilse), await theme(perrin), await theme(ilse)]).toEqual([
		...['night', 'day'],
		'night'
	]);
	for (const page of [ilse, perrin]) await page.context().close();
});
