import { compareRates, type RatesCompared } from '../stats/compare-rates.ts';
import type { Cell } from './causes.ts';

/** One item with what it may owe its faults to. */
export interface Counted {
	model: string;
	place: string;
	/** Lots of its parts as part=lot. */
	lots: readonly string[];
	agent: string | null;
	inspections: number;
	failures: number;
}

/** Rates of the levels of one factor beside each other. */
export interface FactorRates extends RatesCompared {
	factor: string;
}

/** An item as a cell: its model, its place, the lot of each of its parts, what its last bath was made with. */
export const asCell = (row: Counted, nameOfPart: (part: string) => string): Cell => ({
	failures: row.failures,
	exposure: row.inspections,
	of: {
		model: row.model,
		place: row.place,
		...(row.agent ? { bath: row.agent } : {}),
		...Object.fromEntries(
			row.lots.map((said) => {
				const [part = '', lot = ''] = said.split('=');
				return [`lot of ${nameOfPart(part).toLowerCase()}`, lot] as const;
			})
		)
	}
});

/** Cells that are alike, put together. */
export function alike(cells: readonly Cell[]): Cell[] {
	const merged = new Map<string, Cell>();
	for (const cell of cells) {
		const key = JSON.stringify(Object.entries(cell.of).sort(([a], [b]) => a.localeCompare(b)));
		const held = merged.get(key);
		if (held) {
			held.failures += cell.failures;
			held.exposure += cell.exposure;
		} else merged.set(key, { ...cell });
	}
	return [...merged.values()];
}

/** Factors in the order of how little chance alone would make such a difference; those of one level are left out. */
export function ratesByFactor(cells: readonly Cell[]): FactorRates[] {
	const factors = new Map<string, Map<string, { failures: number; trials: number }>>();
	for (const { of, failures, exposure } of cells)
		for (const [factor, level] of Object.entries(of)) {
			const levels = factors.get(factor) ?? new Map<string, { failures: number; trials: number }>();
			factors.set(factor, levels);
			const held = levels.get(level) ?? { failures: 0, trials: 0 };
			levels.set(level, {
				failures: held.failures + failures,
				trials: held.trials + exposure
			});
		}
	return [...factors]
		.flatMap(([factor, levels]) => {
			const groups = [...levels]
				.filter(([, { trials }]) => trials > 0)
				// More than one fault can come of one inspection: counted as one each, so that a share stays one.
				.map(([name, { failures, trials }]) => ({
					name,
					failures: Math.min(failures, trials),
					trials
				}));
			return groups.length > 1 ? [{ factor, ...compareRates(groups) }] : [];
		})
		.map((one) => ({ ...one, rates: one.rates.sort((a, b) => b.rate - a.rate) }))
		.sort((a, b) => a.pValue - b.pValue);
}
