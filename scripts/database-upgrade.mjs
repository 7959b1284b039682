// Takes the data of the project's database over to a newer PostgreSQL: a copy is made by it, compared with the old one
// table by table, and only then put in its place. The old one is kept.
import { existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { clusterPlace, startCluster } from './lib/cluster.mjs';
import { ensureDependencies } from './lib/dependencies.mjs';
import { takeLock } from './lib/lock.mjs';
import { dataDir } from './lib/paths.mjs';
import { run } from './lib/process.mjs';
import { runMain, say, Stop } from './lib/say.mjs';
import { ensureSystemPackages, postgresBin, postgresVersions } from './lib/system.mjs';
import { sameContent } from './lib/same-content.mjs';

const NAME = 'database';
const NEXT = 'database-next';

/** @param {string | undefined} asked a version, such as 17; the newest that is installed without */
async function upgrade(asked) {
	const { dir, version } = await clusterPlace(NAME);
	const next = await clusterPlace(NEXT);
	if (version === undefined) {
		if (next.version === undefined || !existsSync(keptPlace(dir, next.version)))
			throw new Stop(`There is no database in ${dir} yet: npm start makes one.`);
		// It ended between the two renames; the copy was compared by then.
		renameSync(next.dir, dir);
		say(`The upgrade that was interrupted is done: PostgreSQL ${next.version}.`);
		return;
	}
	const to = asked ? Number(asked) : (postgresVersions()[0] ?? version);
	if (!postgresBin(to)) throw new Stop(`PostgreSQL ${to} is not installed.`);
	if (!postgresBin(version))
		throw new Stop(
			`PostgreSQL ${version}, which made ${dir}, has to be there to read it: install postgresql-${version} beside ${to}. Nothing was touched.`
		);
	if (to === version && !asked) {
		say(`${dir} was made by PostgreSQL ${version}, the newest that is installed. Nothing to do.`);
		return;
	}
	const kept = keptPlace(dir, to);
	if (existsSync(kept))
		throw new Stop(`${kept} is there from an upgrade before. Move it away first.`);
	// A copy that was not finished; nobody has worked with it.
	if (existsSync(next.dir)) rmSync(next.dir, { recursive: true });
	const old = await startCluster(NAME);
	try {
		const fresh = await startCluster(NEXT, { version: to, secret: NAME, port: old.port + 1 });
		try {
			await copy(old.url, fresh.url, postgresBin(to) ?? '');
			const tables = await sameContent(old.url, fresh.url);
			say(`${tables} tables are the same in both.`);
		} finally {
			await fresh.stop();
		}
	} finally {
		await old.stop();
	}
	renameSync(dir, kept);
	renameSync(next.dir, dir);
	say(
		`The database is PostgreSQL ${to} now. The old one is kept in ${kept}; remove it once all is well.`
	);
}

/**
 * Where the old one is kept.
 * @param {string} dir
 * @param {number} to
 */
const keptPlace = (dir, to) => `${dir}.before-${to}`;

/**
 * @param {string} from
 * @param {string} to
 * @param {string} bin of the newer version, which reads the older
 */
async function copy(from, to, bin) {
	mkdirSync(dataDir, { recursive: true, mode: 0o711 });
	const [roles, file] = [join(dataDir, 'upgrade.roles'), join(dataDir, 'upgrade.dump')];
	const tool = (/** @type {string} */ program, /** @type {string[]} */ args) =>
		run(join(bin, program), args, { quiet: true });
	try {
		await tool('pg_dumpall', ['--roles-only', '-d', from, '-f', roles]);
		// The role that owns all is there already.
		await tool('psql', ['-q', '-d', to, '-f', roles]);
		await tool('pg_dump', ['-Fc', '-d', from, '-f', file]);
		await tool('pg_restore', ['--exit-on-error', '--single-transaction', '-d', to, file]);
	} finally {
		for (const left of [roles, file]) rmSync(left, { force: true });
	}
}

await runMain(async () => {
	await ensureSystemPackages({ postgres: true });
	await ensureDependencies();
	const lock = await takeLock('start');
	try {
		const to = process.argv.indexOf('--to');
		await upgrade(to < 0 ? undefined : process.argv[to + 1]);
	} finally {
		await lock.release();
	}
});
