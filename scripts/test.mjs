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
const cache = join(dataDir, 'cache');
/** Mutated requests of the short run; `npm run fuzz` sends 20,000. */
const FUZZ = '1000';
/** Kills of the short run; `npm run chaos` does 300. */
const KILLS = '3';
/** How many of the slowest tests are named at the end. */
const SLOWEST = 10;
const counts = { passed: 0, failed: 0, skipped: 0 };
/** @type {{ name: string, ms: number }[]} */
const times = [];

/**
 * One check that counts as one.
 * @param {string} name
 * @param {string} program
 * @param {string[]} args
 * @param {Record<string, string>} [env]
 */
async function check(name, program, args, env = {}) {
	const started = Date.now();
	const { code, output } = await attempt(program, args, {
		cwd: root,
		env: { ...process.env, ...env }
	});
	say(`${code === 0 ? 'ok    ' : 'FAILED'} ${name} (${seconds(started)} s)`);
	if (code === 0) counts.passed++;
	else {
		counts.failed++;
		say(output);
	}
}

/** @typedef {{ passed: number, failed: number, skipped: number, times: { name: string, ms: number }[] }} Report */

/**
 * A test runner that writes its counts to a file.
 * @param {string} name
 * @param {string} program
 * @param {string[]} args
 * @param {Record<string, string>} env
 * @param {(report: any) => Report} read
 */
async function suite(name, program, args, env, read) {
	const started = Date.now();
	const file = join(results, `${name}.json`);
	rmSync(file, { force: true });
	const { code, output } = await attempt(bin(program), args, {
		cwd: root,
		env: { ...process.env, ...env, RESULT_FILE: file }
	});
	/** @type {Report} */
	let report = { passed: 0, failed: 1, skipped: 0, times: [] };
	try {
		report = read(JSON.parse(readFileSync(file, 'utf8')));
	} catch {
		say(`${name}: no results were written`);
	}
	if (code !== 0 && report.failed === 0) report.failed = 1;
	for (const key of /** @type {const} */ (['passed', 'failed', 'skipped']))
		counts[key] += report[key];
	times.push(...report.times.map((one) => ({ ...one, name: `${name}: ${one.name}` })));
	say(
		`${report.failed ? 'FAILED' : 'ok    '} ${name}: ${report.passed} passed, ${report.failed} failed (${seconds(started)} s)`
	);
	if (report.failed) say(output);
}

const seconds = (/** @type {number} */ since) => ((Date.now() - since) / 1000).toFixed(1);
/** @returns {Report} */
const vitest = (/** @type {any} */ r) => ({
	passed: r.numPassedTests,
	failed: r.numFailedTests + (r.success || r.numFailedTests ? 0 : 1),
	skipped: r.numPendingTests,
	times: r.testResults.flatMap((/** @type {any} */ file) =>
		file.assertionResults.map((/** @type {any} */ test) => ({
			name: test.fullName,
			ms: test.duration ?? 0
		}))
	)
});
/** @returns {Report} */
const playwright = (/** @type {any} */ r) => ({
	passed: r.stats.expected,
	failed: r.stats.unexpected + r.stats.flaky,
	skipped: r.stats.skipped,
	times: r.suites.flatMap(specsOf).map((/** @type {any} */ spec) => ({
		name: spec.title,
		ms: spec.tests[0]?.results[0]?.duration ?? 0
	}))
});
/** @type {(suite: any) => any[]} */
const specsOf = (suite) => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specsOf)];

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

/** @param {string} project */
const vitestArgs = (project) => [
	'run',
	'--project',
	project,
	'--reporter=default',
	'--reporter=json',
	`--outputFile.json=${join(results, `${project}.json`)}`
];

await runMain(async () => {
	const began = Date.now();
	const only = process.argv.slice(2).filter((word) => !word.startsWith('-'));
	const wanted = (/** @type {string} */ name) => only.length === 0 || only.includes(name);
	await ensureSystemPackages({ chromium: wanted('browser') });
	await ensureDependencies();
	for (const folder of [results, cache]) mkdirSync(folder, { recursive: true, mode: 0o711 });
	await clearAway();
	const name = `test-${process.pid}`;
	const cluster = await startCluster(name, {
		durable: false,
		port: 25_421,
		// Every app of the browser tests and every file of the others holds some.
		settings: ['max_connections=200']
	});
	const halt = async () => {
		await cluster.halt();
		removeCluster(cluster, name);
	};
	for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM']))
		process.on(signal, () => void halt().then(() => process.exit(130)));
	const env = { TEST_DATABASE_URL: cluster.url };
	await attempt(bin('svelte-kit'), ['sync'], { cwd: root });

	const still = async () => {
		if (wanted('static')) {
			const kept = (/** @type {string} */ file) => [
				'--cache',
				'--cache-location',
				join(cache, file)
			];
			await check('format', bin('prettier'), ['--check', ...kept('format'), '.']);
			await check('lint', bin('eslint'), [...kept('lint'), '--cache-strategy', 'content', '.']);
			await check('unused', bin('knip'), []);
			await check('types', bin('svelte-check'), [
				'--tsconfig',
				'./tsconfig.json',
				'--fail-on-warnings'
			]);
		}
		if (wanted('unit')) {
			await suite('unit', 'vitest', vitestArgs('unit'), {}, vitest);
			await suite('ui', 'vitest', vitestArgs('ui'), {}, vitest);
		}
	};
	const served = async () => {
		if (!wanted('browser')) return;
		await ensureBuild();
		await suite('browser', 'playwright', ['test'], env, playwright);
		await check('chaos', process.execPath, [join(root, 'scripts', 'chaos.mjs')], {
			CHAOS_KILLS: KILLS
		});
		await check('fuzz', process.execPath, [join(root, 'scripts', 'fuzz.mjs')], {
			FUZZ_REQUESTS: FUZZ,
			FUZZ_MOST_MS: 'Infinity'
		});
	};
	const integration = async () => {
		if (wanted('integration'))
			await suite('integration', 'vitest', vitestArgs('integration'), env, vitest);
	};
	try {
		// Side by side: much of the browser tests is waiting, much of the rest is work.
		await Promise.all([still().then(integration), served()]);
	} finally {
		await halt();
	}
	say('\nThe slowest:');
	for (const { name, ms } of times.sort((a, b) => b.ms - a.ms).slice(0, SLOWEST))
		say(`${(ms / 1000).toFixed(1).padStart(7)} s  ${name}`);
	const { passed, failed, skipped } = counts;
	say(`\nIn ${seconds(began)} s.`);
	say(`${passed} passed, ${failed} failed${skipped ? `, ${skipped} skipped` : ''}`);
	return failed ? 1 : 0;
});
