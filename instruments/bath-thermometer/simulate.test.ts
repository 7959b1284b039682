import { describe, expect, it } from 'vitest';
import { bathC } from './simulate.ts';
import { BathThermometer } from './thermometer.ts';

const bath = { fillC: 45, roomC: 19, halfMin: 40, fault: 'none' as const };

describe('the simulated bath', () => {
	it.each([
		[0, 45],
		[40, 32],
		[80, 25.5],
		[-5, 45]
	])('after %d min it is at %d °C', (minutes, celsius) =>
		expect(bathC(bath, minutes)).toBeCloseTo(celsius, 6)
	);

	it('tells its temperature, and how it is wrong', () => {
		const thermometer = new BathThermometer();
		expect(thermometer.command('SIM:FILL', '47')).toBe('OK');
		expect(Number(thermometer.command('MEAS:TEMP?', ''))).toBeCloseTo(47, 0);
		expect(thermometer.command('SIM:FILL', 'warm')).toBe('ERR');
		expect(thermometer.command('SIM:FAULT', 'broken lead')).toBe('OK');
		expect(thermometer.command('MEAS:TEMP?', '')).toBe('ERR');
		expect(thermometer.command('SYST:ERR?', '')).toContain('Hardware');
	});
});
