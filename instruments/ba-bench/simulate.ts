/** A simulated breathing-apparatus set on the bench: cylinder, reducer, whistle, and how each can be wrong. */

export const SET_FAULTS = [
	'none',
	'stuck whistle',
	'free flow',
	'frozen gauge',
	'garbage'
] as const;
export type SetFault = (typeof SET_FAULTS)[number];

export interface SetOptions {
	/** What is in the cylinder when it is opened. */
	fillBar: number;
	leakBarPerMin: number;
	/** Where its whistle begins. */
	whistleBar: number;
	/** Pressure of the reducer. */
	mediumBar: number;
	/** How fast it is let down. */
	bleedBarPerS: number;
	fault: SetFault;
}

export interface SetState {
	highBar: number;
	mediumBar: number;
	/** What the gauge showed when the whistle began; null: it is quiet. */
	whistleBar: number | null;
}

const FREE_FLOW_BAR_PER_MIN = 40;
/** Below this the reducer has nothing to reduce. */
const mediumOf = (highBar: number, mediumBar: number) => Math.min(highBar, mediumBar);

/** The set so many seconds after its cylinder was opened, let down for some of them. */
export function setState(options: SetOptions, openS: number, bleedS: number | null): SetState {
	const leak = options.fault === 'free flow' ? FREE_FLOW_BAR_PER_MIN : options.leakBarPerMin;
	const lost = (leak / 60) * (openS - (bleedS ?? 0)) + options.bleedBarPerS * (bleedS ?? 0);
	const highBar = Math.max(0, options.fillBar - lost);
	const frozen = options.fault === 'frozen gauge';
	const sounds =
		bleedS !== null && options.fault !== 'stuck whistle' && highBar <= options.whistleBar;
	const heardAt = frozen ? options.fillBar : Math.min(options.whistleBar, options.fillBar);
	return {
		highBar: frozen ? options.fillBar : highBar,
		mediumBar: mediumOf(highBar, options.mediumBar),
		whistleBar: sounds ? heardAt : null
	};
}
