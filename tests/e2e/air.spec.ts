import { appUrl, ready, signInAs } from './support/app';
import { expect, test } from './support/test';

test('minutes of a set follow the work, the pressure and the real air', async ({ page }) => {
	await signInAs(page, 'Ilse Norrby');
	await page.goto(`${appUrl()}/air`);
	await ready(page);
	const card = page.getByRole('region', { name: 'Duration card' });
	// Computed independently: 6.8 L at 300 bar down to 55 is 1446.5 L, in all 1820.3.
	await expect(card).toContainText('36');
	await expect(card).toContainText('1,820 free litres');
	await page.getByRole('button', { name: 'heavy 60', exact: true }).click();
	await expect(card).toContainText('24');
	const first = page
		.getByRole('listitem')
		.filter({ has: page.getByLabel('Water, L') })
		.first();
	await first.getByLabel('Water, L').fill('6800');
	await expect(first.getByRole('alert')).toContainText('If this was in millilitres: 6.8 L');
	await first.getByLabel('Water, L').fill('6,8');
	await first.getByLabel('Start, bar').fill('4350');
	await expect(first.getByRole('alert')).toContainText(
		'If this was psi: write 4350 psi, which is 300 bar'
	);
	await first.getByLabel('Start, bar').fill('30 MPa');
	await expect(card).toContainText('1,820 free litres');
});

test('a cascade is counted until a bank has to be pumped up', async ({ page }) => {
	await signInAs(page, 'Ilse Norrby');
	await page.goto(`${appUrl()}/air/banks`);
	await ready(page);
	await expect(page.getByText('Stop at').locator('..')).toContainText(/3\d\d/);
	await expect(page.getByText(/Then pump up/)).toContainText(/bank \d/);
	await page.getByLabel('Maximum, bar at 65 °C').fill('340');
	await expect(page.getByText(/Its maximum decides/)).toBeVisible();
	const bank = page.getByLabel('Now, bar').first();
	await bank.fill('2900 psi');
	await expect(page.getByText('200 bar', { exact: true })).toBeVisible();
	await bank.fill('290 atm');
	await expect(page.getByRole('alert')).toContainText('Bank 1: Write a pressure as');
});

test('a hose that fails says what would help, and passes with it', async ({ page }) => {
	await signInAs(page, 'Ilse Norrby');
	await page.goto(`${appUrl()}/air/hoses`);
	await ready(page);
	await page.getByRole('textbox', { name: 'Wearers' }).fill('4');
	const verdict = page.getByRole('complementary');
	await expect(verdict).toContainText(/Not enough|It chokes/);
	const wider = verdict.getByText(/Hose of \d+ mm bore/);
	const bore = /(\d+) mm/.exec((await wider.textContent()) ?? '')?.[1] ?? '';
	await page.getByLabel('Bore, mm').fill(bore);
	await expect(verdict).toContainText('Enough at the end');
	await page.getByLabel('Length, m').fill('120');
	await expect(verdict).toContainText('120 m of hose, 91 at most');
});
