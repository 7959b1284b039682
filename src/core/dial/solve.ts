/**
 * Least squares for a few unknowns: the normal equations by elimination with the largest pivot (Gauss, published).
 * @param rows one row of factors a measurement
 * @param values what each measured
 * @param weights what each counts
 * @returns null where the rows do not settle every unknown
 */
export function leastSquares(
	rows: readonly (readonly number[])[],
	values: readonly number[],
	weights?: readonly number[]
): number[] | null {
	const n = rows[0]?.length ?? 0;
	const table = Array.from({ length: n }, (_, i) =>
		Array.from({ length: n + 1 }, (_, j) =>
			rows.reduce((sum, row, k) => {
				const right = j === n ? (values[k] ?? 0) : (row[j] ?? 0);
				return sum + (weights?.[k] ?? 1) * (row[i] ?? 0) * right;
			}, 0)
		)
	);
	for (let i = 0; i < n; i++) {
		let best = i;
		for (let k = i + 1; k < n; k++)
			if (Math.abs(table[k]?.[i] ?? 0) > Math.abs(table[best]?.[i] ?? 0)) best = k;
		const [pivot, own] = [table[best], table[i]];
		if (!pivot || !own || Math.abs(pivot[i] ?? 0) < 1e-12) return null;
		[table[i], table[best]] = [pivot, own];
		for (let k = 0; k < n; k++) {
			const row = table[k];
			if (k === i || !row) continue;
			const share = (row[i] ?? 0) / (pivot[i] ?? 1);
			for (let j = i; j <= n; j++) row[j] = (row[j] ?? 0) - share * (pivot[j] ?? 0);
		}
	}
	return table.map((row, i) => (row[n] ?? 0) / (row[i] ?? 1));
}
