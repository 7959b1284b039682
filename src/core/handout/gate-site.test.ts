import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type CounterFacts, ofCounter, withReasons } from './gate-site.ts';
import type { GateVerdict } from './gate.ts';
import { type Instead, nearestWays } from './nearest.ts';

const nothing: CounterFacts = {
	wantsInsert: false,
	airShare: null,
	unapproved: [],
	ownedBy: null,
	floor: null,
	discomfortDays: null,
	suit: 'none',
	needsGoggles: false
};
const clear: GateVerdict = { outcome: 'hand out', reasons: [] };

describe('what the counter knows beside', () => {
	it.each([
		['nothing', {}, 'hand out', []],
		['glasses', { wantsInsert: true }, 'with conditions', ['gate.insert']],
		// Published: 29 CFR 1910.134(h)(3)(iii), 90 %; from memory.
		['a cylinder just full enough', { airShare: 0.9 }, 'hand out', []],
		['a cylinder not full', { airShare: 0.899 }, 'do not', ['gate.air.not-full']],
		['a part that is not approved', { unapproved: ['Cylinder 9'] }, 'do not', ['gate.unapproved']],
		['somebody else’s', { ownedBy: 'W2' }, 'do not', ['gate.not-theirs']],
		['a floor kept', { floor: { left: 2, keeps: 2, place: 'Bay' } }, 'hand out', []],
		[
			'a floor broken',
			{ floor: { left: 1, keeps: 2, place: 'Bay' } },
			'with conditions',
			['gate.floor']
		],
		['discomfort long ago', { discomfortDays: 366 }, 'hand out', []],
		['discomfort', { discomfortDays: 30 }, 'with conditions', ['gate.discomfort']],
		['a suit as well', { suit: 'gas-tight' }, 'with conditions', ['gate.suit']],
		['bare eyes', { needsGoggles: true }, 'with conditions', ['gate.goggles']]
	] as [string, Partial<CounterFacts>, string, string[]][])('%s', (_, part, outcome, rules) => {
		const verdict = withReasons(clear, ofCounter({ ...nothing, ...part }));
		expect(verdict.outcome).toBe(outcome);
		expect(verdict.reasons.map(({ rule }) => rule)).toEqual(rules);
		for (const { fix } of verdict.reasons) expect(fix).not.toBe('');
	});

	it('never makes an answer better', () => {
		const order = ['hand out', 'with conditions', 'do not'];
		fc.assert(
			fc.property(
				fc.record({
					wantsInsert: fc.boolean(),
					airShare: fc.option(fc.double({ min: 0, max: 1.1, noNaN: true })),
					unapproved: fc.array(fc.string(), { maxLength: 2 }),
					ownedBy: fc.option(fc.constant('W2')),
					discomfortDays: fc.option(fc.nat(800)),
					suit: fc.constantFrom('none', 'skin protection', 'gas-tight' as const),
					needsGoggles: fc.boolean(),
					floor: fc.option(
						fc.record({ left: fc.nat(5), keeps: fc.nat(5), place: fc.constant('Bay') })
					)
				}),
				fc.constantFrom('hand out', 'with conditions', 'do not' as const),
				(facts, outcome) => {
					const before: GateVerdict = { outcome: outcome as GateVerdict['outcome'], reasons: [] };
					if (outcome === 'do not')
						before.reasons = [
							{
								rule: 'x',
								text: 'x',
								fix: 'x',
								weight: 'stop',
								origin: { kind: 'site', source: '' }
							}
						] as never;
					const after = withReasons(before, ofCounter(facts as CounterFacts));
					expect(order.indexOf(after.outcome)).toBeGreaterThanOrEqual(order.indexOf(outcome));
				}
			)
		);
	});
});

describe('the nearest way that works', () => {
	const one = (part: Partial<Instead>): Instead => ({
		tag: 'HM-1',
		family: 'half-mask',
		model: 'A',
		size: 'M',
		place: 'Bay',
		tightFitting: true,
		verdict: clear,
		...part
	});
	it('is without conditions, here, of the same model, and seals', () => {
		const ways = nearestWays({ model: 'A', place: 'Bay' }, [
			one({ tag: 'no', verdict: { outcome: 'do not', reasons: [] } }),
			one({ tag: 'asked', verdict: { outcome: 'with conditions', reasons: [] } }),
			one({ tag: 'elsewhere', place: 'Store' }),
			one({ tag: 'hood', model: 'H', tightFitting: false }),
			one({ tag: 'other model', model: 'B' }),
			one({ tag: 'same', size: 'L' })
		]);
		expect(ways.map(({ tag }) => tag)).toEqual(['same', 'other model', 'hood']);
	});
	it('is none where nothing may be handed out', () =>
		expect(
			nearestWays({ model: 'A', place: 'Bay' }, [
				one({ verdict: { outcome: 'do not', reasons: [] } })
			])
		).toEqual([]));
});
