/**
 * Reference equation of state of dry air as a pseudo-pure fluid, 19 terms.
 * Published: Lemmon, Jacobsen, Penoncello, Friend, J. Phys. Chem. Ref. Data 29 (2000) 331; from memory.
 */

/** Reducing density, mol/L, and reducing temperature, K. */
export const REDUCING_DENSITY_MOL_PER_L = 10.4477;
export const REDUCING_TEMPERATURE_K = 132.6312;
/** Gas constant of the equation, J/(mol·K): that of its time, not the exact one of today. */
export const EQUATION_GAS_CONSTANT = 8.31451;
/** Molar mass of dry air, g/mol. Published: the same paper, 28.9586; from memory. */
export const AIR_MOLAR_MASS_G_PER_MOL = 28.9586;

/** Power of density, power of inverse temperature, power in the exponential (0: none), coefficient. */
export const AIR_TERMS: readonly (readonly [i: number, j: number, l: number, n: number])[] = [
	[1, 0, 0, 0.118160747229],
	[1, 0.33, 0, 0.713116392079],
	[1, 1.01, 0, -1.61824192067],
	[2, 0, 0, 0.0714140178971],
	[3, 0, 0, -0.0865421396646],
	[3, 0.15, 0, 0.134211176704],
	[4, 0, 0, 0.0112626704218],
	[4, 0.2, 0, -0.0420533228842],
	[4, 0.35, 0, 0.0349008431982],
	[6, 1.35, 0, 0.000164957183186],
	[1, 1.6, 1, -0.101365037912],
	[3, 0.8, 1, -0.17381369097],
	[5, 0.95, 1, -0.0472103183731],
	[6, 1.25, 1, -0.0122523554253],
	[1, 3.6, 2, -0.146629609713],
	[3, 6, 2, -0.0316055879821],
	[11, 3.25, 2, 0.000233594806142],
	[1, 3.5, 3, 0.0148287891978],
	[3, 15, 3, -0.00938782884667]
];
