// Writes docs/decisions.md: every substance with a limit, at several multiples of it, under both rule sets.
import { writeFileSync } from 'node:fs';
import { format } from 'prettier';
import type { RuleSet, Substance } from '../src/core/data/substance.ts';
import { SUBSTANCES } from '../src/core/data/substances.ts';
import { saturationPpm } from '../src/core/filters/vapour-pressure.ts';
import type { HazardDecision } from '../src/core/hazards/decision.ts';
import { DEFAULT_FACTS, publishedLimit, written } from '../src/core/hazards/facts.ts';
import { decide } from '../src/core/hazards/ladder.ts';
import type { Concentration } from '../src/core/units/concentration.ts';
import { readableNumber } from '../src/core/units/number.ts';

const MULTIPLES = [0.5, 2, 8, 30, 90];
/** Welding fume has no limit of its own: so much stands in for one in these tables. */
const SOME_FUME_MG_PER_M3 = 5;
/** Said on every line of its kind and so on none. */
const COMMON =
	/^(Engineering controls|At or below|A valid fit test|Powered hood|Powered half|Powered full|Airline hood)/;

function answer(s: Substance, ruleSet: RuleSet, times: number): string {
	const limit = publishedLimit(s, ruleSet);
	if (!limit && !s.biologicalGroup) {
		if (ruleSet === 'us' || !s.harms?.includes('weld fume')) return 'no limit';
		return decided(s, ruleSet, { value: SOME_FUME_MG_PER_M3 * times, unit: 'mg/m3' });
	}
	const most = limit?.unit === 'ppm' ? (saturationPpm(s, 20) ?? 1e6) : 1e7;
	const value = (limit?.value ?? 0) * times;
	if (value > most) return 'more than the air can hold';
	return decided(s, ruleSet, limit ? { value, unit: limit.unit } : null);
}

const alone = (s: Substance, ruleSet: RuleSet, concentration: Concentration | null) =>
	decide({
		...DEFAULT_FACTS,
		oxygenPercent: undefined,
		ruleSet,
		contaminants: [{ substance: s.key, name: s.name, form: s.form, concentration }]
	});
const decided = (...air: Parameters<typeof alone>) => said(alone(...air), air[1]);

function said(d: HazardDecision, ruleSet: RuleSet): string {
	const first = d.permitted[0];
	const filter = first?.filters?.[ruleSet === 'us' ? 'us' : 'en'];
	const factor = d.requiredFactor === null ? '' : `${d.requiredFactor}: `;
	const suit = d.suit === 'gas-tight' ? ' + gas-tight suit' : '';
	const kind = first ? `${first.kind}${filter ? ` ${filter}` : ''}` : 'nothing';
	const outcome = d.outcome === 'filter' ? '' : `**${d.outcome}**, `;
	return `${factor}${outcome}${kind}${suit}`;
}

/** What goes with the answer at eight times the limit, or at the highest that can be. */
function conditions(s: Substance): string {
	const limit = publishedLimit(s, 'us') ?? publishedLimit(s, 'uk');
	if (!limit) return '';
	const most = limit.unit === 'ppm' ? 0.99 * (saturationPpm(s, 20) ?? 1e6) : Infinity;
	const d = alone(s, publishedLimit(s, 'us') ? 'us' : 'uk', {
		value: Math.min(limit.value * 8, most),
		unit: limit.unit
	});
	const own = [...d.conditions, ...(d.permitted[0]?.conditions ?? [])].filter(
		(line) => !COMMON.test(line) && line !== `${s.name}: ${s.note}`
	);
	return [...new Set(own)].map((line) => line.replace(`${s.name}: `, '')).join(' ');
}

const tables = (['us', 'uk'] as const).map((ruleSet) => {
	const rows = SUBSTANCES.map((s) => {
		const limit = publishedLimit(s, ruleSet);
		const listed = limit ? `${readableNumber(limit.value, 3)} ${written(limit.unit)}` : '';
		const of = MULTIPLES.map((times) => answer(s, ruleSet, times));
		return [s.name, listed, ...(new Set(of).size === 1 ? [of[0], '', '', '', ''] : of)];
	});
	const head = ['Substance', 'Limit', ...MULTIPLES.map((n) => `${n} ×`)];
	return `## ${ruleSet === 'us' ? 'US' : 'UK'} rule set

| ${head.join(' | ')} |
|${head.map(() => '---|').join('')}
${rows.map((row) => `| ${row.join(' | ')} |`).join('\n')}
`;
});

const text = `# Decisions

Written by \`npm run decisions\` from the shipped library; do not edit. Every substance at ${MULTIPLES.join(', ')} times
its limit, alone, in open air, with a quantitative fit test. Each cell: the factor needed, the outcome where it is not a
filter, the first kind permitted and its filter. Every limit is written from memory of the published lists.

${tables.join('\n')}
## What goes with them

At eight times the limit, beside what is said of every answer.

${SUBSTANCES.map((s) => [s.name, conditions(s)] as const)
	.filter(([, line]) => line)
	.map(([name, line]) => `- **${name}**: ${line}`)
	.join('\n')}

## Where this is not what a published recommendation says, and why it stands

All from memory; each is a choice that a competent person can take back in a plan.

- **Carcinogens (NIOSH: own air at any detectable level)**: the ladder goes by the binding limit and its standard, and in
  the UK by a factor of at least 20. NIOSH's line would leave no filter against benzene or formaldehyde, which the binding
  standards allow with their change times.
- **Low boilers in the US pack (NIOSH names organic vapour cartridges for acetone, pentane, diethyl ether, methyl acetate
  far above 500 ppm)**: carbon holds them no better there than elsewhere. AX, once, up to 500 ppm, in both packs.
- **Acetaldehyde, 1,1-dichloroethane and other weakly held vapours**: no filter where the service-life model gives less
  than 20 minutes, although cartridges are named for them.
- **Phosphine in the US (a full-face canister up to 15 ppm)**: the US scheme has no ordinary approval for it; supplied air,
  or the canister that is approved by name. Half masks with an airline, which NIOSH names, are refused with it, as fumigant
  labels ask for a full-face mask.
- **Hydrogen cyanide (some national guidance takes B filters up to ten times the limit)**: supplied air; it enters through
  the skin, its warning is poor and Grevan has no change schedule for it.
- **Hydrogen sulphide and nitrous gases in the UK**: no half mask, which the filter standard alone would allow.
- **P1 against toxic dusts and mists at low multiples in the UK**: the assigned factor alone decides, save for sensitisers,
  carcinogens and welding fume. Many sites take P3 for cyanide salts, lead and pesticides; a plan can ask for it.
- **Phosphoric acid**: a gas filter beside the particle filter as for all acid mists, although it hardly evaporates.
- **Ozone, hydrogen peroxide, peracetic acid**: supplied air; makers name carbon for low ozone, no scheme does.
- **Recommended US limits** stand in where the law has none (diisocyanates, ceramic fibre, n-nonane and others).
`;
writeFileSync(
	new URL('../docs/decisions.md', import.meta.url),
	await format(text, { parser: 'markdown' })
);
console.log('docs/decisions.md is written.');
