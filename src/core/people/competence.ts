import { readable, type Day } from '../plan/calendar.ts';
import { site, type Reason, type Verdict } from '../verdict.ts';

/** Jobs that somebody has to be authorised for. Common practice. */
export const JOBS = [
	'inspect',
	'wash',
	'repair',
	'repair of demand valves and reducers',
	'fill cylinders',
	'fit-test',
	'release',
	'approve plans'
] as const;
export type Job = (typeof JOBS)[number];

/** Repairs that open what meters the air: an authorisation of their own. Common practice. */
const METERED: readonly string[] = ['ba-service', 'airline-service', 'cylinder-valve'];

/** The job that a repair is, by its key. */
export const jobOfRepair = (repair: string): Job =>
	METERED.includes(repair) ? 'repair of demand valves and reducers' : 'repair';

/** That somebody may do a job, for what, and until when. */
export interface Authorisation {
	job: Job;
	/** Families that it is for; empty: all. */
	families: readonly string[];
	/** Models that it is for; empty: all of its families. */
	modelIds: readonly string[];
	from: Day;
	/** Last day; null: until it is taken back. */
	until: Day | null;
}

/** What is to be done, on what. */
export interface JobAsked {
	job: Job;
	family: string | null;
	modelId: string | null;
}

const AUTHORISED = site('authorisations');

const covers = (held: Authorisation, { job, family, modelId }: JobAsked): boolean =>
	held.job === job &&
	(held.families.length === 0 || (family !== null && held.families.includes(family))) &&
	(held.modelIds.length === 0 || (modelId !== null && held.modelIds.includes(modelId)));

/**
 * Whether somebody may do a job on a day, by what they are authorised for.
 * @returns of several the one that lasts longest; why not, where none is in force
 */
export function judgeCompetence(
	held: readonly Authorisation[],
	asked: JobAsked,
	asOf: Day
): Verdict<'may' | 'may not'> & { until: Day | null } {
	const about = held.filter((one) => covers(one, asked));
	const reason = (rule: string, text: string): Reason => ({ rule, text, origin: AUTHORISED });
	const inForce = about.filter(
		({ from, until }) => from <= asOf && (until === null || asOf <= until)
	);
	if (inForce.length > 0) {
		const open = inForce.some(({ until }) => until === null);
		const last =
			inForce
				.map(({ until }) => until ?? '')
				.sort()
				.at(-1) ?? null;
		const until = open ? null : last;
		return {
			outcome: 'may',
			until,
			reasons: [
				reason(
					'competence.held',
					until === null
						? `Authorised: ${asked.job}.`
						: `Authorised: ${asked.job}, until ${readable(until)}.`
				)
			]
		};
	}
	const lapsed = about
		.map(({ until }) => until ?? '')
		.filter((day) => day && day < asOf)
		.sort()
		.at(-1);
	const begins = about
		.map(({ from }) => from)
		.filter((day) => day > asOf)
		.sort()[0];
	const text = lapsed
		? `The authorisation for this job, ${asked.job}, lapsed on ${readable(lapsed)}.`
		: begins
			? `The authorisation for this job, ${asked.job}, begins on ${readable(begins)}.`
			: `Not authorised for this job: ${asked.job}.`;
	return {
		outcome: 'may not',
		until: null,
		reasons: [reason(lapsed ? 'competence.lapsed' : 'competence.none', text)]
	};
}
