import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findSubstance } from '../data/substances.ts';
import { decide } from '../hazards/ladder.ts';
import { DEFAULT_FACTS } from '../hazards/facts.ts';
import { InputError } from '../verdict.ts';
import { changeDate } from './change-date.ts';
import { CLASS_TESTS, classTestMinutes, classTestOf } from './class-test.ts';
import { breakthroughCurve, sensitivity } from './curve.ts';
import { earlyFlag, wearLedger, type Wear } from './ledger.ts';
import { checkModel } from './model-check.ts';
import { planLife } from './plan-life.ts';
import { clock, scheduleCard } from './schedule.ts';
import { adsorbateOf, BAND_FACTOR, serviceLife, type ServiceLifeInput } from './service-life.ts';
import { judgeStock } from './stock.ts';
import { countCases, walkSweep, type SweepResult, type SweepSpec } from './sweep.ts';
import { saturationMmHg } from './vapour-pressure.ts';
import { DEFAULT_BED } from './wheeler-jonas.ts';

const styrene = findSubstance('styrene');
if (!styrene) throw new Error('no styrene');
const input: ServiceLifeInput = {
	adsorbate: adsorbateOf(styrene, 22),
	concentrationPpm: 160,
	flowLPerMin: 40,
	filters: 2,
	temperatureC: 22,
	relativeHumidityPercent: 50,
	breakthroughFraction: 0.1,
	bed: DEFAULT_BED
};
const fault = (run: () => unknown) => {
	try {
		run();
	} catch (error) {
		expect(error).toBeInstanceOf(InputError);
		return `${(error as InputError).path}: ${(error as Error).message}`;
	}
	return 'accepted';
};

describe('the breakthrough curve', () => {
	it('rises with time, passes the service life, and carries its band', () => {
		const curve = breakthroughCurve({ ...input, relativeHumidityPercent: 75 });
		curve.forEach((point, i) => {
			expect(point.minutes).toBeGreaterThanOrEqual(curve[i - 1]?.minutes ?? 0);
			expect(point.upper / point.lower).toBeCloseTo(BAND_FACTOR ** 2, 9);
		});
		const tenth = curve.find((point) => point.fraction === 0.1);
		expect(tenth?.minutes).toBeCloseTo(serviceLife(input).breakthroughMin * 0.75, 6);
	});

	it('moves with what is varied, and leaves out what the model refuses', () => {
		const ppm = sensitivity(input, 'concentrationPpm', [50, 160, 500, 9000], () => input.adsorbate);
		expect(ppm[3]).toBeNull();
		expect(ppm[0]).toBeGreaterThan(ppm[1] ?? Infinity);
		expect(ppm[1]).toBeGreaterThan(ppm[2] ?? Infinity);
		const warm = sensitivity(input, 'temperatureC', [10, 30], (t) => adsorbateOf(styrene, t));
		expect(warm[0]).toBeGreaterThan(warm[1] ?? Infinity);
	});
});

describe('the model check', () => {
	// Published: Nelson & Harder, AIHA J. 1974-76; bounds as stated in docs/service-life.md.
	it('recomputes the statistics from the data', () => {
		const check = checkModel();
		expect(check.points).toHaveLength(36);
		expect(check.n).toBe(33);
		expect(Math.abs(check.meanRatio - 0.95)).toBeLessThanOrEqual(0.05);
		expect(Math.abs(check.geometricSd - 1.29)).toBeLessThanOrEqual(0.05);
		expect(check.rankCorrelation).toBeGreaterThan(0.53);
	});
});

