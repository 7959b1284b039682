import { commonPractice, InputError, type Reason } from '../verdict.ts';
import { cheapestMost } from './assign.ts';

/** Somebody who is to go. */
export interface KitWearer {
	id: string;
	/** Models and sizes that they may wear by a fit test that counts. */
	fits: readonly { model: string; size: string }[];
}

/** Something that may be worn. */
export interface KitSet {
	tag: string;
	model: string;
	size: string;
	/** Minutes of air in it; left out: it brings none. */
	minutesOfAir?: number | undefined;
	/** Whose own it is. */
	personalOf?: string | undefined;
}

export interface KitOut {
	/** Tag by wearer. */
	assignment: Record<string, string>;
	unserved: { wearer: string; reason: string }[];
	reasons: Reason[];
}

/** A set that is not one's own costs more than any surplus of air, so that one's own comes first. */
const NOT_OWN = 1_000_000;
/** Surplus of what many others could wear costs less than of what few could. */
const SCARCE = 1000;

const key = ({ model, size }: { model: string; size: string }): string =>
	`${model.trim().toLowerCase()}\n${size.trim().toLowerCase()}`;

/** Whether somebody may wear a set for so many minutes. */
const wears = (wearer: KitWearer, set: KitSet, minutes: number | undefined): boolean =>
	(set.personalOf === undefined || set.personalOf === wearer.id) &&
	(minutes === undefined || set.minutesOfAir === undefined || set.minutesOfAir >= minutes) &&
	wearer.fits.some((fit) => key(fit) === key(set));

/** Sets that one wearer can have at all, and what each costs the others. */
function costsOf(
	wearers: readonly KitWearer[],
	sets: readonly KitSet[],
	minutes: number | undefined
): (number | null)[][] {
	const takers = sets.map((set) => wearers.filter((one) => wears(one, set, minutes)).length);
	return wearers.map((wearer) =>
		sets.map((set, s) => {
			if (!wears(wearer, set, minutes)) return null;
			const own = set.personalOf === wearer.id ? 0 : NOT_OWN;
			const surplus = set.minutesOfAir === undefined ? 0 : set.minutesOfAir - (minutes ?? 0);
			return own + (takers[s] ?? 0) * SCARCE + Math.min(SCARCE - 1, Math.max(0, surplus));
		})
	);
}

/** How many can be served at all. */
const served = (
	wearers: readonly KitWearer[],
	sets: readonly KitSet[],
	minutes: number | undefined
): number =>
	cheapestMost({
		costs: wearers.map((wearer) => sets.map((set) => (wears(wearer, set, minutes) ? 0 : null)))
	}).filter((s) => s >= 0).length;

function check(wearers: readonly KitWearer[], sets: readonly KitSet[]): void {
	const twice = (list: readonly string[]) => list.findIndex((one, i) => list.indexOf(one) !== i);
	const w = twice(wearers.map(({ id }) => id));
	if (w >= 0) throw new InputError(`wearers[${w}].id`, 'This wearer stands there twice.');
	const s = twice(sets.map(({ tag }) => tag));
	if (s >= 0) throw new InputError(`sets[${s}].tag`, 'This set stands there twice.');
}

/**
 * Who of a team gets what, so that as many are served as can be: one's own to its owner, then what few others could
 * wear is kept for them, then the least air that does. Maximum matching at least cost.
 * @param minutesOfAir that are planned; left out: none
 * @throws InputError on a wearer or a set that stands there twice
 */
export function kitOut(
	wearers: readonly KitWearer[],
	sets: readonly KitSet[],
	minutesOfAir?: number
): KitOut {
	check(wearers, sets);
	const given = cheapestMost({ costs: costsOf(wearers, sets, minutesOfAir) });
	const assignment: Record<string, string> = {};
	const without: KitWearer[] = [];
	wearers.forEach((wearer, i) => {
		const set = sets[given[i] ?? -1];
		if (set) assignment[wearer.id] = set.tag;
		else without.push(wearer);
	});
	const unserved = without.map((wearer) => ({
		wearer: wearer.id,
		reason: whyNot(wearer, sets, minutesOfAir)
	}));
	const count = wearers.length - without.length;
	const reasons: Reason[] = [
		{
			rule: 'kit-out.served',
			text: without.length
				? `${count} of ${wearers.length} can be served, and no way serves more.`
				: `All ${wearers.length} are served.`,
			origin: commonPractice('maximum matching at least cost'),
			limit: wearers.length,
			value: count,
			margin: count - wearers.length
		}
	];
	const help = without.length ? bestHelp(wearers, sets, minutesOfAir, count) : null;
	if (help) reasons.push(help);
	return { assignment, unserved, reasons };
}

function whyNot(wearer: KitWearer, sets: readonly KitSet[], minutes: number | undefined): string {
	if (wearer.fits.length === 0) return 'No fit test counts: nothing that seals can be given out.';
	const fitting = sets.filter((set) => wears(wearer, set, undefined));
	if (fitting.length === 0) {
		const wanted = wearer.fits.map(({ model, size }) => `${model}, size ${size}`).join('; ');
		return `Nothing here fits by their tests: ${wanted}.`;
	}
	if (!fitting.some((set) => wears(wearer, set, minutes)))
		return `What fits has air for less than ${minutes ?? 0} min.`;
	return 'Everything that fits goes to others who have nothing else.';
}

/** The one set more that would serve the most. */
function bestHelp(
	wearers: readonly KitWearer[],
	sets: readonly KitSet[],
	minutes: number | undefined,
	now: number
): Reason | null {
	const wanted = new Map(
		wearers.flatMap(({ fits }) => fits.map((fit) => [key(fit), fit] as const))
	);
	let best: { model: string; size: string; served: number } | null = null;
	for (const { model, size } of wanted.values()) {
		const more: KitSet = { tag: '', model, size, minutesOfAir: minutes };
		const n = served(wearers, [...sets, more], minutes);
		if (n > now && (best === null || n > best.served)) best = { model, size, served: n };
	}
	if (!best)
		return {
			rule: 'kit-out.no-help',
			text: 'No single set more would help: a fit test is wanted first.',
			origin: commonPractice()
		};
	return {
		rule: 'kit-out.help',
		text: `What helps most: one more ${best.model}, size ${best.size}${minutes === undefined ? '' : `, with ${minutes} min of air`}.`,
		origin: commonPractice(),
		value: best.served
	};
}
