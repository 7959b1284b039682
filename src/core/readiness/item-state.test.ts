import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { byConsequence, type AgendaEntry } from '../plan/agenda.ts';
import { plusDays } from '../plan/calendar.ts';
import { commonPractice } from '../verdict.ts';
import type { CylinderKnown, ItemFacts } from './facts.ts';
import { stateOn } from './findings.ts';
import { judgeItem, stateCache } from './item-state.ts';

const facts = (part: Partial<ItemFacts> = {}): ItemFacts => ({
	retiredOn: null,
	openDefects: [],
	inService: false,
	lastInspectionOn: '2026-11-10',
	filterChangeOn: null,
	...part
});
const defect = (severity: 'stop' | 'repair' | 'watch' | 'note') => ({
	openDefects: [{ severity, code: 'CURL', station: 'Exhalation valve and seat' }]
});
const state = (part: Partial<ItemFacts>, asOf = '2026-11-24') =>
	judgeItem(facts(part), 'uk', asOf).outcome;

describe('the state of an item', () => {
	// Published: HSG53 and COSHH regulation 9, monthly; from memory. The window of seven days is the site's.
	it.each([
		['2026-12-02', 'ready'],
		['2026-12-03', 'due'],
		['2026-12-10', 'due'],
		['2026-12-11', 'overdue']
	])('inspected on 10 November, on %s it is %s', (asOf, expected) =>
		expect(state({}, asOf)).toBe(expected)
	);

	it.each([
		[defect('stop'), 'held'],
		[defect('repair'), 'held'],
		[defect('watch'), 'due'],
		[defect('note'), 'ready'],
		[{ ...defect('stop'), inService: true }, 'in service'],
		[{ retiredOn: '2026-11-01' }, 'retired'],
		[{ lastInspectionOn: null }, 'overdue'],
		[{ filterChangeOn: '2026-11-23' }, 'overdue'],
		[{ filterChangeOn: '2026-11-24' }, 'due'],
		[{ filterChangeOn: '2027-01-01' }, 'ready']
	] as [Partial<ItemFacts>, string][])('%o is %s', (part, expected) =>
		expect(state(part)).toBe(expected)
	);

	// Published: five years between tests, EN ISO 18119 and 11623; from memory.
	it('a cylinder falls due with its test or its life, and is held for what is in it', () => {
		const cylinder = (part: Partial<CylinderKnown> = {}): CylinderKnown => ({
			material: 'composite',
			manufacturedOn: '2016-01-10',
			lifeEndsOn: null,
			testYears: null,
			lastTestOn: '2022-01-10',
			testFailed: false,
			pressureBar: 290,
			airFailed: null,
			filledOn: '2026-10-01',
			...part
		});
		expect(state({ cylinder: cylinder() })).toBe('ready');
		const tested = { cylinder: cylinder({ lastTestOn: '2021-11-30' }) };
		expect(state(tested, '2026-11-24')).toBe('due');
		expect(stateCache(facts(tested), 'uk')).toMatchObject({
			dueOn: '2026-11-30',
			dueWhat: 'cylinder test'
		});
		expect(state(tested, '2026-12-01')).toBe('overdue');
		expect(state({ cylinder: cylinder({ lifeEndsOn: '2026-11-23' }) })).toBe('overdue');
		const stale = { cylinder: cylinder({ filledOn: '2025-11-20' }) };
		expect(state(stale)).toBe('overdue');
		expect(stateCache(facts(stale), 'uk')).toMatchObject({
			dueOn: '2026-11-20',
			dueWhat: 'fresh air'
		});
		for (const against of [
			{ testFailed: true },
			{ pressureBar: null },
			{ airFailed: { source: 'Compressor', on: '2026-11-20' } }
		]) {
			const held = judgeItem(facts({ cylinder: cylinder(against) }), 'uk', '2026-11-24');
			expect(held.outcome).toBe('held');
			expect(held.reasons[0]?.rule).toMatch(/^item\.(cylinder|content|air)/);
			const set = { parts: [{ tag: 'CY-1', facts: facts({ cylinder: cylinder(against) }) }] };
			expect(state(set)).toBe('held');
		}
	});

	it('a drift or a marginal test makes it due sooner, and says so', () => {
		const watched = [{ rule: 'trend.crossing', text: 'Whistle falls.', origin: commonPractice() }];
		expect(state({ watched }, '2026-11-16')).toBe('ready');
		expect(state({ watched }, '2026-11-17')).toBe('due');
		expect(state({ watched }, '2026-11-24')).toBe('due');
		expect(state({ watched }, '2026-11-25')).toBe('overdue');
		const { reasons } = judgeItem(facts({ watched }), 'uk', '2026-11-24');
		expect(reasons.map((r) => r.text).join(' ')).toMatch(
			/Whistle falls\. Inspection, sooner because it is watched.*24 Nov 2026/
		);
		expect(stateCache(facts({ watched }), 'uk').watchedFor).toBe('Whistle falls.');
	});

	it('says what falls due first', () => {
		expect(stateCache(facts({ filterChangeOn: '2026-11-30' }), 'uk')).toMatchObject({
			dueOn: '2026-11-30',
			dueWhat: 'filters'
		});
		expect(stateCache(facts(), 'uk')).toMatchObject({ dueOn: '2026-12-10', dueWhat: 'inspection' });
	});

	it('gives the same state from the facts as from the cache, on every day', () => {
		const severity = fc.constantFrom('stop', 'repair', 'watch', 'note') as fc.Arbitrary<'stop'>;
		fc.assert(
			fc.property(
				fc.array(severity, { maxLength: 2 }),
				fc.boolean(),
				fc.integer({ min: 0, max: 60 }),
				fc.option(fc.integer({ min: 0, max: 60 })),
				(severities, inService, after, change) => {
					const f = facts({
						inService,
						openDefects: severities.map((s) => ({ severity: s, code: 'CURL', station: 'x' })),
						filterChangeOn: change === null ? null : plusDays('2026-11-10', change)
					});
					const asOf = plusDays('2026-11-10', after);
					expect(stateOn(stateCache(f, 'us'), asOf)).toBe(judgeItem(f, 'us', asOf).outcome);
				}
			)
		);
	});
});

