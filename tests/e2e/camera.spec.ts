import { labelPicture } from '../../instruments/pictures/label';
import { pictureOf } from '../../instruments/pictures/shot';
import { y4mOf } from '../../instruments/pictures/y4m';
import type { GrayPicture } from '../../src/core/picture/gray';
import { Chance } from '../../src/core/stats/chance';
import { faultsOf } from './support/axe';
import { appUrl, enter, ready, signInAs } from './support/app';
import { withFakeDevices } from './support/devices';
import { expect, type Page, test } from './support/test';

const FRAME = { width: 640, height: 480 };
/** Pictures of the film in a second. */
const PER_S = 2;

/** A label as it is held before the camera for so many pictures. */
async function held(text: string, pictures: number, chance: Chance, hidden = false) {
	const flat = await labelPicture(text, 500, hidden);
	const shot = () =>
		pictureOf(
			flat,
			{
				frame: FRAME,
				widthPx: chance.between(280, 420),
				turnDeg: chance.between(-30, 30),
				tiltDeg: chance.between(0, 30),
				tiltAxisDeg: chance.between(0, 360),
				blurPx: 0.6,
				noise: 5
			},
			chance
		);
	const [one, other] = [shot(), shot()];
	return Array.from({ length: pictures }, (_, i): GrayPicture => (i % 2 ? other : one));
}

/** Begins a muster of a kind; gives its address and the tags that are expected. */
async function muster(page: Page, kind: string): Promise<{ url: string; tags: string[] }> {
	await page.goto(`${appUrl()}/items/musters`);
	await ready(page);
	await page.getByLabel('Kind').selectOption({ label: kind });
	await enter(page.getByRole('button', { name: 'Begin' }));
	await expect(page).toHaveURL(/\/items\/musters\/[0-9a-f-]{36}/);
	await ready(page);
	const links = page.getByRole('main').getByRole('link', { name: /^[A-Z]{2}-\d{4}$/ });
	return { url: page.url(), tags: await links.allTextContents() };
}

test('a muster by camera: twenty labels in a minute, held over one after the other', async ({
	page
}) => {
	await signInAs(page, 'Ilse Norrby');
	const { url, tags } = await muster(page, 'Half masks');
	const twenty = tags.slice(0, 20);
	expect(new Set(twenty).size).toBe(20);
	const chance = new Chance(20);
	const pictures = [];
	// Three seconds for each, the way from one to the next included.
	for (const tag of twenty) pictures.push(...(await held(tag, 3 * PER_S, chance)));
	await withFakeDevices({ film: y4mOf(pictures, PER_S) }, async (phone) => {
		await signInAs(phone, 'Ilse Norrby');
		await phone.goto(url);
		await ready(phone);
		await enter(phone.getByRole('main').getByRole('button', { name: 'Scan with the camera' }));
		await expect(phone.getByRole('region', { name: 'Camera' })).toBeVisible();
		await expect(phone.getByText(/read/).first()).toBeVisible({ timeout: 60_000 });
		expect(await faultsOf(phone)).toEqual([]);
		// The film goes on by itself; the sheet has to keep up with it.
		await expect(phone.getByRole('status').filter({ hasText: 'presented' })).toContainText(
			/^20 of /,
			{ timeout: 120_000 }
		);
		await enter(phone.getByRole('button', { name: 'Shut the camera' }));
		await expect(phone.getByLabel('Scan, one after the other')).toBeFocused();
	});
});

test('a label that is half hidden, a web address and two labels at once are said', async () => {
	const chance = new Chance(21);
	const hidden = await held('HM-0109', 16, chance, true);
	const address = await held('https://osmund.example/a', 12, chance);
	const [left, right] = await Promise.all(
		['HM-0124', 'HM-0125'].map((tag) => labelPicture(tag, 260))
	);
	if (!left || !right) throw new Error('no label');
	const two = { width: 640, height: 480, data: new Uint8ClampedArray(640 * 480).fill(90) };
	for (const [label, at] of [
		[left, 0],
		[right, 370]
	] as const)
		for (let y = 0; y < label.height; y++)
			two.data.set(
				label.data.subarray(y * label.width, (y + 1) * label.width),
				(180 + y) * 640 + at
			);
	const film = y4mOf([...hidden, ...address, ...Array.from({ length: 16 }, () => two)], PER_S);
	await withFakeDevices({ film, viewport: { width: 390, height: 844 } }, async (phone) => {
		await signInAs(phone, 'Ilse Norrby');
		await enter(phone.getByRole('button', { name: 'Scan with the camera' }));
		const camera = phone.getByRole('region', { name: 'Camera' });
		await expect(camera.getByText('A label that is half hidden')).toBeVisible({ timeout: 60_000 });
		await expect(camera.getByText('a web address, no tag')).toBeVisible({ timeout: 60_000 });
		expect(new URL(phone.url()).pathname).toBe('/');
		const one = camera.getByRole('button', { name: 'HM-0125' });
		await expect(one).toBeVisible({ timeout: 60_000 });
		await enter(one);
		await expect(phone).toHaveURL(/\/items\/HM-0125$/);
	});
});

test('a camera that is refused or missing is said, and the tag is typed all the same', async ({
	page
}) => {
	const typedAllTheSame = async (here: Page, why: string) => {
		await signInAs(here, 'Ilse Norrby');
		await here.goto(`${appUrl()}/counter/return`);
		await ready(here);
		const main = here.getByRole('main');
		await enter(main.getByRole('button', { name: 'Scan with the camera' }));
		await expect(here.getByRole('alert')).toContainText(why);
		await enter(main.getByRole('button', { name: 'Shut the camera' }));
		await expect(main.getByLabel('Scan what comes back')).toBeFocused();
		await here.keyboard.type('HM-0109');
		await here.keyboard.press('Enter');
		await expect(main.getByText('HM-0109').first()).toBeVisible();
	};
	await typedAllTheSame(page, 'There is no camera.');
	const film = y4mOf(await held('HM-0109', 2, new Chance(22)), PER_S);
	await withFakeDevices({ film, refused: true }, (other) =>
		typedAllTheSame(other, 'The camera was refused.')
	);
});
