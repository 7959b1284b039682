import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEFAULT_FACTS, type ContaminantFact } from './facts.ts';
import { AX_LIMIT_PPM, filterLimitPpm, neededEn, neededUs } from './filter-needed.ts';
import { resolveContaminant } from './resolve.ts';

const around = { ...DEFAULT_FACTS, ruleSet: 'uk' as const };
const contaminant = (part: Partial<ContaminantFact>) =>
	resolveContaminant(
		{ name: 'x', form: 'vapour', concentration: { value: 50, unit: 'ppm' }, ...part },
		0,
		around
	);
const listed = (substance: string, ppm: number, form: ContaminantFact['form'] = 'vapour') =>
	contaminant({ substance, name: substance, form, concentration: { value: ppm, unit: 'ppm' } });
const dust = () =>
	contaminant({ form: 'dust', name: 'dust', concentration: { value: 4, unit: 'mg/m3' } });

describe('the filter that a contaminant calls for', () => {
	// Published: EN 14387, classes up to 0.1, 0.5 and 1 % by volume; from memory.
	it.each([
		[999, 1],
		[1000, 1],
		[1001, 2],
		[5000, 2],
		[5001, 3],
		[10_000, 3]
	])('toluene at %i ppm: class %i', (ppm, gasClass) =>
		expect(neededEn([listed('toluene', ppm)], 'P2')?.gas).toEqual({ A: gasClass })
	);

	it('is none above the highest class, and none without a type', () => {
		expect(neededEn([listed('toluene', 10_001)], 'P2')).toBeNull();
		expect(neededEn([contaminant({ form: 'gas' })], 'P2')).toBeNull();
		expect(neededUs([contaminant({ form: 'gas' })], false)).toBeNull();
	});

	it('gathers types, keeps the highest class of each and adds particles', () => {
		const both = neededEn([listed('toluene', 50), listed('ammonia', 1200, 'gas'), dust()], 'P3');
		expect(both).toEqual({ gas: { A: 1, K: 2 }, particle: 'P3' });
		const twice = neededEn([listed('styrene', 20), listed('toluene', 4000)], 'P2');
		expect(twice).toEqual({ gas: { A: 2 } });
	});

	// Published: EN 14387, low boilers under 65 °C are AX; 42 CFR 84 names organic vapour OV; from memory.
	it('of a low boiler is AX, with its own limit', () => {
		const low = listed('acetone', 300);
		expect(neededEn([low], 'P2')?.gas).toEqual({ AX: 1 });
		expect(filterLimitPpm(low, 'uk')).toBe(AX_LIMIT_PPM);
		expect(neededUs([low], false)?.gas).toEqual(['OV']);
	});

	// Published: 42 CFR 84, N is not for oil; from memory.
	it('of the US code asks for P where there is oil', () => {
		expect(neededUs([dust()], false)?.particle).toBe('N95');
		expect(neededUs([dust()], true)?.particle).toBe('P95');
		expect(neededUs([listed('toluene', 50)], true)?.particle).toBeUndefined();
	});

	it('never comes out lower for more of it, for more contaminants, or for a longer wish', () => {
		const classOf = (ppm: number, minutes: number | null) =>
			neededEn([listed('toluene', ppm)], 'P2', { minutes, flowLPerMin: 40, filters: 2 })?.gas.A ??
			4;
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 9000 }),
				fc.integer({ min: 1, max: 1000 }),
				fc.integer({ min: 5, max: 400 }),
				(ppm, more, minutes) => {
					expect(classOf(ppm + more, null)).toBeGreaterThanOrEqual(classOf(ppm, null));
					expect(classOf(ppm, minutes)).toBeGreaterThanOrEqual(classOf(ppm, null));
					expect(classOf(ppm, minutes + 60)).toBeGreaterThanOrEqual(classOf(ppm, minutes));
				}
			),
			{ numRuns: 60 }
		);
	});
});
