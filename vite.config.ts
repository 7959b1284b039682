import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

/** Far above what any test takes: a busy machine is slow, not wrong. */
const PATIENCE_MS = 240_000;

export default defineConfig({
	plugins: [tailwindcss(), sveltekit()],
	build: { chunkSizeWarningLimit: 600 },
	test: {
		projects: [
			{
				resolve: { alias: { $core: new URL('./src/core', import.meta.url).pathname } },
				test: {
					name: 'unit',
					include: ['src/**/*.test.ts', 'scripts/**/*.test.ts', 'instruments/**/*.test.ts'],
					exclude: ['src/**/*.svelte.test.ts'],
					environment: 'node',
					// Pure functions: files may share what they import.
					pool: 'threads',
					isolate: false,
					testTimeout: PATIENCE_MS
				}
			},
			{
				// What pages are made of, as a browser runs it, without one.
				extends: true,
				resolve: { conditions: ['browser'] },
				test: {
					name: 'ui',
					include: ['src/**/*.svelte.test.ts'],
					environment: 'node',
					testTimeout: PATIENCE_MS
				}
			},
			{
				extends: true,
				test: {
					name: 'integration',
					include: ['tests/integration/**/*.test.ts'],
					environment: 'node',
					maxWorkers: 2,
					// Each file has a database of its own; what they import they share.
					isolate: false,
					// The machine does much else beside them.
					env: { GREVAN_HEAVY_LIMIT_MS: '120000' },
					testTimeout: PATIENCE_MS,
					hookTimeout: PATIENCE_MS
				}
			}
		]
	}
});
