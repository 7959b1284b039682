import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { cylinderContent } from '../../src/core/air/content.ts';
import { TelemetryReceiver } from './receiver.ts';

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

/** A receiver with one wearer who went in with 300 bar in 6.8 L and takes 60 L/min. */
function receiver() {
	const one = new TelemetryReceiver();
	expect(one.command('SIM:ON', 'T1,6.8,300,60')).toBe('OK');
	return one;
}
const bar = (one: TelemetryReceiver) => Number(one.command('FETC?', 'T1'));

describe('the simulated telemetry', () => {
	it('falls by the litres that are breathed, of real air, down to nothing', () => {
		const one = receiver();
		expect(bar(one)).toBe(300);
		vi.advanceTimersByTime(10 * 60_000);
		const { freeLitres } = cylinderContent({ waterVolumeL: 6.8, fromBar: 300, toBar: bar(one) });
		expect(freeLitres).toBeGreaterThan(595);
		expect(freeLitres).toBeLessThan(605);
		vi.advanceTimersByTime(60 * 60_000);
		expect(bar(one)).toBe(0);
	});

	it('goes on from where it is when the wearer breathes otherwise or time runs faster', () => {
		const one = receiver();
		vi.advanceTimersByTime(5 * 60_000);
		const before = bar(one);
		one.command('SIM:RATE', 'T1,0');
		vi.advanceTimersByTime(5 * 60_000);
		expect(bar(one)).toBe(before);
		one.command('SIM:RATE', 'T1,60');
		one.command('SIM:SPEED', '10');
		vi.advanceTimersByTime(60_000);
		expect(bar(one)).toBeLessThan(before - 80);
	});

	it('is lost, jumps, freezes or sends garbage when it is told to', () => {
		const one = receiver();
		const with_ = (fault: string) => {
			one.command('SIM:FAULT', `T1,${fault}`);
			return one.command('FETC?', 'T1');
		};
		expect(with_('lost')).toBe('');
		expect(with_('jump')).toBe('210');
		expect(with_('garbage')).not.toMatch(/^\d+$/);
		expect(with_('frozen')).toBe('300');
		vi.advanceTimersByTime(10 * 60_000);
		expect(bar(one)).toBe(300);
		one.command('SIM:FAULT', 'T1,none');
		expect(bar(one)).toBeLessThan(230);
	});

	it('answers for each channel in order, with nothing for one that it does not hear', () => {
		const one = receiver();
		expect(one.command('FETC?', 'T9,T1')).toBe(',300');
		expect(one.command('SIM:RATE', 'T9,40')).toBe('ERR');
		expect(one.command('SIM:ON', 'T2,x,300,40')).toBe('ERR');
		expect(one.command('SIM:FAULT', 'T1,asleep')).toBe('ERR');
		expect(one.command('SIM:OFF', 'T1')).toBe('OK');
		expect(one.command('FETC?', 'T1')).toBe('');
	});
});
