import type { Where } from './custody.ts';
import type { Contradiction } from './questions.ts';

/** Where something went that came off a set with it, or the thing itself. */
export interface Went {
	tag: string;
	family: string;
	where: Where;
	does: string;
}

/** What came of a return: done, or in what it contradicts the record. */
export type Returned =
	| { done: false; tag: string; asked: Contradiction[] }
	| {
			done: true;
			tag: string;
			family: string;
			number: string | null;
			task: string | null;
			went: Went[];
			leads: string[];
			contaminatedWith: string[];
			/** Nothing on it goes through the skin. */
			bareHands: boolean;
			minutes: number | null;
	  };

/** Where a scan may put something by itself; the other places are entered by what is done there. */
export const BROUGHT_TO = [
	'shelf',
	'returned',
	'bench',
	'filling',
	'service',
	'test house',
	'quarantine'
] as const satisfies Where[];
export type BroughtTo = (typeof BROUGHT_TO)[number];

/** What came of putting something away: done, or what is asked first. */
export type Brought =
	| { done: true; tag: string; to: Where; place: string | null; carrying: string }
	| { done: false; tag: string; asked: string[] };

/** What came of looking something over after cleaning. */
export interface LookedOver {
	tag: string;
	next: Where;
	/** What the item is now, with why. */
	state: string;
	why: string;
	/** Its filters: which, or that there are none. */
	filters: string;
}
