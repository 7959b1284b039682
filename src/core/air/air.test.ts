import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	ATMOSPHERE_BAR,
	airState,
	compressibilityAt,
	densityAt,
	isotherm,
	pressureAt
} from './air-state.ts';
import { bankPlan, cascadeFill } from './cascade.ts';
import { consumptionOf, cylinderContent, cylinderDuration } from './content.ts';
import { fillTarget, settledPressureBar } from './settle.ts';
import { setWeight } from './set-weight.ts';
import { turnBack } from './turn-back.ts';

const PRESSURES = [1, 5, 10, 20, 40, 60, 80, 100, 150, 200, 250, 300, 400];
// Published: Perry's Chemical Engineers' Handbook, compressibility factors of air; from memory.
const PERRY: Record<number, number[]> = {
	250: [
		0.9992, 0.9957, 0.9911, 0.9822, 0.9671, 0.9549, 0.9463, 0.9411, 0.945, 0.9713, 1.0152, 1.0702,
		1.199
	],
	300: [
		0.9999, 0.9987, 0.9974, 0.995, 0.9917, 0.9901, 0.9903, 0.993, 1.0074, 1.0326, 1.0669, 1.1089,
		1.2073
	],
	350: [
		1, 1.0002, 1.0004, 1.0014, 1.0038, 1.0075, 1.0121, 1.0183, 1.0377, 1.0635, 1.0947, 1.1303,
		1.2116
	]
};
const gauge = fc.double({ min: 0, max: 400, noNaN: true });
const celsius = fc.double({ min: -40, max: 70, noNaN: true });

describe('the state of air', () => {
	it.each(
		Object.entries(PERRY).flatMap(([kelvin, row]) =>
			row.map((z, i) => [Number(kelvin), PRESSURES[i] ?? 0, z] as const)
		)
	)('at %i K and %i bar has Z = %d within 0.15 %%', (kelvin, bar, z) => {
		const air = isotherm(kelvin);
		expect(Math.abs(compressibilityAt(air, densityAt(air, bar)) / z - 1)).toBeLessThan(0.0015);
	});

	it('is solved to where it came from, everywhere in the range', () => {
		fc.assert(
			fc.property(gauge, celsius, (bar, c) => {
				const air = isotherm(c + 273.15);
				const absolute = bar + ATMOSPHERE_BAR;
				expect(Math.abs(pressureAt(air, densityAt(air, absolute)) / absolute - 1)).toBeLessThan(
					1e-11
				);
			})
		);
	});

	it('is denser under more pressure, thinner when hotter', () => {
		fc.assert(
			fc.property(gauge, gauge, celsius, celsius, (p, q, t, u) => {
				const density = (pressureBar: number, temperatureC: number) =>
					airState({ pressureBar, temperatureC }).densityMolPerL;
				const [low, high] = p < q ? [p, q] : [q, p];
				fc.pre(high - low > 1e-6);
				expect(density(high, t)).toBeGreaterThan(density(low, t));
				const [cold, hot] = t < u ? [t, u] : [u, t];
				fc.pre(hot - cold > 1e-6);
				expect(density(p, hot)).toBeLessThan(density(p, cold));
			})
		);
	});

	it.each([
		[{ pressureBar: 401 }, /^401 bar is outside/],
		[{ pressureBar: -1 }, /outside 0 to 400/],
		[{ pressureBar: 200, temperatureC: 90 }, /^90 °C is outside/],
		[{ pressureBar: 200, ambientBar: 0 }, /surroundings/]
	])('%o is refused', (condition, message) => {
		expect(() => airState(condition)).toThrow(message);
	});
});

