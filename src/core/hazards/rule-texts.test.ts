import { describe, expect, it } from 'vitest';
import { airFacts, inAir } from '../../../tests/support/in-air.ts';
import { findSubstance } from '../data/substances.ts';
import { SUBSTANCE_RULES, type SubstanceRule } from '../data/substance-rules.ts';
import type { ConcentrationUnit } from '../units/concentration.ts';
import type { HazardDecision } from './decision.ts';
import { publishedLimit } from './facts.ts';
import { decide } from './ladder.ts';

/** Multiples of the limit that between them reach every branch of a rule. */
const MULTIPLES = [0.5, 1.2, 4, 8, 20, 45, 60, 200];

/** The decisions that a rule governs, over a range of concentrations. */
function decisionsUnder(rule: SubstanceRule): { ppm: number; d: HazardDecision }[] {
	const limit = publishedLimit(findSubstance(rule.substance), rule.ruleSet);
	if (!limit) throw new Error(`no limit for ${rule.substance}`);
	return MULTIPLES.map((times) => {
		const air = inAir(rule.substance, limit.value * times, { unit: limit.unit });
		return { ppm: limit.value * times, d: decide(airFacts(rule.ruleSet, [air])) };
	});
}
const kinds = (d: HazardDecision) => d.permitted.map(({ kind }) => kind);
const conditions = (d: HazardDecision, kind: RegExp) =>
	d.permitted.filter((one) => kind.test(one.kind)).map((one) => one.conditions.join(' '));

/** What a sentence of a rule says, and how it shows in every decision under it. */
const CLAUSES: [
	says: RegExp,
	holds: (d: HazardDecision, ppm: number, rule: SubstanceRule) => void
][] = [
	[/above (\d+) ppm supplied air/, (d, ppm) => ppm > 50 && expect(d.outcome).not.toBe('filter')],
	[
		/asks for supplied air|; supplied air/,
		(d) => expect(d.permitted.some(({ source }) => source === 'filter')).toBe(false)
	],
	[
		/half mask only with goggles/,
		(d) => {
			for (const line of conditions(d, /half-mask/)) expect(line).toMatch(/goggles/);
		}
	],
	[/[Nn]o filtering facepiece/, (d) => expect(kinds(d)).not.toContain('filtering-facepiece')],
	[
		/class 100/,
		(d) => {
			for (const { filters } of d.permitted) if (filters) expect(filters.us).toMatch(/100$/);
		}
	],
	[
		/P3 only/,
		(d) => {
			for (const { filters } of d.permitted) if (filters) expect(filters.en).toMatch(/P3$/);
		}
	],
	[
		/factor of at least 20/,
		(d) => {
			for (const { factor } of d.permitted) expect(factor).toBeGreaterThanOrEqual(20);
		}
	],
	[
		/non-licensed work/,
		(d) => {
			for (const line of conditions(d, /^(filtering|half-mask|full-face$|powered-h)/))
				expect(line).toMatch(/no licence/);
		}
	],
	[
		/Fumigants: breathing apparatus/,
		(d) => (d.hazardRatio ?? 0) > 1 && expect(['self-contained', 'stop']).toContain(d.outcome)
	],
	[
		/full-face (mask|canister)/,
		(d, _, rule) => {
			if (rule.substance !== 'phosphine') return;
			for (const kind of kinds(d)) expect(kind).toMatch(/full-face|^ba/);
		}
	],
	[/15 ppm/, (d, ppm) => ppm > 15 && expect(['self-contained', 'stop']).toContain(d.outcome)],
	[
		/(meter is worn|measured all the time)/,
		(d) => {
			for (const line of conditions(d, /./)) expect(line).toMatch(/meter|measured all the time/);
		}
	],
	[
		/where eyes|eyes or skin/,
		(d) => {
			for (const line of conditions(d, /half-mask|filtering/)) expect(line).toMatch(/eyes/);
		}
	],
	[
		/may ask for a powered/,
		(d) => {
			for (const line of conditions(d, /./)) expect(line).toMatch(/may ask for a powered/);
		}
	],
	[
		/engineering controls come first/,
		(d) => {
			for (const line of conditions(d, /./)) expect(line).toMatch(/engineering controls/);
		}
	],
	[
		/factor of 10 or 25 for listed tasks/,
		(d) => {
			for (const line of conditions(d, /./)) expect(line).toMatch(/10 or 25/);
		}
	],
	[
		/above half the limit/,
		(d) => {
			for (const line of conditions(d, /./)) expect(line).toMatch(/half the limit/);
		}
	],
	[
		/replaced|three hours|by the clock/,
		(_, __, rule) => expect(rule.changeMin?.length ?? 0).toBeGreaterThan(0)
	],
	[/chosen by 1910\.134/, (d) => expect(d.hazardRatio).not.toBeNull()]
];

// The texts carry their own published sources; every clause of them is looked for in the answers.
describe('what a rule of a substance says', () => {
	it.each(SUBSTANCE_RULES.map((rule) => [`${rule.ruleSet}, ${rule.text}`, rule] as const))(
		'%s',
		(_, rule) => {
			const said = CLAUSES.filter(([says]) => says.test(rule.text));
			expect(said.length, 'a rule that no clause is known of').toBeGreaterThan(0);
			for (const { ppm, d } of decisionsUnder(rule))
				for (const [, holds] of said) holds(d, ppm, rule);
		}
	);

	it('is part of the answer wherever something has to be worn', () => {
		for (const rule of SUBSTANCE_RULES) {
			const limit = publishedLimit(findSubstance(rule.substance), rule.ruleSet);
			const unit: ConcentrationUnit = limit?.unit ?? 'ppm';
			const air = inAir(rule.substance, (limit?.value ?? NaN) * 1.5, { unit });
			const texts = decide(airFacts(rule.ruleSet, [air])).reasons.map(({ text }) => text);
			expect(texts).toContain(rule.text);
		}
	});
});
