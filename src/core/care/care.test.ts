import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { asAvailableChlorine, doseOf, doseReasons, stockFor, strengthLeft } from './dilution.ts';
import { judgeWash, type WashDone } from './wash-check.ts';

describe('a dose of chlorine', () => {
	// Computed from 52.5 g/L; the recipe is common practice and quoted as 50 ppm.
	it.each([
		[5.25, 3.785, 5, 69.4],
		[5.25, 4.546, 5, 57.7],
		[5.25, 1, 1, 52.5]
	])('%d %% in %d L, %d mL: %d ppm', (stockPercent, volumeL, ml, ppm) =>
		expect(doseOf({ stockPercent, volumeL }, ml)).toBeCloseTo(ppm, 1)
	);

	it('says that a recipe gives more than it is often said to', () => {
		const rules = (ppm: number) => doseReasons(ppm).map(({ rule }) => rule);
		expect(rules(69.4)).toContain('dose.stronger');
		expect(rules(50)).not.toContain('dose.stronger');
		expect(rules(50)).toContain('dose.never-mixed');
	});

	it('goes both ways', () => {
		const some = fc.double({ min: 0.1, max: 15, noNaN: true });
		const litres = fc.double({ min: 0.5, max: 500, noNaN: true });
		const target = fc.double({ min: 1, max: 1000, noNaN: true });
		fc.assert(
			fc.property(some, litres, target, (stockPercent, volumeL, ppm) => {
				const bath = { stockPercent, volumeL };
				expect(doseOf(bath, stockFor(bath, ppm)) / ppm).toBeCloseTo(1, 9);
			})
		);
	});

	it('falls with the age of the stock, by half in a half-life', () => {
		expect(strengthLeft(10, 0, 90)).toBe(10);
		expect(strengthLeft(10, 90, 90)).toBeCloseTo(5, 9);
		expect(strengthLeft(10, 180, 90)).toBeCloseTo(2.5, 9);
		expect(asAvailableChlorine(5.25)).toBeCloseTo(4.998, 3);
	});

	it.each([
		[() => stockFor({ stockPercent: 0, volumeL: 1 }), 'stockPercent'],
		[() => stockFor({ stockPercent: 5, volumeL: -1 }), 'volumeL'],
		[() => stockFor({ stockPercent: 5, volumeL: 1 }, NaN), 'targetPpm'],
		[() => doseOf({ stockPercent: 5, volumeL: 1 }, -1), 'stockMl'],
		[() => strengthLeft(5, -1, 90), 'days'],
		[() => strengthLeft(5, 1, 0), 'halfLifeDays']
	])('is refused at its field', (run, path) =>
		expect(run).toThrow(expect.objectContaining({ path }))
	);
});

describe('a wash', () => {
	const wash = (part: Partial<WashDone> = {}): WashDone => ({
		temperatureC: 40,
		agent: 'chlorine',
		dosePpm: 50,
		contactMin: 2,
		rinsed: true,
		driedBy: 'air',
		...part
	});
	// Published: 29 CFR 1910.134 app. B-2 (43 °C, 50 ppm, two minutes, rinsed), from memory; heat: common practice.
	it.each([
		[{}, 'pass'],
		[{ temperatureC: 43 }, 'pass'],
		[{ temperatureC: 43.1 }, 'fail'],
		[{ temperatureC: 49, temperatureLimitC: 49 }, 'pass'],
		[{ temperatureC: 41, temperatureLimitC: 40 }, 'fail'],
		[{ dosePpm: 49.9 }, 'fail'],
		[{ dosePpm: undefined }, 'fail'],
		[{ dosePpm: 69.4 }, 'pass'],
		[{ contactMin: 1.99 }, 'fail'],
		[{ agent: 'iodine' }, 'pass'],
		[{ agent: 'iodine', dosePpm: 30 }, 'fail'],
		[{ agent: 'quaternary ammonium', dosePpm: undefined, contactMin: 10 }, 'pass'],
		[{ agent: 'quaternary ammonium', dosePpm: 200, contactMin: 1 }, 'pass'],
		[{ agent: 'quaternary ammonium', dosePpm: undefined, contactMin: 0 }, 'fail'],
		[{ rinsed: false }, 'fail'],
		[{ driedBy: 'direct heat' }, 'fail'],
		[{ driedBy: 'cabinet', cabinetC: 60, cabinetLimitC: 60 }, 'pass'],
		[{ driedBy: 'cabinet', cabinetC: 60.1, cabinetLimitC: 60 }, 'fail'],
		[{ driedBy: 'cabinet', cabinetC: 40 }, 'fail'],
		[{ driedBy: 'cabinet', cabinetLimitC: 60 }, 'fail']
	] as const)('%j: %s', (part, outcome) => expect(judgeWash(wash(part)).outcome).toBe(outcome));

	it('says every reason at once, and a hotter bath never makes it better', () => {
		const bad = judgeWash(
			wash({ temperatureC: 60, dosePpm: 5, contactMin: 1, rinsed: false, driedBy: 'direct heat' })
		);
		expect(bad.reasons).toHaveLength(5);
		fc.assert(
			fc.property(
				fc.double({ min: 0, max: 100, noNaN: true }),
				fc.double({ min: 0, max: 40, noNaN: true }),
				(temperatureC, more) => {
					const of = (c: number) => Number(judgeWash(wash({ temperatureC: c })).outcome === 'pass');
					expect(of(temperatureC + more)).toBeLessThanOrEqual(of(temperatureC));
				}
			)
		);
	});
});