// Computed independently from the stated equations, to the last digit given.
describe('a cylinder', () => {
	it.each([
		[{ waterVolumeL: 6.8, fromBar: 300 }, 1820.3],
		[{ waterVolumeL: 6.8, fromBar: 300, toBar: 55 }, 1446.5],
		[{ waterVolumeL: 10, fromBar: 200 }, 1921.6],
		[{ waterVolumeL: 6.8, count: 2, fromBar: 300 }, 3640.6]
	])('%o gives %d free litres', (input, litres) => {
		expect(cylinderContent(input).freeLitres).toBeCloseTo(litres, 1);
	});

	it('of 50 litres at 300 bar gives 13,385; pressure times volume says more', () => {
		expect(Math.round(cylinderContent({ waterVolumeL: 50, fromBar: 300 }).freeLitres)).toBe(13_385);
		expect(cylinderContent({ waterVolumeL: 6.8, fromBar: 300 }).idealLitres).toBe(2040);
	});

	it('says where a settled pressure would lie beyond the equation', () =>
		expect(() => settledPressureBar({ pressureBar: 390, temperatureC: -20 }, 60)).toThrow(
			/At 60 °C it would stand at \d+ bar, beyond the 400 bar/
		));

	it.each([
		[300, 45, 15, 258.6],
		[200, 40, 10, 173.6],
		[300, 15, 60, 373.9]
	])(
		'of %d bar at %d °C settles, at %d °C, at %d bar',
		(pressureBar, temperatureC, cold, settled) => {
			expect(settledPressureBar({ pressureBar, temperatureC }, cold)).toBeCloseTo(settled, 1);
		}
	);

	it('gives more from more, and loses nothing when it is heated and cooled', () => {
		fc.assert(
			fc.property(gauge, gauge, celsius, celsius, (p, q, t, u) => {
				const content = (fromBar: number) =>
					cylinderContent({ waterVolumeL: 6.8, fromBar }).freeLitres;
				fc.pre(Math.abs(p - q) > 1e-6);
				expect(content(Math.max(p, q))).toBeGreaterThan(content(Math.min(p, q)));
				const from = airState({ pressureBar: p, temperatureC: t }).densityMolPerL;
				fc.pre(from < airState({ pressureBar: 399, temperatureC: u }).densityMolPerL);
				const there = settledPressureBar({ pressureBar: p, temperatureC: t }, u);
				fc.pre(there >= 0);
				const back = settledPressureBar({ pressureBar: there, temperatureC: u }, t);
				expect(Math.abs(back - p)).toBeLessThan(1e-9 * (p + 1));
			})
		);
	});

	it('lasts by its content: to the warning, the reserve, in all', () => {
		const minutes = cylinderDuration({ waterVolumeL: 6.8, startBar: 300 });
		expect(minutes.minutesToWarning).toBeCloseTo(1446.5 / 40, 2);
		expect(minutes.minutesReserve).toBeCloseTo((1820.3 - 1446.5) / 40, 2);
		expect(minutes.minutesTotal).toBeCloseTo(1820.3 / 40, 2);
		const deep = cylinderDuration({ waterVolumeL: 6.8, startBar: 300, ambientBar: 2.0265 });
		expect(deep.minutesTotal).toBeLessThan(minutes.minutesTotal * 0.51);
		expect(() => cylinderDuration({ waterVolumeL: 6.8, startBar: 50 })).toThrow(
			/below the warning/
		);
		expect(
			consumptionOf({ waterVolumeL: 6.8, startBar: 300, endBar: 55, minutes: 30 })
		).toBeCloseTo(1446.5 / 30, 1);
	});

	it.each([
		[{ waterVolumeL: 6800, fromBar: 300 }, /millilitres: 6\.8 L/],
		[{ waterVolumeL: 0, fromBar: 300 }, /more than 0 litres/],
		[{ waterVolumeL: 6.8, fromBar: 4350 }, /4350 bar is outside/],
		[{ waterVolumeL: 6.8, fromBar: 100, toBar: 200 }, /above the 100 bar/],
		[{ waterVolumeL: 6.8, fromBar: 100, count: 1.5 }, /whole number/]
	])('%o is refused', (input, message) => {
		expect(() => cylinderContent(input)).toThrow(message);
	});

	it('is filled hot to more than its rated pressure, never beyond its maximum', () => {
		const hot = fillTarget(300, 450, 45);
		expect(hot.limitedBy).toBe('rated');
		expect(settledPressureBar({ pressureBar: hot.stopAtBar, temperatureC: 45 }, 15)).toBeCloseTo(
			300,
			6
		);
		const tight = fillTarget(300, 340, 45);
		expect(tight).toMatchObject({ limitedBy: 'maximum' });
		expect(tight.developedBar).toBeCloseTo(340, 6);
		expect(tight.settledBar).toBeLessThan(300);
	});
});

