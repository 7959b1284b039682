import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PROTECTION_KINDS } from '../data/protection-factors.ts';
import { plusDays } from '../plan/calendar.ts';
import type { FitTest } from '../people/fit-standing.ts';
import { FACE_CHANGES } from '../people/fit-standing.ts';
import { calculate } from '../calc/registry.ts';
import { type GateItem, type GateTask, judgeHandOut } from './gate.ts';
import type { GateWearer } from './gate-wearer.ts';

const TODAY = '2026-11-27';
const test = (part: Partial<FitTest> = {}): FitTest => ({
	model: 'T1',
	size: 'M',
	on: '2026-06-01',
	method: 'quantitative',
	passed: true,
	...part
});
const item = (part: Partial<GateItem> = {}): GateItem => ({
	kind: 'half-mask',
	model: 'T1',
	size: 'M',
	state: 'ready',
	complete: true,
	inspectedOn: TODAY,
	minutesOfAir: null,
	filter: { code: 'A2-P3', hoursLeft: 8, sameTypeAndClass: true, sameOpening: true },
	...part
});
const wearer = (part: Partial<GateWearer> = {}): GateWearer => ({
	fitTests: [test()],
	changes: [],
	facialHair: false,
	clearedUntil: '2027-06-30',
	trainedUntil: '2027-03-31',
	...part
});
const task = (part: Partial<GateTask> = {}): GateTask => ({
	kinds: [
		{ kind: 'half-mask', filter: 'A2-P3' },
		{ kind: 'full-face', filter: 'A2-P3' },
		{ kind: 'powered-hood', filter: 'A2-P3' },
		{ kind: 'ba' }
	],
	requiredFactor: 10,
	hours: 4,
	minutesOfAir: null,
	approved: true,
	expiresOn: '2027-01-31',
	inQuestion: false,
	...part
});
const judge = (
	i: Partial<GateItem> = {},
	w: Partial<GateWearer> = {},
	t: Partial<GateTask> = {},
	ruleSet: 'us' | 'uk' = 'uk',
	asOf = TODAY
) => judgeHandOut(item(i), wearer(w), task(t), ruleSet, asOf);
const rules = (...args: Parameters<typeof judge>) =>
	judge(...args).reasons.map(({ rule }) => rule.replace('gate.', ''));

describe('the item at the gate', () => {
	// People.md, ready and complete; published: 1910.134(h)(3)(i)(A), inspected before use; from memory.
	it.each([
		['ready', 'hand out', 'clear'],
		['due', 'with conditions', 'state.due'],
		['overdue', 'do not', 'state.overdue'],
		['held', 'do not', 'state.held'],
		['in wash', 'do not', 'state.in-wash'],
		['in service', 'do not', 'state.in-service'],
		['issued', 'do not', 'state.issued'],
		['retired', 'do not', 'state.retired']
	] as const)('%s: %s', (state, outcome, rule) => {
		expect(judge({ state }).outcome).toBe(outcome);
		expect(rules({ state })).toEqual([rule]);
	});
	it.each([
		[{ complete: false }, ['incomplete']],
		[{ inspectedOn: null }, ['never-inspected']],
		[{ inspectedOn: '2026-11-28' }, ['inspected-later']],
		[{ inspectedOn: '2026-10-28' }, ['clear']],
		[
			{ complete: false, inspectedOn: null, state: 'held' as const },
			['state.held', 'incomplete', 'never-inspected']
		]
	])('%j: %j', (part, says) => expect(rules(part)).toEqual(says));
});

