import type { RuleSet } from '../data/substance.ts';
import type { Day } from '../plan/calendar.ts';
import type { Verdict } from '../verdict.ts';
import type { ItemFacts } from './facts.ts';
import {
	findingsOf,
	NEVER,
	summary,
	type DueWhat,
	type Finding,
	type ItemState
} from './findings.ts';
import type { Block } from './block.ts';

/** The part of the state that does not move with the calendar, and the days at which it does. */
export interface StateCache {
	blocked: Block | null;
	dueFrom: Day;
	/** Last day of use. */
	dueOn: Day;
	/** What falls due first. */
	dueWhat: DueWhat;
	/** Which list or job that is; empty where there is one of its kind. */
	dueDetail: string;
	/** How far it is where it goes by what is counted or what happened. */
	dueLeft: string;
	/** Why it is watched though nothing is wrong with it, where it is. */
	watchedFor: string | null;
}

/** Gathers what is known into what can be stored and asked for in bulk. */
export function stateCache(facts: ItemFacts, ruleSet: RuleSet): StateCache {
	return cacheOf(findingsOf(facts, ruleSet, NEVER), facts);
}

/** The same from findings of any day. */
export function cacheOf(findings: readonly Finding[], facts: ItemFacts): StateCache {
	const { blocked, first, from } = summary(findings, NEVER);
	return {
		blocked,
		dueFrom: from,
		dueOn: first.on,
		dueWhat: first.what,
		dueDetail: first.detail ?? '',
		dueLeft: first.left ?? '',
		watchedFor: facts.watched?.[0]?.text ?? null
	};
}

/** The state of an item on a day, with every reason. */
export function judgeItem(facts: ItemFacts, ruleSet: RuleSet, asOf: Day): Verdict<ItemState> {
	return verdictOf(findingsOf(facts, ruleSet, asOf), asOf);
}

/** What findings come to on a day, with every reason that is said. */
export const verdictOf = (findings: readonly Finding[], asOf: Day): Verdict<ItemState> => ({
	outcome: summary(findings, asOf).state,
	reasons: findings.filter((f) => !f.silent).map((f) => f.reason)
});
