import { published, type Reason } from '../verdict.ts';
import type { HazardOutcome } from './decision.ts';
import type { Contaminant } from './facts.ts';

/** What one rung found: nothing, a note, or the end of the ladder. */
export interface Finding {
	outcome?: HazardOutcome;
	text: string;
	reasons: Reason[];
	/** Says something that the reader must see although the ladder goes on. */
	notes?: boolean;
}

/** An unknown counts as immediate danger. */
export const ladderOrigin = published(
	'29 CFR 1910.134(d)(1)(iii), unknown is treated as immediate danger'
);

/** Own air, and why. */
export const self = (text: string, reasons: Reason[]): Finding => ({
	outcome: 'self-contained',
	text,
	reasons
});

/** Contaminants in a sentence. */
export const names = (list: readonly Contaminant[]) => list.map((c) => c.name).join(', ');
