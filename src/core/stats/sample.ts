/** Geometric mean of positive numbers. */
export function geometricMean(values: readonly number[]): number {
	return Math.exp(mean(values.map(Math.log)));
}

/** Geometric standard deviation (sample form, n − 1) of positive numbers. */
export function geometricStandardDeviation(values: readonly number[]): number {
	const logs = values.map(Math.log);
	const centre = mean(logs);
	const sum = logs.reduce((total, value) => total + (value - centre) ** 2, 0);
	return Math.exp(Math.sqrt(sum / (values.length - 1)));
}

/** Spearman's rank correlation of two equally long samples; ties share their mean rank. */
export function rankCorrelation(a: readonly number[], b: readonly number[]): number {
	return correlation(ranks(a), ranks(b));
}

/** Arithmetic mean. */
export function mean(values: readonly number[]): number {
	return values.reduce((total, value) => total + value, 0) / values.length;
}

function correlation(a: readonly number[], b: readonly number[]): number {
	const [ma, mb] = [mean(a), mean(b)];
	let [ab, aa, bb] = [0, 0, 0];
	a.forEach((value, i) => {
		const [da, db] = [value - ma, (b[i] ?? mb) - mb];
		ab += da * db;
		aa += da * da;
		bb += db * db;
	});
	return ab / Math.sqrt(aa * bb);
}

function ranks(values: readonly number[]): number[] {
	const sorted = [...values].sort((x, y) => x - y);
	return values.map((v) => (sorted.indexOf(v) + sorted.lastIndexOf(v)) / 2 + 1);
}
