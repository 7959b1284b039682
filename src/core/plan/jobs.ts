import { usualMinutes } from '../data/job-minutes.ts';
import type { Job } from '../people/competence.ts';
import { jobOfRepair } from '../people/competence.ts';
import { type DueWhat, FAR, NEVER } from '../readiness/findings.ts';
import { dueWords } from './agenda.ts';
import { type Day, plusDays, plusMonths } from './calendar.ts';
import { MONTH_DAYS } from './forecast/steady.ts';

/** What a job of the plan can be. */
export const JOB_WHATS = [
	'inspection',
	'list',
	'bench test',
	'service',
	'filters',
	'cylinder test',
	'fresh air',
	'repair',
	'wash',
	'fit test',
	'training',
	'clearance',
	'authorisation',
	'air test'
] as const;
export type JobWhat = (typeof JOB_WHATS)[number];

/** A job as the plan knows it: what, on what, how long, by when, by whom it may be done and what it takes away. */
export interface PlanJob {
	/** The same from evening to evening, as long as the job is not done. */
	key: string;
	what: JobWhat;
	/** Which list or repair. */
	detail: string;
	/** What it is done on: a tag, the number of a wearer, the name of a source. */
	tag: string;
	/** What is to be done, in words. */
	title: string;
	href: string;
	minutes: number;
	/** First and last day of its window. */
	earliest: Day;
	latest: Day;
	/** Where it is done; null: anywhere. */
	place: string | null;
	placeId: string | null;
	/** What has a floor: the plural of the family; null: nothing is away by it. */
	kind: string | null;
	awayDays: number;
	/** Id of the item; null: it is on none. */
	item: string | null;
	family: string | null;
	modelId: string | null;
	/** What somebody has to be authorised for; null: nothing. */
	job: Job | null;
	/** It falls due again within the plan: its window goes by the earliest day of the one before. */
	again: number;
	/** How often it falls due by the calendar, and how long before its end it counts as due, days; null: not so. */
	everyDays: number | null;
	windowDays: number | null;
}

/** An item that something falls due on. */
export interface ItemDueFact {
	id: string;
	tag: string;
	family: string;
	/** What is away with it, and the plural of its family: the item itself, or the set that it is on. */
	awayId: string;
	kind: string;
	modelId: string;
	place: string;
	placeId: string;
	what: DueWhat;
	detail: string;
	from: Day;
	on: Day;
	/** How often it falls due again by the calendar; null: by what is counted, or once. */
	every: { months: number } | { days: number } | null;
	/** Days before the end at which it counts as due again. */
	window: number;
}

/** Minutes and days away that jobs take here. */
export interface JobTimes {
	/** Own median of a job and family; undefined: the table holds. */
	ownMinutes: (what: JobWhat, family: string) => number | undefined;
	/** Days at the house that tests cylinders. */
	cylinderDays: number;
}

/** Days away where no test house is entered: the usual. Common practice. */
export const USUAL_TEST_HOUSE_DAYS = 10;

const JOB_OF: Partial<Record<DueWhat, Job>> = {
	inspection: 'inspect',
	list: 'inspect',
	'bench test': 'inspect',
	'fresh air': 'fill cylinders'
};

const minutesOf = ({ ownMinutes }: JobTimes, what: JobWhat, family: string): number =>
	ownMinutes(what, family) ?? usualMinutes(what, family);

/**
 * The jobs that a due makes within a horizon: the next, and those after it where it falls due again. How far the next is
 * done before its end is not known yet, so each later one counts from the earliest day of the one before: whatever day is
 * chosen, none is late.
 */
