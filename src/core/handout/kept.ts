import { protectionKind } from '../data/protection-factors.ts';
import type { RuleSet } from '../data/substance.ts';
import type { Day } from '../plan/calendar.ts';
import { commonPractice } from '../verdict.ts';
import {
	type GateItem,
	type GateTask,
	type GateVerdict,
	judgeHandOut,
	judgeReady
} from './gate.ts';
import type { GateWearer } from './gate-wearer.ts';
import { withReasons } from './gate-site.ts';

/** What a device keeps of a counter, to go on without a connection. */
export interface KeptCounter {
	/** When the server gave it, ms. */
	at: number;
	asOf: Day;
	ruleSet: RuleSet;
	people: { id: string; number: string; name: string; lPerMin: number; gate: GateWearer }[];
	items: {
		tag: string;
		family: string;
		model: string;
		size: string;
		place: string;
		/** Free litres above its warning; null: it brings no air. */
		freeL: number | null;
		/** Of whose own it is; null: nobody’s. */
		ownOf: string | null;
		gate: GateItem;
	}[];
	plans: { id: string; number: number; task: string; minutes: number; gate: GateTask }[];
}

/**
 * What the gate says by what a device knew: as the counter asks, but for the hours of filters, which the ledger keeps.
 * What was handed out or came back since is not known: it says so.
 */
export function judgeKept(
	kept: Pick<KeptCounter, 'asOf' | 'ruleSet'>,
	item: KeptCounter['items'][number],
	person: KeptCounter['people'][number],
	plan: KeptCounter['plans'][number]
): GateVerdict {
	const asked: GateItem = {
		...item.gate,
		minutesOfAir: item.freeL === null ? null : item.freeL / person.lPerMin,
		filter: item.gate.filter && { ...item.gate.filter, hoursLeft: Infinity }
	};
	const verdict = protectionKind(item.gate.kind)
		? judgeHandOut(asked, person.gate, plan.gate, kept.ruleSet, kept.asOf)
		: judgeReady(asked, kept.asOf);
	return withReasons(verdict, [
		{
			rule: 'gate.kept',
			text: 'Answered by what this device knew; the hours of the filters and what others handed out since are not.',
			fix: 'Look at the label of the filters. The record asks the gate again when the connection is back.',
			origin: commonPractice(),
			weight: 'condition'
		}
	]);
}