describe('the filters at the gate', () => {
	const on = (part: object) => ({ filter: { ...item().filter!, ...part } });
	// Published: EN 14387 and EN 143, a higher class serves a lower; from memory. Pairs and hours: common practice.
	it.each([
		[{}, ['clear']],
		[{ code: 'A2B2E2K2-P3' }, ['clear']],
		[{ code: 'A3-P3' }, ['clear']],
		[{ code: 'A1-P3' }, ['filter.type']],
		[{ code: 'A2-P2' }, ['filter.type']],
		[{ code: 'A2' }, ['filter.type']],
		[{ code: 'K2-P3' }, ['filter.type']],
		[{ code: 'K1-P1' }, ['filter.type', 'filter.type']],
		[{ code: 'what' }, ['filter.type']],
		[{ hoursLeft: 4 }, ['clear']],
		[{ hoursLeft: 3.99 }, ['filter.hours']],
		[{ hoursLeft: 0 }, ['filter.hours']],
		[{ sameTypeAndClass: false }, ['filter.mixed']],
		[{ sameOpening: false }, ['filter.opened-apart']],
		[
			{ sameTypeAndClass: false, sameOpening: false, hoursLeft: 1 },
			['filter.mixed', 'filter.opened-apart', 'filter.hours']
		]
	])('%j: %j', (part, says) => expect(rules(on(part))).toEqual(says));

	it('are asked for where the plan asks for them, by the scheme of the rule set', () => {
		expect(rules({ filter: null })).toEqual(['filter.none']);
		expect(rules({ filter: null }, {}, { kinds: [{ kind: 'half-mask' }] })).toEqual(['clear']);
		const us = { kinds: [{ kind: 'half-mask', filter: 'OV-P100' }] };
		// Published: 42 CFR 84; from memory.
		expect(rules(on({ code: 'OV/AG-P100' }), {}, us, 'us')).toEqual(['clear']);
		expect(rules(on({ code: 'OV-N95' }), {}, us, 'us')).toEqual(['filter.type', 'filter.type']);
		expect(rules(on({ code: 'A2-P3' }), {}, us, 'us')).toEqual(['filter.type']);
	});
});

describe('the air at the gate', () => {
	const set = { kind: 'ba', filter: null };
	it.each([
		[30, 30, ['clear']],
		[29.9, 30, ['air']],
		[0, 30, ['air']],
		[null, 30, ['air.unknown']],
		[10, null, ['clear']],
		[null, null, ['clear']]
	])('%d min in it, %d planned: %j', (minutesOfAir, need, says) =>
		expect(rules({ ...set, minutesOfAir }, {}, { minutesOfAir: need })).toEqual(says)
	);
	it('is not asked of what brings none', () =>
		expect(rules({}, {}, { minutesOfAir: 30 })).toEqual(['clear']));
});

describe('the plan at the gate', () => {
	it.each([
		[{ approved: false }, ['plan.draft']],
		[{ expiresOn: TODAY }, ['clear']],
		[{ expiresOn: '2026-11-26' }, ['plan.expired']],
		[{ inQuestion: true }, ['plan.in-question']],
		[{ kinds: [{ kind: 'ba' }] }, ['kind']],
		[{ kinds: [] }, ['kind']],
		[
			{ approved: false, expiresOn: '2026-01-01', inQuestion: true },
			['plan.draft', 'plan.expired', 'plan.in-question']
		]
	])('%j: %j', (part, says) => expect(rules({}, {}, part)).toEqual(says));

	it('names the kinds that it permits, and takes a kind by its name', () => {
		const { reasons } = judge({}, {}, { kinds: [{ kind: 'powered-hood' }] });
		expect(reasons[0]?.fix).toMatch(/powered hood or helmet/);
		expect(judge({ kind: 'Half mask with filters' }).outcome).toBe('hand out');
		expect(judge({ kind: 'half mask' }).outcome).toBe('hand out');
		expect(() => judge({ kind: 'gas mask' })).toThrow(
			expect.objectContaining({ path: 'item.kind' })
		);
		expect(() => judge({}, {}, { kinds: [{ kind: 'x' }] })).toThrow(
			expect.objectContaining({ path: 'task.kinds[0].kind' })
		);
	});
});

