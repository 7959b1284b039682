import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plusDays } from './calendar.ts';
import { changeWords, differenceOf } from './difference.ts';
import { beforeAndAfter, type ForecastFacts } from './forecast/site-fleet.ts';
import { type ItemDueFact, jobsOfDue, type JobTimes } from './jobs.ts';
import { faultsOfPlan } from './level/check.ts';
import { whyThere } from './level/why.ts';
import { planSite, readyCurves, slotsOf } from './plan-site.ts';
import { problemOfSite, type SitePlanFacts } from './site-problem.ts';
import { livedYear } from './year.ts';

const TODAY = '2026-11-30';
const TIMES: JobTimes = { ownMinutes: () => undefined, cylinderDays: 10 };

const due = (n: number, over: Partial<ItemDueFact> = {}): ItemDueFact => ({
	id: `i${n}`,
	tag: `HM-${n}`,
	family: 'half-mask',
	awayId: `i${n}`,
	kind: 'half masks',
	modelId: n % 2 ? 'm1' : 'm2',
	place: 'Quay',
	placeId: 'quay',
	what: 'inspection',
	detail: '',
	from: '2026-12-04',
	on: '2026-12-11',
	every: { days: 30 },
	window: 7,
	...over
});

function facts(dues: readonly ItemDueFact[], over: Partial<SitePlanFacts> = {}): SitePlanFacts {
	const until = over.until ?? plusDays(TODAY, 42);
	return {
		from: TODAY,
		until,
		calendar: { workDays: [1, 2, 3, 4, 5], holidays: [{ on: '2026-12-25', name: 'Yule' }] },
		workers: [
			{ id: 'a', name: 'Ilse', minutes: [120, 120, 120, 120, 120, 0, 0] },
			{ id: 'b', name: 'Odd', minutes: [60, 60, 60, 60, 0, 0, 0] }
		],
		barred: [],
		jobs: dues.flatMap((one) => jobsOfDue(one, TIMES, TODAY, until)),
		allowed: {},
		floors: [{ place: 'Quay', kind: 'half masks', ready: dues.length, floor: 4, back: [] }],
		pins: [],
		was: [],
		visitMin: 10,
		...over
	};
}
const many = (count: number) => Array.from({ length: count }, (_, i) => due(i));

describe('jobs of a due', () => {
	it('fall due again from the earliest day of the time before, whatever day is chosen', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 90 }),
				fc.integer({ min: 0, max: 20 }),
				fc.integer({ min: -40, max: 60 }),
				fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 60, maxLength: 60 }),
				(days, window, shift, picks) => {
					const on = plusDays(TODAY, shift);
					const jobs = jobsOfDue(
						due(1, { on, from: plusDays(on, -window), every: { days }, window }),
						TIMES,
						TODAY,
						plusDays(TODAY, 180)
					);
					let last: string | null = null;
					for (const [i, job] of jobs.entries()) {
						expect(job.earliest <= job.latest || shift < 0).toBe(true);
						const room = Math.max(
							0,
							(Date.parse(job.latest) - Date.parse(job.earliest)) / 86_400_000
						);
						const done = plusDays(job.earliest, Math.floor((picks[i] ?? 0) * (room + 0.999)));
						// Done on any day of its window, the next is never later than the interval after it.
						if (last && i > 0) expect(done <= plusDays(last, days) || window >= days).toBe(true);
						last = done;
					}
				}
			),
			{ numRuns: 200 }
		);
	});

	it('are late where the last day has passed, and then take nothing away', () => {
		const [job] = jobsOfDue(due(1, { on: '2026-11-20', from: '2026-11-13' }), TIMES, TODAY, TODAY);
		expect(job).toMatchObject({ earliest: TODAY, latest: '2026-11-20', awayDays: 0 });
		const problem = problemOfSite(facts([due(1, { on: '2026-11-20', from: '2026-11-13' })]));
		expect(problem.jobs[0]?.late).toBe(true);
	});

	it('send a cylinder away for as long as its house takes', () => {
		const [job] = jobsOfDue(
			due(1, { what: 'cylinder test', every: null }),
			TIMES,
			TODAY,
			plusDays(TODAY, 42)
		);
		expect(job).toMatchObject({ awayDays: 10, job: null });
	});
});

