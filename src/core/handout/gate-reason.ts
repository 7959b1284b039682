import { commonPractice, type Origin, type Reason } from '../verdict.ts';

/** One reason of the gate, with what would put it right. */
export interface GateReason extends Reason {
	/** `stop`: not handed out as it is; `condition`: handed out if this is done. */
	weight: 'stop' | 'condition';
	fix: string;
}

/** A reason for which something is not handed out as it is. */
export const stop = (
	rule: string,
	text: string,
	fix: string,
	origin: Origin = commonPractice(),
	figures: Partial<Reason> = {}
): GateReason => ({ rule: `gate.${rule}`, text, fix, origin, weight: 'stop', ...figures });
