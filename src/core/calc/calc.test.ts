import { describe, expect, it } from 'vitest';
import { listOperations, runLine, runOne } from './command.ts';
import { openApi } from './openapi.ts';
import { calculate, OPERATIONS } from './registry.ts';

const ok = (name: string, input: unknown) => {
	const result = calculate(name, input);
	if (!result.ok) throw new Error(JSON.stringify(result.value));
	return result.value as Record<string, unknown>;
};
const issues = (name: string, input: unknown) => {
	const result = calculate(name, input);
	if (result.ok) throw new Error('it was accepted');
	expect(result.value.error.code).toBe('invalid_input');
	return result.value.error.issues;
};
const toluene = { substance: 'toluene', concentration: { value: 300, unit: 'ppm' } };

describe('the calculation interface', () => {
	it('converts', () => {
		// Computed independently: 50 ppm of toluene at 25 °C is 188 mg/m³.
		const out = ok('concentration', {
			value: 50,
			unit: 'ppm',
			molarMassGPerMol: 92.14,
			temperatureC: 25
		});
		expect(out.mgPerM3).toBeCloseTo(188.3, 0);
	});

	it('decides a hazard under both rule sets', () => {
		expect(ok('hazard', { ruleSet: 'uk', contaminants: [toluene] })).toMatchObject({
			outcome: 'filter',
			requiredFactor: 10,
			hazardRatio: 6
		});
		expect(ok('hazard', { ruleSet: 'us', contaminants: [toluene] })).toMatchObject({
			outcome: 'filter',
			requiredFactor: 10,
			hazardRatio: 1.5
		});
	});

	// Computed independently from the stated equations, but for the friction of Moody's chart; from memory.
	it.each([
		['air-state', { pressureBar: 0, temperatureC: 20 }, { z: 0.99967, densityMolPerL: 0.041585 }],
		[
			'cylinder-content',
			{ waterVolumeL: 6.8, fromBar: 300 },
			{ freeLitres: 1820.3, idealLitres: 2040 }
		],
		['cylinder-duration', { waterVolumeL: 6.8, startBar: 300 }, { minutesToWarning: 36.16 }],
		[
			'settled-pressure',
			{ pressureBar: 300, temperatureC: 45, finalTemperatureC: 15 },
			{ pressureBar: 258.6 }
		],
		['turn-back', { startBar: [300, 280], marginBar: 15 }, { turnAtBar: 175 }],
		['set-weight', { partsKg: [10], cylinders: [] }, { totalKg: 10 }],
		['dew-point', { dewPointC: 20, pressureBar: 0 }, { mgPerM3: 17_290, dewPointAtmosphereC: 20 }],
		['hose', { supplyBar: 6, boreMm: 10, lengthM: 0, flowLPerMin: 300 }, { outletBar: 6 }]
	] as const)('%s of %o', (name, input, expected) => {
		const out = ok(name, input);
		for (const [key, value] of Object.entries(expected))
			expect(Math.abs(Number(out[key]) / value - 1), key).toBeLessThan(1e-3);
	});

	it('fills from a cascade, and names the field at fault in air', () => {
		const bank = (pressureBar: number) => ({ waterVolumeL: 50, pressureBar });
		const cylinder = { waterVolumeL: 6.8, pressureBar: 50 };
		const { fills } = ok('cascade-fill', {
			banks: [bank(200), bank(250), bank(300)],
			cylinder
		}) as {
			fills: { finalBar: number }[];
		};
		expect(fills[0]?.finalBar).toBeCloseTo(292.5, 1);
		const path = (name: string, input: unknown) => issues(name, input)[0]?.path;
		expect(path('cascade-fill', { banks: [bank(500)], cylinder })).toBe('banks[0].pressureBar');
		expect(path('cylinder-content', { waterVolumeL: 6800, fromBar: 300 })).toBe('waterVolumeL');
		expect(path('turn-back', { startBar: [300, 40] })).toBe('startBar[1]');
		expect(path('dew-point', { pressureBar: 7 })).toBe('mgPerM3');
		expect(ok('hose', { supplyBar: 6, boreMm: 4, lengthM: 200, flowLPerMin: 500 }).outcome).toBe(
			'fail'
		);
		expect(path('set-weight', { partsKg: [], cylinders: [] })).toBe('partsKg');
		const hood = { supplyBar: 6, boreMm: 10, lengthM: 30, wears: 'hood' };
		const at = (flowLPerMin: number, bandBar?: number[]) =>
			ok('hose', { ...hood, flowLPerMin, ...(bandBar ? { bandBar } : {}) }).outcome;
		expect([at(169), at(170), at(425), at(426), at(200, [4, 6]), at(200, [4, 5])]).toEqual([
			'fail',
			'pass',
			'pass',
			'fail',
			'pass',
			'fail'
		]);
		expect(path('hose', { ...hood, flowLPerMin: 200, bandBar: [6, 4] })).toBe('bandBar');
	});

	it('takes a contaminant that the library does not hold', () => {
		const described = {
			name: 'thinner',
			form: 'vapour',
			molarMassGPerMol: 120,
			boilingPointC: 140,
			idlhPpm: 900
		};
		const at = (value: number, warning?: string) =>
			ok('hazard', {
				ruleSet: 'uk',
				contaminants: [
					{
						substance: { ...described, ...(warning ? { warning } : {}) },
						concentration: { value, unit: 'ppm' },
						limit: { value: 100, unit: 'ppm' }
					}
				]
			}).outcome;
		expect(at(250, 'adequate')).toBe('filter');
		// Nothing said of warning counts as poor, and no change schedule is known for it.
		expect(at(250)).toBe('supplied air');
		expect(at(900)).toBe('self-contained');
	});

	it('gives the conditions, and what is refused with why', () => {
		const d = ok('hazard', { ruleSet: 'uk', contaminants: [toluene] });
		expect(d.conditions).toContain('A valid fit test for this model and size.');
		expect(d.refused).toContainEqual({
			kind: 'filtering-facepiece',
			why: 'It catches particles only.'
		});
	});

	it('takes the altitude exception only where it is chosen, in the US pack', () => {
		const base = { contaminants: [toluene], oxygenPercent: 18, altitudeFt: 500 };
		const chosen = { ...base, oxygenStaysInRange: true };
		expect(ok('hazard', { ...base, ruleSet: 'us' }).outcome).toBe('self-contained');
		expect(ok('hazard', { ...chosen, ruleSet: 'us' }).outcome).toBe('supplied air');
		expect(ok('hazard', { ...chosen, ruleSet: 'uk' }).outcome).toBe('self-contained');
	});

	it('estimates a service life from a library substance and from its constants alike', () => {
		const common = { concentrationPpm: 200, flowLPerMin: 40, temperatureC: 22 };
		const named = ok('service-life', { substance: 'toluene', ...common });
		const described = ok('service-life', {
			molarMassGPerMol: 92.141,
			liquidDensityGPerCm3: 0.8669,
			refractiveIndex: 1.4961,
			vapourPressureMmHg: 10 ** (6.95464 - 1344.8 / (219.482 + 22)),
			...common
		});
		expect(described.breakthroughMin).toBeCloseTo(named.breakthroughMin as number, 3);
		expect(named.recommendedMin).toBeLessThan(named.breakthroughMin as number);
	});

	// Published: EN 137, EN 464; from memory. What they say is tested beside the core; here the way through.
	it('judges the bench', () => {
		expect(ok('hold-test', { startBar: 300, endBar: 289.9, seconds: 60 })).toMatchObject({
			outcome: 'fail',
			dropBar: 10.1
		});
		expect(ok('whistle', { bar: 49.9 })).toMatchObject({ outcome: 'fail' });
		expect(
			ok('pressure-test', { recipe: 'suit-en', start: 1650, end: 1350, temperatureChangeK: 0 })
		).toMatchObject({ outcome: 'pass', correctedEnd: 1350 });
		const samples = Array.from({ length: 361 }, (_, s) => ({ s, pa: 1650 - s / 3 + (s % 7) / 10 }));
		expect(ok('trace', { recipe: 'suit-en', samples, volumeL: 500 })).toMatchObject({
			outcome: 'pass',
			leakPaPerMin: expect.closeTo(20, 0)
		});
	});

	it('judges due dates', () => {
		expect(
			ok('due', { rules: [{ every: { months: 1 } }], last: '2026-01-31', asOf: '2026-03-01' })
		).toMatchObject({ dueOn: '2026-02-28', state: 'overdue' });
	});
});

