import type { Day } from '../calendar.ts';
import { planSite, readyCurves, slotsOf } from '../plan-site.ts';
import { type Placed, problemOfSite, type SitePlanFacts } from '../site-problem.ts';
import type { FleetAsked, FleetGroup } from './fleet.ts';

/** What the record says of what takes things away beside the plan, floor by floor. */
export interface FleetRates {
	place: string;
	kind: string;
	/** Failed of looked over, at inspections and tests of the last year. */
	failures: { failed: number; of: number };
	repairDays: number;
	/** Handed out on a working day, on average. */
	usesPerDay: number;
	washDays: number;
	/** How many of each model there are. */
	models: readonly { id: string; name: string; count: number }[];
}

/** Something that might be otherwise. */
export type WhatIf =
	| { kind: 'task'; place: string; of: string; perDay: number; from: Day }
	| { kind: 'model'; modelId: string }
	| { kind: 'away'; userId: string; from: Day; until: Day }
	| { kind: 'interval'; family: string; what: 'inspection' | 'bench test'; days: number };

/** What a forecast is made from: the plan, and what the record says. */
export interface ForecastFacts {
	plan: SitePlanFacts;
	rates: readonly FleetRates[];
	runs: number;
	seed: number;
	mostChance: number;
}

const LOOKS: readonly string[] = ['inspection', 'list', 'bench test'];

/** The question to the fleets: what the plan takes away and looks over on each day, with the rates of the record. */
export function fleetOf(facts: ForecastFacts, placed: readonly Placed[]): FleetAsked {
	const { plan, rates, runs, seed, mostChance } = facts;
	const problem = problemOfSite(plan);
	const at = slotsOf(plan, problem, placed);
	const curves = readyCurves(plan, problem, at);
	const n = problem.days.length;
	const groups = curves.map(({ place, kind, floor, ready }, g): FleetGroup => {
		const known = rates.find((one) => one.place === place && one.kind === kind);
		const have = plan.floors[g]?.ready ?? 0;
		const looked = problem.days.map(() => 0);
		plan.jobs.forEach((job, i) => {
			const slot = at[i] ?? -1;
			if (slot < 0 || job.place !== place || job.kind !== kind || !LOOKS.includes(job.what)) return;
			looked[slot % n] = (looked[slot % n] ?? 0) + 1;
		});
		return {
			place,
			kind,
			have,
			floor,
			planned: ready.map((count) => have - count),
			looked,
			failures: known?.failures ?? { failed: 0, of: 0 },
			repairDays: known?.repairDays ?? 0,
			uses: problem.days.map(() => known?.usesPerDay ?? 0),
			washDays: known?.washDays ?? 1
		};
	});
	return { days: problem.days, groups, runs, seed, mostChance };
}

/** The facts as they would be. Of a changed interval what falls due next moves with it, and so does all after it. */
export function whatIf(facts: ForecastFacts, change: WhatIf): ForecastFacts {
	const { plan } = facts;
	switch (change.kind) {
		case 'task':
			return facts;
		case 'model': {
			const counts = new Map(
				facts.rates.map(({ place, kind, models }) => [
					`${place}\n${kind}`,
					models.find(({ id }) => id === change.modelId)?.count ?? 0
				])
			);
			return {
				...facts,
				plan: {
					...plan,
					jobs: plan.jobs.filter(({ modelId }) => modelId !== change.modelId),
					floors: plan.floors.map((floor) => ({
						...floor,
						ready: floor.ready - (counts.get(`${floor.place}\n${floor.kind}`) ?? 0)
					}))
				}
			};
		}
		case 'away': {
			const barred = [...plan.barred];
			for (const day of problemOfSite(plan).days)
				if (day >= change.from && day <= change.until)
					barred.push({ day, userId: change.userId, why: 'What if' });
			return { ...facts, plan: { ...plan, barred } };
		}
		case 'interval':
			return { ...facts, plan: { ...plan, jobs: withInterval(plan, change) } };
	}
}

function withInterval(
	{ jobs, until, from }: SitePlanFacts,
	{ family, what, days }: Extract<WhatIf, { kind: 'interval' }>
): SitePlanFacts['jobs'] {
	return jobs.flatMap((job) => {
		if (job.family !== family || job.what !== what || !job.everyDays) return [job];
		if (job.again > 0) return [];
		const shift = days - job.everyDays;
		const move = (day: Day) => shifted(day, shift);
		const over = job.latest < from;
		const first = over
			? job
			: { ...job, earliest: max(from, move(job.earliest)), latest: max(from, move(job.latest)) };
		const chain = [first];
		for (let again = 1; again < 60; again++) {
			const before = chain.at(-1) ?? first;
			const by = shifted(before.earliest, days);
			if (by > until) break;
			const begins = max(shifted(before.earliest, 1), shifted(by, -(job.windowDays ?? 0)));
			chain.push({
				...first,
				key: `${job.key.replace(/\d+$/, '')}${again}`,
				again,
				earliest: begins,
				latest: by,
				awayDays: 1
			});
		}
		return chain.filter(({ latest }) => latest <= until);
	});
}

const DAY_MS = 86_400_000;
const shifted = (day: Day, by: number): Day =>
	new Date(Date.parse(`${day}T00:00:00Z`) + by * DAY_MS).toISOString().slice(0, 10);
const max = (a: Day, b: Day): Day => (a > b ? a : b);

/** The question of before and of after a change: the plan is levelled on from where it stands, and a task is worn by more. */
export function beforeAndAfter(
	facts: ForecastFacts,
	change: WhatIf | null
): { before: FleetAsked; after: FleetAsked | null; lost: number; peakMin: [number, number] } {
	const now = planSite(facts.plan, { warm: true });
	const before = fleetOf(facts, now.placed);
	if (!change)
		return { before, after: null, lost: now.lost.length, peakMin: [now.peakMin, now.peakMin] };
	const then = whatIf(facts, change);
	const plan = planSite(then.plan, { warm: true });
	const after = fleetOf(then, plan.placed);
	if (change.kind === 'task')
		for (const group of after.groups)
			if (group.place === change.place && group.kind === change.of)
				Object.assign(group, {
					uses: group.uses.map((mean, day) =>
						(after.days[day] ?? '') >= change.from ? mean + change.perDay : mean
					)
				});
	return { before, after, lost: plan.lost.length, peakMin: [now.peakMin, plan.peakMin] };
}
