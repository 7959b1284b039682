import { molarMassOfFormula } from './atomic-weights.ts';
import { GASES_AND_PARTICLES } from './gases-and-particles.ts';
import { ORGANIC_VAPOURS } from './organic-vapours.ts';
import type { Substance } from './substance.ts';

/** The shipped substance library, by name. */
export const SUBSTANCES: readonly Substance[] = [...ORGANIC_VAPOURS, ...GASES_AND_PARTICLES]
	.map((row): Substance => {
		if (!row.formula || row.key === 'oil-mist') return row;
		const mass = Math.round(molarMassOfFormula(row.formula) * 1000) / 1000;
		return { ...row, molarMassGPerMol: mass };
	})
	.sort((a, b) => a.name.localeCompare(b.name, 'en'));

const byWord = new Map<string, Substance>();
for (const substance of SUBSTANCES)
	for (const word of [substance.key, substance.name, substance.cas, ...substance.synonyms])
		if (word && !byWord.has(word.toLowerCase())) byWord.set(word.toLowerCase(), substance);

/** A substance by key, name, synonym or CAS number, whatever the case; undefined when none has it. */
export function findSubstance(word: string): Substance | undefined {
	return byWord.get(word.trim().toLowerCase());
}
