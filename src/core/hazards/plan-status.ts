import { readable, type Day } from '../plan/calendar.ts';
import { commonPractice, site, type Reason, type Verdict } from '../verdict.ts';

export type PlanState = 'draft' | 'in force' | 'review due' | 'expired' | 'in question';

/** What is known of a plan's standing. */
export interface PlanStanding {
	/** Version of the working copy. */
	version: number;
	/** The newest approval; null when none was given yet. */
	edition: { edition: number; version: number; reviewOn: Day; expiresOn: Day } | null;
	/** Flags that nobody has looked into. */
	openFlags: number;
}

/** Months until a plan is looked at again, and until it lapses. Site defaults. */
export const REVIEW_MONTHS = 6;
export const EXPIRY_MONTHS = 12;

/**
 * Whether a plan may be worked by on a day. An approved edition stays in force while a newer draft is being
 * written; an open flag puts it in question until a supervisor has looked.
 */
export function planStatus(
	standing: PlanStanding,
	asOf: Day
): Verdict<PlanState> & { draftAhead: boolean } {
	const { edition, version, openFlags } = standing;
	const reasons: Reason[] = [];
	const say = (rule: string, text: string) =>
		reasons.push({ rule, text, origin: site('approval') });
	if (!edition) {
		say('plan.draft', 'No supervisor has approved it yet.');
		return { outcome: 'draft', reasons, draftAhead: false };
	}
	const draftAhead = version > edition.version;
	say(
		'plan.edition',
		`Edition ${edition.edition} is approved; review by ${readable(edition.reviewOn)}, lapses after ${readable(edition.expiresOn)}.`
	);
	if (draftAhead)
		say('plan.draft-ahead', 'The working copy was changed since and is not approved.');
	if (openFlags)
		reasons.push({
			rule: 'plan.flag',
			text: `${openFlags} ${openFlags === 1 ? 'report speaks' : 'reports speak'} against it.`,
			origin: commonPractice('an early smell is looked into before the task goes on')
		});
	const outcome: PlanState =
		asOf > edition.expiresOn
			? 'expired'
			: openFlags
				? 'in question'
				: asOf >= edition.reviewOn
					? 'review due'
					: 'in force';
	return { outcome, reasons, draftAhead };
}