export function jobsOfDue(fact: ItemDueFact, times: JobTimes, today: Day, until: Day): PlanJob[] {
	const { what, on, every } = fact;
	// A part is planned by itself, and what waits for use or an event has no day yet.
	if (what === 'part' || on === FAR) return [];
	const over = on === NEVER || on < today;
	const latest = on === NEVER ? plusDays(today, -1) : on;
	const job = (again: number, earliest: Day, by: Day, away: boolean): PlanJob => ({
		key: `item:${fact.id}:${what}:${fact.detail}:${again}`,
		what,
		detail: fact.detail,
		tag: fact.tag,
		title: dueWords(what, fact.detail),
		href: `/items/${fact.tag}`,
		minutes: minutesOf(times, what, fact.family),
		earliest,
		latest: by,
		place: fact.place,
		placeId: fact.placeId,
		kind: fact.kind,
		// What is overdue is not ready anyway, and filters are changed on the shelf.
		awayDays: !away || what === 'filters' ? 0 : what === 'cylinder test' ? times.cylinderDays : 1,
		item: fact.awayId,
		family: fact.family,
		modelId: fact.modelId,
		job: what === 'service' ? jobOfRepair(fact.detail) : (JOB_OF[what] ?? null),
		again,
		everyDays: every ? ('days' in every ? every.days : every.months * MONTH_DAYS) : null,
		windowDays: every ? fact.window : null
	});
	if (latest > until) return [];
	const first = over ? today : fact.from > today ? fact.from : today;
	const jobs = [job(0, first, latest, !over)];
	if (!every) return jobs;
	for (let earliest = first, again = 1; again <= MOST_AGAIN; again++) {
		const by =
			'months' in every ? plusMonths(earliest, every.months) : plusDays(earliest, every.days);
		if (by > until) break;
		const from = plusDays(by, -fact.window);
		earliest = from > earliest ? from : plusDays(earliest, 1);
		jobs.push(job(again, earliest, by, true));
	}
	return jobs;
}

/** What falls due daily is no job of a plan. */
const MOST_AGAIN = 60;

/** Days in which a held item is repaired, and a dirty one washed. Site defaults. */
const REPAIR_DAYS = 10;
const WASH_DAYS = 1;

/** The repair of something that is held, or the washing of something that came back. */
export function waitingJob(
	fact: Omit<ItemDueFact, 'awayId' | 'what' | 'detail' | 'from' | 'on' | 'every' | 'window'>,
	work: {
		what: 'repair' | 'wash';
		id: string;
		detail: string;
		title: string;
		href: string;
		since: Day;
	},
	times: JobTimes,
	today: Day
): PlanJob {
	const days = work.what === 'repair' ? REPAIR_DAYS : WASH_DAYS;
	return {
		key: `${work.what}:${work.id}`,
		what: work.what,
		detail: work.detail,
		tag: fact.tag,
		title: work.title,
		href: work.href,
		minutes: minutesOf(times, work.what, fact.family),
		earliest: today,
		latest: plusDays(work.since, days) < today ? today : plusDays(work.since, days),
		place: fact.place,
		placeId: fact.placeId,
		kind: fact.kind,
		awayDays: 0,
		item: fact.id,
		family: fact.family,
		modelId: fact.modelId,
		job: work.what === 'wash' ? 'wash' : jobOfRepair(work.detail),
		again: 0,
		everyDays: null,
		windowDays: null
	};
}

/** How long before its last day something about a person, or the air of a source, is taken up, days. Site default. */
const AHEAD: Partial<Record<JobWhat, number>> = {
	'fit test': 28,
	training: 28,
	clearance: 28,
	authorisation: 28,
	'air test': 14
};

/** A job that is on no item: a person's test or training, the air of a source. */
export function datedJob(
	fact: {
		key: string;
		what: 'fit test' | 'training' | 'clearance' | 'authorisation' | 'air test';
		tag: string;
		title: string;
		href: string;
		on: Day;
	},
	times: JobTimes,
	today: Day
): PlanJob {
	const from = plusDays(fact.on, -(AHEAD[fact.what] ?? 0));
	return {
		...fact,
		detail: '',
		minutes: minutesOf(times, fact.what, ''),
		earliest: from > today ? from : today,
		latest: fact.on,
		place: null,
		placeId: null,
		kind: null,
		awayDays: 0,
		item: null,
		family: null,
		modelId: null,
		job: fact.what === 'fit test' ? 'fit-test' : fact.what === 'air test' ? 'fill cylinders' : null,
		again: 0,
		everyDays: null,
		windowDays: null
	};
}
