import { type Card, createEmptyCard, fsrs, generatorParameters, Rating } from 'ts-fsrs';

/** How somebody met a kind of fault. */
export type Met = 'missed' | 'wrong code' | 'found';

/** What is remembered of a kind of fault by a person, as it is kept. */
export interface Memory {
	due: string;
	stability: number;
	difficulty: number;
	reps: number;
	lapses: number;
	state: number;
	lastReview: string | null;
}

/** Without chance in it, so that the same answers always give the same day; without steps of minutes: drills are days apart. */
const scheduler = fsrs(generatorParameters({ enable_fuzz: false, enable_short_term: false }));
const RATINGS = { missed: Rating.Again, 'wrong code': Rating.Hard, found: Rating.Good } as const;

/**
 * When a kind of fault should be met again. Published: FSRS (Ye et al., KDD 2022) by its package; a kind is due when the
 * chance to remember it has fallen to 90 %.
 * @param before null where it was never met
 */
export function meetAgain(before: Memory | null, met: Met, at: Date): Memory {
	const card: Card = before
		? {
				due: new Date(before.due),
				stability: before.stability,
				difficulty: before.difficulty,
				elapsed_days: 0,
				scheduled_days: 0,
				learning_steps: 0,
				reps: before.reps,
				lapses: before.lapses,
				state: before.state,
				...(before.lastReview ? { last_review: new Date(before.lastReview) } : {})
			}
		: createEmptyCard(at);
	const next = scheduler.next(card, at, RATINGS[met]).card;
	return {
		due: next.due.toISOString(),
		stability: next.stability,
		difficulty: next.difficulty,
		reps: next.reps,
		lapses: next.lapses,
		state: next.state,
		lastReview: at.toISOString()
	};
}

/** The chance that a kind of fault is still remembered. */
export const remembered = (memory: Memory, at: Date): number => {
	const days = Math.max(
		0,
		(at.getTime() - new Date(memory.lastReview ?? memory.due).getTime()) / 86_400_000
	);
	return scheduler.forgetting_curve(days, memory.stability);
};
