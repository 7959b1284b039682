import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cascadeFill } from '../../src/core/air/cascade.ts';
import { FillPanel } from './panel.ts';
import { barOf, Panel } from './simulate.ts';

const moles = (panel: Panel) =>
	panel.banks.reduce((sum, bank) => sum + bank.waterVolumeL * bank.density, 0) +
	(panel.cylinder ? panel.cylinder.waterVolumeL * panel.cylinder.density : 0);

describe('the simulated fill panel', () => {
	it('neither makes nor loses air, and never fills beyond where it is to stop', () => {
		fc.assert(
			fc.property(
				fc.array(fc.integer({ min: 0, max: 2 }), { minLength: 1, maxLength: 6 }),
				fc.integer({ min: 60, max: 320 }),
				(order, stopBar) => {
					const panel = new Panel();
					panel.connect('X', 6.8, 50);
					panel.stopBar = stopBar;
					const before = moles(panel);
					for (const bank of order) {
						panel.open = bank;
						panel.pass(180);
						const { density, kelvin } = panel.cylinder ?? { density: 0, kelvin: 291 };
						expect(barOf(density, kelvin)).toBeLessThanOrEqual(stopBar + 1.5);
					}
					expect(moles(panel) / before).toBeCloseTo(1, 9);
				}
			),
			{ numRuns: 25 }
		);
	});

	it('left to cool comes level as the cascade of the core says', () => {
		const panel = new Panel();
		panel.connect('X', 6.8, 50);
		panel.stopBar = 400;
		for (const bank of [0, 1, 2]) {
			panel.open = bank;
			panel.pass(4000);
		}
		const [step] = cascadeFill({
			banks: [200, 250, 300].map((pressureBar) => ({ waterVolumeL: 50, pressureBar })),
			cylinder: { waterVolumeL: 6.8, pressureBar: 50 },
			temperatureC: 18
		});
		expect(barOf(panel.cylinder?.density ?? 0)).toBeCloseTo(step?.finalBar ?? 0, 0);
		panel.banks.forEach((bank, i) =>
			expect(barOf(bank.density)).toBeCloseTo(step?.banksBar[i] ?? 0, 0)
		);
	});

	it('is hot after a quick fill and reads lower when it has cooled', () => {
		const panel = new Panel();
		panel.connect('X', 6.8, 50);
		panel.open = 2;
		panel.pass(200);
		panel.open = null;
		const { density = 0, kelvin = 0 } = panel.cylinder ?? {};
		expect(kelvin).toBeGreaterThan(300);
		const hot = barOf(density, kelvin);
		panel.pass(4000);
		expect(barOf(density, panel.cylinder?.kelvin)).toBeLessThan(hot - 5);
	});

	it('pumps a bank up to where it is full, and no valve without flow moves anything', () => {
		const panel = new Panel();
		panel.pumping = 0;
		panel.pass(600);
		expect(barOf(panel.banks[0]?.density ?? 0)).toBeCloseTo(300, 1);
		expect(panel.pumping).toBeNull();
		panel.connect('X', 6.8, 50);
		panel.fault = 'no flow';
		panel.open = 2;
		panel.pass(300);
		expect(barOf(panel.cylinder?.density ?? 0)).toBeCloseTo(50, 3);
	});

	it('refuses what it does not know, and says why', () => {
		const panel = new FillPanel();
		expect(panel.command('INIT:BANK', '1')).toBe('ERR');
		expect(panel.command('SYST:ERR?', '')).toMatch(/Settings conflict/);
		expect(panel.command('CONF:CYL', 'a b')).toBe('ERR');
		expect(panel.command('CONF:CYL', 'CY-1')).toBe('OK');
		expect(panel.command('INIT:BANK', '9')).toBe('ERR');
		expect(panel.command('NONSENSE', '')).toBe('ERR');
		expect(panel.command('STAT?', '')).toBe('CONN,CY-1,,');
		expect(panel.command('FETC?', '')).toMatch(/^40\.\d,18\.\d,200\.\d,250\.\d,300\.\d$/);
		expect(panel.command('SIM:FAULT', 'garbage')).toBe('OK');
		expect(panel.command('FETC?', '')).not.toMatch(/^\d+\.\d,/);
	});
});
