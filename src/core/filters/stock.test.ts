import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEFAULT_FACTS, type ContaminantFact } from '../hazards/facts.ts';
import { resolveContaminant } from '../hazards/resolve.ts';
import { changeDate } from './change-date.ts';
import { classFor, formatEn, formatUs, parseEn, parseUs } from './filter-code.ts';
import { planLife } from './plan-life.ts';
import { judgeStock, type FilterNeed, type StockFilter } from './stock.ts';
import { DEFAULT_BED } from './wheeler-jonas.ts';

const stock = (part: Partial<StockFilter> = {}): StockFilter => ({
	codeEn: 'A2B2E2K2-P3',
	codeUs: 'OV/AG-P100',
	mount: 'quarter-turn',
	massG: 120,
	useBy: '2028-01-01',
	sealedQuantity: 10,
	...part
});
const need = (part: Partial<FilterNeed> = {}): FilterNeed => ({
	ruleSet: 'uk',
	codeEn: 'A1-P2',
	codeUs: 'OV-N95',
	mount: 'quarter-turn',
	filters: 2,
	oilAerosol: false,
	...part
});
const rules = (s: StockFilter, n: FilterNeed, asOf = '2026-11-24') =>
	judgeStock(s, n, asOf).reasons.map((reason) => reason.rule);

describe('filter codes', () => {
	it.each(['A1', 'A2B2E2K2-P3', 'AX', 'Hg-P3', 'P2', 'K1', 'A1K1-P2'])(
		'EN %s reads and writes',
		(code) => expect(formatEn(parseEn(code) ?? { gas: {} })).toBe(code)
	);
	it.each(['OV', 'OV/AG-P100', 'N95', 'AM', 'OV/AM-N95'])('US %s reads and writes', (code) =>
		expect(formatUs(parseUs(code) ?? { gas: [] })).toBe(code)
	);
	it.each(['', 'A', 'A4', 'P4', 'XY', 'A1-P9'])('"%s" is no EN code', (code) =>
		expect(parseEn(code)).toBeUndefined()
	);
	// Published: EN 14387, 0.1, 0.5 and 1.0 % by volume; from memory.
	it.each([
		[1000, 1],
		[1001, 2],
		[5000, 2],
		[5001, 3],
		[10_000, 3],
		[10_001, undefined]
	])('%i ppm takes class %s', (ppm, expected) => expect(classFor(ppm)).toBe(expected));
});

describe('filters from the stock', () => {
	it('serves when everything is right, and says every reason when not', () => {
		expect(judgeStock(stock(), need(), '2026-11-24').outcome).toBe('serves');
		expect(
			rules(
				stock({
					codeEn: 'P3',
					mount: 'thread-40',
					massG: 180,
					useBy: '2026-11-23',
					sealedQuantity: 1
				}),
				need()
			)
		).toEqual(['stock.type', 'stock.mount', 'stock.use-by', 'stock.quantity', 'stock.mass']);
	});

	it('counts the use-by date through its last day', () => {
		expect(rules(stock({ useBy: '2026-11-24' }), need())).toEqual([]);
	});

	// The mistakes that cost lives: a dust filter against vapour, a vapour cartridge against dust.
	it.each([
		['P3', 'A1', 'stock.type'],
		['A2', 'P2', 'stock.type'],
		['A1', 'A2', 'stock.type'],
		['A2', 'AX', 'stock.type'],
		['A2-P2', 'A1-P3', 'stock.type'],
		['B2', 'K1', 'stock.type']
	])('%s does not serve where %s is needed', (codeEn, wanted, rule) =>
		expect(rules(stock({ codeEn }), need({ codeEn: wanted }))).toContain(rule)
	);

	it('reads the other scheme under the other rule set', () => {
		const us = need({ ruleSet: 'us', codeUs: 'OV-P95', oilAerosol: true });
		expect(rules(stock(), us)).toEqual([]);
		expect(rules(stock({ codeUs: 'OV-N95' }), us)).toContain('stock.type');
		expect(rules(stock({ codeUs: null }), us)).toEqual(['stock.unmarked']);
	});
});

