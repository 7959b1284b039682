import { describe, expect, it } from 'vitest';
import { plusDays } from '../calendar.ts';
import { Chance } from '../../stats/chance.ts';
import { faultsOfPlan } from './check.ts';
import { level } from './level.ts';
import type { LevelProblem } from './problem.ts';

/** Jobs on items that are missing as more than one kind, at more than one place, where some floors are short as it is. */
function drawn(seed: number): LevelProblem {
	const chance = new Chance(seed);
	const days = Array.from({ length: chance.int(4, 12) }, (_, i) => plusDays('2026-11-30', i));
	const [places, kinds] = [
		['boats', 'quay'],
		['sets', 'cylinders']
	];
	const latest = days.length - 1;
	return {
		days,
		workers: Array.from({ length: chance.int(1, 2) }, (_, i) => ({
			id: `w${i}`,
			minutes: days.map(() => 240)
		})),
		jobs: Array.from({ length: chance.int(10, 60) }, (_, i) => {
			const late = chance.next() < 0.1;
			const from = late ? 0 : chance.int(0, latest);
			return {
				id: `j${i}`,
				minutes: chance.pick([5, 10, 20, 40]),
				from,
				to: late ? latest : Math.min(latest, from + chance.int(0, 6)),
				late,
				place: chance.next() < 0.9 ? chance.pick(places) : null,
				kind: chance.pick(kinds),
				awayDays: chance.int(0, 3),
				item: chance.next() < 0.5 ? `i${chance.int(0, 20)}` : null,
				workers: null,
				pinned: chance.next() < 0.06 ? { day: chance.int(0, latest), worker: 0 } : null,
				was: null
			};
		}),
		floors: places.flatMap((place) =>
			kinds.map((kind) => {
				const ready = chance.int(2, 6);
				return {
					place,
					kind,
					ready,
					floor: chance.int(0, ready),
					missing: days.map(() => (chance.next() < 0.15 ? chance.int(1, 2) : 0))
				};
			})
		),
		visitMin: 10
	};
}

describe('an item that is missing as a set and as a cylinder', () => {
	it('is missing at each, so that whoever counts the plan anew finds every floor held', () => {
		for (let seed = 0; seed < 60; seed++) {
			const problem = drawn(seed);
			expect(faultsOfPlan(problem, level(problem).at)).toEqual([]);
		}
	});
});
