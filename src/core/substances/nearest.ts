import Fuse from 'fuse.js';
import type { Substance } from '../data/substance.ts';
import { SHIPPED, type SubstanceLibrary } from '../data/substances.ts';

/** How far a word may lie from what was typed, 0 (the same) to 1 (anything). Site: Grevan's choice. */
const SPELLED_LIKE = 0.4;

const indexes = new WeakMap<SubstanceLibrary, Fuse<Substance>>();

function indexOf(library: SubstanceLibrary): Fuse<Substance> {
	const held = indexes.get(library);
	if (held) return held;
	const made = new Fuse([...library.all], {
		keys: [
			{ name: 'name', weight: 2 },
			{ name: 'synonyms', weight: 2 },
			{ name: 'cas', weight: 1 }
		],
		threshold: SPELLED_LIKE,
		ignoreLocation: true,
		ignoreDiacritics: true,
		minMatchCharLength: 2
	});
	indexes.set(library, made);
	return made;
}

/**
 * Substances whose name or synonym is spelled most like a word, nearest first: for what was typed and is not there.
 * A word of several parts is tried part by part where nothing holds all of it.
 */
export function nearest(word: string, most = 5, library: SubstanceLibrary = SHIPPED): Substance[] {
	const text = word.trim().slice(0, 60);
	if (text.length < 2) return [];
	const index = indexOf(library);
	const whole = index.search(text, { limit: most }).map(({ item }) => item);
	if (whole.length > 0) return whole;
	const parts = text.split(/[\s,;/-]+/).filter((part) => part.length > 2);
	const found = parts.flatMap((part) => index.search(part, { limit: most }));
	const byScore = found.toSorted((a, b) => (a.score ?? 1) - (b.score ?? 1)).map(({ item }) => item);
	return [...new Set(byScore)].slice(0, most);
}

/** “Did you mean …?” for a word that is not in the library; empty where nothing is near. */
export function didYouMean(word: string, library: SubstanceLibrary = SHIPPED): string {
	const names = nearest(word, 3, library).map(({ name }) => `“${name}”`);
	return names.length ? ` Nearest: ${names.join(', ')}.` : '';
}
