/** Standard atomic weights, g/mol. Published: IUPAC 2021 abridged table; from memory. */
// prettier-ignore
export const ATOMIC_WEIGHTS: Record<string, number> = {
	H: 1.008, He: 4.0026, Be: 9.0122, B: 10.81, C: 12.011, N: 14.007, O: 15.999, F: 18.998, Na: 22.990, Al: 26.982, Si: 28.085, P: 30.974, S: 32.06, Cl: 35.45,
	Ar: 39.95, Ca: 40.078, Ti: 47.867, V: 50.942, Cr: 51.996, Mn: 54.938, Fe: 55.845, Co: 58.933, Ni: 58.693,
	Cu: 63.546, Zn: 65.38, As: 74.922, Br: 79.904, Cd: 112.414, Sb: 121.760, I: 126.904, Hg: 200.592, Pb: 207.2
};

/** Molar mass in g/mol of a plain formula such as C2H3Cl3. Throws RangeError on an unknown element. */
export function molarMassOfFormula(formula: string): number {
	let total = 0;
	for (const [, element = '', count] of formula.matchAll(/([A-Z][a-z]?)(\d*)/g)) {
		const weight = ATOMIC_WEIGHTS[element];
		if (weight === undefined) throw new RangeError(`No atomic weight for ${element}.`);
		total += weight * (count ? Number(count) : 1);
	}
	return total;
}