describe('the order of the shift sheet', () => {
	it('puts what someone might breathe through first', () => {
		const entry = (kind: AgendaEntry['kind'], tag: string, part: Partial<AgendaEntry> = {}) => ({
			kind,
			tag,
			on: '2026-11-24',
			...part
		});
		const sorted = [
			entry('due', 'D'),
			entry('held', 'H-repair', { severity: 'repair' }),
			entry('overdue', 'O'),
			entry('held', 'H-stop', { severity: 'stop' }),
			entry('filters-over', 'F'),
			entry('overdue', 'O-short', { belowFloor: true }),
			entry('due', 'D-early', { on: '2026-11-20' })
		].sort(byConsequence);
		expect(sorted.map((e) => e.tag)).toEqual([
			'F',
			'H-stop',
			'H-repair',
			'O-short',
			'O',
			'D-early',
			'D'
		]);
	});
});

describe('a set', () => {
	const part = (tag: string, own: Partial<ItemFacts>) => ({ tag, facts: facts(own) });
	it.each([
		[{}, 'ready', undefined],
		[defect('watch'), 'due', 'item.part.due'],
		[defect('stop'), 'held', 'item.part.held'],
		[{ inService: true }, 'held', 'item.part.in-service'],
		[{ retiredOn: '2026-11-01' }, 'held', 'item.part.retired'],
		[{ lastInspectionOn: '2026-10-01' }, 'overdue', 'item.part.overdue'],
		[{ withdrawn: { on: '2026-11-01', why: 'valve' } }, 'held', 'item.part.held']
	] as [Partial<ItemFacts>, string, string | undefined][])(
		'with a part of %j is %s',
		(own, expected, rule) => {
			const verdict = judgeItem(
				facts({ parts: [part('CY-1', {}), part('MK-1', own)] }),
				'uk',
				'2026-11-24'
			);
			expect(verdict.outcome).toBe(expected);
			expect(verdict.reasons.find((r) => r.rule.startsWith('item.part'))?.rule).toBe(rule);
		}
	);

	it('is never better than any of its parts', () => {
		const order = ['ready', 'due', 'overdue', 'held', 'in service', 'retired'];
		for (const own of [defect('stop'), { lastInspectionOn: '2026-10-01' }, defect('watch')]) {
			const whole = judgeItem(facts({ parts: [part('X-1', own)] }), 'uk', '2026-11-24').outcome;
			expect(order.indexOf(whole)).toBeGreaterThanOrEqual(order.indexOf(state(own)));
		}
	});

	it('a withdrawn model is held, and says why', () => {
		const verdict = judgeItem(
			facts({ withdrawn: { on: '2026-11-20', why: 'Reducer may stick.' } }),
			'uk',
			'2026-11-24'
		);
		expect(verdict.outcome).toBe('held');
		expect(verdict.reasons[0]?.text).toBe(
			'Its model was withdrawn on 20 Nov 2026: Reducer may stick.'
		);
	});
});
