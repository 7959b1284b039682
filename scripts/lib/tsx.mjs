import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensureDependencies } from './dependencies.mjs';
import { bin, root } from './paths.mjs';
import { run } from './process.mjs';
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

/**
 * Runs a script of the project beside others. @throws where it fails
 * @param {string} name of its file in scripts, without the ending
 * @param {Record<string, string | undefined>} env what it is told beside this process's own
 */
export const runScript = (name, env) =>
	run(bin('tsx'), [join(root, 'scripts', `${name}.ts`)], {
		cwd: root,
		env: { ...process.env, ...env }
	});
