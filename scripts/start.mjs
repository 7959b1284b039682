import { spawn } from 'node:child_process';
import { appEnv, migrateAndSeed, startWeb } from './lib/app.mjs';
import { ensureBuild } from './lib/build.mjs';
import { newestBackup } from './lib/backups.mjs';
import { startCluster } from './lib/cluster.mjs';
import { keepDatabase, keepGoing } from './lib/keep.mjs';
import { ensureDependencies } from './lib/dependencies.mjs';
import { takeLock } from './lib/lock.mjs';
import { startInstruments } from './lib/instruments.mjs';
import { backupHour, backUpNightly } from './lib/nightly.mjs';
import { bin, root } from './lib/paths.mjs';
import { freePort } from './lib/ports.mjs';
import { end } from './lib/process.mjs';
import { runMain, say } from './lib/say.mjs';
import { ensureSystemPackages } from './lib/system.mjs';

const PORT = Number(process.env.PORT ?? 8440);
/** Whether the database still goes is asked so often. */
const LOOK_MS = 3000;
/** Where one of them is given, none is simulated. */
const INSTRUMENTS = new Set([
	'GREVAN_PRESSURE_BENCH',
	'GREVAN_BA_BENCH',
	'GREVAN_FILL_PANEL',
	'GREVAN_TELEMETRY',
	'GREVAN_FIT_COUNTER',
	'GREVAN_THERMOMETER'
]);

await runMain(async () => {
	const dev = process.argv.includes('--dev');
	const external = process.env.DATABASE_URL;
	// A database of someone else gets demo accounts only when asked.
	const demo = external ? process.env.GREVAN_DEMO === '1' : process.env.GREVAN_DEMO !== '0';
	await ensureSystemPackages({ postgres: !external });
	await ensureDependencies();
	const lock = await takeLock('start');
	/** @type {(() => Promise<unknown>)[]} */
	const undo = [];
	let stopping = false;
	const ended = new Promise((resolve) => {
		for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM', 'SIGHUP']))
			process.on(signal, () => {
				stopping = true;
				resolve(undefined);
			});
		// npm passes its signals on, but not that it was killed.
		const parent = process.ppid;
		if (process.env.npm_lifecycle_event)
			setInterval(() => {
				if (process.ppid === parent) return;
				stopping = true;
				resolve(undefined);
			}, LOOK_MS).unref();
	});
	const over = () => stopping;
	try {
		const cluster = external ? undefined : await startCluster('database');
		if (cluster) {
			undo.push(cluster.stop);
			say(`Database on 127.0.0.1:${cluster.port}, in ${cluster.dir}`);
		}
		const env = {
			...appEnv(external ?? cluster?.url ?? '', { demo }),
			...(cluster ? { GREVAN_DISK: cluster.dir } : {})
		};
		if (demo && !Object.keys(process.env).some((name) => INSTRUMENTS.has(name))) {
			/** @type {Awaited<ReturnType<typeof startInstruments>> | undefined} */
			let simulated;
			// On the ports that they had: the web process knows them there.
			const simulate = async () => {
				simulated = await startInstruments({
					ports: simulated?.ports,
					onExit: (code) => void instrumentsEnded(code)
				});
			};
			const instrumentsEnded = keepGoing('The simulated instruments', simulate, { over });
			await simulate();
			undo.push(async () => simulated?.stop());
			// @ts-expect-error assigned in simulate
			Object.assign(env, simulated.env);
		}
		const said = await migrateAndSeed(env);
		if (said.trim()) say(said.trim());
		if (stopping) return;
		if (dev) {
			const port = await freePort(PORT);
			const child = spawn(bin('vite'), ['dev', '--host', '127.0.0.1', '--port', String(port)], {
				cwd: root,
				env: { ...process.env, ...env, NODE_ENV: 'development' },
				stdio: 'inherit'
			});
			undo.push(() => end(child));
			await ended;
			return;
		}
		await ensureBuild();
		if (stopping) return;
		/** @type {Awaited<ReturnType<typeof startWeb>>} */
		let web;
		const serve = async () => {
			web = await startWeb(env, {
				port: web?.port ?? PORT,
				onExit: (code) => void (web && webEnded(code))
			});
		};
		const webEnded = keepGoing('The web process', serve, { over });
		await serve();
		if (cluster) {
			const lookNoMore = keepDatabase(cluster, LOOK_MS, { over });
			undo.push(async () => lookNoMore());
		}
		undo.push(() => web.stop());
		// Of a database of somebody else only where it is asked for: its own keeper may have better ways.
		const hour = backupHour(process.env.GREVAN_BACKUP_HOUR ?? (external ? 'off' : undefined));
		if (hour !== undefined) {
			const noMore = backUpNightly(env, { hour, newest: newestBackup });
			undo.push(async () => noMore());
		}
		// @ts-expect-error assigned in serve
		const { address, port } = web;
		lock.note(address);
		if (port !== PORT) say(`Port ${PORT} is taken; using ${port}.`);
		say(`\nGrevan: ${address}`);
		if (env.GREVAN_DEMO_PASSWORD) {
			say(
				'Sign in with one click on the sign-in page, or as one of these (password for all of them:'
			);
			say(`${env.GREVAN_DEMO_PASSWORD}):`);
			say('  ilse@osmund.example   technician    tove@osmund.example   supervisor');
			say('  odd@osmund.example    technician    bram@osmund.example   supervisor');
			say('  perrin@osmund.example viewer        maud@osmund.example   admin');
		}
		const code = /one-time code (\S+)/.exec(said)?.[1];
		if (code) say(`Begin the set-up there with the one-time code ${code}`);
		else if (!demo) say('Sign in with an account of this site.');
		say('Ctrl-C ends it.');
		await ended;
	} finally {
		stopping = true;
		for (const step of undo.reverse()) await step();
		await lock.release();
	}
});
