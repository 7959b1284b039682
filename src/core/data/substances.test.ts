import { describe, expect, it } from 'vitest';
import { findSubstance, SUBSTANCES } from './substances.ts';

/** Published: CAS Registry, the check digit is the weighted digit sum modulo 10. */
function casCheckDigitHolds(cas: string): boolean {
	const digits = cas.replaceAll('-', '');
	const sum = [...digits.slice(0, -1)].reverse().reduce((s, d, i) => s + Number(d) * (i + 1), 0);
	return sum % 10 === Number(digits.at(-1));
}

describe('the substance library', () => {
	it('holds at least thirty substances, each key once', () => {
		expect(SUBSTANCES.length).toBeGreaterThanOrEqual(30);
		expect(new Set(SUBSTANCES.map((s) => s.key)).size).toBe(SUBSTANCES.length);
	});

	it.each(SUBSTANCES.filter((s) => s.cas).map((s) => [s.name, s.cas ?? '']))(
		'%s: CAS check digit of %s',
		(_, cas) => expect(casCheckDigitHolds(cas)).toBe(true)
	);

	// Published: NIOSH Pocket Guide, molar masses, from memory.
	it.each([
		['toluene', 92.1],
		['ammonia', 17.0],
		['chlorine', 70.9],
		['styrene', 104.2],
		['tetrachloroethylene', 165.8],
		['hdi', 168.2],
		['phosphine', 34.0]
	])('the molar mass of %s', (key, mass) => {
		expect(findSubstance(key)?.molarMassGPerMol).toBeCloseTo(mass, 0.9);
	});

	// An Antoine equation must reach 760 mmHg at the boiling point, and meet the tabulated pressure at 20 °C.
	it.each(SUBSTANCES.filter((s) => s.antoine).map((s) => [s.name, s] as const))(
		'%s: Antoine against boiling point and vapour pressure',
		(_, s) => {
			const { a, b, c } = s.antoine ?? { a: NaN, b: NaN, c: NaN };
			const pressure = (t: number) => 10 ** (a - b / (c + t));
			expect(Math.abs(pressure(s.boilingPointC ?? NaN) / 760 - 1)).toBeLessThan(0.04);
			expect(Math.abs(pressure(20) / (s.vapourPressureMmHg ?? NaN) - 1)).toBeLessThan(0.2);
		}
	);

	it.each(SUBSTANCES.map((s) => [s.name, s] as const))('%s: limits in order', (_, s) => {
		for (const limit of Object.values(s.limits)) {
			if (limit.twa && limit.short) expect(limit.short).toBeGreaterThanOrEqual(limit.twa);
			if (s.idlh?.unit === limit.unit)
				expect(s.idlh.value).toBeGreaterThanOrEqual(limit.twa ?? limit.short ?? 0);
		}
		if (s.en === 'A') expect(s.boilingPointC).toBeGreaterThan(65);
		if (s.en === 'AX') expect(s.boilingPointC).toBeLessThanOrEqual(65);
	});

	it('is found by name, synonym and CAS number', () => {
		for (const word of ['Styrene', 'STYRENE', 'vinylbenzene', '100-42-5'])
			expect(findSubstance(word)?.key).toBe('styrene');
		expect(findSubstance('unobtainium')).toBeUndefined();
	});
});
