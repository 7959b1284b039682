import { describe, expect, it } from 'vitest';
import { Chance } from '../stats/chance.ts';
import { type Cell, causesOf, causeWords } from './causes.ts';

/** A Poisson count by chance (Knuth 1969). */
function count(chance: Chance, mean: number): number {
	let [n, product] = [0, chance.next()];
	for (; product > Math.exp(-mean); n++) product *= chance.next();
	return n;
}
/** Cells of lots at places and models, with what each is worse by. */
function cells(seed: number, worse: Record<string, number>): Cell[] {
	const chance = new Chance(seed);
	const all: Cell[] = [];
	for (let lot = 0; lot < 8; lot++)
		for (let place = 0; place < 4; place++)
			for (let model = 0; model < 3; model++) {
				const exposure = 40 + chance.int(0, 40);
				const times = [`lot ${lot}`, `place ${place}`, `model ${model}`].reduce(
					(product, key) => product * (worse[key] ?? 1),
					1
				);
				all.push({
					failures: count(chance, exposure * 0.02 * times),
					exposure,
					of: { lot: `${lot}`, place: `${place}`, model: `${model}` }
				});
			}
	return all;
}

describe('the strongest causes', () => {
	it('finds a bad lot, and not the place at which it mostly sits', () => {
		// Lot 3 is bad and sits nearly all at place 0.
		const told = cells(5, { 'lot 3': 6 }).map((cell) =>
			cell.of.lot === '3' && cell.of.place !== '0' ? { ...cell, failures: 0, exposure: 4 } : cell
		);
		const { causes } = causesOf(told);
		expect(causes[0]).toMatchObject({ factor: 'lot', level: '3' });
		expect(causes.some(({ factor }) => factor === 'place')).toBe(false);
		expect(causes[0]?.lower).toBeGreaterThan(2);
		expect(causes[0]?.ratio).toBeGreaterThan(3);
	});

	it('finds two that act together, each by its own', () => {
		const { causes } = causesOf(cells(11, { 'lot 2': 5, 'place 1': 3 }));
		expect(causes.map(({ factor, level }) => `${factor} ${level}`).sort()).toEqual([
			'lot 2',
			'place 1'
		]);
		const lot = causes.find(({ factor }) => factor === 'lot');
		expect(lot && lot.lower < 5 && lot.upper > 5).toBe(true);
	});

	it('names none in nineteen of twenty quiet years', () => {
		let named = 0;
		for (let seed = 0; seed < 200; seed++)
			if (causesOf(cells(100 + seed, {})).causes.length) named++;
		expect(named / 200).toBeLessThanOrEqual(0.05);
	});

	it('says that little is little', () => {
		expect(causesOf([{ failures: 3, exposure: 100, of: { lot: 'a' } }])).toMatchObject({
			few: true,
			causes: []
		});
		expect(causesOf([])).toMatchObject({ few: true, causes: [], looked: 0 });
	});

	it('reads as a sentence', () => {
		expect(
			causeWords({
				factor: 'lot',
				level: 'L-2507',
				failures: 9,
				exposure: 30,
				ratio: 7.21,
				lower: 3.4,
				upper: 15.3,
				pValue: 0.001
			})
		).toBe('Lot L-2507: 9 faults, 7.2 times as many as the rest; between 3.4 and 15 times.');
	});
});
