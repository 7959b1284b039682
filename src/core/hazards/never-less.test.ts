import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { airFacts, inAir, limitsOf } from '../../../tests/support/in-air.ts';
import { protectionKind } from '../data/protection-factors.ts';
import type { RuleSet } from '../data/substance.ts';
import { SUBSTANCES } from '../data/substances.ts';
import { InputError } from '../verdict.ts';
import { OUTCOME_RANK, type HazardDecision } from './decision.ts';
import { type ContaminantFact, publishedLimit, type HazardFacts } from './facts.ts';
import { decide } from './ladder.ts';

const KEYS = SUBSTANCES.filter((s) => publishedLimit(s, 'uk') && publishedLimit(s, 'us')).map(
	({ key }) => key
);
const key = fc.constantFrom(...KEYS);
const times = fc.double({ min: 0.01, max: 60, noNaN: true });
const ruleSets = fc.constantFrom<RuleSet>('us', 'uk');
const row = fc.tuple(key, times);
const mixture = fc.array(row, { minLength: 1, maxLength: 3 });

/** The decision, or undefined where the facts contradict themselves. */
function answer(facts: HazardFacts): HazardDecision | undefined {
	try {
		return decide(facts);
	} catch (error) {
		if (error instanceof InputError) return undefined;
		throw error;
	}
}
const airOf = (rows: readonly (readonly [string, number])[], ruleSet: RuleSet) =>
	rows.map(([k, n]) => limitsOf(k, n, ruleSet));

/** Nothing that was not good enough before is good enough for what is worse. */
function noWeaker(worse: HazardDecision | undefined, better: HazardDecision | undefined): void {
	if (!worse || !better) return;
	expect(OUTCOME_RANK[worse.outcome]).toBeGreaterThanOrEqual(OUTCOME_RANK[better.outcome]);
	expect(worse.requiredFactor ?? Infinity).toBeGreaterThanOrEqual(
		better.requiredFactor ?? Infinity
	);
	// What asked for nothing listed nothing.
	if (better.permitted.length === 0 && better.outcome === 'filter') return;
	const before = better.permitted.map(({ kind }) => kind);
	for (const { kind } of worse.permitted) expect(before).toContain(kind);
}

describe('the answer is never less protective', () => {
	it('for more of anything in a mixture', () =>
		fc.assert(
			fc.property(
				mixture,
				fc.nat(2),
				fc.double({ min: 1, max: 20, noNaN: true }),
				ruleSets,
				(rows, i, more, ruleSet) => {
					const worse = rows.map(([k, n], j) => [k, j === i % rows.length ? n * more : n] as const);
					noWeaker(
						answer(airFacts(ruleSet, airOf(worse, ruleSet))),
						answer(airFacts(ruleSet, airOf(rows, ruleSet)))
					);
				}
			),
			{ numRuns: 600 }
		));

	it('for one more contaminant', () =>
		fc.assert(
			fc.property(mixture, row, ruleSets, (rows, extra, ruleSet) =>
				noWeaker(
					answer(airFacts(ruleSet, airOf([...rows, extra], ruleSet))),
					answer(airFacts(ruleSet, airOf(rows, ruleSet)))
				)
			),
			{ numRuns: 600 }
		));

	it('for less oxygen', () =>
		fc.assert(
			fc.property(
				mixture,
				fc.double({ min: 0, max: 20.4, noNaN: true }),
				fc.double({ min: 0, max: 20.4, noNaN: true }),
				fc.integer({ min: 0, max: 9000 }),
				ruleSets,
				(rows, a, b, altitudeFt, ruleSet) => {
					const at = (oxygenPercent: number) =>
						answer(
							airFacts(ruleSet, airOf(rows, ruleSet), {
								oxygenPercent,
								altitudeFt,
								oxygenStaysInRange: true
							})
						);
					noWeaker(at(Math.min(a, b)), at(Math.max(a, b)));
				}
			),
			{ numRuns: 400 }
		));

	it('for a stricter limit and for a longer shift', () =>
		fc.assert(
			fc.property(
				mixture,
				fc.double({ min: 0.05, max: 1, noNaN: true }),
				fc.integer({ min: 8, max: 20 }),
				ruleSets,
				(rows, share, longShiftHours, ruleSet) => {
					const air = airOf(rows, ruleSet);
					const stricter = air.map((c): ContaminantFact => {
						const limit = publishedLimit(
							SUBSTANCES.find((s) => s.key === c.substance),
							ruleSet
						);
						return limit ? { ...c, limit: { ...limit, value: limit.value * share } } : c;
					});
					// As an entered limit the published one puts the listed short-term value out of force as well.
					const entered = air.map((c): ContaminantFact => {
						const limit = publishedLimit(
							SUBSTANCES.find((s) => s.key === c.substance),
							ruleSet
						);
						return limit ? { ...c, limit } : c;
					});
					const base = answer(airFacts(ruleSet, entered));
					noWeaker(answer(airFacts(ruleSet, stricter)), base);
					noWeaker(answer(airFacts(ruleSet, entered, { longShiftHours })), base);
				}
			),
			{ numRuns: 400 }
		));
});

describe('no answer lists what a sentence of it forbids', () => {
	it('in any mixture, either pack, any face', () =>
		fc.assert(
			fc.property(
				mixture,
				ruleSets,
				fc.constantFrom('quantitative', 'qualitative', 'none'),
				fc.boolean(),
				fc.constantFrom('none', 'entry', 'escape'),
				(rows, ruleSet, fitTest, facialHair, emergency) => {
					const d = answer(
						airFacts(ruleSet, airOf(rows, ruleSet), { fitTest, facialHair, emergency })
					);
					if (!d) return;
					const refused = new Set(d.rejected.map(({ kind }) => kind));
					for (const kind of d.permitted) {
						expect(refused).not.toContain(kind.kind);
						const found = protectionKind(kind.kind);
						if (facialHair || fitTest === 'none') expect(found?.tightFitting).toBe(false);
						if (d.outcome !== 'filter') expect(kind.source).not.toBe('filter');
						if (d.outcome === 'self-contained') expect(kind.source).toBe('self-contained');
						if (d.suit === 'gas-tight') expect(found?.coversEyes).toBe(true);
						if (kind.source === 'filter')
							expect(kind.filters?.[ruleSet === 'us' ? 'us' : 'en']).toBeTruthy();
						if (d.requiredFactor !== null)
							expect(kind.factor).toBeGreaterThanOrEqual(d.requiredFactor);
					}
					if (d.outcome === 'stop' || d.outcome === 'escape set') expect(d.permitted).toEqual([]);
					const said = [...d.conditions, ...d.reasons.map(({ text }) => text)].join(' ');
					if (/nobody goes in/i.test(said) && emergency === 'none') expect(d.permitted).toEqual([]);
				}
			),
			{ numRuns: 800 }
		));

	it('nothing that was not measured is taken for good air', () => {
		for (const ruleSet of ['us', 'uk'] as const)
			for (const k of KEYS) {
				const d = decide(airFacts(ruleSet, [inAir(k, null)]));
				if (d.contaminants[0]?.substance?.biologicalGroup) continue;
				expect([k, d.outcome]).toEqual([k, 'self-contained']);
			}
	});
});
