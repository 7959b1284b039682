import { appEnv, migrateAndSeed, startWeb } from './app.mjs';
import { ensureBuild } from './build.mjs';
import { removeCluster, startCluster } from './cluster.mjs';
import { ensureDependencies } from './dependencies.mjs';
import { startInstruments } from './instruments.mjs';
import { ensureSystemPackages } from './system.mjs';

/**
 * The built app with a demo of its own on a cluster of its own, for as long as the work takes.
 * @param {string} purpose
 * @param {{ seed?: Record<string, string>, benches?: number, settings?: string[] }} options
 * @param {(app: { address: string, env: Record<string, string | undefined>, timings: Record<string, number>, pid: number }) => Promise<void>} work pid: of the web process, or of the one over several
 */
export async function withScratchApp(purpose, { seed = {}, benches = 2, settings = [] }, work) {
	await ensureSystemPackages({ chromium: true });
	await ensureDependencies();
	await ensureBuild();
	const name = `${purpose}-${process.pid}`;
	const began = performance.now();
	const cluster = await startCluster(name, { durable: false, port: 25_521, settings });
	try {
		const clusterMs = performance.now() - began;
		const simulated = await startInstruments({ benches });
		const env = {
			...appEnv(cluster.url, { demo: true, name }),
			...simulated.env,
			LOG_LEVEL: 'silent'
		};
		const seeding = performance.now();
		await migrateAndSeed({ ...env, ...seed });
		const seedMs = performance.now() - seeding;
		const starting = performance.now();
		const web = await startWeb(env, { port: 8520, quiet: true });
		const webMs = performance.now() - starting;
		try {
			const pid = web.child.pid ?? 0;
			await work({ address: web.address, env, timings: { clusterMs, seedMs, webMs }, pid });
		} finally {
			await web.stop();
			await simulated.stop();
		}
	} finally {
		await cluster.halt();
		removeCluster(cluster, name);
	}
}
