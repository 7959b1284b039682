// Runs a script of the project against its database: the one of DATABASE_URL, the one of a running start, or the
// project's own cluster started for as long as the script takes.
import { spawn } from 'node:child_process';
import { setTimeout as pause } from 'node:timers/promises';
import { appEnv } from './lib/app.mjs';
import { runningCluster, startCluster } from './lib/cluster.mjs';
import { ensureDependencies } from './lib/dependencies.mjs';
import { bin, root } from './lib/paths.mjs';
import { Held } from './lib/lock.mjs';
import { runMain } from './lib/say.mjs';
import { ensureSystemPackages } from './lib/system.mjs';

/** How long a start that is under way may take until its database runs. */
const PATIENCE_MS = 60_000;

/** Starts the cluster, unless a start that is under way does so meanwhile. */
async function ownOrRunning() {
	for (const until = Date.now() + PATIENCE_MS; ;) {
		try {
			return await startCluster('database');
		} catch (error) {
			if (await runningCluster('database')) return undefined;
			if (!(error instanceof Held) || Date.now() > until) throw error;
		}
		await pause(500);
	}
}

await runMain(async () => {
	const external = process.env.DATABASE_URL;
	await ensureSystemPackages({ postgres: !external });
	await ensureDependencies();
	const running = external ?? (await runningCluster('database'));
	const cluster = running ? undefined : await ownOrRunning();
	try {
		const url = running ?? cluster?.url ?? (await runningCluster('database')) ?? '';
		const [script = '', ...args] = process.argv.slice(2);
		const child = spawn(bin('tsx'), [script, ...args], {
			cwd: root,
			env: { ...process.env, ...appEnv(url, { demo: false }) },
			stdio: 'inherit'
		});
		return await new Promise((resolve) => child.on('exit', (code) => resolve(code ?? 1)));
	} finally {
		await cluster?.stop();
	}
});
