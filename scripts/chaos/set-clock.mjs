// Loaded before a process of the app: its clock is set ahead by what a file says, in ms, as an administrator would.
import { readFileSync } from 'node:fs';

const file = process.env.CHAOS_CLOCK ?? '';
const LOOK_MS = 100;
const Real = Date;
let aheadMs = 0;
const look = () => {
	try {
		aheadMs = Number(readFileSync(file, 'utf8')) || 0;
	} catch {
		// It is being written.
	}
};
look();
setInterval(look, LOOK_MS).unref();
class SetDate extends Real {
	/** @param {...unknown} given */
	constructor(...given) {
		// @ts-expect-error whatever a date takes
		super(...(given.length ? given : [Real.now() + aheadMs]));
	}
	/** @override */
	static now() {
		return Real.now() + aheadMs;
	}
}
globalThis.Date = /** @type {DateConstructor} */ (/** @type {unknown} */ (SetDate));
