import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Piscina } from 'piscina';
import { z } from 'zod';
import { InputError } from '../../../core/verdict.ts';
import { Refusal } from '../kernel/refusal.ts';
import type { Crossed, HeavyName, HeavyTasks } from './heavy-worker.ts';

/** Threads at once: one is left to whoever answers. Common practice. */
const THREADS = 2;
/** What is worked on or waits for a thread; beyond that one is asked to come again. Common practice. */
const MOST_ASKED = 64;
/** Longest that one task may take, ms. Common practice; a machine that has much else to do may be given more. */
const HEAVY_LIMIT_MS = z.coerce
	.number()
	.int()
	.min(1000)
	.catch(10_000)
	.parse(process.env.GREVAN_HEAVY_LIMIT_MS);
const IDLE_MS = 60_000;
const MOST_MEMORY_MB = 512;
/** Less urgent than answering. */
const NICE = 5;

/** The app is always run from its own folder; the worker is read from its source, as the scripts are. */
const WORKER = 'src/lib/server/jobs/heavy-worker.ts';
let pool: Piscina | undefined;
let asked = 0;

const threads = (): Piscina =>
	(pool ??= new Piscina({
		filename: pathToFileURL(resolve(WORKER)).href,
		execArgv: ['--import', 'tsx'],
		minThreads: 1,
		maxThreads: THREADS,
		idleTimeout: IDLE_MS,
		niceIncrement: NICE,
		resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB }
	}));

/** Readies a thread before anybody waits for it. */
export const warmHeavy = (): void => void threads();

/** Ends the threads, as tests do. */
export const closeHeavy = async (): Promise<void> => {
	await pool?.destroy();
	pool = undefined;
};

/**
 * Works something out on a thread of its own, so that nobody else waits for it.
 * @throws InputError as the task does; Refusal where it takes too long or too much already waits
 */
export async function heavy<N extends HeavyName>(
	task: N,
	given: HeavyTasks[N]['in'],
	limitMs = HEAVY_LIMIT_MS
): Promise<HeavyTasks[N]['out']> {
	if (asked >= MOST_ASKED)
		throw new Refusal('busy', 'Too much is being worked out just now. Try again in a moment.');
	asked++;
	let crossed: Crossed<HeavyTasks[N]['out']>;
	try {
		const signal = AbortSignal.timeout(limitMs);
		crossed = (await threads().run({ task, given }, { signal })) as typeof crossed;
	} catch (cause) {
		const { name, code } = cause as Error & { code?: string };
		if (name === 'AbortError' || name === 'TimeoutError')
			throw new Refusal(
				'too much',
				`This takes longer than ${limitMs / 1000} s. Ask for less at once.`
			);
		if (code === 'ERR_WORKER_OUT_OF_MEMORY')
			throw new Refusal('too much', 'This takes more memory than there is. Ask for less at once.');
		throw cause;
	} finally {
		asked--;
	}
	if (crossed.ok) return crossed.value;
	throw new InputError(crossed.path, crossed.message);
}
