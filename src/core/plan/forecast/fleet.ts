import { randomBeta, randomBinomial, randomPoisson } from 'd3-random';
import type { Day } from '../calendar.ts';
import { Chance } from '../../stats/chance.ts';

/** What stands of a kind at a place, and what takes it away. */
export interface FleetGroup {
	place: string;
	kind: string;
	/** How many there are with none away. */
	have: number;
	floor: number;
	/** Away by the plan on each day, and what is out already, by when it is expected back. */
	planned: readonly number[];
	/** Looked over on each day: each may fail. */
	looked: readonly number[];
	/** What the record says of failures: how many failed of how many looked over. */
	failures: { failed: number; of: number };
	/** Days that one that failed stays away, on average. */
	repairDays: number;
	/** Used and back dirty in a day, on average, on each day. */
	uses: readonly number[];
	/** Days from use to the shelf, on average. */
	washDays: number;
}

export interface FleetAsked {
	days: readonly Day[];
	groups: readonly FleetGroup[];
	/** How many times the whole fleet is lived through. */
	runs: number;
	seed: number;
	/** Chance to fall under a floor that is put up with. */
	mostChance: number;
}

/** What is ready of a group on a day. */
export interface ReadyDay {
	/** Of twenty fleets one has fewer. */
	low: number;
	middle: number;
	/** Of twenty fleets one has more. */
	high: number;
	/** Chance that fewer than the floor are ready. */
	belowFloor: number;
}

export interface GroupForecast {
	place: string;
	kind: string;
	have: number;
	floor: number;
	days: ReadyDay[];
	/** The day on which the chance is highest; null where it is 0 on all. */
	worst: { day: Day; belowFloor: number } | null;
	/** More that would keep the chance on every day within what is put up with; below 0: so many could be spared. */
	moreNeeded: number;
}

export interface FleetForecast {
	runs: number;
	seed: number;
	groups: GroupForecast[];
}

/** What is known of a rate that was never looked at: a failure in twenty looks, worth four looks. Common practice. */
const PRIOR = { failed: 0.2, good: 3.8 };
const BAND = { low: 0.05, middle: 0.5, high: 0.95 };
/** Up to so many are drawn one by one, which is quicker. */
const FEW = 12;
/** Fleets between two words of how far it is. */
const ROUND = 250;

/**
 * Lives through many fleets day by day: what the plan takes away, what fails when it is looked over (its rate drawn anew
 * for each fleet from what the record says, Beta-binomial, so that few looks make a wide band), what is used and washed.
 * The same seed gives the same figures.
 */
export function* fleets(asked: FleetAsked): Generator<number, FleetForecast> {
	const { days, groups, runs, seed, mostChance } = asked;
	const n = days.length;
	const chance = new Chance(seed);
	const source = () => chance.next();
	const draw = {
		beta: randomBeta.source(source),
		binomial: randomBinomial.source(source),
		poisson: randomPoisson.source(source)
	};
	const failing = (looks: number, rate: number): number => {
		if (looks > FEW) return draw.binomial(looks, rate)();
		let bad = 0;
		for (let i = 0; i < looks; i++) if (chance.next() < rate) bad++;
		return bad;
	};
	const counts = groups.map(({ have }) => new Int32Array(n * (2 * have + 1)));
	const arrivals = groups.map(({ uses }) => {
		const byMean = new Map<number, () => number>();
		return uses.map((mean) => {
			const known = byMean.get(mean) ?? (mean > 0 ? draw.poisson(mean) : () => 0);
			byMean.set(mean, known);
			return known;
		});
	});
	const change = new Int32Array(n + 1);
	for (let run = 0; run < runs; run++) {
		groups.forEach((group, g) => {
			change.fill(0);
			const { failed, of } = group.failures;
			const rate = draw.beta(failed + PRIOR.failed, of - failed + PRIOR.good)();
			const leave = (day: number, meanDays: number) => {
				const whole = Math.floor(meanDays);
				const stay = whole + (chance.next() < meanDays - whole ? 1 : 0);
				change[day] = (change[day] ?? 0) + 1;
				const back = Math.min(n, day + stay);
				change[back] = (change[back] ?? 0) - 1;
			};
			for (let day = 0; day < n; day++) {
				const looks = group.looked[day] ?? 0;
				// What fails is away by the plan on the day itself, and stays.
				for (let bad = failing(looks, rate); bad > 0; bad--)
					if (day + 1 < n) leave(day + 1, group.repairDays);
				for (let used = arrivals[g]?.[day]?.() ?? 0; used > 0; used--) leave(day, group.washDays);
			}
			let away = 0;
			const width = 2 * group.have + 1;
			for (let day = 0; day < n; day++) {
				away += change[day] ?? 0;
				const ready = group.have - (group.planned[day] ?? 0) - away;
				const key = day * width + Math.max(0, Math.min(width - 1, ready + group.have));
				const own = counts[g];
				if (own) own[key] = (own[key] ?? 0) + 1;
			}
		});
		if ((run + 1) % ROUND === 0) yield (run + 1) / runs;
	}
	return {
		runs,
		seed,
		groups: groups.map((group, g) =>
			summary(group, counts[g] ?? new Int32Array(), asked.days, runs, mostChance)
		)
	};
}

/** The same, in one go. */
export function forecastFleet(asked: FleetAsked): FleetForecast {
	const steps = fleets(asked);
	for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}

function summary(
	{ place, kind, have, floor }: FleetGroup,
	counts: Int32Array,
	days: readonly Day[],
	runs: number,
	mostChance: number
): GroupForecast {
	const width = 2 * have + 1;
	let moreNeeded = -have;
	const each = days.map((_, day): ReadyDay => {
		const own = counts.subarray(day * width, (day + 1) * width);
		const quantile = (p: number) => {
			let sum = 0;
			for (let i = 0; i < width; i++) {
				sum += own[i] ?? 0;
				if (sum > p * runs) return i - have;
			}
			return have;
		};
		let below = 0;
		for (let i = 0; i < Math.min(width, floor + have); i++) below += own[i] ?? 0;
		moreNeeded = Math.max(moreNeeded, floor - quantile(mostChance));
		return {
			low: quantile(BAND.low),
			middle: quantile(BAND.middle),
			high: quantile(BAND.high),
			belowFloor: below / runs
		};
	});
	const most = each.reduce((a, b, i) => (b.belowFloor > (each[a]?.belowFloor ?? 0) ? i : a), 0);
	const worst = each[most]?.belowFloor ?? 0;
	return {
		place,
		kind,
		have,
		floor,
		days: each,
		worst: worst > 0 ? { day: days[most] ?? '', belowFloor: worst } : null,
		moreNeeded
	};
}
