/**
 * How a fault ends. released: mended and let go; withdrawn: reported by mistake and taken back; retired: its item is out of use for good;
 * not-confirmed: looked for and not found.
 */
export const FAULT_ENDS = ['released', 'withdrawn', 'retired', 'not-confirmed'] as const;
export type FaultEnd = (typeof FAULT_ENDS)[number];

export const FAULT_END_WORDS: Record<FaultEnd, string> = {
	released: 'repaired',
	withdrawn: 'taken back',
	retired: 'out of use for good',
	'not-confirmed': 'not confirmed'
};

/** Why a part left its station. failed: a fault was found there; changed: on schedule, or along with another; retired: with its item. */
export const PART_ENDS = ['failed', 'changed', 'retired'] as const;
export type PartEnd = (typeof PART_ENDS)[number];
