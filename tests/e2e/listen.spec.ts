import { letDownSound } from '../../instruments/sounds/let-down';
import { wavOf } from '../../instruments/sounds/wav';
import { faultsOf } from './support/axe';
import { enter, ready, scan, signInAs } from './support/app';
import { withFakeDevices } from './support/devices';
import { expect, type Page, test } from './support/test';

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

test('a whistle in workshop noise is heard by the device, its figure typed and taken by the person', async () => {
	const { samples, sampleRate } = letDownSound({ seed: 3, aboveNoiseDb: 12 });
	await withFakeDevices({ sound: wavOf(samples, sampleRate) }, async (page) => {
		await signInAs(page, 'Ilse Norrby');
		await toWhistle(page, 'BA-0207');
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
		await page.keyboard.press('ArrowLeft');
		await expect(page.getByText('Answered with 54 bar')).toBeVisible();
	});
});

test('a microphone that is refused is said, and the whistle is typed in by key all the same', async () => {
	await withFakeDevices({ refused: true }, async (page) => {
		await signInAs(page, 'Ilse Norrby');
		await toWhistle(page, 'BA-0208');
		await enter(page.getByRole('button', { name: 'Listen with this device' }));
		await expect(page.getByRole('alert')).toContainText('The microphone was refused.');
		await page.getByLabel(/Whistle starts at/).fill('55');
		await page.keyboard.press('Enter');
		await page.keyboard.press('ArrowLeft');
		await expect(page.getByText('Answered with 55 bar')).toBeVisible();
	});
});
