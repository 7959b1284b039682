import type { Severity } from '../../../core/data/reject-codes.ts';
import type { AgendaKind } from '../../../core/plan/agenda.ts';
import type { ItemState } from '../../../core/readiness/findings.ts';

/** One line of the shift sheet. */
export interface AgendaLine {
	/** Different on every line. */
	key: string;
	kind: AgendaKind;
	tag: string;
	state: ItemState;
	severity?: Severity;
	belowFloor?: boolean;
	on: string;
	/** Day of the plan in force. */
	planned?: string;
	title: string;
	detail: string;
	href: string;
	minutes: number;
}
