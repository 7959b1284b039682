import { airwayOf } from '../data/families.ts';
import type { Procedure } from '../inspection/procedure.ts';

/** A station, and what can be found there. */
export interface StationFaults {
	key: string;
	name: string;
	/** Codes, likeliest first. */
	codes: string[];
}

/** What can be found anywhere on any family, after what its procedures name there. Common practice. */
const ANYWHERE = ['DIRTY', 'WET', 'LABEL'] as const;

/**
 * Every station of a family along its airway with what its procedures reject there.
 * @param procedures of the family, the usual one first
 */
export function whatFailsAt(family: string, procedures: readonly Procedure[]): StationFaults[] {
	const steps = procedures.flatMap((procedure) => procedure.steps);
	return airwayOf(family).stations.map(({ key, name }) => ({
		key,
		name,
		codes: [
			...new Set([
				...steps.filter((step) => step.station === key).flatMap((step) => step.rejects),
				...ANYWHERE
			])
		]
	}));
}
