import {
	BIOLOGICAL_FACTOR,
	BIOLOGICAL_ORIGIN,
	HARM_FACTOR,
	HARM_ORIGIN
} from '../data/protection-factors.ts';
import type { Harm, RuleSet } from '../data/substance.ts';
import type { Reason } from '../verdict.ts';
import type { Contaminant } from './facts.ts';

const HARM_WORDS: Partial<Record<Harm, string>> = {
	sensitiser: 'can sensitise the airways',
	carcinogen: 'causes cancer',
	'weld fume': 'is welding fume'
};

/** A factor that nothing weaker than may be worn, by kind of harm or by biological group, and why. */
export interface LeastFactor {
	factor: number;
	reason: Reason;
}

/** The factor that a contaminant takes at least, whatever its ratio says; undefined where it takes none. */
export function leastFactorOf(c: Contaminant, ruleSet: RuleSet): LeastFactor | undefined {
	const group = c.substance?.biologicalGroup;
	const found: LeastFactor[] = [];
	if (group) {
		const factor = BIOLOGICAL_FACTOR[ruleSet][group][c.biologicalTask];
		const task = c.biologicalTask === 'aerosol' ? ', thrown into the air by the work' : '';
		found.push({
			factor,
			reason: {
				rule: 'hazard.biological',
				text: `${c.name}, group ${group}${task}: a factor of ${factor} at least. No limit exists for it, so nothing is a multiple of one.`,
				origin: BIOLOGICAL_ORIGIN[ruleSet],
				limit: factor
			}
		});
	}
	for (const harm of c.harms) {
		const factor = HARM_FACTOR[ruleSet][harm];
		if (factor === undefined) continue;
		found.push({
			factor,
			reason: {
				rule: 'hazard.least-factor',
				text: `${c.name} ${HARM_WORDS[harm] ?? harm}: a factor of ${factor} at least, whatever its ratio to a limit.`,
				origin: HARM_ORIGIN,
				limit: factor
			}
		});
	}
	return found.sort((a, b) => b.factor - a.factor)[0];
}

/** Whether a published least factor stands in where the substance has no limit at all. */
export const factorWithoutLimit = (c: Contaminant, ruleSet: RuleSet): boolean =>
	Boolean(c.substance?.biologicalGroup) ||
	(c.harms.includes('weld fume') && HARM_FACTOR[ruleSet]['weld fume'] !== undefined);