describe('the plan of a site', () => {
	it('has nothing on holidays, weekends and barred days, and holds by the checker', () => {
		const given = facts(many(20), {
			barred: [{ day: '2026-12-07', userId: 'a', why: '' }]
		});
		const plan = planSite(given);
		expect(plan.outcome).toBe('planned');
		const problem = problemOfSite(given);
		expect(problem.days).not.toContain('2026-12-25');
		expect(problem.days).not.toContain('2026-12-05');
		expect(plan.placed.some(({ day, userId }) => day === '2026-12-07' && userId === 'a')).toBe(
			false
		);
		const at = slotsOf(given, problem, plan.placed);
		expect(faultsOfPlan(problem, at)).toEqual([]);
		const [curve] = readyCurves(given, problem, at);
		expect(Math.min(...(curve?.ready ?? []))).toBeGreaterThanOrEqual(4);
	});

	it('is found wanting by the checker wherever a job is put where it may not be', () => {
		const given = facts(many(6));
		const problem = problemOfSite(given);
		const at = slotsOf(given, problem, planSite(given).placed);
		const first = at[0] ?? 0;
		at[0] = 0;
		expect(faultsOfPlan(problem, at)[0]).toMatch(/outside its window/);
		at[0] = first;
		at[1] = 10_000;
		expect(faultsOfPlan(problem, at)).toEqual(['HM-0 stands on no day of the plan.']);
		at.fill(first);
		expect(faultsOfPlan(problem, at).join(' ')).toMatch(/would be ready at Quay/);
	});

	it('is done by whoever may', () => {
		const base = facts(many(6));
		const allowed = Object.fromEntries(base.jobs.map(({ key }) => [key, ['b']]));
		const plan = planSite({ ...base, allowed });
		expect(new Set(plan.placed.map(({ userId }) => userId))).toEqual(new Set(['b']));
		const nobody = Object.fromEntries(base.jobs.map(({ key }) => [key, []]));
		const none = planSite({ ...base, allowed: nobody });
		expect(none.lost).toHaveLength(base.jobs.length);
		expect(none.relax.map(({ constraint }) => constraint)).toContain('competence');
	});

	it('starts late in the day from a fleet below its floor: one less at a time, by name', () => {
		const given = facts(many(6), {
			floors: [{ place: 'Quay', kind: 'half masks', ready: 6, floor: 8, back: [] }]
		});
		const plan = planSite(given);
		expect(plan.lost).toEqual([]);
		expect(plan.relaxed).toMatchObject([{ place: 'Quay', from: 8 }]);
	});
});

describe('why a job stands where it does', () => {
	const given = facts(many(12));
	const problem = problemOfSite(given);
	const plan = planSite(given);
	const at = slotsOf(given, problem, plan.placed);

	it('says its window, who goes with it, and what speaks against the days beside', () => {
		given.jobs.forEach((_, job) => {
			const why = whyThere(problem, at, job);
			expect(why.window).toMatch(/^(From \d|Only \d)/);
			expect(why.with).toMatch(/at Quay on that day/);
			for (const side of [why.earlier, why.later]) expect(side).toMatch(/\.$/);
		});
	});

	it('names the floor, the hours, a pin, a window without a working day', () => {
		const tight = problemOfSite(
			facts(many(2), {
				floors: [{ place: 'Quay', kind: 'half masks', ready: 2, floor: 1, back: [] }]
			})
		);
		const one = problemOfSite(
			facts([due(0, { from: '2026-12-09', on: '2026-12-10', every: null })])
		);
		expect(whyThere(one, slotsOf(facts([due(0)]), one, []), 0).later).toBe('');
		const n = tight.days.length;
		const day = tight.days.indexOf('2026-12-08');
		const slots = tight.jobs.map(({ from }, i) => (from <= day && i === 0 ? day : -1));
		slots[tight.jobs.findIndex((job, i) => i > 0 && job.from <= day && job.to >= day)] =
			day + 1 + n;
		expect(whyThere(tight, slots, 0).later).toMatch(
			/fewer than 1 half masks would be ready at Quay/
		);
		const saturday = problemOfSite(
			facts([due(0, { from: '2026-12-05', on: '2026-12-06', every: null })])
		);
		expect(whyThere(saturday, [-1], 0).window).toBe('Nobody works in its window.');
	});
});

