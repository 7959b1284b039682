import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runLine } from './command.ts';
import { OPERATIONS } from './registry.ts';

const SEED = 20261127;
const RUNS = Math.ceil(10_000 / OPERATIONS.length);

/** A good input of every operation, from which the bad ones are bent. */
const GOOD: Record<string, Record<string, unknown>> = {
	concentration: {
		value: 50,
		unit: 'ppm',
		molarMassGPerMol: 92.14,
		temperatureC: 20,
		pressureKpa: 101.325
	},
	hazard: {
		ruleSet: 'uk',
		contaminants: [
			{
				substance: 'toluene',
				concentration: { value: 100, unit: 'ppm' },
				limit: { value: 50, unit: 'ppm' }
			},
			{
				substance: {
					name: 'x',
					form: 'vapour',
					molarMassGPerMol: 100,
					boilingPointC: 120,
					idlhPpm: 500,
					lelPercent: 1,
					warning: 'poor'
				},
				concentration: { value: 10, unit: 'mg/m3' },
				limit: { value: 5, unit: 'ppm' }
			}
		],
		oxygenPercent: 20.9,
		altitudeFt: 0,
		emergency: 'entry',
		fitTest: 'qualitative',
		oilAerosol: false
	},
	'service-life': {
		molarMassGPerMol: 92,
		liquidDensityGPerCm3: 0.87,
		refractiveIndex: 1.5,
		vapourPressureMmHg: 22,
		concentrationPpm: 100,
		flowLPerMin: 40,
		filters: 2,
		temperatureC: 20,
		relativeHumidityPercent: 50,
		breakthroughFraction: 0.1,
		bed: {
			carbonMassG: 30,
			microporeVolumeCm3PerG: 0.5,
			packedDensityGPerCm3: 0.44,
			faceAreaCm2: 40
		}
	},
	due: {
		rules: [{ every: { months: 12 }, window: 30 }, { every: { uses: 5 } }],
		last: '2026-01-31',
		usesSince: 2,
		hoursSince: 3,
		asOf: '2026-11-27'
	},
	'hold-test': {
		startBar: 290,
		endBar: 285,
		seconds: 60,
		ratedBar: 300,
		limitBar: 10,
		limitIncluded: true
	},
	whistle: { bar: 55 },
	'pressure-test': {
		recipe: 'suit-en',
		start: 1650,
		end: 1500,
		uncertaintyPa: 3,
		temperatureChangeK: 0.1,
		barometerChangePa: 10
	},
	trace: {
		recipe: 'mask-full-face',
		samples: Array.from({ length: 65 }, (_, s) => ({
			s,
			pa: -1000 + s + Math.sin(s),
			temperatureC: 20,
			barometerPa: 101_325
		})),
		uncertaintyPa: 2,
		volumeL: 3
	},
	'air-state': { pressureBar: 200, temperatureC: 20, ambientBar: 1 },
	'cylinder-content': {
		waterVolumeL: 6.8,
		count: 2,
		fromBar: 300,
		toBar: 55,
		temperatureC: 20,
		ambientBar: 1
	},
	'cylinder-duration': {
		waterVolumeL: 6.8,
		count: 1,
		startBar: 300,
		warningBar: 55,
		consumptionLPerMin: 40,
		temperatureC: 20,
		ambientBar: 1
	},
	'settled-pressure': { pressureBar: 300, temperatureC: 45, finalTemperatureC: 15 },
	'cascade-fill': {
		banks: [{ waterVolumeL: 50, pressureBar: 300 }],
		cylinder: { waterVolumeL: 6.8, pressureBar: 50 },
		fills: 3,
		temperatureC: 20
	},
	'set-weight': {
		partsKg: [3, 1],
		cylinders: [{ emptyKg: 4, waterVolumeL: 6.8, pressureBar: 300 }]
	},
	'fit-factor': { factors: [210, 180, 95], mask: 'half', ruleSet: 'uk' },
	dilution: { stockPercent: 5.25, volumeL: 3.785, stockMl: 5 },
	'wash-check': {
		temperatureC: 40,
		agent: 'chlorine',
		dosePpm: 50,
		contactMin: 2,
		rinsed: true,
		driedBy: 'air'
	},
	'hand-out': {
		item: {
			kind: 'half-mask',
			model: 'T1',
			size: 'M',
			state: 'ready',
			complete: true,
			inspectedOn: '2026-11-20',
			filter: { code: 'A2-P3', hoursLeft: 8, sameTypeAndClass: true, sameOpening: true }
		},
		wearer: {
			fitTests: [
				{ model: 'T1', size: 'M', on: '2026-06-01', method: 'quantitative', passed: true }
			],
			changes: [{ what: 'dental', on: '2026-01-01' }],
			facialHair: false,
			clearedUntil: '2027-06-30',
			trainedUntil: '2027-03-31'
		},
		task: {
			kinds: [{ kind: 'half-mask', filter: 'A2-P3' }],
			requiredFactor: 10,
			hours: 4,
			approved: true,
			expiresOn: '2027-01-31',
			inQuestion: false
		},
		ruleSet: 'uk',
		asOf: '2026-11-27'
	},
	'kit-out': {
		wearers: [{ id: 'a', fits: [{ model: 'T1', size: 'M' }] }],
		sets: [{ tag: '1', model: 'T1', size: 'M', minutesOfAir: 40, personalOf: 'a' }],
		minutesOfAir: 30
	},
	level: {
		days: [
			{ day: '2026-11-30', capacityMin: 60 },
			{ day: '2026-12-01', capacityMin: 60 }
		],
		jobs: [
			{
				id: 'a',
				minutes: 30,
				earliest: '2026-11-30',
				latest: '2026-12-01',
				place: 'quay',
				kind: 'masks',
				awayDays: 1
			},
			{ id: 'b', minutes: 30, earliest: '2026-11-01', latest: '2026-11-02' }
		],
		floors: [{ place: 'quay', kind: 'masks', ready: 3, floor: 2 }],
		visitMin: 5
	},
	reorder: { perMonth: 6, leadTimeDays: 30, serviceLevel: 0.95 },
	survival: {
		lives: [
			{ duration: 3, failed: true },
			{ duration: 5, failed: false },
			{ duration: 8, failed: true }
		]
	},
	'compare-rates': {
		groups: [
			{ name: 'a', failures: 3, trials: 20 },
			{ name: 'b', failures: 9, trials: 25 }
		]
	},
	'ready-chance': { sets: 10, awayPerDay: 0.5, awayDays: 4, floor: 6 },
	'turn-back': { startBar: [300, 280], warningBar: 55, marginBar: 10 },
	'dew-point': { dewPointC: -20, pressureBar: 200 },
	hose: {
		supplyBar: 6,
		boreMm: 10,
		lengthM: 60,
		flowLPerMin: 300,
		temperatureC: 20,
		roughnessMm: 0.01,
		fittingsEquivalentM: 3,
		wears: 'hood',
		bandBar: [4, 6]
	}
};

