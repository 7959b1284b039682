import { PARTS } from '../data/repairs.ts';
import type { Day } from '../plan/calendar.ts';
import { plusDays } from '../plan/calendar.ts';

/** What the store keeps beside the parts of repairs: used up at the bench, in the wash and at hand-out. Common practice. */
const CONSUMABLES: Record<string, string> = {
	'wipes-no-bleach': 'Wipes without bleach',
	detergent: 'Neutral detergent',
	disinfectant: 'Disinfectant',
	'anti-fog': 'Anti-fog',
	'o-ring-grease': 'Grease for O-rings',
	'zip-wax': 'Wax for zips',
	'lint-free-cloth': 'Lint-free cloths',
	'work-gloves': 'Gloves for the bench',
	'seal-tags': 'Seals for cupboards and carriers',
	'blank-labels': 'Blank labels'
};

/** Everything that the store keeps beside filters, by key: its name and whether it is used up and not fitted. */
export const STORE_PARTS: Readonly<Record<string, { name: string; consumable: boolean }>> = {
	...Object.fromEntries(
		Object.entries(PARTS).map(([key, { name }]) => [key, { name, consumable: false }])
	),
	...Object.fromEntries(
		Object.entries(CONSUMABLES).map(([key, name]) => [key, { name, consumable: true }])
	)
};

/** The name of what the store keeps; of what it does not know, its key. */
export const partName = (part: string): string => STORE_PARTS[part]?.name ?? part;

/** A lot as the store judges it. */
export interface StoredLot {
	quantity: number;
	/** Last day of use; null: it keeps. */
	useBy: Day | null;
}

/** Days before its last day at which a lot is said to run out. Site default. */
const RUNS_OUT_DAYS = 60;

/** How much of a part there is to use on a day, whether to buy, and how much of it runs out soon. */
export function stockOf(lots: readonly StoredLot[], reorderLevel: number, asOf: Day) {
	const good = lots.filter(({ useBy }) => useBy === null || useBy >= asOf);
	const sum = (list: readonly StoredLot[]) => list.reduce((n, { quantity }) => n + quantity, 0);
	const soon = plusDays(asOf, RUNS_OUT_DAYS);
	return {
		usable: sum(good),
		/** Past their last day: they go. */
		past: sum(lots) - sum(good),
		runsOut: sum(good.filter(({ useBy }) => useBy !== null && useBy <= soon)),
		buy: sum(good) < reorderLevel
	};
}
