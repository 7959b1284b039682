import type { Day } from '../calendar.ts';

/**
 * A levelling problem: which day, and whose, each job is done on. Days and workers are counted by their place in the
 * lists; minutes are whole or not, as they come.
 */
export interface LevelProblem {
	/** Days of the plan in order, each once. */
	days: readonly Day[];
	/** Who works, and how many minutes on each of the days. */
	workers: readonly LevelWorker[];
	jobs: readonly LevelJob[];
	floors: readonly LevelFloor[];
	/** Minutes that going to a place costs, once per place, person and day. */
	visitMin: number;
}

export interface LevelWorker {
	id: string;
	/** Capacity of each day, minutes. */
	minutes: readonly number[];
}

export interface LevelJob {
	id: string;
	minutes: number;
	/** First and last day of its window; a window that holds no day has its first after its last. */
	from: number;
	to: number;
	/** Its window was gone before the plan begins: it goes in first, as early as there is room. */
	late: boolean;
	place: string | null;
	/** What it keeps from being ready, with its place; null: nothing that has a floor. */
	kind: string | null;
	/** Days that the item is away, 1: that day only, 0: it never is. */
	awayDays: number;
	/** The item, so that two jobs on it on one day take it away once; null: the job is its own. */
	item: string | null;
	/** Who may do it, as places in the list of workers; null: everybody. */
	workers: readonly number[] | null;
	/** Where somebody put it; it is not moved. */
	pinned: Slot | null;
	/** Where it stood in the plan before. */
	was: Slot | null;
}

/** A day of a worker. */
export interface Slot {
	day: number;
	worker: number;
}

/** How many of a kind a place has if none is away, and how many must be ready on every day. */
export interface LevelFloor {
	place: string;
	kind: string;
	ready: number;
	floor: number;
	/** Days on which fewer are there than `ready`, such as those that are out; missing: on none. */
	missing?: readonly number[];
}

export const groupKey = (place: string, kind: string): string => `${place}\n${kind}`;

/** Rounding of sums of minutes. */
export const ROUNDING = 1e-7;
