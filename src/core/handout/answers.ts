import type { Where } from '../custody/custody.ts';
import type { Contradiction } from '../custody/questions.ts';
import type { ItemState } from '../readiness/findings.ts';
import type { GateOutcome, GateVerdict } from './gate.ts';

/** What was scanned at the counter. */
export type Scanned =
	| {
			kind: 'item';
			tag: string;
			family: string;
			model: string;
			size: string;
			place: string;
			state: ItemState;
			where: Where;
			/** Number of who has it; null: nobody. */
			number: string | null;
	  }
	| { kind: 'wearer'; id: string; number: string; name: string }
	| { kind: 'plan'; id: string; number: number; task: string; minutes: number };

/** What the gate says of one item. */
export interface Judged {
	tag: string;
	family: string;
	model: string;
	size: string;
	place: string;
	verdict: GateVerdict;
	/** What the record says that this scan contradicts. */
	asked: Contradiction[];
}

/** What came of a hand-out: done, or why not yet. */
export type HandedOut =
	| { done: true; outcome: GateOutcome; dueBackAt: string | null; judged: Judged[] }
	| {
			done: false;
			why: 'asked' | 'conditions' | 'refused';
			outcome: GateOutcome;
			judged: Judged[];
	  };
