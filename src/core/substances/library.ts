import { libraryOf, SHIPPED, type SubstanceLibrary } from '../data/substances.ts';
import type { Substance } from '../data/substance.ts';

/** What a site says of a substance: all of its own one, or only the corrected fields of a shipped one. */
export interface SiteSubstance {
	key: string;
	own: boolean;
	record: Partial<Substance>;
}

/** A shipped substance with the site's corrections, or the site's own one; undefined where neither is there. */
export function merged(
	key: string,
	change: SiteSubstance | undefined,
	shipped: SubstanceLibrary = SHIPPED
): Substance | undefined {
	if (change?.own) return change.record as Substance;
	const base = shipped.all.find((s) => s.key === key);
	if (!base || !change) return base;
	const { record } = change;
	return {
		...base,
		...record,
		limits: { ...base.limits, ...record.limits },
		origins: { ...base.origins, ...record.origins }
	};
}

/** The library that a site works with: the shipped one with its corrections and its own substances. */
export function siteLibrary(
	changes: readonly SiteSubstance[],
	shipped: SubstanceLibrary = SHIPPED
): SubstanceLibrary {
	if (changes.length === 0) return shipped;
	const byKey = new Map(changes.map((change) => [change.key, change]));
	const corrected = shipped.all.map((s) => merged(s.key, byKey.get(s.key), shipped) ?? s);
	const own = changes.filter((change) => change.own).map((change) => change.record as Substance);
	return libraryOf([...corrected, ...own]);
}
