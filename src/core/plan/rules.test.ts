import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FAMILIES } from '../data/families.ts';
import { recordOf } from '../data/family-records.ts';
import type { ItemFacts } from '../readiness/facts.ts';
import { judgeItem } from '../readiness/item-state.ts';
import { duesOf, findingsOf, summary } from '../readiness/findings.ts';
import { USE_PATTERNS } from '../site/places.ts';
import { commonPractice } from '../verdict.ts';
import {
	checkRule,
	type Every,
	type IntervalRule,
	isLooser,
	rulesFor,
	rulesInForce,
	type RuleSubject,
	ruleWords,
	SHIPPED_RULES
} from './rules.ts';

const rule = (part: Partial<IntervalRule> = {}): IntervalRule => ({
	key: 'own',
	what: 'inspection',
	every: { days: 7 },
	windowDays: 2,
	families: [],
	modelId: null,
	usePattern: null,
	placeId: null,
	replaces: null,
	origin: commonPractice(),
	...part
});
const mask: RuleSubject = {
	family: 'half-mask',
	modelId: 'm',
	usePattern: 'shared',
	placeId: 'p'
};
const facts = (part: Partial<ItemFacts> = {}): ItemFacts => ({
	retiredOn: null,
	openDefects: [],
	inService: false,
	lastInspectionOn: '2026-11-01',
	filterChangeOn: null,
	...part
});

describe('the rules of intervals', () => {
	// Published, from memory: HSG53/COSHH reg. 9 monthly; 1910.134(h)(3)(i)(B) emergency sets monthly.
	it.each(['uk', 'us'] as const)('shipped with %s ask for a monthly inspection of all', (set) => {
		for (const { family } of FAMILIES)
			for (const usePattern of USE_PATTERNS) {
				const own = rulesFor({ ...mask, family, usePattern }, SHIPPED_RULES[set]);
				expect(own.filter((r) => r.what === 'inspection').length, family).toBeGreaterThan(0);
				for (const { every } of own) expect(every).toEqual({ months: 1 });
			}
	});

	it.each([
		[{}, true],
		[{ families: ['half-mask', 'full-face'] }, true],
		[{ families: ['full-face'] }, false],
		[{ modelId: 'm' }, true],
		[{ modelId: 'n' }, false],
		[{ usePattern: 'emergency' as const }, false],
		[{ placeId: 'p', usePattern: 'shared' as const }, true],
		[{ placeId: 'q' }, false]
	])('narrowed to %j: holds for the mask: %s', (scope, holds) =>
		expect(rulesFor(mask, [rule(scope)]).length === 1).toBe(holds)
	);

	it('a bench test is asked only of what has one', () => {
		const bench = rule({ what: 'bench test' });
		for (const { family } of FAMILIES)
			expect(rulesFor({ ...mask, family }, [bench]).length > 0).toBe(
				recordOf(family).bench !== null
			);
	});

	it('one that takes the place of a shipped one is alone; beside it both hold', () => {
		expect(rulesInForce('uk', [rule()]).map(({ key }) => key)).toEqual(['uk-monthly', 'own']);
		expect(rulesInForce('uk', [rule({ replaces: 'uk-monthly' })]).map(({ key }) => key)).toEqual([
			'own'
		]);
	});

	it('of all that hold the earliest wins, and each is said', () => {
		const verdict = judgeItem(facts({ rules: rulesInForce('uk', [rule()]) }), 'uk', '2026-11-10');
		expect(verdict.outcome).toBe('overdue');
		expect(verdict.reasons.map(({ text }) => text)).toEqual([
			'Inspection: due by 1 Dec 2026, 21 days left.',
			'Inspection: was due by 8 Nov 2026, 2 days ago.'
		]);
		const dues = duesOf(findingsOf(facts({ rules: [rule()] }), 'uk', '2026-11-10'));
		expect(dues).toEqual([{ what: 'inspection', from: '2026-11-06', on: '2026-11-08' }]);
	});

	it('a bench test that is asked for and was never done here is overdue; one within its time is not', () => {
		const rules = [...SHIPPED_RULES.uk, rule({ what: 'bench test', every: { months: 6 } })];
		const never = judgeItem(facts({ rules }), 'uk', '2026-11-10');
		expect(never.outcome).toBe('overdue');
		expect(never.reasons.map(({ text }) => text)).toContain('Bench test: never done here.');
		expect(
			judgeItem(facts({ rules, lastBenchTestOn: '2026-08-01' }), 'uk', '2026-11-10').outcome
		).toBe('ready');
	});

	it('adding one beside the others never lets anything wait longer', () => {
		const every = fc.oneof(
			fc.record({ days: fc.integer({ min: 1, max: 400 }) }),
			fc.record({ months: fc.integer({ min: 1, max: 24 }) })
		) as fc.Arbitrary<Every>;
		fc.assert(
			fc.property(fc.array(every, { maxLength: 4 }), every, (others, added) => {
				const on = (list: Every[]) =>
					summary(
						findingsOf(
							facts({ rules: [...SHIPPED_RULES.uk, ...list.map((one) => rule({ every: one }))] }),
							'uk',
							'2026-11-10'
						),
						'2026-11-10'
					).first.on;
				expect(on([...others, added]) <= on(others)).toBe(true);
			})
		);
	});

	it.each([
		[{ every: { days: 0 } }, '', /from 1/],
		[{ every: { days: 3661 } }, '', /from 1 to 3660/],
		[{ every: { months: 1.5 } }, '', /whole number/],
		[{ every: { months: 121 } }, '', /from 1 to 120/],
		[{ windowDays: 7 }, '', /fewer than/],
		[{ windowDays: -1 }, '', /0 or more/],
		[{ replaces: 'kite' }, '', /no such rule/],
		[{ replaces: 'us-monthly' }, '', /no such rule/],
		[{ replaces: 'uk-monthly', what: 'bench test' as const }, '', /no such rule/],
		[{ replaces: 'uk-monthly', every: { months: 3 } }, ' ', /say why/],
		[{ replaces: 'uk-monthly', families: ['half-mask'] }, '', /say why/]
	])('%j with the reason “%s” is refused', (part, reason, say) =>
		expect(() => checkRule(rule(part), 'uk', reason)).toThrow(say)
	);

	it('looser in place of a shipped one is taken with its reason, which it carries as its origin', () => {
		const kept = checkRule(
			rule({ replaces: 'uk-monthly', every: { months: 3 } }),
			'uk',
			' Used a few times a year '
		);
		expect(kept.origin).toEqual({ kind: 'site', source: 'Used a few times a year' });
	});

	it.each([
		[{ days: 31 }, { months: 1 }, true],
		[{ days: 28 }, { months: 1 }, false],
		[{ months: 3 }, { months: 1 }, true],
		[{ days: 7 }, { days: 7 }, false]
	] as [Every, Every, boolean][])('every %j is looser than every %j: %s', (a, b, looser) =>
		expect(isLooser({ every: a }, { every: b })).toBe(looser)
	);

	it('reads as a sentence', () => {
		expect(
			ruleWords(rule({ families: ['half-mask'], usePattern: 'emergency' }), { place: 'Quay' })
		).toBe('Inspection every 7 days, half masks in emergency use at Quay; due from 2 days before');
		expect(ruleWords(rule({ every: { months: 1 } }))).toBe(
			'Inspection every month, all equipment; due from 2 days before'
		);
	});
});
