// The calculation interface on the command line: npm run -s calc -- OPERATION [--lines] < input.json
import { spawn } from 'node:child_process';
import { ensureDependencies } from './lib/dependencies.mjs';
import { bin, root } from './lib/paths.mjs';
import { runMain } from './lib/say.mjs';

await runMain(async () => {
	await ensureDependencies();
	const child = spawn(bin('tsx'), ['scripts/calc-run.ts', ...process.argv.slice(2)], {
		cwd: root,
		stdio: 'inherit'
	});
	return new Promise((resolve) => child.on('exit', (code) => resolve(code ?? 1)));
});
