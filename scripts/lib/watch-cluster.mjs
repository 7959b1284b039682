// Stops a database whose process is gone: whoever started it is watched through the channel to this process, so that
// a start that is killed leaves nothing behind.
import { spawn } from 'node:child_process';

const [ctl = '', dir = '', uid = '', gid = ''] = process.argv.slice(2);
for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM', 'SIGHUP']))
	process.on(signal, () => {});
// Nothing else keeps this process from ending.
process.channel?.ref();
process.on('disconnect', stop);
// It may be gone already, before this process could listen.
if (process.connected === false) stop();

function stop() {
	const child = spawn(ctl, ['-D', dir, '-m', 'fast', '-w', '-t', '30', 'stop'], {
		cwd: '/',
		stdio: 'ignore',
		...(uid ? { uid: Number(uid), gid: Number(gid) } : {})
	});
	child.on('exit', () => process.exit(0));
	child.on('error', () => process.exit(1));
}
