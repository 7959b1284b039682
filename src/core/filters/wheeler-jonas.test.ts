import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findSubstance } from '../data/substances.ts';
import { TWIN_CARTRIDGE_MINUTES } from '../data/twin-cartridge-tests.ts';
import { geometricMean, geometricStandardDeviation, rankCorrelation } from '../stats/sample.ts';
import { InputError } from '../verdict.ts';
import {
	adsorbateOf,
	humidityFactor,
	keepableMinutes,
	serviceLife,
	VALIDATED_ABOVE_MIN,
	VALIDATED_GEOMETRIC_SD,
	type ServiceLifeInput
} from './service-life.ts';
import { saturationPpm } from './vapour-pressure.ts';
import { DEFAULT_BED } from './wheeler-jonas.ts';

function inputFor(key: string, part: Partial<ServiceLifeInput> = {}): ServiceLifeInput {
	const substance = findSubstance(key);
	if (!substance) throw new Error(`no substance ${key}`);
	const temperatureC = part.temperatureC ?? 22;
	return {
		adsorbate: adsorbateOf(substance, temperatureC),
		concentrationPpm: 1000,
		flowLPerMin: 53.3,
		filters: 2,
		temperatureC,
		relativeHumidityPercent: 50,
		breakthroughFraction: 0.1,
		bed: DEFAULT_BED,
		...(substance.noFilter ? { noFilter: substance.noFilter } : {}),
		...part
	};
}

describe('the service-life model against measurement', () => {
	// Published: Nelson & Harder, AIHA J. 1974-76, twin cartridges; from memory.
	const long = Object.entries(TWIN_CARTRIDGE_MINUTES).filter(([, m]) => m > VALIDATED_ABOVE_MIN);
	const measured = long.map(([, minutes]) => minutes);
	const predicted = long.map(([key]) => serviceLife(inputFor(key)).breakthroughMin);
	const ratios = predicted.map((minutes, i) => minutes / (measured[i] ?? NaN));

	it('reproduces the statistics over the 33 substances above 20 min', () => {
		expect(long).toHaveLength(33);
		expect(Math.abs(geometricMean(ratios) - 0.95)).toBeLessThanOrEqual(0.05);
		expect(Math.abs(geometricStandardDeviation(ratios) - 1.29)).toBeLessThanOrEqual(0.05);
	});

	it('states an uncertainty no smaller than the data show, to two decimals', () => {
		expect(VALIDATED_GEOMETRIC_SD).toBe(
			Math.ceil(geometricStandardDeviation(ratios) * 100 - 1e-9) / 100
		);
	});

	it('ranks the substances as the tests do', () => {
		// Published: critical value of Spearman's rho, n = 33, one-sided p = 0.001 is about 0.53.
		expect(rankCorrelation(predicted, measured)).toBeGreaterThan(0.53);
	});

	it.each(['methanol', 'dichloromethane', 'vinyl-chloride'])(
		'flags %s: not with this filter',
		(key) => {
			const life = serviceLife(inputFor(key));
			expect(life.outcome).toBe('not with this filter');
			expect(life.recommendedMin).toBe(0);
		}
	);

	it('never recommends more than was measured, for at least 95 % of the substances', () => {
		const over = long.filter(([key, minutes]) => {
			const life = serviceLife(inputFor(key));
			return life.recommendedMin > minutes;
		});
		expect(over.length / long.length).toBeLessThanOrEqual(0.05);
	});
});

