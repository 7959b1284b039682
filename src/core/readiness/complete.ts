import { airwayOf } from '../data/families.ts';
import { recordOf } from '../data/family-records.ts';

/** What is on record as fitted to an item. */
export interface Fitted {
	family: string;
	/** How its model takes filters; `none`: it takes none of its own. */
	mount: string;
	/** Places for filters that its model has. */
	filterPlaces: number;
	/** Filters of the pair that is open on it. */
	filters: number;
	/** It is a part of a set, which brings its own air. */
	inSet: boolean;
	/** Families of what is on it. */
	parts: readonly string[];
}

/**
 * What an item lacks on record, as sentences; empty where it is complete. Ready means complete: a place left empty, a
 * set without its mask or cylinder, is not ready. Common practice.
 */
export function lacksOf(fitted: Fitted): string[] {
	const record = recordOf(fitted.family);
	const lacks: string[] = [];
	const places =
		record.carries && fitted.mount !== 'none' && !fitted.inSet ? fitted.filterPlaces : 0;
	if (places > 0 && fitted.filters === 0)
		lacks.push(
			record.keepsSealed
				? 'No filter in it is on record: fit one from the store on its page.'
				: 'No filters on it are on record: open a pair for it under Filters.'
		);
	else if (places > fitted.filters)
		lacks.push(`A place is empty: ${fitted.filters} of ${places} filters are on record.`);
	for (const family of record.neverWithout)
		if (!fitted.parts.includes(family))
			lacks.push(
				`No ${airwayOf(family).name.toLowerCase()} on it is on record: scan one onto it under Parts.`
			);
	return lacks;
}