describe('a sweep', () => {
	const range = (from: number, to: number, steps: number) => ({ from, to, steps });
	const spec: SweepSpec = {
		substance: styrene,
		bed: DEFAULT_BED,
		filters: 2,
		concentrationPpm: range(50, 800, 5),
		flowLPerMin: range(30, 85, 4),
		temperatureC: range(10, 30, 3),
		relativeHumidityPercent: range(40, 95, 4)
	};
	const run = (s: SweepSpec): { result: SweepResult; reports: number[] } => {
		const reports: number[] = [];
		const walk = walkSweep(s, 50);
		for (let step = walk.next(); ; step = walk.next()) {
			if (step.done) return { result: step.value, reports };
			reports.push(step.value);
		}
	};

	it('walks every case, reports as it goes, and finds the worst of each cell', () => {
		const { result, reports } = run(spec);
		expect(result.cases).toBe(5 * 4 * 3 * 4);
		expect(reports).toEqual([50, 100, 150, 200]);
		expect(result.refused).toBe(0);
		const all = result.worst.flat();
		expect(result.shortest?.minutes).toBe(Math.min(...all.map((m) => m ?? Infinity)));
		// More vapour or more humidity never lasts longer.
		result.worst.forEach((row, i) =>
			row.forEach((cell, j) => {
				expect(cell ?? 0).toBeLessThanOrEqual(result.worst[i]?.[j - 1] ?? Infinity);
				expect(cell ?? 0).toBeLessThanOrEqual(result.worst[i - 1]?.[j] ?? Infinity);
			})
		);
	});

	it('counts what the model cannot take', () => {
		const { result } = run({ ...spec, concentrationPpm: range(5000, 20_000, 2) });
		expect(result.refused).toBeGreaterThan(0);
	});

	it.each([
		[{ concentrationPpm: range(0, 5, 2) }, /^concentrationPpm: .*above zero/],
		[{ flowLPerMin: range(80, 30, 2) }, /^flowLPerMin: .*lower to a higher/],
		[{ temperatureC: range(1, 2, 0) }, /^temperatureC: Between 1 and 1000/],
		[
			{
				temperatureC: range(1, 2, 1000),
				flowLPerMin: range(1, 2, 1000),
				concentrationPpm: range(1, 2, 50)
			},
			/^steps/
		]
	])('refuses %o', (part, expected) =>
		expect(fault(() => countCases({ ...spec, ...part }))).toMatch(expected)
	);
});

describe('class tests', () => {
	// Published: EN 14387, least times at 30 L/min: B chlorine 20, hydrogen sulphide 40, hydrogen cyanide 25; from memory.
	it('a gas has its own test, another of the type the strictest', () => {
		expect(classTestOf('B', 1, 'hydrogen-sulphide')?.minutes).toBe(40);
		expect(classTestOf('B', 1, 'bromine')?.minutes).toBe(20);
		expect(classTestOf('K', 3, 'ammonia')?.minutes).toBe(60);
		expect(classTestOf('A', 3, 'toluene')).toMatchObject({ ppm: 8000, minutes: 65 });
		expect(classTestOf('AX', 1, 'acetone')).toBeUndefined();
		expect(Object.keys(CLASS_TESTS).sort()).toEqual(['A', 'B', 'E', 'K']);
	});
	it('at its own test condition it gives half its own time', () =>
		expect(
			classTestMinutes(
				'K',
				2,
				{ ppm: 5000, substance: { key: 'ammonia' } },
				{ flowLPerMin: 30, filters: 1 }
			)
		).toBeCloseTo(20, 9));
});

describe('vapour pressure', () => {
	it('is refused outside the range of its constants', () => {
		expect(fault(() => saturationMmHg(findSubstance('n-decane') ?? {}, -30))).toMatch(
			/^temperatureC: n-Decane.*from -16 to 234/
		);
		expect(saturationMmHg(findSubstance('toluene') ?? {}, 20)).toBeCloseTo(21.8, 0);
	});
	it('a substance without a refractive index is refused with the reason', () =>
		expect(fault(() => adsorbateOf(findSubstance('glutaraldehyde') ?? styrene, 20))).toMatch(
			/no liquid density|no refractive index/
		));
});

