import { asc, eq, gte, isNull } from 'drizzle-orm';
import { airwayOf, inSentence } from '../../../core/data/families.ts';
import { familiesWhere } from '../../../core/data/family-records.ts';
import { ENOUGH_OWN } from '../../../core/data/job-minutes.ts';
import { rejectCode } from '../../../core/data/reject-codes.ts';
import { repairFor } from '../../../core/data/repair-choice.ts';
import { judgeCompetence } from '../../../core/people/competence.ts';
import { type Day, plusDays, readable } from '../../../core/plan/calendar.ts';
import {
	datedJob,
	jobsOfDue,
	type JobTimes,
	type PlanJob,
	USUAL_TEST_HOUSE_DAYS,
	waitingJob
} from '../../../core/plan/jobs.ts';
import { rulesFor, rulesOf } from '../../../core/plan/rule-scope.ts';
import type { IntervalRule } from '../../../core/plan/rules.ts';
import type { PlanWorker, SitePlanFacts } from '../../../core/plan/site-problem.ts';
import type { Connection } from '../db/client.ts';
import { countDueBy, statesByPlace } from '../db/queries/stock.ts';
import {
	benchMinutesOf,
	dirtyForPlan,
	duesForPlan,
	faultsForPlan,
	inspectionMinutes,
	type PlanDueRow,
	planInForce,
	plannedJobs
} from '../db/queries/plan.ts';
import { barredDay, planPin, user, workHours } from '../db/schema/index.ts';
import { listSources } from '../air/sources.ts';
import { type Reader, todayOf } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { may, type Role } from '../kernel/permissions.ts';
import { dayAt, type Site } from '../kernel/site.ts';
import { heldAuthorisations } from '../people/authorisations.ts';
import { peopleDues } from '../people/dues.ts';
import { listTestHouses } from '../site/test-houses.ts';

/** What is no set: of a set the next due may be one of its parts, which is counted as the part's own. */
const SINGLE = familiesWhere(({ takesParts }) => !takesParts);

/** Jobs that one plan takes. */
const MOST_JOBS = 20_000;
/** How far a plan looks, days. Site default: six weeks. */
export const PLAN_DAYS = 42;
/** Minutes that going to a place and setting up there costs. Site default. */
const VISIT_MIN = 10;
/** How long own records count for the minutes of a job. Site default. */
const OWN_DAYS = 365;
/** The day by which what is out is counted as back, in days from now, where nothing else is known. Site defaults. */
const BACK_DAYS = { overdue: 1, issued: 1, 'in wash': 1, 'in service': 5, held: 10 } as const;

/** Everything that a plan of the site is made from, from today. */
export async function planFacts(context: Reader, days = PLAN_DAYS): Promise<SitePlanFacts> {
	const { db, site } = context;
	const from = todayOf(context);
	const until = plusDays(from, days);
	const [jobs, workers, barred, pins, was, floors, inForce] = await Promise.all([
		planJobs(context, from, until),
		planWorkers(db, site),
		db.select().from(barredDay).where(gte(barredDay.day, from)).orderBy(asc(barredDay.day)),
		db.select().from(planPin),
		plannedJobs(db, { from }),
		statesByPlace(db, from),
		planInForce(db)
	]);
	const held = await heldAuthorisations(db);
	const known = new Set(held.map(({ job }) => job));
	const allowed: Record<string, string[]> = {};
	for (const { key, job, family, modelId, latest } of jobs) {
		// A job that nobody was ever authorised for here goes by the role alone.
		if (!job || !known.has(job)) continue;
		const on = latest < from ? from : latest;
		allowed[key] = workers.flatMap(({ id }) =>
			judgeCompetence(
				held.flatMap((one) => (one.userId === id ? [one] : [])),
				{ job, family, modelId },
				on
			).outcome === 'may'
				? [id]
				: []
		);
	}
	const placed = ({ jobKey, day, userId }: { jobKey: string; day: Day; userId: string }) => ({
		key: jobKey,
		day,
		userId
	});
	return {
		from,
		until,
		calendar: { workDays: site.workDays, holidays: site.holidays },
		workers,
		barred: barred.map(({ day, userId, why }) => ({ day, userId, why })),
		jobs,
		allowed,
		floors: floors.map(({ place, family, floor, counts }) => ({
			place,
			kind: kindOf(family),
			ready: Object.values(counts).reduce((sum, n) => sum + n, 0),
			floor,
			back: Object.entries(BACK_DAYS).flatMap(([state, after]) => {
				const count = counts[state as keyof typeof BACK_DAYS];
				return count > 0 ? [{ day: plusDays(from, after), count }] : [];
			})
		})),
		pins: pins.map(placed),
		was: was.map(placed),
		visitMin: VISIT_MIN,
		relaxed: inForce?.plan.relaxed ?? []
	};
}

/** The facts as a role sees them: what lapses of people is not for everybody. */
export const seenBy = (role: Role, facts: SitePlanFacts): SitePlanFacts =>
	may(role, 'see wearers')
		? facts
		: { ...facts, jobs: facts.jobs.filter(({ key }) => !key.startsWith('person:')) };

const kindOf = (family: string): string => inSentence(airwayOf(family).plural);