describe('the wearer at the gate', () => {
	// Published: 1910.134(e), (f), (g)(1)(i), (k); the day that is “until” is the last good one; from memory.
	it.each([
		[{ clearedUntil: TODAY }, ['clear']],
		[{ clearedUntil: '2026-11-26' }, ['clearance']],
		[{ clearedUntil: null }, ['clearance']],
		[{ trainedUntil: TODAY }, ['clear']],
		[{ trainedUntil: '2026-11-26' }, ['training']],
		[{ trainedUntil: null }, ['training']],
		[{ facialHair: true }, ['hair']],
		[{ fitTests: [] }, ['fit.none']],
		[{ fitTests: [test({ size: 'L' })] }, ['fit.none']],
		[{ fitTests: [test({ model: 'T2' })] }, ['fit.none']],
		[{ fitTests: [test({ model: 't1 ', size: 'm' })] }, ['clear']],
		[{ fitTests: [test({ on: '2025-11-27' })] }, ['clear']],
		[{ fitTests: [test({ on: '2025-11-26' })] }, ['fit.lapsed']],
		[{ fitTests: [test({ passed: false })] }, ['fit.failed']],
		[{ fitTests: [test({ on: '2026-12-01' })] }, ['fit.future']],
		[{ fitTests: [test(), test({ on: '2026-08-01', passed: false })] }, ['fit.failed']],
		[{ fitTests: [test({ on: '2026-02-01', passed: false }), test()] }, ['clear']],
		[{ fitTests: [test({ on: '2024-01-01' }), test()] }, ['clear']],
		[
			{ clearedUntil: null, trainedUntil: null, facialHair: true, fitTests: [] },
			['clearance', 'training', 'hair', 'fit.none']
		]
	])('%j: %j', (part, says) => expect(rules({}, part)).toEqual(says));

	it.each(FACE_CHANGES.map((what) => [what] as const))(
		'a change (%s) ends the test on the day it is reported, not before',
		(what) => {
			const changes = (on: string) => ({ changes: [{ what, on }] });
			expect(rules({}, changes(TODAY))).toEqual(['fit.changed']);
			expect(rules({}, changes('2026-06-02'))).toEqual(['fit.changed']);
			expect(rules({}, changes('2026-05-31'))).toEqual(['clear']);
			expect(rules({}, changes('2026-11-28'))).toEqual(['clear']);
			// Tested again after it: clear again.
			const again = { fitTests: [test(), test({ on: '2026-10-01' })], ...changes('2026-09-01') };
			expect(rules({}, again)).toEqual(['clear']);
		}
	);

	// Published: app. A, a qualitative test up to 10; UK: none for a full face; from memory.
	it.each([
		['half-mask', 10, 'uk', 'clear'],
		['half-mask', 10.1, 'uk', 'fit.method'],
		['half-mask', 10, 'us', 'clear'],
		['half-mask', 25, 'us', 'fit.method'],
		['full-face', 10, 'us', 'clear'],
		['full-face', 50, 'us', 'fit.method'],
		['full-face', 4, 'uk', 'fit.method']
	] as const)(
		'by taste in a %s for a factor of %d, %s: %s',
		(kind, requiredFactor, ruleSet, says) => {
			const kinds = [{ kind }];
			const tasted = { fitTests: [test({ method: 'qualitative' })] };
			expect(rules({ kind }, tasted, { kinds, requiredFactor }, ruleSet)).toEqual([says]);
			const counted = { fitTests: [...tasted.fitTests, test({ on: '2026-07-01' })] };
			expect(rules({ kind }, counted, { kinds, requiredFactor }, ruleSet)).toEqual(['clear']);
		}
	);

	it('needs no face for what does not seal on it, but clearance and training all the same', () => {
		const hood = { kind: 'powered-hood' };
		expect(rules(hood, { facialHair: true, fitTests: [] })).toEqual(['clear']);
		expect(rules(hood, { facialHair: true, fitTests: [], clearedUntil: null })).toEqual([
			'clearance'
		]);
	});
});

describe('every kind at the gate', () => {
	const bringsAir = (kind: string) =>
		PROTECTION_KINDS.find(({ key }) => key === kind)?.source === 'self-contained';
	const seals = (kind: string) =>
		PROTECTION_KINDS.find(({ key }) => key === kind)?.tightFitting === true;
	const KINDS = PROTECTION_KINDS.map(({ key }) => [key] as const);
	const permits = (kind: string) => ({ kinds: [{ kind }], minutesOfAir: 20 });

	it.each(KINDS)(
		'%s is given out where the plan permits it, its air does, and the face fits',
		(kind) => {
			const air = bringsAir(kind) ? 20 : null;
			expect(rules({ kind, filter: null, minutesOfAir: air }, {}, permits(kind))).toEqual([
				'clear'
			]);
		}
	);
	it.each(KINDS)('%s is refused where the plan permits another', (kind) => {
		const other = kind === 'ba' ? 'half-mask' : 'ba';
		const part = { kind, filter: null, minutesOfAir: 60 };
		expect(rules(part, {}, { kinds: [{ kind: other }] })).toEqual(['kind']);
	});
	it.each(KINDS)('%s asks for a face where it seals on one, and only there', (kind) => {
		const part = { kind, filter: null, minutesOfAir: 60 };
		expect(rules(part, { facialHair: true, fitTests: [] }, permits(kind))).toEqual(
			seals(kind) ? ['hair', 'fit.none'] : ['clear']
		);
	});
});

