import type { JobWhat } from '../plan/jobs.ts';

/**
 * Minutes that a job takes, by what it is, and by family where it takes longer than the usual. Common practice; once a
 * site has signed ten of a kind itself, the median of those takes its place.
 */
const USUAL: Record<JobWhat, number> = {
	inspection: 5,
	list: 12,
	'bench test': 15,
	service: 25,
	filters: 5,
	'cylinder test': 10,
	'fresh air': 12,
	repair: 20,
	wash: 4,
	'fit test': 20,
	training: 30,
	clearance: 5,
	authorisation: 15,
	'air test': 20
};

const LONGER: Partial<Record<JobWhat, Readonly<Record<string, number>>>> = {
	inspection: {
		'full-face': 6,
		'powered-blower': 8,
		'ba-set': 12,
		airline: 10,
		'gas-tight-suit': 15,
		'ventilated-suit': 12
	},
	'bench test': { 'ba-set': 25, 'gas-tight-suit': 35, 'ventilated-suit': 30 },
	service: { 'ba-set': 60, airline: 40, 'gas-tight-suit': 60 },
	wash: { 'ba-set': 8, 'gas-tight-suit': 20, 'ventilated-suit': 15 }
};

/** How long a job takes by the table, minutes. */
export const usualMinutes = (what: JobWhat, family: string): number =>
	LONGER[what]?.[family] ?? USUAL[what];

/** Signed jobs of a kind from which the site's own median counts. */
export const ENOUGH_OWN = 10;
