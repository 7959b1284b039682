/** What the tests ask of a general statistics package, to compare with. */
declare module 'jstat' {
	export const jStat: {
		gamma: { cdf(x: number, shape: number, scale: number): number };
		weibull: { cdf(x: number, scale: number, shape: number): number };
	};
}