describe('bad input is located', () => {
	it.each([
		['concentration', { value: -1, unit: 'ppm', molarMassGPerMol: 92 }, 'value'],
		['concentration', { value: 1, unit: 'ppb', molarMassGPerMol: 92 }, 'unit'],
		[
			'hazard',
			{ ruleSet: 'uk', contaminants: [{ substance: 'soup' }] },
			'contaminants[0].substance'
		],
		['hazard', { ruleSet: 'uk', contaminants: [toluene], oxygenPercent: 209 }, 'oxygenPercent'],
		[
			'hazard',
			{ ruleSet: 'uk', contaminants: [{ ...toluene, limit: { value: 0, unit: 'ppm' } }] },
			'contaminants[0].limit.value'
		],
		[
			'hazard',
			{
				ruleSet: 'uk',
				contaminants: [{ substance: 'grain-dust', concentration: { value: 5, unit: 'ppm' } }]
			},
			'contaminants[0].concentration.unit'
		],
		['service-life', { concentrationPpm: 100, flowLPerMin: 40 }, 'refractiveIndex'],
		['due', { rules: [{ every: { months: 1 } }], last: '31/01/2026', asOf: '2026-03-01' }, 'last'],
		['hold-test', { startBar: 4350, endBar: 4340, seconds: 60 }, 'startBar'],
		['whistle', { bar: -1 }, 'bar'],
		['pressure-test', { recipe: 'suit-xx', start: 1, end: 1 }, 'recipe'],
		['trace', { recipe: 'suit-en', samples: [{ s: 0, pa: 1650 }] }, 'samples']
	])('%s %o', (name, input, path) =>
		expect(issues(name, input).map((issue) => issue.path)).toContain(path)
	);

	it('offers the percentage that was meant', () => {
		expect(
			issues('hazard', { ruleSet: 'uk', contaminants: [toluene], oxygenPercent: 209 })[0]?.message
		).toContain('20.9 %');
	});
});

