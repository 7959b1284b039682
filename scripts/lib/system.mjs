import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { run } from './process.mjs';
import { say, Stop } from './say.mjs';

const POSTGRES_ROOT = '/usr/lib/postgresql';
const CHROMIUM = ['/usr/bin/chromium', '/usr/bin/chromium-browser'];

/** @param {number} version */
const binOf = (version) => join(POSTGRES_ROOT, String(version), 'bin');

/** The installed versions of PostgreSQL that can run a database, the newest first. */
export function postgresVersions() {
	if (!existsSync(POSTGRES_ROOT)) return [];
	return readdirSync(POSTGRES_ROOT)
		.map(Number)
		.filter((version) =>
			['initdb', 'postgres'].every((program) => existsSync(join(binOf(version), program)))
		)
		.sort((a, b) => b - a);
}

/**
 * Folder with initdb, pg_ctl and postgres of a version, or of the newest; undefined where it is not installed.
 * @param {number} [version]
 */
export function postgresBin(version) {
	const versions = postgresVersions();
	const found = version === undefined ? versions[0] : versions.find((one) => one === version);
	return found === undefined ? undefined : binOf(found);
}

/** Path of Debian's Chromium; undefined without one. */
export const chromiumPath = () => CHROMIUM.find((path) => existsSync(path));

/**
 * Installs the system packages that are lacking, as root; says exactly which otherwise.
 * @param {{ chromium?: boolean, postgres?: boolean }} needs
 */
export async function ensureSystemPackages({ chromium = false, postgres = true }) {
	const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
	if (major < 20 || (major === 20 && minor < 19))
		throw new Stop(`Grevan needs Node.js 20.19 or newer; this is ${process.versions.node}.`);
	const lacking = [
		...(postgres && !postgresBin() ? ['postgresql'] : []),
		...(chromium && !chromiumPath() ? ['chromium'] : [])
	];
	if (lacking.length === 0) return;
	const command = `apt-get install -y --no-install-recommends ${lacking.join(' ')}`;
	if (process.getuid?.() !== 0)
		throw new Stop(
			`This machine lacks the Debian ${lacking.length === 1 ? 'package' : 'packages'} ${lacking.join(' and ')}. Ask an administrator to run:\n  ${command}`
		);
	say(`Installing ${lacking.join(', ')} from Debian's packages ...`);
	const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
	await run('apt-get', ['update'], { quiet: true, env });
	await run('apt-get', command.split(' ').slice(1), { quiet: true, env });
	if ((postgres && !postgresBin()) || (chromium && !chromiumPath()))
		throw new Stop(`${command} ran, but the programs are still not there.`);
}
