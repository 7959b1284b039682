import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
	plugins: [tailwindcss(), sveltekit()],
	build: { chunkSizeWarningLimit: 600 },
	test: {
		projects: [
			{
				resolve: { alias: { $core: new URL('./src/core', import.meta.url).pathname } },
				test: {
					name: 'unit',
					include: ['src/**/*.test.ts', 'scripts/**/*.test.ts'],
					environment: 'node'
				}
			},
			{
				extends: true,
				test: {
					name: 'integration',
					include: ['tests/integration/**/*.test.ts'],
					environment: 'node',
					fileParallelism: false,
					testTimeout: 20_000,
					hookTimeout: 60_000
				}
			}
		]
	}
});