describe('the command line', () => {
	it('lists every operation with its description', () => {
		for (const op of OPERATIONS) expect(listOperations()).toContain(op.description);
	});

	it('ends with 0 on a result and 2 on bad input, JSON either way', () => {
		const good = runOne(
			'due',
			'{"rules":[{"every":{"days":1}}],"last":"2026-01-01","asOf":"2026-01-01"}'
		);
		expect(good.exitCode).toBe(0);
		expect(JSON.parse(good.output)).toMatchObject({ state: 'ready' });
		for (const text of ['{', '{}', 'null', '[1,']) {
			const bad = runOne('due', text);
			expect(bad.exitCode).toBe(2);
			expect(JSON.parse(bad.output)).toMatchObject({ error: { code: 'invalid_input' } });
		}
		expect(runOne('nothing', '{}').exitCode).toBe(2);
	});

	it('answers each line on its own line', () => {
		expect(runLine('due', 'garbage').split('\n')).toHaveLength(2);
		expect(JSON.parse(runLine('due', 'garbage'))).toHaveProperty('error');
	});

	it('describes itself from the same schemas', () => {
		const text = JSON.stringify(openApi('1'));
		for (const op of OPERATIONS) expect(text).toContain(`/api/v1/calc/${op.name}`);
		expect(text).toContain('relativeHumidityPercent');
	});
});
