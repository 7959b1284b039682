import { commonPractice, type Origin, type Reason } from '../verdict.ts';
import { checkDay, daysBetween, plusDays, plusMonths, readable, type Day } from './calendar.ts';
import { EVENT_WORDS, type EventWhat, type Since } from './events.ts';

/** How often something falls due; exactly one of them. */
export type Interval =
	| { months: number }
	| { days: number }
	| { uses: number }
	| { hours: number }
	| { cycles: number }
	| { after: EventWhat };

export interface DueRule {
	every: Interval;
	/** Days (or uses, hours, cycles) before the end at which the thing counts as due. */
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
	cyclesSince?: number;
	/** Day of the last event of each kind since then. */
	happened?: Since['happened'];
	asOf: Day;
}

export type DueState = 'ready' | 'due' | 'overdue';

export interface Due {
	/** The last day on which it may still be used, over all calendar rules; null without one. */
	dueOn: Day | null;
	/** First day on which it counts as due. */
	dueFrom: Day | null;
	state: DueState;
	/** Of the rules that count or follow an event the one that is worst: how far it is, in words; null without one. */
	counted: { state: DueState; words: string } | null;
	reasons: Reason[];
}

const SEVERITY: Record<DueState, number> = { ready: 0, due: 1, overdue: 2 };

/**
 * What falls due, and whether it still may be used: the earliest of all rules wins.
 *
 * A calendar rule can be met until the end of its last day. A counted rule (uses, hours, cycles) is used up once the
 * count is reached; a rule that follows an event, once that happened. Something never done is overdue.
 * @throws InputError on a date that is none.
 */
export function judgeDue(input: DueInput): Due {
	const asOf = checkDay(input.asOf, 'asOf');
	const never = input.last === null;
	const onlyEvents = input.rules.length > 0 && input.rules.every(({ every }) => 'after' in every);
	if (never && !onlyEvents)
		return {
			dueOn: null,
			dueFrom: null,
			state: 'overdue',
			counted: null,
			reasons: [{ rule: 'due.never', text: 'Never done.', origin: commonPractice() }]
		};
	// What only follows events has no day to count from.
	const last = never ? asOf : checkDay(input.last ?? '', 'last');
	const judged = input.rules.map((rule) => {
		const { every } = rule;
		if ('months' in every || 'days' in every) return calendarRule(rule, last, asOf);
		return 'after' in every ? eventRule(rule, every.after, input) : countedRule(rule, input);
	});
	// What waits for an event that did not happen has nothing to say beside the others.
	const speaking = judged.filter(({ waits }) => !waits);
	const dates = judged.flatMap((j) => (j.dueOn ? [j.dueOn] : [])).sort();
	const froms = judged.flatMap((j) => (j.dueFrom ? [j.dueFrom] : [])).sort();
	const worst = judged.reduce<DueState>(
		(state, j) => (SEVERITY[j.state] > SEVERITY[state] ? j.state : state),
		'ready'
	);
	const counted = judged
		.flatMap(({ counted: one }) => one ?? [])
		.sort((a, b) => SEVERITY[b.state] - SEVERITY[a.state]);
	return {
		dueOn: dates[0] ?? null,
		dueFrom: froms[0] ?? null,
		state: worst,
		counted: counted[0] ?? null,
		reasons: (speaking.length ? speaking : judged).map((j) => j.reason)
	};
}

interface Judged {
	dueOn: Day | null;
	dueFrom: Day | null;
	state: DueState;
	counted?: Due['counted'];
	/** It waits for an event that did not happen. */
	waits?: boolean;
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

/** What a counted rule counts, by the unit of its interval. */
const COUNTS = {
	uses: { rule: 'due.uses', unit: 'uses', of: (input: DueInput) => input.usesSince },
	hours: { rule: 'due.hours', unit: 'h', of: (input: DueInput) => input.hoursSince },
	cycles: { rule: 'due.cycles', unit: 'fillings', of: (input: DueInput) => input.cyclesSince }
} as const;

/** The unit and size of a counted interval; null for one by the calendar or after an event. */
export function countedBy(every: Interval): { by: keyof typeof COUNTS; n: number } | null {
	if ('uses' in every) return { by: 'uses', n: every.uses };
	if ('hours' in every) return { by: 'hours', n: every.hours };
	return 'cycles' in every ? { by: 'cycles', n: every.cycles } : null;
}

function countedRule(rule: DueRule, input: DueInput): Judged {
	const { by, n } = countedBy(rule.every) ?? { by: 'hours', n: 0 };
	const { unit, of, rule: id } = COUNTS[by];
	const count = of(input) ?? 0;
	const left = n - count;
	const state = left <= 0 ? 'overdue' : left <= (rule.window ?? 0) ? 'due' : 'ready';
	const words = (some: number) => {
		const shown = Number(some.toFixed(1));
		return `${shown} ${shown === 1 ? unit.replace(/s$/, '') : unit}`;
	};
	return {
		dueOn: null,
		dueFrom: null,
		state,
		counted: { state, words: left <= 0 ? `${words(count)} since` : `${words(left)} left` },
		reason: {
			rule: id,
			text: `${rule.name ?? 'Next time'}: ${Number(count.toFixed(1))} of ${n} ${unit} used.`,
			origin: rule.origin ?? commonPractice(),
			limit: n,
			value: count,
			unit,
			margin: left
		}
	};
}

function eventRule(rule: DueRule, after: EventWhat, { happened }: DueInput): Judged {
	const on = happened?.[after];
	const words = EVENT_WORDS[after];
	const state = on ? 'overdue' : 'ready';
	return {
		dueOn: null,
		dueFrom: null,
		state,
		waits: !on,
		counted: { state, words: on ? `${words.happened} ${readable(on)}` : words.after },
		reason: {
			rule: 'due.event',
			text: on
				? `${rule.name ?? 'Next time'} ${words.after}: ${words.happened} on ${readable(on)}, not done since.`
				: `${rule.name ?? 'Next time'} ${words.after}: nothing since.`,
			origin: rule.origin ?? commonPractice()
		}
	};
}

const days = (n: number) => (n === 1 ? '1 day' : `${n} days`);
