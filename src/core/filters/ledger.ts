import { readable, type Day } from '../plan/calendar.ts';
import { commonPractice, computed, InputError, type Reason } from '../verdict.ts';

/** One task that a pair was worn for. */
export interface Wear {
	on: Day;
	minutes: number;
	/** What a fresh pair would last at that task's concentrations; null: no time, by resistance. */
	lifeMin: number | null;
	task: string;
}

export interface LedgerLine extends Wear {
	/** Part of a life that this task took, and all up to it. */
	fraction: number;
	used: number;
}

export interface Ledger {
	lines: LedgerLine[];
	/** Part of a life used up; 1 and above: change. */
	used: number;
	wornMin: number;
	/** Day on which the life was used up. */
	usedUpOn: Day | null;
	lastWornOn: Day | null;
	reasons: Reason[];
}

/** A shift of wear in one entry at most. Site. */
const MOST_MINUTES = 1440;

/**
 * Adds up what tasks take of a pair's life: each its minutes over the life at its own concentrations. Linear
 * damage, as capacity is used in proportion; common practice.
 * @throws InputError at minutes on a wear that is not above zero or longer than a day.
 */
export function wearLedger(wears: readonly Wear[]): Ledger {
	let used = 0;
	let wornMin = 0;
	let usedUpOn: Day | null = null;
	const lines = [...wears]
		.sort((a, b) => a.on.localeCompare(b.on))
		.map((wear): LedgerLine => {
			checkMinutes(wear.minutes);
			const fraction =
				wear.lifeMin === null ? 0 : wear.lifeMin > 0 ? wear.minutes / wear.lifeMin : Infinity;
			used += fraction;
			wornMin += wear.minutes;
			if (used >= 1 && usedUpOn === null) usedUpOn = wear.on;
			return { ...wear, fraction, used };
		});
	return {
		lines,
		used,
		wornMin,
		usedUpOn,
		lastWornOn: lines.at(-1)?.on ?? null,
		reasons: reasonsOf(lines, used, usedUpOn)
	};
}

/** @throws InputError at minutes. */
export function checkMinutes(minutes: number): void {
	if (!(Number.isFinite(minutes) && minutes > 0))
		throw new InputError('minutes', 'Type the minutes of wear, above zero.');
	if (minutes > MOST_MINUTES)
		throw new InputError('minutes', `A day has ${MOST_MINUTES} minutes. Were these hours?`);
}

function reasonsOf(lines: readonly LedgerLine[], used: number, usedUpOn: Day | null): Reason[] {
	if (lines.length === 0) return [];
	return [
		{
			rule: 'ledger.used',
			text: usedUpOn
				? `Its life was used up on ${readable(usedUpOn)}.`
				: `${Math.round(used * 100)} % of its life is used over ${lines.length} ${lines.length === 1 ? 'task' : 'tasks'}.`,
			origin: computed('minutes of each task over the life at its concentrations, added up'),
			inputs: lines.map((line) => ({
				name: `${readable(line.on)}, ${line.task}`,
				value: line.lifeMin === null ? 'by resistance' : Number(line.fraction.toFixed(3)),
				unit: line.lifeMin === null ? '' : `of a life (${Math.round(line.minutes)} min)`
			})),
			limit: 1,
			value: used,
			margin: 1 - used
		}
	];
}

/** Reasons for which a pair goes before its time; each says something about the plan or the filter. */
export const EARLY_REASONS = {
	smell: {
		words: 'smell or taste',
		flags:
			'The wearer smelt it before the predicted time: the concentration, the filter or the estimate is wrong.'
	},
	resistance: { words: 'hard to breathe through', flags: null },
	damage: { words: 'damaged', flags: null },
	wet: { words: 'wet or soiled', flags: null },
	indicator: {
		words: 'the indicator changed',
		flags: 'The indicator changed before the predicted time.'
	},
	date: { words: 'change date', flags: null },
	'other-task': { words: 'other task', flags: null },
	recall: { words: 'lot recalled', flags: null }
} as const;
export type DiscardReason = keyof typeof EARLY_REASONS;
export const DISCARD_REASONS = Object.keys(EARLY_REASONS) as [DiscardReason, ...DiscardReason[]];

/**
 * Whether the reason for which a pair went speaks against its plan: reported before its life was used up.
 * Common practice: smell is a last alarm, and an early one is looked into.
 */
export function earlyFlag(reason: DiscardReason, ledger: Pick<Ledger, 'used'>): Reason | null {
	const { flags } = EARLY_REASONS[reason];
	if (!flags || ledger.used >= 1) return null;
	return {
		rule: `flag.${reason}`,
		text: flags,
		origin: commonPractice('smell is a last alarm, never the schedule'),
		limit: 1,
		value: ledger.used,
		unit: 'of the predicted life'
	};
}
