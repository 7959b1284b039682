import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { chromiumPath } from '../../../scripts/lib/system.mjs';

/** What the microphone and the camera of a browser are given instead of the world. */
interface Fakes {
	/** A WAV file. */
	sound?: Buffer;
	/** A YUV4MPEG2 film, over and over. */
	film?: Buffer;
	/** The person does not allow them. */
	refused?: boolean;
	viewport?: { width: number; height: number };
}

/** A browser of its own whose microphone hears a file and whose camera sees one; shut when the work is done. */
export async function withFakeDevices(
	{ sound, film, refused = false, viewport = { width: 1280, height: 800 } }: Fakes,
	work: (page: Page) => Promise<void>
): Promise<void> {
	const folder = mkdtempSync(join(tmpdir(), 'devices-'));
	const [wav, y4m] = [join(folder, 'sound.wav'), join(folder, 'film.y4m')];
	if (sound) writeFileSync(wav, sound);
	if (film) writeFileSync(y4m, film);
	const browser = await chromium.launch({
		executablePath: chromiumPath(),
		args: [
			'--no-sandbox',
			'--disable-gpu',
			'--use-fake-device-for-media-stream',
			refused ? '--deny-permission-prompts' : '--use-fake-ui-for-media-stream',
			...(sound ? [`--use-file-for-fake-audio-capture=${wav}`] : []),
			...(film ? [`--use-file-for-fake-video-capture=${y4m}`] : [])
		]
	});
	try {
		const context = await browser.newContext({
			permissions: refused ? [] : ['microphone', 'camera'],
			locale: 'en-GB',
			timezoneId: 'Europe/London',
			serviceWorkers: 'block',
			viewport
		});
		await work(await context.newPage());
	} finally {
		await browser.close();
		rmSync(folder, { recursive: true, force: true });
	}
}
