import { describe, expect, it } from 'vitest';
import { InputError } from '../verdict.ts';
import { oxygenPressureMmHg, pressureAtAltitudeKpa } from './altitude.ts';

describe('the standard atmosphere', () => {
	// Published: ISO 2533 and the ICAO standard atmosphere, pressure by altitude in feet; from memory.
	it.each([
		[0, 101.325],
		[5000, 84.31],
		[8000, 75.26],
		[10_000, 69.68],
		[20_000, 46.56]
	])('%i ft: %f kPa', (feet, kpa) => expect(pressureAtAltitudeKpa(feet)).toBeCloseTo(kpa, 1.2));

	// Published: any physiology text: 159 mmHg in dry air at sea level, 149 in the windpipe; from memory.
	it('oxygen as the body meets it', () => {
		const { ambient, moist } = oxygenPressureMmHg(20.9, 0);
		expect(ambient).toBeCloseTo(159, 0);
		expect(moist).toBeCloseTo(149, 0);
	});

	it('refuses what is no altitude', () =>
		expect(() => pressureAtAltitudeKpa(60_000)).toThrow(InputError));
});
