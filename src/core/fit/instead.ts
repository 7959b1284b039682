import { servedBy } from '../data/family-records.ts';
import { protectionKind } from '../data/protection-factors.ts';

/** Items that stand ready, alike in model and size, at one place. */
export interface ReadyGroup {
	family: string;
	model: string;
	size: string;
	place: string;
	count: number;
	/** The first of them. */
	tag: string;
}

/** The mask that did not seal. */
export type Leaking = Pick<ReadyGroup, 'family' | 'model' | 'size' | 'place'>;

/** More would be a list to read through, not a mask to fetch. */
const MOST = 6;

/**
 * What could be worn in place of a mask that did not seal on a face: another size of it, another model, or a kind that
 * needs no seal; the nearest first. Common practice.
 * @param permitted kinds that the plan permits; null where no plan is known: then the same family and loose-fitting kinds
 */
export function insteadOf(
	leaking: Leaking,
	ready: readonly ReadyGroup[],
	permitted: readonly string[] | null
): ReadyGroup[] {
	const serves = ({ family }: ReadyGroup): boolean => {
		const kind = servedBy(family);
		if (kind === null) return false;
		if (permitted) return permitted.includes(kind);
		return family === leaking.family || protectionKind(kind)?.tightFitting === false;
	};
	const other = (one: ReadyGroup) => one.model !== leaking.model || one.size !== leaking.size;
	const rank = (one: ReadyGroup) =>
		(one.place === leaking.place ? 0 : 4) +
		(one.family !== leaking.family ? 2 : one.model !== leaking.model ? 1 : 0);
	return ready
		.filter((one) => serves(one) && other(one))
		.sort((a, b) => rank(a) - rank(b) || a.tag.localeCompare(b.tag))
		.slice(0, MOST);
}
