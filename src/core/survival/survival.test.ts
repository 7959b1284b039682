import fc from 'fast-check';
import { jStat } from 'jstat';
import { describe, expect, it } from 'vitest';
import { Chance } from '../stats/chance.ts';
import { kaplanMeier, type Life } from './kaplan-meier.ts';
import { ageReplacement, bestInterval } from './replacement.ts';
import { fitWeibull, manner, weibullMean, weibullSurvival } from './weibull.ts';

/** Weeks of remission; + means still in remission when last seen. */
const lives = (...said: string[]): Life[] =>
	said.map((word) => ({ duration: Number.parseFloat(word), failed: !word.endsWith('+') }));

// Published: Freireich et al., Blood 21 (1963) 699, the group under 6-mercaptopurine.
const REMISSION = lives(
	...'6 6 6 6+ 7 9+ 10 10+ 11+ 13 16 17+ 19+ 20+ 22 23 25+ 32+ 32+ 34+ 35+'.split(' ')
);
// Published: O'Connor, Practical Reliability Engineering; Meeker & Escobar, Statistical Methods for Reliability Data (1998), table C.2:
// shock absorbers, kilometres; from memory.
const ABSORBERS = lives(
	...(
		'6700 6950+ 7820+ 8790+ 9120 9660+ 9820+ 11310+ 11690+ 11850+ 11880+ 12140+ 12200 12870+ 13150 13330+ 13470+ 14040+ 14300 ' +
		'17520 17540+ 17890+ 18450+ 18960+ 18980+ 19410+ 20100 20100+ 20150+ 20320+ 20900 22700 23490+ 26510 27410+ 27490 27890+ 28100+'
	).split(' ')
);
const many = fc.array(
	fc.record({ duration: fc.integer({ min: 1, max: 60 }), failed: fc.boolean() }),
	{ minLength: 1, maxLength: 60 }
);

describe('the share that lives on', () => {
	it('as in the trial that every textbook prints', () => {
		const { curve, median, watched } = kaplanMeier(REMISSION);
		expect(curve.map(({ duration, survival }) => [duration, Number(survival.toFixed(3))])).toEqual([
			[6, 0.857],
			[7, 0.807],
			[10, 0.753],
			[13, 0.69],
			[16, 0.627],
			[22, 0.538],
			[23, 0.448]
		]);
		expect(curve.map(({ atRisk }) => atRisk)).toEqual([21, 17, 15, 12, 11, 7, 6]);
		expect(median).toBe(23);
		expect(watched).toBe(35);
	});

	it('with its band on the log(−log) scale', () => {
		// Published: Collett, Modelling Survival Data in Medical Research; Kalbfleisch & Prentice 1980; from memory.
		const { curve } = kaplanMeier(REMISSION);
		expect(curve[0]?.lower).toBeCloseTo(0.6197, 4);
		expect(curve[0]?.upper).toBeCloseTo(0.9516, 4);
		expect(curve[6]?.lower).toBeCloseTo(0.1881, 4);
		expect(curve[6]?.upper).toBeCloseTo(0.6801, 4);
	});

	it('without anything cut short is the share itself', () => {
		fc.assert(
			fc.property(
				fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 50 }),
				(all) => {
					const { curve } = kaplanMeier(all.map((duration) => ({ duration, failed: true })));
					for (const step of curve)
						expect(step.survival).toBeCloseTo(
							all.filter((duration) => duration > step.duration).length / all.length,
							10
						);
					expect(curve.at(-1)?.survival).toBeCloseTo(0, 12);
				}
			)
		);
	});

	it('falls, stays within its band, and does not care in which order lives are told', () => {
		fc.assert(
			fc.property(many, (told) => {
				const { curve } = kaplanMeier(told);
				let last = 1;
				for (const step of curve) {
					expect(step.survival).toBeLessThan(last);
					expect(step.lower).toBeLessThanOrEqual(step.survival + 1e-12);
					expect(step.upper).toBeGreaterThanOrEqual(step.survival - 1e-12);
					last = step.survival;
				}
				expect(kaplanMeier([...told].reverse()).curve).toEqual(curve);
			})
		);
	});

	it('is whole where nothing failed, and takes no life that cannot be', () => {
		expect(kaplanMeier([{ duration: 5, failed: false }])).toEqual({
			curve: [],
			median: null,
			watched: 5
		});
		expect(() => kaplanMeier([])).toThrow(RangeError);
		expect(() => kaplanMeier([{ duration: -1, failed: true }])).toThrow(RangeError);
	});
});