const odd = fc.oneof(
	fc.double(),
	fc.double({ min: -1e-300, max: 1e-300 }),
	fc.constantFrom<unknown>(
		0,
		-0,
		-1,
		1e-308,
		5e-324,
		1e308,
		-1e308,
		1e15,
		2 ** 53,
		0.1 + 0.2,
		19.5,
		400,
		1e6
	),
	fc.constantFrom<unknown>(
		null,
		'',
		'ppm',
		'NaN',
		'0000-00-00',
		'9999-12-31',
		'1900-01-01',
		'2026-02-30',
		'2026-11-27T25:61:00Z',
		'12:60'
	),
	fc.constantFrom<unknown>(
		[],
		{},
		[[]],
		[null],
		true,
		'toluene',
		'TOLUENE ',
		'unobtainium',
		'x'.repeat(500)
	),
	fc.string({ maxLength: 20 })
);

/** Every place in a value, as a path. */
function places(value: unknown, path: (string | number)[] = []): (string | number)[][] {
	if (value === null || typeof value !== 'object') return [path];
	const entries = Array.isArray(value)
		? value.slice(0, 3).map((v, i) => [i, v] as const)
		: Object.entries(value);
	return [path, ...entries.flatMap(([key, inner]) => places(inner, [...path, key]))];
}

/** The value with one place replaced, or taken out where the new one is undefined. */
function bent(value: unknown, path: readonly (string | number)[], to: unknown): unknown {
	const [key, ...rest] = path;
	if (key === undefined) return to;
	if (Array.isArray(value))
		return value.map((v, i) => (i === key ? bent(v, rest, to) : (v as unknown)));
	return { ...(value as object), [key]: bent((value as Record<string, unknown>)[key], rest, to) };
}

const finite = (value: unknown): boolean =>
	typeof value === 'number'
		? Number.isFinite(value)
		: value === null || typeof value !== 'object' || Object.values(value).every(finite);

describe('any input at all', () => {
	it('has a good example of every operation to start from', () => {
		for (const { name } of OPERATIONS)
			expect([name, runLine(name, JSON.stringify(GOOD[name]))]).toEqual([
				name,
				expect.not.stringContaining('"error"')
			]);
	});

	it.each(OPERATIONS.map(({ name }) => name))(
		'%s answers or says where the fault is, and never breaks the line',
		(name) => {
			const good = GOOD[name];
			const bends = fc.array(fc.tuple(fc.nat(), fc.option(odd, { nil: undefined })), {
				minLength: 1,
				maxLength: 4
			});
			fc.assert(
				fc.property(bends, (list) => {
					let input: unknown = good;
					for (const [n, to] of list) {
						const all = places(input);
						input = bent(input, all[n % all.length] ?? [], to);
					}
					const line = JSON.stringify(input) ?? '';
					const output = runLine(name, line);
					expect(output.endsWith('\n') && output.indexOf('\n') === output.length - 1).toBe(true);
					const answer = JSON.parse(output) as {
						error?: { code: string; issues: { path: string; message: string }[] };
					};
					if (!answer.error) {
						expect(finite(answer)).toBe(true);
						return;
					}
					expect(answer.error.code).toBe('invalid_input');
					expect(answer.error.issues.length).toBeGreaterThan(0);
					for (const { path, message } of answer.error.issues) {
						expect(typeof path).toBe('string');
						expect(message.length).toBeGreaterThan(5);
						expect(message).not.toMatch(/^Invalid input|undefined|\[object/);
					}
				}),
				{ numRuns: RUNS, seed: SEED }
			);
		}
	);
});
