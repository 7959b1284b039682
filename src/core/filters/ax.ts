import { published, type Reason } from '../verdict.ts';

/** Group 1 of the low boilers, and what only group 2 may be worn in. The group is rarely known. */
const AX_TIMES: readonly { upToPpm: number; minutes: number; group: 1 | 2 }[] = [
	{ upToPpm: 100, minutes: 40, group: 1 },
	{ upToPpm: 500, minutes: 20, group: 1 },
	{ upToPpm: 5000, minutes: 20, group: 2 }
];
const AX_ORIGIN = published('group rules for AX filters to EN 14387');

/**
 * Longest use of an AX filter at a concentration in ppm, once only; 0 above every group.
 * Published: group rules for AX filters; from memory. Group 1 is assumed as far as it goes, as the group is rarely
 * known; above it only a substance that the maker lists in group 2.
 */
export function axTime(name: string, ppm: number): { minutes: number; reason: Reason } {
	const row = AX_TIMES.find((entry) => ppm <= entry.upToPpm);
	const minutes = row?.minutes ?? 0;
	const group =
		row?.group === 2
			? 'only where the maker lists it in group 2'
			: 'group 1, as the group is not known';
	return {
		minutes,
		reason: {
			rule: 'change.ax',
			text: row
				? `${name} boils at or below 65 °C: AX, once, ${minutes} min up to ${row.upToPpm} ppm (${group}).`
				: `${name} lies above what an AX filter may be worn in.`,
			origin: AX_ORIGIN,
			limit: minutes,
			unit: 'min'
		}
	};
}
