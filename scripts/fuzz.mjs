// Sends mutated requests to every route and action as every role, and prints what came back: npm run fuzz.
import { runMain } from './lib/say.mjs';
import { withScratchApp } from './lib/scratch.mjs';
import { runScript } from './lib/tsx.mjs';

await runMain(() =>
	withScratchApp('fuzz', {}, async ({ address, env }) => {
		await runScript('fuzz', { ...env, FUZZ_ADDRESS: address });
	})
);
