import { SEAL_HOLD_S, SEAL_WAYS, type DonningCard, type SealWay } from '../data/blocking.ts';
import { recordOf } from '../data/family-records.ts';

/** The card of a model; where its maker says nothing, the usual of its family. There is no order for all. */
export function donningCard(family: string, own: DonningCard | null) {
	const { inlets, straps } = recordOf(family);
	const first = own?.inlet;
	return {
		ofModel: Boolean(own?.straps.length),
		straps: own?.straps.length ? own.straps : straps,
		inlets: first ? [first, ...inlets.filter((inlet) => inlet !== first)] : inlets,
		holdSeconds: own?.holdSeconds ?? SEAL_HOLD_S,
		ways: own?.ways?.length ? own.ways : (Object.keys(SEAL_WAYS) as SealWay[])
	};
}
