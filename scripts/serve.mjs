// Serves the built app, by one process or by several that share its port, with its keeper beside them. Ends with the
// process that started it, so that a killed start leaves nothing behind.
import cluster from 'node:cluster';
import { fork } from 'node:child_process';
import { join } from 'node:path';
import { answer } from './lib/answer.mjs';
import { keepGoing } from './lib/keep.mjs';
import { endWithParent } from './lib/parent.mjs';
import { root } from './lib/paths.mjs';
import { processCount } from './lib/processes.mjs';

if (cluster.isWorker) await answer();
else {
	endWithParent();
	const count = processCount(process.env.GREVAN_PROCESSES);
	await startKeeper();
	if (count === 1) await answer();
	else answerByMany(count);
}

async function startKeeper() {
	const start = async () => {
		const keeper = fork(join(root, 'scripts', 'keeper.ts'), {
			cwd: root,
			execArgv: ['--import', 'tsx'],
			stdio: ['ignore', 'inherit', 'inherit', 'ipc']
		});
		keeper.on('exit', (code) => void ended(code));
	};
	const ended = keepGoing('The keeper', start, { over: () => false });
	await start();
}

/**
 * Several processes answer on the one port; one that ends is started again, the others go on meanwhile.
 * @param {number} count
 */
function answerByMany(count) {
	let over = false;
	const end = () => {
		over = true;
		const workers = Object.values(cluster.workers ?? {});
		if (workers.length === 0) process.exit(0);
		for (const worker of workers) worker?.process.kill('SIGTERM');
	};
	// One signal ends all: each answers first what it is at.
	for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM', 'SIGHUP']))
		process.on(signal, end);
	for (let i = 0; i < count; i++) {
		const start = async () => {
			cluster.fork().on('exit', (code) => {
				if (!over) return void ended(code);
				if (Object.keys(cluster.workers ?? {}).length === 0) process.exit(0);
			});
		};
		const ended = keepGoing(`Web process ${i + 1}`, start, { over: () => over });
		void start();
	}
}
