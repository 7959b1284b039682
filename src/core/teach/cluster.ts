import { groupBy } from '../group-by.ts';
import { poissonAtLeast } from '../stats/gamma.ts';

/** That an item belonged to a group for a time: had a part of a lot at a station, came out of a wash batch, stood at a place. */
export interface Membership {
	group: string;
	itemId: string;
	family: string;
	/** Only faults there count for the group; null: any of the item's. */
	station: string | null;
	/** Milliseconds; until is left out, Infinity where it still lasts. */
	from: number;
	until: number;
}

/** An item and the time for which it could fail at all. */
export type InFleet = Pick<Membership, 'itemId' | 'family' | 'from' | 'until'>;

export interface FaultSeen {
	itemId: string;
	family: string;
	station: string;
	at: number;
}

export interface ClusterFacts {
	memberships: readonly Membership[];
	fleet: readonly InFleet[];
	faults: readonly FaultSeen[];
}

/** How a group stands against all other items of its family. */
export interface ClusterSigns {
	group: string;
	faults: number;
	/** How many it would have had by its share, were it like the others. */
	expected: number;
	/** Its rate against that of the others; Infinity where they had none. */
	ratio: number;
	/** Chance of so many or more by chance alone, looked at once. Exact Poisson. */
	pValue: number;
	/** Highest that the evidence ever stood: how much likelier a cause of its own made what was seen. */
	evidence: number;
	/** At which of its own faults the alarm first cried; null: it does not. */
	alarmAt: number | null;
}

/**
 * How likely an alarm may cry without any cause, over all groups that were ever watched together: the evidence asked for is their number
 * over this. The trade asks for one year in twenty at most; common practice.
 */
export const FALSE_ALARMS = 0.05;
/** Fewer faults than this never make an alarm. Common practice. */
export const FEWEST_FAULTS = 4;
/** So long after a batch a fault may come of it. Common practice. */
export const BATCH_DAYS = 30;
/** What a group with a cause of its own may be: so many times as bad, each as likely before. Site default. */
const TIMES_WORSE = [3, 6, 12] as const;

/**
 * Whether some group has more faults than chance allows, looked at after every single fault and for every group at once.
 *
 * What is tested every evening cries sooner or later. So the evidence is counted as one would bet: each fault multiplies it by how much
 * likelier it fell where it fell if the group is three, six or twelve times as bad as if it is like all others; the mean of the three.
 * Without a cause it ever goes beyond a bound b with a chance of 1/b at most (Ville 1939; published, from memory), however often one
 * looks, and summed over all groups that stays below FALSE_ALARMS. Beside it stands the exact Poisson chance of one look.
 * @returns a row per group, the strongest evidence first
 */
export function clusterSigns({ memberships, fleet, faults }: ClusterFacts): ClusterSigns[] {
	const groups = groupBy(memberships, ({ group }) => group);
	const needed = Math.max(1, groups.size) / FALSE_ALARMS;
	const all = new Map(
		[...groupBy(fleet, ({ family }) => family)].map(([family, items]) => [
			family,
			new Active(items)
		])
	);
	const seen = groupBy(
		[...faults].sort((a, b) => a.at - b.at),
		({ family }) => family
	);
	return [...groups]
		.map(([group, own]) => signsOf(group, own, all, seen, needed))
		.sort((a, b) => b.evidence - a.evidence || a.group.localeCompare(b.group));
}

function signsOf(
	group: string,
	own: readonly Membership[],
	all: ReadonlyMap<string, Active>,
	seen: ReadonlyMap<string, readonly FaultSeen[]>,
	needed: number
): ClusterSigns {
	const strata = [...groupBy(own, ({ family, station }) => `${family} ${station ?? ''}`).values()];
	/** Every fault of the strata in the order of its time, with the group's share of those that could have had it. */
	const bets = strata
		.flatMap((members) => {
			const [{ family, station } = { family: '', station: null }] = members;
			const active = new Active(members);
			const held = groupBy(members, ({ itemId }) => itemId);
			return (seen.get(family) ?? [])
				.filter((fault) => station === null || fault.station === station)
				.map(({ itemId, at }) => ({
					at,
					share: active.at(at) / Math.max(1, all.get(family)?.at(at) ?? 0),
					own: (held.get(itemId) ?? []).some(({ from, until }) => from <= at && at < until)
				}));
		})
		.filter(({ share }) => share > 0 && share < 1)
		.sort((a, b) => a.at - b.at);
	const logs = TIMES_WORSE.map(() => 0);
	let [evidence, expected, faults] = [1, 0, 0];
	let alarmAt: number | null = null;
	for (const bet of bets) {
		TIMES_WORSE.forEach((times, i) => {
			const weight = (bet.own ? times : 1) / (1 + (times - 1) * bet.share);
			logs[i] = (logs[i] ?? 0) + Math.log(weight);
		});
		expected += bet.share;
		if (bet.own) faults++;
		evidence = Math.max(evidence, meanOfExp(logs));
		if (alarmAt === null && faults >= FEWEST_FAULTS && evidence >= needed) alarmAt = faults;
	}
	const [others, left] = [bets.length - faults, bets.length - expected];
	return {
		group,
		faults,
		expected,
		ratio: expected > 0 && others > 0 ? faults / expected / (others / left) : Infinity,
		pValue: poissonAtLeast(faults, expected),
		evidence,
		alarmAt
	};
}

/** How many of some spans of time last at a moment. */
class Active {
	private readonly starts: number[];
	private readonly ends: number[];

	constructor(spans: readonly Pick<Membership, 'from' | 'until'>[]) {
		this.starts = spans.map(({ from }) => from).sort((a, b) => a - b);
		this.ends = spans.map(({ until }) => until).sort((a, b) => a - b);
	}

	at(moment: number): number {
		return upTo(this.starts, moment) - upTo(this.ends, moment);
	}
}

/** How many of a sorted list are at most this. */
function upTo(sorted: readonly number[], moment: number): number {
	let [low, high] = [0, sorted.length];
	while (low < high) {
		const middle = (low + high) >>> 1;
		if ((sorted[middle] ?? 0) <= moment) low = middle + 1;
		else high = middle;
	}
	return low;
}

const meanOfExp = (logs: readonly number[]): number => {
	const highest = Math.max(...logs);
	return (
		(Math.exp(highest) * logs.reduce((sum, log) => sum + Math.exp(log - highest), 0)) / logs.length
	);
};
