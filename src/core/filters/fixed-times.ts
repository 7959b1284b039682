import type { Substance } from '../data/substance.ts';
import { changeRulesFor, SUBSTANCE_RULES } from '../data/substance-rules.ts';
import type { Reason } from '../verdict.ts';
import { axTime } from './ax.ts';

/** A time that a rule fixes; the estimate never goes beyond it. */
export interface FixedTime {
	minutes: number;
	reason: Reason;
}

/** Every time that a regulation or the AX rules fix for a substance at a concentration in ppm, of either pack. */
export function fixedTimes(
	substance: Pick<Substance, 'key' | 'name' | 'en'>,
	ppm: number
): FixedTime[] {
	const ruled = changeRulesFor(substance.key).map((rule): FixedTime => {
		const row = rule.changeMin?.find(({ upToPpm }) => ppm <= upToPpm);
		const minutes = row?.minutes ?? 0;
		return {
			minutes,
			reason: {
				rule: `change.${rule.substance}`,
				text: rule.text,
				origin: rule.origin,
				limit: minutes,
				unit: 'min'
			}
		};
	});
	return substance.en === 'AX' ? [...ruled, axTime(substance.name, ppm)] : ruled;
}

/** Why no filter is accepted for a substance at all: its own trap, or a rule that asks for supplied air. */
export function trapOf(
	substance: Pick<Substance, 'key' | 'noFilter'> | undefined
): { noFilter: string } | Record<string, never> {
	if (substance?.noFilter) return { noFilter: substance.noFilter };
	const rule = SUBSTANCE_RULES.find(
		(one) => one.suppliedAirOnly && one.substance === substance?.key
	);
	return rule ? { noFilter: rule.text.replace(/\.$/, '') } : {};
}
