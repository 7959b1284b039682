// Prints how long plans take and what they cost: sizes from 1,000 to 20,000 jobs, the year of the demo, fleets lived through.
import { plusDays } from '../src/core/plan/calendar.ts';
import { forecastFleet } from '../src/core/plan/forecast/fleet.ts';
import { readyChance } from '../src/core/plan/forecast/steady.ts';
import { level } from '../src/core/plan/level/level.ts';
import type { LevelProblem } from '../src/core/plan/level/problem.ts';
import { planSite } from '../src/core/plan/plan-site.ts';
import { livedYear } from '../src/core/plan/year.ts';
import { Chance } from '../src/core/stats/chance.ts';
import { openDatabase } from '../src/lib/server/db/client.ts';
import { loadSite } from '../src/lib/server/kernel/site.ts';
import { planFacts } from '../src/lib/server/plan/facts.ts';

const FROM = '2026-11-30';
const days = (count: number) => Array.from({ length: count }, (_, i) => plusDays(FROM, i));
const seconds = (ms: number) => `${(ms / 1000).toFixed(2)} s`.padStart(9);
function timed<T>(work: () => T): [value: T, ms: number] {
	const started = performance.now();
	const value = work();
	return [value, performance.now() - started];
}

/** Jobs of a large site: windows of a week to two months, eight places, floors that bind where they are wanted. */
function drawn(
	count: number,
	horizon: number,
	wants: { floors?: boolean; visitMin?: number } = {}
): LevelProblem {
	const chance = new Chance(count);
	const places = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'];
	const kinds = ['masks', 'sets', 'suits'];
	const spare = Math.ceil((count / horizon / (places.length * kinds.length)) * 2);
	return {
		days: days(horizon),
		workers: [{ id: 'bench', minutes: days(horizon).map(() => (count / horizon) * 40) }],
		jobs: Array.from({ length: count }, (_, i) => {
			const from = chance.int(0, horizon - 1);
			return {
				id: `j${i}`,
				minutes: chance.pick([4, 5, 6, 8, 10, 12, 15, 20, 25, 40]),
				from,
				to: Math.min(horizon - 1, from + chance.pick([7, 10, 20, 30, 60])),
				late: false,
				place: chance.pick(places),
				kind: chance.pick(kinds),
				awayDays: 1,
				item: null,
				workers: null,
				pinned: null,
				was: null
			};
		}),
		floors: wants.floors
			? places.flatMap((place) =>
					kinds.map((kind) => ({ place, kind, ready: 10 + spare, floor: 10 }))
				)
			: [],
		visitMin: wants.visitMin ?? 0
	};
}

console.log('\nA plan of 250 days');
let before = 0;
for (const count of [1000, 2000, 5000, 10_000, 20_000]) {
	const [plan, ms] = timed(() => level(drawn(count, 250)));
	const per = ms / (count * Math.log(count));
	console.log(
		`${count} jobs`.padEnd(28),
		seconds(ms),
		`highest ${plan.peakMin} min, bound ${plan.boundMin}, gap ${(100 * plan.gap).toFixed(2)} %; time / n log n ${before ? `${(per / before).toFixed(2)} × that of 1,000` : 'taken as 1'}`
	);
	before ||= per;
}
for (const [name, wants] of [
	['20,000 jobs, floors', { floors: true }],
	['20,000 jobs, ways of 10 min', { visitMin: 10 }]
] as const) {
	const [plan, ms] = timed(() => level(drawn(20_000, 250, wants)));
	console.log(
		name.padEnd(28),
		seconds(ms),
		`${plan.outcome}, highest ${plan.peakMin} min, bound ${plan.boundMin}, gap ${(100 * plan.gap).toFixed(2)} %, ${plan.lost.length} without a day`
	);
}

console.log('\nFleets lived through');
const group = (i: number) => ({
	place: `p${i}`,
	kind: 'masks',
	have: 20,
	floor: 14,
	planned: days(90).map(() => 0),
	looked: days(90).map(() => 1),
	failures: { failed: 2, of: 60 },
	repairDays: 4,
	uses: days(90).map(() => 1.5),
	washDays: 1.5
});
const asked = { days: days(90), runs: 10_000, seed: 16, mostChance: 0.01 };
const [, fleetMs] = timed(() =>
	forecastFleet({ ...asked, groups: Array.from({ length: 20 }, (_, i) => group(i)) })
);
console.log('10,000 of 400 items, 90 days', seconds(fleetMs));
const steady = forecastFleet({ ...asked, groups: [{ ...group(0), looked: [], floor: 16 }] });
const palm = readyChance({ sets: 20, awayPerDay: 1.5, awayDays: 1.5, floor: 16 });
console.log(
	'below the floor, last day'.padEnd(28),
	`${steady.groups[0]?.days.at(-1)?.belowFloor.toFixed(4)} lived through, ${palm.chanceBelowFloor.toFixed(4)} by Palm`
);

const { db, close } = openDatabase(process.env.DATABASE_URL ?? '', { max: 2 });
try {
	const context = { db, site: await loadSite(db), now: () => new Date() };
	const [weeks, year] = [await planFacts(context), await planFacts(context, 365)];
	console.log('\nThe demo');
	const [plan, ms] = timed(() => planSite(weeks));
	console.log(
		`six weeks, ${weeks.jobs.length} jobs`.padEnd(28),
		seconds(ms),
		`highest ${plan.peakMin} min, bound ${plan.boundMin}`
	);
	const [lived, yearMs] = timed(() => {
		const steps = livedYear(year);
		for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
	});
	console.log('its year'.padEnd(28), seconds(yearMs));
	for (const way of ['whenDue', 'levelled'] as const) {
		const { peakMin, overdueDays, daysUnderFloor, visits } = lived[way];
		console.log(
			`  ${way === 'whenDue' ? 'done when due' : 'levelled'}`.padEnd(28),
			`${lived.jobs[way]} jobs, highest day ${Math.round(peakMin)} min, ${overdueDays} days overdue, ${daysUnderFloor} days under a floor, ${visits} ways`
		);
	}
} finally {
	await close();
}
