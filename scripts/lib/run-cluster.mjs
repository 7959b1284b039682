// Runs the server of a cluster, and stops it when the process that wanted it is gone, however that went: a start that
// is killed leaves nothing behind. Arguments: server, log, user and group (or empty), then those of the server.
import { spawn } from 'node:child_process';
import { fchownSync, openSync } from 'node:fs';

const [server = '', log = '', uid = '', gid = '', ...args] = process.argv.slice(2);
// The signals of a terminal go to its whole group; this one waits for its parent to stop the server.
for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM', 'SIGHUP']))
	process.on(signal, () => {});
// It may be gone already, before this process could listen.
if (process.connected !== false) {
	const out = openSync(log, 'a', 0o600);
	// It lies with the database: whoever copies that, such as a server that is to follow, reads it as well.
	if (uid) fchownSync(out, Number(uid), Number(gid));
	const child = spawn(server, args, {
		cwd: '/',
		stdio: ['ignore', out, out],
		detached: true,
		...(uid ? { uid: Number(uid), gid: Number(gid) } : {})
	});
	child.on('error', () => process.exit(1));
	child.on('exit', (code) => process.exit(code ?? 1));
	// Ends what is open and writes down what it has.
	process.on('disconnect', () => child.kill('SIGINT'));
}
