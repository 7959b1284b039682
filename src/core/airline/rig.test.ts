import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cylinderContent } from '../air/content.ts';
import { sourceState } from '../air/source.ts';
import { bankMinutes } from './bank-minutes.ts';
import { judgeRig, type RigFacts } from './rig.ts';

const TODAY = '2026-11-24';
const good = { id: 't', at: 1, on: '2026-11-01', outcome: 'pass' as const };
const rig = (part: Partial<RigFacts> = {}): RigFacts => ({
	source: {
		...sourceState({ tests: [good], workedAt: null }, TODAY),
		name: 'Compressor 1',
		oilLubricated: true,
		compressor: true
	},
	sorbent: { everyMonths: 6, changedOn: '2026-10-01' },
	alarm: { kind: 'CO', atPpm: 10, everyDays: 30, testedOn: '2026-11-10', passed: true },
	hose: { supplyBar: 6, boreMm: 13, lengthM: 60, flowLPerMin: 230, leastOutletBar: 4 },
	outlets: 2,
	wearers: 2,
	...part
});
const against = (part: Partial<RigFacts>) => {
	const verdict = judgeRig(rig(part), TODAY);
	expect(verdict.outcome).toBe('fail');
	return verdict.reasons[0]?.text;
};

describe('an airline rig', () => {
	it('may be breathed from with everything in date', () => {
		const verdict = judgeRig(rig(), TODAY);
		expect(verdict.outcome).toBe('pass');
		expect(verdict.outletBar).toBeGreaterThan(4);
	});

	it('is refused for its source, its sorbent, its alarm, its outlets or its hose', () => {
		const source = { ...rig().source, ...sourceState({ tests: [], workedAt: null }, TODAY) };
		expect(against({ source })).toMatch(/No air test/);
		expect(against({ sorbent: { everyMonths: 6, changedOn: '2026-05-23' } })).toMatch(
			/Sorbent and filters: was due/
		);
		expect(against({ sorbent: { everyMonths: 6, changedOn: null } })).toMatch(/never on record/);
		const { alarm } = rig();
		expect(against({ alarm: { ...alarm, testedOn: '2026-10-01' } })).toMatch(/was due/);
		expect(against({ alarm: { ...alarm, passed: false } })).toMatch(/failed its last test/);
		expect(against({ wearers: 3 })).toMatch(/3 on 2 outlets/);
		expect(against({ hose: { ...rig().hose, boreMm: 6 } })).toMatch(/does not pass|at the end/);
	});

	// Published: 29 CFR 1910.134(i)(7), 10 ppm; from memory.
	it('with an oil-lubricated compressor has an alarm, and a CO alarm at 10 ppm', () => {
		const { alarm } = rig();
		expect(against({ alarm: { ...alarm, kind: 'none' } })).toMatch(/oil-lubricated/);
		expect(against({ alarm: { ...alarm, atPpm: 20 } })).toMatch(/20 ppm, 10 at most/);
		const dry = { ...rig().source, oilLubricated: false };
		expect(judgeRig(rig({ source: dry, alarm: { ...alarm, kind: 'none' } }), TODAY).outcome).toBe(
			'pass'
		);
	});
});

describe('minutes from a bank', () => {
	const use = {
		banks: [{ waterVolumeL: 50, pressureBar: 200 }],
		leastBar: 10,
		wearers: 2,
		lPerMin: 60,
		escapeMin: 10
	};

	it('are its litres above what the regulator needs, less the way out', () => {
		const { freeLitres } = cylinderContent({ waterVolumeL: 50, fromBar: 200, toBar: 10 });
		const { workMinutes, totalMinutes, escapeLitres } = bankMinutes(use);
		expect(totalMinutes).toBeCloseTo(freeLitres / 120, 9);
		expect(workMinutes).toBeCloseTo(totalMinutes - 10, 9);
		expect(escapeLitres).toBe(1200);
	});

	it('are none where the bank does not even last for the way out', () => {
		const low = { ...use, banks: [{ waterVolumeL: 50, pressureBar: 20 }] };
		expect(bankMinutes(low).workMinutes).toBe(0);
		const spent = { ...use, banks: [{ waterVolumeL: 50, pressureBar: 5 }] };
		expect(bankMinutes(spent).totalMinutes).toBe(0);
	});

	it('never grow with more wearers or a longer way out', () => {
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 20 }), fc.integer({ min: 0, max: 60 }), (n, out) => {
				const at = bankMinutes({ ...use, wearers: n, escapeMin: out }).workMinutes;
				expect(bankMinutes({ ...use, wearers: n + 1, escapeMin: out }).workMinutes).toBeLessThan(
					at + 1e-9
				);
				expect(
					bankMinutes({ ...use, wearers: n, escapeMin: out + 1 }).workMinutes
				).toBeLessThanOrEqual(at);
			})
		);
	});

	it.each([
		[{ wearers: 0 }, 'wearers'],
		[{ lPerMin: -1 }, 'lPerMin'],
		[{ escapeMin: -5 }, 'escapeMin'],
		[{ banks: [] }, 'banks'],
		[{ banks: [{ waterVolumeL: 50_000, pressureBar: 200 }] }, 'banks[0].waterVolumeL']
	])('refuse %o', (part, path) => {
		expect(() => bankMinutes({ ...use, ...part })).toThrow(expect.objectContaining({ path }));
	});
});
