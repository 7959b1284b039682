import highsLoader from 'highs';
import { describe, expect, it } from 'vitest';
import { Chance } from '../../stats/chance.ts';
import { level } from './level.ts';
import type { LevelJob, LevelProblem } from './problem.ts';

/** The same problem as an integer program, for a solver that knows nothing of ours. */
function asProgram(given: LevelProblem): string {
	const n = given.days.length;
	const rows: string[] = [];
	const binaries = new Set<string>();
	const row = (terms: readonly string[], relation: string) =>
		rows.push(`r${rows.length}: ${terms.join(' + ')} ${relation}`);
	const inSlot = new Map<string, string[]>();
	const ways = new Map<string, { slot: string; jobs: string[] }>();
	const away = new Map<number, string[]>();
	const add = <K, V>(map: Map<K, V[]>, key: K, value: V) =>
		map.set(key, [...(map.get(key) ?? []), value]);
	given.jobs.forEach(({ minutes, from, to, workers, place, awayDays }, i) => {
		const choices: string[] = [];
		for (let day = from; day <= to; day++)
			for (const worker of workers ?? given.workers.keys()) {
				const x = `x${i}_${worker}_${day}`;
				const slot = `${worker}_${day}`;
				binaries.add(x);
				choices.push(x);
				add(inSlot, slot, `${minutes} ${x}`);
				const way = ways.get(`y${slot}_${place}`) ?? { slot, jobs: [] };
				way.jobs.push(x);
				ways.set(`y${slot}_${place}`, way);
				if (place === given.floors[0]?.place)
					for (let on = day; on < Math.min(n, day + awayDays); on++) add(away, on, x);
			}
		row(choices, '= 1');
	});
	if (given.visitMin > 0)
		for (const [y, { slot, jobs }] of ways) {
			binaries.add(y);
			add(inSlot, slot, `${given.visitMin} ${y}`);
			for (const x of jobs) rows.push(`r${rows.length}: ${x} - ${y} <= 0`);
		}
	for (const [slot, terms] of inSlot) {
		const [worker = 0, day = 0] = slot.split('_').map(Number);
		row(terms, `<= ${given.workers[worker]?.minutes[day] ?? 0}`);
		rows.push(`r${rows.length}: ${terms.join(' + ')} - peak <= 0`);
	}
	const [floor] = given.floors;
	if (floor) for (const terms of away.values()) row(terms, `<= ${floor.ready - floor.floor}`);
	return `Minimize\n obj: peak\nSubject To\n ${rows.join('\n ')}\nBounds\n peak >= 0\nBinary\n ${[...binaries].join(' ')}\nEnd`;
}

/** Two people, eight days, eighteen jobs: too many to look at every plan, few enough for the solver. */
function drawn(chance: Chance): LevelProblem {
	const jobs = Array.from({ length: 18 }, (_, i): LevelJob => {
		const from = chance.int(0, 7);
		return {
			id: `j${i}`,
			minutes: chance.int(5, 40),
			from,
			to: Math.min(7, from + chance.int(0, 3)),
			late: false,
			place: chance.pick(['quay', 'shed']),
			kind: 'mask',
			awayDays: chance.int(1, 2),
			item: null,
			workers: chance.next() < 0.3 ? [chance.int(0, 1)] : null,
			pinned: null,
			was: null
		};
	});
	const capacity = () => Array.from({ length: 8 }, () => chance.int(60, 120));
	return {
		days: Array.from({ length: 8 }, (_, i) => `2026-12-0${i + 1}`),
		workers: ['a', 'b'].map((id) => ({ id, minutes: capacity() })),
		jobs,
		floors: chance.next() < 0.6 ? [{ place: 'quay', kind: 'mask', ready: 6, floor: 2 }] : [],
		visitMin: chance.pick([0, 0, 5])
	};
}

describe('a levelled plan beside an integer program of the same problem (HiGHS)', () => {
	it('finds a plan wherever there is one, and comes within 2 % of the optimum on average', async () => {
		const highs = await highsLoader();
		const chance = new Chance(16);
		const over: number[] = [];
		for (let i = 0; i < 14; i++) {
			const given = drawn(chance);
			const plan = level(given);
			const solved = highs.solve(asProgram(given));
			if (solved.Status === 'Infeasible') {
				expect(plan.outcome).toBe('infeasible');
				continue;
			}
			expect(solved.Status).toBe('Optimal');
			expect(plan.outcome).toBe('planned');
			expect(plan.boundMin).toBeLessThanOrEqual(solved.ObjectiveValue + 1e-6);
			over.push(plan.peakMin / solved.ObjectiveValue - 1);
		}
		expect(over.length).toBeGreaterThan(5);
		expect(Math.min(...over)).toBeGreaterThan(-1e-6);
		expect(over.reduce((sum, one) => sum + one, 0) / over.length).toBeLessThan(0.02);
	});
});
