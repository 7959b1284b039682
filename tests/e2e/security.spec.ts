import { connect } from 'node:net';
import { randomUUID } from 'node:crypto';
import { appUrl, scan, signInAs, signInByHand, ready } from './support/app';
import { expect, test } from './support/test';

test('nothing is shown or changed without signing in', async ({ page, request }) => {
	await page.goto(`${appUrl()}/items`);
	await expect(page).toHaveURL(/\/sign-in\?next=%2Fitems/);
	for (const path of ['/api/runs/x/answers', '/api/runs/x/sign', '/api/v1/calc/due'])
		expect((await request.post(appUrl() + path, { data: {} })).status()).toBe(401);
	expect((await request.put(`${appUrl()}/api/hazards/x`, { data: {} })).status()).toBe(401);
	expect(
		(
			await request.post(`${appUrl()}/items/HM-0101?/inspect`, { form: { id: randomUUID() } })
		).status()
	).toBe(403);
});

test('headers, cookies and foreign origins', async ({ page }) => {
	await signInByHand(page, 'Ilse Norrby');
	const response = await page.goto(`${appUrl()}/`);
	const headers = response?.headers() ?? {};
	expect(headers['content-security-policy']).toContain("default-src 'self'");
	expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
	expect(headers['content-security-policy']).not.toMatch(/script-src[^;]*unsafe/);
	expect(headers['x-content-type-options']).toBe('nosniff');
	expect(headers['cache-control']).toContain('no-store');
	const session = (await page.context().cookies()).find((c) => c.name.includes('session_token'));
	expect(session).toMatchObject({ httpOnly: true, sameSite: 'Lax' });
	expect(await page.evaluate(() => document.cookie)).not.toContain('session_token');
	for (const origin of ['https://elsewhere.example', 'null']) {
		const foreign = await page.request.post(`${appUrl()}/sign-out`, { headers: { origin } });
		expect(foreign.status()).toBe(403);
		const json = await page.request.post(`${appUrl()}/api/runs/${randomUUID()}/sign`, {
			headers: { origin }
		});
		expect(json.status()).toBe(403);
	}
	// A session that was signed out is over at once, also for someone who kept its cookie.
	await page.getByRole('button', { name: 'Sign out' }).click();
	await expect(page).toHaveURL(/sign-in/);
	await page.context().addCookies(session ? [session] : []);
	await page.goto(`${appUrl()}/items`);
	await expect(page).toHaveURL(/sign-in/);
	// Somewhere else is never gone to after signing in.
	await page.context().clearCookies();
	await page.goto(`${appUrl()}/sign-in?next=//elsewhere.example/`);
	await page.getByRole('button', { name: /Ilse Norrby/ }).click();
	await expect(page).toHaveURL(`${appUrl()}/`);
});

test('a viewer looks and changes nothing', async ({ page }) => {
	await signInAs(page, 'Perrin Vale');
	await scan(page, 'HM-0102');
	await expect(page.getByRole('button', { name: /Inspect/ })).toHaveCount(0);
	const headers = { origin: appUrl() };
	const start = await page.request.post(`${appUrl()}/items/HM-0102?/inspect`, {
		headers,
		form: { id: randomUUID() }
	});
	expect(await start.text()).toMatch(/A viewer may not do this/);
	const plan = await page.request.put(`${appUrl()}/api/hazards/${randomUUID()}`, {
		headers,
		data: { task: 'x' }
	});
	expect(plan.status()).toBe(422);
	await page.goto(`${appUrl()}/hazards/new`);
	await expect(page.getByLabel('Task')).toBeDisabled();
});

test('a wrong password says no more than it must', async ({ page }) => {
	await page.goto(`${appUrl()}/sign-in`);
	await ready(page);
	for (const email of ['ilse@osmund.example', 'nobody@osmund.example']) {
		await page.getByLabel('Address').fill(email);
		await page.getByLabel('Password').fill('not the password');
		await page.getByRole('button', { name: 'Sign in', exact: true }).click();
		await expect(page.getByRole('alert')).toHaveText('No account with this address and password.');
		await expect(page.getByLabel('Address')).toHaveValue(email);
	}
});

test('the calculation interface over HTTP: result, located fault, description', async ({
	page
}) => {
	await signInAs(page, 'Perrin Vale');
	const headers = { origin: appUrl() };
	const good = await page.request.post(`${appUrl()}/api/v1/calc/concentration`, {
		headers,
		data: { value: 25, unit: 'ppm', molarMassGPerMol: 17.03, temperatureC: 25 }
	});
	// Computed independently: 25 ppm of ammonia at 25 °C is 17.4 mg/m³.
	expect(((await good.json()) as { mgPerM3: number }).mgPerM3).toBeCloseTo(17.4, 1);
	const bad = await page.request.post(`${appUrl()}/api/v1/calc/concentration`, {
		headers,
		data: { value: 25 }
	});
	expect(bad.status()).toBe(422);
	expect(await bad.json()).toMatchObject({
		error: { code: 'invalid_input', issues: [{ path: 'unit' }, { path: 'molarMassGPerMol' }] }
	});
	expect(
		(await page.request.post(`${appUrl()}/api/v1/calc/nothing`, { headers, data: {} })).status()
	).toBe(404);
	const description = (await (
		await page.request.get(`${appUrl()}/api/v1/openapi.json`)
	).json()) as { paths: object };
	expect(Object.keys(description.paths)).toContain('/api/v1/calc/service-life');
});

test('every answer carries the headers: pages, refusals, static files, what is not there', async ({
	request
}) => {
	const script = /src="([^"]+\.js)"|import\("([^"]+\.js)"\)/.exec(
		await (await request.get(`${appUrl()}/sign-in`)).text()
	);
	const asset = new URL(script?.[1] ?? script?.[2] ?? '', `${appUrl()}/sign-in`).pathname;
	expect(asset).toContain('/_app/');
	for (const path of ['/sign-in', asset, '/healthz', '/nothing/here', '/items', '/%00']) {
		const headers = (await request.get(`${appUrl()}${path}`, { maxRedirects: 0 })).headers();
		for (const [name, value] of [
			['x-content-type-options', 'nosniff'],
			['x-frame-options', 'DENY'],
			['referrer-policy', 'same-origin'],
			['cross-origin-resource-policy', 'same-origin']
		] as const)
			expect(headers[name], `${path} ${name}`).toBe(value);
	}
	const refused = await request.post(`${appUrl()}/items/new`, { data: 'x' });
	expect(refused.headers()['x-content-type-options']).toBe('nosniff');
});

test('what was refused unread does not swallow the next request on the same connection', async () => {
	const { hostname, port } = new URL(appUrl());
	const socket = connect(Number(port), hostname);
	let heard = '';
	socket.setEncoding('utf8').on('data', (chunk: string) => (heard += chunk));
	const body = 'x'.repeat(400_000);
	socket.write(
		`POST /items/new HTTP/1.1\r\nHost: ${hostname}:${port}\r\nOrigin: ${appUrl()}\r\n` +
			`Content-Type: application/x-www-form-urlencoded\r\nContent-Length: ${body.length}\r\n\r\n${body}` +
			`GET /healthz HTTP/1.1\r\nHost: ${hostname}:${port}\r\nConnection: close\r\n\r\n`
	);
	await expect
		.poll(() => heard.match(/HTTP\/1\.1 \d+/g) ?? [])
		.toEqual(['HTTP/1.1 401', 'HTTP/1.1 200']);
	socket.destroy();
});
