import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { consumptionOf, cylinderContent } from './content.ts';
import { consumptionFigures } from './consumption.ts';
import {
	alarmsOf,
	alarmsToShow,
	barAfter,
	callOut,
	checkStart,
	planEntry,
	teamTurnsAt,
	type EntryFacts,
	type EntryReading
} from './entry.ts';

const T0 = Date.parse('2026-11-24T09:00:00Z');
const MIN = 60_000;
const facts = (part: Partial<EntryFacts> = {}): EntryFacts => ({
	waterVolumeL: 6.8,
	startBar: 300,
	startedAt: T0,
	warningBar: 55,
	marginMin: 10,
	expectedLPerMin: 40,
	telemetry: false,
	readings: [],
	...part
});
const read = (minutes: number, bar: number, part: Partial<EntryReading> = {}): EntryReading => ({
	at: T0 + minutes * MIN,
	bar,
	by: 'hand',
	...part
});
const minutes = (at: number) => (at - T0) / MIN;

describe('a wearer who went in', () => {
	// The litres of a 6.8 L cylinder are computed check values: 1820 from 300 bar, 374 from 55.
	it('is warned when the litres above the warning are gone, and out a margin before', () => {
		const plan = planEntry(facts());
		expect(minutes(plan.warnAt)).toBeCloseTo((1820 - 374) / 40, 0);
		expect(minutes(plan.warnAt) - minutes(plan.outBy)).toBeCloseTo(10, 9);
		expect(minutes(plan.emptyAt)).toBeCloseTo(1820 / 40, 0);
		expect(plan.measured).toBe(false);
	});

	it('turns when half of what lies above warning and margin is used', () => {
		const none = planEntry(facts({ marginMin: 0 }));
		expect(none.turnBar).toBeCloseTo(300 - (300 - 55) / 2, 6);
		const { turnBar } = planEntry(facts());
		// 10 min at 40 L/min above the warning stand at this pressure.
		const keptBar = 300 - 2 * (300 - turnBar);
		const kept = cylinderContent({ waterVolumeL: 6.8, fromBar: keptBar, toBar: 55 });
		expect(kept.freeLitres).toBeCloseTo(400, 3);
	});

	it('that breathes hard turns sooner and at a higher pressure', () => {
		const easy = planEntry(facts({ readings: [read(5, 268)] }));
		const hard = planEntry(facts({ readings: [read(5, 240)] }));
		expect(hard.lPerMin).toBeGreaterThan(easy.lPerMin);
		expect(hard.turnAt).toBeLessThan(easy.turnAt);
		expect(hard.turnBar).toBeGreaterThan(easy.turnBar);
		expect(easy.lPerMin).toBeCloseTo(
			consumptionOf({ waterVolumeL: 6.8, startBar: 300, endBar: 268, minutes: 5 }),
			9
		);
	});

	it('that slows down is still counted by the larger figure; a late sprint is seen', () => {
		const sprint = [read(5, 285), read(10, 270), read(15, 200)];
		const overall = (1820 - 1300) / 15;
		expect(planEntry(facts({ readings: sprint })).lPerMin).toBeGreaterThan(overall * 1.5);
		const rest = planEntry(facts({ readings: [read(5, 240), read(12, 238)] }));
		expect(rest.lPerMin).toBeGreaterThan(20);
	});

	it('is at what the gauge would show by now', () => {
		const plan = planEntry(facts({ readings: [read(5, 260)] }));
		expect(barAfter(plan, plan.at)).toBeCloseTo(260, 6);
		expect(barAfter(plan, plan.warnAt)).toBeCloseTo(55, 4);
		expect(barAfter(plan, plan.emptyAt + MIN)).toBe(0);
		expect(barAfter(plan, plan.at - MIN)).toBeCloseTo(260, 6);
	});

	it('with nothing above warning and margin does not go in', () => {
		expect(() => checkStart(facts({ startBar: 90 }))).toThrow(/leaves nothing above the warning/);
		expect(() => checkStart(facts({ startBar: 401 }))).toThrow(/outside 0 to 400/);
		expect(() => checkStart(facts({ marginMin: -1 }))).toThrow(/margin/);
		expect(() => checkStart(facts({ waterVolumeL: 6800 }))).toThrow(/millilitres/);
		expect(minutes(checkStart(facts({ startBar: 200 })).outBy)).toBeGreaterThan(0);
	});
});

