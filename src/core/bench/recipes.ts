import { published, type Origin } from '../verdict.ts';

/** One inch of water column at 4 °C in pascal. Published: NIST SP 811, appendix B; from memory. */
export const PA_PER_INCH_WATER = 249.089;
/** Exact. */
export const PA_PER_MBAR = 100;

/** How much of the set pressure may be lost, or must be left. */
export type PassRule = { kind: 'loss'; mostPa: number } | { kind: 'left'; leastShare: number };

/** A pressure test as data. A record keeps the version it ran under. */
export interface Recipe {
	key: string;
	version: number;
	name: string;
	origin: Origin;
	/** Pressure that is set before the hold; below zero for an under-pressure test. */
	setPa: number;
	/** Inflated to this first, so that the cloth stretches and the air cools. */
	inflatePa?: number;
	inflateMin?: number;
	holdSeconds: number;
	pass: PassRule;
	/** Readings beyond this are the sensor's fault, not the item's. Site default. */
	rangePa: number;
	/** Spread of the readings about the fitted line that still counts as quiet. Site default. */
	noisePa: number;
}

/** Recipes by key, newest version last. Published values from memory. */
export const RECIPES: readonly Recipe[] = [
	{
		key: 'suit-en',
		version: 1,
		name: 'Gas-tight suit, EN',
		origin: published('EN 464 and ISO 17491-1 method 2'),
		inflatePa: 1750,
		inflateMin: 10,
		setPa: 1650,
		holdSeconds: 360,
		pass: { kind: 'loss', mostPa: 300 },
		rangePa: 2500,
		noisePa: 12
	},
	{
		key: 'suit-us',
		version: 1,
		name: 'Gas-tight suit, US',
		origin: published('ASTM F1052'),
		inflatePa: 5 * PA_PER_INCH_WATER,
		inflateMin: 1,
		setPa: 4 * PA_PER_INCH_WATER,
		holdSeconds: 240,
		pass: { kind: 'left', leastShare: 0.8 },
		rangePa: 2000,
		noisePa: 10
	},
	{
		key: 'suit-us-general',
		version: 1,
		name: 'Suit, US general',
		origin: published('29 CFR 1910.120 appendix A'),
		inflatePa: 3 * PA_PER_INCH_WATER,
		setPa: 2 * PA_PER_INCH_WATER,
		holdSeconds: 180,
		pass: { kind: 'left', leastShare: 0.8 },
		rangePa: 1500,
		noisePa: 8
	},
	{
		key: 'mask-full-face',
		version: 1,
		name: 'Full-face mask, under-pressure',
		origin: published('EN 136'),
		setPa: -10 * PA_PER_MBAR,
		holdSeconds: 60,
		pass: { kind: 'loss', mostPa: PA_PER_MBAR },
		rangePa: 2000,
		noisePa: 5
	}
];

/** The newest version of a recipe, or a given one. Throws RangeError when there is none. */
export function recipeOf(key: string, version?: number): Recipe {
	const found = RECIPES.findLast(
		(recipe) => recipe.key === key && (version === undefined || recipe.version === version)
	);
	if (!found) throw new RangeError(`No recipe "${key}"${version ? `, version ${version}` : ''}.`);
	return found;
}
