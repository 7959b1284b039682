import { rejectCode } from '../data/reject-codes.ts';
import type { DiscardReason } from '../filters/ledger.ts';

/** What a wearer noticed in use. */
export const NOTICED = ['smell', 'resistance', 'leak', 'alarm', 'discomfort', 'damage'] as const;
export type Noticed = (typeof NOTICED)[number];

export const NOTICED_WORDS: Readonly<Record<Noticed, string>> = {
	smell: 'Smell or taste',
	resistance: 'Hard to breathe',
	leak: 'Leak at the face',
	alarm: 'Alarm or whistle',
	discomfort: 'Hurt or slipped',
	damage: 'Torn or broken'
};

/** A fault as it is written down. */
export interface Fault {
	station: string;
	code: string;
}

/** Where something that was noticed leads. */
export type Lead =
	| { to: 'early change'; reason: DiscardReason }
	| { to: 'plan' }
	| { to: 'fault'; fault: Fault }
	| { to: 'next hand-out' };

/** What a leak and an alarm are written down as, by family. Common practice. */
const LEAK: Readonly<Record<string, Fault>> = {
	'half-mask': { station: 'facepiece', code: 'SEALF' },
	'full-face': { station: 'facepiece', code: 'SEALF' },
	'canister-mask': { station: 'facepiece', code: 'SEALF' },
	'powered-blower': { station: 'hood', code: 'TEAR' },
	'ba-set': { station: 'mask', code: 'SEALF' },
	airline: { station: 'facepiece', code: 'FREE' },
	'gas-tight-suit': { station: 'faceseal', code: 'HOLE' },
	'ventilated-suit': { station: 'body', code: 'HOLE' },
	'escape-set': { station: 'hood', code: 'TEAR' },
	cylinder: { station: 'valve', code: 'LEAK' }
};
const ALARM: Readonly<Record<string, Fault>> = {
	'powered-blower': { station: 'blower', code: 'FLOW' },
	'ba-set': { station: 'whistle', code: 'WHH' },
	airline: { station: 'regulator', code: 'BAND' },
	'ventilated-suit': { station: 'pass', code: 'FLOW' },
	cylinder: { station: 'gauge', code: 'GAUGE' }
};
/** Hard to breathe with nothing on it that clogs. */
const HARD: Readonly<Record<string, Fault>> = { 'ba-set': { station: 'demand', code: 'DEMD' } };
/** What is broken where nobody says more. */
const DAMAGE: Readonly<Record<string, Fault>> = {
	...LEAK,
	'half-mask': { station: 'facepiece', code: 'TEAR' },
	'full-face': { station: 'facepiece', code: 'TEAR' },
	'canister-mask': { station: 'facepiece', code: 'TEAR' },
	'ba-set': { station: 'harness', code: 'CUT' },
	airline: { station: 'hose', code: 'CUT' },
	cylinder: { station: 'body', code: 'DENTC' }
};
/** Of a family that none of these names. */
const UNNAMED: Fault = { station: 'label', code: 'MISS' };

/**
 * Where what was noticed leads: each at least to one thing that somebody does.
 * @param fitted whether filters that are open hang on it
 * @param planned whether it was worn for a plan
 * @param damage what is broken and where, if it was said
 */
export function leadsOf(
	noticed: Noticed,
	{ family, fitted, planned }: { family: string; fitted: boolean; planned: boolean },
	damage?: Fault
): Lead[] {
	const fault = (one: Fault): Lead => ({ to: 'fault', fault: one });
	switch (noticed) {
		case 'smell':
			return [
				...(fitted ? [{ to: 'early change', reason: 'smell' } as const] : []),
				...(planned ? [{ to: 'plan' } as const] : []),
				// Smelt through a set that filters nothing: it came in at the edge.
				...(fitted ? [] : [fault(LEAK[family] ?? UNNAMED)])
			];
		case 'resistance':
			return fitted
				? [{ to: 'early change', reason: 'resistance' }]
				: [fault(HARD[family] ?? ALARM[family] ?? LEAK[family] ?? UNNAMED)];
		case 'leak':
			return [fault(LEAK[family] ?? UNNAMED)];
		case 'alarm':
			return [fault(ALARM[family] ?? LEAK[family] ?? UNNAMED)];
		case 'discomfort':
			return [{ to: 'next hand-out' }];
		case 'damage':
			return [fault(damage ?? DAMAGE[family] ?? UNNAMED)];
	}
}

/** What a lead says to whoever scans. */
export function leadWords(lead: Lead): string {
	if (lead.to === 'fault') return `Fault written down: ${rejectCode(lead.fault.code).name}.`;
	if (lead.to === 'early change') return 'Its filters go now: taken out of use.';
	if (lead.to === 'plan') return 'The plan is in question until a supervisor has looked.';
	return 'Asked again when the same is handed out to them.';
}
