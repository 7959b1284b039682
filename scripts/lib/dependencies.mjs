import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './paths.mjs';
import { run } from './process.mjs';
import { complain } from './say.mjs';

/** Installs the locked dependencies when they are lacking or not the ones of the lock file. */
export async function ensureDependencies() {
	const stamp = join(root, 'node_modules', '.grevan-lock');
	const want = createHash('sha256')
		.update(readFileSync(join(root, 'package-lock.json')))
		.update(process.version)
		.digest('hex');
	if (existsSync(stamp) && readFileSync(stamp, 'utf8') === want) return;
	complain('Installing dependencies ...');
	await run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
		cwd: root,
		quiet: true
	});
	writeFileSync(stamp, want);
}
