// Uses the app for an hour as a site does, and prints whether its memory, descriptors and connections stay:
// npm run soak. Nothing here passes or fails.
import { ensureDependencies } from './lib/dependencies.mjs';
import { runMain, say } from './lib/say.mjs';
import { withScratchApp } from './lib/scratch.mjs';
import { runScript } from './lib/tsx.mjs';

const ITEMS = process.env.SOAK_ITEMS ?? '10000';

await runMain(async () => {
	await ensureDependencies();
	say(`Filling a database with ${ITEMS} items ...`);
	const seed = { GREVAN_SEED_ITEMS: ITEMS, GREVAN_SEED_ROUNDS: '1' };
	await withScratchApp('soak', { seed }, async ({ address, env, pid }) => {
		await runScript('soak', { ...env, BENCH_ADDRESS: address, SOAK_PID: String(pid) });
	});
});
