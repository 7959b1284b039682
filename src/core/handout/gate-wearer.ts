import type { ProtectionKind } from '../data/protection-factors.ts';
import type { RuleSet } from '../data/substance.ts';
import {
	type FitTest,
	judgeFitTest,
	methodServes,
	type ReportedChange
} from '../people/fit-standing.ts';
import { checkDay, type Day, readable } from '../plan/calendar.ts';
import { type Origin, published } from '../verdict.ts';
import { type GateReason, stop } from './gate-reason.ts';

export interface GateWearer {
	fitTests: readonly FitTest[];
	changes: readonly ReportedChange[];
	facialHair: boolean;
	/** Last good day; null: none on record. */
	clearedUntil: Day | null;
	trainedUntil: Day | null;
}

const FIT = published('29 CFR 1910.134(f)');
const HAIR = published('29 CFR 1910.134(g)(1)(i)');

/** What of the wearer speaks against it: clearance and training. */
export function ofWearer(wearer: GateWearer, asOf: Day): GateReason[] {
	const until = (
		what: 'clearance' | 'training',
		day: Day | null,
		fix: string,
		origin: Origin
	): GateReason[] => {
		const name = what === 'clearance' ? 'Clearance' : 'Training';
		if (day === null) return [stop(what, `${name} of the wearer is not on record.`, fix, origin)];
		return checkDay(day, `wearer.${what === 'clearance' ? 'clearedUntil' : 'trainedUntil'}`) < asOf
			? [stop(what, `${name} of the wearer ended on ${readable(day)}.`, fix, origin)]
			: [];
	};
	return [
		...until(
			'clearance',
			wearer.clearedUntil,
			'Have them cleared first; nothing medical is asked here.',
			published('29 CFR 1910.134(e)')
		),
		...until(
			'training',
			wearer.trainedUntil,
			'Train them first, then note until when it holds.',
			published('29 CFR 1910.134(k)')
		)
	];
}

/** What a kind that seals on the face asks of it: no hair under the seal, a fit test that counts and is good enough. */
export function ofFace(
	item: { model: string; size: string },
	kind: ProtectionKind,
	wearer: GateWearer,
	task: { requiredFactor: number },
	ruleSet: RuleSet,
	asOf: Day
): GateReason[] {
	const reasons: GateReason[] = [];
	if (wearer.facialHair)
		reasons.push(
			stop(
				'hair',
				'Hair where it seals on the face.',
				'Shaved, or something loose-fitting that the plan permits.',
				HAIR
			)
		);
	const same = (one: FitTest) =>
		one.model.trim().toLowerCase() === item.model.trim().toLowerCase() &&
		one.size.trim().toLowerCase() === item.size.trim().toLowerCase();
	const own = wearer.fitTests.filter(same).toSorted((a, b) => a.on.localeCompare(b.on));
	if (own.length === 0) {
		reasons.push(
			stop(
				'fit.none',
				`No fit test with ${item.model}, size ${item.size}.`,
				'Test the fit first, or take a model and size that they were tested in.',
				FIT
			)
		);
		return reasons;
	}
	const judged = own.map((test, i) => ({
		test,
		verdict: judgeFitTest(test, wearer.changes, asOf, own.slice(i + 1))
	}));
	const counting = judged.filter(({ verdict }) => verdict.outcome === 'counts');
	if (counting.length === 0) {
		const last = judged.at(-1);
		for (const reason of last?.verdict.reasons ?? [])
			reasons.push({
				...reason,
				weight: 'stop',
				fix: 'Test the fit anew, or take a model and size whose test counts.'
			});
		return reasons;
	}
	const fullFace = kind.coversEyes;
	if (
		!counting.some(({ test }) =>
			methodServes(test.method, { requiredFactor: task.requiredFactor, fullFace, ruleSet })
		)
	)
		reasons.push(
			stop(
				'fit.method',
				`The fit was tested by taste or smell, which is not enough for a factor of ${task.requiredFactor}${fullFace ? ' with a full-face mask' : ''}.`,
				'Test the fit with a counter.',
				FIT
			)
		);
	return reasons;
}
