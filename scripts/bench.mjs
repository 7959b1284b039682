// Prints the figures of speed and size. Nothing here passes or fails.
import { ensureDependencies } from './lib/dependencies.mjs';
import { runMain, say } from './lib/say.mjs';
import { withScratchApp } from './lib/scratch.mjs';
import { runScript } from './lib/tsx.mjs';

const ITEMS = process.env.BENCH_ITEMS ?? '10000';
const ROUNDS = process.env.BENCH_ROUNDS ?? '1';

await runMain(async () => {
	await ensureDependencies();
	await runScript('bench-core', {});
	await runScript('bench-drill', {});
	if (process.argv.includes('--listen')) return listening();
	if (process.argv.includes('--look')) return looking();
	if (process.argv.includes('--core')) return;
	if (process.argv.includes('--board')) return board();
	if (process.argv.includes('--freeze')) return freeze();
	if (process.argv.includes('--write')) return write();
	if (process.argv.includes('--import')) return measured('bench-import', {});
	if (process.argv.includes('--plan')) return measured('bench-plan', {});
	if (process.argv.includes('--learn')) return learning();
	if (process.argv.includes('--pages')) return pages();
	await listening();
	await looking();
	await measured('bench-live', { benches: 100 });
	if (process.argv.includes('--live')) return;
	await write();
	await measured('bench-plan', {});
	await learning();
	await measured('bench-import', {});
	await board();
	await freeze();
	await pages();
});

/**
 * A script of figures beside an app of its own.
 * @param {string} name
 * @param {Parameters<typeof withScratchApp>[1]} options
 * @param {(timings: Record<string, number>) => void} first what is said before
 */
function measured(name, options, first = () => {}) {
	return withScratchApp(name, options, async ({ address, env, timings }) => {
		first(timings);
		await runScript(name, { ...env, BENCH_ADDRESS: address });
	});
}

/** The ear for warning whistles. */
async function listening() {
	await runScript('bench-listen', {});
}

/** The eye for gauges. */
async function looking() {
	await runScript('bench-dial', {});
}

/** What the record teaches, and a recall, with four thousand items. */
function learning() {
	return measured('bench-learn', { seed: { GREVAN_SEED_ITEMS: '4000', GREVAN_SEED_ROUNDS: '1' } });
}

/** The pages with many items and many people, then what a browser has of them. */
function pages() {
	say(`Filling a database with ${ITEMS} items ...`);
	const seed = { GREVAN_SEED_ITEMS: ITEMS, GREVAN_SEED_ROUNDS: ROUNDS };
	// The database itself counts what it is asked, and how long it took.
	const settings = ['shared_preload_libraries=pg_stat_statements'];
	return withScratchApp('bench-run', { seed, settings }, async ({ address, env, timings }) => {
		const { clusterMs, seedMs, webMs } = timings;
		say(`database cluster made and started  ${clusterMs?.toFixed(0)} ms`);
		say(`demo of ${ITEMS} items written       ${((seedMs ?? 0) / 1000).toFixed(1)} s`);
		say(`web process start to first answer  ${webMs?.toFixed(0)} ms`);
		await runScript('bench-run', { ...env, BENCH_ADDRESS: address });
		await runScript('bench-browser', { ...env, BENCH_ADDRESS: address });
	});
}

/** Fifty writers on the one write path. */
function write() {
	// The database keeps the time of each commit, to be set against when the chain was taken.
	const settings = [
		'track_commit_timestamp=on',
		// As durable as a site's own, since the writing to disk is part of what is measured.
		'fsync=on',
		'synchronous_commit=on',
		'full_page_writes=on'
	];
	return measured('bench-write', { settings });
}

/** The heaviest requests at once, while an alarm of the entry board falls due. */
function freeze() {
	return measured('bench-freeze', {});
}

/** Three real screens of the entry board for ten minutes. */
function board() {
	return measured('bench-board', {});
}
