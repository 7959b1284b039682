import { readFileSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { setTimeout as pause } from 'node:timers/promises';
import postgres from 'postgres';
import { appEnv, migrateAndSeed, startWeb } from '../lib/app.mjs';
import { childrenOf } from '../lib/children.ts';
import { startCluster } from '../lib/cluster.mjs';
import { startInstruments } from '../lib/instruments.mjs';
import { keepDatabase, keepGoing } from '../lib/keep.mjs';
import { dataDir, root } from '../lib/paths.mjs';
import { anchorPaths } from '../lib/secrets.mjs';
import { HttpFaults } from './http-faults.ts';
import { TcpCut } from './tcp-cut.ts';

/** Whatever ends is started again at once: here it is the ending that is tried. */
const MOST_WAIT_MS = 1000;
const DATABASE_LOOK_MS = 300;
const NAME = 'chaos';

/** What the short run and the long one hold the writers against. */
export type Part = 'web' | 'keeper' | 'database' | 'backend' | 'instruments';

/** The whole of Grevan with networks in between, all of which can be hurt. */
export async function openWorld() {
	const clock = join(dataDir, 'chaos-clock');
	writeFileSync(clock, '0');
	const cluster = await startCluster(NAME, { port: 25_621 });
	const faults = await HttpFaults.open();
	let over = false;
	const atOnce = {
		over: () => over,
		wait: (ms: number) => pause(Math.min(ms, MOST_WAIT_MS)),
		tell: () => {}
	};
	const keep = (name: string, start: () => Promise<unknown>) => keepGoing(name, start, atOnce);

	let instruments = await startInstruments();
	const simulate = async () => {
		instruments = await startInstruments({
			ports: instruments.ports,
			onExit: () => void instrumentsEnded()
		});
	};
	const instrumentsEnded = keep('instruments', simulate);
	instruments.child.once('exit', () => void instrumentsEnded());

	const direct = appEnv(cluster.url, { demo: true, name: NAME });
	await migrateAndSeed({ ...direct, GREVAN_SEED_ROUNDS: '1' });
	const sql = postgres(cluster.url, { max: 2, onnotice: () => {} });
	await sql`update site set proof_minutes = 120, idle_minutes = 720`;
	const cut = await TcpCut.before(direct.DATABASE_URL);
	const env = {
		...direct,
		...instruments.env,
		DATABASE_URL: cut.url,
		ORIGIN: faults.address,
		GREVAN_DISK: cluster.dir,
		GREVAN_ANCHORS: anchorPaths(NAME).file,
		LOG_LEVEL: 'silent',
		CHAOS_CLOCK: clock,
		NODE_OPTIONS: `--import ${pathToFileURL(join(root, 'scripts/chaos/set-clock.mjs')).href}`
	};
	let web: Awaited<ReturnType<typeof startWeb>> | undefined;
	const serve = async () => {
		web = await startWeb(env, {
			port: web?.port ?? 8620,
			quiet: true,
			onExit: () => void webEnded()
		});
		faults.target = web.port;
	};
	const webEnded = keep('web', serve);
	await serve();
	const lookNoMore = keepDatabase(cluster, DATABASE_LOOK_MS, atOnce);

	const postmaster = () =>
		Number(readFileSync(join(cluster.dir, 'postmaster.pid'), 'utf8').split('\n')[0]);
	const webPid = () => web?.child.pid ?? 0;
	const pids: Record<Part, () => number | undefined> = {
		web: webPid,
		keeper: () => childrenOf(webPid()).find(({ says }) => says.includes('keeper.ts'))?.pid,
		database: postmaster,
		backend: () => childrenOf(postmaster()).find(({ says }) => says.includes('grevan_chaos'))?.pid,
		instruments: () => instruments.child.pid
	};
	const signal = (part: Part, how: NodeJS.Signals): boolean => {
		try {
			const pid = pids[part]();
			return pid ? process.kill(pid, how) : false;
		} catch {
			// It is not there at the moment.
			return false;
		}
	};
	const ballast = join(dataDir, 'ballast');

	return {
		/** Where the writers write to. */
		address: faults.address,
		/** The web process itself, past the networks. */
		direct: () => `http://127.0.0.1:${faults.target}`,
		faults,
		cut,
		env: direct,
		sql,
		kill: (part: Part) => signal(part, 'SIGKILL'),
		freeze: (part: Part) => signal(part, 'SIGSTOP'),
		thaw: (part: Part) => signal(part, 'SIGCONT'),
		/** Sets the clock of the application ahead. */
		setClock: (aheadMs: number) => writeFileSync(clock, String(aheadMs)),
		/** Leaves no room on the disk of the database; undone by removing the ballast. */
		fillDisk() {
			const { bavail, bsize } = statfsSync(cluster.dir);
			writeFileSync(ballast, Buffer.alloc(0));
			for (let left = bavail * bsize; left > 0; left -= 1_000_000) {
				try {
					writeFileSync(ballast, Buffer.alloc(1_000_000, 7), { flag: 'a' });
				} catch {
					return;
				}
			}
		},
		emptyDisk: () => rmSync(ballast, { force: true }),
		/** Whether everything serves again, writing too. */
		async ready(): Promise<boolean> {
			try {
				const response = await fetch(`http://127.0.0.1:${faults.target}/readyz`, {
					signal: AbortSignal.timeout(2000)
				});
				await response.text();
				return response.ok;
			} catch {
				return false;
			}
		},
		async close() {
			over = true;
			lookNoMore();
			await faults.close();
			await web?.stop();
			await instruments.stop();
			await sql.end({ timeout: 5 });
			await cut.close();
			await cluster.halt();
		}
	};
}