describe('the wear ledger', () => {
	const wear = (on: string, minutes: number, lifeMin: number | null): Wear => ({
		on,
		minutes,
		lifeMin,
		task: 't'
	});
	it('adds up parts of a life across tasks', () => {
		const ledger = wearLedger([wear('2026-01-02', 60, 120), wear('2026-01-01', 60, 240)]);
		expect(ledger.lines.map((l) => l.used)).toEqual([0.25, 0.75]);
		expect([ledger.used, ledger.wornMin, ledger.usedUpOn, ledger.lastWornOn]).toEqual([
			0.75,
			120,
			null,
			'2026-01-02'
		]);
		const over = wearLedger([...ledger.lines, wear('2026-01-03', 60, 240)]);
		expect(over.usedUpOn).toBe('2026-01-03');
		expect(wearLedger([wear('2026-01-01', 400, null)]).used).toBe(0);
		expect(wearLedger([wear('2026-01-01', 1, 0)]).usedUpOn).toBe('2026-01-01');
	});

	it('more wear never leaves more life', () => {
		const entry = fc.tuple(fc.integer({ min: 1, max: 480 }), fc.integer({ min: 30, max: 900 }));
		fc.assert(
			fc.property(fc.array(entry, { maxLength: 8 }), entry, (list, [minutes, life]) => {
				const wears = list.map(([m, l], i) => wear(`2026-01-0${i + 1}`, m, l));
				const pair = {
					openedOn: '2026-01-01',
					catchesGas: true,
					catchesParticles: false,
					changeAfterMin: 420,
					exposureMin: 120
				};
				const [less, more] = [
					wearLedger(wears),
					wearLedger([...wears, wear('2026-01-08', minutes, life)])
				];
				expect(more.used).toBeGreaterThanOrEqual(less.used);
				if (less.usedUpOn) expect(more.usedUpOn).toBe(less.usedUpOn);
				expect(changeDate({ ...pair, ledger: more }).changeOn <= '2026-07-01').toBe(true);
			})
		);
	});

	it('moves the change date: by what is left, and out of use when used up', () => {
		const pair = {
			openedOn: '2026-01-01',
			catchesGas: true,
			catchesParticles: false,
			changeAfterMin: 400,
			exposureMin: 120
		};
		const on = (wears: Wear[]) => changeDate({ ...pair, ledger: wearLedger(wears) });
		expect(changeDate(pair).changeOn).toBe('2026-01-03');
		// 400 − 100 min are left, two shifts of 120 after the 5th.
		expect(on([wear('2026-01-05', 100, 400)]).changeOn).toBe('2026-01-07');
		expect(on([wear('2026-01-05', 350, 400)])).toMatchObject({ changeOn: '2026-01-05' });
		const used = on([wear('2026-01-05', 400, 400)]);
		expect(used.changeOn).toBe('2026-01-04');
		expect(used.reasons[0]?.rule).toBe('change.used-up');
	});

	it('a smell before the time speaks against the plan, after it does not', () => {
		expect(earlyFlag('smell', { used: 0.3 })?.text).toMatch(/before the predicted time/);
		expect(earlyFlag('indicator', { used: 0.9 })).not.toBeNull();
		expect(earlyFlag('smell', { used: 1 })).toBeNull();
		expect(earlyFlag('damage', { used: 0.1 })).toBeNull();
	});

	it.each([0, -5, NaN, 1441])('refuses %f minutes', (minutes) =>
		expect(fault(() => wearLedger([wear('2026-01-01', minutes, 100)]))).toMatch(/^minutes/)
	);
});

describe('the store', () => {
	const filter = {
		codeEn: 'A2',
		codeUs: null,
		mount: 'q',
		massG: 200,
		useBy: '2030-01-01',
		sealedQuantity: 4
	};
	const need = {
		ruleSet: 'uk' as const,
		codeEn: 'A1',
		codeUs: null,
		mount: 'q',
		filters: 2,
		oilAerosol: false
	};
	const rules = (part: object, n: object = {}) =>
		judgeStock({ ...filter, ...part }, { ...need, ...n }, '2026-01-01').reasons.map((r) => r.rule);
	// Published: EN 14387, about 300 g on a half mask, 500 g on a full-face mask; from memory.
	it('weighs what hangs on a mask by what it hangs on', () => {
		expect(rules({})).toEqual(['stock.mass']);
		expect(rules({ massG: 150 })).toEqual([]);
		expect(rules({}, { carrier: 'full-face mask' })).toEqual([]);
		expect(rules({ massG: 251 }, { carrier: 'full-face mask' })).toEqual(['stock.mass']);
	});
	it('opens nothing from a recalled lot', () =>
		expect(rules({ massG: 100, recalledAt: new Date(0), recallReason: 'cracks' })).toEqual([
			'stock.recalled'
		]));
});

describe('the card for the wall', () => {
	it('says what is worn, when it is changed, and never calls it harmless', () => {
		const facts = {
			...DEFAULT_FACTS,
			ruleSet: 'uk' as const,
			contaminants: [
				{
					substance: 'styrene',
					name: 'Styrene',
					form: 'vapour' as const,
					concentration: { value: 160, unit: 'ppm' as const }
				}
			]
		};
		const decision = decide(facts);
		const life = planLife(decision.contaminants, facts, { bed: DEFAULT_BED });
		const card = scheduleCard('Laminating', 'Shed', facts, decision, life);
		expect(card).toMatchObject({ wear: 'Half mask with filters', code: 'A1' });
		expect(card.change).toBe(`Change after ${clock(life.changeAfterMin ?? 0)} of wear`);
		const words = JSON.stringify(card);
		expect(words).toContain('Styrene, 160 ppm');
		expect(words).not.toMatch(/\bsafe\b/i);
		const stop = decide({ ...facts, oxygenPercent: 25 });
		expect(scheduleCard('x', 'y', facts, stop, null)).toMatchObject({
			change: 'No filter here',
			code: null
		});
	});
	it('writes minutes as a clock', () =>
		expect([5, 60, 125].map(clock)).toEqual(['5 min', '1 h 00', '2 h 05']));
});
