import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FAMILIES, stationOf } from '../data/families.ts';
import { CARE_ROUTES, firstStage, nextAfter, routeOf } from '../data/care-routes.ts';
import { REJECT_CODES } from '../data/reject-codes.ts';
import { STORAGE_TRAITS } from '../site/places.ts';
import { carryingOf, storageNeeds, unsuited } from '../site/storage-fit.ts';
import { BLOCK_OF, mayMove, MOVES, WHERES, type Where } from './custody.ts';
import { leadsOf, leadWords, NOTICED } from './noticed.ts';
import { ANSWERS, askOfHandOut, askOfReturn, type Held, QUESTIONS } from './questions.ts';

/** Everything that can be reached from somewhere. */
function reach(from: Where): Set<Where> {
	const seen = new Set<Where>([from]);
	for (const at of seen) for (const to of MOVES[at]) seen.add(to);
	return seen;
}

describe('where an item can be', () => {
	it.each(WHERES)('%s is reached from the shelf, and the shelf from it', (where) => {
		expect(reach('shelf').has(where)).toBe(true);
		expect(reach(where).has('shelf')).toBe(true);
	});

	// Common practice: nothing goes out that was worn and not cleaned or looked at.
	it('goes out from the shelf, or from hand to hand, alone', () =>
		expect(WHERES.filter((where) => mayMove(where, 'issued'))).toEqual(['shelf', 'issued']));

	it('is ready nowhere but on its shelf, or full and waiting to be', () =>
		expect(WHERES.filter((where) => BLOCK_OF[where] === null)).toEqual(['shelf', 'filling']));
});

describe('the way from return to ready', () => {
	it.each(FAMILIES.map(({ family }) => family))('%s has one of its own', (family) => {
		const route = CARE_ROUTES.find((one) => one.family === family);
		expect(route).toBeDefined();
		for (const { station, codes } of route?.looks ?? []) {
			expect(stationOf(family, station).key).toBe(station);
			for (const code of codes) expect(REJECT_CODES.map((one) => one.code)).toContain(code);
		}
	});

	it('goes by allowed moves to the shelf, with and without a bench test', () =>
		fc.assert(
			fc.property(
				fc.constantFrom(...FAMILIES.map(({ family }) => family), 'unknown'),
				fc.boolean(),
				(family, benchDue) => {
					let at = firstStage(family);
					expect(mayMove('issued', at)).toBe(true);
					const walked: Where[] = [at];
					while (at !== 'shelf') {
						const next = nextAfter(family, at, benchDue);
						expect(mayMove(at, next)).toBe(true);
						expect(walked).not.toContain(next);
						walked.push((at = next));
					}
				}
			)
		));

	// Handbook of the trade, common practice: mask with a demand valve to the bench, a plain one not.
	it.each([
		['half-mask', true, ['returned', 'wash', 'drying', 'shelf']],
		['full-face', false, ['returned', 'wash', 'drying', 'shelf']],
		['full-face', true, ['returned', 'wash', 'drying', 'bench', 'shelf']],
		['ba-set', false, ['returned', 'shelf']],
		['ba-set', true, ['returned', 'bench', 'shelf']],
		['gas-tight-suit', false, ['returned', 'wash', 'drying', 'bench', 'shelf']],
		['cylinder', false, ['filling', 'shelf']]
	] as const)('%s, bench due %s: %o', (family, benchDue, way) => {
		const walked: Where[] = [firstStage(family)];
		while (walked.at(-1) !== 'shelf')
			walked.push(nextAfter(family, walked.at(-1) ?? 'shelf', benchDue));
		expect(walked).toEqual(way);
	});

	it('never puts pneumatics or electronics into a bath', () =>
		expect(
			['ba-set', 'powered-blower', 'airline', 'cylinder', 'escape-set'].flatMap((family) =>
				routeOf(family).stages.filter(({ at }) => at === 'wash')
			)
		).toEqual([]));
});

const T0 = Date.UTC(2026, 10, 24, 8);
const min = (n: number) => n * 60_000;
const W1 = { id: 'w1', number: 'W101' };
const W2 = { id: 'w2', number: 'W102' };
const out: Held = { where: 'issued', wearer: W1, since: T0, startBar: 300 };
const back = { by: W1, minutes: 40, bar: 90, at: T0 + min(60) };