describe('how long a filter lasts under a plan', () => {
	const facts = { ...DEFAULT_FACTS, ruleSet: 'uk' as const, contaminants: [] };
	const life = (...list: [string, number][]) => {
		const contaminants = list.map(([substance, value], i) => {
			const particle = substance.includes('dust');
			const fact: ContaminantFact = {
				substance,
				name: substance,
				form: particle ? 'dust' : 'vapour',
				concentration: { value, unit: particle ? 'mg/m3' : 'ppm' }
			};
			return resolveContaminant(fact, i, facts);
		});
		return planLife(contaminants, facts, { bed: DEFAULT_BED });
	};

	it('gives no time against dust and a rounded one against vapour', () => {
		expect(life(['grain-dust', 40]).changeAfterMin).toBeNull();
		const styrene = life(['styrene', 182]);
		expect(styrene.changeAfterMin).toBeGreaterThan(60);
		expect((styrene.changeAfterMin ?? 1) % 15).toBe(0);
	});

	it('two vapours together never last longer than either alone', () => {
		fc.assert(
			fc.property(fc.integer({ min: 5, max: 400 }), fc.integer({ min: 5, max: 400 }), (a, b) => {
				const both = life(['styrene', a], ['toluene', b]).changeAfterMin ?? Infinity;
				expect(both).toBeLessThanOrEqual(life(['styrene', a]).changeAfterMin ?? Infinity);
				expect(both).toBeLessThanOrEqual(life(['toluene', b]).changeAfterMin ?? Infinity);
			})
		);
	});

	// Published: EN 14387 class test K1 (ammonia 1000 ppm, 30 L/min, 50 min), linear, times 0.5; computed here by hand:
	// 50 · (1000/250) · (30/20) · 0.5 = 150 min at 40 L/min through two filters.
	it('halves the linear class-test estimate for an inorganic gas', () => {
		expect(life(['ammonia', 250]).parts[0]?.minutes).toBeCloseTo(150, 6);
		expect(life(['ammonia', 30]).changeAfterMin).toBe(480);
	});

	// Published: AX group 1, 100 ppm 40 min, 500 ppm 20 min; from memory.
	it('gives AX its single use', () => {
		expect(life(['acetone', 100])).toMatchObject({ changeAfterMin: 40, singleUse: true });
		expect(life(['acetone', 500])).toMatchObject({ changeAfterMin: 20, singleUse: true });
	});

	// Published: 29 CFR 1910.1051 table 1; from memory.
	it.each([
		[5, 240],
		[10, 180],
		[25, 120],
		[50, 60]
	])('butadiene at %i ppm is changed by the clock, %i min at most', (ppm, minutes) => {
		const us = { ...facts, ruleSet: 'us' as const };
		const c = resolveContaminant(
			{
				substance: '1-3-butadiene',
				name: 'butadiene',
				form: 'gas',
				concentration: { value: ppm, unit: 'ppm' }
			},
			0,
			us
		);
		const part = planLife([c], us, { bed: DEFAULT_BED }).parts[0];
		expect(part?.minutes).toBeLessThanOrEqual(minutes);
		expect(part?.reasons.some((r) => r.limit === minutes)).toBe(true);
	});
});

describe('the change date of an opened pair', () => {
	const opened = { openedOn: '2026-08-31', catchesGas: true, catchesParticles: true };
	// Common practice: gas six months, particles one year after opening.
	it('takes the earliest of all that apply', () => {
		expect(changeDate(opened).changeOn).toBe('2027-02-28');
		expect(changeDate({ ...opened, catchesGas: false }).changeOn).toBe('2027-08-31');
		expect(changeDate({ ...opened, makerOpenedMonths: 3 }).changeOn).toBe('2026-11-30');
		expect(
			changeDate({ ...opened, changeAfterMin: 480, exposureMin: 120, makerOpenedMonths: 3 })
		).toMatchObject({ changeOn: '2026-09-03', changeAfterMin: 480 });
		expect(changeDate({ ...opened, singleUse: true }).changeOn).toBe('2026-08-31');
		expect(changeDate({ ...opened, changeAfterMin: 60, exposureMin: 480 }).changeOn).toBe(
			'2026-08-31'
		);
	});

	it('lists every limit that was weighed', () => {
		const all = changeDate({
			...opened,
			makerOpenedMonths: 3,
			changeAfterMin: 240,
			exposureMin: 60
		});
		expect(all.reasons.map((r) => r.rule)).toEqual([
			'change.service-life',
			'change.opened-maker',
			'change.opened-gas',
			'change.opened-particle'
		]);
	});
});
