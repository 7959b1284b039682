/**
 * Chances of many tests at once, made so that a limit on them holds the share of false finds among all finds.
 * Published: Benjamini & Hochberg, J. R. Stat. Soc. B 57 (1995) 289; from memory.
 * @returns adjusted chances in the order given, none below its own, none above 1
 */
export function falseDiscovery(chances: readonly number[]): number[] {
	const order = chances.map((p, i) => ({ p, i })).sort((a, b) => b.p - a.p);
	const adjusted = new Array<number>(chances.length).fill(1);
	let least = 1;
	order.forEach(({ p, i }, from) => {
		least = Math.min(least, p * (chances.length / (chances.length - from)));
		adjusted[i] = least;
	});
	return adjusted;
}
