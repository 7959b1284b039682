import { molarMassOfFormula } from './atomic-weights.ts';
import { COMMON_GASES } from './common-gases.ts';
import { GASES_AND_ACIDS } from './gases-and-acids.ts';
import { METALS_AND_DUSTS } from './metals-and-dusts.ts';
import { ORGANIC_VAPOURS } from './organic-vapours.ts';
import { PESTICIDES } from './pesticides.ts';
import { SOLVENTS_AND_MONOMERS } from './solvents-and-monomers.ts';
import type { Substance } from './substance.ts';

/** Substances by word; the shipped ones, or those with a site's own and corrected ones. */
export interface SubstanceLibrary {
	/** By name. */
	readonly all: readonly Substance[];
	/** By key, name, synonym or CAS number, whatever the case; undefined when none has it. */
	find(word: string): Substance | undefined;
}

/** A library over a list of substances. A word that several carry finds the first by name. */
export function libraryOf(substances: readonly Substance[]): SubstanceLibrary {
	const all = [...substances].sort((a, b) => a.name.localeCompare(b.name, 'en'));
	const byWord = new Map<string, Substance>();
	const add = (word: string | undefined, substance: Substance) => {
		const tidy = word?.toLowerCase();
		if (tidy && !byWord.has(tidy)) byWord.set(tidy, substance);
	};
	for (const s of all) for (const word of [s.key, s.name, s.cas]) add(word, s);
	for (const s of all) for (const word of s.synonyms) add(word, s);
	return { all, find: (word) => byWord.get(word.trim().toLowerCase()) };
}

/** Molar mass of a substance's formula, rounded to what its weights support. */
export const massOf = (formula: string): number =>
	Math.round(molarMassOfFormula(formula) * 1000) / 1000;

/** The shipped substance library. */
export const SHIPPED: SubstanceLibrary = libraryOf(
	[
		...ORGANIC_VAPOURS,
		...SOLVENTS_AND_MONOMERS,
		...COMMON_GASES,
		...GASES_AND_ACIDS,
		...METALS_AND_DUSTS,
		...PESTICIDES
	].map((row): Substance => (row.formula ? { ...row, molarMassGPerMol: massOf(row.formula) } : row))
);

/** The shipped substances, by name. */
export const SUBSTANCES: readonly Substance[] = SHIPPED.all;

/** A shipped substance by key, name, synonym or CAS number; undefined when none has it. */
export const findSubstance = (word: string): Substance | undefined => SHIPPED.find(word);
