import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { judgeAir, type AirSample } from './breathing-air.ts';
import { enhancementFactor, moisture, saturationPa } from './moisture.ts';

describe('water in air', () => {
	// Published: steam tables and psychrometric tables, from memory.
	it.each([
		[0, 611.2],
		[20, 2339],
		[40, 7385],
		[-20, 103.3],
		[-40, 12.84]
	])('is saturated at %d °C at %d Pa within 0.5 %%', (celsius, pa) => {
		expect(Math.abs(saturationPa(celsius) / pa - 1)).toBeLessThan(0.005);
	});

	it('at −50 °F is about 67 ppm by volume, 50 mg/m³: where both standards meet', () => {
		// Published: CGA G-7.1 gives 67 ppm by volume (v/v) for −50 °F, from memory.
		const dry = moisture({ dewPointC: -45.6 }, 0);
		expect(dry.mgPerM3).toBeGreaterThan(48);
		expect(dry.mgPerM3).toBeLessThan(52);
	});

	// Published: Wylie & Fisher 1996 and Hyland & Wexler 1983, as ranges and from memory; at 20 °C.
	it.each([
		[40, 1.11, 1.15],
		[100, 1.3, 1.42],
		[200, 1.75, 1.95],
		[300, 2.25, 2.6]
	])(
		'compressed air at %i bar holds %f to %f times what its vapour pressure says',
		(bar, low, high) => {
			const factor = enhancementFactor(20, bar);
			expect(factor).toBeGreaterThan(low);
			expect(factor).toBeLessThan(high);
		}
	);

	it('a dew point of 20 °C at 300 bar is about 136 mg/m³ of water', () =>
		expect(Math.abs(moisture({ dewPointC: 20 }, 300).mgPerM3 - 136)).toBeLessThan(4));

	it('goes there and back, and rises with pressure', () => {
		fc.assert(
			fc.property(
				fc.double({ min: -60, max: 30, noNaN: true }),
				fc.double({ min: 0, max: 300, noNaN: true }),
				(dewPointC, bar) => {
					const there = moisture({ dewPointC }, bar);
					const back = moisture({ mgPerM3: there.mgPerM3 }, bar);
					expect(back.atPressureC).toBeCloseTo(dewPointC, 2);
					expect(back.atAtmosphereC).toBeLessThanOrEqual(dewPointC + 1e-9);
				}
			)
		);
	});

	it.each([
		[{ dewPointC: -100 }, 0, /^-100 °C is outside/],
		[{ mgPerM3: 0 }, 0, /no dew point/],
		[{ mgPerM3: 2_000_000 }, 0, /more water than air can carry/],
		[{ mgPerM3: 20 }, -1, /outside 0 to 400 bar/]
	] as const)('%o at %d bar is refused', (given, bar, message) => {
		expect(() => moisture(given, bar)).toThrow(message);
	});
});

describe('breathing air', () => {
	const good: AirSample = {
		oxygenPercent: 20.9,
		coPpm: 1,
		co2Ppm: 420,
		oilMgPerM3: 0.1,
		waterMgPerM3: 20,
		odour: false,
		sampledAt: 'filling outlet',
		pressureBar: 300
	};
	// Published: EN 12021 and CGA G-7.1 grade D (29 CFR 1910.134(i)), from memory: each limit passes, beyond it fails.
	it.each([
		['en-12021', { oxygenPercent: 20 }, 'pass'],
		['en-12021', { oxygenPercent: 19.9 }, 'fail'],
		['en-12021', { oxygenPercent: 22.1 }, 'fail'],
		['en-12021', { coPpm: 5 }, 'pass'],
		['en-12021', { coPpm: 5.1 }, 'fail'],
		['en-12021', { co2Ppm: 501 }, 'fail'],
		['en-12021', { oilMgPerM3: 0.51 }, 'fail'],
		['en-12021', { waterMgPerM3: 25 }, 'pass'],
		['en-12021', { waterMgPerM3: 26 }, 'fail'],
		['en-12021', { waterMgPerM3: 50, sampledAt: 'cylinder', pressureBar: 200 }, 'pass'],
		['en-12021', { waterMgPerM3: 36, sampledAt: 'cylinder', pressureBar: 201 }, 'fail'],
		['en-12021', { odour: true }, 'fail'],
		['grade-d', { oxygenPercent: 19.5 }, 'pass'],
		['grade-d', { oxygenPercent: 19.4 }, 'fail'],
		['grade-d', { coPpm: 10, co2Ppm: 1000, oilMgPerM3: 5 }, 'pass'],
		['grade-d', { coPpm: 10.1 }, 'fail'],
		['grade-d', { waterMgPerM3: 45, sampledAt: 'cylinder' }, 'pass'],
		['grade-d', { waterMgPerM3: 60, sampledAt: 'cylinder' }, 'fail']
	] as const)('by %s with %o: %s', (standard, part, outcome) => {
		expect(judgeAir(standard, { ...good, ...part }).outcome).toBe(outcome);
	});

	it('with a figure missing is incomplete, and what fails stands first', () => {
		const { coPpm: _, ...rest } = good;
		expect(judgeAir('en-12021', rest).outcome).toBe('incomplete');
		const failed = judgeAir('en-12021', { ...rest, co2Ppm: 800 });
		expect(failed.outcome).toBe('fail');
		expect(failed.reasons[0]?.text).toBe('Carbon dioxide 800 ppm, limit 500.');
		expect(failed.reasons.map((r) => r.text)).toContain('Carbon monoxide was not measured.');
	});

	it('of an airline is dry to below its lowest temperature', () => {
		const line: AirSample = { ...good, sampledAt: 'airline', pressureBar: 6, waterMgPerM3: 300 };
		expect(judgeAir('en-12021', { ...line, lowestUseC: 20 }).outcome).toBe('pass');
		expect(judgeAir('en-12021', { ...line, lowestUseC: -5 }).outcome).toBe('fail');
		expect(() => judgeAir('en-12021', line)).toThrow(/lowest temperature/);
		expect(() => judgeAir('grade-d', { ...good, coPpm: -1 })).toThrow(/below zero/);
	});
});
