import { commonPractice } from '../verdict.ts';

/** How the inlet of a mask is blocked for a seal check. Common practice; the maker's own words come first. */
export const BLOCKING = {
	cartridges: {
		name: 'Cartridges',
		how: 'Lay a palm lightly over the face of each cartridge.',
		wrong: 'Do not press: the mask is pushed onto the face and any seal seems good.'
	},
	'round-pads': {
		name: 'Round pads',
		how: 'Press the thumbs gently into the centre of both pads.',
		wrong: 'Only the middle: a pad bent at its rim lifts the mask.'
	},
	'flat-pads': {
		name: 'Flat or enclosed pads',
		how: 'Squeeze each pad flat between thumb and fingers.',
		wrong: 'Do not pull at the pads.'
	},
	'prefilter-cap': {
		name: 'Pre-filter cap with a hole',
		how: 'Cover the hole of each pre-filter cap with the palm.',
		wrong: 'Keep the fingers off the facepiece.'
	},
	hose: {
		name: 'Canister or hose',
		how: 'Pinch the hose near the canister, or lay the palm over the inlet of the canister.',
		wrong: 'Not near the mask: the pull bends its edge.'
	},
	port: {
		name: 'Open port (breathing apparatus)',
		how: 'Lay the palm over the connection port of the mask.',
		wrong: 'A light touch; the mask must stay where the straps hold it.'
	}
} as const;
export type Inlet = keyof typeof BLOCKING;

/** The two ways of a seal check, and what is done. Common practice; the maker's own words come first. */
export const SEAL_WAYS = {
	in: { name: 'Breathing in', how: 'Breathe in gently and hold' },
	out: {
		name: 'Breathing out',
		how: 'Lay the palm lightly over the exhalation cover; breathe out gently and hold'
	}
} as const;
export type SealWay = keyof typeof SEAL_WAYS;

/** How long an under-pressure is held, s. Common practice; several makers print ten. */
export const SEAL_HOLD_S = 10;
export const SEAL_CHECK_ORIGIN = commonPractice();

/** How its maker says that a model is put on and its seal checked. */
export interface DonningCard {
	/** Steps and straps in their order. */
	straps: string[];
	/** How its inlet is blocked, where the family has several. */
	inlet: Inlet | null;
	/** How long the under-pressure is held, s. */
	holdSeconds: number | null;
	/** Which ways its seal can be checked; left out: both. */
	ways?: SealWay[];
}
