/** A simulated bath: filled warm, it cools to the room. */

export const BATH_FAULTS = ['none', 'broken lead', 'garbage'] as const;
export type BathFault = (typeof BATH_FAULTS)[number];

export interface BathOptions {
	/** How warm it was filled, °C. */
	fillC: number;
	roomC: number;
	/** Minutes in which half of what it is warmer than the room is gone. */
	halfMin: number;
	fault: BathFault;
}

/** How warm the bath is so many minutes after it was filled, °C. */
export const bathC = ({ fillC, roomC, halfMin }: BathOptions, minutes: number): number =>
	roomC + (fillC - roomC) * 0.5 ** (Math.max(0, minutes) / halfMin);
