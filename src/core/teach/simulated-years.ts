import { Chance } from '../stats/chance.ts';
import { BATCH_DAYS, type ClusterFacts, type FaultSeen, type Membership } from './cluster.ts';

/** A fleet of masks and a year of it, lived through by chance. */
export interface YearOf {
	seed: number;
	masks: number;
	/** Lots of discs that sit in them, evenly. */
	lots: number;
	/** Wash batches in the year, and how many masks go into one. */
	batches: number;
	inBatch: number;
	/** Faults of one mask in a year. */
	faultsPerMask: number;
	/** The first lot sits in so many masks, and fails so many times as often. */
	badLot?: { masks: number; times: number };
}

const DAY = 86_400_000;
const YEAR = 365 * DAY;

/** A year of masks with lots in them that go through the wash, and the faults that chance and a bad lot make. */
export function simulatedYear({
	seed,
	masks,
	lots,
	batches,
	inBatch,
	faultsPerMask,
	badLot
}: YearOf): ClusterFacts {
	const chance = new Chance(seed);
	const family = 'half-mask';
	const ids = Array.from({ length: masks }, (_, i) => `m${i}`);
	const lotOf = ids.map((_, i) =>
		badLot && i < badLot.masks ? 0 : badLot ? 1 + (i % (lots - 1)) : i % lots
	);
	const memberships: Membership[] = ids.map((itemId, i) => ({
		group: `lot ${lotOf[i]}`,
		itemId,
		family,
		station: 'exhalation',
		from: 0,
		until: YEAR
	}));
	const washed: Membership[] = [];
	for (let b = 0; b < batches; b++) {
		const at = ((b + 0.5) / batches) * YEAR;
		for (let k = 0; k < inBatch; k++) {
			const itemId = chance.pick(ids);
			washed.push({
				group: `batch ${b}`,
				itemId,
				family,
				station: null,
				from: at,
				until: at + BATCH_DAYS * DAY
			});
		}
	}
	const faults: FaultSeen[] = ids.flatMap((itemId, i) => {
		const bad = badLot && lotOf[i] === 0 ? badLot.times : 1;
		const times: FaultSeen[] = [];
		for (let at = wait(); at < YEAR; at += wait())
			times.push({ itemId, family, station: 'exhalation', at });
		return times;
		function wait() {
			return (-Math.log(1 - chance.next()) / (faultsPerMask * bad)) * YEAR;
		}
	});
	return {
		memberships: [...memberships, ...washed],
		fleet: ids.map((itemId) => ({ itemId, family, from: 0, until: YEAR })),
		faults
	};
}
