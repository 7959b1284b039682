/** A gauge's figure at a moment. */
export interface GaugeMoment {
	/** s, of any clock that is the same for all of them. */
	atS: number;
	bar: number;
}

/** What the pressure was as the whistle began. */
export interface OnsetFigure {
	bar: number;
	/** About two standard deviations, bar. */
	plusMinusBar: number;
}

/** How far the ear may be off the onset, s: the whole of its errors in the benchmark at 6 dB and above. Site. */
export const EAR_S = 0.15;
/** How late a figure of the bench may come, s. Site. */
const WAY_S = 0.15;

/**
 * The figure of the gauge as the whistle began, between those that the bench gave before and after. How fast it fell times
 * how late ear and bench may be is what it is uncertain by.
 * @param stream in the order of time
 * @param onsetS of the same clock
 * @param stepBar from one figure of the gauge to the next that it can show
 * @returns null where no figure stands on either side of the onset
 */
export function figureAtOnset(
	stream: readonly GaugeMoment[],
	onsetS: number,
	stepBar = 0.1
): OnsetFigure | null {
	const after = stream.findIndex(({ atS }) => atS >= onsetS);
	const [later, earlier] = [stream[after], stream[after - 1]];
	if (!later || !earlier || later.atS <= earlier.atS) return null;
	const share = (onsetS - earlier.atS) / (later.atS - earlier.atS);
	const perS = Math.abs(later.bar - earlier.bar) / (later.atS - earlier.atS);
	return {
		bar: earlier.bar + share * (later.bar - earlier.bar),
		plusMinusBar: perS * Math.hypot(EAR_S, WAY_S) + stepBar / 2
	};
}

/**
 * What a figure that was called or read by eye is late by.
 * @param onsetS when the whistle began
 * @param readS when the figure was taken
 * @param barPerS how fast it is let down at the most
 * @returns bar that the whistle may have begun above the figure
 */
export const lateBy = (onsetS: number, readS: number, barPerS: number): number =>
	Math.max(0, readS - onsetS + EAR_S) * barPerS;