describe('what moves the service life', () => {
	const life = (part: Partial<ServiceLifeInput>) => serviceLife(inputFor('toluene', part));
	const amount = fc.double({ min: 1, max: 5000, noNaN: true });

	it('more concentration never gives a longer life', () => {
		fc.assert(
			fc.property(amount, amount, (a, b) => {
				const [low, high] = [Math.min(a, b), Math.max(a, b)];
				const [long, short] = [life({ concentrationPpm: low }), life({ concentrationPpm: high })];
				expect(short.breakthroughMin).toBeLessThanOrEqual(long.breakthroughMin * (1 + 1e-9));
				expect(short.recommendedMin).toBeLessThanOrEqual(long.recommendedMin);
			})
		);
	});

	it('more flow or more humidity never gives a longer life', () => {
		const flow = fc.double({ min: 10, max: 120, noNaN: true });
		const humidity = fc.double({ min: 0, max: 100, noNaN: true });
		fc.assert(
			fc.property(flow, flow, humidity, humidity, (f1, f2, h1, h2) => {
				const easy = life({
					flowLPerMin: Math.min(f1, f2),
					relativeHumidityPercent: Math.min(h1, h2)
				});
				const hard = life({
					flowLPerMin: Math.max(f1, f2),
					relativeHumidityPercent: Math.max(h1, h2)
				});
				expect(hard.recommendedMin).toBeLessThanOrEqual(easy.recommendedMin);
			})
		);
	});

	// Published rule of thumb: AIHA, The Occupational Environment; halved above 85 %, none up to 65 %.
	it('takes humidity off as the rule of thumb says', () => {
		expect([0, 65, 75, 85, 100].map(humidityFactor)).toEqual([1, 1, 0.75, 0.5, 0.5]);
	});

	// Published rule of thumb (AIHA, from memory): a tenth of the concentration gives about five times the life.
	it('agrees with the rule of thumb on concentration within a factor of two', () => {
		const ratio =
			life({ concentrationPpm: 50 }).breakthroughMin /
			life({ concentrationPpm: 500 }).breakthroughMin;
		expect(ratio).toBeGreaterThan(2.5);
		expect(ratio).toBeLessThan(10);
	});

	it('rounds down to times one can keep', () => {
		expect([0, 4.9, 59, 60, 74, 239, 276, 1000].map(keepableMinutes)).toEqual([
			0, 0, 55, 60, 60, 225, 270, 480
		]);
	});
});

describe('what the service life refuses', () => {
	it.each([
		['concentrationPpm', { concentrationPpm: 0 }],
		['concentrationPpm', { concentrationPpm: -5 }],
		['flowLPerMin', { flowLPerMin: 0 }],
		['relativeHumidityPercent', { relativeHumidityPercent: 209 }],
		['breakthroughFraction', { breakthroughFraction: 1 }],
		['temperatureC', { temperatureC: 300 }],
		['bed.carbonMassG', { bed: { ...DEFAULT_BED, carbonMassG: 0 } }]
	] as const)('%s of %o', (path, part) => {
		try {
			serviceLife({ ...inputFor('toluene'), ...part });
			expect.unreachable('it was accepted');
		} catch (error) {
			expect(error).toBeInstanceOf(InputError);
			expect((error as InputError).path).toBe(path);
		}
	});

	it('says how much vapour the air can hold', () => {
		// Toluene at 22 °C: about 24 mmHg, 3.2 % of the air (computed from the Antoine equation).
		expect(() => serviceLife(inputFor('toluene', { concentrationPpm: 40_000 }))).toThrow(
			/above saturation: at 22 °C the vapour reaches 3\d,\d{3} ppm/
		);
	});

	it.each([
		['ammonia', /Ammonia is an inorganic gas: .*type K/],
		['hdi', /Isocyanates sensitise/],
		['lead', /particle filter/],
		['glutaraldehyde', /no liquid density/]
	])('says of %s what it is, or which value the library lacks', (key, says) => {
		const substance = findSubstance(key);
		if (!substance) throw new Error(`no ${key}`);
		expect(() => adsorbateOf(substance, 20)).toThrow(says);
	});

	it('estimates a vapour pressure from the boiling point where it has no Antoine equation', () => {
		const cyclohexanone = findSubstance('cyclohexanone');
		if (!cyclohexanone) throw new Error('no cyclohexanone');
		expect(saturationPpm(cyclohexanone, 20)).toBeCloseTo((3.4 / 760) * 1e6, 0);
		expect(saturationPpm(cyclohexanone, 155.4)).toBeCloseTo(1e6, -3);
		expect(saturationPpm({}, 20)).toBeUndefined();
	});
});
