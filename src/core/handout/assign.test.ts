import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cheapestMost } from './assign.ts';
import { stop } from './gate-reason.ts';
import { kitOutByGate, type TeamSet } from './team.ts';

/** The most that any way serves, and the least that such a way costs, by trying all. */
function exhaustive(
	costs: readonly (readonly (number | null)[])[],
	stocks: readonly (string | null)[],
	spare: ReadonlyMap<string, number>,
	belowFloor: number,
	taken: readonly number[] = []
): [served: number, cost: number] {
	const [row, ...rest] = costs;
	if (!row) {
		const below = [...spare].reduce(
			(sum, [stock, left]) =>
				sum + Math.max(0, taken.filter((s) => stocks[s] === stock).length - Math.max(0, left)),
			0
		);
		return [0, below * belowFloor];
	}
	let best = exhaustive(rest, stocks, spare, belowFloor, taken);
	row.forEach((cost, s) => {
		if (cost === null || taken.includes(s)) return;
		const [n, more] = exhaustive(rest, stocks, spare, belowFloor, [...taken, s]);
		if (n + 1 > best[0] || (n + 1 === best[0] && more + cost < best[1]))
			best = [n + 1, more + cost];
	});
	return best;
}

const SETS = 5;
const asked = fc.record({
	costs: fc.array(
		fc.array(fc.option(fc.nat(9), { freq: 2 }), { minLength: SETS, maxLength: SETS }),
		{ minLength: 1, maxLength: 4 }
	),
	stocks: fc.array(fc.option(fc.constantFrom('A', 'B')), { minLength: SETS, maxLength: SETS }),
	spare: fc.record({ A: fc.integer({ min: -1, max: 3 }), B: fc.nat(3) })
});

describe('the cheapest way that serves the most', () => {
	it('equals trying all of them, floors included', () =>
		fc.assert(
			fc.property(asked, ({ costs, stocks, spare }) => {
				const left = new Map(Object.entries(spare));
				const given = cheapestMost({ costs, stocks, spare: left, belowFloor: 100 });
				const served = given.filter((s) => s >= 0);
				expect(new Set(served).size).toBe(served.length);
				const cost = given.reduce((sum, s, w) => sum + (s < 0 ? 0 : (costs[w]?.[s] ?? NaN)), 0);
				const below = [...left].reduce(
					(sum, [stock, n]) =>
						sum + Math.max(0, served.filter((s) => stocks[s] === stock).length - Math.max(0, n)),
					0
				);
				expect([served.length, cost + below * 100]).toEqual(exhaustive(costs, stocks, left, 100));
			}),
			{ numRuns: 500 }
		));

	it('gives nothing where there is nothing', () => {
		expect(cheapestMost({ costs: [] })).toEqual([]);
		expect(cheapestMost({ costs: [[], []] })).toEqual([-1, -1]);
	});
});

const set = (tag: string, part: Partial<TeamSet> & { for: Record<string, string[]> }): TeamSet => ({
	tag,
	burden: 2,
	surplusMin: 0,
	stock: null,
	ownOf: null,
	...part,
	stops: new Map(
		Object.entries(part.for).map(([wearer, rules]) => [
			wearer,
			rules.map((rule) => stop(rule, `${rule} of ${wearer}.`, 'Mend it.'))
		])
	)
});

describe('a team by the gate', () => {
	it('takes the less of a burden, its own before others’, and keeps the floor', () => {
		const light = set('light', { for: { a: [] } });
		const heavy = set('heavy', { burden: 8, for: { a: [] } });
		const own = set('own', { burden: 8, ownOf: 'a', for: { a: [] } });
		const floored = { ...light, stock: 'Bay' };
		const who = (sets: TeamSet[], spare = new Map<string, number>()) =>
			kitOutByGate(['a'], sets, spare).assignment.get('a');
		expect(who([heavy, light])).toBe('light');
		expect(who([light, own])).toBe('own');
		expect(who([heavy, floored], new Map([['Bay', 0]]))).toBe('heavy');
		expect(who([floored], new Map([['Bay', 0]]))).toBe('light');
		expect(
			kitOutByGate(['a'], [floored], new Map([['Bay', 0]])).reasons.map(({ rule }) => rule)
		).toEqual(['kit-out.served', 'kit-out.floor']);
	});

	it('names the one change that serves the most', () => {
		const sets = [
			set('1', { for: { a: ['training'], b: ['fit.none'], c: ['training', 'hair'] } }),
			set('2', { for: { a: ['training'], b: [], c: ['hair'] } })
		];
		const { assignment, unserved, reasons } = kitOutByGate(['a', 'b', 'c'], sets, new Map());
		expect([...assignment]).toEqual([['b', '2']]);
		expect(unserved.map(({ wearer }) => wearer)).toEqual(['a', 'c']);
		expect(reasons.at(-1)?.text).toMatch(
			/What helps most, 1 more served: a\. gate.training|training of a/
		);
	});

	it('says that no single change helps where everybody lacks two things', () => {
		const sets = [set('1', { for: { a: ['training', 'hair'] } })];
		expect(kitOutByGate(['a'], sets, new Map()).reasons.at(-1)?.rule).toBe('kit-out.no-help');
		expect(kitOutByGate(['a'], [], new Map()).unserved[0]?.reason).toMatch(/Nothing/);
	});

	it('one stop less never serves fewer', () =>
		fc.assert(
			fc.property(
				fc.array(
					fc.array(fc.subarray(['training', 'hair', 'fit.none']), { minLength: 3, maxLength: 3 }),
					{ minLength: 1, maxLength: 4 }
				),
				fc.nat(3),
				fc.nat(2),
				(table, s, w) => {
					const team = ['a', 'b', 'c'];
					const made = (rows: string[][][]) =>
						rows.map((row, i) =>
							set(`s${i}`, { for: Object.fromEntries(team.map((one, j) => [one, row[j] ?? []])) })
						);
					const served = (rows: string[][][]) =>
						kitOutByGate(team, made(rows), new Map()).assignment.size;
					const less = table.map((row, i) =>
						row.map((stops, j) => (i === s % table.length && j === w ? stops.slice(1) : stops))
					);
					expect(served(less)).toBeGreaterThanOrEqual(served(table));
				}
			)
		));
});