describe('the gate', () => {
	it('says everything at once, each with what puts it right', () => {
		const { outcome, reasons } = judge(
			{ state: 'held', complete: false, inspectedOn: null, filter: null },
			{ facialHair: true, fitTests: [], clearedUntil: null, trainedUntil: null },
			{ approved: false, inQuestion: true, expiresOn: '2026-01-01' }
		);
		expect(outcome).toBe('do not');
		expect(reasons).toHaveLength(11);
		for (const { fix, text } of reasons) {
			expect(fix.length).toBeGreaterThan(10);
			expect(text).not.toMatch(/\bsafe\b/);
		}
	});

	const day = (from: number, to: number) =>
		fc.integer({ min: from, max: to }).map((n) => plusDays(TODAY, n));
	/** Each fault by itself, switched on or off. */
	const FAULTS: [keyof typeof PARTS, object][] = [
		['i', { state: 'held' }],
		['i', { state: 'due' }],
		['i', { complete: false }],
		['i', { inspectedOn: null }],
		['i', { filter: null }],
		['w', { facialHair: true }],
		['w', { clearedUntil: null }],
		['w', { trainedUntil: '2020-01-01' }],
		['w', { changes: [{ what: 'dental', on: '2026-11-01' }] }],
		['t', { approved: false }],
		['t', { inQuestion: true }],
		['t', { expiresOn: '2026-11-01' }],
		['t', { kinds: [{ kind: 'ba' }] }]
	];
	const PARTS = { i: 0, w: 1, t: 2 };
	const WORSE = ['hand out', 'with conditions', 'do not'];
	const withFaults = (on: readonly boolean[]) => {
		const parts: [object, object, object] = [{}, {}, {}];
		FAULTS.forEach(([which, part], i) => {
			if (on[i]) Object.assign(parts[PARTS[which]] ?? {}, part);
		});
		return WORSE.indexOf(judge(parts[0], parts[1], parts[2]).outcome);
	};

	it('is never made better by one fault more, nor worse by one less', () => {
		const bits = fc.array(fc.boolean(), { minLength: FAULTS.length, maxLength: FAULTS.length });
		fc.assert(
			fc.property(bits, fc.nat(FAULTS.length - 1), (on, which) => {
				// Two states of one item exclude one another.
				if (on[0] || which === 0) on[1] = false;
				const fewer = on.map((one, i) => (i === which ? false : one));
				const more = on.map((one, i) => (i === which ? true : one));
				if (which === 1 && on[0]) return;
				expect(withFaults(more)).toBeGreaterThanOrEqual(withFaults(fewer));
			})
		);
	});

	it('gives a clear case out whatever else is on record of other masks', () => {
		const others = fc.array(
			fc.record({ size: fc.constantFrom('S', 'L'), on: day(-900, 0), passed: fc.boolean() }),
			{ maxLength: 4 }
		);
		fc.assert(
			fc.property(others, (list) => {
				const fitTests = [test(), ...list.map((part) => test(part))];
				expect(judge({}, { fitTests }).outcome).toBe('hand out');
			})
		);
	});
});

describe('the operations of the gate', () => {
	it('answer by the calculation interface, days and kinds located', () => {
		const given = {
			item: { ...item() },
			wearer: wearer(),
			task: task(),
			ruleSet: 'uk',
			asOf: TODAY
		};
		expect(calculate('hand-out', given)).toMatchObject({
			ok: true,
			value: { outcome: 'hand out' }
		});
		const wrong = calculate('hand-out', { ...given, asOf: '27.11.2026' });
		expect(JSON.stringify(wrong)).toMatch(/"path":"asOf"/);
		const strange = calculate('hand-out', { ...given, item: { ...item(), kind: 'gas mask' } });
		expect(JSON.stringify(strange)).toMatch(/"path":"item.kind".*half-mask/);
	});
});
