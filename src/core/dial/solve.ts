import { invert } from '../stats/matrix.ts';

/**
 * Least squares for a few unknowns: the normal equations (Gauss, published).
 * @param rows one row of factors a measurement
 * @param values what each measured
 * @returns null where the rows do not settle every unknown
 */
export function leastSquares(
	rows: readonly (readonly number[])[],
	values: readonly number[]
): number[] | null {
	const n = rows[0]?.length ?? 0;
	const sums = (right: (row: readonly number[], k: number) => number, i: number) =>
		rows.reduce((sum, row, k) => sum + (row[i] ?? 0) * right(row, k), 0);
	const inverse = invert(
		Array.from({ length: n }, (_, i) =>
			Array.from({ length: n }, (_, j) => sums((row) => row[j] ?? 0, i))
		)
	);
	const aims = Array.from({ length: n }, (_, i) => sums((_row, k) => values[k] ?? 0, i));
	return (
		inverse?.map((line) => line.reduce((sum, value, i) => sum + value * (aims[i] ?? 0), 0)) ?? null
	);
}