describe('the difference of two plans', () => {
	const job = (key: string, day: string, userId = 'a') => ({
		key,
		day,
		userId,
		tag: key.toUpperCase(),
		title: 'Inspection'
	});

	it('says what moved, what is new and what is gone, each once', () => {
		const changes = differenceOf(
			[job('a', '2026-12-01'), job('b', '2026-12-02'), job('c', '2026-12-03')],
			[job('a', '2026-12-04'), job('b', '2026-12-02', 'b'), job('d', '2026-12-01')]
		);
		const name = (id: string) => ({ a: 'Ilse', b: 'Odd' })[id] ?? '';
		expect(changes.map((one) => changeWords(one, name))).toEqual([
			'B, inspection: Odd instead of Ilse',
			'A, inspection: 4 Dec 2026, before 1 Dec 2026',
			'D, inspection: new, 1 Dec 2026, Ilse',
			'C, inspection: done or gone, was 3 Dec 2026'
		]);
		expect(differenceOf([job('a', '2026-12-01')], [job('a', '2026-12-01')])).toEqual([]);
	});
});

describe('what if', () => {
	const base: ForecastFacts = {
		plan: facts(many(12)),
		rates: [
			{
				place: 'Quay',
				kind: 'half masks',
				failures: { failed: 1, of: 40 },
				repairDays: 4,
				usesPerDay: 1,
				washDays: 1,
				models: [
					{ id: 'm1', name: 'M1', count: 6 },
					{ id: 'm2', name: 'M2', count: 6 }
				]
			}
		],
		runs: 250,
		seed: 1,
		mostChance: 0.01
	};

	it('a task uses more from its day on', () => {
		const { before, after } = beforeAndAfter(base, {
			kind: 'task',
			place: 'Quay',
			of: 'half masks',
			perDay: 3,
			from: '2026-12-08'
		});
		expect(before.groups[0]?.uses[10]).toBe(1);
		expect(after?.groups[0]?.uses.slice(5, 8)).toEqual([1, 4, 4]);
	});

	it('a model that is withdrawn is away with its jobs', () => {
		const { after } = beforeAndAfter(base, { kind: 'model', modelId: 'm1' });
		expect(after?.groups[0]?.have).toBe(6);
	});

	it('somebody away has the others do it, and the day is higher', () => {
		const { peakMin, lost } = beforeAndAfter(base, {
			kind: 'away',
			userId: 'a',
			from: TODAY,
			until: base.plan.until
		});
		expect(peakMin[1]).toBeGreaterThan(0);
		expect(lost).toBeGreaterThanOrEqual(0);
	});

	it('an interval that is halved brings more looks', () => {
		const looks = (asked: ReturnType<typeof beforeAndAfter>['before'] | null) =>
			asked?.groups[0]?.looked.reduce((sum, n) => sum + n, 0) ?? 0;
		const shorter = beforeAndAfter(base, {
			kind: 'interval',
			family: 'half-mask',
			what: 'inspection',
			days: 15
		});
		expect(looks(shorter.after)).toBeGreaterThan(looks(shorter.before));
		const longer = beforeAndAfter(base, {
			kind: 'interval',
			family: 'half-mask',
			what: 'inspection',
			days: 90
		});
		expect(looks(longer.after)).toBeLessThan(looks(longer.before));
	});
});

describe('a year lived through', () => {
	it('does each again from the day on which it was done, is level, and never late', () => {
		const spread = many(40).map((one, i): ItemDueFact => {
			const on = plusDays(TODAY, 7 + (i % 4));
			return { ...one, on, from: plusDays(on, -7) };
		});
		const given = facts(spread, { until: plusDays(TODAY, 180) });
		const steps = livedYear(given);
		let done = 0;
		for (let step = steps.next(); ; step = steps.next()) {
			if (!step.done) {
				expect(step.value).toBeGreaterThanOrEqual(done);
				done = step.value;
				continue;
			}
			const { levelled, whenDue, jobs } = step.value;
			expect(levelled.overdueDays).toBe(0);
			expect(levelled.daysUnderFloor).toBe(0);
			expect(levelled.peakMin).toBeLessThanOrEqual(whenDue.peakMin);
			// Some six times each in half a year.
			expect(jobs.whenDue).toBeGreaterThan(200);
			expect(jobs.levelled).toBeGreaterThanOrEqual(jobs.whenDue);
			break;
		}
	});
});

it('keeps the key of a job from evening to evening', () => {
	const key = (today: string) => jobsOfDue(due(1), TIMES, today, plusDays(today, 42))[0]?.key;
	expect(key(TODAY)).toBe(key(plusDays(TODAY, 1)));
});