describe('what a scan contradicts', () => {
	it.each([
		['nothing', out, back, []],
		['nobody said', out, { ...back, by: null, minutes: null, bar: null }, []],
		['never issued', { ...out, where: 'shelf', wearer: null }, back, ['never issued']],
		['back already', { ...out, where: 'drying', wearer: null }, back, ['back already']],
		['by another', out, { ...back, by: W2 }, ['by another']],
		['longer than out', out, { ...back, minutes: 63 }, ['longer than out']],
		['as long as out, rounded', out, { ...back, minutes: 62 }, []],
		['more pressure', out, { ...back, bar: 311 }, ['more than it had']],
		['a gauge that differs a little', out, { ...back, bar: 310 }, []],
		['pressure unknown at the start', { ...out, startBar: null }, { ...back, bar: 400 }, []],
		[
			'all at once',
			out,
			{ by: W2, minutes: 90, bar: 320, at: T0 + min(60) },
			['by another', 'longer than out', 'more than it had']
		]
	] as const)('%s', (_, held, brought, asked) =>
		expect(askOfReturn(held as Held, brought).map(({ question }) => question)).toEqual(asked)
	);

	it('on handing out: with another, unless it is the same one', () => {
		expect(askOfHandOut(out, W2).map(({ question }) => question)).toEqual(['with another']);
		expect(askOfHandOut(out, W1)).toEqual([]);
		expect(askOfHandOut({ ...out, where: 'shelf', wearer: null }, W2)).toEqual([]);
	});

	it('offers answers for each question', () => {
		for (const question of QUESTIONS) expect(ANSWERS[question].length).toBeGreaterThan(0);
	});
});

describe('what was noticed', () => {
	const all = FAMILIES.flatMap(({ family }) =>
		NOTICED.flatMap((noticed) =>
			[true, false].flatMap((fitted) =>
				[true, false].map((planned) => ({ noticed, family, fitted, planned }))
			)
		)
	);

	it.each(all)('$noticed, $family, filters $fitted, plan $planned leads somewhere', (one) => {
		const leads = leadsOf(one.noticed, one);
		expect(leads.length).toBeGreaterThan(0);
		for (const lead of leads) {
			expect(leadWords(lead)).toMatch(/\.$/);
			if (lead.to !== 'fault') continue;
			expect(stationOf(one.family, lead.fault.station).key).toBe(lead.fault.station);
		}
	});

	it('a smell through filters takes them off and questions the plan', () =>
		expect(
			leadsOf('smell', { family: 'half-mask', fitted: true, planned: true }).map(({ to }) => to)
		).toEqual(['early change', 'plan']));

	it('damage is written as it was said', () =>
		expect(
			leadsOf(
				'damage',
				{ family: 'half-mask', fitted: true, planned: true },
				{ station: 'harness', code: 'CUT' }
			)
		).toEqual([{ to: 'fault', fault: { station: 'harness', code: 'CUT' } }]));
});

// Common practice: dry, dark, cool, clean, away from what is worked with.
describe('where something is kept', () => {
	const store = { name: 'Store', kind: 'store' as const, storage: [...STORAGE_TRAITS] };

	it.each(FAMILIES.map(({ family }) => family))('%s is well in a store that has all', (family) => {
		expect(unsuited(family, store)).toEqual([]);
		expect(carryingOf(family)).not.toBe('');
	});

	it('says each thing that a place lacks, and refuses none of which nothing is known', () => {
		expect(
			unsuited('half-mask', { ...store, storage: ['dry', 'clean'] }).map(({ rule }) => rule)
		).toEqual(['storage.dark', 'storage.cool']);
		expect(unsuited('half-mask', { ...store, storage: [] })).toEqual([]);
	});

	it('a car warms up: masks are not kept in it, a set is', () => {
		const car = { ...store, kind: 'vehicle' as const };
		expect(unsuited('full-face', car).map(({ rule }) => rule)).toEqual(['storage.vehicle']);
		expect(unsuited('ba-set', car)).toEqual([]);
	});

	it('one thing more of a place never spoils it', () =>
		fc.assert(
			fc.property(
				fc.constantFrom(...FAMILIES.map(({ family }) => family)),
				fc.subarray([...STORAGE_TRAITS], { minLength: 1 }),
				fc.constantFrom(...STORAGE_TRAITS),
				(family, storage, more) => {
					const less = unsuited(family, { ...store, storage });
					const with_ = unsuited(family, { ...store, storage: [...new Set([...storage, more])] });
					expect(with_.length).toBeLessThanOrEqual(less.length);
					expect(less).toHaveLength(
						storageNeeds(family).filter((need) => !storage.includes(need)).length
					);
				}
			)
		));
});
