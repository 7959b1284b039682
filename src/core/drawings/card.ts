import type { Inlet } from '../data/blocking.ts';
import { recordOf } from '../data/family-records.ts';
import { protectionKind } from '../data/protection-factors.ts';
import { type Done, HANDS } from './hands.ts';
import type { Mark } from './mark.ts';
import { strapMarks, strapOrder, strapWords } from './straps.ts';
import { WORN, type WornKey } from './worn.ts';

/** One drawing of a card, and the same done wrongly where that is how it goes wrong. */
export interface CardPicture {
	says: string;
	marks: Mark[];
	wrong: { says: string; marks: Mark[] } | null;
}

const both = ({ right, wrong, draw }: Done): CardPicture => ({
	says: right,
	marks: draw(true),
	wrong: { says: wrong, marks: draw(false) }
});
const worn = (key: WornKey) => both(WORN[key]);
/** Where the hands are, rightly and wrongly. */
export const handsOf = (inlet: Inlet | 'out') => both(HANDS[inlet]);
/** Everything that is drawn of wearing. */
export const wearing = (): CardPicture[] =>
	[...Object.values(HANDS), ...Object.values(WORN)].map(both);

/** The drawing of what a question asks about; null where it has none. */
export const pictureOf = ({ hands, worn: key }: { hands?: Inlet | 'out'; worn?: WornKey }) =>
	hands ? handsOf(hands) : key ? worn(key) : null;

/** What is looked at before one goes in with a kind of protection, as drawings, in the order in which it is done. */
export function cardPictures(key: string): CardPicture[] {
	const kind = protectionKind(key);
	if (!kind) return [];
	const { inlets, straps } = recordOf(key);
	const order = strapOrder(straps);
	const inlet = inlets[0];
	return [
		...((kind.filters ?? 1) > 1 ? [worn('two-kinds')] : []),
		...(kind.tightFitting ? [worn('stubble')] : []),
		...(kind.catches === 'particles' ? [worn('upside-down'), worn('one-strap')] : []),
		...(order.length ? [{ says: strapWords(order), marks: strapMarks(order), wrong: null }] : []),
		...(inlet ? [handsOf(inlet)] : [])
	];
}
