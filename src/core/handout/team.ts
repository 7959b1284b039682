import { commonPractice, type Reason } from '../verdict.ts';
import { cheapestMost } from './assign.ts';
import type { GateReason } from './gate-reason.ts';

/** Something that is ready, with what the gate says of it for each of a team. */
export interface TeamSet {
	tag: string;
	/** How much it burdens whoever wears it, 1 to 8. */
	burden: number;
	/** Minutes of air more than are planned, the least of the team; of what brings none, 0. */
	surplusMin: number;
	/** The stock that it comes from, where its place keeps a floor. */
	stock: string | null;
	/** By wearer: what stops it; empty: it may be given to them. */
	stops: ReadonlyMap<string, readonly GateReason[]>;
	/** Whose own it is; null: nobody’s. */
	ownOf: string | null;
}

export interface TeamOut {
	/** Tag by wearer. */
	assignment: Map<string, string>;
	unserved: { wearer: string; reason: string }[];
	reasons: Reason[];
}

/** What outweighs what: a floor, then whose own it is, then burden, then what few could wear, then air. */
const BELOW_FLOOR = 1e8;
const NOT_OWN = 1e6;
const BURDEN = 50_000;
const SCARCE = 1000;
/** Changes that are tried, the most promising first. */
const MOST_TRIED = 24;

/** Who of a team gets what, by what the gate says: as many as can be served, no floor broken that need not be. */
export function kitOutByGate(
	wearers: readonly string[],
	sets: readonly TeamSet[],
	spare: ReadonlyMap<string, number>
): TeamOut {
	const costs = wearers.map((wearer) =>
		sets.map((set) => {
			if (set.stops.get(wearer)?.length !== 0) return null;
			const takers = wearers.filter((one) => set.stops.get(one)?.length === 0).length;
			return (
				(set.ownOf === wearer ? 0 : NOT_OWN) +
				set.burden * BURDEN +
				takers * SCARCE +
				Math.min(SCARCE - 1, Math.max(0, set.surplusMin))
			);
		})
	);
	const stocks = sets.map(({ stock }) => stock);
	const given = cheapestMost({ costs, stocks, spare, belowFloor: BELOW_FLOOR });
	const assignment = new Map<string, string>();
	wearers.forEach((wearer, w) => {
		const set = sets[given[w] ?? -1];
		if (set) assignment.set(wearer, set.tag);
	});
	const without = wearers.filter((wearer) => !assignment.has(wearer));
	const unserved = without.map((wearer) => ({ wearer, reason: whyNot(wearer, sets) }));
	const reasons: Reason[] = [
		{
			rule: 'kit-out.served',
			text: without.length
				? `${assignment.size} of ${wearers.length} can be served, and no way serves more.`
				: `All ${wearers.length} are served.`,
			origin: commonPractice('maximum matching at least cost'),
			limit: wearers.length,
			value: assignment.size,
			margin: assignment.size - wearers.length
		},
		...floorsBroken(given, stocks, spare)
	];
	const help = without.length ? bestChange(wearers, sets, assignment.size) : null;
	if (help) reasons.push(help);
	return { assignment, unserved, reasons };
}

/** Places that fall below their floor, because nobody more could be served otherwise. */
function floorsBroken(
	given: readonly number[],
	stocks: readonly (string | null)[],
	spare: ReadonlyMap<string, number>
): Reason[] {
	const taken = new Map<string, number>();
	for (const s of given) {
		const stock = stocks[s] ?? null;
		if (stock !== null) taken.set(stock, (taken.get(stock) ?? 0) + 1);
	}
	return [...taken].flatMap(([stock, n]): Reason[] => {
		const left = spare.get(stock);
		if (left === undefined || n <= left) return [];
		return [
			{
				rule: 'kit-out.floor',
				text: `${stock} falls ${n - Math.max(0, left)} below its floor: no other way serves as many.`,
				origin: commonPractice('floors are kept where that serves as many'),
				limit: Math.max(0, left),
				value: n,
				margin: Math.max(0, left) - n
			}
		];
	});
}

/** The least that stops somebody, of everything that is ready. */
function whyNot(wearer: string, sets: readonly TeamSet[]): string {
	if (sets.length === 0) return 'Nothing that the plan permits is ready there.';
	if (sets.some((set) => set.stops.get(wearer)?.length === 0))
		return 'Everything that fits goes to others who have nothing else.';
	const least = sets
		.map((set) => ({ tag: set.tag, stops: set.stops.get(wearer) ?? [] }))
		.toSorted((a, b) => a.stops.length - b.stops.length || a.tag.localeCompare(b.tag))[0];
	const [first] = least?.stops ?? [];
	return first ? `${first.text} ${first.fix}` : 'Nothing fits.';
}

/** One thing that could be put right: of a person or of a set. */
interface Change {
	text: string;
	opens: [wearer: string, tag: string][];
}

/** The one change that would serve the most: everything that alone stops somebody from wearing something is tried. */
function bestChange(
	wearers: readonly string[],
	sets: readonly TeamSet[],
	now: number
): Reason | null {
	const changes = new Map<string, Change>();
	for (const set of sets)
		for (const wearer of wearers) {
			const stops = set.stops.get(wearer) ?? [];
			const [only] = stops;
			if (!only || stops.length > 1) continue;
			const key = `${only.rule} ${only.text}`;
			const whose = only.rule.startsWith('gate.state') || only.rule.startsWith('gate.air');
			const about = whose ? set.tag : wearer;
			const change = changes.get(`${about} ${key}`) ?? {
				text: `${only.text} ${only.fix}`,
				opens: []
			};
			change.opens.push([wearer, set.tag]);
			changes.set(`${about} ${key}`, change);
		}
	let best: { change: Change; served: number; about: string } | null = null;
	const promising = [...changes]
		.toSorted(([, a], [, b]) => b.opens.length - a.opens.length)
		.slice(0, MOST_TRIED);
	for (const [about, change] of promising) {
		const open = new Set(change.opens.map(([wearer, tag]) => `${wearer} ${tag}`));
		const served = cheapestMost({
			costs: wearers.map((wearer) =>
				sets.map((set) =>
					set.stops.get(wearer)?.length === 0 || open.has(`${wearer} ${set.tag}`) ? 0 : null
				)
			)
		}).filter((s) => s >= 0).length;
		if (served > now && (best === null || served > best.served))
			best = { change, served, about: about.split(' ')[0] ?? '' };
	}
	if (!best)
		return {
			rule: 'kit-out.no-help',
			text: 'No single change serves more: more than one thing is in the way of each.',
			origin: commonPractice()
		};
	return {
		rule: 'kit-out.help',
		text: `What helps most, ${best.served - now} more served: ${best.about}. ${best.change.text}`,
		origin: commonPractice(),
		value: best.served
	};
}