describe('a reading that does not fit', () => {
	it('is kept aside when it rises, and when it falls faster than anyone breathes', () => {
		for (const jump of [read(6, 290), read(5.1, 120, { by: 'telemetry' })]) {
			const plan = planEntry(facts({ readings: [read(5, 260), jump] }));
			expect(plan.bar).toBe(260);
			expect(plan.doubt).toEqual(jump);
			expect(alarmsOf(plan, null).map((a) => a.kind)).toContain('check gauge');
		}
	});

	it('is believed when a second one agrees and less is left', () => {
		const by = 'telemetry';
		const readings = [read(5, 260), read(5.1, 120, { by }), read(5.2, 119, { by })];
		const plan = planEntry(facts({ readings }));
		expect(plan.bar).toBe(119);
		expect(plan.doubt).toBeNull();
		const risen = [read(5, 200), read(5.1, 280), read(5.2, 280)];
		expect(planEntry(facts({ readings: risen })).bar).toBe(200);
	});

	it('is believed at once when somebody says that less is left', () => {
		const plan = planEntry(facts({ readings: [read(5, 260), read(5.1, 90)] }));
		expect(plan).toMatchObject({ bar: 90, doubt: null });
		expect(plan.turnAt).toBe(plan.at);
	});

	it('is replaced by one that corrects it', () => {
		const readings = [read(5, 210), read(6, 265, { corrects: true })];
		const plan = planEntry(facts({ readings }));
		expect(plan.bar).toBe(265);
		expect(plan.lPerMin).toBeLessThan(60);
	});
});

describe('alarms', () => {
	it('come in the order of their moments, with lost telemetry among them', () => {
		const plan = planEntry(
			facts({ telemetry: true, readings: [read(3, 280, { by: 'telemetry' })] })
		);
		const alarms = alarmsOf(plan, null);
		expect(alarms[0]).toMatchObject({ kind: 'telemetry lost', at: T0 + 3 * MIN + 30_000 });
		expect(alarms.map((a) => a.at)).toEqual(alarms.map((a) => a.at).sort((a, b) => a - b));
		expect(alarmsOf(plan, T0 + 4 * MIN).map((a) => a.kind)).not.toContain('turn back');
	});

	it('stay on the screen until somebody has seen them, whatever is read since', () => {
		const plan = planEntry(facts());
		const raised = { kind: 'turn back' as const, key: 'turn back', at: T0 };
		const shown = (seenBy: string | null, now: number) =>
			alarmsToShow(plan, null, [{ ...raised, seenBy }], now).map((a) => a.kind);
		expect(shown(null, T0)).toEqual(['turn back']);
		expect(shown('IN', T0)).toEqual([]);
		expect(alarmsToShow(plan, null, [], plan.turnAt - 1)).toEqual([]);
		expect(alarmsToShow(plan, null, [], plan.turnAt)).toHaveLength(1);
		expect(shown('IN', plan.warnAt)).toEqual(['be out', 'warning']);
	});

	it('are called out one step at a time: the later covers the earlier', () => {
		const plan = planEntry(facts({ telemetry: true }));
		const called = (at: number) =>
			callOut(alarmsToShow(plan, null, [], at)).map((a) => [a.kind, a.covers]);
		expect(called(plan.turnAt)).toEqual([
			['telemetry lost', []],
			['turn back', []]
		]);
		expect(called(plan.warnAt)).toEqual([
			['telemetry lost', []],
			['warning', ['turn back', 'be out']]
		]);
		expect(callOut([])).toEqual([]);
	});

	it('of a team go by whoever has to turn first', () => {
		const plans = [planEntry(facts()), planEntry(facts({ startBar: 240 }))];
		expect(teamTurnsAt(plans)).toBe(plans[1]?.turnAt);
		expect(teamTurnsAt([])).toBeNull();
	});

	it('never come later for less pressure read, more taken or a longer margin', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 150, max: 300, noNaN: true }),
				fc.double({ min: 1, max: 60, noNaN: true }),
				fc.integer({ min: 4, max: 12 }),
				(bar, less, after) => {
					const lowest = Math.max(60, bar - less);
					const of = (b: number) => planEntry(facts({ readings: [read(after, b)] }));
					const [more, fewer] = [of(bar), of(lowest)];
					if (more.doubt || fewer.doubt) return;
					expect(fewer.turnAt).toBeLessThanOrEqual(more.turnAt + 1);
					expect(fewer.warnAt).toBeLessThanOrEqual(more.warnAt + 1);
					expect(fewer.outBy).toBeLessThanOrEqual(fewer.warnAt);
					expect(fewer.turnAt).toBeLessThanOrEqual(fewer.warnAt);
				}
			)
		);
	});
});

describe('consumption of a wearer', () => {
	it('is the mean and what the next use stays below', () => {
		// Worked by hand with the published t for 4 degrees of freedom, 2.132: 44 + 2.132 · 4.183 · √1.2; from memory.
		const five = consumptionFigures([40, 42, 44, 44, 50]);
		expect(five?.meanLPerMin).toBe(44);
		expect(five?.pessimisticLPerMin).toBeCloseTo(44 + 2.132 * Math.sqrt(14) * Math.sqrt(1.2), 2);
		expect(five?.spread).toBe('own');
	});

	it('takes the usual spread where there are few uses, and none without any', () => {
		expect(consumptionFigures([50])?.pessimisticLPerMin).toBeCloseTo(66.45, 2);
		expect(consumptionFigures([50, 50, 50])?.spread).toBe('usual');
		expect(consumptionFigures([])).toBeNull();
		expect(() => consumptionFigures([40, 0])).toThrow(/above 0/);
	});
});
