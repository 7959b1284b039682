import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FAMILIES } from '../data/families.ts';
import { recordOf } from '../data/family-records.ts';
import type { ItemFacts } from '../readiness/facts.ts';
import { judgeItem } from '../readiness/item-state.ts';
import { duesOf, FAR, findingsOf, NEVER, summary } from '../readiness/findings.ts';
import { USE_PATTERNS } from '../site/places.ts';
import { commonPractice } from '../verdict.ts';
import { checkRule, isLooser } from './rule-check.ts';
import { familyHas, rulesFor, rulesOf } from './rule-scope.ts';
import { type Every, type IntervalRule, type RuleSubject, ruleWords } from './rules.ts';
import { countSince, type ItemEvent } from './events.ts';
import { OFFERED_RULES, SHIPPED_RULES } from './shipped-rules.ts';

const rule = (part: Partial<IntervalRule> = {}): IntervalRule => ({
	key: 'own',
	what: 'inspection',
	every: { days: 7 },
	detail: '',
	window: 2,
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
				expect(own.filter((r) => 'months' in r.every).map(({ every }) => every)).toContainEqual({
					months: 1
				});
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

	const keysFor = (own: IntervalRule[], item: RuleSubject = mask) =>
		rulesFor(item, rulesOf('uk', own)).map(({ key }) => key);
	it('one that takes the place of a shipped one does so where it holds, and nowhere else', () => {
		const after = ['after-drop', 'after-splash'];
		expect(keysFor([rule()])).toEqual(['uk-monthly', ...after, 'own']);
		const instead = rule({ replaces: 'uk-monthly', usePattern: 'personal' });
		expect(keysFor([instead], { ...mask, usePattern: 'personal' })).toEqual([...after, 'own']);
		expect(keysFor([instead])).toEqual(['uk-monthly', ...after]);
	});

	it('of all that hold the earliest wins, and each is said', () => {
		const verdict = judgeItem(
			facts({ rules: rulesFor(mask, rulesOf('uk', [rule()])) }),
			'uk',
			'2026-11-10'
		);
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
		[{ window: 7 }, '', /less than/],
		[{ window: -1 }, '', /0 or more/],
		[{ replaces: 'kite' }, '', /no such rule/],
		[{ replaces: 'us-monthly' }, '', /no such rule/],
		[{ replaces: 'uk-monthly', what: 'bench test' as const }, '', /no such rule/],
		[{ replaces: 'uk-monthly', every: { months: 3 } }, ' ', /say why/],
		[{ replaces: 'uk-monthly', every: { uses: 5 } }, '', /say why/],
		[{ every: { uses: 0 }, window: 0 }, '', /whole number of uses from 1/],
		[{ every: { hours: 10_001 } }, '', /hours from 1 to 10000/],
		[{ every: { cycles: 5 }, families: ['half-mask'] }, '', /cylinders only/],
		[{ every: { after: 'use' as const }, window: 2 }, '', /no days before/],
		[{ what: 'list' as const, detail: 'kite' }, '', /which one/],
		[
			{ what: 'list' as const, detail: 'yearly deep', families: ['cylinder'] },
			'',
			/Cylinders have no such thing/
		],
		[{ what: 'service' as const, detail: 'replace-disc', families: ['ba-set'] }, '', /BA sets/],
		[{ what: 'bench test' as const, families: ['half-mask'] }, '', /Half masks have no such/]
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
		[{ days: 7 }, { days: 7 }, false],
		[{ uses: 3 }, { months: 1 }, true],
		[{ after: 'use' }, { after: 'use' }, false]
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
		expect(ruleWords(rule({ what: 'bench test', every: { after: 'use' }, window: 0 }))).toBe(
			'Bench test after every use, all equipment'
		);
		expect(
			ruleWords(rule({ what: 'service', detail: 'replace-disc', every: { uses: 1 }, window: 0 }))
		).toBe('New valve disc every use, all equipment');
		expect(
			ruleWords(rule({ what: 'list', detail: 'yearly deep', every: { hours: 40 }, window: 1 }))
		).toBe('Deep inspection every 40 hours, all equipment; due from 1 hour before');
	});

	it('every rule that is shipped or offered can be kept as it stands, by what has it', () => {
		for (const one of [...SHIPPED_RULES.uk, ...SHIPPED_RULES.us, ...OFFERED_RULES]) {
			expect(() => checkRule(one, 'uk', ''), one.key).not.toThrow();
			for (const family of one.families)
				expect(familyHas(family, one.what, one.detail), `${one.key} ${family}`).toBe(true);
		}
	});
});