describe('a Weibull law of lives', () => {
	it('shock absorbers wear out', () => {
		const fit = fitWeibull(ABSORBERS);
		// Published: Meeker & Escobar 1998, example 8.5: μ 10.23, σ 0.3164, so scale exp(μ), shape 1/σ; from memory.
		expect(1 / (fit?.shape ?? 0)).toBeCloseTo(0.3164, 3);
		expect(Math.log(fit?.scale ?? 0)).toBeCloseTo(10.23, 2);
		expect(fit?.failures).toBe(11);
		expect(fit && manner(fit)).toBe('wears out');
	});

	it('remissions under 6-mercaptopurine', () => {
		// Published: Collett, Modelling Survival Data in Medical Research: shape 1.354, scale 33.77; from memory.
		const fit = fitWeibull(REMISSION);
		expect(fit?.shape).toBeCloseTo(1.354, 3);
		expect(fit?.scale).toBeCloseTo(33.77, 1);
		expect(fit && manner(fit)).toBe('random');
	});

	it('is the likeliest of all near it', () => {
		const likely = (shape: number, scale: number) =>
			REMISSION.reduce(
				(sum, { duration, failed }) =>
					sum -
					(duration / scale) ** shape +
					(failed ? Math.log(shape / scale) + (shape - 1) * Math.log(duration / scale) : 0),
				0
			);
		const fit = fitWeibull(REMISSION);
		const { shape, scale } = fit ?? { shape: 0, scale: 0 };
		for (const turn of [0.98, 0.995, 1.005, 1.02])
			for (const grow of [0.98, 1, 1.02])
				if (turn !== 1 || grow !== 1)
					expect(likely(shape * turn, scale * grow)).toBeLessThan(likely(shape, scale));
	});

	it('finds the law that lives were drawn from, inside its interval nineteen times of twenty', () => {
		const chance = new Chance(1_963);
		const law = { shape: 2.2, scale: 400 };
		let within = 0;
		for (let run = 0; run < 200; run++) {
			const drawn = Array.from({ length: 60 }, () => {
				const life = law.scale * (-Math.log(1 - chance.next())) ** (1 / law.shape);
				const seen = 200 + 400 * chance.next();
				return { duration: Math.min(life, seen), failed: life <= seen };
			});
			const fit = fitWeibull(drawn);
			if (fit && fit.shapeLower <= law.shape && law.shape <= fit.shapeUpper) within++;
		}
		expect(within).toBeGreaterThan(180);
		expect(within).toBeLessThan(199);
	});

	it('is that of a general statistics package', () => {
		for (const [t, shape, scale] of [
			[3, 1, 5],
			[7, 2.5, 4],
			[0.2, 0.6, 1]
		] as const)
			expect(weibullSurvival(t, { shape, scale })).toBeCloseTo(
				1 - jStat.weibull.cdf(t, scale, shape),
				12
			);
	});

	it('has no shape where too little failed', () => {
		expect(fitWeibull(lives('5', '7+', '9+'))).toBeNull();
		expect(fitWeibull(lives('5', '5', '5'))).toBeNull();
		expect(fitWeibull(lives('5+', '7+'))).toBeNull();
	});

	it('early failures and failures by chance are told apart from wear', () => {
		const at = (shape: number) =>
			fitWeibull(
				Array.from({ length: 80 }, (_, i) => ({
					duration: 100 * (-Math.log(1 - (i + 0.5) / 80)) ** (1 / shape),
					failed: true
				}))
			);
		const said = [0.5, 1, 3].map((shape) => {
			const fit = at(shape);
			return fit && manner(fit);
		});
		expect(said).toEqual(['early', 'random', 'wears out']);
	});
});

describe('changing a part at an age', () => {
	const costs = { planned: 1, failed: 5 };

	it('lives as long as its mean where the age is never reached', () => {
		const law = { shape: 1.7, scale: 10 };
		const never = ageReplacement(law, 300, costs);
		expect(never.changesPerTime).toBeCloseTo(1 / weibullMean(law), 4);
		expect(never.costPerTime).toBeCloseTo(costs.failed / weibullMean(law), 3);
	});

	it('never pays where nothing wears out', () => {
		expect(bestInterval({ shape: 1, scale: 10 }, costs)).toBeNull();
		expect(bestInterval({ shape: 0.7, scale: 10 }, costs)).toBeNull();
		expect(bestInterval({ shape: 3, scale: 10 }, { planned: 2, failed: 2 })).toBeNull();
	});

	it('is best where the rate of failing times the mean time served less the chance to fail is the ratio of costs', () => {
		// Published: Barlow & Proschan 1965: h(T) ∫R − F(T) = planned / (failed − planned); from memory.
		fc.assert(
			fc.property(
				fc.double({ min: 1.5, max: 5, noNaN: true }),
				fc.double({ min: 3, max: 20, noNaN: true }),
				(shape, failed) => {
					const law = { shape, scale: 100 };
					const best = bestInterval(law, { planned: 1, failed });
					expect(best).not.toBeNull();
					const { interval, changesPerTime, failsBefore } = best ?? ageReplacement(law, 1, costs);
					const rate = (shape / 100) * (interval / 100) ** (shape - 1);
					expect(rate / changesPerTime - failsBefore).toBeCloseTo(1 / (failed - 1), 1);
				}
			),
			{ numRuns: 40 }
		);
	});
});
