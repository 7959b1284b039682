import { letDownSound } from '../../instruments/sounds/let-down';
import { dialPicture } from '../../instruments/pictures/dial';
import { y4mOf } from '../../instruments/pictures/y4m';
import { wavOf } from '../../instruments/sounds/wav';
import { Chance } from '../../src/core/stats/chance';
import { faultsOf } from './support/axe';
import { enter, ready, scan, signInAs } from './support/app';
import { withFakeDevices } from './support/devices';
import { expect, type Page, test } from './support/test';
import { walker } from './support/walker';

/** The gauge of the sets of the demo. */
const GAUGE = {
	from: { bar: 0, deg: -135 },
	to: { bar: 350, deg: 135 },
	smallBar: 10,
	largeBar: 50
};

/** To the step at which the whistle is listened for, answering nothing on the way. */
async function toWhistle(page: Page, tag: string): Promise<void> {
	await scan(page, tag);
	await enter(page.getByRole('button', { name: /bench school/ }));
	await expect(page).toHaveURL(/\/runs\//);
	await ready(page);
	const title = page.locator('#step');
	for (let i = 0; i < 30; i++) {
		const at = (await title.textContent()) ?? '';
		if (/^Whistle$/.test(at)) return;
		// The field of a reading takes the keys that are typed.
		await page.evaluate(() =>
			document.body.dispatchEvent(
				new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true })
			)
		);
		await expect(title).not.toHaveText(at);
	}
}

test('a set by the bench school: its gauge read by the camera, its whistle heard by the device, both taken by the person', async () => {
	const { samples, sampleRate } = letDownSound({ seed: 3, aboveNoiseDb: 12 });
	const chance = new Chance(7);
	const shown = { ...GAUGE, face: 'light' as const };
	const held = async (tiltDeg: number) =>
		dialPicture(
			shown,
			291,
			{
				frame: { width: 640, height: 480 },
				widthPx: 350,
				turnDeg: 12,
				tiltDeg,
				tiltAxisDeg: 50,
				blurPx: 0.6,
				noise: 4
			},
			chance
		);
	const film = y4mOf([await held(6), await held(9)], 2);
	await withFakeDevices({ sound: wavOf(samples, sampleRate), film }, async (page) => {
		await signInAs(page, 'Ilse Norrby');
		const walk = walker(page);
		const run = await walk.begin('BA-0208', /bench school/);
		await walk.to(/Cylinder: pressure/);
		await enter(page.getByRole('button', { name: 'Read the gauge with the camera' }));
		await expect(page.getByText(/29[0-2] bar give or take \d/)).toBeVisible({ timeout: 120_000 });
		expect(await faultsOf(page)).toEqual([]);
		const gauge = page.getByLabel('Gauge, bar');
		await expect(gauge).toBeFocused();
		await expect(gauge).toHaveValue(/^29[0-2]$/);
		await expect(page.getByText(/Within: 29[0-2] bar of 300/)).toBeVisible();
		await page.keyboard.press('Enter');
		await walk.startHold('290');
		await walk.endHold(run, '289', /Within: It lost 1 bar/);
		await walk.to(/^Whistle$/);
		await enter(page.getByRole('button', { name: 'Listen with this device' }));
		await expect(page.getByText('Listening. Let it down slowly.')).toBeVisible();
		expect(await faultsOf(page)).toEqual([]);
		await expect(page.getByText(/The whistle began \d+ s ago, at \d{4} Hz/)).toBeVisible({
			timeout: 120_000
		});
		const field = page.getByLabel(/Whistle starts at/);
		await expect(field).toBeFocused();
		await page.keyboard.type('54');
		await expect(page.getByText(/Within: It whistled at 54 bar/)).toBeVisible();
		await page.keyboard.press('Enter');
		await walk.to(/Sign/);
		await walk.press('Enter');
		await expect(page.getByRole('heading', { name: /^Passed/ })).toBeVisible();
	});
});

test('a microphone that is refused is said, and the whistle is typed in by key all the same', async () => {
	await withFakeDevices({ refused: true }, async (page) => {
		await signInAs(page, 'Ilse Norrby');
		await toWhistle(page, 'BA-0207');
		await enter(page.getByRole('button', { name: 'Listen with this device' }));
		await expect(page.getByRole('alert')).toContainText('The microphone was refused.');
		await page.getByLabel(/Whistle starts at/).fill('55');
		await page.keyboard.press('Enter');
		await page.keyboard.press('ArrowLeft');
		await expect(page.getByText('Answered with 55 bar')).toBeVisible();
	});
});