describe('what rules count', () => {
	const at = (day: string, hour = 12) => `${day}T${String(hour).padStart(2, '0')}:00:00Z`;
	const used = (day: string, minutes?: number): ItemEvent => ({
		what: 'use',
		at: at(day),
		on: day,
		...(minutes === undefined ? {} : { minutes })
	});
	const bench = (every: Every, window = 0) => rule({ what: 'bench test', every, window });
	const dueBy = (rules: IntervalRule[], part: Partial<ItemFacts> = {}) =>
		duesOf(
			findingsOf(
				facts({
					rules,
					lastBenchTestOn: '2026-11-01',
					done: { 'bench test': { on: '2026-11-01', at: at('2026-11-01') } },
					...part
				}),
				'uk',
				'2026-11-10'
			)
		);

	it.each([
		[2, { from: FAR, on: FAR, left: '3 uses left' }],
		[4, { from: NEVER, on: FAR, left: '1 use left' }],
		[5, { from: NEVER, on: NEVER, left: '5 uses since' }],
		[7, { from: NEVER, on: NEVER, left: '7 uses since' }]
	])('%i uses of five since the test', (n, days) => {
		const events = Array.from({ length: n }, (_, i) => used(`2026-11-0${i + 2}`));
		expect(dueBy([bench({ uses: 5 }, 1)], { events: [used('2026-10-30'), ...events] })).toEqual([
			{ what: 'bench test', ...days }
		]);
	});

	it('hours of use come together; what was before the test does not count, at its very moment neither', () => {
		const events = [used('2026-11-01', 600), used('2026-11-02', 90), used('2026-11-03', 30)];
		expect(dueBy([bench({ hours: 2 })], { events })[0]?.on).toBe(NEVER);
		expect(dueBy([bench({ hours: 3 })], { events })[0]).toEqual({
			what: 'bench test',
			from: FAR,
			on: FAR,
			left: '1 h left'
		});
	});

	it('after an event it is overdue until it is done; with nothing since it only waits', () => {
		const rules = [...SHIPPED_RULES.uk, bench({ after: 'repair' })];
		const repaired: ItemEvent = { what: 'repair', at: at('2026-11-05'), on: '2026-11-05' };
		const verdict = (part: Partial<ItemFacts>) =>
			judgeItem(facts({ rules, lastBenchTestOn: '2026-11-05', ...part }), 'uk', '2026-11-10');
		const doneAt = (hour: number) => ({
			done: { 'bench test': { on: '2026-11-05', at: at('2026-11-05', hour) } },
			events: [repaired]
		});
		expect(verdict(doneAt(13)).outcome).toBe('ready');
		expect(verdict(doneAt(11)).outcome).toBe('overdue');
		expect(verdict(doneAt(11)).reasons.map(({ text }) => text)).toContain(
			'Bench test after every repair: repaired on 5 Nov 2026, not done since.'
		);
		// One that was never asked for is not asked for by what did not happen.
		expect(verdict({ lastBenchTestOn: null }).outcome).toBe('ready');
	});

	it('a drop asks for an inspection before the next use, whatever the calendar says', () => {
		const dropped: ItemEvent = { what: 'drop', at: at('2026-11-09'), on: '2026-11-09' };
		const done = { inspection: { on: '2026-11-08', at: at('2026-11-08') } };
		const state = (events: ItemEvent[]) =>
			judgeItem(facts({ lastInspectionOn: '2026-11-08', done, events }), 'uk', '2026-11-10');
		expect(state([]).outcome).toBe('ready');
		expect(state([]).reasons).toHaveLength(1);
		expect(state([dropped]).outcome).toBe('overdue');
	});

	it('lists and jobs count from their last time, else from the day the item came', () => {
		const disc = rule({ what: 'service', detail: 'replace-disc', every: { months: 60 } });
		const deep = rule({ what: 'list', detail: 'yearly deep', every: { months: 12 } });
		const dues = (done: ItemFacts['done'] = {}) =>
			duesOf(
				findingsOf(
					facts({ rules: [disc, deep], inUseSince: '2024-01-15', done }),
					'uk',
					'2026-11-10'
				)
			);
		expect(dues()).toEqual([
			{ what: 'service', detail: 'replace-disc', from: '2029-01-13', on: '2029-01-15' },
			{ what: 'list', detail: 'yearly deep', from: '2025-01-13', on: '2025-01-15' }
		]);
		expect(
			dues({ 'list yearly deep': { on: '2026-06-01', at: at('2026-06-01') } }).map(({ on }) => on)
		).toEqual(['2029-01-15', '2027-06-01']);
	});

	it('what was never inspected is overdue, whatever its rules wait for', () => {
		const rules = [rule({ every: { after: 'use' }, window: 0 })];
		expect(judgeItem(facts({ rules, lastInspectionOn: null }), 'uk', '2026-11-10').outcome).toBe(
			'overdue'
		);
	});

	it('more uses, and later ones, never bring more time', () => {
		const days = fc.integer({ min: 1, max: 28 });
		fc.assert(
			fc.property(
				fc.array(fc.tuple(days, fc.integer({ min: 1, max: 400 })), { maxLength: 12 }),
				fc.tuple(days, fc.integer({ min: 1, max: 400 })),
				fc.constantFrom<Every>({ uses: 4 }, { hours: 10 }, { after: 'use' }),
				(before, [day, minutes], every) => {
					const one = (d: number, m: number) => used(`2026-11-${String(d).padStart(2, '0')}`, m);
					const events = before.map(([d, m]) => one(d, m));
					const on = (list: ItemEvent[]) => dueBy([bench(every)], { events: list })[0]?.on ?? '';
					expect(on([...events, one(day, minutes)]) <= on(events)).toBe(true);
				}
			)
		);
	});

	it('counts exactly what came after', () => {
		const repaired: ItemEvent = { what: 'repair', at: at('2026-11-02'), on: '2026-11-02' };
		const filled: ItemEvent = { what: 'fill', at: at('2026-11-03'), on: '2026-11-03' };
		expect(
			countSince(
				[used('2026-11-01', 30), repaired, used('2026-11-02', 45), filled],
				at('2026-11-01')
			)
		).toEqual({
			uses: 1,
			hours: 0.75,
			cycles: 1,
			happened: { repair: '2026-11-02', use: '2026-11-02', fill: '2026-11-03' }
		});
	});
});
