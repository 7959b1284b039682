/**
 * The inverse of a symmetric matrix that is above zero, by Cholesky's method.
 * @returns null where it is not, but for rounding: its columns say the same
 */
export function invert(matrix: readonly (readonly number[])[]): number[][] | null {
	const n = matrix.length;
	const lower = Array.from({ length: n }, () => new Array<number>(n).fill(0));
	const at = (rows: number[][], i: number, j: number) => rows[i]?.[j] ?? 0;
	for (let i = 0; i < n; i++)
		for (let j = 0; j <= i; j++) {
			let sum = matrix[i]?.[j] ?? 0;
			for (let k = 0; k < j; k++) sum -= at(lower, i, k) * at(lower, j, k);
			const row = lower[i] ?? [];
			if (i > j) row[j] = sum / at(lower, j, j);
			else if (sum > 1e-11 * (matrix[i]?.[i] ?? 0)) row[i] = Math.sqrt(sum);
			else return null;
		}
	return Array.from({ length: n }, (_, column) => {
		const x = new Array<number>(n).fill(0);
		for (let i = 0; i < n; i++) {
			let sum = i === column ? 1 : 0;
			for (let k = 0; k < i; k++) sum -= at(lower, i, k) * (x[k] ?? 0);
			x[i] = sum / at(lower, i, i);
		}
		for (let i = n - 1; i >= 0; i--) {
			let sum = x[i] ?? 0;
			for (let k = i + 1; k < n; k++) sum -= at(lower, k, i) * (x[k] ?? 0);
			x[i] = sum / at(lower, i, i);
		}
		return x;
	});
}