/** Who works on the plan: those with hours of their own, and every technician without. */
export async function planWorkers(db: Connection, site: Site): Promise<PlanWorker[]> {
	const rows = await db
		.select({ id: user.id, name: user.name, role: user.role, minutes: workHours.minutes })
		.from(user)
		.leftJoin(workHours, eq(workHours.userId, user.id))
		.where(isNull(user.disabledAt))
		.orderBy(asc(user.name));
	return rows.flatMap(({ id, name, role, minutes }) =>
		(minutes ? minutes.some((one) => one > 0) : role === 'technician')
			? [{ id, name, minutes: minutes ?? Array.from({ length: 7 }, () => site.benchMinutes) }]
			: []
	);
}

async function planJobs(context: Reader, from: Day, until: Day): Promise<PlanJob[]> {
	const { db, site } = context;
	// Each asks for one job or more: with so many nothing needs to be read.
	if ((await countDueBy(db, until, SINGLE)) > MOST_JOBS) throw tooManyJobs(from, until);
	const [dues, faults, dirty, people, sources, times] = await Promise.all([
		duesForPlan(db, until, MOST_JOBS + 1),
		faultsForPlan(db, MOST_JOBS),
		dirtyForPlan(db, MOST_JOBS),
		peopleDues(db, from, until),
		listSources(context),
		jobTimes(db, context.now())
	]);
	const rules = rulesOf(site.ruleSet, site.rules);
	const again = intervals(rules);
	const jobs = dues.flatMap((row) =>
		jobsOfDue(
			{
				...row,
				awayId: row.setId ?? row.id,
				kind: kindOf(row.setFamily ?? row.family),
				...again(row)
			},
			times,
			from,
			until
		)
	);
	const dayOf = (moment: Date) => dayAt(moment, site.timeZone);
	for (const { defectId, code, station, reportedAt, ...fact } of faults) {
		const repair = repairFor(code, station, fact.family);
		jobs.push(
			waitingJob(
				{ ...fact, kind: kindOf(fact.family) },
				{
					what: 'repair',
					id: defectId,
					detail: repair.key,
					title: `${repair.name}, for ${rejectCode(code).name.toLowerCase()}`,
					href: `/faults/${defectId}`,
					since: dayOf(reportedAt)
				},
				times,
				from
			)
		);
	}
	for (const { since, ...fact } of dirty)
		jobs.push(
			waitingJob(
				{ ...fact, kind: kindOf(fact.family) },
				{
					what: 'wash',
					id: fact.id,
					detail: '',
					title: 'Wash',
					href: '/wash',
					since: dayOf(since)
				},
				times,
				from
			)
		);
	for (const { key, what, number, name, on, says, href } of people)
		jobs.push(
			datedJob(
				{
					key: `person:${key}`,
					what,
					tag: number || 'People',
					title: number ? says : `${name}: ${says.charAt(0).toLowerCase()}${says.slice(1)}`,
					href,
					on
				},
				times,
				from
			)
		);
	for (const { source, state } of sources)
		if (state.until && state.until <= until)
			jobs.push(
				datedJob(
					{
						key: `air:${source.id}`,
						what: 'air test',
						tag: 'Air',
						title: `${source.name}: test of its air`,
						href: `/air/tests/${source.id}`,
						on: state.until
					},
					times,
					from
				)
			);
	if (jobs.length > MOST_JOBS) throw tooManyJobs(from, until);
	return jobs;
}

const tooManyJobs = (from: Day, until: Day) =>
	new Refusal(
		'too much',
		`More than ${MOST_JOBS.toLocaleString('en-GB')} jobs fall due from ${readable(from)} to ${readable(until)}: one plan takes no more. Items, by when they are due, has them in their order.`
	);

/** How often what falls due does so again by the calendar: the shortest of the rules for the item. */
function intervals(rules: readonly IntervalRule[]) {
	const known = new Map<string, Pick<Parameters<typeof jobsOfDue>[0], 'every' | 'window'>>();
	return ({ family, modelId, usePattern, placeId, what, detail }: PlanDueRow) => {
		const key = [family, modelId, usePattern, placeId, what, detail].join('\n');
		const held = known.get(key);
		if (held) return held;
		const days = ({ every }: IntervalRule) =>
			'days' in every ? every.days : 'months' in every ? every.months * 30 : Infinity;
		const [shortest] = rulesFor({ family, modelId, usePattern, placeId }, rules)
			.filter((rule) => rule.what === what && rule.detail === detail && days(rule) < Infinity)
			.sort((a, b) => days(a) - days(b));
		const every = shortest?.every;
		const found = {
			every: every && ('days' in every || 'months' in every) ? every : null,
			window: shortest?.window ?? 0
		};
		known.set(key, found);
		return found;
	};
}

/** Minutes by the site's own record where there is enough of it, and the days of its test houses. */
async function jobTimes(db: Connection, now: Date): Promise<JobTimes> {
	const since = new Date(now.getTime() - OWN_DAYS * 86_400_000);
	const [inspections, bench, houses] = await Promise.all([
		inspectionMinutes(db, since),
		benchMinutesOf(db, since),
		listTestHouses(db)
	]);
	const own = new Map<string, number>();
	for (const [what, rows] of [
		['inspection', inspections],
		['bench test', bench]
	] as const)
		for (const { family, many, middle } of rows)
			if (many >= ENOUGH_OWN) own.set(`${what} ${family}`, Math.max(1, Math.round(middle)));
	const cylinders = houses.filter(({ takes }) => takes.includes('cylinders'));
	return {
		ownMinutes: (what, family) => own.get(`${what} ${family}`),
		cylinderDays: cylinders.length
			? Math.min(...cylinders.map(({ turnaroundDays }) => turnaroundDays))
			: USUAL_TEST_HOUSE_DAYS
	};
}
