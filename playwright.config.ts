import { defineConfig } from '@playwright/test';
import { chromiumPath } from './scripts/lib/system.mjs';

export default defineConfig({
	testDir: 'tests/e2e',
	globalSetup: './tests/e2e/support/serve.ts',
	// Each worker has an app and a database of its own.
	workers: 3,
	fullyParallel: false,
	// Far above what any step takes: a busy machine is slow, not wrong.
	timeout: 300_000,
	expect: { timeout: 40_000 },
	reporter: [
		['list'],
		['json', { outputFile: process.env.RESULT_FILE ?? 'test-results/browser.json' }]
	],
	use: {
		viewport: { width: 1280, height: 800 },
		locale: 'en-GB',
		timezoneId: 'Europe/London',
		trace: 'off',
		// Each would fetch the whole app again; the specs of what goes on without a connection let theirs run.
		serviceWorkers: 'block',
		launchOptions: {
			executablePath: chromiumPath(),
			args: [
				'--no-sandbox',
				'--disable-gpu',
				'--disable-background-networking',
				'--disable-sync',
				'--no-first-run'
			]
		}
	}
});
