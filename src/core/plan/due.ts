import { commonPractice, type Origin, type Reason } from '../verdict.ts';
import { checkDay, daysBetween, plusDays, plusMonths, readable, type Day } from './calendar.ts';

/** How often something falls due; exactly one of the four. */
export type Interval = { months: number } | { days: number } | { uses: number } | { hours: number };

export interface DueRule {
	every: Interval;
	/** Days (or uses, or hours) before the end at which the thing counts as due. */
	window?: number | undefined;
	name?: string;
	origin?: Origin;
}

export interface DueInput {
	rules: readonly DueRule[];
	/** When it was last done; null: never. */
	last: Day | null;
	usesSince?: number;
	hoursSince?: number;
	asOf: Day;
}

export type DueState = 'ready' | 'due' | 'overdue';

export interface Due {
	/** The last day on which it may still be used, over all calendar rules; null without one. */
	dueOn: Day | null;
	/** First day on which it counts as due. */
	dueFrom: Day | null;
	state: DueState;
	reasons: Reason[];
}

const SEVERITY: Record<DueState, number> = { ready: 0, due: 1, overdue: 2 };

/**
 * What falls due, and whether it still may be used: the earliest of all rules wins.
 *
 * A calendar rule can be met until the end of its last day. A counted rule (uses, hours) is used up once the
 * count is reached. Something never done is overdue.
 * @throws InputError on a date that is none.
 */
export function judgeDue(input: DueInput): Due {
	const asOf = checkDay(input.asOf, 'asOf');
	if (input.last === null)
		return {
			dueOn: null,
			dueFrom: null,
			state: 'overdue',
			reasons: [{ rule: 'due.never', text: 'Never done.', origin: commonPractice() }]
		};
	const last = checkDay(input.last, 'last');
	const judged = input.rules.map((rule) =>
		'months' in rule.every || 'days' in rule.every
			? calendarRule(rule, last, asOf)
			: countedRule(rule, input)
	);
	const dates = judged.flatMap((j) => (j.dueOn ? [j.dueOn] : [])).sort();
	const froms = judged.flatMap((j) => (j.dueFrom ? [j.dueFrom] : [])).sort();
	const worst = judged.reduce<DueState>(
		(state, j) => (SEVERITY[j.state] > SEVERITY[state] ? j.state : state),
		'ready'
	);
	return {
		dueOn: dates[0] ?? null,
		dueFrom: froms[0] ?? null,
		state: worst,
		reasons: judged.map((j) => j.reason)
	};
}

interface Judged {
	dueOn: Day | null;
	dueFrom: Day | null;
	state: DueState;
	reason: Reason;
}

function calendarRule(rule: DueRule, last: Day, asOf: Day): Judged {
	const dueOn =
		'months' in rule.every
			? plusMonths(last, rule.every.months)
			: plusDays(last, 'days' in rule.every ? rule.every.days : 0);
	const dueFrom = plusDays(dueOn, -(rule.window ?? 0));
	const left = daysBetween(asOf, dueOn);
	const state = left < 0 ? 'overdue' : asOf >= dueFrom ? 'due' : 'ready';
	const name = rule.name ?? 'Next time';
	return {
		dueOn,
		dueFrom,
		state,
		reason: {
			rule: 'due.calendar',
			text:
				left < 0
					? `${name}: was due by ${readable(dueOn)}, ${days(-left)} ago.`
					: `${name}: due by ${readable(dueOn)}, ${days(left)} left.`,
			origin: rule.origin ?? commonPractice(),
			value: left,
			unit: 'days',
			margin: left
		}
	};
}

function countedRule(rule: DueRule, input: DueInput): Judged {
	const uses = 'uses' in rule.every;
	const every =
		'uses' in rule.every ? rule.every.uses : 'hours' in rule.every ? rule.every.hours : 0;
	const count = (uses ? input.usesSince : input.hoursSince) ?? 0;
	const left = every - count;
	const unit = uses ? 'uses' : 'h';
	return {
		dueOn: null,
		dueFrom: null,
		state: left <= 0 ? 'overdue' : left <= (rule.window ?? 0) ? 'due' : 'ready',
		reason: {
			rule: uses ? 'due.uses' : 'due.hours',
			text: `${rule.name ?? 'Next time'}: ${count} of ${every} ${unit} used.`,
			origin: rule.origin ?? commonPractice(),
			limit: every,
			value: count,
			unit,
			margin: left
		}
	};
}

const days = (n: number) => (n === 1 ? '1 day' : `${n} days`);
