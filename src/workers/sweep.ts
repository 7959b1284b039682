import { walkSweep, type SweepResult, type SweepSpec } from '../core/filters/sweep.ts';
import { InputError } from '../core/verdict.ts';

/** What the worker says while it walks a sweep. */
export type SweepMessage =
	| { kind: 'progress'; done: number }
	| { kind: 'result'; result: SweepResult; ms: number }
	| { kind: 'fault'; path: string; message: string };

const say = (message: SweepMessage) => postMessage(message);

addEventListener('message', (event: MessageEvent<SweepSpec>) => {
	const started = performance.now();
	try {
		const walk = walkSweep(event.data);
		for (let step = walk.next(); ; step = walk.next()) {
			if (step.done) {
				say({ kind: 'result', result: step.value, ms: performance.now() - started });
				return;
			}
			say({ kind: 'progress', done: step.value });
		}
	} catch (error) {
		if (!(error instanceof InputError)) throw error;
		say({ kind: 'fault', path: error.path, message: error.message });
	}
});
