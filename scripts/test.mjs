// Sets everything up and runs every check: format, lint, types, unit, integration, browser.
import { mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuild } from './lib/build.mjs';
import { removeCluster, startCluster } from './lib/cluster.mjs';
import { ensureDependencies } from './lib/dependencies.mjs';
import { bin, dataDir, root } from './lib/paths.mjs';
import { alive, attempt } from './lib/process.mjs';
import { runMain, say } from './lib/say.mjs';
import { ensureSystemPackages } from './lib/system.mjs';

const results = join(dataDir, 'results');
let [passed, failed, skipped] = [0, 0, 0];

/**
 * One check that counts as one.
 * @param {string} name
 * @param {string} program
 * @param {string[]} args
 */
async function check(name, program, args) {
	const started = Date.now();
	const { code, output } = await attempt(bin(program), args, { cwd: root });
	say(`${code === 0 ? 'ok    ' : 'FAILED'} ${name} (${seconds(started)} s)`);
	if (code === 0) passed++;
	else {
		failed++;
		say(output);
	}
}

/**
 * A test runner that writes its counts to a file.
 * @param {string} name
 * @param {string} program
 * @param {string[]} args
 * @param {Record<string, string>} env
 * @param {(report: any) => { passed: number, failed: number, skipped: number }} count
 */
async function suite(name, program, args, env, count) {
	const started = Date.now();
	const file = join(results, `${name}.json`);
	rmSync(file, { force: true });
	const { code, output } = await attempt(bin(program), args, {
		cwd: root,
		env: { ...process.env, ...env, RESULT_FILE: file }
	});
	let counts = { passed: 0, failed: 1, skipped: 0 };
	try {
		counts = count(JSON.parse(readFileSync(file, 'utf8')));
	} catch {
		say(`${name}: no results were written`);
	}
	if (code !== 0 && counts.failed === 0) counts.failed = 1;
	passed += counts.passed;
	failed += counts.failed;
	skipped += counts.skipped;
	say(
		`${counts.failed ? 'FAILED' : 'ok    '} ${name}: ${counts.passed} passed, ${counts.failed} failed (${seconds(started)} s)`
	);
	if (counts.failed) say(output);
}

const seconds = (/** @type {number} */ since) => ((Date.now() - since) / 1000).toFixed(1);
const vitest = (/** @type {any} */ r) => ({
	passed: r.numPassedTests,
	failed: r.numFailedTests + (r.success || r.numFailedTests ? 0 : 1),
	skipped: r.numPendingTests
});
const playwright = (/** @type {any} */ r) => ({
	passed: r.stats.expected,
	failed: r.stats.unexpected + r.stats.flaky,
	skipped: r.stats.skipped
});

/** Test clusters of runs that were killed. */
async function clearAway() {
	for (const entry of readdirSync(dataDir)) {
		const pid = /^test-(\d+)\.secret$/.exec(entry)?.[1];
		if (!pid || alive(Number(pid))) continue;
		const name = `test-${pid}`;
		const old = await startCluster(name, { durable: false });
		await old.halt();
		removeCluster(old, name);
	}
}

await runMain(async () => {
	const only = process.argv.slice(2).filter((word) => !word.startsWith('-'));
	const wanted = (/** @type {string} */ name) => only.length === 0 || only.includes(name);
	await ensureSystemPackages({ chromium: wanted('browser') });
	await ensureDependencies();
	mkdirSync(results, { recursive: true, mode: 0o711 });
	await clearAway();
	if (wanted('static')) {
		await check('format', 'prettier', ['--check', '.']);
		await check('lint', 'eslint', ['.']);
		await attempt(bin('svelte-kit'), ['sync'], { cwd: root });
		await check('types', 'svelte-check', ['--tsconfig', './tsconfig.json', '--fail-on-warnings']);
	}
	const run = (/** @type {string} */ project) => [
		'run',
		'--project',
		project,
		'--reporter=default',
		'--reporter=json',
		`--outputFile.json=${join(results, `${project}.json`)}`
	];
	if (wanted('unit')) await suite('unit', 'vitest', run('unit'), {}, vitest);
	const name = `test-${process.pid}`;
	const cluster = await startCluster(name, { durable: false, port: 54_421 });
	const halt = async () => {
		await cluster.halt();
		removeCluster(cluster, name);
	};
	for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM']))
		process.on(signal, () => void halt().then(() => process.exit(130)));
	try {
		const env = { TEST_DATABASE_URL: cluster.url };
		if (wanted('integration'))
			await suite('integration', 'vitest', run('integration'), env, vitest);
		if (wanted('browser')) {
			await ensureBuild();
			await suite('browser', 'playwright', ['test'], env, playwright);
		}
	} finally {
		await halt();
	}
	say(`\n${passed} passed, ${failed} failed${skipped ? `, ${skipped} skipped` : ''}`);
	return failed ? 1 : 0;
});
