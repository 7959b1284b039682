import { MF } from 'mf-parser';
import { describe, expect, it } from 'vitest';
import { disagreements } from '../substances/record.ts';
import { ppmToMgPerM3 } from '../units/concentration.ts';
import { originLine } from '../verdict.ts';
import { SUBSTANCE_RULES } from './substance-rules.ts';
import { substanceTable } from './substance-table.ts';
import { originOf, SUBSTANCE_ORIGINS, type SubstanceField } from './substance.ts';
import { findSubstance, SUBSTANCES } from './substances.ts';

const byName = SUBSTANCES.map((s) => [s.name, s] as const);

describe('the substance library', () => {
	it('holds at least 120 substances, each key and CAS number once', () => {
		expect(SUBSTANCES.length).toBeGreaterThanOrEqual(120);
		expect(new Set(SUBSTANCES.map((s) => s.key)).size).toBe(SUBSTANCES.length);
		const cas = SUBSTANCES.flatMap((s) => s.cas ?? []);
		expect(cas.filter((number, i) => cas.indexOf(number) !== i)).toEqual([]);
	});

	/*
	 * CAS check digit; Antoine against the boiling point (760 mmHg) and the tabulated pressure at 20 °C; limits in
	 * order and below immediate danger; type A and AX against 65 °C: what a site's own substances are held to.
	 */
	it.each(byName)('%s contradicts itself nowhere', (_, s) => expect(disagreements(s)).toEqual([]));

	// An independent implementation with its own table of atomic weights.
	it.each(SUBSTANCES.filter((s) => s.formula).map((s) => [s.name, s] as const))(
		'%s: molar mass by a general chemistry library',
		(_, s) => {
			const { mass } = new MF(s.formula ?? '').getInfo();
			expect(Math.abs((s.molarMassGPerMol ?? NaN) - mass)).toBeLessThan(0.05);
		}
	);

	// Published: NIOSH Pocket Guide, mg/m³ per ppm at 25 °C and 1 atm; from memory.
	it.each([
		['acetone', 2.38],
		['acetonitrile', 1.68],
		['ammonia', 0.7],
		['aniline', 3.81],
		['benzene', 3.19],
		['carbon-disulphide', 3.11],
		['carbon-monoxide', 1.15],
		['chlorine', 2.9],
		['chloroform', 4.88],
		['cyclohexane', 3.44],
		['dichloromethane', 3.47],
		['1-4-dioxane', 3.6],
		['ethanol', 1.89],
		['ethylbenzene', 4.34],
		['ethylene-oxide', 1.8],
		['formaldehyde', 1.23],
		['hydrogen-cyanide', 1.1],
		['hydrogen-sulphide', 1.4],
		['methanol', 1.31],
		['methyl-bromide', 3.89],
		['naphthalene', 5.24],
		['n-hexane', 3.53],
		['nitric-acid', 2.58],
		['nitrogen-dioxide', 1.88],
		['phenol', 3.85],
		['phosgene', 4.05],
		['phosphine', 1.39],
		['pyridine', 3.24],
		['styrene', 4.26],
		['sulphur-dioxide', 2.62],
		['tetrachloroethylene', 6.78],
		['tetrahydrofuran', 2.95],
		['toluene', 3.77],
		['trichloroethylene', 5.37],
		['triethylamine', 4.14],
		['vinyl-chloride', 2.56]
	])('%s: the published factor %f', (key, factor) => {
		const mass = findSubstance(key)?.molarMassGPerMol ?? NaN;
		expect(Math.abs(ppmToMgPerM3(1, mass, { temperatureC: 25 }) - factor)).toBeLessThan(0.011);
	});

	// Published: HSE EH40, 8-hour limits in ppm with their mg/m³ at 20 °C; from memory.
	it.each([
		['acetone', 500, 1210],
		['ammonia', 25, 18],
		['n-butyl-acetate', 150, 724],
		['2-butanone', 200, 600],
		['cyclohexane', 100, 350],
		['diethyl-ether', 100, 310],
		['ethanol', 1000, 1920],
		['ethylbenzene', 100, 441],
		['methanol', 200, 266],
		['methyl-methacrylate', 50, 208],
		['2-propanol', 400, 999],
		['styrene', 100, 430],
		['tetrahydrofuran', 50, 150],
		['toluene', 50, 191],
		['m-xylene', 50, 220]
	])('%s: the UK limit of %i ppm is %i mg/m³', (key, ppm, mg) => {
		const s = findSubstance(key);
		expect(s?.limits.uk?.twa).toBe(ppm);
		const computed = ppmToMgPerM3(ppm, s?.molarMassGPerMol ?? NaN, { temperatureC: 20 });
		expect(Math.abs(computed / mg - 1)).toBeLessThan(0.025);
	});

	// Published: NIOSH immediately dangerous concentrations, from memory.
	it.each([
		['acrolein', 2],
		['ammonia', 300],
		['bromine', 3],
		['carbon-disulphide', 500],
		['chlorine-dioxide', 5],
		['hydrazine', 50],
		['methyl-bromide', 250],
		['nitric-acid', 25],
		['phenol', 250],
		['propane', 2100]
	])('%s: immediate danger at %f ppm', (key, idlh) =>
		expect(findSubstance(key)?.idlh).toEqual({ value: idlh, unit: 'ppm' })
	);

	it.each(byName)('%s: every value has an origin', (_, s) => {
		for (const field of Object.keys(SUBSTANCE_ORIGINS) as SubstanceField[])
			expect(originLine(originOf(s, field) ?? { kind: 'site', source: '' }).length).toBeGreaterThan(
				8
			);
		if (!s.biologicalGroup && !s.noFilter && s.form !== 'dust')
			expect(s.organs?.length ?? 0).toBeGreaterThan(0);
	});

	it('names a substance in every rule', () => {
		for (const rule of SUBSTANCE_RULES)
			expect(findSubstance(rule.substance)?.key).toBe(rule.substance);
	});

	it('is found by name, synonym and CAS number, a name before a synonym', () => {
		for (const word of ['Styrene', 'STYRENE', 'vinylbenzene', '100-42-5'])
			expect(findSubstance(word)?.key).toBe('styrene');
		expect(findSubstance('unobtainium')).toBeUndefined();
	});

	it('a torn row of a table is named', () => {
		const use = { form: 'gas', organic: false, unit: 'ppm' } as const;
		expect(() => substanceTable('key | name\nx', use)).toThrow(/x: 1 cells for 2/);
		expect(() => substanceTable('key | bp\nx | warm', use)).toThrow(/x, bp: "warm"/);
	});
});
