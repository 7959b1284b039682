/** Ranks from 1, ties sharing their middle rank. */
function ranks(values: readonly number[]): number[] {
	const order = values.map((value, i) => ({ value, i })).sort((a, b) => a.value - b.value);
	const out = new Array<number>(values.length).fill(0);
	for (let from = 0; from < order.length;) {
		let to = from;
		while (to + 1 < order.length && order[to + 1]?.value === order[from]?.value) to++;
		for (let k = from; k <= to; k++) out[order[k]?.i ?? 0] = (from + to) / 2 + 1;
		from = to + 1;
	}
	return out;
}

/**
 * Rank correlation. Published: Spearman, American Journal of Psychology 15 (1904) 72; ties by their middle ranks.
 * @throws RangeError where the lists differ in length or say nothing
 */
export function rankCorrelation(a: readonly number[], b: readonly number[]): number {
	if (a.length !== b.length || a.length < 2)
		throw new RangeError('Rank correlation needs two lists of the same length, two at least.');
	const [x, y] = [ranks(a), ranks(b)];
	const middle = (a.length + 1) / 2;
	let [xy, xx, yy] = [0, 0, 0];
	for (const [i, rank] of x.entries()) {
		const [dx, dy] = [rank - middle, (y[i] ?? 0) - middle];
		xy += dx * dy;
		xx += dx * dx;
		yy += dy * dy;
	}
	if (xx === 0 || yy === 0) throw new RangeError('One of the lists is all the same.');
	return xy / Math.sqrt(xx * yy);
}
