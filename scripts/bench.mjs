// Prints the figures of speed and size. Nothing here passes or fails.
import { join } from 'node:path';
import { ensureDependencies } from './lib/dependencies.mjs';
import { bin, root } from './lib/paths.mjs';
import { run } from './lib/process.mjs';
import { runMain, say } from './lib/say.mjs';
import { withScratchApp } from './lib/scratch.mjs';

const ITEMS = process.env.BENCH_ITEMS ?? '10000';

await runMain(async () => {
	await ensureDependencies();
	await run(bin('tsx'), [join(root, 'scripts', 'bench-core.ts')], { cwd: root });
	if (process.argv.includes('--core')) return;
	if (process.argv.includes('--board')) return board();
	await withScratchApp('bench-live', { benches: 100 }, async ({ address, env }) => {
		await run(bin('tsx'), [join(root, 'scripts', 'bench-live.ts')], {
			cwd: root,
			env: { ...process.env, ...env, BENCH_ADDRESS: address }
		});
	});
	if (process.argv.includes('--live')) return;
	await board();
	say(`Filling a database with ${ITEMS} items ...`);
	const seed = { GREVAN_SEED_ITEMS: ITEMS, GREVAN_SEED_ROUNDS: '1' };
	await withScratchApp('bench', { seed }, async ({ address, env, timings }) => {
		say(`database cluster made and started  ${timings.clusterMs?.toFixed(0)} ms`);
		say(`demo of ${ITEMS} items written       ${((timings.seedMs ?? 0) / 1000).toFixed(1)} s`);
		say(`web process start to first answer  ${timings.webMs?.toFixed(0)} ms`);
		await run(bin('tsx'), [join(root, 'scripts', 'bench-run.ts')], {
			cwd: root,
			env: { ...process.env, ...env, BENCH_ADDRESS: address }
		});
	});
});

/** Three real screens of the entry board for ten minutes. */
async function board() {
	await withScratchApp('bench-board', {}, async ({ address, env }) => {
		await run(bin('tsx'), [join(root, 'scripts', 'bench-board.ts')], {
			cwd: root,
			env: { ...process.env, ...env, BENCH_ADDRESS: address }
		});
	});
}
