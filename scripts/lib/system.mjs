import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { run } from './process.mjs';
import { say, Stop } from './say.mjs';

const POSTGRES_ROOT = '/usr/lib/postgresql';
const CHROMIUM = ['/usr/bin/chromium', '/usr/bin/chromium-browser'];

/** Folder with initdb, pg_ctl and postgres of the newest installed version; undefined without one. */
export function postgresBin() {
	if (!existsSync(POSTGRES_ROOT)) return undefined;
	return readdirSync(POSTGRES_ROOT)
		.sort((a, b) => Number(b) - Number(a))
		.map((version) => join(POSTGRES_ROOT, version, 'bin'))
		.find((bin) => existsSync(join(bin, 'initdb')) && existsSync(join(bin, 'postgres')));
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
