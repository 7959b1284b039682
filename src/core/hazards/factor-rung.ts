import { PROTECTION_FACTOR_ORIGIN } from '../data/protection-factors.ts';
import type { RuleSet } from '../data/substance.ts';
import { readableNumber } from '../units/number.ts';
import { published, type Reason } from '../verdict.ts';
import type { HazardOutcome } from './decision.ts';
import type { Contaminant } from './facts.ts';
import type { MixtureRatio } from './mixture.ts';
import type { Finding } from './finding.ts';
import type { LeastFactor } from './least-factor.ts';

const additiveOrigin = published('ACGIH TLV booklet, appendix on mixtures, additive formula');

const short = (value: number) => readableNumber(value, 3);

/** Rung 9: which assigned factor does the ratio to the limit call for? */
export function factorRung(
	mixture: MixtureRatio | null,
	required: number | null,
	least: readonly LeastFactor[],
	contaminants: readonly Contaminant[],
	outcome: HazardOutcome,
	ruleSet: RuleSet
): Finding {
	const leastReasons = least.map(({ reason }) => reason);
	if (!mixture)
		return {
			...(least.length ? { outcome } : {}),
			text: least.length
				? `a factor of ${required ?? 'more than any'}, by kind of harm`
				: 'no ratio to a limit',
			reasons: leastReasons
		};
	const { ratio } = mixture;
	const inputs = contaminants.flatMap((c) => ratioInputs(c, mixture));
	const worst = [...contaminants].sort((a, b) => (b.ratio ?? 0) - (a.ratio ?? 0))[0];
	const against = mixture.by === 'short term' ? 'short-term limit' : 'limit';
	const together = mixture.members.length > 1;
	const reasons: Reason[] = [
		{
			rule: 'hazard.ratio',
			text: together
				? `Together the contaminants reach ${short(ratio)} times their ${against}s${mixture.organ ? ` on the ${mixture.organ}` : ''}; ${worst?.name ?? ''} counts most.`
				: `${mixture.members[0] ?? ''} reaches ${short(ratio)} times its ${against}.`,
			origin: together ? additiveOrigin : PROTECTION_FACTOR_ORIGIN[ruleSet],
			inputs,
			value: ratio,
			unit: '×'
		},
		{
			rule: 'hazard.factor',
			text:
				required === null
					? 'No assigned factor of the rule set reaches that.'
					: `The next assigned factor is ${required}.`,
			origin: PROTECTION_FACTOR_ORIGIN[ruleSet],
			...(required === null ? {} : { limit: required, margin: required - ratio }),
			value: ratio,
			unit: '×'
		},
		...leastReasons
	];
	return {
		outcome,
		text:
			required === null
				? `${short(ratio)} × the ${against}`
				: `${short(ratio)} × the ${against} → ${required}`,
		reasons
	};
}

/** What each contaminant brings to the sum: its mean, and its peak where that is what counts. */
function ratioInputs(c: Contaminant, mixture: MixtureRatio) {
	const value = mixture.by === 'short term' ? c.shortRatio : (c.meanRatio ?? c.ratio);
	const list = [
		{
			name: `${c.name} over its ${mixture.by === 'short term' ? 'short-term ' : ''}limit`,
			value: Number((value ?? 0).toPrecision(4)),
			unit: '×'
		}
	];
	if (c.summary)
		list.push({
			name: `${c.name}, upper 95 % limit of ${c.summary.n} measurements`,
			value: Number(c.summary.upperLimit95.toPrecision(4)),
			unit: c.concentration?.unit ?? ''
		});
	return list;
}
