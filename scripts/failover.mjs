// Loses the database while people write, goes on with the one that followed it, and counts what was lost:
// npm run failover.
import { ensureBuild } from './lib/build.mjs';
import { ensureDependencies } from './lib/dependencies.mjs';
import { runMain } from './lib/say.mjs';
import { ensureSystemPackages } from './lib/system.mjs';
import { runScript } from './lib/tsx.mjs';

await runMain(async () => {
	await ensureSystemPackages({});
	await ensureDependencies();
	await ensureBuild();
	await runScript('failover', {});
});
