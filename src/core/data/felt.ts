/** A fault that no picture shows: why, what the hand or ear finds where it is there, and where it is not. */
export interface Felt {
	/** Why nothing is drawn. */
	why: string;
	found: string;
	good: string;
}

/** What is felt, heard or measured rather than seen, by reject code. Common practice. */
export const FELT: Readonly<Record<string, Felt>> = {
	STIFF: {
		why: 'Felt, not seen: it looks as it did when it was soft.',
		found: 'Bent, it resists and a crumb breaks off.',
		good: 'Bent, it gives and is soft.'
	},
	STICKY: {
		why: 'Felt, not seen: the finger sticks to it.',
		found: 'The finger sticks to it and leaves a print.',
		good: 'The finger slides over it.'
	},
	DIST: {
		why: 'Felt all round with a finger: the bend is too slight for a picture.',
		found: 'The finger feels where it leaves its line.',
		good: 'The finger runs round without a bend.'
	},
	SEALF: {
		why: 'Felt by its wearer: it draws in air past the edge.',
		found: 'With the palm on the port it does not stay drawn in.',
		good: 'With the palm on the port it draws in and stays.'
	},
	LEAK: {
		why: 'Heard or measured: air that leaves is not seen.',
		found: 'It hisses, and the gauge falls.',
		good: 'Nothing is heard; the gauge stands still.'
	},
	FREE: {
		why: 'Heard: air flows although nobody breathes.',
		found: 'Air flows on by itself.',
		good: 'No air flows until somebody breathes.'
	},
	DEMD: {
		why: 'Felt and heard at the first breath.',
		found: 'At the first breath it does not switch over.',
		good: 'The first breath switches it with a click.'
	},
	ALRM: {
		why: 'Heard: there is nothing to be seen of it.',
		found: 'Tried, it stays silent.',
		good: 'Tried, it sounds.'
	},
	CLOG: {
		why: 'Felt at the breath: what stops the air lies inside.',
		found: 'It is hard to breathe or blow through.',
		good: 'Air goes through without effort.'
	},
	LOOSE: {
		why: 'Felt: it gives when it is pulled or turned.',
		found: 'Pulled, it gives.',
		good: 'Pulled, it stays.'
	},
	RATTLE: {
		why: 'Heard when it is shaken.',
		found: 'Shaken, it rattles.',
		good: 'Shaken, nothing moves.'
	},
	WET: {
		why: 'Felt: it is moist to the hand.',
		found: 'It is moist to the hand.',
		good: 'It is dry to the hand.'
	},
	FLOW: {
		why: 'Measured with its indicator.',
		found: 'The indicator stays below its mark.',
		good: 'The indicator is at its mark.'
	},
	DENT: {
		why: 'Felt under the paint, where the light hides it.',
		found: 'The thumb finds a hollow.',
		good: 'The thumb runs over it evenly.'
	}
};