describe('a cascade', () => {
	const bank = (pressureBar: number) => ({ waterVolumeL: 50, pressureBar });
	const cylinder = { waterVolumeL: 6.8, pressureBar: 50 };

	// Computed independently from the stated equations.
	it('of one bank comes level by moles, not by pressure times volume', () => {
		const [fill] = cascadeFill({ banks: [bank(300)], cylinder });
		expect(fill?.finalBar).toBeCloseTo(262.7, 1);
	});

	it('of three banks, from the lowest up', () => {
		const fills = cascadeFill({ banks: [bank(200), bank(250), bank(300)], cylinder, fills: 6 });
		expect(fills[0]?.finalBar).toBeCloseTo(292.5, 1);
		expect(fills[0]?.banksBar.map((b) => Number(b.toFixed(1)))).toEqual([180.3, 241, 292.5]);
		expect(fills[5]?.finalBar).toBeCloseTo(249.9, 1);
	});

	it('keeps every mole, whatever is filled', () => {
		const vessel = fc.record({
			waterVolumeL: fc.double({ min: 1, max: 80, noNaN: true }),
			pressureBar: fc.double({ min: 0, max: 350, noNaN: true })
		});
		fc.assert(
			fc.property(
				fc.array(vessel, { minLength: 1, maxLength: 4 }),
				vessel,
				fc.integer({ min: 1, max: 5 }),
				(banks, c, fills) => {
					const air = isotherm(293.15);
					const moles = (volume: number, bar: number) =>
						volume * densityAt(air, bar + ATMOSPHERE_BAR);
					const steps = cascadeFill({ banks, cylinder: c, fills });
					const held = (bars: readonly number[]) =>
						banks.reduce((sum, b, i) => sum + moles(b.waterVolumeL, bars[i] ?? 0), 0);
					const before = held(banks.map((b) => b.pressureBar));
					const given = steps.reduce(
						(sum, s) =>
							sum + moles(c.waterVolumeL, s.finalBar) - moles(c.waterVolumeL, c.pressureBar),
						0
					);
					const after = held(steps.at(-1)?.banksBar ?? []);
					expect(Math.abs(after + given - before)).toBeLessThan(1e-9 * before + 1e-9);
				}
			)
		);
	});

	it('stops where the valve is closed, and says how many come to nine tenths and what to pump up', () => {
		const small = { waterVolumeL: 6.8, pressureBar: 20 };
		const [fill] = cascadeFill({ banks: [bank(300)], cylinder: small, targetBar: 200 });
		expect(fill?.finalBar).toBeCloseTo(200, 9);
		const banks = [bank(200), bank(250), bank(300)];
		const cascade = bankPlan({ banks, cylinder, ratedBar: 300, fullBar: 300 });
		const single = bankPlan({
			banks,
			cylinder,
			ratedBar: 300,
			fullBar: 300,
			strategy: 'single bank'
		});
		expect(cascade.fills).toBeGreaterThan(single.fills);
		expect(cascade.steps.every((s) => s.finalBar >= 270)).toBe(true);
		// The emptiest takes in the most air and becomes the top of the cascade.
		expect(cascade.repump).toBe(0);
		expect(() => cascadeFill({ banks: [], cylinder })).toThrow(/One bank at least/);
	});
});

describe('a set and its team', () => {
	it('weighs its air with it; 18.0 kg passes and 18.01 does not', () => {
		// Published: EN 137, from memory. Air by the equation of state.
		const air = setWeight([0], [{ emptyKg: 0, waterVolumeL: 6.8, pressureBar: 300 }]).totalKg;
		expect(air).toBeCloseTo((1820.3 + 6.8) * 1.2041e-3, 2);
		const full = { waterVolumeL: 6.8, pressureBar: 300 };
		expect(setWeight([18 - air - 4], [{ emptyKg: 4, ...full }]).outcome).toBe('pass');
		expect(setWeight([18.01 - air - 4], [{ emptyKg: 4, ...full }]).outcome).toBe('fail');
		expect(() => setWeight([-1], [])).toThrow(/0 to 100 kg/);
	});

	it('turns when half of what lies above warning and margin is used; the lowest governs', () => {
		expect(turnBack([300, 280, 290], 55, 15)).toEqual({ turnAtBar: 175, eachBar: [185, 175, 180] });
		expect(() => turnBack([300, 60], 55, 10)).toThrow(/leaves nothing above the warning/);
		expect(() => turnBack([])).toThrow(/One wearer/);
		fc.assert(
			fc.property(fc.double({ min: 80, max: 300, noNaN: true }), (start) => {
				// More air is left for the way out than the way in took.
				const { turnAtBar } = turnBack([start]);
				const litres = (fromBar: number, toBar: number) =>
					cylinderContent({ waterVolumeL: 6.8, fromBar, toBar }).freeLitres;
				if (start > 150) expect(litres(turnAtBar, 55)).toBeGreaterThan(litres(start, turnAtBar));
			})
		);
	});
});
