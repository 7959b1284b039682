// A database and one that follows it, which every commit waits for; writers whose clients wait. The first is killed, the
// other takes over behind the same address.
import { setTimeout as pause } from 'node:timers/promises';
import postgres from 'postgres';
import { Chance } from '../src/core/stats/chance.ts';
import { openDatabase } from '../src/lib/server/db/client.ts';
import { verifyChain } from '../src/lib/server/kernel/chain.ts';
import { countDeeds, inspecting, reading, worldOf } from './chaos/deeds.ts';
import { TcpCut } from './chaos/tcp-cut.ts';
import { Writer } from './chaos/writers.ts';
import { appEnv, migrateAndSeed, startWeb } from './lib/app.mjs';
import { removeCluster, startCluster } from './lib/cluster.mjs';
import { signInDemo } from './lib/sign-in.mjs';

const NAME = `failover-${process.pid}`;
const FOLLOWER = `${NAME}-follower`;
const BEFORE_MS = 15_000;
const AFTER_MS = 20_000;

const first = await startCluster(NAME, { port: 25_721, settings: ['wal_level=replica'] });
const undo: (() => Promise<unknown>)[] = [
	async () => {
		await first.halt();
		removeCluster(first, NAME);
	}
];
let right = false;
try {
	const direct = appEnv(first.url, { demo: true, name: NAME });
	await migrateAndSeed({ ...direct, GREVAN_SEED_ROUNDS: '1' });
	const second = await startCluster(FOLLOWER, { port: 25_722, secret: NAME, follows: first.url });
	undo.unshift(async () => {
		await second.halt();
		removeCluster(second, FOLLOWER);
	});
	const owner = postgres(first.url, { max: 1, onnotice: () => {} });
	await owner`update site set proof_minutes = 120, idle_minutes = 720`;
	// From here on nothing is acknowledged that the follower does not have.
	await owner`alter system set synchronous_standby_names = '*'`;
	await owner`select pg_reload_conf()`;
	const things = await worldOf(owner);
	const following = await owner<{ state: string }[]>`select state from pg_stat_replication`;
	if (following[0]?.state !== 'streaming') throw new Error('Nothing follows the database.');
	await owner.end();

	const at = (url: string, port: number) => {
		const there = new URL(url);
		there.port = String(port);
		return there.href;
	};
	const cut = await TcpCut.before(direct.DATABASE_URL);
	undo.unshift(() => cut.close());
	const web = await startWeb(
		{ ...direct, DATABASE_URL: cut.url, LOG_LEVEL: 'silent' },
		{ port: 8720, quiet: true }
	);
	undo.unshift(() => web.stop());
	const cookie = (await signInDemo(web.address, 'ilse@osmund.example')).join('; ');
	const ilse = { address: web.address, cookie, person: 'demo-ilse' };
	let over = false;
	const rounds = [inspecting(things.masks), reading(things.cylinders[0] ?? '')];
	const writers = rounds.map((_, i) => new Writer(ilse, new Chance(i + 1), () => over));
	const working = writers.map((writer, i) => writer.run(rounds[i] ?? (() => Promise.resolve())));
	const taken = () =>
		writers.flatMap(({ deeds }) => deeds).filter(({ state }) => state === 'taken').length;
	await pause(BEFORE_MS);
	const before = taken();

	const killed = performance.now();
	cut.sever();
	await first.halt();
	const promoting = postgres(second.url, { max: 1, onnotice: () => {} });
	await promoting`alter system set synchronous_standby_names = ''`;
	await promoting`select pg_promote()`;
	await promoting`select pg_reload_conf()`;
	cut.turnTo(at(direct.DATABASE_URL, second.port));
	await cut.mend();
	const known = taken();
	while (taken() === known) await pause(20);
	const waited = performance.now() - killed;
	await pause(AFTER_MS);
	over = true;
	await Promise.all(working);

	const deeds = writers.flatMap((writer) => writer.deeds);
	const count = await countDeeds(promoting, deeds);
	await promoting.end();
	const { db, close } = openDatabase(second.url, { max: 1 });
	const chain = await verifyChain(db);
	await close();
	console.log(`acknowledged before the loss: ${before}, in all: ${count.acknowledged}`);
	console.log(`from the kill to the next record that was taken: ${(waited / 1000).toFixed(1)} s`);
	console.log(
		`lost: ${count.lost.length}, doubled: ${count.doubled.length}, half-written: ${count.half.length}, refused: ${count.refused}`
	);
	console.log(
		`log: ${chain.faults.length ? JSON.stringify(chain.faults.slice(0, 3)) : 'whole'}, ${chain.entries} entries`
	);
	right =
		count.acknowledged > before &&
		count.lost.length + count.doubled.length + count.half.length + chain.faults.length === 0;
} finally {
	for (const step of undo) await step().catch((error: unknown) => console.log(String(error)));
}
process.exit(right ? 0 : 1);
