import { spawn } from 'node:child_process';
import { ensureDependencies } from './dependencies.mjs';
import { bin, root } from './paths.mjs';
import { runMain } from './say.mjs';

/**
 * Runs a TypeScript file of the project with the arguments of this process, and ends as it ends.
 * @param {string} file
 */
export const runTypeScript = (file) =>
	runMain(async () => {
		await ensureDependencies();
		const child = spawn(bin('tsx'), [file, ...process.argv.slice(2)], {
			cwd: root,
			stdio: 'inherit'
		});
		return new Promise((resolve) => child.on('exit', (code) => resolve(code ?? 1)));
	});
